#include "desk/winding/picture_page.h"

#include "desk/pieces/card.h"
#include "desk/winding/picture_model.h"
#include "desk/winding/picture_view.h"
#include "report/picture_file.h"
#include "station/winding/winding.h"

namespace ombrek {
namespace {

struct Seen {
    QImage image;
    TurnCount count;
};

Result<Seen> look(const std::string& file) {
    const auto picture = readPicture(file);
    if (!picture) return tl::make_unexpected(picture.error());
    auto count = countTurns(*picture);
    if (!count) return tl::make_unexpected(count.error());
    const QImage image(picture->rgb.data(), picture->width, picture->height, picture->width * 3,
                       QImage::Format_RGB888);
    return Seen{image.copy(), std::move(*count)};
}

}  // namespace

PicturePage::PicturePage(Session& session)
    : Page(session, QStringLiteral("Count in a picture")), picture_(new PictureView), facts_(new Card) {
    big()->addWidget(picture_, 1);
    side()->addWidget(facts_, 1);
    setEnter("use-this-count", "use this count", [this] { use(); });
    addKey("open-a-picture", "O", "O", "open a picture",
           [this] { askToOpen(this, kPictureFile, [this](const QString& f) { open(f); }); });
    addKey("a-mark", "Right", "Left Right", "a mark", [this] { choose(1); });
    addKey("strike-it", "Delete", "Del", "strike it", [this] { strike(); });
    addKey("add-one-behind-it", "A", "A", "add one behind it", [this] { add(); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    addKey(
        "the-mark-before", "Left", "Left", "the mark before", [this] { choose(-1); }, false);
}

void PicturePage::begin(const QString& about) {
    if (ref_ != about) {
        count_ = {};
        picture_->setImage({});
    }
    ref_ = about;
    refresh();
}

void PicturePage::open(const QString& file) {
    const bool begun = work().start<Result<Seen>>(
        [file](const LongWork::Progress&) { return look(file.toStdString()); },
        [this](Result<Seen> seen) {
            if (!seen) return session_.say(qs(seen.error().text()), VerdictState::fail);
            count_ = std::move(seen->count);
            changed_ = false;
            at_ = 0;
            picture_->setImage(seen->image);
            session_.say(qs(count_.sentence), count_.sure ? VerdictState::pass : VerdictState::doubtful);
            refresh();
        });
    if (!begun) session_.say(QStringLiteral("A picture is still being looked at."));
}

void PicturePage::choose(int by) {
    const int n = int(count_.marks.size());
    if (n > 0) at_ = std::size_t((int(at_) + by + n) % n);
    refresh();
}

void PicturePage::strike() {
    if (count_.marks.empty()) return;
    count_.marks.erase(count_.marks.begin() + std::ptrdiff_t(at_));
    at_ = std::min(at_, count_.marks.empty() ? 0 : count_.marks.size() - 1);
    changed_ = true;
    refresh();
}

void PicturePage::add() {
    if (count_.marks.empty()) return;
    const WireMark &a = count_.marks[at_], &b = count_.marks[(at_ + 1) % count_.marks.size()];
    const WireMark between{(a.angle + b.angle) / 2, (a.x1 + b.x1) / 2, (a.y1 + b.y1) / 2,
                           (a.x2 + b.x2) / 2,       (a.y2 + b.y2) / 2, 1};
    count_.marks.insert(count_.marks.begin() + std::ptrdiff_t(at_) + 1, between);
    ++at_;
    changed_ = true;
    refresh();
}

void PicturePage::use() {
    const Coil* coil = session_.kit().coil(ref_.toStdString());
    if (coil == nullptr || count_.marks.empty()) return;
    const auto hand = windingInHand(*coil, session_.build());
    if (!hand) return session_.say(QStringLiteral("%1 is wound; A on Winding opens it again.").arg(ref_));
    if (session_.kept(
            session_.book().setTurns(coil->ref, coil->windings[*hand].name, int(count_.marks.size()))))
        emit left();
}

void PicturePage::refresh() {
    if (!session_.hasBuild()) return;
    picture_->setMarks(count_.marks, at_);
    const PictureCountView v = pictureCountView(session_.kit(), session_.build(), ref_.toStdString(), count_,
                                                picture_->hasImage(), changed_);
    setNow(v.now, v.why);
    facts_->setTitle(QStringLiteral("Against the counter and the plan"));
    facts_->setFacts(v.facts);
    facts_->setText(v.text);
}

}  // namespace ombrek
