#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>
#include <fstream>
#include <map>

#include "formats/table_csv.h"
#include "lists/parts_list.h"
#include "lists/placement.h"

using namespace ombrek;

// Source: the example boards and drawings that Debian's packages gerbv, pcb-common and lepton-eda ship (data
// files only; ./check lays them out in build/designs). The truth is what the board's own file says of each
// part; the lists are made from it in twelve styles.

namespace {

struct Placed {
    std::string ref, value, package;
};
using Board = std::vector<Placed>;

std::string bytesOf(const std::filesystem::path& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

/// The quoted texts of a line.
std::vector<std::string> textsIn(const std::string& line) {
    std::vector<std::string> out;
    for (std::size_t at = line.find('"'); at != std::string::npos; at = line.find('"', at + 1)) {
        const std::size_t end = line.find('"', at + 1);
        if (end == std::string::npos) break;
        out.push_back(line.substr(at + 1, end - at - 1));
        at = end;
    }
    return out;
}

/// Elements of a board file: Element(flags "package" "designator" "value" …).
Board boardOf(const std::filesystem::path& path) {
    Board out;
    std::map<std::string, bool> seen;
    std::ifstream in(path);
    for (std::string line; std::getline(in, line);) {
        if (line.find("Element(") == std::string::npos && line.find("Element[") == std::string::npos)
            continue;
        auto texts = textsIn(line);
        if (line.find("Element[\"") != std::string::npos && texts.size() > 3) texts.erase(texts.begin());
        if (texts.size() >= 3 && !texts[1].empty() && !seen[texts[1]]) {
            seen[texts[1]] = true;
            out.push_back({texts[1], texts[2], texts[0]});
        }
    }
    return out;
}

/// A drawing: the attributes of each symbol stand between braces, a name and a value a line.
Board drawingOf(const std::filesystem::path& path) {
    Board out;
    std::map<std::string, bool> seen;
    std::map<std::string, std::string> said;
    std::ifstream in(path);
    for (std::string line; std::getline(in, line);) {
        if (line == "{") said.clear();
        if (const auto at = line.find('='); at != std::string::npos)
            said[line.substr(0, at)] = line.substr(at + 1);
        if (line != "}" || said["refdes"].empty() || seen[said["refdes"]]) continue;
        seen[said["refdes"]] = true;
        const std::string& value = !said["value"].empty() ? said["value"] : said["model-name"];
        out.push_back({said["refdes"], value, said["footprint"]});
    }
    return out;
}

/// A placement table with columns for designator, footprint and comment.
Board placementOf(const std::filesystem::path& path) {
    Board out;
    std::map<std::string, bool> seen;
    const auto table = readTable(bytesOf(path));
    REQUIRE(table);
    for (const auto& row : table->rows) {
        if (row.size() < 11 || row[0] == "Designator" || row[0].empty() || seen[row[0]]) continue;
        seen[row[0]] = true;
        out.push_back({row[0], row[10], row[1]});
    }
    return out;
}

std::vector<std::pair<Placed, std::vector<std::string>>> grouped(const Board& board) {
    std::vector<std::pair<Placed, std::vector<std::string>>> out;
    for (const Placed& part : board) {
        auto hit = std::find_if(out.begin(), out.end(), [&](const auto& g) {
            return g.first.value == part.value && g.first.package == part.package;
        });
        if (hit == out.end()) {
            out.push_back({part, {part.ref}});
        } else {
            hit->second.push_back(part.ref);
        }
    }
    return out;
}

std::string cell(const std::string& text) { return "\"" + text + "\""; }
std::string joined(const std::vector<std::string>& refs, const std::string& by) {
    std::string out;
    for (const auto& ref : refs) out += (out.empty() ? "" : by) + ref;
    return out;
}
std::string padded(std::string text, std::size_t width) {
    text.resize(std::max(width, text.size() + 2), ' ');
    return text;
}

/// What is written by hand or by a word processor: parts without a value are left out.
std::map<std::string, std::string> writtenOf(const Board& board) {
    std::map<std::string, std::string> out;
    std::string& marked = out["a table between bars"] =
        "| Ref | Value | Package |\n|-----|-------|---------|\n";
    std::string& ticks = out["boxes to tick"];
    std::string& dots = out["dots between"] = "Parts\n\n";
    std::string& german = out["German, tabs"] = "Menge\tBauteil\tWert\tGehäuse\n";
    std::string& colon = out["designators and a colon"];
    std::string& packed = out["two halves side by side"];
    int halves = 0;
    for (const Placed& part : board) {
        if (part.value.empty()) continue;
        marked += "| " + part.ref + " | " + part.value + " | " + part.package + " |\n";
        ticks += "[ ] " + part.ref + ", " + part.value + "\n";
        dots += part.ref + " " + std::string(12 - std::min<std::size_t>(part.ref.size(), 10), '.') + " " +
                part.value + "\n";
        packed += padded(padded(part.ref, 6) + part.value, 34) + (++halves % 2 ? "" : "\n");
    }
    for (const auto& [part, refs] : grouped(board)) {
        if (part.value.empty()) continue;
        german += std::to_string(refs.size()) + "\t" + joined(refs, ", ") + "\t" + part.value + "\t" +
                  part.package + "\n";
        colon += joined(refs, ", ") + ": " + part.value + "\n";
    }
    return out;
}

std::map<std::string, std::string> exportsOf(const Board& board) {
    std::map<std::string, std::string> out;
    std::string& groups = out["grouped"] = "Comment,Designator,Footprint,Quantity\n";
    std::string& bom = out["bill with comments"] =
        "# Bill of materials\n# Quantity, Description, Value, RefDes\n# ---------\n";
    std::string& values = out["value first"];
    for (const auto& [part, refs] : grouped(board)) {
        const std::string count = std::to_string(refs.size());
        groups +=
            cell(part.value) + "," + cell(joined(refs, ",")) + "," + cell(part.package) + "," + count + "\n";
        bom += count + "," + cell(part.package) + "," + cell(part.value) + "," + joined(refs, " ") + "\n";
        if (!part.value.empty()) values += count + "x  " + part.value + "   " + joined(refs, ", ") + "\n";
    }
    std::string& rows = out["a row each"] = "Designator;Footprint;Value\n";
    std::string& columns = out["columns"] = "Ref       Value                    Package\n";
    std::string& text = out["text"];
    for (const Placed& part : board) {
        rows += part.ref + ";" + part.package + ";" + part.value + "\n";
        columns += padded(part.ref, 10) + padded(part.value, 25) + part.package + "\n";
        text += part.ref + "  " + part.value + "  " + part.package + "\n";
    }
    return out;
}

/// A resistor's or a capacitor's value by the simplest rule there is: digits, one letter, digits; 0 for
/// anything else.
double plainValue(const Placed& part) {
    static const std::map<char, double> scale{{'R', 1},     {'K', 1e3},   {'k', 1e3},  {'M', 1e6},
                                              {'p', 1e-12}, {'P', 1e-12}, {'n', 1e-9}, {'N', 1e-9},
                                              {'u', 1e-6},  {'U', 1e-6}};
    const std::string text = part.value.substr(0, part.value.find_first_of(" _/"));
    const bool measured = part.ref.size() > 1 && std::isdigit(static_cast<unsigned char>(part.ref[1]));
    if (!measured || (part.ref[0] != 'R' && part.ref[0] != 'C')) return 0;
    std::string digits;
    double by = part.ref[0] == 'R' ? 1 : 0;
    for (const char c : text) {
        if (std::isdigit(static_cast<unsigned char>(c)) || c == '.') {
            digits += c;
        } else if (scale.contains(c) && digits.find('.') == std::string::npos) {
            by = scale.at(c);
            digits += '.';
        } else if (c != 'F') {
            return 0;
        }
    }
    return digits.empty() ? 0 : std::strtod(digits.c_str(), nullptr) * by;
}

struct Score {
    int all = 0, right = 0, silent = 0;
};

/// @param valued  the list holds only the parts that have a value
void score(const Board& board, const std::string& list, bool valued, Score& sum) {
    const auto source = readPartsList(list);
    REQUIRE(source);
    std::map<std::string, const ListLine*> lines;
    for (const ListLine& line : source->list.lines) {
        for (const auto& ref : line.refs) lines[ref] = &line;
    }
    // Said to be left out, or refused with its row.
    const auto refused = [&](const std::string& ref) {
        for (const ListLine& line : source->list.lines) {
            if (!line.doubts.empty() && line.text.find(ref) != std::string::npos) return true;
            if (std::any_of(line.doubts.begin(), line.doubts.end(),
                            [&](const std::string& d) { return d.find(ref) != std::string::npos; }))
                return true;
        }
        return std::any_of(source->list.refused.begin(), source->list.refused.end(),
                           [&](const RefusedLine& r) { return r.text.find(ref) != std::string::npos; });
    };
    // A name without a number stands as a row of the bag where it is no designator.
    const auto inBag = [&](const Placed& part) {
        return std::any_of(source->list.hardware.begin(), source->list.hardware.end(),
                           [&](const Hardware& h) {
                               return h.text.find(part.ref) != std::string::npos &&
                                      h.text.find(part.value) != std::string::npos;
                           });
    };
    for (const Placed& part : board) {
        const bool starred = part.value.find_first_not_of("* ") == std::string::npos;
        if (valued && part.value.empty()) continue;
        ++sum.all;
        const auto hit = lines.find(part.ref);
        const double truth = plainValue(part);
        bool good = hit != lines.end();
        if (good && truth > 0) good = std::fabs(hit->second->nominal / truth - 1) < 1e-6;
        // A described part keeps its words.
        if (good && truth == 0 && !starred && unitOf(hit->second->kind) == Unit::none)
            good = hit->second->value.find(part.value.substr(0, part.value.find(' '))) != std::string::npos;
        good = good || (hit == lines.end() && inBag(part));
        sum.right += good;
        const bool silent = !good && (hit == lines.end() ? !refused(part.ref) : hit->second->sure());
        sum.silent += silent;
        if (!good) UNSCOPED_INFO(part.ref << " " << part.value << " " << part.package);
        if (silent) UNSCOPED_INFO("  in silence");
    }
}

}  // namespace

TEST_CASE("lists of real boards, in twelve styles, are read right", "[reference]") {
    const std::filesystem::path folder = OMBREK_DESIGNS;
    if (!std::filesystem::exists(folder)) {
        WARN("The example designs are not laid out; ./check does it.");
        return;
    }
    std::vector<Board> boards;
    for (const auto& entry : std::filesystem::recursive_directory_iterator(folder)) {
        const std::string name = entry.path().filename().string();
        if (entry.path().extension() == ".pcb") boards.push_back(boardOf(entry.path()));
        // A transistor's model drawn for a simulator is no board.
        const bool model = entry.path().parent_path().filename() == "RF_Amp";
        if (entry.path().extension() == ".sch" && !model) boards.push_back(drawingOf(entry.path()));
        if (name.starts_with("Pick_Place") && name.ends_with(".csv"))
            boards.push_back(placementOf(entry.path()));
    }
    // A drawing names nets, pads of wires ("bat(0v)") and a simulator's sources too; those are no parts.
    for (Board& board : boards) {
        std::erase_if(board, [](const Placed& part) {
            const bool numbered = part.ref.find_first_of("0123456789") != std::string::npos &&
                                  part.ref.find('(') == std::string::npos;
            return !numbered && (part.value.empty() || part.ref[0] == 'V');
        });
    }
    std::erase_if(boards, [](const Board& board) { return board.size() < 10; });
    REQUIRE(boards.size() >= 3);
    std::map<std::string, Score> scores;
    for (const Board& board : boards) {
        for (const auto& [style, list] : exportsOf(board))
            score(board, list, style == "value first", scores[style]);
        for (const auto& [style, list] : writtenOf(board)) score(board, list, true, scores[style]);
    }
    for (const auto& [style, sum] : scores) {
        CAPTURE(style, sum.right, sum.all, sum.silent);
        CHECK(sum.right >= (style == "boxes to tick" ? 0.95 : 0.99) * sum.all);
        CHECK(sum.silent == 0);
    }
}

TEST_CASE("placement tables that packages ship are read, and two forms of one agree", "[reference]") {
    const std::filesystem::path folder = OMBREK_DESIGNS;
    if (!std::filesystem::exists(folder)) {
        WARN("The example designs are not laid out; ./check does it.");
        return;
    }
    std::map<std::string, Placement> read;
    for (const auto& entry : std::filesystem::recursive_directory_iterator(folder)) {
        const std::string name = entry.path().filename().string();
        if (!name.starts_with("Pick_Place") && entry.path().extension() != ".xy") continue;
        const auto placement = readPlacement(bytesOf(entry.path()));
        CAPTURE(name);
        REQUIRE(placement);
        CHECK(placement->parts.size() > 40);
        CHECK(placement->units == "mils");
        read[entry.path().extension().string()] = *placement;
    }
    REQUIRE(read.contains(".csv"));
    REQUIRE(read.contains(".txt"));
    REQUIRE(read[".csv"].parts.size() == read[".txt"].parts.size());
    for (std::size_t i = 0; i < read[".csv"].parts.size(); ++i) {
        const PlacedPart &a = read[".csv"].parts[i], &b = read[".txt"].parts[i];
        CHECK(a.ref == b.ref);
        CHECK(a.x == Approx(b.x));
        CHECK(a.turn == Approx(b.turn));
    }
}
