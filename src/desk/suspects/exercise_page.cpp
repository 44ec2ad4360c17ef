#include "desk/suspects/exercise_page.h"

#include <QRandomGenerator>
#include <algorithm>
#include <cmath>

#include "circuit/models.h"
#include "core/quantity/quantity.h"
#include "desk/board/board_map.h"
#include "desk/person.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "formats/encoding.h"

namespace ombrek {
namespace {

constexpr int kNumbers = 10000;  ///< rigs of a grade
constexpr int kRemembered = 50;  ///< games in a person's record

/// A person's games, the newest first.
QStringList games() {
    return person::get(QStringLiteral("exercise/record")).split(QChar('\n'), Qt::SkipEmptyParts);
}

QString ofTheBest(double own, double best) {
    return own >= best ? QStringLiteral("the best")
                       : QStringLiteral("%1\u202f% of the best").arg(int(std::lround(100 * own / best)));
}

QString counted(std::size_t count, const char* what) {
    return QStringLiteral("%1 %2%3").arg(count).arg(QString::fromUtf8(what),
                                                    count == 1 ? QString() : QStringLiteral("s"));
}

}  // namespace

ExercisePage::ExercisePage(Session& session)
    : Page(session, QStringLiteral("Find the fault")),
      map_(new BoardMap),
      where_(new Card),
      taken_(new Card),
      pointList_(new StateList),
      takenList_(new StateList) {
    map_->setLegend(QStringLiteral("ringed: the point in hand"));
    big()->addWidget(map_, 1);
    where_->addBody(pointList_, 1);
    where_->fillWithBody();
    side()->addWidget(where_, 1);
    taken_->addBody(takenList_, 1);
    taken_->fillWithBody();
    side()->addWidget(taken_, 1);
    setEnter("measure", "measure there", [this] { measure(); });
    addKey("choose-a-point", "Down", "Up Down", "a point", [this] { choose(1); });
    addKey(
        "the-point-before", "Up", "Up", "the point before", [this] { choose(-1); }, false);
    addKey("the-next-state", "Right", "Left Right", "what the rig does", [this] { chooseState(1); });
    addKey(
        "the-state-before", "Left", "Left", "what it did before", [this] { chooseState(-1); }, false);
    addKey("name-it", "N", "N", "name the part", [this] {
        if (!exercise_ || over_) return session_.say(QStringLiteral("First hand out a rig: 1, 2 or 3."));
        askText(QStringLiteral("Which part is it?"), QString(), [this](const QString& ref) { name(ref); });
    });
    addKey("a-hint", "T", "T", "a hint", [this] {
        hint_ = true;
        show();
    });
    const char* const grades[] = {"an-easy-rig", "a-harder-rig", "the-hardest-rig"};
    const char* const says[] = {"an easy one", "a harder one", "the hardest"};
    for (int grade = 1; grade <= 3; ++grade) {
        addKey(
            grades[grade - 1], qPrintable(QString::number(grade)), qPrintable(QString::number(grade)),
            says[grade - 1],
            [this, grade] { handOut(QRandomGenerator::global()->bounded(1, kNumbers), grade); }, grade == 1);
    }
    addRare("by-its-number", "C", "a rig by its number, the same for a whole club", [this] {
        askText(QStringLiteral("Its grade and number, as 2 1234"), QString(), [this](const QString& typed) {
            const QStringList words = typed.simplified().split(QChar(' '));
            bool one = false, two = false;
            const int grade = words.value(0).toInt(&one), number = words.value(1).toInt(&two);
            if (!one || !two || grade < 1 || grade > 3 || number < 1 || number > kNumbers)
                return session_.say(
                    QStringLiteral("That is no grade from 1 to 3 and number from 1 to 10,000."),
                    VerdictState::cannotTell);
            handOut(std::uint32_t(number), grade);
        });
    });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    connect(pointList_, &StateList::picked, this, [this](int row) {
        at_ = std::size_t(row);
        show();
    });
}

void ExercisePage::handOut(std::uint32_t seed, int grade) {
    const Kit& kit = session_.kit();
    if (kit.circuit.empty())
        return session_.say(QStringLiteral("This kit comes without a circuit: the practice kit has one."),
                            VerdictState::cannotTell);
    if (working()) return session_.say(QStringLiteral("The last rig is still being made."));
    turns_.clear();
    over_ = found_ = hint_ = false;
    state_ = at_ = 0;
    exercise_.reset();
    rig_.reset();
    struct Made {
        std::shared_ptr<Exercise> exercise;
        SharedRig rig;
    };
    work().start<Result<Made>>(
        [kit, build = session_.build(), seed, grade](const LongWork::Progress& goOn) -> Result<Made> {
            auto exercise = std::make_shared<Exercise>(kit, seed, grade);
            if (!exercise->there())
                return problem("",
                               "No rig can be made: the simulator is not there, or the circuit is not read.");
            auto rig = rigOf(kit, Build(), shippedModels(), shippedPriors());
            if (!rig) return tl::make_unexpected(rig.error());
            // Every state is simulated beforehand, so that each reading is judged at once.
            std::vector<CircuitReading> all{exercise->symptom()};
            const auto states = exercise->states();
            for (const std::string& state : states) {
                const auto nodes =
                    inState(exercise->circuit(), exercise->circuit().state(state), {}, &exercise->kit())
                        .nodes();
                if (!nodes.empty())
                    all.push_back({nodes.front(), "0", CircuitReading::Quantity::voltage, 0, 0, state, 0});
            }
            double done = 0;
            for (const CircuitReading& r : all) {
                const auto simulated = (*rig)->finder->simulateFor(
                    {r}, [&](double share) { return goOn((done + share) / double(all.size())); });
                if (!simulated) return tl::make_unexpected(simulated.error());
                ++done;
            }
            (*rig)->suspicion = (*rig)->finder->rank({exercise->symptom()});
            return Made{exercise, *rig};
        },
        [this](Result<Made> made) {
            if (!made) return session_.say(qs(made.error().text()), VerdictState::cannotTell);
            exercise_ = made->exercise;
            rig_ = made->rig;
            showPoints();
            show();
        });
    show();
}

std::vector<CircuitReading> ExercisePage::readings() const {
    std::vector<CircuitReading> out{exercise_->symptom()};
    for (const Turn& turn : turns_) out.push_back(turn.taken.reading);
    return out;
}

std::string ExercisePage::bestPoint() const {
    if (!rig_) return "";
    const NextReading& n = rig_->suspicion.next;
    return n.node.empty() ? ""
                          : probeWords({n.node, "0", CircuitReading::Quantity::voltage, 0, 0, n.state, 0});
}

void ExercisePage::showPoints() {
    const auto states = exercise_->states();
    const std::string& state = states[state_ % states.size()];
    points_ = inState(exercise_->circuit(), exercise_->circuit().state(state), {}, &exercise_->kit()).nodes();
    std::erase_if(points_, [&](const std::string& node) {
        return partsAt(exercise_->circuit(), exercise_->kit(), node).empty();
    });
    at_ = std::min(at_, points_.empty() ? 0 : points_.size() - 1);
}

void ExercisePage::point(const QString& words) {
    const auto probe = probeAt(words.toStdString());
    if (!exercise_ || !probe) return;
    const auto states = exercise_->states();
    for (std::size_t i = 0; i < states.size(); ++i) {
        if (states[i] == probe->state) state_ = i;
    }
    showPoints();
    const auto hit = std::find(points_.begin(), points_.end(), circuitNode(probe->node));
    if (hit != points_.end()) at_ = std::size_t(hit - points_.begin());
    show();
}

void ExercisePage::measure() {
    if (!exercise_ || points_.empty())
        return session_.say(QStringLiteral("First hand out a rig: 1, 2 or 3."), VerdictState::notDone);
    if (over_) return session_.say(QStringLiteral("This one is over: 1, 2 or 3 hands out another."));
    CircuitReading r{points_[at_],
                     "0",
                     CircuitReading::Quantity::voltage,
                     0,
                     0,
                     exercise_->states()[state_ % exercise_->states().size()],
                     0};
    const double value = exercise_->read(r);
    if (std::isnan(value)) return session_.say(QStringLiteral("The meter finds nothing there."));
    Turn turn;
    turn.worth = rig_->finder->worth(readings(), r);
    turn.best = rig_->suspicion.next.gain;
    turn.bestPoint = bestPoint();
    // A usual meter: 0.5 % and 3 mV.
    r.value = std::round(value * 1000) / 1000;
    r.error = 0.0025 * std::abs(value) + 0.002;
    turn.taken = {r, Subject::node(probeWords(r)), touchAt(exercise_->circuit(), exercise_->kit(), r.node)};
    turns_.push_back(std::move(turn));
    judge();
    show();
}

void ExercisePage::judge() {
    rig_->suspicion = rig_->finder->rank(readings());
    rig_->taken.clear();
    rig_->taken.push_back({exercise_->symptom(), {}, exercise_->complaint()});
    for (const Turn& turn : turns_) rig_->taken.push_back(turn.taken);
}

void ExercisePage::name(const QString& typed) {
    if (!exercise_ || over_) return;
    const std::string ref = typed.simplified().toUpper().toStdString();
    if (exercise_->kit().part(ref) == nullptr)
        return session_.say(QStringLiteral("This kit has no part %1.").arg(typed.simplified().left(20)),
                            VerdictState::cannotTell);
    if (exercise_->swap(ref)) return finish(true);
    session_.say(QStringLiteral("%1 was sound: swapped for nothing. The fault is still there.").arg(qs(ref)),
                 VerdictState::fail);
    show();
}

void ExercisePage::finish(bool found) {
    over_ = true;
    found_ = found;
    QStringList record = games();
    record.prepend(
        QStringLiteral("grade %1, number %2: %3, %4")
            .arg(exercise_->grade())
            .arg(exercise_->seed())
            .arg(counted(turns_.size(), "reading"), counted(std::size_t(exercise_->swaps()), "swap")));
    person::set(QStringLiteral("exercise/record"), record.mid(0, kRemembered).join(QChar('\n')));
    show();
}

void ExercisePage::chooseState(int by) {
    if (!exercise_) return;
    const int count = int(exercise_->states().size());
    state_ = std::size_t((int(state_) + by + count) % count);
    showPoints();
    show();
}

void ExercisePage::choose(int by) {
    const int count = int(points_.size());
    if (count > 0) at_ = std::size_t((int(at_) + by + count) % count);
    show();
}

void ExercisePage::refresh() {
    if (session_.hasBuild()) show();
}

void ExercisePage::show() {
    const QStringList record = games();
    BoardDrawing drawing;
    drawing.board = session_.kit().board;
    std::vector<const Part*> inHand;
    std::vector<std::string> touched, named;
    if (exercise_ && !points_.empty())
        touched = partsAt(exercise_->circuit(), exercise_->kit(), points_[at_]);
    if (over_) named.push_back(exercise_->answer().substr(0, exercise_->answer().find(' ')));
    const auto among = [](const std::vector<std::string>& refs, const std::string& ref) {
        return std::find(refs.begin(), refs.end(), ref) != refs.end();
    };
    for (const Part& part : session_.kit().parts) {
        const bool touch = !over_ && among(touched, part.ref);
        if (touch) inHand.push_back(&part);
        if (!part.place) continue;
        BoardPiece piece;
        piece.part = &part;
        piece.fitting = touch ? BoardPiece::Fitting::now : BoardPiece::Fitting::waits;
        piece.suspect = among(named, part.ref);
        drawing.pieces.push_back(piece);
    }
    map_->show(std::move(drawing), inHand);
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < turns_.size(); ++i) {
        const Turn& t = turns_[i];
        const QString read = qs(formatQuantity(t.taken.reading.value, Unit::volt, 4));
        lines.push_back({over_ && t.worth >= 0.7 * t.best ? VerdictState::pass : VerdictState::notDone,
                         QStringLiteral("%1, %2: %3").arg(qs(t.taken.title), qs(t.taken.reading.state), read),
                         over_ ? ofTheBest(t.worth, t.best) : QString(), false, false, !over_});
    }
    takenList_->setLines(std::move(lines));
    taken_->setTitle(over_ ? QStringLiteral("What each reading told") : QStringLiteral("Read so far"));
    where_->setVisible(!over_);
    taken_->setText(record.isEmpty()
                        ? QString()
                        : QStringLiteral("Games: %1.").arg(record.mid(0, 5).join(QStringLiteral("; "))));
    lines.clear();
    for (std::size_t i = 0; i < points_.size(); ++i)
        lines.push_back({VerdictState::notDone,
                         qs(touchAt(exercise_->circuit(), exercise_->kit(), points_[i])), QString(), i == at_,
                         false, true});
    pointList_->setLines(std::move(lines));
    if (!exercise_) {
        where_->setTitle(QStringLiteral("Points"));
        setNow(working() ? QStringLiteral("A rig is being made, with one fault in it.")
                         : QStringLiteral("Find the fault: a rig with one thing wrong."),
               working() ? QStringLiteral("Every single fault of its circuit is simulated, once.")
                         : QStringLiteral(
                               "1 hands out an easy one, 2 a harder, 3 the hardest; C one by its number, "
                               "the same for a whole club."));
        return;
    }
    const auto states = exercise_->states();
    where_->setTitle(QStringLiteral("Points, %1").arg(qs(states[state_ % states.size()])));
    if (over_) {
        double best = 0, own = 0;
        for (const Turn& t : turns_) best += std::max(t.best, t.worth), own += t.worth;
        const auto first = turns_.empty() ? std::nullopt : probeAt(turns_.front().bestPoint);
        const QString where =
            first ? QStringLiteral("%1, %2").arg(
                        qs(touchAt(exercise_->circuit(), exercise_->kit(), first->node)), qs(first->state))
                  : QStringLiteral("none");
        setNow(QStringLiteral("%1. %2, %3.")
                   .arg(qs(exercise_->answer()), counted(turns_.size(), "reading"),
                        counted(std::size_t(exercise_->swaps()), "swap")),
               turns_.empty()
                   ? QStringLiteral("Named without a reading. 1, 2 or 3 hands out another.")
                   : QStringLiteral(
                         "Your readings told %1. The best first one: %2. 1, 2 or 3 hands out another.")
                         .arg(own >= best ? QStringLiteral("as much as the best would have")
                                          : ofTheBest(own, best),
                              where));
        return;
    }
    const QString number =
        QStringLiteral("Grade %1, number %2. ").arg(exercise_->grade()).arg(exercise_->seed());
    QString why = number + QStringLiteral("Measure where you like; N names the part, and swaps it.");
    if (hint_ && !bestPoint().empty()) {
        const NextReading& n = rig_->suspicion.next;
        why = number + QStringLiteral("Hint: measure %1, %2.")
                           .arg(qs(touchAt(exercise_->circuit(), exercise_->kit(), n.node)), qs(n.state));
    }
    setNow(qs(exercise_->complaint()), why);
}

}  // namespace ombrek
