#include "station/proof/chain.h"

#include <algorithm>
#include <cctype>
#include <cmath>

#include "core/text/letters.h"
#include "station/proof/power_method.h"
#include "station/proof/proof.h"
#include "station/said.h"

namespace ombrek {
namespace {

bool isNumber(const std::string& word) {
    return !word.empty() && word.find_first_not_of("0123456789.,+-") == std::string::npos &&
           word.find_first_of("0123456789") != std::string::npos;
}

/// A figure with its unit: "30dB", "30 dB", "+20 dBm", "50 mW", "2 W".
struct Figure {
    double value = NAN;
    std::string unit;  ///< "db", "dbm", "w", "v", "j"
};

Figure figureOf(std::string number, std::string unit) {
    Figure out;
    const std::size_t end = number.find_first_not_of("0123456789.,+-");
    if (end != std::string::npos) {
        unit = number.substr(end);
        number = number.substr(0, end);
    }
    if (!isNumber(number)) return out;
    double scale = 1;
    const std::string word = lowered(unit);
    if (word == "db" || word == "dbm" || word == "w" || word == "v" || word == "j")
        out.unit = word;
    else if (unit == "mW")
        out.unit = "w", scale = 1e-3;
    else if (unit == "kW")
        out.unit = "w", scale = 1e3;
    else
        return out;
    const bool minus = number[0] == '-';
    const auto value = parseQuantity(number.substr(minus || number[0] == '+' ? 1 : 0));
    if (value) out.value = (minus ? -value->value : value->value) * scale;
    return out;
}

Result<Link> linkOf(const std::string& text) {
    Link out;
    double watts = 0;
    const auto words = wordsSaid(text);
    for (std::size_t i = 0; i < words.size(); ++i) {
        const char first = words[i][0];
        const bool number =
            std::isdigit(static_cast<unsigned char>(first)) != 0 || first == '+' || first == '-';
        if (!number) {
            out.name += (out.name.empty() ? "" : " ") + words[i];
            continue;
        }
        const bool apart = isNumber(words[i]) && i + 1 < words.size();
        const Figure f = figureOf(words[i], apart ? words[i + 1] : "");
        if (f.unit.empty() || std::isnan(f.value))
            return problem("", "\"" + words[i].substr(0, 20) + "\" wants a unit: 30 dB, 2 W, +20 dBm, 50 V.");
        if (f.unit == "db" && first == '+')
            return problem("", "\"" + words[i].substr(0, 20) +
                                   "\" would be a gain: nothing that amplifies goes behind a transmitter.");
        if (apart) ++i;
        if (f.unit == "db") out.attenuation = std::abs(f.value);
        if (f.unit == "dbm") out.mostDbm = f.value;
        if (f.unit == "w") watts = f.value;
        if (f.unit == "v") out.mostVolts = std::abs(f.value);
        if (f.unit == "j") out.joules = std::abs(f.value);
        if ((f.unit == "db" && f.value > 120) || (f.unit == "w" && !(f.value > 0)))
            return problem("", "\"" + words[i - (apart ? 1 : 0)].substr(0, 20) + "\" cannot be.");
    }
    if (out.name.empty())
        out.name = out.attenuation > 0 ? decimals(out.attenuation, 0) + " dB pad" : "load";
    else if (out.attenuation > 0 && lowered(out.name) == "pad")
        out.name = decimals(out.attenuation, 0) + " dB pad";
    const std::string name = lowered(out.name);
    const auto named = wordsSaid(name);
    const bool amplifies = std::any_of(named.begin(), named.end(), [](const std::string& word) {
        return word.starts_with("amp") || word.starts_with("preamp") || word == "gain";
    });
    if (out.attenuation > 0 && amplifies)
        return problem(
            "", "\"" + out.name.substr(0, 30) + "\" amplifies: nothing that does goes behind a transmitter.");
    if (name.find("meter") != std::string::npos)
        out.fullScale = watts;
    else
        out.watts = watts;
    return out;
}

}  // namespace

Result<std::vector<Link>> parseChain(std::string_view text) {
    std::vector<Link> out;
    for (const std::string& thing : thingsSaid(text)) {
        const auto link = linkOf(thing);
        if (!link) return tl::make_unexpected(link.error());
        out.push_back(*link);
        if (out.size() > 12) return problem("", "That is more than a dozen things in a row.");
    }
    if (out.empty()) return problem("", "Say what the socket leads to: 30 dB pad 2 W, analyser +20 dBm.");
    return out;
}

double mostPower(const Kit& kit, const std::string& band, double readWatts, double supply) {
    const Ratings rated = kit.ratings.on(band);
    double out = NAN;
    if (rated.power > 0) {
        const double most = std::max(rated.power, rated.powerHigh);
        out = supply > 0 && rated.supply > 0 && std::isfinite(supply)
                  ? most * std::pow(std::max(1.0, supply / rated.supply), 2)
                  : most;
    }
    if (readWatts > 0 && std::isfinite(readWatts))
        out = std::isnan(out) ? readWatts : std::max(out, readWatts);
    return out;
}

double mostRead(const Kit& kit, const Build& build, double supply) {
    double out = NAN;
    for (const Reading& r : build.readings) {
        if (!r.subject.is(Subject::Kind::power)) continue;
        const Power power = powerOf(r, kit.ratings.ohms);
        const double then = supplyOf(build, r);
        const double more = then > 0 && supply > then ? std::pow(supply / then, 2) : 1;
        // An error that is not known may be as much again.
        const double error = std::isfinite(power.uncertainty) ? power.uncertainty : power.watts;
        const double watts = (power.watts + error) * more;
        if (std::isfinite(watts) && !(watts <= out)) out = watts;
    }
    return out;
}

KeyDownAsk whatArrives(const Kit& kit, const Build& build, const std::string& band, double supply,
                       std::string_view chain) {
    const auto links = parseChain(chain);
    if (!links) return {};
    return whatArrives(mostPower(kit, band, mostRead(kit, build, supply), supply), *links, kit.ratings.ohms);
}

}  // namespace ombrek
