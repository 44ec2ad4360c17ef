#include "core/coil/wire.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>
#include <cmath>
#include <numbers>
#include <stdexcept>
#include <string>

#include "core/quantity/quantity.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

struct Swg {
    int gauge;
    double millimetres;
};
// Standard wire gauge (imperial), from memory of the published table.
constexpr std::array<Swg, 13> kSwg{{{16, 1.626},
                                    {18, 1.219},
                                    {20, 0.914},
                                    {22, 0.711},
                                    {24, 0.559},
                                    {26, 0.457},
                                    {28, 0.376},
                                    {30, 0.315},
                                    {32, 0.274},
                                    {34, 0.234},
                                    {36, 0.193},
                                    {38, 0.152},
                                    {40, 0.122}}};

tl::unexpected<Problem> unreadable(std::string_view text) {
    return problem("wire", "\"" + std::string(text.substr(0, 30)) +
                               "\" is not a wire; write it as 26AWG, 28SWG or 0.4mm.");
}

WireNames wireNames = WireNames::asGiven;
Lengths lengths = Lengths::centimetres;

/// The gauge nearest to a diameter by ratio; empty when none is within half a step.
std::string nearestGauge(double bare, WireNames scale) {
    const double half = std::pow(92.0, 0.5 / 39.0);
    std::string name;
    double nearest = half;
    const auto look = [&](double diameter, int gauge, const char* unit) {
        const double off = std::max(bare / diameter, diameter / bare);
        if (off > nearest) return;
        nearest = off;
        name = std::to_string(gauge) + unit;
    };
    if (scale == WireNames::awg) {
        for (int gauge = 4; gauge <= 50; ++gauge) look(awgDiameter(gauge), gauge, "AWG");
    } else {
        for (const Swg& row : kSwg) look(row.millimetres * 1e-3, row.gauge, "SWG");
    }
    return name;
}

std::string bare(std::string_view text) {
    std::string out;
    for (const char c : text) {
        if (!std::isspace(static_cast<unsigned char>(c))) out.push_back(lowered(c));
    }
    return out;
}

}  // namespace

double awgDiameter(int gauge) {
    if (gauge < 0 || gauge > 56) throw std::domain_error("AWG runs from 0 to 56");
    return 0.127e-3 * std::pow(92.0, (36.0 - gauge) / 39.0);
}

void writeWiresAs(WireNames names, Lengths of) {
    wireNames = names;
    lengths = of;
}

std::string wireName(const std::string& given, const Wire& wire) {
    if (wireNames == WireNames::asGiven || !(wire.bare > 0)) return given;
    std::string name =
        wireNames == WireNames::millimetres ? std::string() : nearestGauge(wire.bare, wireNames);
    if (name.empty()) name = decimals(wire.bare * 1000, 2) + "\u202fmm";
    return bare(name) == bare(given) ? given : name + " (kit: " + given + ")";
}

std::string lengthName(double metres) {
    return lengths == Lengths::inches ? decimals(metres / 0.0254, 1) + "\u202fin"
                                      : decimals(metres * 100, 0) + "\u202fcm";
}

Wire enamelledWire(double bareDiameter) {
    if (!(bareDiameter >= 0.02e-3) || bareDiameter > 5e-3)
        throw std::domain_error("wire from 0.02 mm to 5 mm");
    return {bareDiameter, bareDiameter + std::clamp(0.02e-3 + 0.075 * bareDiameter, 0.03e-3, 0.06e-3)};
}

Result<Wire> parseWire(std::string_view text) {
    const std::string body = bare(text);
    const bool awg = body.ends_with("awg") || body.starts_with('#');
    if (awg || body.ends_with("swg")) {
        const std::size_t start = body.starts_with('#') ? 1 : 0;
        const std::size_t end = body.ends_with("wg") ? body.size() - 3 : body.size();
        int gauge = -1;
        const auto [stop, error] = std::from_chars(body.data() + start, body.data() + end, gauge);
        if (error != std::errc{} || stop != body.data() + end) return unreadable(text);
        if (awg) {
            if (gauge < 4 || gauge > 50) return unreadable(text);
            return enamelledWire(awgDiameter(gauge));
        }
        for (const Swg& row : kSwg) {
            if (row.gauge == gauge) return enamelledWire(row.millimetres * 1e-3);
        }
        return unreadable(text);
    }
    const auto quantity = parseQuantity(body, Unit::metre);
    if (!quantity || quantity->value < 0.02e-3 || quantity->value > 5e-3) return unreadable(text);
    return enamelledWire(quantity->value);
}

double copperResistance(const Wire& wire, double length) {
    return 1.7241e-8 * length / (std::numbers::pi * wire.bare * wire.bare / 4.0);
}

}  // namespace ombrek
