#include "desk/bench/add_instrument_page.h"

#include <QFileInfo>
#include <algorithm>

#include "desk/bench/bench_page.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "instruments/bench.h"

namespace ombrek {
namespace {

/// What is to know of each way before it is used.
struct WayWords {
    Way way;
    const char *ask, *example, *about, *caution;
};
constexpr WayWords kWays[] = {
    {Way::serial, "Port and speed", "/dev/ttyUSB0 9600 8N1",
     "A multimeter or L/C meter on a serial lead, of USB or not. Speed and frame stand in its manual; 9600 "
     "8N1 is the usual one. \"dtr\" or \"rts\" behind "
     "them feeds a lead that takes its power from the port.",
     "RS-232 has up to 12 V either way, a bare board's pins 3.3 or 5 V: a level converter between them."},
    {Way::usbtmc, "Device", "/dev/usbtmc0",
     "A bench instrument with a USB socket of the test-and-measurement class. Where it may not be opened, a "
     "rule of udev gives it to you.",
     "Its ground is the computer's: not on anything that stands on mains."},
    {Way::tcp, "Host and port", "192.168.1.20:5025",
     "A bench instrument on the network, by its address; 5025 is the usual port of SCPI. No network is "
     "searched.",
     ""},
    {Way::sigrok, "Driver, as libsigrok names it", "demo",
     "Multimeters, LCR meters and supplies that libsigrok has a driver for: driver:conn=/dev/ttyUSB0, and "
     "behind a blank the channel. It runs in a process "
     "of its own.",
     "Optical leads keep the meter apart from the computer; others do not."},
    {Way::folder, "Folder that the instrument writes into", "",
     "An analyser or scope that leaves its traces and Touchstone files in a folder: what is new there is "
     "offered to you, Ctrl+T takes it.",
     ""}};

const WayWords& wordsFor(Way way) {
    return *std::find_if(std::begin(kWays), std::end(kWays), [&](const WayWords& w) { return w.way == way; });
}

}  // namespace

AddInstrumentPage::AddInstrumentPage(Session& session)
    : Page(session, QStringLiteral("Add an instrument")),
      list_(new StateList),
      about_(new Card),
      places_(new Card) {
    places_->setTitle(QStringLiteral("Where it may be"));
    places_->addBody(list_, 1);
    places_->fillWithBody();
    big()->addWidget(places_, 1);
    side()->addWidget(about_, 0);
    side()->addStretch(1);
    setEnter("this-is-it", "this is it", [this] { add(); });
    addKey("a-place", "Down", "Up Down", "a place", [this] { choose(1); });
    addRare("the-place-before", "Up", "the place before", [this] { choose(-1); });
    addKey("look-again", "R", "R", "look again", [this] { look(); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    connect(list_, &StateList::picked, this, [this](int row) {
        at_ = row;
        refresh();
    });
}

void AddInstrumentPage::begin(const QString&) {
    at_ = 0;
    look();
}

void AddInstrumentPage::look() {
    found_ = lookAround();
    for (const Way way : {Way::tcp, Way::serial, Way::usbtmc, Way::sigrok, Way::folder})
        found_.push_back({way, "", "to be typed"});
    refresh();
}

void AddInstrumentPage::choose(int by) {
    const int count = int(found_.size());
    if (count > 0) at_ = (at_ + by + count) % count;
    refresh();
}

void AddInstrumentPage::add() {
    if (at_ >= int(found_.size())) return;
    const Found found = found_[std::size_t(at_)];
    if (!found.address.empty() && found.way != Way::serial) return take(found);
    const WayWords& words = wordsFor(found.way);
    const QString start = found.address.empty() ? QString::fromUtf8(words.example)
                                                : qs(found.address) + QStringLiteral(" 9600 8N1");
    askText(QString::fromUtf8(words.ask), start, [this, way = found.way](const QString& text) {
        take({way, text.trimmed().toStdString(), ""});
    });
}

/// Into the list under a name that nobody has, once its address can be read.
void AddInstrumentPage::take(const Found& found) {
    Instrument made;
    made.way = found.way;
    made.address = found.address;
    if (found.way == Way::tcp || found.way == Way::serial || found.way == Way::usbtmc) made.speaks = "lines";
    if (found.way == Way::folder && made.address.empty())
        return session_.say(QStringLiteral("Write the folder."), VerdictState::cannotTell);
    if (const auto device = makeDevice(made, {}, session_.practice()); !device)
        return session_.say(qs(device.error().sentence), VerdictState::cannotTell);
    made.speaks.clear();
    const auto& all = session_.bench().instruments();
    const QString place = qs(made.address).section(QChar(' '), 0, 0);
    const QString device = found.way == Way::serial ? QFileInfo(place).canonicalFilePath() : QString();
    std::string base = (device.isEmpty() || device.startsWith(QStringLiteral("/dev/pts")) ? place : device)
                           .section(QChar('/'), -1)
                           .section(QChar(':'), 0, 0)
                           .toStdString();
    if (base.empty()) base = "instrument";
    made.name = base;
    const auto taken = [&] {
        return std::any_of(all.begin(), all.end(), [&](auto& i) { return i.name == made.name; });
    };
    for (int n = 2; taken(); ++n) made.name = base + " " + std::to_string(n);
    for (const Instrument& other : all) made.place = std::max(made.place, other.place + 1);
    const auto kept = session_.keepInstrument(made);
    if (!kept) return session_.say(qs(kept.error().text()), VerdictState::cannotTell);
    emit wants(QStringLiteral("bench"), qs(made.name));
}

void AddInstrumentPage::refresh() {
    if (found_.empty()) return;
    at_ = std::clamp(at_, 0, int(found_.size()) - 1);
    std::vector<StateLine> lines;
    for (int i = 0; i < int(found_.size()); ++i) {
        const Found& f = found_[std::size_t(i)];
        const bool typed = f.address.empty();
        lines.push_back({VerdictState::notDone, typed ? wordsOf(f.way) + QStringLiteral(" …") : qs(f.address),
                         qs(f.what), i == at_, false, true});
    }
    list_->setLines(std::move(lines));
    const Found& f = found_[std::size_t(at_)];
    const bool any =
        std::any_of(found_.begin(), found_.end(), [](auto& one) { return !one.address.empty(); });
    setNow(
        any ? QStringLiteral("Which one is it? Enter takes it into the list.")
            : QStringLiteral("Nothing is plugged in here: say where it is, with Enter."),
        QStringLiteral(
            "Looked at: this machine's serial ports and USB instruments. R looks again after plugging in."));
    const WayWords& words = wordsFor(f.way);
    about_->setTitle(wordsOf(f.way));
    about_->setText(QString::fromUtf8(words.about));
    about_->setCaution(QString::fromUtf8(words.caution));
}

}  // namespace ombrek
