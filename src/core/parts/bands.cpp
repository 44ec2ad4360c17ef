#include "core/parts/bands.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/quantity/preferred.h"

namespace ombrek {
namespace {

// IEC 60062: digit, multiplier exponent, tolerance and temperature coefficient of each colour.
constexpr int kNoDigit = -99;
constexpr double kNone = -1;
struct Colour {
    std::string_view name;
    int digit;
    int exponent;
    double tolerance;  ///< [%]
    double drift;      ///< [ppm/K]
};
constexpr std::array<Colour, 13> kColours{{{"black", 0, 0, kNone, 250},
                                           {"brown", 1, 1, 1, 100},
                                           {"red", 2, 2, 2, 50},
                                           {"orange", 3, 3, 0.05, 15},
                                           {"yellow", 4, 4, 0.02, 25},
                                           {"green", 5, 5, 0.5, 20},
                                           {"blue", 6, 6, 0.25, 10},
                                           {"violet", 7, 7, 0.1, 5},
                                           {"grey", 8, 8, 0.05, 1},
                                           {"white", 9, 9, kNone, kNone},
                                           {"gold", kNoDigit, -1, 5, kNone},
                                           {"silver", kNoDigit, -2, 10, kNone},
                                           {"pink", kNoDigit, -3, kNone, kNone}}};

const Colour* colourNamed(std::string_view name) {
    if (name == "gray") name = "grey";
    if (name == "purple") name = "violet";
    const auto hit =
        std::find_if(kColours.begin(), kColours.end(), [&](const Colour& c) { return c.name == name; });
    return hit == kColours.end() ? nullptr : &*hit;
}

/// Dividing by a whole power keeps 22·10^-6 the double nearest to what is written.
double scaled(int digits, int exponent) {
    return exponent >= 0 ? digits * std::pow(10.0, exponent) : digits / std::pow(10.0, -exponent);
}

using Bands = std::vector<const Colour*>;

std::optional<MarkReading> oneWay(const Bands& bands, PartKind kind) {
    const std::size_t figures = bands.size() >= 5 ? 3 : 2;
    if (bands[0]->digit == 0) return std::nullopt;
    MarkReading out;
    out.kind = kind;
    out.code = MarkCode::bands;
    out.bands = int(bands.size());
    for (std::size_t i = 0; i < figures; ++i) {
        if (bands[i]->digit == kNoDigit) return std::nullopt;
        out.figures = out.figures * 10 + bands[i]->digit;
    }
    out.exponent = bands[figures]->exponent;
    out.tolerancePercent = bands.size() > figures + 1 ? bands[figures + 1]->tolerance : 20.0;
    if (*out.tolerancePercent < 0) return std::nullopt;
    if (bands.size() == 6) {
        out.drift = bands[5]->drift;
        if (*out.drift < 0) return std::nullopt;
    }
    const bool choke = kind == PartKind::inductor;
    out.unit = choke ? Unit::henry : Unit::ohm;
    out.value = scaled(out.figures, out.exponent - (choke ? 6 : 0));
    return out;
}

bool preferred(const MarkReading& reading) {
    return isPreferred(reading.value, Series::e24) || isPreferred(reading.value, Series::e96);
}

}  // namespace

const std::vector<std::string>& bandColours() {
    static const std::vector<std::string> names = [] {
        std::vector<std::string> out;
        for (const Colour& colour : kColours) out.emplace_back(colour.name);
        return out;
    }();
    return names;
}

bool isBandColour(std::string_view word) { return colourNamed(word) != nullptr; }

std::vector<MarkReading> readBands(const std::vector<std::string>& colours, PartKind kind) {
    std::vector<MarkReading> out;
    if (colours.size() < 3 || colours.size() > 6) return out;
    if (kind == PartKind::inductor && colours.size() == 6) return out;
    Bands bands;
    for (const std::string& name : colours) {
        const Colour* colour = colourNamed(name);
        if (colour == nullptr) return out;
        bands.push_back(colour);
    }
    if (const auto forward = oneWay(bands, kind)) out.push_back(*forward);
    std::reverse(bands.begin(), bands.end());
    if (auto backward = oneWay(bands, kind)) {
        backward->otherEnd = true;
        if (out.empty() || std::fabs(backward->value / out[0].value - 1) > 1e-9) out.push_back(*backward);
    }
    if (out.size() > 1) std::stable_partition(out.begin(), out.end(), preferred);
    return out;
}

std::vector<std::string> bandsFor(double ohms, double tolerancePercent) {
    if (!(ohms >= 0.1) || ohms >= 1e10) return {};
    const int exponent = static_cast<int>(std::floor(std::log10(ohms) + 1e-9)) - 1;
    const int digits = static_cast<int>(std::lround(ohms / std::pow(10.0, exponent)));
    if (std::fabs(scaled(digits, exponent) / ohms - 1) > 1e-6) return {};
    std::vector<std::string> out{std::string(kColours[std::size_t(digits / 10)].name),
                                 std::string(kColours[std::size_t(digits % 10)].name)};
    for (const Colour& colour : kColours) {
        if (colour.exponent == exponent) out.emplace_back(colour.name);
    }
    for (const Colour& colour : kColours) {
        if (colour.tolerance == tolerancePercent) {
            out.emplace_back(colour.name);
            break;
        }
    }
    return out;
}

}  // namespace ombrek
