#include <cmath>
#include <numbers>

#include "bench_fixture.h"
#include "run_cli.h"

using nlohmann::json;

TEST_CASE("coil: a ring of one's own, its AL and size in words") {
    const auto table = json::parse(run("coil --core T50-2 --turns 20 --json").out);
    const auto own = json::parse(run("coil --core 'AL4.9n 12.7x7.7x4.83' --turns 20 --json").out);
    CHECK(own["inductance"].get<double>() == Approx(table["inductance"].get<double>()));
    CHECK(own["turns_that_fit"] == table["turns_that_fit"]);
    for (const char* bad : {"AL4.9n", "12.7x7.7x4.83", "AL4.9 12.7x7.7x4.83", "AL4.9n 12.7x7.7x4.83 red"}) {
        const Ran ran = run("coil --turns 20 --json --core '" + std::string(bad) + "'");
        INFO(bad);
        CHECK(ran.code == 2);
        CHECK(json::parse(ran.out)["problem"]["place"] == "core");
    }
}

TEST_CASE("coil: copper Q and flux at a frequency and a power") {
    const auto out = json::parse(run("coil --core T50-6 --turns 20 --frequency 21M --power 3 --json").out);
    CHECK(out["q_copper"].get<double>() > 100);
    // B = V/(4.44·f·N·Ae), V = √(3 W·50 Ω), Ae = h·(OD − ID)/2 from the core table. Source: Faraday's law.
    const double area = 4.83e-3 * (12.7e-3 - 7.7e-3) / 2;
    CHECK(out["flux_density"].get<double>() ==
          Approx(std::sqrt(150.0) / (4.44 * 21e6 * 20 * area)).epsilon(0.01));
    CHECK(out["flux_ceiling"].get<double>() < 4.2e-3);
    CHECK_FALSE(json::parse(run("coil --core T50-6 --turns 20 --json").out).contains("q_copper"));
    CHECK(run("coil --core T50-6 --turns 20 --frequency none --json").code == 2);
    CHECK(run("coil --core T50-6 --turns 20 --frequency 21M --power -3 --json").code == 2);
    CHECK(run("coil --core T50-6 --turns -4 --json").code == 2);
    CHECK(run("coil --core T50-6 --turns 20 --wire 30mm --json").code == 2);
}

TEST_CASE("trimmer: what it reaches, where it stands, and the turns to centre it") {
    auto out = json::parse(
        run("trimmer --inductance 1.1u --fixed 33p --trim 5p..30p --target 21.06M --turns 20 --json").out);
    // Thomson's formula by hand: C = 1/((2πf)²L) = 51.92 pF, so (51.92 − 38)/25 of the travel.
    const double c = 1 / (std::pow(2 * std::numbers::pi * 21.06e6, 2) * 1.1e-6);
    CHECK(out["position"].get<double>() == Approx((c - 38e-12) / 25e-12));
    CHECK(out["f_low"].get<double>() == Approx(1 / (2 * std::numbers::pi * std::sqrt(1.1e-6 * 63e-12))));
    CHECK(out["f_high"].get<double>() == Approx(1 / (2 * std::numbers::pi * std::sqrt(1.1e-6 * 38e-12))));
    CHECK(out["turns_change"] == 0);
    out = json::parse(
        run("trimmer --inductance 2.2u --fixed 33p --trim 5p..30p --target 21.06M --turns 20 --json").out);
    CHECK(out["position"].is_null());
    CHECK(out["turns_change"].get<int>() < 0);
    for (const char* bad :
         {"--trim 30p..5p", "--trim 5p", "--trim 5p..30p --turns 0", "--trim 5p..30p --turns -2"}) {
        const std::string turns = std::string(bad).find("--turns") == std::string::npos ? " --turns 20" : "";
        const Ran ran = run("trimmer --inductance 1.1u --target 21.06M --json " + std::string(bad) + turns);
        INFO(bad);
        CHECK(ran.code == 2);
        CHECK(json::parse(ran.out).contains("problem"));
    }
}

TEST_CASE("turns: the count in a picture, and what is none") {
    const auto out = json::parse(run("turns " OMBREK_DATA_FOLDER "/demo/coil-l2.jpg --json").out);
    CHECK(out["count"] == 7);
    CHECK(out["sure"] == true);
    CHECK(run("turns " OMBREK_DATA_FOLDER "/cores.csv --json").code == 2);
    CHECK(run("turns /nowhere.png --json").code == 2);
}
