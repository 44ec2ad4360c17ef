#include "desk/list/delivery_page.h"

#include <QClipboard>
#include <QGuiApplication>
#include <map>

#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "formats/files.h"
#include "formats/parts_list.h"
#include "station/phrases.h"

namespace ombrek {
namespace {

VerdictState stateOf(Delivery delivery) {
    switch (delivery) {
        case Delivery::complete:
            return VerdictState::pass;
        case Delivery::shortShipped:
        case Delivery::backOrdered:
            return VerdictState::fail;
        case Delivery::notOnList:
            return VerdictState::notDone;
        default:
            return VerdictState::doubtful;
    }
}

}  // namespace

DeliveryPage::DeliveryPage(Session& session)
    : Page(session, QStringLiteral("Delivery")),
      what_(textLabel(28, true)),
      sentence_(textLabel(17)),
      card_(new Card),
      counts_(new Card),
      list_(new StateList) {
    card_->addBody(what_);
    card_->addBody(sentence_);
    big()->addWidget(card_, 0);
    auto* all = new Card;
    all->setTitle(QStringLiteral("What came of the order"));
    all->addBody(list_, 1);
    all->fillWithBody();
    big()->addWidget(all, 1);
    side()->addWidget(counts_, 1);
    setEnter("mark-what-did-not-come", "mark what did not come", [this] { markMissing(); });
    const auto choose = [this](int by) {
        const int count = int(lines_.size());
        if (count > 0) row_ = std::size_t((int(row_) + by + count) % count);
        refresh();
    };
    addKey("a-line", "Down", "Up Down", "a line", [choose] { choose(1); });
    addKey("open-a-file", "O", "O", "open a file", [this] {
        askFile(QStringLiteral("Packing list"), QStringLiteral("packing.csv"),
                [this](const QString& f) { open(f); });
    });
    addKey("paste", "Ctrl+V", "Ctrl+V", "paste", [this] { paste(); });
    addKey("back", "Esc", "Esc", "back", [this] {
        if (working()) return work().stop();
        emit left();
    });
    addKey(
        "the-line-before", "Up", "Up", "the line before", [choose] { choose(-1); }, false);
    connect(list_, &StateList::picked, this, [this](int row) {
        row_ = std::size_t(row);
        refresh();
    });
}

void DeliveryPage::begin(const QString& about) {
    if (!about.isEmpty()) open(about);
    refresh();
}

void DeliveryPage::open(const QString& file) {
    const auto bytes = readFile(file.toStdString(), kLargestList);
    if (!bytes) return session_.say(qs(bytes.error().text()), VerdictState::fail);
    read(*bytes);
}

void DeliveryPage::paste() { read(QGuiApplication::clipboard()->text().toStdString()); }

void DeliveryPage::read(std::string bytes) {
    const bool begun = work().start<Result<std::vector<PackingLine>>>(
        [bytes = std::move(bytes)](const LongWork::Progress& progress) {
            return readPackingList(bytes, progress);
        },
        [this](Result<std::vector<PackingLine>> read) {
            if (!read) return session_.say(qs(read.error().text()), VerdictState::fail);
            packing_ = std::move(*read);
            row_ = 0;
            session_.say(QStringLiteral("%1 lines read.").arg(packing_.size()));
            refresh();
        });
    if (!begun) session_.say(QStringLiteral("Something is still being read."));
}

/// Designators that were ordered and did not come, and that nothing is known of yet.
std::vector<std::string> DeliveryPage::notCome() const {
    std::vector<std::string> out;
    for (const DeliveryLine& line : lines_) {
        if (line.state != Delivery::shortShipped && line.state != Delivery::backOrdered) continue;
        int missing = line.wanted - line.shipped;
        for (auto ref = line.refs.rbegin(); ref != line.refs.rend() && missing > 0; ++ref, --missing) {
            const Part* part = session_.kit().part(*ref);
            if (part != nullptr && session_.judged().part(*part).state == VerdictState::notDone)
                out.push_back(*ref);
        }
    }
    return out;
}

void DeliveryPage::markMissing() {
    const auto refs = notCome();
    if (refs.empty()) return session_.say(QStringLiteral("Nothing that came short is still open."));
    if (session_.keep(session_.book().markParts(refs, PartMark::missing)))
        session_.say(QStringLiteral("Marked as not here: %1.").arg(qs(listed(refs, 8))), VerdictState::pass);
}

void DeliveryPage::refresh() {
    if (!session_.hasBuild()) return;
    lines_ = packing_.empty() ? std::vector<DeliveryLine>() : reconcile(orderOf(session_.kit()), packing_);
    std::stable_sort(lines_.begin(), lines_.end(), [](const DeliveryLine& a, const DeliveryLine& b) {
        const auto rank = [](Delivery d) {
            return d == Delivery::complete ? 2 : d == Delivery::notOnList ? 1 : 0;
        };
        return rank(a.state) < rank(b.state);
    });
    row_ = std::min(row_, lines_.empty() ? 0 : lines_.size() - 1);
    const auto refs = notCome();
    if (lines_.empty()) {
        setNow(QStringLiteral("Set the packing list against the order."),
               QStringLiteral("O opens the distributor's table (CSV); Ctrl+V pastes it."));
    } else {
        setNow(refs.empty() ? QStringLiteral("What came is set against the list.")
                            : QStringLiteral("%1 parts did not come: Enter marks them.").arg(refs.size()),
               refs.empty() ? QStringLiteral("Esc goes back to the bag.") : qs(listed(refs, 8)));
    }
    std::vector<StateLine> rows;
    std::map<Delivery, int> counts;
    for (std::size_t i = 0; i < lines_.size(); ++i) {
        const DeliveryLine& l = lines_[i];
        ++counts[l.state];
        const QString who = l.refs.empty() ? QString() : qs(listed(l.refs, 3)) + QStringLiteral(": ");
        rows.push_back({stateOf(l.state), who + qs(l.what), qs(word(l.state)), i == row_, false});
    }
    list_->setLines(std::move(rows));
    card_->setVisible(!lines_.empty());
    if (!lines_.empty()) {
        what_->setText(qs(lines_[row_].what));
        sentence_->setText(qs(lines_[row_].sentence));
    }
    counts_->setTitle(lines_.empty() ? QStringLiteral("What it needs") : QStringLiteral("In all"));
    std::vector<Card::Fact> facts;
    for (const auto& [state, count] : counts)
        facts.push_back({qs(word(state)), QString::number(count), stateOf(state), true});
    counts_->setFacts(facts);
    counts_->setText(lines_.empty()
                         ? QStringLiteral("A heading with what was ordered, shipped or back-ordered, and an "
                                          "order code or a description. Lines meet by code, else by value.")
                         : QString());
}

}  // namespace ombrek
