#include <algorithm>
#include <fstream>

#include "bench_fixture.h"
#include "run_cli.h"

using nlohmann::json;
using namespace ombrek;

namespace {

std::string write(const Folder& folder, const std::string& name, const std::string& text) {
    const auto path = (folder / name).string();
    std::ofstream(path) << text;
    return path;
}

}  // namespace

TEST_CASE("mark: every reading, the kind asked for, and a refusal") {
    const auto all = json::parse(run("mark 104K --json").out)["readings"];
    REQUIRE(all.size() >= 2);
    CHECK(all[0]["kind"] == "capacitor");
    CHECK(all[0]["value"].get<double>() == Approx(100e-9));
    CHECK(all[0]["unit"] == "F");
    CHECK(all[0]["tolerance"] == 10);
    const auto bands =
        json::parse(run("mark \"yellow violet red gold\" --kind resistor --json").out)["readings"];
    CHECK(bands[0]["value"].get<double>() == Approx(4700));
    CHECK(json::parse(run("mark 22 --json").out)["readings"][0]["tolerance"].is_null());
    const Ran bad = run("mark hello --json");
    CHECK(bad.code == 2);
    CHECK(json::parse(bad.out).contains("problem"));
    CHECK(run("mark 104 --kind gizmo --json").code == 2);
}

TEST_CASE("match: the bag against the list") {
    const Folder folder;
    const auto list = write(folder, "list.csv",
                            "ref,kind,value,tolerance_pct\nR1,resistor,1k,5\nR2,resistor,100k,5\n"
                            "R3,resistor,1M,5\nC1,capacitor,22n,10\n");
    const auto bag = write(folder, "bag.csv",
                           "id,kind,value,error_pct\np1,resistor,98.4k,1\np2,resistor,0.990k,1\n"
                           "p3,capacitor,33n,1\np4,resistor,4.7k,1\n");
    const Ran ran = run("match --list " + list + " --bag " + bag + " --json");
    REQUIRE(ran.code == 0);
    const auto answer = json::parse(ran.out);
    const auto refOf = [&](const std::string& id) {
        for (const auto& a : answer["assigned"])
            if (a["id"] == id) return a["ref"].get<std::string>() + " " + a["verdict"].get<std::string>();
        return std::string();
    };
    CHECK(refOf("p1") == "R2 pass");
    CHECK(refOf("p2") == "R1 pass");
    CHECK(refOf("p3") == "C1 fail");
    CHECK(answer["missing"] == json::array({"R3"}));
    CHECK(answer["surplus"] == json::array({"p4"}));

    const auto broken = write(folder, "broken.csv", "id,kind,value,error_pct\np1,resistor,plenty,1\n");
    const Ran refused = run("match --list " + list + " --bag " + broken + " --json");
    CHECK(refused.code == 2);
    CHECK(json::parse(refused.out)["problem"]["place"].get<std::string>().find("line 2") == 0);
    CHECK(run("match --list " + list + " --bag /nowhere --json").code == 2);
    CHECK(run("match --list " + bag + " --bag " + bag + " --json").code == 2);
}

TEST_CASE("substitute: singles before pairs, with resulting limits") {
    const Folder folder;
    const auto stock = write(folder, "stock.csv",
                             "drawer,kind,value,tolerance,volts,count\nA1,capacitor,22n,5,63,1\n"
                             "A2,capacitor,47n,5,63,2\nA3,capacitor,10n,5,63,2\n");
    const Ran ran = run("substitute --kind capacitor --want 22n --tolerance 10 --stock " + stock + " --json");
    REQUIRE(ran.code == 0);
    const auto list = json::parse(ran.out)["substitutes"];
    REQUIRE(list.size() >= 3);
    CHECK(list[0]["how"] == "single");
    CHECK(list[0]["parts"][0]["drawer"] == "A1");
    CHECK(list[1]["value"].get<double>() == Approx(20e-9).epsilon(0.2));
    CHECK(std::any_of(list.begin(), list.end(), [](const json& s) { return s["how"] == "series"; }));
    CHECK(run("substitute --kind capacitor --want -3 --stock " + stock + " --json").code == 2);
    CHECK(run("substitute --kind coil --want 3 --stock " + stock + " --json").code == 2);
}

TEST_CASE("list: what was understood, the doubts, and a kit") {
    const Folder folder;
    const auto file =
        write(folder, "list.txt", "C1, C2, C5-C8   100nF 50V ceramic (marked 104)   7\nglue\nR1  10k  1\n");
    const auto kit = (folder / "made.kit.json").string();
    const Ran ran = run("list " + file + " --json --kit " + kit + " --name Quay");
    REQUIRE(ran.code == 0);
    const auto answer = json::parse(ran.out);
    CHECK(answer["form"] == "text");
    CHECK(answer["parts"] == 7);
    CHECK(answer["lines"][0]["doubts"].size() == 1);
    CHECK(answer["refused"][0]["line"] == 2);
    CHECK(run("kit check " + kit).code == 0);
    const auto csv = write(folder, "list.csv", "Ref;Wert\nR1;4,7k\nC1;0,1u\n");
    const auto table = json::parse(run("list " + csv + " --json").out);
    CHECK(table["form"] == "table");
    CHECK(table["lines"][0]["value"].get<double>() == Approx(4700));
    CHECK(run("list " + write(folder, "none.txt", "nothing at all\n") + " --json").code == 2);
}
