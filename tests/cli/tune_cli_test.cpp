#include <cmath>
#include <filesystem>
#include <fstream>
#include <regex>
#include <sstream>

#include "folder.h"
#include "run_cli.h"

using namespace ombrek;
using nlohmann::json;

namespace {

const Folder& folder() {
    static const Folder made;
    return made;
}

json asked(const std::string& command, const std::string& rows, const std::string& more = "") {
    const auto file = folder() / "rows.csv";
    std::ofstream(file) << rows;
    const Ran ran = run(command + " " + file.string() + " --json " + more);
    INFO(ran.out);
    return json::parse(ran.out);
}

std::string resonance(double at, double half, const std::vector<double>& places) {
    std::ostringstream out;
    out << "position,reading\n";
    for (const double x : places) out << x << "," << 2 / std::sqrt(1 + std::pow((x - at) / half, 2)) << "\n";
    return out.str();
}

}  // namespace

TEST_CASE("peak: where it is, where to read next, settled only where it stands: ends and humps") {
    const json few = asked("peak", "position,reading\n0.5,1\n");
    CHECK(few["kind"] == "too_few");
    CHECK(few["best"].is_null());
    const std::vector<double> around{0.2, 0.35, 0.4, 0.45, 0.5, 0.6, 0.44, 0.43};
    const json inside = asked("peak", resonance(0.43, 0.1, around));
    CHECK(inside["kind"] == "inside");
    CHECK(inside["best"].get<double>() == Approx(0.43).margin(0.01));
    CHECK(inside["low"].get<double>() < 0.43);
    CHECK(inside["high"].get<double>() > 0.43);
    CHECK(inside["settled"] == true);
    CHECK(inside["stands_at_loss_db"].get<double>() < 0.1);
    // The same, standing elsewhere; in degrees; in decibels.
    std::vector<double> elsewhere = around;
    elsewhere.push_back(0.8);
    CHECK(asked("peak", resonance(0.43, 0.1, elsewhere))["settled"] == false);
    std::vector<double> degrees;
    for (const double x : around) degrees.push_back(x * 180);
    const json turned = asked("peak", resonance(0.43 * 180, 18, degrees), "--ends 0..180");
    CHECK(turned["best"].get<double>() == Approx(77.4).margin(2));
    std::ostringstream db;
    db << "position;reading\n";
    for (const double x : around)
        db << x << ";" << -10 - 10 * std::log10(1 + std::pow((x - 0.43) / 0.1, 2)) << "\n";
    CHECK(asked("peak", db.str())["best"].get<double>() == Approx(0.43).margin(0.01));
    // Beyond the ends.
    CHECK(asked("peak", resonance(-0.4, 0.2, {0.5, 0.2, 0.0, 0.1, 0.3, 0.8}))["kind"] == "at_least");
    CHECK(asked("peak", resonance(1.4, 0.2, {0.5, 0.2, 1.0, 0.9, 0.7, 0.8}))["kind"] == "at_most");
    std::ostringstream humps;
    humps << "position,reading\n";
    for (double x = 0.1; x < 0.95; x += 0.05) {
        const double s = (x - 0.5) / 0.08, k2 = 4;
        humps << x << "," << 4 / std::sqrt(std::pow(1 - s * s + k2, 2) + 4 * s * s) << "\n";
    }
    const json two = asked("peak", humps.str());
    CHECK(two["kind"] == "two_humps");
    CHECK(std::abs(std::abs(two["best"].get<double>() - 0.5) - 0.08 * std::sqrt(3.0)) < 0.02);
    for (const char* bad : {"", "position,reading\n", "position,reading\nhere,1\n", "reading\n1\n"})
        CHECK(asked("peak", bad).contains("problem"));
    CHECK(asked("peak", "position,reading\n0.1,1\n", "--ends 5..1").contains("problem"));
    CHECK(asked("peak", "position,reading\n0.5,-1e999\n").contains("problem"));
}

TEST_CASE("null: what it says is followed to the floor") {
    // Two adjusters that pull each other: a bowl in power, worked out here.
    const auto left = [](double a, double b) {
        const double p = a - 0.3 + 0.4 * (b - 0.6), q = 0.8 * (b - 0.6) - 0.2 * (a - 0.3);
        return 10 * std::log10(p * p + q * q + 1e-5);
    };
    double a = 0.5, b = 0.5;
    std::ostringstream rows;
    rows << "a,b,reading_db\n";
    json said;
    for (int i = 0; i < 40; ++i) {
        rows << a << "," << b << "," << left(a, b) << "\n";
        said = asked("null", rows.str());
        if (said["converged"] == true) break;
        REQUIRE(said["next"]["position"].is_number());
        (said["next"]["adjuster"] == "a" ? a : b) = said["next"]["position"].get<double>();
    }
    CHECK(said["converged"] == true);
    CHECK(said["next"].is_null());
    CHECK(left(a, b) < -47);
    CHECK(said["floor_db"].get<double>() < -46);
    CHECK(asked("null", "a,b,reading_db\n0.1,,3\n").contains("problem"));
    CHECK(asked("null", "a,b\n1,2\n").contains("problem"));
}

TEST_CASE("reference: offset against error, with prefixes and a decimal comma") {
    const json offset = asked("reference", "read,true\n16.0640M,16M\n8.0656M,8M\n");
    CHECK(offset["verdict"] == "offset");
    CHECK(offset["offset_hz"].get<double>() == Approx(67200));
    CHECK(offset["low"].get<double>() < 67200);
    const json error = asked("reference", "read;true;u\n10000120,0;10000000;1\n5000060,0;5000000;1\n");
    CHECK(error["verdict"] == "reference");
    CHECK(error["error_ppm"].get<double>() == Approx(12));
    const json one = asked("reference", "read,true\n10000120,10000000\n");
    CHECK(one["verdict"] == "cannot tell");
    CHECK(one["offset_hz"].is_null());
    CHECK(asked("reference", "read,true\nten,10M\n").contains("problem"));
}

TEST_CASE("crystals: sets of a batch, and what is left") {
    const json sets =
        asked("crystals", "id,frequency\nA,4915200\nB,4915260\nC,4915190\nD,4915300\nE,4915205\n", "--set 3");
    REQUIRE(sets["sets"].size() == 1);
    CHECK(sets["sets"][0] == json({"C", "A", "E"}));
    CHECK(sets["spread_hz"][0] == 15);
    CHECK(sets["left"] == json({"B", "D"}));
    CHECK(asked("crystals", "id,frequency\nA,4915200\n")["sets"].empty());
    CHECK(asked("crystals", "id,frequency\nA,1\nA,2\n").contains("problem"));
    CHECK(asked("crystals", "id,frequency\nA,-1\n").contains("problem"));
}

TEST_CASE("dial: marks, PDF, and the geometry of its SVG read back") {
    const auto svg = folder() / "dial.svg", pdf = folder() / "dial.pdf";
    const std::string rows = "angle,frequency\n0,7.000M\n45,7.030M\n90,7.080M\n135,7.150M\n180,7.200M\n";
    const json dial = asked("dial", rows, "--round 60mm --svg " + svg.string() + " --pdf " + pdf.string());
    REQUIRE(dial["marks"].size() > 20);
    for (const json& mark : dial["marks"]) {
        if (mark["hz"] == 7080000.0) CHECK(mark["angle_deg"].get<double>() == Approx(90).margin(1e-3));
    }
    CHECK(std::filesystem::file_size(pdf) > 2000);
    std::ifstream in(svg);
    const std::string text((std::istreambuf_iterator<char>(in)), std::istreambuf_iterator<char>());
    CHECK(text.find("width=\"210mm\"") != std::string::npos);
    CHECK(text.find("height=\"297mm\"") != std::string::npos);
    // Lines as they were drawn, in hundredths of a millimetre: each mark from the ring outwards at its angle.
    const std::regex line("<polyline[^>]*points=\"([-0-9.]+),([-0-9.]+) ([-0-9.]+),([-0-9.]+)");
    std::vector<std::array<double, 4>> drawn;
    for (std::sregex_iterator it(text.begin(), text.end(), line), end; it != end; ++it)
        drawn.push_back({std::stod((*it)[1]), std::stod((*it)[2]), std::stod((*it)[3]), std::stod((*it)[4])});
    const double hubX = 10500, hubY = (30 + 30 + 14) * 100;
    std::size_t found = 0;
    for (const json& mark : dial["marks"]) {
        const double a = (mark["angle_deg"].get<double>() - 90) * std::acos(-1.0) / 180;
        const double x = hubX + 3000 * std::sin(a), y = hubY - 3000 * std::cos(a);
        found += std::any_of(drawn.begin(), drawn.end(), [&](const auto& d) {
            return std::hypot(d[0] - x, d[1] - y) < 2 &&
                   std::abs(std::hypot(d[2] - hubX, d[3] - hubY) - (mark["major"] == true ? 3600 : 3300)) < 2;
        });
    }
    CHECK(found == dial["marks"].size());
    const bool gauge = std::any_of(drawn.begin(), drawn.end(), [](const auto& d) {
        return std::abs(d[2] - d[0] - 5000) < 0.5 && std::abs(d[3] - d[1]) < 0.5;
    });
    CHECK(gauge);
    // Shares of the knob's travel: a quarter to three quarters of 180 degrees, not stretched over all of it.
    for (const char* shares : {"position,frequency\n0.25,7.000M\n0.5,7.050M\n0.75,7.100M\n",
                               "position %,frequency\n25,7.000M\n50,7.050M\n75,7.100M\n"}) {
        INFO(shares);
        const json part = asked("dial", shares);
        REQUIRE_FALSE(part.contains("problem"));
        CHECK(part["marks"].front()["angle_deg"].get<double>() == Approx(45).margin(1e-3));
        CHECK(part["marks"].back()["angle_deg"].get<double>() == Approx(135).margin(1e-3));
    }
    const json straight = asked("dial", rows, "--straight 12cm");
    CHECK(straight["length_mm"] == 120);
    CHECK(straight["marks"].back()["mm"].get<double>() == Approx(120).margin(1e-3));
    CHECK(asked("dial", "angle,frequency\n0,7M\n90,7.1M\n180,7.05M\n").contains("problem"));
    CHECK(asked("dial", rows, "--round huge").contains("problem"));
    CHECK(asked("dial", rows, "--pdf /nowhere/dial.pdf").contains("problem"));
}
