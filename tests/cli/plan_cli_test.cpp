#include <fstream>
#include <set>

#include "bench_fixture.h"
#include "run_cli.h"

using namespace ombrek;
using nlohmann::json;

TEST_CASE("plan: the steps of a kit in every school's order") {
    const std::string kit = std::string(OMBREK_DATA_FOLDER) + "/demo/lantern-15.kit.json";
    std::set<std::string> firsts;
    double minutes = 0;
    for (const char* school : {"manual", "lowest", "kind", "stage", "hardest"}) {
        const Ran ran = run("plan " + kit + " --order " + school + " --json");
        REQUIRE(ran.code == 0);
        const json out = json::parse(ran.out);
        REQUIRE(out["steps"].size() == practiceKit().kit.steps.size());
        double sum = 0;
        std::string order;
        for (const json& step : out["steps"]) {
            sum += step["minutes"].get<double>();
            order += step["id"].get<std::string>() + " ";
            if (step["id"] == "hold-supply") CHECK(step["holds"].size() == 6);
            if (step["id"] == "d1") CHECK(step["needs"] == json{"D1"});
        }
        CHECK(out["minutes_total"].get<double>() == Approx(sum));
        if (minutes > 0) CHECK(sum == Approx(minutes));
        minutes = sum;
        firsts.insert(order);
    }
    CHECK(firsts.size() == 5);
    CHECK(run("plan " + kit + " --order sideways --json").code == 2);
    CHECK(run("plan nowhere.json --json").code == 2);
    CHECK(run("plan --json").code == 2);
}

TEST_CASE("plan: made from a list alone") {
    Folder folder;
    const std::string file = (folder / "list.csv").string();
    std::ofstream(file)
        << "Ref,Value,Description\nR1,4k7,\nR2,4k7,\nC1,100n,ceramic\nU1,dual op-amp,\nJ9,IC socket,\n";
    const json out = json::parse(run("plan --from-list " + file + " --order lowest --json").out);
    std::vector<std::string> ids;
    for (const json& step : out["steps"]) ids.push_back(step["id"].get<std::string>());
    const auto at = [&](const std::string& id) {
        return std::find(ids.begin(), ids.end(), id) - ids.begin();
    };
    CHECK(at("fit-r-1") < at("fit-c-1"));
    CHECK(at("prove-volts") < at("fit-ic-1"));
    CHECK(at("fit-ic-1") < std::ptrdiff_t(ids.size()));
    std::ofstream(file) << "nothing here";
    CHECK(run("plan --from-list " + file + " --json").code == 2);
}
