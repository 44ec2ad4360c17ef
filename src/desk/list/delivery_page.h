#pragma once

#include "desk/page.h"
#include "lists/packing_list.h"

namespace ombrek {

class Card;
class StateList;

/// A distributor's packing list against the kit that was ordered.
class DeliveryPage : public Page {
    Q_OBJECT
 public:
    explicit DeliveryPage(Session& session);
    void begin(const QString& about) override;
    void refresh() override;
    const std::vector<DeliveryLine>& lines() const { return lines_; }

 private:
    void open(const QString& file);
    bool openFile(const QString& path) override {
        open(path);
        return true;
    }
    bool takeText(const QString& text) override;
    void paste();
    /// @param source  asked for the bytes off the window's thread
    void read(std::function<Result<std::string>()> source);
    void markMissing();

    std::vector<PackingLine> packing_;
    std::vector<DeliveryLine> lines_;
    std::size_t row_ = 0;
    QLabel *what_, *sentence_;
    Card *card_, *counts_;
    StateList* list_;
};

}  // namespace ombrek
