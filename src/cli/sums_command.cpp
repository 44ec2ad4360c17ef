#include <cmath>
#include <sstream>

#include "cli/commands.h"
#include "cli/print.h"
#include "core/coil/loss.h"
#include "core/coil/own_core.h"
#include "core/coil/winding.h"
#include "core/sums/sums.h"
#include "formats/files.h"
#include "formats/tables.h"

namespace ombrek {

int sumCommand(const std::string& text, bool json) {
    const auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error(), json);
    const auto answers = answerSum(text, tables->cores);
    if (!answers) return refuse(answers.error(), json);
    auto list = nlohmann::ordered_json::array();
    for (const SumAnswer& a : *answers) {
        if (json) {
            list.push_back({{"meaning", a.meaning},
                            {"value", a.value},
                            {"unit", symbol(a.unit)},
                            {"text", a.text},
                            {"working", a.working.text()}});
        } else {
            std::printf("%s  (%s)\n", a.text.c_str(), a.meaning.c_str());
        }
    }
    if (json) printJson({{"answers", list}});
    return 0;
}

namespace {

/// What is asked, read and checked: a ring core, a wire and a whole number of turns.
struct CoilAnswer {
    MagneticCore core;
    Wire wire;
    int turns = 0;
};

/// A core of the table, or a ring of one's own: "AL4.9n 12.7x7.7x4.8".
Result<MagneticCore> coreNamed(const std::string& text) {
    const auto tables = readTables(dataFolder());
    if (!tables) return tl::make_unexpected(tables.error());
    if (const MagneticCore* core = tables->core(text)) return *core;
    MagneticCore own;
    std::istringstream words(text);
    bool all = true;
    for (std::string word; words >> word;) all = takeOwnCore(own, word) && all;
    if (all && whole(own)) return own;
    return problem("core", "\"" + text +
                               "\" is not in the core table; a ring of your own is AL and size in mm, "
                               "\"AL4.9n 12.7x7.7x4.8\".");
}

Result<CoilAnswer> readQuestion(const CoilQuestion& q) {
    const auto core = coreNamed(q.core);
    if (!core) return tl::make_unexpected(core.error());
    const auto wire = parseWire(q.wire);
    if (!wire) return tl::make_unexpected(wire.error());
    if (q.tailMillimetres < 0 || q.tailMillimetres > 1000)
        return problem("tail", "A tail is 0 to 1000 mm long.");
    CoilAnswer out{*core, *wire, q.turns};
    if (q.inductance.empty()) {
        if (q.turns < 1 || q.turns > 10000) return problem("turns", "A winding has 1 to 10000 turns.");
        return out;
    }
    const auto wanted = parseQuantity(q.inductance, Unit::henry);
    if (!wanted) return tl::make_unexpected(wanted.error());
    if (!(wanted->value > 0) || wanted->value > core->al * 1e8) {
        return problem("inductance", "This inductance is out of range for " + q.core + ".");
    }
    out.turns = turnsFor(*core, wanted->value);
    return out;
}

}  // namespace

namespace {

/// What copper and core do at a frequency and a power.
struct CoilAtPower {
    double copperQ = 0, flux = 0, ceiling = 0;
};

/// The voltage is that of the power in the stated ohms, across the whole winding.
Result<CoilAtPower> atPower(const CoilQuestion& q, const CoilAnswer& coil) {
    const auto frequency = parseQuantity(q.frequency, Unit::hertz);
    if (!frequency) return problem("frequency", frequency.error().sentence);
    if (!(frequency->value >= 1) || frequency->value > 1e12)
        return problem("frequency", "This frequency is out of range.");
    CoilAtPower out;
    const double length = wireOnCore(coil.core, coil.wire, coil.turns);
    out.copperQ = copperQ(inductance(coil.core, coil.turns), coil.wire, length, frequency->value);
    if (q.power.empty()) return out;
    if (coil.core.shape != MagneticCore::Shape::ring)
        return problem("power", "The flux is reckoned for a ring: the section of this core is not known.");
    const auto power = parseQuantity(q.power, Unit::watt);
    if (!power) return problem("power", power.error().sentence);
    if (!(power->value >= 0) || power->value > 1e7) return problem("power", "This power is out of range.");
    if (!(q.ohms > 0)) return problem("ohms", "The impedance is positive.");
    out.flux = fluxDensity(coil.core, coil.turns, std::sqrt(power->value * q.ohms), frequency->value);
    out.ceiling = fluxCeiling(frequency->value);
    return out;
}

}  // namespace

int coilCommand(const CoilQuestion& question, bool json) {
    const auto coil = readQuestion(question);
    if (!coil) return refuse(coil.error(), json);
    const auto& [core, wire, turns] = *coil;
    const double value = inductance(core, turns);
    const InductanceRange range = inductanceRange(core, turns);
    const bool ring = core.shape == MagneticCore::Shape::ring;
    const double length = wireOnCore(core, wire, turns);
    const double cut = wireToCut(core, wire, turns, question.tailMillimetres * 1e-3);
    CoilAtPower power;
    if (!question.frequency.empty() || !question.power.empty()) {
        const auto read = atPower(question, *coil);
        if (!read) return refuse(read.error(), json);
        power = *read;
    }
    if (json) {
        nlohmann::ordered_json out{{"turns", turns},
                                   {"inductance", value},
                                   {"inductance_low", range.low},
                                   {"inductance_high", range.high},
                                   {"wire_length", length},
                                   {"wire_cut", cut}};
        if (ring) {
            out["turns_that_fit"] = turnsThatFit(core, wire);
            out["turns_over_300_degrees"] = turnsOver300(core, wire);
        }
        if (power.copperQ > 0) out["q_copper"] = power.copperQ;
        if (power.ceiling > 0) {
            out["flux_density"] = power.flux;
            out["flux_ceiling"] = power.ceiling;
        }
        printJson(out);
        return 0;
    }
    std::printf("%d turns on %s: %s (%s to %s)\n", turns, core.designation.c_str(),
                formatQuantity(value, Unit::henry, 4).c_str(),
                formatQuantity(range.low, Unit::henry, 3).c_str(),
                formatQuantity(range.high, Unit::henry, 3).c_str());
    std::printf("wire on the core %.0f mm, cut %.0f mm", length * 1e3, cut * 1e3);
    if (ring) std::printf("; %d turns fit in one layer", turnsThatFit(core, wire));
    std::printf("\n");
    if (power.copperQ > 0)
        std::printf("copper-only Q at most %s\n", formatQuantity(power.copperQ, Unit::none, 2).c_str());
    if (power.ceiling > 0)
        std::printf("flux %.2f mT of about %.1f mT\n", power.flux * 1e3, power.ceiling * 1e3);
    return 0;
}

}  // namespace ombrek
