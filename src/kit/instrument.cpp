#include "kit/instrument.h"

#include <algorithm>
#include <cmath>

#include "core/text/enumerators.h"

namespace ombrek {
namespace {

struct RoleOf {
    Unit unit;
    InstrumentRole role;
};
constexpr std::array<RoleOf, 8> kRoles{{{Unit::ohm, InstrumentRole::multimeter},
                                        {Unit::volt, InstrumentRole::multimeter},
                                        {Unit::ampere, InstrumentRole::multimeter},
                                        {Unit::farad, InstrumentRole::lcMeter},
                                        {Unit::henry, InstrumentRole::lcMeter},
                                        {Unit::hertz, InstrumentRole::counter},
                                        {Unit::dbm, InstrumentRole::powerMeter},
                                        {Unit::decibel, InstrumentRole::powerMeter}}};

MeterLine sheet(Unit unit, double percent, double digits, double floor) {
    MeterLine out;
    out.unit = unit;
    out.percent = percent;
    out.digits = digits;
    out.floor = floor;
    return out;
}

/// The decade of the lowest range of a usual hand-held meter [SI] (common practice: 200 or 600 mV, Ω, µA):
/// below it a count gets no smaller.
double lowestDecade(Unit unit) {
    switch (unit) {
        case Unit::ohm:
            return 100;
        case Unit::volt:
            return 0.1;
        case Unit::ampere:
            return 100e-6;
        default:
            return 1e-12;
    }
}

/// One count of a meter that picks its own range.
double countOf(double counts, Unit unit, double reading) {
    const double lead = counts / std::pow(10.0, std::floor(std::log10(counts)));  // 6 of 6000
    const double magnitude = std::max(std::fabs(reading), 0.99 * lead * lowestDecade(unit));
    const double range = lead * std::pow(10.0, std::ceil(std::log10(magnitude / lead)));
    return range / counts;
}

}  // namespace

std::string_view word(InstrumentRole role) {
    static constexpr std::array<std::string_view, 4> names{"multimeter", "L/C meter", "counter",
                                                           "power meter"};
    static_assert(names.size() == enumerators<InstrumentRole>());
    return names[static_cast<std::size_t>(role)];
}

InstrumentRole instrumentFor(Unit unit) {
    const auto hit =
        std::find_if(kRoles.begin(), kRoles.end(), [&](const RoleOf& r) { return r.unit == unit; });
    return hit == kRoles.end() ? InstrumentRole::multimeter : hit->role;
}

const std::vector<MeterLine>& usualMeters() {
    static const std::vector<MeterLine> meters{
        sheet(Unit::ohm, 0.8, 2, 0),       sheet(Unit::volt, 0.5, 2, 0),
        sheet(Unit::ampere, 1.0, 3, 0),    sheet(Unit::farad, 1.0, 0, 0.5e-12),
        sheet(Unit::henry, 1.0, 0, 10e-9), sheet(Unit::hertz, 1e-4, 0, 10),
        sheet(Unit::dbm, 0, 0, 0.2),       sheet(Unit::decibel, 0, 0, 1.0)};
    return meters;
}

bool Instrument::does(Unit unit) const {
    const auto units = unitsOf(measures);
    return std::find(units.begin(), units.end(), unit) != units.end();
}

Instrument practiceInstrument() {
    std::vector<Unit> all;
    for (const RoleOf& r : kRoles) all.push_back(r.unit);
    Instrument out;
    out.name = kPracticeBench;
    out.measures = measuresText(all);
    return out;
}

std::vector<Unit> unitsOf(std::string_view measures) {
    std::vector<Unit> out;
    while (!measures.empty()) {
        const auto end = std::min(measures.find(' '), measures.size());
        for (const RoleOf& r : kRoles) {
            if (symbol(r.unit) == measures.substr(0, end)) out.push_back(r.unit);
        }
        measures.remove_prefix(std::min(end + 1, measures.size()));
    }
    return out;
}

std::string measuresText(const std::vector<Unit>& units) {
    std::string out;
    for (const Unit unit : units) out += (out.empty() ? "" : " ") + std::string(symbol(unit));
    return out;
}

const Instrument* instrumentOf(const std::vector<Instrument>& instruments, Unit unit) {
    const Instrument* best = nullptr;
    const auto rank = [](const Instrument& i) { return std::pair(i.way == Way::practice, i.place); };
    for (const Instrument& i : instruments) {
        if (i.used && i.does(unit) && (best == nullptr || rank(i) < rank(*best))) best = &i;
    }
    return best;
}

std::optional<MeterLine> meterFor(const std::vector<MeterLine>& meters, Unit unit, double shown,
                                  const ShownOn& on) {
    const double magnitude = on.range > 0 ? on.range : std::fabs(shown);
    const auto outside = [&](const MeterLine& m) {
        return magnitude < m.low ? m.low - magnitude : std::max(0.0, magnitude - m.high);
    };
    const auto nearest = [&](const std::vector<MeterLine>& lines, bool any) {
        const MeterLine* best = nullptr;
        for (const MeterLine& m : lines) {
            if (m.unit == unit && (any || m.name == on.instrument) &&
                (best == nullptr || outside(m) < outside(*best)))
                best = &m;
        }
        return best == nullptr ? std::nullopt : std::optional(*best);
    };
    if (on.instrument.empty()) return nearest(meters, true);
    auto own = nearest(meters, false);
    return own ? own : nearest(usualMeters(), true);
}

namespace {

/// What an unknown counter's crystal may be off (common practice).
constexpr double kPlainCrystal = 50e-6;

/// No less than a plain crystal, where no sheet in the book describes the counter.
double atLeastItsCrystal(const MeterLine& line, Unit unit, double shown, double uncertainty) {
    const bool unknown = unit == Unit::hertz && line.id == 0;
    return unknown ? std::max(uncertainty, kPlainCrystal * std::fabs(shown)) : uncertainty;
}

}  // namespace

Measured measuredWith(const std::vector<MeterLine>& meters, Unit unit, double shown, const ShownOn& on) {
    const auto line = meterFor(meters, unit, shown, on);
    Measured out{shown, 0, std::isinf(shown), on.instrument};
    if (!line || !std::isfinite(shown)) return out;
    InstrumentError error{line->percent};
    error.digits = line->digits;
    error.resolution = on.count > 0 ? on.count : countOf(line->counts, unit, shown);
    error.percentOfRange = 100;
    error.range = line->floor;
    out.value = shown - line->zero;
    out.uncertainty = expandedUncertainty(error, shown);
    const bool own = !on.instrument.empty() && on.instrument != kPracticeBench;
    if (own) out.uncertainty = atLeastItsCrystal(*line, unit, shown, out.uncertainty);
    return out;
}

Measured typedWith(const std::vector<MeterLine>& meters, Unit unit, double shown) {
    Measured out = measuredWith(meters, unit, shown);
    const MeterLine line = meterFor(meters, unit, shown).value_or(MeterLine());
    if (std::isfinite(shown)) out.uncertainty = atLeastItsCrystal(line, unit, shown, out.uncertainty);
    return out;
}

double usualUncertainty(Unit unit, double reading) {
    return measuredWith(usualMeters(), unit, reading).uncertainty;
}

bool calibrationIsOld(const MeterLine& line, std::int64_t now) {
    constexpr std::int64_t kYear = 366LL * 24 * 3600;
    return line.calibrated > 0 && now - line.calibrated > kYear;
}

}  // namespace ombrek
