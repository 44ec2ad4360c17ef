#pragma once

#include <cstdint>
#include <filesystem>
#include <functional>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "book/rescued.h"
#include "core/quantity/problem.h"
#include "kit/build.h"
#include "kit/contact.h"
#include "kit/instrument.h"
#include "kit/stock.h"

namespace ombrek {

/// Seconds since 1970, UTC. Handed in, so that tests and the practice book have their own time.
using Clock = std::function<std::int64_t()>;
std::int64_t wallClock();

/// The builder's workbook: one SQLite file that holds every build and all that was done.
///
/// Every action is one transaction, on the disk when the call returns, and can be undone, also after a
/// restart. An action that cannot be written returns a Problem and changes nothing. Example:
///
///     auto book = Book::open("shack.ombrek");
///     if (!book) return show(book.error());
///     if (auto done = (*book)->countTurn("T1", "main"); !done) show(done.error());
class Book {
 public:
    /// Open a book, making it if the file is not there. A file that is damaged, of a newer version or no book
    /// at all is refused with a sentence and not touched. When another program has the book open, or it
    /// cannot be written, it opens read-only.
    static Result<std::unique_ptr<Book>> open(const std::filesystem::path& path, Clock clock = wallClock);
    ~Book();
    Book(const Book&) = delete;
    Book& operator=(const Book&) = delete;

    /// What can still be read of a damaged book, into a new file. The damaged one is not touched.
    /// Where the file is shorter than it says it is, its missing end is taken as empty. Rows that are none
    /// that Ombrek writes are left out of the copy, and stand as text beside it.
    /// @return what was copied and what was not, or why there is no copy
    static Result<Rescued> rescue(const std::filesystem::path& damaged, const std::filesystem::path& copy);

    /// Where the book is now: of a rescue copy its place.
    const std::filesystem::path& path() const;
    /// Look whether the book's file is still where it was. When it was moved, deleted or replaced, everything
    /// goes into a rescue copy, work goes on there, `rescuedTo` says so, and the listener is called.
    /// @return false when it was not there
    bool lookForFile();
    /// What happened to the file, and where the work went; empty while nothing did.
    const std::string& rescuedTo() const;
    bool readOnly() const;
    /// Why it is read-only, as a sentence; empty when it can be written.
    const std::string& readOnlyReason() const;

    struct BuildLine {
        std::int64_t id = 0;
        std::string kitName;
        std::int64_t started = 0;
    };
    /// Every build in the book, the newest first.
    std::vector<BuildLine> builds() const;
    /// The build in hand, with everything done so far; nothing in a new book.
    std::optional<Build> build() const;

    /// All that the book says of the build in hand, the meters and the builder, as one text: the same as long
    /// as nothing of it changes, whatever was only looked at. A report is signed by its hash.
    std::string state() const;

    /// A new build of a kit, in hand from now on. @param kitText  a kit file's text; it is not looked at
    /// here
    Result<void> startBuild(const std::string& kitName, const std::string& kitText);
    /// Another build is in hand; refused when the book has none of this id.
    Result<void> chooseBuild(std::int64_t id);
    /// The school of building by which the steps are sorted.
    Result<void> chooseOrder(Order order);
    /// Whether the meter's error counts in verdicts.
    Result<void> chooseRule(VerdictRule rule);
    /// The limits of emission the rig is held against, by their id in the table.
    Result<void> chooseProfile(const std::string& profile);

    /// Now, all in one action; their own times are not asked. In the window `Session::keep` is the way in.
    Result<void> takeReadings(const std::vector<Reading>& readings);
    Result<void> takeReading(const Reading& reading) { return takeReadings({reading}); }
    /// A part or a coil was mended: what was read of it, and of all that rests on it, is to be measured
    /// again. With the id of a trouble that was noticed before, that one is closed. Where
    /// parts were put in, what was promised to it is taken out of its drawer.
    Result<void> repaired(const Repair& repair);
    Result<void> markPart(const std::string& ref, PartMark mark) { return markParts({ref}, mark); }

    // Parts in (book_parts.cpp)
    Result<void> chooseWay(BagWay way);
    Result<void> chooseDepth(BagDepth depth);
    Result<void> markParts(const std::vector<std::string>& refs, PartMark mark);
    /// What is printed on a part; one that agrees with the list is also seen.
    Result<void> readMark(const std::string& ref, const std::string& printed, bool agrees);
    /// A part out of the bag that has no line yet; with id 0 it is new and the book gives the id, else it is
    /// changed.
    Result<void> keepLoose(const LoosePart& part);
    Result<void> dropLoose(std::int64_t id);
    /// A loose part has found its line: its reading and mark become the line's.
    Result<void> settleLoose(std::int64_t id, const std::string& ref, Unit unit);
    /// A part taken for one line belongs to another: what was read of it counts there, and no more where it
    /// was. What lay in that place till now loses its line and becomes a loose part.
    Result<void> movePart(const std::string& from, const std::string& to, PartKind kind);
    Result<void> decide(const std::string& ref, const Remedy& remedy) { return decideAll({ref}, remedy); }
    Result<void> decideAll(const std::vector<std::string>& refs, const Remedy& remedy);
    Result<void> undecide(const std::string& ref) { return undecideAll({ref}); }
    Result<void> undecideAll(const std::vector<std::string>& refs);

    // The builder's own stock and meters, the same for every build (book_stock.cpp)
    std::vector<StockLine> stock() const;
    std::size_t stockSize() const;
    /// Goes up whenever the stock may have changed, so that it is only read again when needed.
    int stockRevision() const;
    /// The same from the file, on a connection of its own: may be called from any thread.
    static Result<std::vector<StockLine>> readStock(const std::filesystem::path& book);
    std::vector<Promise> promises() const;
    Result<void> addStock(const std::vector<StockLine>& lines);
    /// A long import, from any thread, on a connection of its own; one action. The listener is not called:
    /// call `announce` in the window's thread when it is done.
    /// @param goOn  told how far it is, 0 … 1; false takes everything back
    Result<void> importStock(const std::vector<StockLine>& lines, const std::function<bool(double)>& goOn);
    void announce();
    /// The line with its id as it shall be.
    Result<void> changeStock(const StockLine& line);
    Result<void> removeStock(std::int64_t id);
    /// Parts of stock lines that are kept back for a designator of the build in hand.
    struct Kept {
        std::string ref;
        std::vector<std::int64_t> stock;
        std::string note;  ///< what and from where
    };
    /// One action, also for several.
    Result<void> promise(const std::vector<Kept>& kept);
    Result<void> promise(const std::string& ref, const std::vector<std::int64_t>& stock,
                         const std::string& note) {
        return promise({Kept{ref, stock, note}});
    }
    /// What was promised is taken out of its drawer: counts move, and the lines wait to be measured.
    /// What lay in their places till now becomes parts over. @param kind  of those parts
    Result<void> takePromised(const std::vector<std::string>& refs, PartKind kind);
    Result<void> takePromised(const std::string& ref, PartKind kind) {
        return takePromised(std::vector{ref}, kind);
    }
    /// Loose parts that are over become stock.
    Result<void> putSpares(const std::vector<std::int64_t>& loose, const std::vector<StockLine>& lines);

    /// The data sheets of this bench: the builder's own lines, and the usual ones for every other unit.
    std::vector<MeterLine> meters() const;
    /// Keep a data-sheet line; one of the same instrument, unit and range start is replaced.
    Result<void> setMeter(const MeterLine& line);

    /// The builder's instruments in the order in which they are asked, the practice bench last.
    std::vector<Instrument> instruments() const;
    /// Keep an instrument, a new one (id 0) under a name that none has yet. One that is renamed takes its
    /// data sheets along. @return its id
    Result<std::int64_t> setInstrument(const Instrument& instrument);
    /// Its data sheets stay for the day it comes back.
    Result<void> removeInstrument(const std::string& name);

    /// A parts list that is being corrected and is no kit yet; nothing when there is none.
    std::optional<ListDraft> listDraft() const;
    /// Another list is in hand; the corrections of the one before are dropped.
    Result<void> keepListDraft(const ListDraft& draft);
    /// What was said of one line of it. @param edit  an empty `how` takes it back
    Result<void> editListDraft(const ListDraft::Edit& edit);

    /// The columns of lists with this header, as the builder corrected them; empty if never.
    std::string listShape(const std::string& key) const;
    Result<void> rememberShape(const std::string& key, const std::string& shape);
    /// One pass of the wire more (`by` = 1) or taken back (−1); the count never falls below zero.
    /// @param windings  all that go on in the same pass: one, or those twisted together
    Result<void> countTurn(const std::string& coil, const std::vector<std::string>& windings, int by = 1);
    Result<void> countTurn(const std::string& coil, const std::string& winding, int by = 1) {
        return countTurn(coil, std::vector{winding}, by);
    }
    /// The count as it was found by counting again.
    Result<void> setTurns(const std::string& coil, const std::vector<std::string>& windings, int turns);
    Result<void> setTurns(const std::string& coil, const std::string& winding, int turns) {
        return setTurns(coil, std::vector{winding}, turns);
    }
    /// A coil was squeezed or spread: what was read of it holds no more. @param factor  by which the practice
    /// rig's inductance moves; a real coil does as it likes
    Result<void> bent(const std::string& coil, double factor);
    /// What was done to a coil beside winding: "T1/cut", "T1/strip", "T1/main/continuity", "T1/isolation",
    /// "T1/twist", "T1/trust". An empty `how` takes it back.
    Result<void> checkCoil(const std::string& name, const std::string& how);
    /// The builder's own habits, the same for every build: "hand", "sound". Empty if never chosen.
    std::string preference(const std::string& key) const;
    Result<void> prefer(const std::string& key, const std::string& value);
    Result<void> finishWinding(const std::string& coil, const std::vector<std::string>& windings,
                               bool done = true);
    Result<void> finishWinding(const std::string& coil, const std::string& winding, bool done = true) {
        return finishWinding(coil, std::vector{winding}, done);
    }
    /// @param reason  why, when a hold point is passed knowingly
    Result<void> doStep(const std::string& step, bool knowingly = false, const std::string& reason = "");
    // Board (book_board.cpp)
    /// So many of something are laid aside for a later step.
    Result<void> keepAside(const std::string& what, int count);
    /// The loupe has been over a part's joints, or its sense has been held against the print.
    enum class Look { joints, sense };
    Result<void> lookedAt(const std::string& ref, Look how);
    /// Something was found there: the part has been looked at, and has a task; one action.
    Result<void> found(const std::string& ref, Finding::What what, Look how = Look::joints);
    Result<void> closeFinding(std::int64_t id);
    /// A photograph of a step, as JPEG.
    Result<void> keepPhoto(const std::string& step, bool after, const std::string& jpeg);
    Result<void> removePhoto(std::int64_t id);
    /// Its bytes; empty when there is none of that id.
    std::string photo(std::int64_t id) const;
    /// A pause that is to count as work.
    Result<void> countAway(const Sitting& pause);
    /// The kit in hand as it shall be from now on, one action. @param name  "placement"
    /// @param replaced   what is another thing now: what was read, marked or wound of it holds no more
    /// @param lookAgain  designators whose line says something else: what was marked of them holds no more
    /// @param paper      whose text has done its work: what it held (see paper), "coils"
    Result<void> changeKit(const std::string& kitText, const std::string& name,
                           const std::vector<Subject>& replaced = {},
                           const std::vector<std::string>& lookAgain = {}, const std::string& paper = {});

    /// What was done otherwise at a step, or at a subject by its text; an empty one takes it back.
    Result<void> remark(const std::string& step, const std::string& text);
    /// What was read of something holds no more: it is begun again.
    Result<void> beginAgain(const Subject& subject);
    /// @param basis  the evidence of the day that the reason is given for (see basisOf)
    /// @param forbids  of a known defect that is accepted: what it forbids
    Result<void> passGate(const std::string& gate, const std::string& reason, const std::string& basis = "",
                          const std::string& forbids = "");
    /// What is chosen for this build from now on.
    Result<void> choose(Choice choice, const std::string& said);
    /// Text of a paper that is not taken into the kit yet. @param holds  what it holds, "coils"
    std::string paper(const std::string& holds) const;
    Result<void> keepPaper(const std::string& holds, const std::string& text);
    /// The builder's word on a gate is taken away.
    Result<void> closeGate(const std::string& gate);

    // On the air and after it (book_air.cpp)
    /// Something is wrong and not mended yet; `repaired` with its id closes it.
    Result<void> noticed(const Repair& trouble);
    /// It was there once more.
    Result<void> sawAgain(std::int64_t trouble, const std::string& text);
    /// What was heard, seen or measured; now.
    Result<void> noteOnAir(const AirNote& note);

    /// The station's log, by time; of every rig.
    std::vector<Contact> contacts() const;
    std::vector<Heard> heard() const;
    /// Contacts and reports together.
    std::size_t logSize() const;
    /// The same from the file, on a connection of their own: may be called from any thread.
    static Result<std::vector<Contact>> readContacts(const std::filesystem::path& book);
    static Result<std::vector<Heard>> readHeard(const std::filesystem::path& book);
    /// Goes up whenever the log may have changed, so that it is only read again when needed.
    int logRevision() const;
    Result<void> addContact(const Contact& contact);
    /// The contact with its id as it shall be.
    Result<void> changeContact(const Contact& contact);
    Result<void> removeContact(std::int64_t id);
    /// Long imports, as importStock; call `announce` when it is done.
    Result<void> importContacts(const std::vector<Contact>& contacts,
                                const std::function<bool(double)>& goOn = {});
    Result<void> importHeard(const std::vector<Heard>& reports, const std::function<bool(double)>& goOn = {});

    /// Take the last action back, or do it again. @return its name ("turn on T1"), or a Problem when there is
    /// none
    Result<std::string> undo();
    Result<std::string> redo();
    /// The name of what undo would take back; empty if nothing.
    std::string undoName() const;
    /// The name of what redo would do again; empty if nothing.
    std::string redoName() const;

    /// The oldest action that can still be taken back, after all later ones; nothing when there is none.
    struct Undoable {
        std::string name;
        std::int64_t at = 0;  ///< seconds since 1970, UTC
    };
    /// The oldest action that can still be taken back; nothing when there is none.
    std::optional<Undoable> oldestUndo() const;

    /// What was written since the last notice, by the names of records.
    struct Notice {
        bool all = false;                                   ///< another build is in hand, or another file
        std::set<std::string, std::less<>> changed, added;  ///< added: rows came, none was changed or left
        /// Whether rows of this record were written: "reading", "part".
        bool touches(std::string_view record) const {
            return all || changed.contains(record) || added.contains(record);
        }
    };
    /// Called after every change.
    void onChange(std::function<void(const Notice&)> listener);
    /// Bring a build that was read before up to date. @return false when another is in hand: read it anew
    bool reread(Build& build, const Notice& notice) const;

 private:
    struct Inside;
    explicit Book(std::unique_ptr<Inside> inside);
    Result<void> act(const std::string& name, const std::function<void()>& change);
    Result<std::string> step(bool undo);
    std::string lastName(bool undone) const;
    std::unique_ptr<Inside> inside_;
};

}  // namespace ombrek
