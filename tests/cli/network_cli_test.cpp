#include <algorithm>
#include <cmath>
#include <complex>
#include <fstream>

#include "folder.h"
#include "run_cli.h"

using namespace ombrek;
using nlohmann::json;

namespace {

const Folder& folder() {
    static const Folder made;
    return made;
}

std::string circuit(const std::string& text) {
    const auto file = folder() / "net.cir";
    std::ofstream(file) << text;
    return file.string();
}

json asked(const std::string& command) {
    const Ran ran = run(command + " --json");
    INFO(ran.out);
    return json::parse(ran.out);
}

std::string complaint(const std::string& command) {
    const Ran ran = run(command + " --json");
    INFO(ran.out);
    CHECK(ran.code == 2);
    return json::parse(ran.out).at("problem").dump();
}

const std::string kCoupler =
    "coupler --kind T --l 0.1u..25u --c1 10p..240p --c2 10p..240p --frequency 7.03M ";

}  // namespace

TEST_CASE("network: S-parameters of a netlist, as JSON and as Touchstone") {
    // Source: a series resistance R between Z0 and Z0: S21 = 2·Z0/(2·Z0 + R), S11 = R/(2·Z0 + R).
    const std::string file = circuit("t\nR1 in out 100\n");
    const json out = asked("network " + file + " --from 1M --to 2M --points 3");
    REQUIRE(out.at("points").size() == 3);
    CHECK(out["points"][1]["frequency_hz"] == Approx(1.5e6));
    CHECK(out["points"][0]["s21"][0] == Approx(0.5));
    CHECK(out["points"][0]["s11"][0] == Approx(0.5));
    CHECK(out["points"][0]["loss_db"] == Approx(6.0206).margin(1e-4));
    CHECK(out["points"][0]["swr"] == Approx(3));
    const json unlike = asked("network " + file + " --points 1 --z1 50 --z2 150");
    CHECK(unlike["points"][0]["s11"][0] == Approx((250. - 50) / 300));
    const std::string written = (folder() / "net.s2p").string();
    CHECK(run("network " + file + " --points 5 --touchstone " + written).code == 0);
    std::ifstream in(written);
    std::string text((std::istreambuf_iterator<char>(in)), {});
    CHECK(text.find("# Hz S RI R 50") != std::string::npos);
    CHECK(std::count(text.begin(), text.end(), '\n') == 7);
}

TEST_CASE("network: a kit's low-pass passes its band and stops the third harmonic") {
    const json out = asked("network " + std::string(OMBREK_DATA_FOLDER) +
                           "/demo/lantern-15.kit.json --from 21.06M --to 63.18M --points 3");
    CHECK(out["in"] == "rig");
    CHECK(out["points"][0]["loss_db"] < 1);
    CHECK(out["points"][2]["loss_db"] > 50);
}

TEST_CASE("network: what is wrong is said") {
    const std::string file = circuit("t\nR1 in out 100\n");
    CHECK_THAT(complaint("network " + file + " --from 2M --to 1M"), Catch::Contains("--to"));
    CHECK_THAT(complaint("network " + file + " --points 0"), Catch::Contains("--points"));
    CHECK_THAT(complaint("network " + file + " --points 1e9"), Catch::Contains("--points"));
    CHECK_THAT(complaint("network " + file + " --z1 0"), Catch::Contains("--z1"));
    CHECK_THAT(complaint("network " + file + " --from 0"), Catch::Contains("--from"));
    CHECK_THAT(complaint("network " + file + " --in nowhere"), Catch::Contains("nowhere"));
    CHECK_THAT(complaint("network /nowhere/at/all.cir"), Catch::Contains("nowhere"));
    CHECK_THAT(complaint("network " + circuit("t\nD1 in out dd\n.model dd d\n")), Catch::Contains("D1"));
    CHECK_THAT(complaint("network " + circuit("{\"format\": 3}")), Catch::Contains("net.cir"));
}

TEST_CASE("coupler: the settings match, and say what they cost") {
    const json out = asked(kCoupler + "--load 35-120j --power 5 --volts 100");
    CHECK(out.at("reaches") == true);
    // The settings put into the network's own formulas.
    const double w = 2 * M_PI * 7.03e6, l = out["settings"]["l"];
    const auto cap = [&](const char* name) {
        const double c = out["settings"][name];
        return std::complex<double>(1 / (w * c * 1000), -1 / (w * c));
    };
    const std::complex<double> coil(w * l / 150, w * l), load = std::complex<double>(35, -120) + cap("c2");
    const auto z = cap("c1") + coil * load / (coil + load);
    CHECK(z.real() == Approx(50).epsilon(2e-3));
    CHECK(z.imag() == Approx(0).margin(0.2));
    CHECK(out["loss_db"] > 0);
    for (const char* part : {"l", "c1", "c2"}) {
        CHECK(out["volts"][part] > 0);
        CHECK(out["amps"][part] > 0);
    }
    const double volts = std::max(out["volts"]["c1"].get<double>(), out["volts"]["c2"].get<double>());
    CHECK(out["most_watts"] == Approx(5 * std::pow(100 / volts, 2)));
    const json several = asked(kCoupler + "--load 35-120j --load 5+900j --wire 20.3");
    CHECK(several.at("loads").size() == 3);
    const json low =
        asked("coupler --kind pi --l 0.1u..1u --c1 10p..60p --c2 10p..60p --load 3-900j --frequency 3.5M");
    CHECK(low["reaches"] == false);
    CHECK(low["swr"] > 1.5);
}

TEST_CASE("coupler: what is wrong is said") {
    CHECK_THAT(complaint(kCoupler + "--load cabbage"), Catch::Contains("--load"));
    CHECK_THAT(complaint(kCoupler + "--load=-5+10j"), Catch::Contains("takes no power"));
    CHECK_THAT(complaint(kCoupler), Catch::Contains("--load"));
    CHECK_THAT(complaint(kCoupler + "--load 50 --power 0"), Catch::Contains("--power"));
    CHECK_THAT(complaint("coupler --kind Q --l 1u..2u --c1 1p..2p --frequency 7M --load 50"),
               Catch::Contains("--kind"));
    CHECK_THAT(complaint("coupler --kind T --l 1u..2u --c1 1p..2p --frequency 7M --load 50"),
               Catch::Contains("--c2"));
    CHECK_THAT(complaint("coupler --kind T --l 5u..2u --c1 1p..2p --c2 1p..2p --frequency 7M --load 50"),
               Catch::Contains("--l"));
}
