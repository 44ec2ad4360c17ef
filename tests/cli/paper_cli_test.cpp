#include <fstream>

#include "bench_fixture.h"
#include "run_cli.h"

using nlohmann::json;
using namespace ombrek;

namespace {

std::string write(const Folder& folder, const std::string& name, const std::string& text) {
    const std::string file = (folder / name).string();
    std::ofstream(file) << text;
    return file;
}

}  // namespace

TEST_CASE("list: fitted, part number, package, variants, coils and hardware") {
    const Folder folder;
    const auto file = write(
        folder, "list.csv",
        "Ref,Value,40m,20m,Footprint,MPN,DNP\nR1,10k,,,0805,RC-1,\nC5,,100p,47p,0805,,\nR2,22k,,,0805,,DNP\n"
        "L1,\"T50-2, 28 turns #28, tap at 7\",,,,,\n,M3 x 6 screws,,,,,\n");
    const auto open = json::parse(run("list " + file + " --json").out);
    CHECK(open["variants"] == json({"40m", "20m"}));
    const auto& lines = open["lines"];
    REQUIRE(lines.size() == 4);
    CHECK(lines[0]["fitted"] == true);
    CHECK(lines[0]["mpn"] == "RC-1");
    CHECK(lines[0]["package"] == "0805");
    CHECK(lines[0]["part_count"] == 1);
    CHECK_FALSE(lines[1]["doubts"].empty());
    CHECK(lines[2]["fitted"] == false);
    REQUIRE(open["coils"].size() == 1);
    CHECK(open["coils"][0]["ref"] == "L1");
    CHECK(open["coils"][0]["core"] == "T50-2");
    CHECK(open["coils"][0]["wire"] == "28AWG");
    CHECK(open["coils"][0]["windings"][0]["turns"] == 28);
    CHECK(open["coils"][0]["windings"][0]["taps"] == json({7}));
    const auto chosen = json::parse(run("list " + file + " --variant 20m --json").out);
    CHECK(chosen["lines"][1]["value"].get<double>() == Approx(47e-12));
    CHECK(run("list " + file + " --variant 15m --json").code == 2);
    const auto wire = write(folder, "wire.txt", "R1 10k\n\nHardware\n60 cm RG174 coax\n");
    const auto hardware = json::parse(run("list " + wire + " --json").out)["hardware"];
    REQUIRE(hardware.size() == 1);
    CHECK(hardware[0]["what"] == "RG174 coax");
    CHECK(hardware[0]["count"] == 60);
    CHECK(hardware[0]["unit"] == "cm");
}

TEST_CASE("checks and steps from pasted text") {
    const Folder folder;
    const auto table =
        write(folder, "volts.txt", "IC3 pin 8  5.0 V\nSupply current <50 mA\nU2-1 to U2-7  5.78\n");
    const auto checks = json::parse(run("checks " + table + " --json").out)["checks"];
    REQUIRE(checks.size() == 3);
    CHECK(checks[0]["at"] == "IC3 pin 8");
    CHECK(checks[0]["low"].get<double>() == Approx(4.5));
    CHECK(checks[1]["high"].get<double>() == Approx(0.05));
    CHECK(checks[1]["low"].is_null());
    CHECK(checks[2]["to"] == "U2-7");
    CHECK_FALSE(checks[2]["doubts"].empty());
    const auto paper =
        write(folder, "steps.txt", "1. Solder R1 to R3. Do not fit U1 yet.\n2. Insert U1 with pliers.\n");
    const auto steps = json::parse(run("steps " + paper + " --json").out)["steps"];
    REQUIRE(steps.size() == 2);
    CHECK(steps[0]["fits"] == json({"R1", "R2", "R3"}));
    CHECK(steps[0]["holds"].size() == 1);
    CHECK(steps[1]["tools"] == json({"pliers"}));
    CHECK(run("checks " + write(folder, "none.txt", "nothing\n") + " --json").code == 2);
    CHECK(run("steps /nowhere --json").code == 2);
}

TEST_CASE("rebuild: elements before and after with turns and response") {
    const std::string kit = std::string(OMBREK_DATA_FOLDER) + "/demo/lantern-15.kit.json";
    const Folder folder;
    const std::string out = (folder / "other.kit.json").string();
    const auto answer = json::parse(run("rebuild " + kit + " --band 3.5M..3.8M --json --kit " + out).out);
    REQUIRE(answer["elements"].size() == 7);
    for (const auto& element : answer["elements"]) {
        CHECK(element["after"].get<double>() > 4 * element["before"].get<double>());
        if (element["kind"] == "coil")
            CHECK(element["turns_after"].get<int>() > element["turns_before"].get<int>());
    }
    CHECK(answer["response"].size() > 20);
    CHECK(run("kit check " + out).code == 0);
    CHECK(run("rebuild " + kit + " --band 3.5M --json").code == 2);
    CHECK(run("rebuild " + kit + " --band 7M..3M --json").code == 2);
}
