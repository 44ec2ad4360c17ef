#include <cstdlib>
#include <filesystem>
#include <fstream>

#include "run_cli.h"

using nlohmann::json;

namespace {

std::string folder() {
    std::string name = "/tmp/ombrek-cli-XXXXXX";
    REQUIRE(mkdtemp(name.data()) != nullptr);
    return name;
}

}  // namespace

TEST_CASE("sum answers in SI as JSON, best first") {
    const auto row = GENERATE(table<const char*, double, const char*>({{"104", 100e-9, "F"},
                                                                       {"4k7", 4700, "Ω"},
                                                                       {"\"5 W in dBm\"", 36.9897, "dBm"},
                                                                       {"\"31 Vpp\"", 2.4025, "W"},
                                                                       {"\"T50-2 18t\"", 1.5876e-6, "H"},
                                                                       {"\"T37-6 for 1.2u\"", 20, ""},
                                                                       {"\"10.0021M vs 10M\"", 210, "ppm"}}));
    const Ran ran = run(std::string("sum ") + std::get<0>(row) + " --json");
    REQUIRE(ran.code == 0);
    const json answer = json::parse(ran.out)["answers"][0];
    CHECK(answer["value"].get<double>() == Approx(std::get<1>(row)).epsilon(1e-4));
    CHECK(answer["unit"] == std::get<2>(row));
    for (const char* field : {"meaning", "text", "working"})
        CHECK_FALSE(answer[field].get<std::string>().empty());
}

TEST_CASE("sum without JSON is a line for people") {
    const Ran ran = run("sum 104");
    CHECK(ran.code == 0);
    CHECK(ran.out.find("100\u202fnF  (capacitor marked 104)") == 0);
}

TEST_CASE("what is not understood is exit 2 and a problem") {
    const Ran ran = run("sum 'no idea' --json");
    CHECK(ran.code == 2);
    CHECK_FALSE(json::parse(ran.out)["problem"]["message"].get<std::string>().empty());
    CHECK(run("sum 'no idea'", true).out.find("ombrek-cli: ") == 0);
    CHECK(run("sum \"$(printf '\\377\\376')\" --json").code == 2);
}

TEST_CASE("coil by turns and by inductance") {
    const json byTurns = json::parse(run("coil --core T37-6 --turns 20 --wire 28AWG --json").out);
    CHECK(byTurns["turns"] == 20);
    CHECK(byTurns["inductance"].get<double>() == Approx(1.2e-6));
    CHECK(byTurns["inductance_low"].get<double>() == Approx(1.14e-6));
    CHECK(byTurns["inductance_high"].get<double>() == Approx(1.26e-6));
    CHECK(byTurns["turns_that_fit"].get<int>() == Approx(41).margin(1));  // handbook table, from memory
    CHECK(byTurns["wire_cut"].get<double>() > byTurns["wire_length"].get<double>() + 0.06);
    const json byInductance = json::parse(run("coil --core T37-6 --inductance 1.2u --json").out);
    CHECK(byInductance["turns"] == 20);
    CHECK(run("coil --core T37-6 --turns 20").out.find("20 turns on T37-6") == 0);
}

TEST_CASE("coil refuses nonsense with exit 2") {
    for (const char* arguments :
         {"--core T99-9 --turns 3", "--core T37-6 --turns 0", "--core T37-6 --turns -4",
          "--core T37-6 --inductance lots", "--core T37-6 --inductance 0", "--core T37-6 --inductance 1V",
          "--core T37-6 --turns 5 --wire rope", "--core T37-6", "--core T37-6 --turns 3 --tail -5",
          "--core T37-6 --inductance 1e9"}) {
        INFO(arguments);
        const Ran ran = run(std::string("coil ") + arguments + " --json");
        CHECK(ran.code == 2);
        CHECK_FALSE(json::parse(ran.out)["problem"]["message"].get<std::string>().empty());
    }
}

TEST_CASE("kit check") {
    CHECK(run(std::string("kit check ") + OMBREK_DATA_FOLDER + "/demo/lantern-15.kit.json")
              .out.find("no fault found") != std::string::npos);
    const std::string file = folder() + "/broken.kit.json";
    std::ofstream(file) << "{\"format\": \"ombrek-kit\", \"version\": 1, \"id\": \"x\"}";
    const Ran ran = run("kit check " + file, true);
    CHECK(ran.code == 2);
    CHECK(ran.out.find("broken.kit.json, /name: This field is missing.") != std::string::npos);
    CHECK(run("kit check /no/such/file").code == 2);
}

TEST_CASE("a practice book becomes a report as HTML and PDF") {
    const std::string at = folder();
    REQUIRE(run("practice " + at + "/p.ombrek --finished").code == 0);
    CHECK(run("practice " + at + "/p.ombrek").code == 2);  // never over an existing file
    const Ran ran = run("report " + at + "/p.ombrek --html " + at + "/r.html --pdf " + at + "/r.pdf", true);
    INFO(ran.out);
    REQUIRE(ran.code == 0);
    std::ifstream html(at + "/r.html"), pdf(at + "/r.pdf");
    const std::string page((std::istreambuf_iterator<char>(html)), {}),
        print((std::istreambuf_iterator<char>(pdf)), {});
    CHECK(page.find("<!doctype html>") == 0);
    CHECK(page.find("Lantern 15") != std::string::npos);
    CHECK(page.find("data:image/svg+xml;base64,") != std::string::npos);
    CHECK(page.find("plot:0") == std::string::npos);
    CHECK(page.find("http") == std::string::npos);  // nothing is fetched
    CHECK(print.rfind("%PDF-", 0) == 0);
    CHECK(print.size() > 20000);
    std::filesystem::remove_all(at);
}

TEST_CASE("report says what it lacks") {
    const std::string at = folder();
    CHECK(run("report /no/such.ombrek --html x").code == 2);
    std::ofstream(at + "/not.ombrek") << "no book";
    CHECK(run("report " + at + "/not.ombrek --html " + at + "/r.html", true).out.find("not an Ombrek book") !=
          std::string::npos);
    REQUIRE(run("practice " + at + "/p.ombrek").code == 0);
    CHECK(run("report " + at + "/p.ombrek", true).out.find("--html") != std::string::npos);
    CHECK(run("report " + at + "/p.ombrek --html /nowhere/r.html", true).out.find("cannot be written") !=
          std::string::npos);
    std::filesystem::remove_all(at);
}

TEST_CASE("help is there for every command") {
    for (const char* command : {"", "sum", "coil", "kit", "kit check", "report", "practice"}) {
        const Ran ran = run(std::string(command) + " --help");
        CHECK(ran.code == 0);
        CHECK(ran.out.find("Usage:") != std::string::npos);
    }
    CHECK(run("").code != 0);
    CHECK(run("dance").code != 0);
}

TEST_CASE("a kit's id names files and no path") {
    const std::string at = folder();
    std::ifstream source(std::string(OMBREK_DATA_FOLDER) + "/demo/slack-tide.kit.json");
    json kit = json::parse(source);
    for (const char* id : {"../../evil", "/etc/evil", "a/b", ".hidden", "", "a\\b"}) {
        kit["id"] = id;
        std::ofstream(at + "/evil.kit.json") << kit.dump();
        const Ran ran = run("kit check " + at + "/evil.kit.json", true);
        INFO(id << ": " << ran.out);
        CHECK(ran.code != 0);
        CHECK(ran.out.find("/id") != std::string::npos);
    }
    kit["id"] = "slack-tide_2.1";
    std::ofstream(at + "/good.kit.json") << kit.dump();
    CHECK(run("kit check " + at + "/good.kit.json").code == 0);
    std::filesystem::remove_all(at);
}

TEST_CASE("a damaged book is rescued into a new one, never over another") {
    const std::string at = folder(), book = at + "/b.ombrek", copy = at + "/copy.ombrek";
    REQUIRE(run("practice " + book + " --finished").code == 0);
    {
        std::fstream file(book, std::ios::in | std::ios::out | std::ios::binary);
        file.seekp(150000);
        file << std::string(4000, char(0xff));
    }
    const Ran ran = run("rescue " + book + " " + copy, true);
    INFO(ran.out);
    CHECK(ran.code == 0);
    CHECK(ran.out.find("rows") != std::string::npos);
    REQUIRE(std::filesystem::exists(copy));
    CHECK(run("report " + copy + " --html " + at + "/r.html").code == 0);
    CHECK(run("rescue " + book + " " + copy, true).code != 0);
    CHECK(run("rescue " + at + "/none.ombrek " + at + "/x.ombrek", true).code != 0);
    std::filesystem::remove_all(at);
}

TEST_CASE("the practice bench ends with the program that started it") {
    const std::string bench = std::string(OMBREK_BENCH) + " --port 0 ";
    const auto code = [](const std::string& command) {
        const int status = std::system(("bash -c '" + command + "' >/dev/null 2>&1").c_str());
        return WIFEXITED(status) ? WEXITSTATUS(status) : -1;
    };
    CHECK(code("set -o pipefail; sleep 0.2 | timeout 30 " + bench + "--until-stdin-closes") == 0);
    CHECK(code("timeout 2 " + bench + "< /dev/null") == 124);  // started by hand it stays
}
