#pragma once

#include <cstdint>
#include <limits>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "core/parts/part_kind.h"
#include "core/plan/order.h"
#include "core/quantity/verdict.h"
#include "kit/subject.h"

namespace ombrek {

/// What this builder did with one kit. A plain copy of what the book holds.

/// What went with a reading, by name: where the adjuster stood, the attenuation before the meter, the supply.
using Settings = std::map<std::string, double, std::less<>>;
inline constexpr std::string_view kPosition = "position";  ///< of the adjuster, 0 … 1
inline constexpr std::string_view kLifted =
    "lifted";  ///< of a bias: which of its transistors was out, 1, 2 …
inline constexpr std::string_view kKnown = "known";    ///< what is known of a frequency [Hz]
inline constexpr std::string_view kTurns = "turns";    ///< on the core
inline constexpr std::string_view kSupply = "supply";  ///< [V]
inline constexpr std::string_view kByTrace = "trace";  ///< the method of what an analyser's trace says
// A way of measuring power names its own: "attenuation" [dB], "diode drop" [V], "correction".

/// One reading of something, with its circumstances.
struct Reading {
    std::int64_t id = 0;
    Subject subject;
    double value = 0;  ///< SI; infinite: the meter was overloaded, or open
    Unit unit = Unit::none;
    double uncertainty = 0;  ///< U = 2u [same unit]
    Settings settings;
    std::string method;   ///< "typed", the instrument's name, or a power method's id
    std::int64_t at = 0;  ///< seconds since 1970, UTC
    bool beyond = false;  ///< the true value is `value` or more
    std::string meter{};  ///< the instrument by the builder's name for it; empty: not known
    std::string sheet{};  ///< of its data sheet that day, "0.5 % + 2 digits of 6000"
    std::string who{};    ///< at the bench; empty: the builder alone

    /// What went with it by this name. @return `otherwise` when nothing did
    double setting(std::string_view name, double otherwise = 0) const;
};

/// A reading against limits, with its error; one that is beyond the display as far as that tells.
Verdict judgeReading(const Reading& reading, const Limits& limits, VerdictRule rule, Unit unit);

/// How a part was accounted for without, or beside, a reading.
enum class PartMark { seen, trusted, missing };

/// In which order the bag is gone through, and where parts lie meanwhile.
enum class BagWay {
    byKind,        ///< sorted into trays by kind and value
    byPlan,        ///< every bag labelled with its designator, in the order of the plan
    beforeFitting  ///< nothing sorted: each part measured in the second before it is fitted
};
/// How much of the bag is measured.
enum class BagDepth { measureAll, measureDoubtful, trustBag };

/// A part out of the bag whose line is not known yet.
struct LoosePart {
    std::int64_t id = 0;
    PartKind kind = PartKind::other;
    std::string printed;     ///< what is printed or painted on it; may be empty
    double value = 0;        ///< measured [SI]; NaN: it was not
    double uncertainty = 0;  ///< U = 2u [same unit]
};

/// A parts list on its way to become a kit, with what the builder said of its lines.
struct ListDraft {
    std::string name, origin;  ///< of the kit to be, and of the text
    std::string source;        ///< bytes as they came
    struct Edit {
        std::int64_t line = 0;  ///< of the source, with a thousandth for a second row of the same line
        std::string how;        ///< "again", "right", "out"
        std::string text;       ///< as said again; of "shape": what the columns hold
        bool operator==(const Edit&) const = default;
    };
    std::vector<Edit> edits;  ///< in the order of the saying
};

/// What the builder decided about a line that is short or wrong.
struct Remedy {
    enum class How {
        drawer,     ///< from the builder's own stock
        shopping,   ///< on the shopping list
        supplier,   ///< asked of the supplier
        equivalent  ///< another type came and will do
    };
    How how = How::drawer;
    std::string note;  ///< which drawer, or type, gain group and why
};

struct WindingProgress {
    int turns = 0;
    bool done = false;
};

struct StepRecord {
    bool knowingly = false;  ///< a hold point passed without its evidence
    std::int64_t at = 0;
    std::string reason{};  ///< why, when it was passed knowingly
};

struct GateRecord {
    std::string reason;
    std::int64_t at = 0;
    std::string basis{};    ///< the evidence that did not pass that day, as `basisOf` writes it
    std::string forbids{};  ///< of a known defect: what it forbids, "the power read-out is not to be trusted"
};

/// What a builder chose for one kit, once and for all until something else is chosen.
enum class Choice {
    tuningOrder,  ///< "common", or "as listed"
    backOff,      ///< how a peak of power is left (station/tune/tune_ways.h)
    wantedRange,  ///< of the dial, "7.000M 7.060M"
    mode          ///< what the rig sends, "CW"
};
/// "the order of tuning".
std::string word(Choice choice);
struct ChoiceRecord {
    std::string said;
    std::int64_t at = 0;
};

inline constexpr std::string_view kLicence = "licence";  ///< the preference that Build::licence is

/// A pause beyond this stops the bench clock [s].
inline constexpr std::int64_t kAway = std::int64_t(20) * 60;

/// A stretch at the bench.
struct Sitting {
    std::int64_t start = 0, end = 0;
};

/// Something that the loupe found, by designator; a task until it is closed.
struct Finding {
    enum class What { bridge, dry, missed, flux, turned, other };
    std::int64_t id = 0;
    std::string ref;
    What what = What::bridge;
    std::int64_t found = 0, closed = 0;  ///< 0: open
};

/// A photograph of a step, without its picture.
struct PhotoLine {
    std::int64_t id = 0;
    std::string step;
    bool after = false;  ///< the step was done
    std::int64_t at = 0;
};

/// The end of an epoch: the thing was changed, and what was read of it or of what rests on it tells of
/// something that is no more.
struct Change {
    Subject subject;
    std::int64_t after = 0;  ///< the last reading before it, by id
    std::int64_t at = 0;     ///< seconds since 1970, UTC; 0: not known
    std::string how{};       ///< "wound", "squeezed or spread", "repaired"
};

/// Something broke, or was done wrong, and was mended; or was noticed and is still open.
struct Repair {
    std::int64_t at = 0;  ///< mended, seconds since 1970, UTC; 0: it is open
    std::string ref;      ///< designator of the part or coil; empty while nobody knows
    std::string found, done;
    std::int64_t id = 0;
    std::string noticed{};  ///< what one saw or heard, "no output on 20m"
    std::int64_t seen = 0;  ///< when that was; 0: not said
    std::string who{};      ///< mended it; empty: the builder alone
    std::string parts{};    ///< put in, and from where, "2 of the drawer finals"
    std::string again{};    ///< subjects that it made doubtful, "adjust:bias;proof:power"

    bool open() const { return at == 0; }
};

/// A trouble that comes and goes was there once more.
struct Sighting {
    std::int64_t id = 0, repair = 0, at = 0;
    std::string text;  ///< what one did then, "warm, after ten minutes"
};

/// Something that was heard, seen or measured on the way to the first contact.
struct AirNote {
    std::int64_t id = 0;
    std::string step, item;  ///< of judged/on_air.h: "load", "clicks"
    VerdictState state = VerdictState::pass;
    double value = std::numeric_limits<double>::quiet_NaN();  ///< where there is one
    std::string text;                                         ///< in the builder's words
    std::int64_t at = 0;                                      ///< seconds since 1970, UTC
};

struct Build {
    std::int64_t id = 0;
    std::string kitText;  ///< the kit's JSON as it was when the build began
    Order order = Order::manual;
    VerdictRule rule = VerdictRule::guardBand;
    BagWay way = BagWay::byKind;
    BagDepth depth = BagDepth::measureAll;
    std::string profile;  ///< id of the spurious-emission limit profile
    std::int64_t started = 0;

    std::vector<Reading> readings;  ///< oldest first
    std::map<std::string, PartMark> parts;
    std::map<std::string, std::string>
        printed;                             ///< what is on a part, where the builder read it, by designator
    std::vector<LoosePart> loose;            ///< parts without a line, oldest first
    std::map<std::string, Remedy> remedies;  ///< by designator
    std::map<std::string, WindingProgress> windings;  ///< key "T1/main"
    std::map<std::string, std::string> coilChecks;  ///< "T1/cut", "T1/strip", "T1/main/continuity", … → how
    std::map<std::string, StepRecord> steps;
    std::map<std::string, std::string>
        remarks;  ///< by step id; what was done otherwise by a subject's text (station/notes.h)
    std::map<std::string, GateRecord> gates;
    std::map<Choice, ChoiceRecord> choices;
    std::vector<Sitting> sittings;    ///< stretches at the bench, oldest first
    std::vector<Sitting> away;        ///< pauses that the builder wants counted
    std::map<std::string, int> kept;  ///< laid aside so far, "cut leads"
    std::vector<Finding> findings;    ///< oldest first
    std::map<std::string, std::int64_t> joints,
        senses;  ///< looked at under the loupe, and against the print: when
    std::vector<PhotoLine> photos;
    std::vector<Change> changes;             ///< ends of epochs, oldest first
    std::vector<Repair> repairs;             ///< oldest first
    std::vector<Sighting> sightings;         ///< oldest first
    std::vector<AirNote> air;                ///< oldest first
    std::string licence;                     ///< the builder's own limits (judged/licence.h); of the book
    std::map<std::string, double> practice;  ///< of the practice rig: what a coil was bent by, "coil:T1"

    /// The last reading of a subject, or null; one that was taken before the thing itself was changed is not
    /// its reading any more.
    const Reading* last(const Subject& subject) const;
    /// The last reading of a subject, whether it holds or not; null before the first.
    const Reading* lastEver(const Subject& subject) const;
    /// All that hold, oldest first. @param since  only those with a larger id
    std::vector<Reading> all(const Subject& subject, std::int64_t since = -1) const;
    /// The last reading before a subject was changed, by id; −1 when it never was.
    std::int64_t changedAfter(const Subject& subject) const;
    WindingProgress winding(const std::string& coil, const std::string& winding) const;
    bool done(const std::string& step) const { return steps.contains(step); }
    /// What was chosen; empty before.
    std::string chosen(Choice choice) const;

 private:
    /// Where each subject's readings are: a large kit asks thousands of times. Readings are only added, or
    /// taken back from the end; where others stand it is made anew.
    struct Index {
        std::int64_t firstId = 0, lastId = 0;
        std::size_t size = 0;
        std::unordered_map<Subject, std::vector<std::size_t>> places;
    };
    const std::vector<std::size_t>& placesOf(const Subject& subject) const;
    mutable Index index_;
};

}  // namespace ombrek
