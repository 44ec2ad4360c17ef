#include "desk/kit_sheet/band_page.h"

#include <QTextBrowser>

#include "desk/kit_sheet/band_model.h"
#include "desk/kit_sheet/kit_model.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "formats/kit_edit.h"
#include "formats/kit_variants.h"
#include "look/plot.h"
#include "station/phrases.h"

namespace ombrek {

BandPage::BandPage(Session& session)
    : Page(session, QStringLiteral("Another band")),
      curve_(new Card),
      elements_(new Card),
      again_(new Card),
      plot_(new Plot),
      list_(new StateList),
      text_(new QTextBrowser) {
    curve_->setTitle(QStringLiteral("The low-pass, as supplied and as rebuilt"));
    curve_->addBody(plot_, 1);
    curve_->fillWithBody();
    big()->addWidget(curve_, 3);
    elements_->setTitle(QStringLiteral("What changes"));
    elements_->addBody(list_, 1);
    elements_->fillWithBody();
    big()->addWidget(elements_, 2);
    again_->setTitle(QStringLiteral("To mind, and to measure again"));
    // Many sentences: they scroll, and the caution below them stays.
    text_->setFrameShape(QFrame::NoFrame);
    text_->setFont(benchFont(14));
    text_->setFocusPolicy(Qt::NoFocus);
    text_->setAccessibleName(QStringLiteral("To mind, and to measure again"));
    text_->viewport()->setAutoFillBackground(false);
    again_->addBody(text_, 1);
    again_->fillWithBody();
    side()->addWidget(again_, 1);
    setEnter("take-it", "take it as a variant", [this] { take(); });
    addKey("band", "N", "N", "another band", [this] { ask(); });
    addKey("prototype", "P", "P", "scaled, or from a standard prototype", [this] {
        prototype_ = !prototype_;
        if (rebuilt_) reckon(qs(bandName(rebuilt_->band)));
    });
    addKey("low-pass", "L", "L", "its low-pass, in a line", [this] { askLowPass(); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

void BandPage::begin(const QString& about) {
    rebuilt_.reset();
    prototype_ = false;
    refresh();
    if (about.isEmpty()) return ask();
    reckon(about);
}

void BandPage::ask() {
    askText(QStringLiteral("Which band, as 3.5M..3.8M"), QString(),
            [this](const QString& text) { reckon(text); });
}

void BandPage::reckon(const QString& text) {
    if (!session_.hasBuild()) return;
    const auto band = readBand(text.simplified().toStdString());
    if (!band) return session_.say(qs(band.error().sentence), VerdictState::cannotTell);
    auto rebuilt = rebuild(session_.kit(), *band, session_.tables().cores, prototype_);
    if (!rebuilt) return session_.say(qs(rebuilt.error().sentence), VerdictState::cannotTell);
    rebuilt_ = std::move(*rebuilt);
    session_.say(QString());
    refresh();
}

void BandPage::askLowPass() {
    askText(QStringLiteral("From the finals to the antenna, as C1 L1 C2 L2 C3"), QString(),
            [this](const QString& text) {
                const auto elements = lowPassLine(session_.kit(), text.simplified().toStdString());
                if (!elements) return session_.say(qs(elements.error().sentence), VerdictState::cannotTell);
                if (!session_.changeKit(withLowPass(session_.build().kitText, *elements), "low-pass", {}))
                    return;
                if (rebuilt_) reckon(qs(bandName(rebuilt_->band)));
                session_.say(QStringLiteral("The low-pass is known: %1.").arg(text.simplified()));
            });
}

void BandPage::take() {
    if (!rebuilt_) return ask();
    if (!rebuilt_->barred.empty())
        return session_.say(qs(rebuilt_->barred) + QStringLiteral(" L enters it in a line."),
                            VerdictState::fail);
    const std::string before = session_.build().kitText, name = bandName(rebuilt_->band);
    const std::string supplied =
        session_.kit().variant.empty() ? bandName(rebuilt_->from) + ", as supplied" : session_.kit().variant;
    const auto text =
        withNewVariant(before, supplied, {name, withBand(before, *rebuilt_)}, session_.tables().cores);
    const std::vector<Subject> replaced = text ? replacedBetween(before, *text) : std::vector<Subject>{};
    const auto in = solderedIn(session_.kit(), session_.build(), replaced);
    if (!session_.changeKit(text, "band " + name, replaced)) return;
    rebuilt_.reset();
    emit wants(QStringLiteral("kit"), QString());
    session_.say(in.empty()
                     ? QStringLiteral("It is a variant now, and the one in hand; V on this page changes.")
                     : QStringLiteral("It is a variant now. Soldered in and to be taken out: %1.")
                           .arg(qs(listed(in, 8))),
                 VerdictState::doubtful);
}

void BandPage::refresh() {
    const bool shown = rebuilt_.has_value();
    for (Card* card : {curve_, elements_, again_}) card->setVisible(shown);
    if (!shown) {
        setNow(QStringLiteral("Which band shall it work on?"),
               session_.hasBuild()
                   ? QStringLiteral(
                         "N asks for it. Filters are scaled from the kit's own, capacitors to what one "
                         "can buy, coils to whole turns. Follow your licence.")
                   : QStringLiteral("There is no kit yet."));
        return;
    }
    const BandView v = bandView(*rebuilt_, prototype_);
    setNow(v.now, v.why);
    curve_->setVisible(v.plotted);
    if (v.plotted) plot_->show(v.plot);
    list_->setLines(v.elements);
    text_->setPlainText(v.text);
    again_->setCaution(v.caution);
}

}  // namespace ombrek
