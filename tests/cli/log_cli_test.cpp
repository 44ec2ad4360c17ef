#include <cmath>
#include <filesystem>
#include <fstream>
#include <sstream>

#include "folder.h"
#include "run_cli.h"

using namespace ombrek;
using nlohmann::json;

namespace {

const Folder& folder() {
    static const Folder made;
    return made;
}

const std::string& book() {
    static const std::string made = [] {
        const auto file = (folder() / "book.ombrek").string();
        REQUIRE(run("practice " + file + " --finished").code == 0);
        return file;
    }();
    return made;
}

std::string text(const std::filesystem::path& file) {
    std::ifstream in(file, std::ios::binary);
    std::ostringstream out;
    out << in.rdbuf();
    return out.str();
}

json asked(const std::string& command) {
    const Ran ran = run(command + " --json");
    INFO(ran.out);
    return json::parse(ran.out);
}

}  // namespace

TEST_CASE("distance: kilometres and bearing between two locators, or a sentence") {
    // From the middles of the squares, by GeodSolve of Debian's geographiclib-tools.
    FILE* pipe =
        popen("LC_ALL=C GeodSolve -i --input-string '52.5208333333 13.375 51.5208333333 -0.1250'", "r");
    REQUIRE(pipe != nullptr);
    double azimuth = 0, back = 0, metres = 0;
    REQUIRE(std::fscanf(pipe, "%lf %lf %lf", &azimuth, &back, &metres) == 3);
    pclose(pipe);
    const json way = asked("distance JO62qm IO91wm");
    CHECK(way["km"].get<double>() == Approx(metres / 1000).epsilon(0.001));
    CHECK(way["bearing"].get<double>() == Approx(std::fmod(azimuth + 360, 360)).margin(0.1));
    CHECK(asked("distance JO62 JO62")["km"] == 0);
    CHECK(asked("distance JO62 JO62")["bearing"].is_null());
    for (const char* wrong : {"JO62 XX99", "J JO62", "'' JO62", "JO62qm 52.5,13.4"}) {
        const Ran ran = run(std::string("distance ") + wrong + " --json");
        CHECK(ran.code == 2);
        CHECK(json::parse(ran.out)["problem"]["message"].get<std::string>().find("locator") !=
              std::string::npos);
    }
}

TEST_CASE("log: ADIF in, out, in once more, problems told and nothing lost") {
    const auto file = folder() / "in.adi";
    std::ofstream(file)
        << "x<EOH><CALL:6>QX1ABC<QSO_DATE:8>20261112<TIME_ON:4>1902<FREQ:6>21.061<MODE:2>CW<RST_SENT:3>599<"
           "RST_RCVD:3>559"
           "<GRIDSQUARE:6>IO91wm<TX_PWR:1>3<MY_RIG:10>Lantern 15<MY_GRIDSQUARE:6>JO62qm<APP_X_Y:3>abc<EOR>"
           "<CALL:6>QX1ABC<QSO_DATE:8>20261112<TIME_ON:4>1902<FREQ:6>21.061<MODE:2>CW<EOR>"
           "<CALL:3>QX2DEF<QSO_DATE:8>18990101<TIME_ON:4>1902<EOR>";
    const json taken = asked("log " + book() + " --import " + file.string());
    CHECK(taken["read"] == 3);
    CHECK(taken["added"] == 1);
    CHECK(taken["duplicates"] == 1);
    REQUIRE(taken["refused"].size() == 1);
    CHECK(taken["refused"][0]["reason"].get<std::string>().find("1930") != std::string::npos);
    CHECK(taken["doubts"].size() == 1);
    CHECK(taken["contacts"] == 1);
    const json shown = asked("log " + book());
    REQUIRE(shown["contacts"].size() == 1);
    CHECK(shown["contacts"][0]["km"].get<double>() == Approx(932).epsilon(0.001));
    CHECK(shown["contacts"][0]["km_per_watt"].get<double>() == Approx(932.0 / 3).epsilon(0.001));
    const auto out = folder() / "out.adi";
    CHECK(asked("log " + book() + " --adif " + out.string())["written"] == 1);
    CHECK(text(out).find("<APP_X_Y:3>abc") != std::string::npos);
    CHECK(text(out).find("<MY_RIG:10>Lantern 15") != std::string::npos);
    CHECK(asked("log " + book() + " --import " + out.string())["added"] == 0);
    const auto xml = folder() / "out.adx";
    CHECK(asked("log " + book() + " --adif " + xml.string())["written"] == 1);
    CHECK(text(xml).find("<CALL>QX1ABC</CALL>") != std::string::npos);
    CHECK(run("log " + book() + " --import /nowhere.adi", true).code == 2);
    CHECK(run("log /nowhere.ombrek --adif " + out.string(), true).code == 2);
    CHECK_FALSE(std::filesystem::exists("/nowhere.ombrek"));
    std::ofstream(folder() / "no.adi") << "dear diary";
    const Ran no = run("log " + book() + " --import " + (folder() / "no.adi").string() + " --json");
    CHECK(no.code == 2);
    CHECK(json::parse(no.out).contains("problem"));
    CHECK(run("log " + book() + " --import a --adif b", true).code != 0);
}

TEST_CASE("report: JSON for others, PDF/A that is verified, and what is not the book's is told") {
    const auto pdf = folder() / "r.pdf", page = folder() / "r.html", data = folder() / "r.json",
               card = folder() / "c.pdf";
    REQUIRE(run("report " + book() + " --pdf " + pdf.string() + " --html " + page.string() + " --json " +
                data.string() + " --card " + card.string())
                .code == 0);
    const json report = json::parse(text(data));
    CHECK(report["format"] == "ombrek-report");
    CHECK(report["kit"]["name"] == "Lantern 15");
    REQUIRE(report["bands"].size() == 1);
    CHECK(report["bands"][0]["power_w"].get<double>() == Approx(3.1).epsilon(0.1));
    CHECK(report["bands"][0]["power_uncertainty_w"].get<double>() > 0);
    CHECK(report["gates"].size() == 11);
    CHECK(report["gates_earned"] == 9);
    CHECK(report["coils"].size() == 9);
    CHECK_FALSE(report["not_measured"].empty());
    CHECK(report["state_sha256"].get<std::string>().size() == 64);
    // ISO 19005-1 wants its part and level in the metadata, and every font within.
    CHECK(text(pdf).find("pdfaid:part") != std::string::npos);
    FILE* fonts = popen(("pdffonts " + pdf.string() + " 2>/dev/null").c_str(), "r");
    REQUIRE(fonts != nullptr);
    std::string listed;
    for (char line[400]; std::fgets(line, sizeof line, fonts) != nullptr;) listed += line;
    pclose(fonts);
    CHECK(listed.find("Identity-H       yes") != std::string::npos);
    CHECK(listed.find("Identity-H       no") == std::string::npos);
    // The printed text, by poppler's own tool, has the hash.
    FILE* printed = popen(("pdftotext " + pdf.string() + " - 2>/dev/null").c_str(), "r");
    REQUIRE(printed != nullptr);
    std::string words;
    for (char line[4000]; std::fgets(line, sizeof line, printed) != nullptr;) words += line;
    pclose(printed);
    std::erase_if(words, [](char c) { return c == ' ' || c == '\n'; });
    // Every heading of the one stands in the other: no page is lost.
    const std::string html = text(page);
    int headings = 0;
    for (std::size_t at = html.find("<h"); at != std::string::npos; at = html.find("<h", at + 1)) {
        if (html[at + 2] != '2' && html[at + 2] != '3') continue;
        std::string heading = html.substr(at + 4, html.find("</h", at) - at - 4);
        heading = heading.substr(0, heading.find(':'));
        std::erase(heading, ' ');
        INFO(heading);
        CHECK(words.find(heading) != std::string::npos);
        ++headings;
    }
    CHECK(headings >= 15);
    CHECK(words.find(report["state_sha256"].get<std::string>()) != std::string::npos);

    const Ran same = run("report " + book() + " --verify " + pdf.string() + " --as-json");
    CHECK(same.code == 0);
    CHECK(json::parse(same.out)["verified"] == true);
    // The card is no report, nor is any other file.
    CHECK(run("report " + book() + " --verify " + card.string(), true).code == 2);
    CHECK(run("report " + book() + " --verify " + page.string(), true).code == 2);
    CHECK(run("report " + book() + " --verify /nowhere.pdf", true).code == 2);
    // A contact with this rig, and the book is in another state.
    const auto more = folder() / "more.adi";
    std::ofstream(more)
        << "<CALL:6>QX8ABC<QSO_DATE:8>20261113<TIME_ON:4>1902<BAND:3>15m<MODE:2>CW<MY_RIG:10>Lantern 15<EOR>";
    REQUIRE(run("log " + book() + " --import " + more.string()).code == 0);
    const Ran other = run("report " + book() + " --verify " + pdf.string() + " --as-json");
    CHECK(other.code == 1);
    CHECK(json::parse(other.out)["same_state"] == false);
    CHECK(run("report " + book(), true).code == 2);
}

TEST_CASE("a rig on the air has its repair, its defect and its first contact on the report") {
    const auto file = (folder() / "air.ombrek").string(), data = (folder() / "air.json").string();
    REQUIRE(run("practice " + file + " --on-air").code == 0);
    REQUIRE(run("report " + file + " --json " + data).code == 0);
    const json report = json::parse(text(data));
    CHECK(report["first_contact"]["call"] == "QX1ABC");
    CHECK(report["first_contact"]["km"].get<double>() > 100);
    CHECK(report["contacts"] == 4);
    CHECK_FALSE(report["known_defects"].empty());
    REQUIRE(report["repairs"].size() == 2);
    CHECK(report["repairs"][1]["ref"] == "Q3");
    CHECK(report["repairs"][1]["closed"] == true);
    CHECK(report["repairs"][0]["closed"] == false);
    CHECK(report["gates_open"] == report["gates_all"]);
}
