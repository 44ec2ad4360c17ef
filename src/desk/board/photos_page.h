#pragma once

#include "desk/page.h"

namespace ombrek {

/// Photographs of one step: before and after, side by side.
class PhotosPage : public Page {
    Q_OBJECT
 public:
    explicit PhotosPage(Session& session);
    /// @param about  step id
    void begin(const QString& about) override;
    void refresh() override;
    /// Kept as a view from after where the step is done, from before where it is not.
    bool openFile(const QString& path) override;
    bool takesPictures() const override { return true; }

 private:
    void add(bool after);
    void keep(const QString& file, bool after);
    void removeLast();
    void chooseForReport();

    QString step_;
    std::int64_t shown_[2] = {-1, -1};
    class PhotoView* views_[2];
};

}  // namespace ombrek
