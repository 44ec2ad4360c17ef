#pragma once

#include <array>
#include <cstdint>
#include <limits>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/instrument.h"
#include "core/quantity/quantity.h"

namespace ombrek {

/// The instruments of a usual bench.
enum class InstrumentRole { multimeter, lcMeter, counter, powerMeter };
inline constexpr std::array<InstrumentRole, 4> kInstrumentRoles{
    InstrumentRole::multimeter, InstrumentRole::lcMeter, InstrumentRole::counter, InstrumentRole::powerMeter};

/// "multimeter", "L/C meter", "counter", "power meter".
std::string_view word(InstrumentRole role);
/// The instrument that measures a unit on this bench.
InstrumentRole instrumentFor(Unit unit);

/// How an instrument is reached.
enum class Way {
    practice,  ///< the practice bench that ships with Ombrek
    tcp,       ///< SCPI lines over a network socket
    serial,    ///< a serial port, a USB lead of one among them
    usbtmc,    ///< a USB instrument by the kernel's usbtmc
    sigrok,    ///< whatever libsigrok has a driver for
    folder     ///< files that the instrument writes
};

/// An instrument on the builder's bench.
struct Instrument {
    std::int64_t id = 0;  ///< 0: not in the book
    std::string name;     ///< the builder's, one an instrument
    Way way = Way::practice;
    /// "192.168.1.20:5025", "/dev/ttyUSB0 9600 8N1", "/dev/usbtmc0", "demo" or "driver:conn=…", a folder.
    std::string address;
    std::string speaks;      ///< id of a command set; "lines": it prints lines by itself; else as the way is
    std::string pattern;     ///< of lines: see LinePattern
    std::string measures;    ///< the symbols of its units, "V A Ω"; empty: nothing yet
    int average = 1;         ///< readings in one, once it stands
    bool used = true;        ///< one that is not used stays in the list
    std::string identity;    ///< maker, model and serial number that it told when it was tried; empty: none
    std::int64_t place = 0;  ///< of two that measure the same the lower is asked
    bool does(Unit unit) const;
};

/// The practice bench, which is in every list.
inline constexpr std::string_view kPracticeBench = "practice bench";
Instrument practiceInstrument();
/// The units in an Instrument's `measures`.
std::vector<Unit> unitsOf(std::string_view measures);
std::string measuresText(const std::vector<Unit>& units);

/// Of those in use that measure a unit, the one that is asked; null: none does. The builder's own come first.
const Instrument* instrumentOf(const std::vector<Instrument>& instruments, Unit unit);

/// One line of an instrument's data sheet: what it promises for one quantity over one range.
struct MeterLine {
    std::int64_t id = 0;
    std::string name;  ///< the builder's name for the instrument; empty: the role's
    Unit unit = Unit::none;
    double low = 0, high = std::numeric_limits<double>::infinity();  ///< range of readings [SI]
    double percent = 0;                                              ///< of the reading [%]
    double digits = 0, counts = 6000;                                ///< of the last digit; of the display
    double floor = 0;                                                ///< an absolute part of the error [SI]
    double zero = 0;              ///< shown with nothing on the clips, taken off every reading [SI]
    std::int64_t calibrated = 0;  ///< seconds since 1970; 0: not known
    double most = std::numeric_limits<double>::infinity();  ///< more than this harms it [SI]
};

/// The usual bench, one line a quantity: multimeter of 6000 counts with 0.5 % + 2 digits on volts, 0.8 % + 2
/// digits on ohms, 1 % + 3 digits on amperes; L/C meter 1 % + 0.5 pF, 1 % + 10 nH; counter 1 ppm of its
/// reference + 10 Hz; power meter 0.2 dB. The simulated bench's own data sheets, and honest guesses for a
/// typed reading (common practice).
const std::vector<MeterLine>& usualMeters();

/// What a reading is worth.
struct Measured {
    double value = 0;        ///< the zero taken off [SI]
    double uncertainty = 0;  ///< U = 2u [same unit]
    bool beyond = false;     ///< an overload: the true value is `value` or more
    std::string meter{};     ///< what measured, by its name
};

/// What is known of where a reading was shown, beside the number.
struct ShownOn {
    std::string instrument{};  ///< its name; empty: whichever measures the unit
    double range = 0;          ///< full scale that it was in [SI]; 0: not known
    double count = 0;          ///< worth of the last digit shown [SI]; 0: not known
};

/// The line that holds for a reading: of its unit, instrument and range, else the nearest range of the unit;
/// nothing when the bench has none. An instrument that has no line of its own has the usual one: another's
/// sheet says nothing of it.
std::optional<MeterLine> meterFor(const std::vector<MeterLine>& meters, Unit unit, double shown,
                                  const ShownOn& on = {});

/// The zero taken off, and the expanded uncertainty by the data sheet. The error is of what the meter shows,
/// so it is taken before the zero is. A count that was seen goes before the one of the sheet. A counter of
/// one's own that no sheet in the book describes is good for its crystal alone, as in typedWith.
Measured measuredWith(const std::vector<MeterLine>& meters, Unit unit, double shown, const ShownOn& on = {});

/// A number that a hand typed off a display. A counter that no sheet in the book describes may be off by what
/// the crystals that counters run on are off: 50 ppm at least (common practice).
Measured typedWith(const std::vector<MeterLine>& meters, Unit unit, double shown);

/// Expanded uncertainty of a reading with the usual bench [same unit].
double usualUncertainty(Unit unit, double reading);

/// Whether a data sheet may still be believed: its promise usually holds for a year (common practice).
bool calibrationIsOld(const MeterLine& line, std::int64_t now);

}  // namespace ombrek
