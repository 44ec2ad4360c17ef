#include "station/proof/antenna.h"

#include <algorithm>
#include <cctype>
#include <cmath>

#include "core/antenna/load_text.h"
#include "core/antenna/wire_antenna.h"
#include "core/circuit/network.h"
#include "core/quantity/quantity.h"
#include "core/text/letters.h"
#include "station/said.h"

namespace ombrek {
namespace {

constexpr double kWireRadius = 0.0005;  ///< of a usual antenna wire [m]

Result<PartRange> rangeIn(const std::string& text, Unit unit) {
    const auto dots = text.find("..");
    const auto low = parseQuantity(trimmed(text.substr(0, dots)), unit);
    const auto high = dots == std::string::npos ? low : parseQuantity(trimmed(text.substr(dots + 2)), unit);
    if (!low || !high || !(low->value >= 0) || !(high->value >= low->value) || !(high->value > 0))
        return problem("",
                       "\"" + text.substr(0, 30) + "\" is no range: from the least to the most, 10p..240p.");
    return PartRange{low->value, high->value};
}

}  // namespace

Result<Coupler> parseCoupler(std::string_view text) {
    Coupler out;
    bool kind = false;
    for (const std::string& piece : thingsSaid(text)) {
        const std::string word = lowered(piece.substr(0, piece.find(' ')));
        const std::string rest = piece.find(' ') == std::string::npos
                                     ? ""
                                     : std::string(trimmed(std::string_view(piece).substr(piece.find(' '))));
        if (word == "t" || word == "l" || word == "pi" || word == "\u03c0") {
            out.kind = word == "t" ? Coupler::Kind::t : word == "l" ? Coupler::Kind::l : Coupler::Kind::pi;
            kind = true;
        } else if (word == "coil" || word == "rig" || word == "antenna") {
            const auto range = rangeIn(rest, word == "coil" ? Unit::henry : Unit::farad);
            if (!range) return tl::make_unexpected(range.error());
            (word == "coil" ? out.l : word == "rig" ? out.c1 : out.c2) = *range;
        } else if (word == "q") {
            const auto q = parseQuantity(rest);
            if (!q || !(q->value >= 1) || q->value > 10000)
                return problem("", "A coil's Q is from 1 to 10,000.");
            out.coilQ = q->value;
        } else if (const auto volts = parseQuantity(piece, Unit::volt); volts && volts->unit == Unit::volt) {
            if (!(volts->value > 0)) return problem("", "What a capacitor holds is above nothing.");
            out.volts = volts->value;
        } else {
            return problem(
                "", "\"" + piece.substr(0, 40) +
                        "\" is not understood: T, coil 0.1u..25u, rig 10p..240p, antenna 10p..240p, 100 V.");
        }
    }
    if (!kind) return problem("", "A coupler is an L, a T or a pi: say which first.");
    if (!out.l.there() || !out.c1.there())
        return problem("", "It wants the range of its coil and of its capacitor at the rig.");
    if (out.kind != Coupler::Kind::l && !out.c2.there())
        return problem("", "A T or a pi has a second capacitor: antenna 10p..240p.");
    return out;
}

Result<AntennaLoad> parseAntennaLoad(std::string_view given) {
    AntennaLoad out;
    std::string text(trimmed(given));
    if (const auto colon = text.find(':'); colon != std::string::npos) {
        out.band = trimmed(std::string_view(text).substr(0, colon));
        const auto hertz = parseQuantity(out.band, Unit::hertz);
        if (hertz && hertz->unit == Unit::hertz && hertz->value > 1e4 && hertz->value < 1e9) {
            out.frequency = hertz->value;
            out.band.clear();
        }
        text = std::string(trimmed(std::string_view(text).substr(colon + 1)));
    }
    out.name = text;
    const auto space = text.find(' ');
    const std::string word = lowered(text.substr(0, space));
    if (word == "wire" && space != std::string::npos) {
        const auto metres = parseQuantity(trimmed(std::string_view(text).substr(space)), Unit::metre);
        if (!metres || metres->unit != Unit::metre || metres->value < 0.1 || metres->value > 1000)
            return problem("", "A wire is from 0.1 m to 1 km long: wire 20.3.");
        out.wire = metres->value;
        return out;
    }
    // A name may stand before its impedance.
    const bool named = space != std::string::npos && std::isalpha(static_cast<unsigned char>(text[0])) != 0 &&
                       text[0] != 'j';
    const auto load = parseLoad(named ? std::string(trimmed(std::string_view(text).substr(space))) : text);
    if (!load) return tl::make_unexpected(load.error());
    if (!(load->real() > 0))
        return problem("", "\"" + text.substr(0, 30) + "\" takes no power: its resistance is above nothing.");
    out.ohms = *load;
    return out;
}

Result<std::vector<AntennaLoad>> parseAntennaLoads(std::string_view text) {
    std::vector<AntennaLoad> out;
    for (const std::string& piece : thingsSaid(text)) {
        const auto load = parseAntennaLoad(piece);
        if (!load) return tl::make_unexpected(load.error());
        out.push_back(*load);
        if (out.size() > 20) return problem("", "Twenty loads are enough at once.");
    }
    if (out.empty()) return problem("", "Say a load: 35-120j, or wire 20.3.");
    return out;
}

double reflectedShare(double swr) { return swr >= 1 ? std::pow((swr - 1) / (swr + 1), 2) : 0; }

std::vector<AntennaRow> antennaRows(const Kit& kit, const Coupler& coupler,
                                    const std::vector<AntennaLoad>& loads, double watts) {
    std::vector<AntennaRow> out;
    const auto add = [&](const AntennaLoad& load, const std::string& band, double frequency, double power) {
        if (!(frequency > 0) || !(power > 0)) return;
        AntennaRow row;
        row.load = load.name;
        row.band = band;
        row.frequency = frequency;
        row.ohms = load.wire > 0 ? wireImpedance(load.wire, kWireRadius, frequency) : load.ohms;
        if (!(row.ohms.real() > 0) || !std::isfinite(std::abs(row.ohms))) return;
        row.swr = swrOf((row.ohms - coupler.source) / (row.ohms + coupler.source));
        row.match = match(coupler, row.ohms, frequency, power);
        out.push_back(std::move(row));
    };
    for (const AntennaLoad& load : loads) {
        if (load.frequency > 0) {
            add(load, "", load.frequency, watts > 0 ? watts : kit.ratings.power);
            continue;
        }
        for (const std::string& band : kit.ratings.bandNames()) {
            if (!load.band.empty() && load.band != band) continue;
            const Ratings rated = kit.ratings.on(band);
            add(load, band, rated.frequency, watts > 0 ? watts : rated.power);
        }
    }
    return out;
}

}  // namespace ombrek
