#include "station/subjects.h"

#include <array>
#include <charconv>

namespace ombrek {
namespace {

using Kind = Subject::Kind;

/// Of a place of the circuit: "Voltage at q1_d in receive".
std::string pointTitle(const std::string& id) {
    return (id.starts_with("ohms ") ? "Ohms at " + id.substr(5) : "Voltage at " + id);
}

/// One kind of subject: whether the kit has it, its unit and its title. The last two are asked only of what
/// exists.
struct KindRow {
    Kind kind;
    bool (*exists)(const Kit&, const std::string& id);
    Unit (*unit)(const Kit&, const std::string& id);
    std::string (*title)(const Kit&, const std::string& id);
};

bool transmits(const Kit& kit, const std::string&) { return kit.ratings.transmits(); }

bool named(const Kit&, const std::string& id) { return !id.empty(); }
Unit hertz(const Kit&, const std::string&) { return Unit::hertz; }

const std::array<KindRow, 14>& kinds() {
    static const std::array<KindRow, 14> rows{{
        {Kind::part, [](const Kit& k, const std::string& id) { return k.part(id) != nullptr; },
         [](const Kit& k, const std::string& id) { return k.part(id)->unit; },
         [](const Kit& k, const std::string& id) { return id + " " + k.part(id)->value; }},
        {Kind::coil, [](const Kit& k, const std::string& id) { return k.coil(id) != nullptr; },
         [](const Kit&, const std::string&) { return Unit::henry; },
         [](const Kit& k, const std::string& id) { return id + " " + k.coil(id)->what; }},
        {Kind::check, [](const Kit& k, const std::string& id) { return k.check(id) != nullptr; },
         [](const Kit& k, const std::string& id) { return k.check(id)->unit; },
         [](const Kit& k, const std::string& id) { return k.check(id)->title; }},
        {Kind::adjustment, [](const Kit& k, const std::string& id) { return k.adjustment(id) != nullptr; },
         [](const Kit& k, const std::string& id) { return k.adjustment(id)->unit; },
         [](const Kit& k, const std::string& id) { return k.adjustment(id)->title; }},
        {Kind::step, [](const Kit& k, const std::string& id) { return k.step(id) != nullptr; },
         [](const Kit&, const std::string&) { return Unit::none; },
         [](const Kit& k, const std::string& id) { return k.step(id)->title; }},
        {Kind::node, [](const Kit& k, const std::string& id) { return !k.circuit.empty() && !id.empty(); },
         [](const Kit&, const std::string& id) { return id.starts_with("ohms ") ? Unit::ohm : Unit::volt; },
         [](const Kit&, const std::string& id) { return pointTitle(id); }},
        {Kind::reference, named, hertz, [](const Kit&, const std::string& id) { return "Counter at " + id; }},
        {Kind::crystal, named, hertz, [](const Kit&, const std::string& id) { return "Crystal " + id; }},
        {Kind::dial, named, hertz, [](const Kit&, const std::string& id) { return "Dial at " + id; }},
        {Kind::supply, transmits, [](const Kit&, const std::string&) { return Unit::volt; },
         [](const Kit&, const std::string&) { return std::string("Supply while transmitting"); }},
        {Kind::power, transmits, [](const Kit&, const std::string&) { return Unit::watt; },
         [](const Kit&, const std::string&) { return std::string("Power at the rated supply"); }},
        {Kind::current, transmits, [](const Kit&, const std::string&) { return Unit::ampere; },
         [](const Kit&, const std::string&) { return std::string("Current with the key down"); }},
        {Kind::frequency, transmits, [](const Kit&, const std::string&) { return Unit::hertz; },
         [](const Kit&, const std::string&) { return std::string("Frequency"); }},
        {Kind::harmonic,
         [](const Kit& k, const std::string& id) {
             return k.ratings.transmits() && harmonicOrder(k, id) > 0;
         },
         [](const Kit&, const std::string&) { return Unit::decibel; },
         [](const Kit&, const std::string& id) { return "Harmonic " + id; }},
    }};
    return rows;
}

const KindRow* rowOf(const Kit& kit, const Subject& subject) {
    for (const KindRow& row : kinds()) {
        if (row.kind != subject.kind) continue;
        // A dial may name a band of its own; what is proved is proved on the kit's bands.
        const bool band =
            subject.band.empty() || subject.is(Kind::dial) || kit.ratings.band(subject.band) != nullptr;
        return band && row.exists(kit, subject.id) ? &row : nullptr;
    }
    return nullptr;
}

}  // namespace

int harmonicOrder(const Kit& kit, const std::string& id) {
    int order = 0;
    const auto [end, error] = std::from_chars(id.data(), id.data() + id.size(), order);
    const bool whole = error == std::errc{} && end == id.data() + id.size();
    return whole && order >= 2 && order <= kit.ratings.harmonics ? order : 0;
}

bool exists(const Kit& kit, const Subject& subject) { return rowOf(kit, subject) != nullptr; }

Unit unitOf(const Kit& kit, const Subject& subject) {
    const KindRow* row = rowOf(kit, subject);
    return row == nullptr ? Unit::none : row->unit(kit, subject.id);
}

std::string titleOf(const Kit& kit, const Subject& subject) {
    const KindRow* row = rowOf(kit, subject);
    if (row == nullptr) return subject.text();
    return row->title(kit, subject.id) + (subject.band.empty() ? "" : ", " + subject.band);
}

}  // namespace ombrek
