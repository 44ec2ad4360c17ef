#pragma once

#include <optional>
#include <string>
#include <unordered_map>
#include <vector>

#include "core/adjust/adjuster.h"
#include "core/adjust/scale.h"
#include "core/adjust/setting.h"
#include "core/circuit/ladder.h"
#include "core/coil/core.h"
#include "core/coil/tank.h"
#include "core/coil/wire.h"
#include "core/parts/marks.h"
#include "core/plan/order.h"
#include "core/quantity/verdict.h"
#include "kit/subject.h"
#include "kit/symptom.h"

namespace ombrek {

/// What the supplier sent: parts, coils, steps, checks, adjustments and rated figures. Plain records; SI
/// values. The file format is described in docs/formats/kit.md.

/// Where a part sits on the board, its middle in millimetres from the top left corner seen from above.
struct Place {
    double x = 0, y = 0, width = 0, height = 0;  ///< [mm]
    double turn = 0;                             ///< clockwise [°]
    bool underside = false;                      ///< fitted from the solder side
};

struct Part {
    std::string ref;  ///< designator, "R14"
    PartKind kind = PartKind::other;
    std::string value;   ///< as the list prints it, "4.7 kΩ", "NPN, small signal"
    double nominal = 0;  ///< SI; 0 when there is nothing to measure
    Unit unit = Unit::none;
    double tolerance = 0;         ///< [%]
    double low = 0, high = 0;     ///< range of a trimmer [F]
    double volts = 0, watts = 0;  ///< rating it must have; 0: any
    std::string what;             ///< its duty, "base bias of the driver"
    std::string mark;             ///< what is printed or painted on it
    std::string orientation;      ///< how it goes in, when that matters
    std::string bag;
    std::string code;     ///< the supplier's order code
    std::string mpn;      ///< the maker's part number, or a semiconductor's type: what to read on it
    std::string package;  ///< as the list or the placement table names it, "0805"
    std::string erratum;  ///< what the paper has wrong of it
    std::optional<Place> place;

    bool measurable() const { return nominal > 0 && kind != PartKind::trimmer; }
};

/// A hole of the board [mm], as a Place.
struct Pad {
    double x = 0, y = 0;
};

struct Winding {
    std::string name;  ///< "main", "antenna link"
    int turns = 0;
    struct Tap {
        int at = 0;  ///< turns from the start
        std::string name;
    };
    std::vector<Tap> taps;
    std::optional<Pad> start, finish;  ///< where its tails go; both or none
};

/// The circuit a coil resonates in.
struct CoilTune {
    std::string trimmer;             ///< designator
    std::vector<std::string> fixed;  ///< designators of the capacitors across the coil
    double stray = 0;                ///< [F]
    double low = 0, high = 0;        ///< the band [Hz]
};

struct Coil {
    std::string ref;   ///< "T1"
    std::string what;  ///< "receive band-pass"
    MagneticCore core;
    Wire wire;
    std::string wireText;  ///< as given, "28AWG"
    double target = 0;     ///< inductance of the first winding [H]
    double tolerance = 0;  ///< accepted deviation [%]
    double tail = 0.03;    ///< each [m]
    std::vector<Winding> windings;
    std::vector<std::string> twisted;  ///< windings that are twisted together before winding
    bool clockwise = true;             ///< sense seen from the parts side, as the board's holes want it
    double impedance = 0,
           lowest = 0;  ///< seen by the first winding [Ω] and the lowest frequency [Hz], of a transformer
    std::optional<CoilTune> tune;
    std::string note;
    std::string erratum;  ///< what the paper has wrong of it
};

/// Work stops here until the evidence named is there, or the builder goes on knowingly.
struct HoldPoint {
    std::vector<Subject> needs;  ///< empty: the builder's own eyes
    std::string say;
};

struct Step {
    std::string id;
    std::string title;               ///< "Solder the 10 kΩ resistors"
    std::vector<std::string> fits;   ///< designators fitted in this step
    std::vector<std::string> after;  ///< step ids
    double minutes = 5;
    double height = 0;  ///< of what is fitted [mm]
    std::optional<HoldPoint> hold;
    std::string caution;
    std::string note;                 ///< a craft remark
    std::vector<std::string> before;  ///< ids of steps that must not be done yet
    std::vector<std::string> tools;   ///< what must lie ready: tools, consumables
    /// Something to lay aside now because a later step wants it.
    struct Keep {
        std::string what;  ///< "cut leads"
        int count = 1;
        std::string until;  ///< step id
    };
    std::vector<Keep> keeps;
    std::string stage;    ///< of the circuit, "supply"
    double hardness = 0;  ///< 1 easy to 5 dreaded; 0: reckoned from what it fits
    double taken = 0;     ///< what a builder before took [min]; 0: not said
    int mended = 0;       ///< what the loupe of a builder before found at it
    std::string erratum;  ///< what the manual or the print has wrong here
    std::string number;   ///< the paper's own, "12" or "5.1"; empty: it has none
};

/// Something to know at `from` because of what comes at `until`.
struct LookAhead {
    std::string from, until;  ///< step ids
    std::string say;
};

struct Check {
    std::string id;
    std::string title;  ///< "5 V regulator output"
    std::string at;     ///< where to touch, "U3 pin 3"
    Unit unit = Unit::volt;
    Limits limits;
    bool gate = false;  ///< do not go on until this passes
    std::string caution{};
    std::string suspects{};   ///< where to look when it fails
    std::string bridge{};     ///< of a current through a gap: what closes it afterwards, "JP2"; empty: no gap
    std::string to{};         ///< the other probe, "U3 pin 2"; empty: ground
    std::string condition{};  ///< "power off", "receive", "key down"; empty: as the step says
    std::string rule{};       ///< how the limits were made from a bare number; empty: as printed
    std::string from{};       ///< designator of what feeds it, "U1": upstream of this point
    std::string seen{};       ///< what must be seen or heard in place of a reading, "the lamp lights"
    bool diode = false;       ///< read in the meter's diode range, power off
    std::string erratum{};    ///< what the paper has wrong of it
    /// Its reading is a yes (1) or a no (0) of the builder's own senses.
    bool yesNo() const { return !seen.empty(); }
};

struct Adjustment {
    enum class Kind {
        peak,
        null,
        set,      ///< to a value
        level,    ///< the same, of a level
        range,    ///< the same, of an end of a tuning range
        bias,     ///< from its safe end until the current just rises, or by an amount over where it began
        contrast  ///< until it is seen
    };
    std::string id;
    std::string title;
    std::string adjuster;  ///< designator of what is turned
    Adjuster turned;       ///< what it is, and how its position is told
    Kind kind = Kind::peak;
    Unit unit = Unit::volt;
    ReadingScale scale;              ///< what is read instead of a number
    std::string reads;               ///< "audio across the phones"
    std::string coil;                ///< the coil it tunes; may be empty
    double target = 0;               ///< of what is set [SI]; of a bias the rise, 0: it just rises
    double tolerance = 0;            ///< of it [same unit]
    double never = 0;                ///< not to be exceeded [same unit]; 0: not said
    double volts = 0;                ///< across a bias' travel [V]; 0: not said
    SafeEnd safe = SafeEnd::none;    ///< where it is begun when its reading can do harm
    std::string band;                ///< of a rig with several
    std::vector<std::string> after;  ///< ids of those it rests on
    std::vector<Subject> needs;      ///< what must hold before: checks
    std::string ready;               ///< what must be done before, "JP3 closed"; empty: nothing
    double warmUp = 0;               ///< that it must have been on [min]
    double keyDown = 0, rest = 0;    ///< the longest that the key is held, and the pause after it [s]
    std::vector<std::string> each;   ///< designators of the transistors that a bias is of, one by one
    std::string caution;
    std::vector<std::string> partners;  ///< ids of those that pull it and are pulled by it: in rounds
    std::string erratum;                ///< what the paper has wrong of it

    /// It is brought to a value.
    bool sets() const { return kind == Kind::set || kind == Kind::level || kind == Kind::range; }
};

/// One element of the low-pass after the final stage, by designator.
struct FilterElement {
    std::string ref;
    bool series = true;
};

/// What is promised on one band of a rig with several.
struct BandRating {
    std::string name;                               ///< "40m"
    double power = 0, powerLow = 0, powerHigh = 0;  ///< [W] at the rated supply
    double frequency = 0;                           ///< [Hz]
    double low = 0, high = 0;                       ///< its edges [Hz]; 0: not said
    std::vector<FilterElement> lowPass;             ///< its own; empty: the kit's
};

struct Ratings {
    enum class Air { unknown, no, yes };
    Air air = Air::unknown;                         ///< whether it transmits, as far as the kit says
    double power = 0, powerLow = 0, powerHigh = 0;  ///< [W] at `supply`
    double supply = 0;                              ///< [V]
    double frequency = 0;                           ///< [Hz]
    double frequencyTolerance = 0;                  ///< [ppm]
    double ohms = 50;
    int harmonics = 3;                       ///< highest order to measure
    double currentLow = 0, currentHigh = 0;  ///< drawn with the key down at `supply` [A]; 0: not promised
    double harmonicsBelow = 0;               ///< promised [dB below the carrier]; 0: not promised
    int finals = 0;                          ///< transistors that share the power; 0: not said
    bool pushPull = false;                   ///< they take turns
    std::vector<BandRating> bands;           ///< the figures above are the first one's; empty: one band
    /// Names of the bands; one without a name where there is but one.
    std::vector<std::string> bandNames() const;
    const BandRating* band(const std::string& name) const;
    /// With the figures of a band.
    Ratings on(const std::string& band) const;
    bool transmits() const { return power > 0; }
    /// It may go on the air and nothing says how strong: that is unknown, not nothing.
    bool mayTransmit() const { return air != Air::no; }
};

/// What the readings of one thing rest on beside what station/rests_on.h knows: the kit's own knowledge of
/// its circuit, "the bias rests on the finals".
struct RestsOn {
    Subject what;
    std::vector<Subject> on;
};

struct Board {
    double width = 0, height = 0;  ///< [mm]
};

struct Kit {
    std::string id, name, summary, note;
    std::string variant;                 ///< the one that is built; empty: the kit has none
    std::vector<std::string> variants;   ///< all of them, by name
    std::vector<std::string> upgrades;   ///< put on top of it so far, by name
    std::vector<std::string> documents;  ///< to lie ready: "manual, issue 3", "board drawing"
    std::string circuit;                 ///< SPICE netlist; empty: the kit comes without, or it was not found
    std::string circuitFile;  ///< the netlist's file beside the kit's, where it was not taken in yet
    Board board;
    std::vector<Part> parts;
    std::vector<Coil> coils;
    std::vector<Step> steps;
    std::vector<LookAhead> lookAheads;
    std::vector<Check> checks;
    std::vector<Adjustment> adjustments;
    std::vector<FilterElement> lowPass;
    std::vector<RestsOn> restsOn;
    std::vector<Symptom> symptoms;  ///< its own, beside those that ship
    Ratings ratings;

    /// By its designator; null when the kit has none, as for those below.
    const Part* part(const std::string& ref) const;
    const Coil* coil(const std::string& ref) const;
    const Step* step(const std::string& id) const;
    const Check* check(const std::string& id) const;
    const Adjustment* adjustment(const std::string& id) const;
    /// The low-pass of a band.
    const std::vector<FilterElement>& lowPassOn(const std::string& band) const;

 private:
    /// Where a designator was found last: a large kit is asked thousands of times. Never trusted without a
    /// look.
    mutable std::unordered_map<std::string, std::size_t> partPlaces_;
    mutable std::size_t partsPlaced_ = 0;
};

/// Fixed, stray and trimmer capacitance across a tuned coil, from the parts list.
TankCapacitance tankOf(const Kit& kit, const CoilTune& tune);

/// The kit's low-pass with nominal capacitors and the coils' targets, for prediction; empty when one of them
/// is not known.
std::vector<LadderElement> lowPassOf(const Kit& kit, const std::string& band = "");

}  // namespace ombrek
