#include "desk/suspects/compare_page.h"

#include <algorithm>
#include <cmath>
#include <sstream>

#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/suspects/suspects_model.h"

namespace ombrek {
namespace {

constexpr const char* kKept = "bands compared";
constexpr std::size_t kMost = 60;  ///< rows
constexpr std::size_t kCausesMost = 8;

std::string lineOf(const Channel& c) {
    std::string out = c.name + " " + std::string(word(c.works));
    for (const std::string& ref : c.uses) out += " " + ref;
    return out;
}

VerdictState stateOf(Channel::Works works) {
    return works == Channel::Works::yes    ? VerdictState::pass
           : works == Channel::Works::weak ? VerdictState::doubtful
                                           : VerdictState::fail;
}

}  // namespace

ComparePage::ComparePage(Session& session)
    : Page(session, QStringLiteral("Bands compared")),
      table_(new Card),
      causes_(new Card),
      rows_(new StateList),
      list_(new StateList) {
    table_->setTitle(QStringLiteral("Bands and functions"));
    table_->addBody(rows_, 1);
    table_->fillWithBody();
    big()->addWidget(table_, 1);
    causes_->setTitle(QStringLiteral("What the dead ones share"));
    causes_->addBody(list_, 1);
    causes_->fillWithBody();
    side()->addWidget(causes_, 1);
    setEnter("write-one-down", "write one down", [this] {
        askText(QStringLiteral("Name, works or weak or dead, parts"), QString(),
                [this](const QString& line) { add(line); });
    });
    addKey("choose-a-band", "Down", "Up Down", "a band", [this] { choose(1); });
    addKey(
        "the-band-before", "Up", "Up", "the band before", [this] { choose(-1); }, false);
    addKey("works-weak-dead", "W", "W", "works, weak, dead", [this] { turn(); });
    addKey("take-it-out", "X", "X", "take it out", [this] {
        auto all = kept();
        if (at_ < all.size()) all.erase(all.begin() + std::ptrdiff_t(at_));
        keep(all);
    });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    connect(rows_, &StateList::picked, this, [this](int row) {
        at_ = std::size_t(row);
        refresh();
    });
}

std::vector<Channel> ComparePage::kept() const {
    std::vector<Channel> out;
    std::istringstream in(session_.book().preference(kKept));
    for (std::string line; std::getline(in, line);) {
        if (auto channel = readChannel(line)) out.push_back(std::move(*channel));
    }
    return out;
}

void ComparePage::keep(const std::vector<Channel>& channels) {
    std::string text;
    for (const Channel& c : channels) text += lineOf(c) + "\n";
    session_.kept(session_.book().prefer(kKept, text));
    refresh();
}

void ComparePage::add(const QString& line) {
    auto channel = readChannel(line.simplified().toStdString());
    if (!channel) return session_.say(qs(channel.error().sentence), VerdictState::cannotTell);
    auto all = kept();
    const auto same =
        std::find_if(all.begin(), all.end(), [&](const Channel& c) { return c.name == channel->name; });
    if (same != all.end()) {
        *same = std::move(*channel);
        at_ = std::size_t(same - all.begin());
    } else if (all.size() == kMost) {
        return session_.say(QStringLiteral("Sixty are enough to compare."), VerdictState::cannotTell);
    } else {
        all.push_back(std::move(*channel));
        at_ = all.size() - 1;
    }
    keep(all);
}

bool ComparePage::takeText(const QString& text) {
    for (const QString& line : text.split(QChar('\n'), Qt::SkipEmptyParts)) add(line);
    return true;
}

void ComparePage::turn() {
    auto all = kept();
    if (at_ >= all.size()) return session_.say(QStringLiteral("Write one down first: Enter."));
    all[at_].works = Channel::Works((int(all[at_].works) + 1) % 3);
    keep(all);
}

void ComparePage::choose(int by) {
    const int count = int(kept().size());
    if (count > 0) at_ = std::size_t((int(at_) + by + count) % count);
    refresh();
}

void ComparePage::refresh() {
    const auto all = kept();
    at_ = std::min(at_, all.empty() ? 0 : all.size() - 1);
    setNow(qs(comparedWords(all)),
           QStringLiteral(
               "One a line: its name, works or weak or dead, and the parts that only some of them use, as "
               "\"30m dead K3 L5\"."));
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < all.size(); ++i) {
        std::string uses;
        for (const std::string& ref : all[i].uses) uses += (uses.empty() ? "" : " ") + ref;
        lines.push_back({stateOf(all[i].works), qs(all[i].name + ": " + std::string(word(all[i].works))),
                         qs(uses), i == at_, false});
    }
    rows_->setLines(std::move(lines));
    lines.clear();
    const auto causes = sharedCauses(all);
    for (std::size_t i = 0; i < std::min(kCausesMost, causes.size()); ++i) {
        std::string parts;
        for (const std::string& ref : causes[i].parts) parts += (parts.empty() ? "" : " ") + ref;
        lines.push_back({VerdictState::notDone,
                         causes[i].kind ? QStringLiteral("the kind: %1").arg(qs(parts)) : qs(causes[i].what),
                         qs(oddsText(causes[i].odds)), i == 0, false, i != 0});
    }
    list_->setLines(std::move(lines));
    causes_->setText(
        causes.empty()
            ? QStringLiteral("Two bands that are dead together say more than one.")
            : QStringLiteral("Odds of all together; common practice, to be overruled by a reading."));
    const QString none = all.empty() ? QStringLiteral("Write one down first: Enter.") : QString();
    setAble("works-weak-dead", none);
    setAble("take-it-out", none);
}

}  // namespace ombrek
