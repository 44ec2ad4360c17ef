#pragma once

#include "desk/kit_sheet/kit_model.h"
#include "desk/page.h"

namespace ombrek {

class Card;
class StateList;

/// The kit itself, beside its stations: where the rig is otherwise than its paper, which variant is built,
/// upgrades, another version of its file, and what lies on the bench.
class KitPage : public Page {
    Q_OBJECT
 public:
    explicit KitPage(Session& session);
    /// @param about  "write": ask at once where the kit file shall go
    void begin(const QString& about) override;
    void refresh() override;
    /// A kit file is compared, an upgrade is put on top.
    bool openFile(const QString& path) override;

 private:
    void addKeys();
    void choose(int by);
    void goTo();
    void nextVariant();
    void takeVariant(const std::string& name);
    void write();
    void merge();
    void upgrade(const std::string& text);
    void askBench(std::size_t word);

    std::size_t row_ = 0;
    QString otherFile_;  ///< another version that is compared; empty: none
    std::string other_;  ///< its text
    std::string asked_;  ///< a variant or upgrade that was asked about: again means it
    KitView view_;
    Card *sheet_, *facts_, *rowCard_, *bench_;
    StateList* list_;
};

}  // namespace ombrek
