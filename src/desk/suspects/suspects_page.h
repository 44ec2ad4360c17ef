#pragma once

#include "desk/page.h"
#include "desk/suspects/suspects_model.h"

namespace ombrek {

class SuspectsBoard;

/// What is wrong with the rig: every single fault of its circuit held against all that was read, and the next
/// most telling point.
class SuspectsPage : public Page {
    Q_OBJECT
 public:
    explicit SuspectsPage(Session& session);
    void refresh() override;
    bool openFile(const QString& path) override;
    bool isReady() const { return rig_ != nullptr && !rig_->suspicion.suspects.empty(); }
    const SuspectsView& view() const { return view_; }

 private:
    void judge();
    void show();
    void take();
    void mended();
    void choose(int by);
    /// What the rig was made of: another kit, or a part measured, has it made anew.
    std::string basis() const;

    SuspectsBoard* board_;
    SharedRig rig_;
    std::string basis_;
    std::vector<TakenReading> asked_;  ///< what the work that runs is for
    QString trouble_;
    SuspectsView view_;
    std::size_t at_ = 0;
};

}  // namespace ombrek
