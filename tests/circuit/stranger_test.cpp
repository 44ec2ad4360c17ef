#include <unistd.h>

#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <fstream>

#include "circuit/deck.h"
#include "circuit/kit_circuit.h"
#include "circuit/models.h"
#include "circuit/simulator.h"
#include "core/text/letters.h"
#include "folder.h"

// A netlist is a file that others send: no word of it is a command of the simulator's, and none takes the
// program with it.

using namespace ombrek;
namespace fs = std::filesystem;

namespace {

/// A divider with one more line.
std::string with(const std::string& line) {
    return "divider\nV1 in 0 10\nR1 in out 1k\nR2 out 0 1k\n" + line + "\n.end\n";
}

std::string printedBy(const std::string& command) {
    FILE* pipe = popen(command.c_str(), "r");
    REQUIRE(pipe);
    std::string all;
    char buffer[4096];
    while (const std::size_t n = fread(buffer, 1, sizeof buffer, pipe)) all.append(buffer, n);
    pclose(pipe);
    return all;
}

/// Stand in a folder for a while, as one does in that of one's downloads.
struct StandsIn {
    explicit StandsIn(const fs::path& folder) : before(fs::current_path()) { fs::current_path(folder); }
    ~StandsIn() { fs::current_path(before); }
    fs::path before;
};

}  // namespace

TEST_CASE("no name, title, value or model of a netlist is taken for a command") {
    Folder folder;
    const StandsIn stands(folder / "");
    const std::string text = GENERATE(
        as<std::string>{}, with("R3`touch hit` out 0 1k"), with("R`:>hit` out 0 1k"), with("R1>hit out 0 1k"),
        with("R3 out `touch hit` 1k"), with("R3 out 0 `touch hit`"), with("R3 out 0 1k m=`touch hit`"),
        with("D1 out 0 D`touch hit`\n.model D`touch hit` D(IS=1f)"),
        with(".model D1 D(IS=`touch hit`)\nD3 out 0 D1"), with("B1 x 0 V=system(\"touch hit\")"),
        with(".control\nshell touch hit\n.endc"), with("* `touch hit`"),
        "shell touch hit\nR1 a 0 1k\nV1 a 0 1\n.end\n", "`touch hit`\nR1 a 0 1k\nV1 a 0 1\n.end\n",
        "source hit\nshell a 0 1k\nV1 a 0 1\n.end\n", with(".param x={`touch hit`}"),
        with(".options `touch hit`"), with("R3 out 0 1k ; touch hit"), with(".csparam x=1\n.exec touch hit"));
    INFO(text);
    const auto circuit = readKitCircuit(text, "");
    if (circuit) {
        const auto deck = deckOf(circuit->netlist);
        if (deck) {
            for (const std::string& line : deck->lines) {
                INFO(line);
                CHECK(line.find_first_of("`;$\"'\\>\n") == std::string::npos);
                CHECK(line.find("touch") == std::string::npos);
            }
        }
        (void)operatingPoint(circuit->netlist);
    }
    CHECK(fs::is_empty(folder / ""));
}

TEST_CASE("what a folder holds for the simulator is not read") {
    Folder folder;
    std::ofstream(folder / ".spiceinit") << "shell touch hit\n";
    std::ofstream(folder / "spice.rc") << "shell touch hit\n";
    const StandsIn stands(folder / "");
    ::setenv("SPICE_SCRIPTS", (folder / "").c_str(), 1);
    ::setenv("SPICE_LIB_DIR", (folder / "").c_str(), 1);
    const auto circuit = readNetlist(with("C1 out 0 1n"));
    REQUIRE(circuit);
    const auto point = operatingPoint(*circuit);
    ::unsetenv("SPICE_SCRIPTS");
    ::unsetenv("SPICE_LIB_DIR");
    REQUIRE(point);
    CHECK(point->between("out") == Approx(5).epsilon(1e-6));  // two equal resistors halve
    CHECK_FALSE(fs::exists(folder / "hit"));
}

TEST_CASE("an error of typing gets its line, and the next circuit is solved") {
    struct Wrong {
        const char *line, *said;
    };
    const Wrong wrong = GENERATE(values<Wrong>({
        {"KX R1 R2 0.5", "no coil"},
        {"B1 c 0 V=uramp(i(B1", "lacks"},
        {".func f(x) {f(x)}\nR9 b 0 {f(1)}", "not read here"},
        {"R9 b 0 {f(1)}", "no function"},
        {"R9 out 0 4k7", "no number"},
        {"R9 out 0 {1/0}", "no number"},
        {"R9 out 0 1k watts=7", "not known"},
        {"X1 out 0 AGAIN\n.subckt AGAIN a b\nX2 a b AGAIN\n.ends", "calls itself"},
        {"X1 out LONELY\n.subckt LONELY a b\nR1 a b 1k\n.ends", "2 pins"},
        {"X1 out 0 KNOWN gain=4\n.subckt KNOWN a b\nR1 a b 1k\n.ends", "no parameter of"},
        {"D7 out 0 DX\n.model DX D(IS=1f WRONG=4)", "WRONG"},
        {"M7 out out 0 0 MX\n.model MX NMOS(LEVEL=8)", "level 1"},
        {"Q7 out out 0 DX\n.model DX D(IS=1f)", "another kind"},
        {"F7 out 0 VNONE 3", "no voltage source"},
        {"V7 out 0 SIN", "lacks its numbers"},
    }));
    INFO(wrong.line);
    const auto circuit = readKitCircuit(with(wrong.line), "");
    REQUIRE_FALSE(circuit);
    INFO(circuit.error().text());
    CHECK_THAT(lowered(circuit.error().sentence), Catch::Contains(lowered(wrong.said)));
    CHECK_THAT(circuit.error().place, Catch::Contains("line "));
    const auto sound = readNetlist(with("C1 out 0 1n"));
    REQUIRE(operatingPoint(*sound));
}

TEST_CASE("long names, deep brackets and long lines end in a sentence or a result") {
    const std::string name(600, 'n');
    const auto named = readKitCircuit(with("R3 " + name + " 0 1k\nB1 b 0 V=v(" + name + ")*2"), "");
    REQUIRE(named);
    CHECK(operatingPoint(named->netlist));
    CHECK_FALSE(readKitCircuit(with("B1 b 0 V=" + std::string(500, '(') + "1" + std::string(500, ')')), ""));
    CHECK_FALSE(readKitCircuit(with("B1 b 0 V=" + std::string(500, '-') + "1"), ""));
    CHECK_FALSE(readKitCircuit(with("B1 b 0 V=1" + std::string(100000, '+') + "1"), ""));
    CHECK_FALSE(readKitCircuit(with("R3 " + std::string(100000, 'x') + " 0 1k"), ""));
}

TEST_CASE("lines of blanks of any kind are none, also between models") {
    const auto netlist =
        readNetlist("title\nV1 a 0 5\n \v\f \nR1 a 0 1k\n\v\n.end\n", ".subckt x a b\n\v\nR1 a b 1\n.ends\n");
    REQUIRE(netlist);
    CHECK(netlist->elements.size() == 2);
}

TEST_CASE("what a deck says is what the netlist says") {
    // By hand, from the definitions of the SPICE 3 user's manual.
    const auto volts = [](const std::string& lines, const std::string& node) {
        const auto circuit = readKitCircuit("a title\n" + lines + "\n.end\n", "");
        if (!circuit) FAIL(circuit.error().text());
        const auto point = operatingPoint(circuit->netlist);
        if (!point) FAIL(point.error().text());
        return point->between(node);
    };
    CHECK(volts("V1 a 0 DC 12 AC 1\nR1 a b 1k\nR2 b 0 {r}\n.param r={2*half} half=500", "b") == Approx(6));
    CHECK(volts("V1 a 0 SIN(3 1 1k)\nR1 a b 1k\nR2 b 0 1k m=2", "b") == Approx(1));
    CHECK(volts("V1 a 0 PULSE(4 5 0)\nR1 a b 1k\nR2 b 0 3k", "b") == Approx(3));
    CHECK(volts("V1 a 0 2\nE1 b 0 a 0 3\nR1 b 0 1k\nR2 a 0 1k", "b") == Approx(6));
    CHECK(volts("V1 a 0 2\nE1 b 0 VALUE={v(a)^2+1}\nR1 b 0 1k\nR2 a 0 1k", "b") == Approx(5));
    CHECK(volts("V1 a 0 2\nR2 a 0 1k\nF1 0 b V1 2\nR1 b 0 1k", "b") == Approx(-4).epsilon(1e-5));
    CHECK(volts("V1 a 0 2\nB1 b 0 V = v(a) > 1 ? 7 : 3\nR1 b 0 1k\nR2 a 0 1k", "b") == Approx(7));
    CHECK(volts("V1 a 0 6\nX1 a b HALF ra=2k\n.subckt HALF in out ra=1k rb={2*ra}\nR1 in out {ra}\nR2 out 0 "
                "{rb}\n.ends",
                "b") == Approx(4));  // rb is 4 k
    CHECK(volts("V1 a 0 8\nX1 a b OUTER\n.subckt OUTER in out\nX2 in out INNER\n.subckt INNER p q\nR1 p q "
                "1k\nR2 q 0 3k\n"
                ".ends\n.ends",
                "b") == Approx(6));
}

TEST_CASE("a circuit whose solving kills the simulator takes nothing with it") {
    const auto sound = readNetlist(with("C1 out 0 1n"));
    REQUIRE(operatingPoint(*sound));
    // From outside, as an error of its own would end it.
    REQUIRE(std::system("pkill -9 -P $PPID ombrek-spice 2>/dev/null; sleep 0.1") != -1);
    (void)operatingPoint(*sound);
    const auto again = operatingPoint(*sound);
    REQUIRE(again);
    CHECK(again->between("out") == Approx(5).epsilon(1e-6));
}

namespace {

/// What the simulator's own program says of a node, given the text as it stands.
double byProgram(const fs::path& folder, const std::string& circuit, const std::string& node) {
    std::ofstream(folder / "c.cir") << circuit + ".control\nop\nprint " + node + "\n.endc\n.end\n";
    const std::string command = "cd " + folder.string() + " && " + NGSPICE + " -b c.cir 2>/dev/null";
    const std::string all = printedBy(command);
    const auto at = all.find("\n" + node + " = ");
    INFO(all);
    REQUIRE(at != std::string::npos);
    return spiceNumber(all.substr(at + node.size() + 4, all.find('\n', at + 1) - at - node.size() - 4));
}

}  // namespace

TEST_CASE("netlists of other hands rest as the simulator's own program says", "[reference]") {
    // Source: ngspice 39, run on the text as it stands.
    struct Row {
        const char *text, *node;
    };
    const Row row = GENERATE(values<Row>({
        {"* an amplifier drawn elsewhere\nVcc N001 0 12\nR1 N001 N002 10K\nR2 N002 0 2.2k\nRC N001 N003 "
         "1K\nRE N004 0 220\n"
         "Q1 N003 N002 N004 0 QX\nC1 N003 out 10u\nRl out 0 1Meg\nVin in 0 SIN(0 10m 1k) AC 1\nCin in N002 "
         "1u\nD1 out 0 D\n"
         ".model D D\n.model QX NPN(IS=1E-14 VAF=100\n+   Bf=300 IKF=0.4 XTB=1.5 BR=4\n+   CJC=4E-12 "
         "CJE=8E-12 RB=20 RC=0.1 "
         "RE=0.1\n+   TR=250E-9 TF=350E-12 ITF=1 VTF=2 XTF=3)\n",
         "n003"},
        {"mirror and follower\n.param vs = 9 rs=10k\nvdd vdd! 0 {vs}\nr1 vdd! ref {rs}\nq1 ref ref 0 qn "
         "area=2\nq2 o ref 0 qn 4\n"
         "rl vdd! o {rs/4}\n.model qn npn bf=100 is=1f\n.subckt buf i o vdd rload=10k\nm1 vdd i o o mn l=1u "
         "w=100u\nrs o 0 "
         "{rload}\n.model mn nmos level=1 vto=0.7 kp=200u lambda=0.01\n.ends buf\nxb o y vdd! buf "
         "rload=4.7k\n",
         "y"},
        {"defaults that rest on each other\nV1 a 0 6\nX1 a b HALF ra=2k\n.subckt HALF in out ra=1k "
         "rb={2*ra}\nR1 in out {ra}\n"
         "R2 out 0 {rb}\n.ends\n",
         "b"},
        {"sources by expressions\nV1 a 0 3\nR1 a 0 1k\nB1 b 0 "
         "V=-v(a)^2+min(v(a),2)*uramp(v(a)-1)+exp(-v(a))\nR2 b 0 1k\n",
         "b"},
        {"controlled\nV1 a 0 2\nR1 a 0 1k\nE1 b 0 a 0 2.5\nR2 b c 1k\nF1 0 c V1 0.5\nR3 c 0 3.3k\nH1 d 0 V1 "
         "700\nR4 d c 2.2k\n",
         "c"},
        {"a field-effect stage\nV1 vcc 0 9\nJ1 d g s JX\nR1 vcc d 2.2k\nR2 g 0 1Meg\nR3 s 0 680\n.model JX "
         "NJF(VTO=-2 BETA=1m LAMBDA=2m "
         "RD=5 RS=5 IS=1e-14)\n",
         "d"},
    }));
    INFO(row.text);
    Folder folder;
    const auto circuit = readKitCircuit(std::string(row.text) + ".end\n", "");
    if (!circuit) FAIL(circuit.error().text());
    const auto point = operatingPoint(circuit->netlist);
    if (!point) FAIL(point.error().text());
    // Ours has 1 GΩ from every node to ground, which the text has not.
    CHECK(point->between(row.node) == Approx(byProgram(folder / "", row.text, row.node)).epsilon(2e-4));
}

TEST_CASE("the simulator works for a user whom the system does not know") {
    if (::geteuid() != 0) return;  // only then can one become nobody
    Folder folder;
    fs::permissions(folder / "", fs::perms::all);
    const fs::path program = folder / "ombrek-spice";
    fs::copy_file(fs::read_symlink("/proc/self/exe").parent_path().parent_path() / "src" / "ombrek-spice",
                  program);
    fs::permissions(program, fs::perms::owner_all | fs::perms::others_read | fs::perms::others_exec);
    const std::string command =
        "printf 'C 3\\nombrek\\nv1 n1 0 3\\n.end\\nS 0\\n' | setpriv --reuid=54321 --regid=54321 "
        "--clear-groups " +
        program.string() + " | cat";
    const std::string all = printedBy(command);
    CHECK_THAT(all, Catch::StartsWith("ready\nok\np ") && Catch::Contains("n1 3"));
}
