#include "formats/tables.h"

#include <cmath>
#include <fstream>
#include <random>

#include "bench_fixture.h"
#include "formats/csv.h"
#include "formats/files.h"

using namespace ombrek;

namespace {

const std::string kHeader =
    "designation,family,mix,od_mm,id_mm,height_mm,al_nh_per_turn2,al_tolerance_pct,mu_initial,tempco_ppm_per_"
    "c,q_range_low_mhz,"
    "q_range_high_mhz,paint\n";

}  // namespace

TEST_CASE("the shipped tables are whole") {
    CHECK(shippedTables().cores.size() > 100);
    REQUIRE(shippedTables().core("T37-6"));
    CHECK(shippedTables().core("T37-6")->al == Approx(3.0e-9));
    CHECK(shippedTables().core("T37-6")->paint == "yellow");
    CHECK(shippedTables().core("FT37-43")->ferrite());
    CHECK(shippedTables().core("no such core") == nullptr);
    CHECK(shippedTables().profile("itu-below-30").perDecade == 10);
    CHECK(shippedTables().profile("no such profile").id == shippedTables().profiles.front().id);
}

TEST_CASE("faults in the core table are told with line and column") {
    const auto fault = [](const std::string& rows) {
        const auto cores = readCores(kHeader + rows);
        return cores ? std::string("none") : cores.error().place;
    };
    CHECK(fault("A,powdered-iron,2,9.5,5.2,3.2,4.0,5,10,95,2,30,red\n") == "none");
    CHECK(fault("A,powdered-iron,2,9.5,5.2,3.2,four,5,10,95,2,30,red\n") == "line 2, al_nh_per_turn2");
    CHECK(fault("A,powdered-iron,2,9.5,5.2,3.2,0,5,10,95,2,30,red\n") == "line 2, al_nh_per_turn2");
    CHECK(fault("A,powdered-iron,2,5.2,9.5,3.2,4,5,10,95,2,30,red\n") == "line 2, id_mm");
    CHECK(fault("A,powdered-iron,2,-5,9.5,3.2,4,5,10,95,2,30,red\n") == "line 2, od_mm");
    CHECK(fault("A,powdered-iron\n") == "line 2, mix");
    CHECK(readCores("").has_value() == false);
    CHECK(readCores("a,b\n1,2\n").error().sentence == "This column is missing.");
    CHECK(readCores(kHeader + "\"unclosed\n").has_value() == false);
    CHECK(readCores("\xEF\xBB\xBF" + kHeader +
                    "A,powdered-iron,2,9.5,5.2,3.2,4.0,5,10,95,2,30,red\n"));  // a byte-order mark
}

TEST_CASE("faults in the limits are told") {
    for (const char* text :
         {"", "[]", "{}", R"({"profiles": []})", R"({"profiles": [{"id": "a"}]})",
          R"({"profiles": [{"id":"a","name":"b","base_db":"43","source":"s"}]})",
          R"({"profiles": [{"id":"a","name":"b","base_db":-1,"source":"s"}]})",
          R"({"profiles": [{"id":"a","name":"b","base_db":43,"source":"s","extra":1}]})"}) {
        INFO(text);
        const auto profiles = readProfiles(text);
        REQUIRE_FALSE(profiles);
        CHECK_FALSE(profiles.error().sentence.empty());
    }
}

TEST_CASE("CSV is read and written as RFC 4180", "[reference]") {
    // Source: RFC 4180, section 2: quotes, doubled quotes, line breaks inside quotes, CRLF.
    const auto rows = readCsv("a,\"b,c\",\"d \"\"e\"\"\"\r\n\"two\r\nlines\",,x\n");
    REQUIRE(rows);
    CHECK(*rows == std::vector<CsvRow>{{"a", "b,c", "d \"e\""}, {"two\r\nlines", "", "x"}});
    CHECK(csvLine({"a", "b,c", "d \"e\""}) == "a,\"b,c\",\"d \"\"e\"\"\"\r\n");
}

TEST_CASE("a cell that a spreadsheet would run is made harmless") {
    CHECK(csvLine({"=1+1"}) == "'=1+1\r\n");
    CHECK(csvLine({"+cmd"}) == "'+cmd\r\n");
    CHECK(csvLine({"@x", "-x"}) == "'@x,'-x\r\n");
    CHECK(csvLine({"-inf", "-0x1p3", "+nan"}) ==
          "'-inf,'-0x1p3,'+nan\r\n");  // words to a spreadsheet, not numbers
    CHECK(csvLine({"\uff1d1+1", "\uff0b1", "\uff20x"}) == "'\uff1d1+1,'\uff0b1,'\uff20x\r\n");
    CHECK(csvLine({"-5", "+2.5e-3", "-1E6"}) == "-5,+2.5e-3,-1E6\r\n");
    CHECK(csvLine({"-12.5", "+3", "-50e-3"}) == "-12.5,+3,-50e-3\r\n");  // numbers stay numbers
}

TEST_CASE("what is written is read back") {
    std::mt19937 engine(23);
    const std::string letters = "ab,\"\r\n ;'7";
    for (int i = 0; i < 2000; ++i) {
        CsvRow row(1 + engine() % 4);
        for (auto& cell : row) {
            for (unsigned n = 1 + engine() % 6; n > 0; --n)
                cell.push_back(letters[engine() % letters.size()]);
            if (cell[0] == '\r' || cell[0] == '\n') cell[0] = 'x';
            if (cell.find_first_of(",\"\r\n") ==
                std::string::npos) {  // blanks around a bare cell are not kept by readers
                while (cell.front() == ' ') cell.erase(0, 1), cell.push_back('a');
                while (cell.back() == ' ') cell.back() = 'a';
            }
        }
        const auto rows = readCsv(csvLine(row));
        REQUIRE(rows);
        REQUIRE(rows->size() == 1);
        REQUIRE(rows->front() == row);
    }
}

TEST_CASE("random bytes as a table of cores: rows that hold, or a sentence") {
    const std::string head =
        "designation,family,mix,od_mm,id_mm,height_mm,al_nh_per_turn2,al_tolerance_pct,mu_initial,"
        "tempco_ppm_per_c,q_range_low_mhz,q_range_high_mhz,paint\n";
    const std::string row = "T50-6,powdered-iron,6,12.7,7.7,4.83,4.0,5,8.5,35,10,50,yellow\n";
    REQUIRE(readCores(head + row));
    std::mt19937 engine(29);
    int taken = 0, refused = 0;
    for (int i = 0; i < 5000; ++i) {
        std::string text = head + row;  // a byte or two of it changed, so that it goes deep
        for (unsigned n = 1 + engine() % 2; n > 0; --n)
            text[head.size() + engine() % row.size()] =
                static_cast<char>(engine() % 4 ? "\",\n\ra0-."[engine() % 8] : engine() % 256);
        const auto cores = readCores(text);
        if (!cores) {
            ++refused;
            REQUIRE(cores.error().text().size() > 10);
            continue;
        }
        ++taken;
        for (const MagneticCore& core : *cores) {
            INFO(text);
            REQUIRE(std::isfinite(core.al));
            REQUIRE(core.al > 0);
            REQUIRE(core.outerDiameter > core.innerDiameter);
            REQUIRE(core.innerDiameter > 0);
            REQUIRE(core.height > 0);
        }
    }
    CHECK(taken > 100);
    CHECK(refused > 100);
}

TEST_CASE("a file is replaced whole or not at all") {
    const Folder folder;
    const auto file = folder / "report.html";
    REQUIRE(writeFile(file, "one"));
    REQUIRE(writeFile(file, "two"));
    CHECK(readFile(file, 100).value() == "two");
    CHECK_FALSE(writeFile(std::filesystem::path("/nowhere/at/all/report.html"), "x"));
    CHECK_FALSE(readFile(file, 2));
    CHECK_FALSE(std::filesystem::exists(file.string() + ".part"));
}
