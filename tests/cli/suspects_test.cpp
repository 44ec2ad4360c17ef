#include <catch2/catch.hpp>
#include <cstdio>
#include <fstream>
#include <nlohmann/json.hpp>

#include "bench_fixture.h"
#include "book/book.h"
#include "circuit/models.h"
#include "circuit/rig_on_bench.h"
#include "folder.h"

using namespace ombrek;

namespace {

nlohmann::json answerOf(const std::string& asked) {
    const std::string command = std::string(OMBREK_CLI) + " suspects --json " + asked + " 2>/dev/null";
    FILE* pipe = popen(command.c_str(), "r");
    REQUIRE(pipe != nullptr);
    std::string out;
    char buffer[4096];
    while (const std::size_t got = std::fread(buffer, 1, sizeof buffer, pipe)) out.append(buffer, got);
    pclose(pipe);
    return nlohmann::json::parse(out);
}

nlohmann::json suspects(const Folder& folder, const std::string& circuit, const std::string& readings) {
    std::ofstream(folder / "c.cir") << circuit;
    std::ofstream(folder / "r.csv") << readings;
    return answerOf("--circuit " + (folder / "c.cir").string() + " --readings " +
                    (folder / "r.csv").string());
}

const char* kDivider = "divider\nV1 in 0 10\nR1 in mid 1k\nR2 mid 0 1k\nR3 mid out 10k\nR4 out 0 10k\n.end\n";

}  // namespace

TEST_CASE("suspects of a divider by Ohm's law, with their odds and what to read next") {
    const Folder folder;
    // R2 open: 10 V over 1 k and 20 k gives 9.52 V in the middle.
    const auto answer =
        suspects(folder, kDivider, "node,node2,quantity,value,error,state\nmid,0,voltage,9.52,0.01,on\n");
    REQUIRE(answer["suspects"].is_array());
    CHECK(answer["suspects"][0]["ref"] == "R2");
    CHECK(answer["suspects"][0]["fault"] == "open");
    double sum = 0, before = 1;
    for (const auto& s : answer["suspects"]) {
        CHECK(s["odds"].get<double>() <= before + 1e-12);
        before = s["odds"];
        sum += before;
    }
    CHECK(sum <= 1.0 + 1e-9);
    CHECK(sum > 0.9);
    const auto sound = suspects(folder, kDivider, "node,value\nmid,4.88\nout,2.44\n");
    CHECK(sound["suspects"][0]["ref"] == "");
    CHECK(sound["suspects"][0]["fault"] == "none");
    CHECK(sound["sound"] == true);
    CHECK(answer["sound"] == false);
    // The wire to R3 is open, or R4 is short, or R3 ten times too large: the node behind tells them apart.
    const auto unclear = suspects(folder, kDivider, "node,value,error\nmid,5.0,0.01\n");
    CHECK(unclear["next"]["node"] == "out");
    CHECK(unclear["next"]["quantity"] == "voltage");
    CHECK_FALSE(unclear["next"]["why"].get<std::string>().empty());
}

TEST_CASE("what is no circuit or no reading is a problem, with its place") {
    const Folder folder;
    CHECK(suspects(folder, "t\n.include x.lib\n", "node,value\na,1\n").contains("problem"));
    CHECK(suspects(folder, kDivider, "node,value\nnowhere,1\n")["problem"]["place"] == "line 2");
    // What no meter shows would tell nothing of any fault.
    for (const char* absurd : {"mid,1e308", "mid,-1e30", "mid,1e6"})
        CHECK(suspects(folder, kDivider, std::string("node,value\n") + absurd)["problem"]["place"] ==
              "line 2");
    CHECK(suspects(folder, kDivider, "node,value,error\nmid,5,1e308\n").contains("problem"));
    CHECK(suspects(folder, kDivider, "node,quantity,value\nmid,ohm,-5\n").contains("problem"));
    CHECK(suspects(folder, kDivider, "node,value\nmid,4.88\nout,1e-15\n").contains("suspects"));
    // A netlist without a title loses its first part to it.
    const std::string bare = std::string(kDivider).substr(std::string("divider\n").size());
    CHECK(suspects(folder, bare, "node,value\nmid,4.88\n")["problem"]["place"] == "line 1");
    CHECK(suspects(folder, "V1 and its divider\n" + bare, "node,value\nmid,4.88\n").contains("suspects"));
    CHECK(suspects(folder, kDivider, "hello\n").contains("problem"));
    CHECK(suspects(folder, "", "node,value\na,1\n").contains("problem"));
}

TEST_CASE("the command ranks the rig of a book as the window's page does, with what was seen of its parts") {
    const Folder folder;
    const auto file = folder / "own.ombrek";
    const Kit& kit = practiceKit().kit;
    {
        const auto book = Book::open(file).value();
        REQUIRE(book->startBuild(kit.name, practiceKit().text));
        const auto volts = std::find_if(kit.checks.begin(), kit.checks.end(),
                                        [](const Check& c) { return c.unit == Unit::volt; });
        REQUIRE(volts != kit.checks.end());
        Reading low;
        low.subject = Subject::check(volts->id);
        low.value = volts->limits.low * 0.7;
        low.unit = Unit::volt;
        low.uncertainty = 0.02;
        REQUIRE(book->takeReading(low));
    }
    const auto byPage = [&] {
        const Build build = *Book::open(file).value()->build();
        const auto rig = rigOf(kit, build, shippedModels(), shippedPriors());
        REQUIRE(rig);
        const auto judged = judgeRig(*rig, takenReadings((*rig)->circuit, kit, build), build, {});
        REQUIRE(judged);
        return (*judged)->suspicion;
    };
    const auto same = [](const nlohmann::json& answer, const Suspicion& page) {
        REQUIRE(answer["suspects"].size() == 20);
        for (std::size_t i = 0; i < 20; ++i) {
            INFO(i);
            CHECK(answer["suspects"][i]["ref"] == page.suspects[i].ref);
            CHECK(answer["suspects"][i]["odds"].get<double>() ==
                  Approx(page.suspects[i].odds).epsilon(1e-12));
        }
        CHECK((answer["next"].is_null() ? "" : answer["next"]["node"].get<std::string>()) == page.next.node);
    };
    const Suspicion before = byPage();
    const std::string ref = before.suspects[0].ref.empty() ? before.suspects[1].ref : before.suspects[0].ref;
    // A joint that was looked at is believed less, by both.
    REQUIRE(Book::open(file).value()->lookedAt(ref, Book::Look::joints));
    const Suspicion after = byPage();
    CHECK(after.suspects[0].odds != before.suspects[0].odds);
    const auto answer = answerOf("--book " + file.string());
    same(answer, after);
    CHECK(answer["readings"] == 1);
    CHECK(answerOf("--book " + (folder / "none.ombrek").string())["problem"]["message"] ==
          "There is no such book.");
    CHECK(answerOf("--kit " + (folder / "none.json").string()).contains("problem"));
    CHECK(answerOf("").contains("problem"));
}
