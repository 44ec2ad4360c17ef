#include <catch2/catch.hpp>
#include <cmath>
#include <cstdio>
#include <sstream>

#include "core/frequency/pchip.h"
#include "core/frequency/reference.h"

using namespace ombrek;

// Against a numerical library that is not ours, python3-scipy of Debian.

namespace {

/// What a line of Python prints, as numbers; nothing when the library is not there.
std::vector<double> python(const std::string& program) {
    FILE* pipe = popen(("/usr/bin/python3 -c '" + program + "' 2>/dev/null").c_str(), "r");
    REQUIRE(pipe != nullptr);
    std::string said;
    char buffer[4096];
    while (const std::size_t got = std::fread(buffer, 1, sizeof buffer, pipe)) said.append(buffer, got);
    pclose(pipe);
    std::istringstream in(said);
    in.imbue(std::locale::classic());
    std::vector<double> out;
    for (double value = 0; in >> value;) out.push_back(value);
    return out;
}

std::string listed(const std::vector<double>& values) {
    std::ostringstream out;
    out.imbue(std::locale::classic());
    out.precision(17);
    out << "[";
    for (const double v : values) out << v << ",";
    return out.str() + "]";
}

bool there() { return !python("import scipy; print(1)").empty(); }

}  // namespace

TEST_CASE("the monotone curve is that of scipy", "[reference]") {
    if (!there()) return;
    const std::vector<std::pair<std::vector<double>, std::vector<double>>> curves{
        {{0, 30, 75, 120, 180}, {7.0, 7.02, 7.08, 7.15, 7.2}},
        {{0, 1, 2, 3, 4, 5}, {10, 10, 10.5, 15, 50, 60}},
        {{-3, -1, 0.5, 2}, {5, 1, 1.5, -4}},
        {{0, 0.2, 1}, {1, 5, 5.2}},
        {{0, 1}, {3, 4}}};
    for (const auto& [x, y] : curves) {
        const auto ours = Pchip::through(x, y);
        REQUIRE(ours);
        std::vector<double> at;
        for (int i = 0; i <= 60; ++i) at.push_back(x.front() + (x.back() - x.front()) * i / 60);
        const auto theirs = python(
            "from scipy.interpolate import PchipInterpolator as P; print(*[repr(float(v)) for v in P(" +
            listed(x) + "," + listed(y) + ")(" + listed(at) + ")])");
        REQUIRE(theirs.size() == at.size());
        for (std::size_t i = 0; i < at.size(); ++i)
            CHECK((*ours)(at[i]) == Approx(theirs[i]).epsilon(1e-9).margin(1e-9));
    }
}

TEST_CASE("offset and reference error are those of scipy's weighted fit", "[reference]") {
    if (!there()) return;
    const std::vector<double> known{2e6, 5e6, 10e6, 14e6, 21e6},
        read{2000043, 5000061, 10000118, 14000140, 21000220}, error{3, 4, 10, 5, 20};
    std::vector<CountedPoint> points;
    for (std::size_t i = 0; i < known.size(); ++i) points.push_back({read[i], known[i], error[i]});
    const auto ours = fitReference(points);
    const auto theirs = python("import numpy as n; from scipy.optimize import curve_fit as c; x=n.array(" +
                               listed(known) + "); y=n.array(" + listed(read) +
                               ")-x; p,v=c(lambda x,b,k: b+k*x/1e6,x,y,sigma=" + listed(error) +
                               ",absolute_sigma=True); print(p[0],p[1],v[0][0]**.5,v[1][1]**.5)");
    REQUIRE(theirs.size() == 4);
    CHECK(ours.offset == Approx(theirs[0]).epsilon(1e-4));
    CHECK(ours.ppm == Approx(theirs[1]).epsilon(1e-4));
    // Wider where the readings scatter more than their errors; never narrower.
    CHECK(ours.offsetHigh - ours.offset >= 1.96 * theirs[2] * 0.999);
    CHECK(ours.ppmHigh - ours.ppm >= 1.96 * theirs[3] * 0.999);
}
