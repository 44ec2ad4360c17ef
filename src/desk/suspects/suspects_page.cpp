#include "desk/suspects/suspects_page.h"

#include "circuit/models.h"
#include "circuit/simulator.h"
#include "core/quantity/quantity.h"
#include "desk/session.h"
#include "desk/suspects/suspects_board.h"
#include "formats/files.h"
#include "formats/kit_edit.h"
#include "station/first_light/key_down.h"

namespace ombrek {
namespace {

constexpr std::uintmax_t kLargestNetlist = 4000000;

bool same(const std::vector<TakenReading>& a, const std::vector<TakenReading>& b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                      [](const TakenReading& x, const TakenReading& y) {
                          return sameProbe(x.reading, y.reading) && x.reading.value == y.reading.value &&
                                 x.reading.error == y.reading.error;
                      });
}

}  // namespace

SuspectsPage::SuspectsPage(Session& session)
    : Page(session, QStringLiteral("What is wrong")), board_(new SuspectsBoard(big(), side(), this)) {
    setEnter("read-it", "read it", [this] { take(); });
    addKey("choose-a-suspect", "Down", "Up Down", "a suspect", [this] { choose(1); });
    addKey(
        "the-suspect-before", "Up", "Up", "the suspect before", [this] { choose(-1); }, false);
    addKey("it-is-mended", "M", "M", "it is mended", [this] { mended(); });
    addRare("attach-a-circuit", "A", "attach the kit's circuit, a SPICE netlist",
            [this] { askToOpen(this, kNetlistFile, [this](const QString& file) { openFile(file); }); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    connect(board_, &SuspectsBoard::picked, this, [this](int row) {
        at_ = std::size_t(row);
        show();
    });
}

std::string SuspectsPage::basis() const {
    std::string out = session_.build().kitText;
    for (const Part& part : session_.kit().parts) {
        if (part.unit != Unit::ohm) continue;
        if (const Reading* r = session_.build().last(Subject::part(part.ref)))
            out += part.ref + plainNumber(r->value);
    }
    return out;
}

void SuspectsPage::refresh() {
    if (!session_.hasBuild()) return;
    if (isVisible()) judge();
    show();
}

/// Off the window's thread; a reading that comes meanwhile is judged when this is done.
void SuspectsPage::judge() {
    const Kit& kit = session_.kit();
    if (kit.circuit.empty() || working()) return;
    const std::string now = basis();
    if (now != basis_) {
        rig_.reset();
        trouble_.clear();
        basis_ = now;
    }
    if (!trouble_.isEmpty()) return;
    SharedRig rig = rig_;
    if (!rig) {
        auto made = rigOf(kit, session_.build(), shippedModels(), shippedPriors());
        if (!made) {
            trouble_ = qs(made.error().text());
            return;
        }
        rig = *made;
    }
    auto taken = takenReadings(rig->circuit, kit, session_.build());
    if (rig_ && same(taken, rig_->taken)) return;
    // What is shown meanwhile is a rig of its own: the one that is worked on is nobody else's.
    rig_.reset();
    work().start<Result<SharedRig>>(
        [rig, taken, build = session_.build()](const LongWork::Progress& goOn) {
            std::vector<TakenReading> readings = taken;
            return judgeRig(rig, std::move(readings), build, goOn);
        },
        [this](Result<SharedRig> judged) {
            if (judged) {
                rig_ = *judged;
            } else {
                trouble_ = qs(judged.error().text());
            }
            judge();
            show();
        });
}

void SuspectsPage::show() {
    const Kit& kit = session_.kit();
    wantNothing();
    if (kit.circuit.empty() || !trouble_.isEmpty()) {
        setNow(
            trouble_.isEmpty() ? QStringLiteral("This kit comes without a circuit.") : trouble_,
            QStringLiteral("A attaches its SPICE netlist, as a drawing program exports it, its element names "
                           "the designators. Without it F4 says from what feeds what."));
        board_->showNothing(kit, QStringLiteral("Without a circuit there are no suspects to reckon with."));
        setAble("read-it", QStringLiteral("There is no circuit that names a point."));
        setAble("it-is-mended", QStringLiteral("There is no suspect."));
        return;
    }
    if (!isReady()) {
        setNow(QStringLiteral("Every single fault of the circuit is being simulated."),
               QStringLiteral("It takes some seconds, once; Esc stops it."));
        board_->showNothing(kit, QString());
        return;
    }
    view_ = suspectsView(*rig_, at_);
    at_ = view_.at;
    setNow(qs(view_.now), qs(view_.why));
    board_->show(kit, view_);
    const bool reads = !view_.next.is(Subject::Kind::unknown);
    setAble("read-it", reads ? QString() : QStringLiteral("No reading would tell more."));
    const bool suspect = !view_.suspects[view_.at].ref.empty();
    setAble("it-is-mended", suspect ? QString() : QStringLiteral("Choose a suspect first, Up and Down."));
    if (reads) {
        const Reading pattern{0, view_.next, 0, view_.nextUnit, 0, {}, "", 0};
        wantReading(QStringLiteral("%1 reads").arg(qs(view_.touch)), pattern);
    }
}

void SuspectsPage::take() {
    if (!isReady() || view_.next.is(Subject::Kind::unknown)) return;
    Check asked;
    asked.condition = view_.state;
    if (keyDown(asked)) {
        const LoadAsk load = askForLoad(session_.kit(), session_.build(), wallClock(), false);
        if (!load.clear()) {
            if (load.confirm) session_.kept(session_.book().passGate(kLoadOn, "on"));
            return session_.say(qs(load.now), VerdictState::doubtful);
        }
    }
    session_.read({0, view_.next, 0, view_.nextUnit, 0, {}, "", 0});
}

void SuspectsPage::mended() {
    if (!isReady() || view_.suspects[view_.at].ref.empty()) return;
    const Suspect suspect = view_.suspects[view_.at];
    askText(QStringLiteral("%1: what was done").arg(qs(suspect.ref)), QStringLiteral("mended"),
            [this, suspect](const QString& typed) {
                const Repair repair{0, suspect.ref, suspect.what, typed.simplified().toStdString()};
                if (!session_.kept(session_.book().repaired(repair))) return;
                at_ = 0;
                session_.say(
                    QStringLiteral("%1 is mended. What was read before is of another rig: measure again, "
                                   "F4.")
                        .arg(qs(suspect.ref)),
                    VerdictState::doubtful);
            });
}

void SuspectsPage::choose(int by) {
    const int count = int(view_.suspects.size());
    if (count > 0) at_ = std::size_t((int(at_) + by + count) % count);
    show();
}

bool SuspectsPage::openFile(const QString& path) {
    const auto text = readFile(path.toStdString(), kLargestNetlist);
    if (!text) return session_.say(qs(text.error().text()), VerdictState::fail), true;
    const auto circuit = readKitCircuit(*text, shippedModels());
    if (!circuit) return session_.say(qs(circuit.error().text()), VerdictState::fail), true;
    if (!session_.changeKit(withCircuit(session_.build().kitText, *text), "The kit's circuit")) return true;
    QStringList strangers;
    for (const CircuitElement& e : circuit->netlist.elements) {
        const std::string ref = designatorOf(e.name, &session_.kit());
        const bool source = std::string_view("vibegfhks").find(e.kind()) != std::string_view::npos;
        if (!source && session_.kit().part(ref) == nullptr) strangers << qs(e.name);
    }
    const QString lacks = strangers.isEmpty()
                              ? QString()
                              : QStringLiteral(" The parts list has no %1%2.")
                                    .arg(strangers.mid(0, 5).join(QStringLiteral(", ")),
                                         strangers.size() > 5 ? QStringLiteral(" …") : QString());
    session_.say(QStringLiteral("The circuit is attached.") + lacks,
                 strangers.isEmpty() ? VerdictState::pass : VerdictState::doubtful);
    return true;
}

}  // namespace ombrek
