#pragma once

#include <QObject>
#include <QString>
#include <functional>
#include <memory>

#include "book/book.h"
#include "core/meter/sample.h"
#include "desk/pieces/long_work.h"
#include "desk/pieces/voice.h"
#include "desk/weighing.h"
#include "formats/tables.h"
#include "instruments/bench_client.h"
#include "judged/judged.h"
#include "kit/build.h"
#include "kit/kit.h"
#include "look/qs.h"

namespace ombrek {

class Bench;
struct BenchReading;
struct Probe;

/// The builder's drawers, ready to be searched.
struct Drawers {
    explicit Drawers(std::vector<StockLine> all) : lines(std::move(all)), search(lines) {}
    std::vector<StockLine> lines;
    StockSearch search;
};

/// The station's log as it is in the book, by time.
struct StationLog {
    std::vector<Contact> contacts;
    std::vector<Heard> heard;
};

/// The open book, the build in hand and the instruments: all that pages share. Pages meet here and in the
/// book, never each other.
class Session : public QObject {
    Q_OBJECT
 public:
    Session(Tables tables, std::unique_ptr<Book> book, QObject* parent = nullptr);
    ~Session() override;

    Book& book() { return *book_; }
    const Tables& tables() const { return tables_; }
    /// The instruments of this book.
    Bench& bench() { return *bench_; }
    const Bench& bench() const { return *bench_; }
    /// The practice bench among them.
    BenchClient& practice();

    bool hasBuild() const { return hasBuild_; }
    const Kit& kit() const { return kit_; }
    const Build& build() const { return build_; }
    const LimitProfile& profile() const { return tables_.profile(build_.profile); }
    /// How the build in hand stands. Of this moment: the next action on the book ends it, so nothing of it is
    /// held across one.
    const Judged& judged() const { return *judged_; }

    /// The drawers as last read; a large stock is read off the window's thread, and `changed` comes again.
    std::shared_ptr<const Drawers> drawers();

    /// The log as last read; a long one is read off the window's thread, and `changed` comes again.
    std::shared_ptr<const StationLog> log();

    /// Begin a build from a kit file. A fault is said, and nothing changes.
    void beginKit(const QString& path);

    /// What came of an action on the book: a Problem is said. @return whether it was kept
    bool kept(const Result<void>& result);
    /// An instrument that the builder has written at this desk: in the book, and to be spoken to.
    Result<std::int64_t> keepInstrument(const Instrument& instrument);
    /// The builder says yes to one that came with the book.
    void trust(const Instrument& instrument);

    /// The kit in hand as it shall be from now on, one action; what does not hold together is said, and
    /// nothing changes. @param action  as History and undo call it. Others as Book::changeKit.
    bool changeKit(const Result<std::string>& kitText, const std::string& action,
                   const std::vector<Subject>& replaced = {}, const std::vector<std::string>& lookAgain = {});

    /// The one way in for readings: one action. Those that do not say yet with what and by whom they were
    /// taken are given that; `taken` follows for each, and verdicts are spoken. @return whether they are kept
    bool keep(std::vector<Reading> readings);
    bool keep(const Reading& reading) { return keep(std::vector{reading}); }

    /// Take a reading from the bench into the book: `wanted` carries subject, unit, setting and method
    /// (empty: the instrument's name). Answers later; a Problem is said and the book is left.
    void read(Reading wanted);
    /// The same from typed text, in the wanted unit; only what `understand` lets pass.
    void type(Reading wanted, const QString& text);
    /// What the builder's own eyes and ears say of a check: it is so, or it is not.
    void answer(const Subject& check, bool yes);

    /// What a typed text would be kept as.
    struct Entered {
        Reading reading;
        QString shows;    ///< "47 µF"; empty while it cannot be read
        QString trouble;  ///< why it cannot be kept; empty when it can
        QString doubt;    ///< a question to be answered by Enter once more, "4 kW? The kit promises 3 W."
    };
    /// Nothing is kept by it.
    Entered understand(Reading wanted, const QString& text) const;

    /// Measure without keeping it: `use` is called with what the reading is worth; a Problem is said.
    void measure(Unit unit, const Subject& subject, double setting, std::function<void(Measured)> use);
    /// Why a reading should not be asked for: more than its meter takes may stand there. Empty: it may.
    QString harm(Unit unit, const Subject& subject) const;

    /// With the instrument and its data-sheet line, the supply where it matters, and who is at the bench.
    Reading withCircumstances(Reading reading, Unit shownIn, double shown, const ShownOn& on = {}) const;

    /// What goes with a way of measuring power on this bench: attenuation, diode drop, correction.
    double powerSetting(const PowerMethod& method) const;
    /// The way of measuring power in use.
    const PowerMethod& powerWay() const;

    /// Why the kit of the build in hand cannot be shown; empty when it can.
    const QString& kitTrouble() const { return kitTrouble_; }
    /// A coil was squeezed or spread by the builder; on the practice bench by these per cent.
    bool bent(const std::string& coil, double percent);
    /// Look whether the book's file is still there, and say where the work went when it is not.
    void lookForBook();
    /// Whether an instrument has been asked and has not answered yet.
    bool waiting() const { return waiting_; }
    /// The instrument that is asked need not answer any more.
    void callOff();
    /// What is to be read of a subject: the unit, and the kind of current.
    Probe probeOf(Unit unit, const Subject& subject, double setting) const;

    /// The machine's voice; made when it is first wanted, since speech takes a while to start.
    Voice& voice();
    /// Say how subjects stand, where the builder wants verdicts spoken.
    void speakVerdicts(const std::vector<Subject>& subjects);

    /// A line for the page's foot.
    void say(const QString& line, VerdictState state = VerdictState::notDone);

 signals:
    /// The book has changed: whatever is shown is shown anew.
    void changed();
    /// A line for the page's foot; an empty one clears it.
    void said(const QString& line, VerdictState state);
    /// A reading went into the book: `changed` follows, and shows it.
    void taken(const Subject& subject);

 private:
    void take(Unit unit, const Subject& subject, double setting,
              std::function<void(const BenchReading&, Measured)> use);
    void reload(const Book::Notice& notice);
    void readKitInHand();
    void keepUnlessAbsurd(const Reading& reading);
    QByteArray practiceState() const;

    Tables tables_;
    std::unique_ptr<Book> book_;
    std::unique_ptr<Bench> bench_;
    bool hasBuild_ = false, waiting_ = false;
    std::optional<Reading> absurd_;  ///< what an instrument gave and was asked about
    std::vector<Subject> taking_;    ///< the readings that go into the book now
    bool refused_ = false;           ///< the last action could not be kept, and the page says so
    QString kitTrouble_, toldRescue_;
    Kit kit_;
    Build build_;
    std::unique_ptr<Judged> judged_;
    std::shared_ptr<const Drawers> drawers_;
    int drawersRead_ = -1;  ///< the book's stock revision
    std::shared_ptr<const StationLog> log_;
    int logRead_ = -1;  ///< the book's log revision
    LongWork work_, logWork_;
    std::unique_ptr<Voice> voice_;
    Weighing weighing_;
};

}  // namespace ombrek
