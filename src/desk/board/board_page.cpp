#include "desk/board/board_page.h"

#include <algorithm>
#include <set>

#include "desk/board/board_map.h"
#include "desk/board/board_model.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "desk/pieces/trouble_line.h"
#include "formats/files.h"
#include "formats/kit_edit.h"
#include "formats/kit_json.h"
#include "lists/placement.h"
#include "report/build_sheet.h"
#include "station/board/board.h"
#include "station/board/plan_edit.h"
#include "station/board/sitting.h"
#include "station/notes.h"
#include "station/phrases.h"

namespace ombrek {

BoardPage::BoardPage(Session& session)
    : Page(session, qs(word(Station::board))),
      map_(new BoardMap),
      step_(new Card),
      plan_(new Card),
      list_(new StateList) {
    big()->addWidget(map_, 1);
    side()->addWidget(step_, 0);
    plan_->addBody(list_, 1);
    plan_->fillWithBody();
    side()->addWidget(plan_, 1);
    addKeys();
    addRoomKeys();
    connect(list_, &StateList::picked, this, [this](int row) {
        chosen_ = qs(session_.kit().steps[session_.judged().order()[std::size_t(row)]].id);
        refresh();
    });
}

void BoardPage::addKeys() {
    takesPaper("steps");
    setEnter("done", "done", [this] { done(); });
    addKey("other-side", "M", "M", "other side", [this] {
        mirrored_ = !mirrored_;
        refresh();
    });
    addKey("nearer", "+", "+ \u2212", "nearer", [this] {
        zoom_ = std::min(zoom_ * 1.5, 12.0);
        refresh();
    });
    addKey("order-of-work", "O", "O", "order of work", [this] { nextOrder(); });
    addKey("this-sitting", "G", "G", "this sitting", [this] { lookAhead(); });
    addKey("loupe", "N", "N", "loupe", [this] { emit wants(QStringLiteral("loupe"), QString()); });
    addKey("step", "Down", "Up Down", "step", [this] { choose(1); });
    addRare("farther", "-", "farther", [this] {
        zoom_ = std::max(zoom_ / 1.5, 1.0);
        if (zoom_ < 1.05) zoom_ = 1;
        refresh();
    });
    addRare("all-parts-of-this-value", "V", "all parts of this value", [this] {
        alike_ = !alike_;
        refresh();
    });
    addRare("earlier", "Shift+Up", "this step a place earlier", [this] { move(-1); });
    addRare("later", "Shift+Down", "this step a place later", [this] { move(1); });
    addRare("join", "Shift+J", "join it with the step behind", [this] { join(); });
    addRare("split", "Shift+S", "split it in two", [this] { split(); });
    addRare("one-more-step", "A", "one more step behind this", [this] { addStep(); });
    addRare("find-a-part-or-a", "/", "find a part or a value", [this] { find(); });
    addRare("pass-a-hold-knowingly", "K", "pass a hold knowingly", [this] { passKnowingly(); });
    addRare("remark", "R", "remark", [this] { remark(); });
    addRare("mended", "X", "mended", [this] { mended(); });
    addRare("so-many-are-laid-aside", "L", "so many are laid aside", [this] { layAside(); });
    addRare("count-the-pause-as-work", "Y", "count the pause as work", [this] { countPause(); });
    addRare("the-step-before", "Up", "the step before", [this] { choose(-1); });
    addRare("back-to-the-step-in", "Home", "back to the step in hand", [this] {
        chosen_.clear();
        found_.clear();
        refresh();
    });
}

void BoardPage::addRoomKeys() {
    addRare("photographs-of-this-step", "H", "photographs of this step", [this] {
        const BoardView v = view();
        if (v.step != nullptr) emit wants(QStringLiteral("photos"), qs(v.step->id));
    });
    addRare("read-a-placement-table", "I", "read a placement table", [this] { askPlaces(); });
    takesNotes([this] {
        const BoardView v = view();
        return v.step == nullptr ? Subject{} : Subject{Subject::Kind::step, v.step->id, "", {}};
    });
    addRare("write-the-kit-file-errata", "W", "write the kit file, errata and places in it",
            [this] { emit wants(QStringLiteral("kit"), QStringLiteral("write")); });
    addRare("print-the-build-sheet", "P", "print the build sheet", [this] { buildSheet(); });
}

BoardView BoardPage::view() const { return boardView(session_.judged(), chosen_.toStdString()); }

/// A sitting begins with what it will want: Enter shows that once before it does a step.
bool BoardPage::mustLookAhead() const {
    return chosen_.isEmpty() && newSitting(session_.build(), wallClock()) &&
           lookedAhead_ != session_.build().sittings.back().end;
}

void BoardPage::lookAhead() {
    if (!session_.build().sittings.empty()) lookedAhead_ = session_.build().sittings.back().end;
    emit wants(QStringLiteral("sitting"), QString());
}

void BoardPage::nextOrder() {
    const auto& all = schools();
    const auto now = std::find_if(all.begin(), all.end(),
                                  [&](const School& s) { return s.order == session_.build().order; });
    const School& next = now == all.end() || now + 1 == all.end() ? all.front() : *(now + 1);
    if (session_.kept(session_.book().chooseOrder(next.order)))
        session_.say(qs(next.buys) + QStringLiteral(" ") + qs(next.costs));
}

/// @return whether something else must be done before this step; it is said
bool BoardPage::saysFirst(const Step& step) {
    const Step* first = mustComeFirst(step, session_.kit(), session_.build());
    if (first != nullptr)
        session_.say(QStringLiteral("First: %1.").arg(qs(first->title)), VerdictState::doubtful);
    return first != nullptr;
}

void BoardPage::done() {
    const BoardView v = view();
    if (v.step == nullptr) return;
    if (mustLookAhead()) return lookAhead();
    const std::string id = v.step->id;
    if (session_.build().done(id)) {
        chosen_.clear();
        refresh();
        return;
    }
    if (saysFirst(*v.step)) return;
    if (v.step->hold && !v.earned) {
        session_.say(QStringLiteral("This hold is not earned yet; K passes it knowingly."),
                     VerdictState::doubtful);
        return;
    }
    const auto unwound = coilsUntouched(*v.step, session_.kit(), session_.build());
    if (!unwound.empty() && unwoundSaid_ != id) {
        unwoundSaid_ = id;
        session_.say(QStringLiteral(
                         "%1 %2 not wound yet: Winding (F2) counts it. Enter again: it was wound elsewhere.")
                         .arg(qs(listed(unwound, 4)),
                              unwound.size() == 1 ? QStringLiteral("is") : QStringLiteral("are")),
                     VerdictState::doubtful);
        return;
    }
    chosen_.clear();
    session_.say(QString());
    if (unwound.empty()) {
        session_.kept(session_.book().doStep(id));
    } else {
        session_.kept(
            session_.book().doStep(id, false, "Wound elsewhere, not counted here: " + listed(unwound, 8)));
    }
}

void BoardPage::changePlan(const Result<std::vector<Step>>& steps, const char* action) {
    if (!steps) return session_.say(qs(steps.error().sentence), VerdictState::cannotTell);
    session_.changeKit(withSteps(session_.build().kitText, *steps), action);
}

/// In the manual's order; another school sorts by itself.
void BoardPage::move(int by) {
    const BoardView v = view();
    if (v.step == nullptr) return;
    if (session_.build().order != Order::manual)
        return session_.say(QStringLiteral("Steps are moved in the kit's order: O chooses it."));
    chosen_ = qs(v.step->id);
    changePlan(movedStep(session_.kit(), v.step->id, by), "move of a step");
}

void BoardPage::join() {
    const BoardView v = view();
    if (v.step == nullptr) return;
    const auto joined = joinedStep(session_.kit(), v.step->id);
    const bool done =
        std::any_of(session_.kit().steps.begin(), session_.kit().steps.end(), [&](const Step& s) {
            const bool gone = joined && std::none_of(joined->begin(), joined->end(),
                                                     [&](const Step& other) { return other.id == s.id; });
            return (gone || s.id == v.step->id) && session_.build().done(s.id);
        });
    if (done) return session_.say(QStringLiteral("One of them is done: what is done stays as it is."));
    chosen_ = qs(v.step->id);
    changePlan(joined, "join of steps");
}

void BoardPage::split() {
    const BoardView v = view();
    if (v.step == nullptr) return;
    if (session_.build().done(v.step->id))
        return session_.say(QStringLiteral("It is done: what is done stays as it is."));
    const std::string id = v.step->id;
    const int count = int(v.step->fits.size());
    askText(QStringLiteral("How many of its %1 parts stay in it").arg(count), QString::number(count / 2),
            [this, id](const QString& text) {
                chosen_ = qs(id);
                changePlan(splitStep(session_.kit(), id, text.toInt()), "split of a step");
            });
}

void BoardPage::addStep() {
    const BoardView v = view();
    const std::string after = v.step == nullptr ? "" : v.step->id;
    askText(QStringLiteral("What is to be done"), QString(), [this, after](const QString& text) {
        if (text.simplified().isEmpty()) return;
        changePlan(addedStep(session_.kit(), text.simplified().toStdString(), after), "one more step");
    });
}

void BoardPage::passKnowingly() {
    const BoardView v = view();
    if (v.step == nullptr || !v.step->hold || v.earned || session_.build().done(v.step->id)) return;
    if (saysFirst(*v.step)) return;
    const std::string id = v.step->id;
    askText(QStringLiteral("Why go on?"), QString(), [this, id](const QString& reason) {
        chosen_.clear();
        session_.kept(session_.book().doStep(id, true, reason.toStdString()));
    });
}

void BoardPage::remark() {
    const BoardView v = view();
    if (v.step == nullptr) return;
    const std::string id = v.step->id;
    askText(QStringLiteral("Remark"), qs(v.remark), [this, id](const QString& text) {
        session_.kept(session_.book().remark(id, text.toStdString()));
    });
}

/// The first open finding of this step is mended.
void BoardPage::mended() {
    const BoardView v = view();
    if (v.findings.empty()) return;
    session_.kept(session_.book().closeFinding(v.findings.front()->id));
}

/// How many of what later steps want are there, one thing after another.
void BoardPage::layAside() {
    const BoardView v = view();
    std::vector<std::string> wanted;
    for (const KeepAhead& keep : v.keeps) wanted.push_back(keep.what);
    if (wanted.empty()) return;
    askLaidAside(std::move(wanted));
}

void BoardPage::askLaidAside(std::vector<std::string> wanted) {
    const std::string what = wanted.front();
    wanted.erase(wanted.begin());
    askText(QStringLiteral("How many %1 are laid aside?").arg(qs(what)), QString(),
            [this, what, wanted](const QString& text) {
                bool whole = false;
                const int count = text.toInt(&whole);
                if (!whole || count < 0 || count > 10000)
                    return session_.say(QStringLiteral("A whole number, 0 or more."),
                                        VerdictState::cannotTell);
                if (session_.kept(session_.book().keepAside(what, count)) && !wanted.empty())
                    askLaidAside(wanted);
            });
}

void BoardPage::countPause() {
    if (const auto pause = view().pause) session_.kept(session_.book().countAway(*pause));
}

void BoardPage::begin(const QString& about) {
    if (about.isEmpty()) return;
    if (session_.kit().step(about.toStdString()) != nullptr) {
        chosen_ = about;
        found_.clear();
        return refresh();
    }
    show(findParts(session_.kit(), about.toStdString()));
}

/// The parts stand out on the map, and the step that fits the only one is in hand.
void BoardPage::show(std::vector<std::string> parts) {
    found_ = std::move(parts);
    for (const Step& step : session_.kit().steps) {
        if (found_.size() == 1 &&
            std::find(step.fits.begin(), step.fits.end(), found_.front()) != step.fits.end())
            chosen_ = qs(step.id);
    }
    refresh();
}

bool BoardPage::openFile(const QString& path) {
    readPlaces(path);
    return true;
}

void BoardPage::find() {
    askText(QStringLiteral("Find a part or a value"), QString(), [this](const QString& text) {
        auto found = findParts(session_.kit(), text.toStdString());
        if (found.empty())
            session_.say(QStringLiteral("Nothing on this kit's list is called or worth %1.").arg(text),
                         VerdictState::cannotTell);
        show(std::move(found));
    });
}

void BoardPage::askPlaces() {
    askToOpen(this, kPlacementFile, [this](const QString& file) { readPlaces(file); });
}

void BoardPage::readPlaces(const QString& file) {
    const bool begun = work().start<Result<Placement>>(
        [file, kit = session_.build().kitText](const LongWork::Progress&) -> Result<Placement> {
            const auto bytes = readFile(file.toStdString(), 16000000);
            if (!bytes) return tl::make_unexpected(bytes.error());
            PlacementContext context = placementContext(kit);
            auto first = readPlacement(*bytes, {context.refs, {}});
            if (!first || !context.origin) return first;
            // A file of parts that have no place yet is the board's other side; one of all is a new one.
            return isOtherSide(*first, kit) ? readPlacement(*bytes, context) : first;
        },
        [this](Result<Placement> placement) {
            if (!placement) return session_.say(qs(placement.error().text()), VerdictState::cannotTell);
            takePlaces(*placement);
        });
    if (!begun) session_.say(QStringLiteral("Another file is still being worked on."));
}

void BoardPage::takePlaces(const Placement& placement) {
    std::vector<std::string> refs;
    for (const Part& part : session_.kit().parts) refs.push_back(part.ref);
    QStringList line{qs(placement.guesses)};
    for (const std::string& sentence : disagreements(placement, refs)) line << qs(sentence);
    if (!placement.refused.empty())
        line << QStringLiteral("%1 rows refused, the first: %2")
                    .arg(placement.refused.size())
                    .arg(qs(placement.refused.front().text()));
    if (session_.changeKit(withPlaces(session_.build().kitText, placement), "placement"))
        session_.say(line.join(QStringLiteral(" ")), VerdictState::doubtful);
}

std::optional<A4Sheet> BoardPage::sheet() {
    if (!session_.hasBuild()) return std::nullopt;
    return ombrek::buildSheet(session_.kit(), session_.build(), session_.judged().order());
}

void BoardPage::buildSheet() {
    writeOut(kPdfFile, qs(session_.kit().id) + QStringLiteral("-build-sheet.pdf"),
             [paper = *sheet()] { return pdfOf(paper); });
}

void BoardPage::choose(int by) {
    const BoardView v = view();
    if (v.plan.empty()) return;
    int at = by > 0 ? -1 : int(v.plan.size());
    for (std::size_t i = 0; i < v.plan.size(); ++i) {
        if (v.step != nullptr && v.plan[i].id == v.step->id) at = int(i);
    }
    chosen_ = qs(v.plan[std::size_t((at + by + int(v.plan.size())) % int(v.plan.size()))].id);
    found_.clear();
    refresh();
}

void BoardPage::showMap(const BoardView& v) {
    BoardDrawing drawing;
    drawing.board = session_.kit().board;
    drawing.pieces = v.pieces;
    drawing.mirrored = mirrored_;
    drawing.zoom = zoom_;
    drawing.middle = {drawing.board.width / 2, drawing.board.height / 2};
    std::set<std::string> values;
    if (alike_ && v.step != nullptr) {
        for (const std::string& ref : v.step->fits) {
            if (const Part* part = session_.kit().part(ref)) values.insert(part->value);
        }
    }
    bool aimed = false;
    for (BoardPiece& piece : drawing.pieces) {
        const bool named = std::find(found_.begin(), found_.end(), piece.part->ref) != found_.end();
        piece.alike = named || values.contains(piece.part->value);
        const bool aim = named || (found_.empty() && piece.fitting == BoardPiece::Fitting::now);
        if (aim && !aimed) drawing.middle = {piece.part->place->x, piece.part->place->y};
        aimed = aimed || aim;
    }
    std::vector<const Part*> inHand;
    if (v.step != nullptr) {
        for (const std::string& ref : v.step->fits) {
            if (const Part* part = session_.kit().part(ref)) inHand.push_back(part);
        }
    }
    map_->show(std::move(drawing), inHand);
}

void BoardPage::showStep(const BoardView& v) {
    delete stepBody_;
    stepBody_ = nullptr;
    step_->setVisible(v.step != nullptr);
    if (v.step == nullptr) return;
    step_->setTitle(v.step->hold ? QStringLiteral("What this hold rests on")
                                 : QStringLiteral("At this step"));
    stepBody_ = new QWidget;
    auto* layout = new QVBoxLayout(stepBody_);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(7);
    const auto line = [&](const QString& text) {
        auto* label = textLabel(14);
        label->setText(text);
        layout->addWidget(label);
    };
    for (const Evidence& e : v.needs) layout->addWidget(new TroubleLine(e.state, qs(e.what), qs(e.sentence)));
    if (v.step->hold && v.needs.empty()) line(QStringLiteral("Your own eyes: Enter confirms it."));
    if (v.pause)
        line(QStringLiteral("You were away %1 minutes: not counted. Y counts them.")
                 .arg((v.pause->end - v.pause->start) / 60));
    if (!v.erratum.empty()) line(QStringLiteral("Erratum: ") + qs(v.erratum));
    if (!v.tools.empty()) {
        QStringList tools;
        for (const std::string& tool : v.tools) tools << qs(tool);
        line(QStringLiteral("Have ready: ") + tools.join(QStringLiteral(", ")));
    }
    if (!v.hot.empty()) {
        QStringList hot;
        for (std::size_t i = 0; i < std::min<std::size_t>(v.hot.size(), 6); ++i) hot << qs(v.hot[i]);
        line(QStringLiteral("Mind the heat, close by and in: ") + hot.join(QStringLiteral(", ")));
    }
    for (const KeepAhead& keep : v.keeps)
        line(QStringLiteral("Keep %1 %2%3: %4 so far.")
                 .arg(keep.wanted)
                 .arg(qs(keep.what),
                      keep.until ? QStringLiteral(" for \"%1\"").arg(qs(keep.until->title)) : QString())
                 .arg(keep.kept));
    for (const std::string& ahead : v.aheads) line(QStringLiteral("Look ahead: ") + qs(ahead));
    const bool lines = layout->count() > 0;
    step_->addBody(stepBody_);
    QStringList texts;
    if (!v.note.empty()) texts << qs(v.note);
    const Subject at{Subject::Kind::step, v.step == nullptr ? "" : v.step->id, "", {}};
    if (const auto own = otherwiseAt(session_.build(), at); !own.empty())
        texts << QStringLiteral("Made otherwise: ") + qs(own);
    if (!v.remark.empty()) texts << QStringLiteral("Your remark: ") + qs(v.remark);
    step_->setText(texts.join(QStringLiteral("\n")));
    step_->setCaution(qs(v.caution));
    step_->setVisible(lines || !texts.isEmpty() || !v.caution.empty());
}

/// Once, before the first joint.
QString BoardPage::askBench() const {
    const bool asked = !session_.book().preference("bench solder").empty();
    return asked || !session_.build().steps.empty()
               ? QString()
               : QStringLiteral(" Solder, iron, tools, documents: F12, T.");
}

void BoardPage::refresh() {
    if (!session_.hasBuild()) return;
    if (session_.kit().step(chosen_.toStdString()) == nullptr) chosen_.clear();
    const BoardView v = view();
    offerPaper(session_.kit().steps.empty());
    if (mustLookAhead() && v.step != nullptr)
        setNow(QStringLiteral("Look ahead first: what will this sitting want?"),
               QStringLiteral("Enter says where you were and what to lay ready. Then: %1.")
                   .arg(qs(v.step->title)));
    else
        setNow(qs(v.now), qs(v.why) + askBench());
    showMap(v);
    showStep(v);
    const bool hold = v.step != nullptr && v.step->hold && !v.earned && !session_.build().done(v.step->id);
    const auto able = [this](const char* id, bool can, const char* why) {
        setAble(id, can ? QString() : QString::fromUtf8(why));
    };
    able("mended", !v.findings.empty(), "Nothing is to be mended at this step.");
    able("so-many-are-laid-aside", !v.keeps.empty(), "Nothing is to be kept for a later step now.");
    able("count-the-pause-as-work", v.pause.has_value(), "No pause before this step waits to be counted.");
    able("pass-a-hold-knowingly", hold, "This step is no hold that still bars the way.");
    able("done", v.step != nullptr, "Every step is done.");
    plan_->setTitle(QStringLiteral("The plan, %1").arg(qs(school(session_.build().order).name)));
    std::vector<StateLine> lines;
    for (const auto& line : v.plan)
        lines.push_back(
            {line.state, qs(line.text), qs(line.right), v.step && line.id == v.step->id, line.hold});
    list_->setLines(std::move(lines));
}

}  // namespace ombrek
