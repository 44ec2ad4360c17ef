#include "desk/remedy/remedy_page.h"

#include "desk/pieces/card.h"
#include "desk/pieces/reading_card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "desk/pieces/trouble_line.h"
#include "formats/csv.h"
#include "report/supplier_letter.h"

namespace ombrek {

RemedyPage::RemedyPage(Session& session)
    : Page(session, QStringLiteral("What to do about it")),
      reading_(new ReadingCard),
      places_(new Card),
      drawers_(new Card),
      troubles_(new Card),
      offers_(new StateList),
      list_(new StateList) {
    big()->addWidget(reading_);
    big()->addWidget(places_, 1);
    drawers_->setTitle(QStringLiteral("From your drawers"));
    drawers_->addBody(offers_, 1);
    drawers_->fillWithBody();
    side()->addWidget(drawers_, 1);
    troubles_->setTitle(QStringLiteral("All that is wrong"));
    troubles_->addBody(list_, 1);
    troubles_->fillWithBody();
    side()->addWidget(troubles_, 1);
    addKeys();
    connect(offers_, &StateList::picked, this, [this](int row) {
        offer_ = std::size_t(row);
        refresh();
    });
    connect(list_, &StateList::picked, this, [this](int row) {
        at_ = std::size_t(row);
        offer_ = 0;
        refresh();
    });
}

void RemedyPage::addKeys() {
    setEnter("do-it", "do it", [this] { act(); });
    addKey("an-offer", "Down", "Up Down", "an offer", [this] { choose(1); });
    addKey("the-next-trouble", "Right", "Left Right", "the next trouble", [this] { next(1); });
    addKey("found-it", "F", "F", "found it", [this] { found(); });
    addKey("shopping-list", "S", "S", "shopping list", [this] { shopping(); });
    addKey("letter", "L", "L", "letter", [this] { letter(); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    addKey(
        "the-offer-before", "Up", "Up", "the offer before", [this] { choose(-1); }, false);
    addKey(
        "the-trouble-before", "Left", "Left", "the trouble before", [this] { next(-1); }, false);
    addKey(
        "take-the-decision-back", "X", "X", "take the decision back",
        [this] {
            if (view_.part != nullptr)
                session_.kept(session_.book().undecideAll(view_.troubles[view_.at].lines()));
        },
        false);
}

void RemedyPage::begin(const QString& about) {
    at_ = offer_ = 0;
    refresh();
    for (std::size_t i = 0; i < view_.troubles.size(); ++i) {
        const bool wanted = about.isEmpty()
                                ? view_.decided[i].empty() && view_.troubles[i].what != BagTrouble::What::over
                                : qs(view_.troubles[i].ref) == about;
        if (!wanted) continue;
        at_ = i;
        break;
    }
    refresh();
}

void RemedyPage::act() {
    if (view_.troubles.empty()) return;
    const BagTrouble trouble = view_.troubles[view_.at];
    if (trouble.what == BagTrouble::What::misplaced) {
        const PartKind kind = session_.kit().part(trouble.belongsTo)->kind;
        session_.kept(session_.book().movePart(trouble.ref, trouble.belongsTo, kind));
    } else if (trouble.what == BagTrouble::What::loose) {
        const Unit unit = session_.kit().part(trouble.belongsTo)->unit;
        session_.kept(session_.book().settleLoose(trouble.loose, trouble.belongsTo, unit));
    } else if (trouble.what == BagTrouble::What::over) {
        emit wants(QStringLiteral("which-part"), QString::number(trouble.loose));
    } else if (!view_.promised.empty()) {
        const QString ref = qs(trouble.ref);
        const PartKind kind = session_.kit().part(trouble.ref)->kind;
        if (session_.kept(session_.book().takePromised(view_.promised, kind)))
            emit wants(QStringLiteral("parts-in"), ref);
    } else {
        promise();
    }
}

void RemedyPage::promise() {
    if (view_.part == nullptr || view_.offers.empty()) {
        session_.say(QStringLiteral(
            "Your drawers have nothing for this: S puts it on the shopping list, L writes the letter."));
        return;
    }
    const BagTrouble trouble = view_.troubles[view_.at];  // what is kept makes the view anew
    const auto kept = keptFor(trouble, session_.judged(), stock_->lines, session_.book().promises(),
                              std::min(offer_, view_.offers.size() - 1));
    if (!session_.kept(session_.book().promise(kept))) return;
    QStringList refs;
    for (const Book::Kept& one : kept) refs << qs(one.ref);
    const std::size_t all = trouble.lines().size();
    session_.say(
        QStringLiteral("Kept back for %1; no other kit is offered it.").arg(refs.join(QStringLiteral(", "))) +
            (kept.size() < all
                 ? QStringLiteral(" For %1 more nothing is left: S or L.").arg(all - kept.size())
                 : QString()),
        kept.size() < all ? VerdictState::doubtful : VerdictState::pass);
}

void RemedyPage::found() {
    if (view_.part != nullptr) emit wants(QStringLiteral("parts-in"), qs(view_.part->ref));
}

void RemedyPage::choose(int by) {
    const int count = int(view_.offers.size());
    if (count > 0) offer_ = std::size_t((int(offer_) + by + count) % count);
    refresh();
}

void RemedyPage::next(int by) {
    const int count = int(view_.troubles.size());
    if (count > 0) at_ = std::size_t((int(view_.at) + by + count) % count);
    offer_ = 0;
    refresh();
}

/// Everything that is wrong and has no decision yet is decided this way, in one action each.
void RemedyPage::decide(Remedy::How how) {
    const auto& decided = session_.build().remedies;
    std::vector<std::string> refs;
    for (const ShoppingLine& line : shoppingList(session_.judged())) {
        for (const std::string& ref : line.refs) {
            if (!decided.contains(ref)) refs.push_back(ref);
        }
    }
    if (!refs.empty()) session_.kept(session_.book().decideAll(refs, {how, ""}));
}

void RemedyPage::shopping() {
    const auto lines = shoppingList(session_.judged());
    if (lines.empty()) return session_.say(QStringLiteral("There is nothing to buy."));
    writeOut(
        kCsvFile, qs(session_.kit().id) + QStringLiteral("-shopping.csv"),
        [lines] {
            std::string out;
            for (const auto& row : shoppingRows(lines)) out += csvLine(row);
            return QByteArray::fromStdString(out);
        },
        [this] { decide(Remedy::How::shopping); });
}

void RemedyPage::letter() {
    if (session_.judged().story().weighing)
        return session_.say(
            QStringLiteral("The last reading is still being weighed: ask again in a moment."));
    const std::string text = supplierLetter(session_.judged());
    writeOut(
        kTextFile, qs(session_.kit().id) + QStringLiteral("-letter.txt"),
        [text] { return QByteArray::fromStdString(text); }, [this] { decide(Remedy::How::supplier); });
}

void RemedyPage::refresh() {
    if (!session_.hasBuild()) return;
    stock_ = session_.drawers();
    view_ = remedyView(session_.judged(), stock_->lines, session_.book().promises(), at_, offer_);
    setNow(qs(view_.now), qs(view_.why));
    const bool offered = !view_.offers.empty();
    setAble("take-the-decision-back", view_.part == nullptr || view_.decided[view_.at].empty()
                                          ? QStringLiteral("Nothing is decided about this one.")
                                          : QString());
    reading_->show(
        {qs(view_.head), qs(view_.beside), view_.verdict,
         view_.part != nullptr && view_.part->nominal > 0 ? view_.part->nominal : NAN,
         QStringLiteral("nothing at hand"),
         view_.troubles.empty() ? QString() : qs(view_.troubles[view_.at].sentence),
         offered ? QStringLiteral("Bar: where the offered part may lie, by its own tolerance.") : QString()});
    showPlaces();
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < view_.offers.size(); ++i) {
        const Substitute& s = view_.offers[i];
        const QString off = std::abs(s.deviation) < 0.05
                                ? QStringLiteral("exact")
                                : qs(decimals(s.deviation, 1, true)) + QStringLiteral("\u202f%");
        lines.push_back({s.within ? VerdictState::pass : VerdictState::doubtful,
                         qs(describe(s, stock_->lines, false)), off, i == offer_, false});
    }
    offers_->setLines(std::move(lines));
    if (offered) {
        const std::size_t at = std::min(offer_, view_.offers.size() - 1);
        drawers_->setText(qs(view_.offerTexts[at]) + QStringLiteral(". Enter keeps it back for this kit."));
    } else {
        drawers_->setText(
            QStringLiteral("Nothing here can stand for it, alone or as two in series or parallel."));
    }
    lines.clear();
    for (std::size_t i = 0; i < view_.troubles.size(); ++i) {
        const QString right = view_.decided[i].empty() ? QStringLiteral("open") : QStringLiteral("settled");
        lines.push_back({view_.troubles[i].state, qs(view_.troubles[i].head), right, i == view_.at, false});
    }
    list_->setLines(std::move(lines));
}

void RemedyPage::showPlaces() {
    delete placeList_;
    placeList_ = new QWidget;
    auto* layout = new QVBoxLayout(placeList_);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(6);
    const bool missing =
        !view_.troubles.empty() && view_.troubles[view_.at].what == BagTrouble::What::missing;
    const std::size_t most = 5;
    for (std::size_t i = 0; missing && i < view_.places.size() && i < most; ++i)
        layout->addWidget(
            new TroubleLine(VerdictState::notDone, qs(view_.places[i].where), qs(view_.places[i].why)));
    for (const auto& [way, why] : view_.ways) {
        if (!missing) layout->addWidget(new TroubleLine(VerdictState::notDone, qs(way), qs(why)));
    }
    layout->addStretch(1);
    places_->setTitle(missing ? QStringLiteral("Look again first") : QStringLiteral("Ways out"));
    places_->addBody(placeList_);
    places_->setVisible(!view_.troubles.empty());
}

}  // namespace ombrek
