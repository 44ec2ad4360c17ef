#include <sys/stat.h>

#include <filesystem>
#include <fstream>
#include <sstream>

#include "folder.h"
#include "run_cli.h"

// The command line replaces no book, no input and nothing that is no plain file, and every misuse has its
// sentence.

using namespace ombrek;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

std::string bytesOf(const fs::path& file) {
    std::ifstream in(file, std::ios::binary);
    std::ostringstream out;
    out << in.rdbuf();
    return out.str();
}

const char* const kList = "ref,kind,value\nR1,resistor,4k7\nR2,resistor,10k\n";

}  // namespace

TEST_CASE("a book is never written over") {
    Folder folder;
    const std::string book = (folder / "shack.ombrek").string(), other = (folder / "other.ombrek").string();
    REQUIRE(run("practice " + book).code == 0);
    fs::copy_file(book, other);
    std::ofstream(folder / "list.csv") << kList;
    std::ofstream(folder / "net.cir") << "a pad\nR1 a b 50\nR2 b 0 50\n.end\n";
    std::ofstream(folder / "dial.csv") << "position,frequency\n0,7.0M\n90,7.03M\n180,7.06M\n";
    const std::string link = (folder / "link.txt").string();
    fs::create_symlink(other, link);
    const std::string list = (folder / "list.csv").string(), net = (folder / "net.cir").string(),
                      dial = (folder / "dial.csv").string();
    const std::string words = GENERATE_COPY(
        as<std::string>{}, "report " + book + " --html " + book, "report " + book + " --pdf " + other,
        "report " + book + " --json " + other, "report " + book + " --card " + link,
        "log " + book + " --adif " + book, "log " + book + " --adif " + other,
        "list " + list + " --kit " + other, "list " + list + " --kit " + list,
        "network " + net + " --in a --out b --touchstone " + other,
        "network " + net + " --in a --out b --touchstone " + net, "dial " + dial + " --pdf " + other,
        "dial " + dial + " --svg " + dial, "rescue " + book + " " + other);
    INFO(words);
    const std::string before = bytesOf(other);
    const Ran ran = run(words, true);
    INFO(ran.out);
    CHECK(ran.code == 2);
    CHECK(ran.out.size() > 30);
    CHECK(bytesOf(other) == before);
    CHECK(bytesOf(book).starts_with("SQLite format 3"));
    CHECK(bytesOf(list) == kList);
}

TEST_CASE("who may read a file stays, links are followed, a pipe is no file to write to") {
    Folder folder;
    std::ofstream(folder / "list.csv") << kList;
    const std::string list = (folder / "list.csv").string(), kit = (folder / "mine.kit.json").string();
    REQUIRE(run("list " + list + " --kit " + kit).code == 0);
    REQUIRE(::chmod(kit.c_str(), 0600) == 0);
    const std::string link = (folder / "link.json").string();
    fs::create_symlink(kit, link);
    REQUIRE(run("list " + list + " --kit " + link + " --name Linked").code == 0);
    CHECK(fs::is_symlink(link));
    CHECK(bytesOf(kit).find("Linked") != std::string::npos);
    struct stat status {};
    REQUIRE(::stat(kit.c_str(), &status) == 0);
    CHECK((status.st_mode & 0777) == 0600);
    const std::string pipe = (folder / "pipe").string();
    REQUIRE(::mkfifo(pipe.c_str(), 0600) == 0);
    CHECK(run("list " + list + " --kit " + pipe).code == 2);
    CHECK(fs::is_fifo(pipe));
}

TEST_CASE("a misuse ends with 2 and a problem") {
    const std::string words =
        GENERATE(as<std::string>{}, "--json", "sum --json", "sum 1 2 --json", "nothing --json", "coil --json",
                 "coil --core T37-6 --turns 5 --inductance 1u --json", "spectrum --wrong x --json",
                 "coil --core T37-6 --turns five --json", "kit --json");
    INFO(words);
    const Ran ran = run(words);
    CHECK(ran.code == 2);
    INFO(ran.out);
    const json said = json::parse(ran.out, nullptr, false);
    REQUIRE(said.is_object());
    CHECK(said["problem"]["message"].get<std::string>().size() > 10);
    CHECK(run("--help").code == 0);
}

TEST_CASE("pipes and the standard input are read") {
    Folder folder;
    std::ofstream(folder / "list.csv") << kList;
    const std::string list = (folder / "list.csv").string();
    const std::string wanted = run("list " + list + " --json").out;
    CHECK(json::parse(run("list - --json < " + list).out)["lines"] == json::parse(wanted)["lines"]);
    const Ran ran = run("checks /dev/stdin --json < " + list);
    CHECK((ran.code == 0 || ran.code == 2));
    const std::string cat = "cat " + list + " | " + std::string(OMBREK_CLI) + " list /dev/stdin --json";
    FILE* pipe = popen(cat.c_str(), "r");
    REQUIRE(pipe);
    std::string out;
    char buffer[4096];
    while (const std::size_t n = fread(buffer, 1, sizeof buffer, pipe)) out.append(buffer, n);
    CHECK(pclose(pipe) == 0);
    CHECK(json::parse(out)["lines"] == json::parse(wanted)["lines"]);
}

TEST_CASE(
    "kit check reads the circuit, a supply is one, a dial's numbers have their unit, a band keeps its word") {
    Folder folder;
    std::ofstream(folder / "bad.cir") << "bad\nV1 in 0 12\nR1`:>hit` in 0 1k\n.end\n";
    std::ofstream(folder / "bad.kit.json")
        << R"({"format": "ombrek-kit", "version": 1, "id": "bad", "name": "Bad", "circuit": "bad.cir", "parts": [{"ref": "R1", "kind": "resistor", "value": "1k"}]})";
    const Ran checked = run("kit check " + (folder / "bad.kit.json").string() + " --json");
    INFO(checked.out);
    CHECK(checked.code == 2);
    CHECK(checked.out.find("no fault") == std::string::npos);
    CHECK_FALSE(fs::exists("hit"));
    for (const char* supply : {"0", "-12", "1000", "nan", "12x"}) {
        INFO(supply);
        CHECK(run(std::string("expect ") + OMBREK_DATA_FOLDER +
                  "/demo/lantern-15.kit.json --supply=" + supply + " --json")
                  .code == 2);
    }
    std::ofstream(folder / "dial.csv") << "position;frequency\n0;7,000\n90;7,030\n180;7,060\n";
    CHECK(run("dial " + (folder / "dial.csv").string() + " --json").code == 2);

    const std::string book = (folder / "shack.ombrek").string(), log = (folder / "log.adi").string();
    REQUIRE(run("practice " + book).code == 0);
    std::ofstream(log)
        << "x<EOH>\n<CALL:6>QX1ABC<QSO_DATE:8>20260101<TIME_ON:4>1200<BAND:3>40m<FREQ:6>14.060<MODE:2>CW<EOR>"
           "\n"
           "<CALL:6>QX2ABC<QSO_DATE:8>20260101<TIME_ON:4>1201<BAND:3>40m<FREQ:8>7.030.00<MODE:2>CW<EOR>\n";
    const Ran taken = run("log " + book + " --import " + log + " --json");
    INFO(taken.out);
    REQUIRE(taken.code == 0);
    CHECK(json::parse(taken.out)["doubts"].size() == 1);
    const Ran shown = run("log " + book + " --json");
    INFO(shown.out);
    CHECK(shown.out.find("20m") == std::string::npos);
    CHECK(shown.out.find("7030000") != std::string::npos);
}
