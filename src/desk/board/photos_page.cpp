#include "desk/board/photos_page.h"

#include <QPainter>

#include "desk/board/photos_model.h"
#include "look/colours.h"
#include "report/photo_file.h"
#include "report/report_words.h"

namespace ombrek {

/// One photograph in its frame with a word over it.
class PhotoView : public QWidget {
 public:
    explicit PhotoView(const QString& word) : word_(word) {
        setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    }
    void show(const QImage& image) {
        image_ = image;
        setAccessibleName(
            word_ + (image.isNull() ? QStringLiteral(": no photograph") : QStringLiteral(": a photograph")));
        update();
    }

 protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        const Colours& c = coloursOf(*this);
        p.setFont(benchFont(16, true));
        p.setPen(c.ink);
        p.drawText(QRectF(0, 0, width(), 26), Qt::AlignLeft | Qt::AlignVCenter, word_);
        const QRectF room(0, 30, width() - 1.0, height() - 31.0);
        if (image_.isNull()) {
            p.setPen(QPen(c.line, 1.4, Qt::DashLine));
            p.drawRoundedRect(room, 8, 8);
            p.setPen(c.soft);
            p.setFont(benchFont(15));
            p.drawText(room, Qt::AlignCenter, QStringLiteral("no photograph yet"));
            return;
        }
        const QSizeF size = QSizeF(image_.size()).scaled(room.size(), Qt::KeepAspectRatio);
        p.drawImage(QRectF(room.topLeft(), size), image_);
    }

 private:
    QString word_;
    QImage image_;
};

PhotosPage::PhotosPage(Session& session)
    : Page(session, QStringLiteral("Photographs")),
      views_{new PhotoView(QStringLiteral("Before")), new PhotoView(QStringLiteral("After"))} {
    auto* row = new QHBoxLayout;
    row->setSpacing(18);
    row->addWidget(views_[0], 1);
    row->addWidget(views_[1], 1);
    big()->addLayout(row, 1);
    setEnter("back-to-the-board", "back to the board", [this] { emit left(); });
    addKey("add-a-view-from-before", "V", "V", "add a view from before", [this] { add(false); });
    addKey("add-one-from-after", "A", "A", "add one from after", [this] { add(true); });
    addKey("into-the-report", "R", "R", "the last one into the report", [this] { chooseForReport(); });
    addKey("take-the-last-one-away", "Delete", "Delete", "take the last one away", [this] { removeLast(); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

void PhotosPage::begin(const QString& about) {
    step_ = about;
    refresh();
}

void PhotosPage::add(bool after) {
    askToOpen(this, kPictureFile, [this, after](const QString& file) { keep(file, after); });
}

bool PhotosPage::openFile(const QString& path) {
    keep(path, session_.build().done(step_.toStdString()));
    return true;
}

void PhotosPage::keep(const QString& file, bool after) {
    const std::string step = step_.toStdString();
    const bool begun = work().start<Result<QByteArray>>(
        [file](const LongWork::Progress&) { return readPhoto(file); },
        [this, after, step](Result<QByteArray> bytes) {
            if (!bytes) return session_.say(qs(bytes.error().text()), VerdictState::cannotTell);
            if (session_.kept(session_.book().keepPhoto(step, after, bytes->toStdString())))
                session_.say(QStringLiteral("Kept, %1 kB.").arg(bytes->size() / 1000));
        });
    if (!begun) session_.say(QStringLiteral("Another picture is still being read."));
}

void PhotosPage::removeLast() {
    const std::int64_t id = photosView(session_.kit(), session_.build(), step_.toStdString()).last();
    if (id > 0) session_.kept(session_.book().removePhoto(id));
}

/// The last photograph goes into the report, or out of it again.
void PhotosPage::chooseForReport() {
    const std::int64_t id = photosView(session_.kit(), session_.build(), step_.toStdString()).last();
    if (id <= 0) return session_.say(QStringLiteral("There is no photograph here yet."));
    std::string kept;
    bool there = false;
    for (const std::int64_t chosen : chosenPhotos(session_.book().preference(kReportPhotos))) {
        if (chosen == id)
            there = true;
        else
            kept += std::to_string(chosen) + " ";
    }
    if (!there) kept += std::to_string(id);
    if (session_.kept(session_.book().prefer(kReportPhotos, kept)))
        session_.say(there ? QStringLiteral("It is not in the report any more.")
                           : QStringLiteral("It goes into the report."),
                     VerdictState::pass);
}

void PhotosPage::refresh() {
    if (!session_.hasBuild()) return;
    const PhotosView v = photosView(session_.kit(), session_.build(), step_.toStdString());
    setNow(v.now, v.why);
    if (!v.known) return;
    for (const bool after : {false, true}) {
        const std::int64_t id = after ? v.after : v.before;
        if (id == shown_[after]) continue;
        shown_[after] = id;
        QImage image;
        const std::string bytes = id > 0 ? session_.book().photo(id) : std::string();
        image.loadFromData(QByteArray::fromStdString(bytes));
        views_[after]->show(image);
    }
}

}  // namespace ombrek
