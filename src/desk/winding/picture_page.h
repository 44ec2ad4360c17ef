#pragma once

#include <QImage>

#include "desk/page.h"
#include "picture/turn_count.h"

namespace ombrek {

class Card;
class PictureView;

/// Turns counted in a photograph of the coil; the builder strikes and adds marks.
class PicturePage : public Page {
    Q_OBJECT
 public:
    explicit PicturePage(Session& session);
    /// @param about  designator of a coil
    void begin(const QString& about) override;
    void refresh() override;
    void open(const QString& file);
    bool openFile(const QString& path) override {
        open(path);
        return true;
    }
    bool takesPictures() const override { return true; }
    const TurnCount& count() const { return count_; }

 private:
    void choose(int by);
    void strike();
    void add();
    void use();

    QString ref_;
    TurnCount count_;
    bool changed_ = false;  ///< marks were struck or added
    std::size_t at_ = 0;
    PictureView* picture_;
    Card* facts_;
};

}  // namespace ombrek
