#include <array>
#include <catch2/catch.hpp>
#include <cstdio>
#include <fstream>
#include <memory>
#include <sstream>

#include "core/antenna/wire_antenna.h"
#include "folder.h"

using namespace ombrek;
using Complex = std::complex<double>;

namespace {

/// An upright wire over perfect ground, fed at its foot, by the method of moments.
/// Source: nec2c, the general-purpose antenna code of Debian.
Complex moments(double length, double radius, double frequency) {
    static const Folder folder;
    const std::string in = (folder / "wire.nec").string(), out = (folder / "wire.out").string();
    std::ofstream card(in);
    card.imbue(std::locale::classic());
    const int segments = 41;
    card << "CM wire\nCE\nGW 1 " << segments << " 0 0 0 0 0 " << length << " " << radius
         << "\nGE 1\nGN 1\nEX 0 1 1 0 1 0\nFR 0 1 0 0 " << frequency / 1e6 << " 0\nXQ\nEN\n";
    card.close();
    const std::string command = std::string(NEC2C) + " -i " + in + " -o " + out + " 2>&1";
    REQUIRE(std::system(command.c_str()) == 0);
    std::ifstream read(out);
    for (std::string line; std::getline(read, line);) {
        if (line.find("ANTENNA INPUT PARAMETERS") == std::string::npos) continue;
        for (int i = 0; i < 2; ++i) std::getline(read, line);
        std::getline(read, line);
        std::istringstream words(line);
        words.imbue(std::locale::classic());
        double tag, segment, vr, vi, ir, ii, zr, zi;
        if (words >> tag >> segment >> vr >> vi >> ir >> ii >> zr >> zi) return {zr, zi};
    }
    FAIL("no impedance in what nec2c wrote");
    return {};
}

}  // namespace

TEST_CASE("a wire's model against the method of moments", "[reference]") {
    const double f = 7.1e6, wave = 299792458 / f, radius = 0.001;
    // Up to and a little beyond a quarter wave the model is close: the resistance within a fifth, the
    // reactance within a tenth of itself or of the line's impedance (here about 550 Ω), which is what a line
    // can say of a wire whose impedance changes along it.
    for (const double part : {0.10, 0.15, 0.20, 0.25, 0.30}) {
        const Complex theirs = moments(part * wave, radius, f), ours = wireImpedance(part * wave, radius, f);
        INFO(part << " of a wave: " << theirs << " by moments, " << ours << " by the line");
        CHECK(ours.real() == Approx(theirs.real()).epsilon(0.2));
        CHECK(ours.imag() == Approx(theirs.imag()).margin(0.1 * std::max(550.0, std::abs(theirs))));
    }
    // About a half wave the end's impedance is high in both; how high a line cannot say well (a factor of
    // two).
    for (const double part : {0.45, 0.55}) {
        const double theirs = std::abs(moments(part * wave, radius, f)),
                     ours = std::abs(wireImpedance(part * wave, radius, f));
        INFO(part << " of a wave: " << theirs << " by moments, " << ours << " by the line");
        CHECK(ours > theirs / 2);
        CHECK(ours < theirs * 2);
    }
}
