#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>
#include <functional>
#include <random>
#include <sstream>

#include "core/parts/bands.h"
#include "formats/accuracy_text.h"
#include "formats/kit_json.h"
#include "formats/stock_csv.h"
#include "formats/stock_text.h"
#include "kit/instrument.h"
#include "lists/packing_list.h"
#include "lists/parts_list.h"
#include "lists/placement.h"
#include "practice/truth.h"
#include "draws.h"

using namespace ombrek;

// Every importer fed with bytes: damaged files, files of the wrong sort, and noise. Nothing may crash, hang
// or trip the sanitizers (./check --sanitize), and what is taken must be sane. Seeded: the same on every
// machine.

namespace {

std::string fileText(const std::string& name) {
    std::ifstream in(std::string(OMBREK_DATA_FOLDER) + "/demo/" + name, std::ios::binary);
    std::ostringstream out;
    out << in.rdbuf();
    return out.str();
}

/// Files of every sort to begin from; each importer gets all of them.
const std::vector<std::string>& seeds() {
    static const std::vector<std::string> texts{
        fileText("pilot-lamp.list.txt"),
        fileText("lantern-15.packing.csv"),
        fileText("drawers.csv"),
        fileText("practice.bench.json"),
        "Designator,Mid X,Mid Y,Rotation,Layer\nR1,10mm,20mm,90,top\nC1,-5,1e3,-45,bottom\n",
        "Ref,Qty,Value\r\nR1,1,4k7\r\n\"C1, C2\",2,\"100n, 50V\"\r\n",
        "\xEF\xBB\xBFPos.;Wert;Anzahl\nR1-R4;4,7k;4\n",
        std::string("\xFF\xFER\0e\0f\0\t\0V\0\n\0R\0001\0\t\0001\0k", 24),
        "R1-R999999999 1k\nC1..C4 22p (marked 220)\nD1 1N 50V 3%\n",
        "\"\"\"\"\"\n'''\n;;;;\n,,,,\n\t\t\t\n||||\n",
        "{\"format\":\"ombrek-kit\",\"version\":1,\"parts\":[{\"ref\":\"R1\"}]}",
    };
    return texts;
}

class Spoiler {
 public:
    explicit Spoiler(unsigned seed) : engine_(seed) {}

    std::string spoil(std::string text) {
        const unsigned times = 1 + below(8);
        for (unsigned i = 0; i < times; ++i) once(text);
        return text.substr(0, 20000);
    }
    std::string noise() {
        std::string out(below(400), ' ');
        for (char& c : out) c = static_cast<char>(below(256));
        return out;
    }

 private:
    unsigned below(std::size_t n) { return n == 0 ? 0 : unsigned(engine_() % n); }

    void once(std::string& text) {
        static const std::vector<std::string> pieces{"\0",       "\xFF", "\xC3",      "\n",
                                                     "\r",       "\"",   ";",         ",",
                                                     "\t",       "-",    "..",        "999999999999",
                                                     "1e308",    "nan",  "C1-C99999", "\xEF\xBB\xBF",
                                                     "=1+1",     "%",    "\xC2\xB5",  "R",
                                                     "(marked ", ")",    "{",         "}",
                                                     "null"};
        const std::size_t at = below(text.size() + 1);
        switch (below(6)) {
            case 0:
                if (!text.empty()) text[at % text.size()] = static_cast<char>(below(256));
                break;
            case 1:
                text.erase(at, below(40));
                break;
            case 2:
                text.insert(at, pieces[below(pieces.size())]);
                break;
            case 3:
                text.insert(at, text.substr(below(text.size() + 1), below(60)));
                break;
            case 4:
                text.insert(at, std::string(below(300), static_cast<char>(below(256))));
                break;
            default:
                text = text.substr(0, at);
                break;
        }
    }

    std::mt19937 engine_;
};

void checkList(const PartsList& list) {
    for (const ListLine& line : list.lines) {
        REQUIRE_FALSE(line.refs.empty());
        REQUIRE(std::isfinite(line.nominal));
        REQUIRE(line.nominal >= 0);
        REQUIRE(line.tolerance >= 0);
        REQUIRE(line.quantity >= 0);
    }
    for (const RefusedLine& line : list.refused) {
        REQUIRE(line.line > 0);
        REQUIRE_FALSE(line.reason.empty());
    }
}

using Importer = std::function<void(const std::string&)>;

const std::vector<std::pair<const char*, Importer>>& importers() {
    static const std::vector<std::pair<const char*, Importer>> all{
        {"placement",
         [](const std::string& bytes) {
             const auto read = readPlacement(bytes);
             if (!read) {
                 REQUIRE_FALSE(read.error().sentence.empty());
                 return;
             }
             REQUIRE_FALSE(read->parts.empty());
             for (const PlacedPart& part : read->parts) {
                 REQUIRE(std::isfinite(part.x));
                 REQUIRE(std::isfinite(part.y));
                 REQUIRE(part.x >= 0);
                 REQUIRE(part.y >= 0);
                 REQUIRE(part.turn >= 0);
                 REQUIRE(part.turn <= 360);
             }
             (void)disagreements(*read, {"R1", "C1"});
         }},
        {"parts list",
         [](const std::string& bytes) {
             const auto read = readPartsList(bytes);
             if (!read) {
                 REQUIRE_FALSE(read.error().sentence.empty());
                 return;
             }
             checkList(read->list);
             const std::string kit = kitFromList(read->list, bytes.substr(0, 30), {});
             const auto again = readKit(kit, {});  // what was taken is always a kit
             INFO((again ? std::string() : again.error().text()) << "\n" << kit.substr(0, 2000));
             REQUIRE(again);
         }},
        {"list text", [](const std::string& bytes) { checkList(readListText(bytes)); }},
        {"packing list",
         [](const std::string& bytes) {
             const auto read = readPackingList(bytes);
             if (read)
                 reconcile({}, *read);
             else
                 REQUIRE_FALSE(read.error().sentence.empty());
         }},
        {"stock",
         [](const std::string& bytes) {
             const auto read = readStock(bytes);
             if (!read) {
                 REQUIRE_FALSE(read.error().sentence.empty());
                 return;
             }
             for (const StockLine& line : read->lines) {
                 REQUIRE(line.count >= 0);
                 REQUIRE(std::isfinite(line.value));
             }
             for (const RefusedLine& line : read->refused) REQUIRE_FALSE(line.reason.empty());
             REQUIRE(readStock(writeStock(read->lines)));
         }},
        {"list shape", [](const std::string& bytes) { readShape(bytes); }},
        {"practice bag", [](const std::string& bytes) { (void)readPracticeBag(bytes); }},
        {"mark",
         [](const std::string& bytes) {
             for (const MarkReading& r : readMark(bytes.substr(0, 60))) {
                 REQUIRE(std::isfinite(r.value));
                 REQUIRE(r.value >= 0);
                 REQUIRE_FALSE(meaning(r).empty());
             }
         }},
        {"drawer search", [](const std::string& bytes) { readQuery(bytes); }},
        {"drawer line", [](const std::string& bytes) { (void)readStockText(bytes.substr(0, 200)); }},
        {"accuracy",
         [](const std::string& bytes) {
             MeterLine line;
             line.unit = Unit::farad;
             if (readAccuracy(bytes.substr(0, 60), line)) REQUIRE(std::isfinite(line.percent + line.floor));
         }},
    };
    return all;
}

}  // namespace

TEST_CASE("no importer minds damaged files", "[fuzz]") {
    Spoiler spoiler(1887);
    for (int round = 0; round < draws(250, 50); ++round) {
        for (const std::string& seed : seeds()) {
            const std::string bytes = spoiler.spoil(seed);
            for (const auto& [name, import] : importers()) {
                INFO(name << ", round " << round << ":\n" << bytes.substr(0, 1500));
                import(bytes);
            }
        }
    }
}

TEST_CASE("no importer minds noise, emptiness or one endless line", "[fuzz]") {
    Spoiler spoiler(61);
    std::vector<std::string> texts{"",
                                   "\n",
                                   std::string(1, '\0'),
                                   std::string(200000, 'R'),
                                   std::string(200000, '\n'),
                                   std::string(100000, '"'),
                                   std::string(100000, ','),
                                   std::string(50000, '(')};
    for (int i = 0; i < draws(1500, 400); ++i) texts.push_back(spoiler.noise());
    for (const std::string& bytes : texts) {
        for (const auto& [name, import] : importers()) {
            INFO(name << ": " << bytes.substr(0, 100));
            import(bytes);
        }
    }
}

TEST_CASE("every importer that may take long can be stopped", "[fuzz]") {
    std::string table = "Ref,Value,Description,Qty\n", stock = "drawer,value,count\n",
                packing = "Code,Shipped\n";
    for (int i = 0; i < 20000; ++i) {
        table += "R" + std::to_string(i) + ",4k7,metal film,1\n";
        stock += "A1,4k7,3\n";
        packing += "X" + std::to_string(i) + ",3\n";
    }
    int asked = 0;
    const Progress stop = [&](double share) {
        CHECK(share >= 0);
        CHECK(share <= 1);
        return ++asked < 2;
    };
    CHECK_FALSE(readPartsList(table, stop));
    asked = 0;
    CHECK_FALSE(readStock(stock, stop));
    asked = 0;
    CHECK_FALSE(readPackingList(packing, stop));
}
