#include "circuit/netlist.h"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <map>
#include <set>
#include <sstream>

#include "core/text/letters.h"

namespace ombrek {
namespace {

constexpr std::size_t kMostElements = 10000;  ///< elements
constexpr std::size_t kLongestName = 1000;    ///< letters

std::vector<std::string> wordsOf(const std::string& line) { return circuitWords(line); }

struct Line {
    std::size_t number;
    std::string text;
};

/// Continued lines joined; comments go to `remarks`.
std::vector<Line> joined(const std::string& text, std::vector<std::string>& remarks) {
    std::vector<Line> out;
    std::istringstream in(text);
    std::string raw;
    for (std::size_t number = 1; std::getline(in, raw); ++number) {
        if (!raw.empty() && raw.back() == '\r') raw.pop_back();
        if (number > 1) {
            raw = raw.substr(0, std::min(raw.find(';'), raw.find(" $")));
            const std::size_t first = raw.find_first_not_of(" \t\v\f\r");
            if (first == std::string::npos) continue;
            raw = raw.substr(first);
            if (raw[0] == '*') {
                remarks.push_back(raw.substr(1));
                continue;
            }
        }
        if (number > 1 && raw[0] == '+' && out.size() > 1) {
            out.back().text += ' ' + raw.substr(1);
        } else {
            out.push_back({number, raw});
        }
    }
    return out;
}

/// How many nodes stand behind a name; 0: as many as there are (a subcircuit), −1: no element we know.
int nodesOf(char kind) {
    static const std::map<char, int> table{{'r', 2}, {'c', 2}, {'l', 2}, {'v', 2}, {'i', 2}, {'d', 2},
                                           {'q', 3}, {'j', 3}, {'m', 4}, {'x', 0}, {'e', 4}, {'g', 4},
                                           {'f', 2}, {'h', 2}, {'b', 2}, {'s', 4}, {'t', 4}, {'k', 0}};
    const auto hit = table.find(kind);
    return hit == table.end() ? -1 : hit->second;
}

std::string place(std::size_t line) { return "line " + std::to_string(line); }

/// Letters, digits and what drawings put into names; nothing that any command reader minds.
bool isName(const std::string& word) {
    return word.size() <= kLongestName && std::all_of(word.begin(), word.end(), [](unsigned char c) {
               return std::isalnum(c) || c >= 0x80 ||
                      std::string_view("_-.+/#:@~()[]{},*!%$?").find(char(c)) != std::string_view::npos;
           });
}

Result<CircuitElement> elementOf(const Line& line, const std::vector<std::string>& words) {
    CircuitElement out;
    out.name = words[0];
    out.line = line.number;
    if (!isName(out.name))
        return problem(place(line.number),
                       "\"" + words[0].substr(0, 30) +
                           "\" is no name of an element: letters, digits, \"_\", \"-\" and \".\" make one.");
    const int nodes = nodesOf(out.kind());
    if (nodes < 0)
        return problem(place(line.number), "\"" + words[0].substr(0, 30) + "\" is no element of a circuit.");
    std::size_t values = 1;
    if (out.kind() == 'x') {
        // The last word before parameters is the subcircuit.
        values = words.size();
        while (values > 1 &&
               (words[values - 1].find('=') != std::string::npos || lowered(words[values - 1]) == "params:"))
            --values;
        --values;
    } else if (out.kind() == 'k') {
        values = 1;
    } else {
        values = 1 + std::size_t(nodes);
        // "E1 out 0 VALUE={…}": a controlled source by an expression has two nodes.
        if (words.size() > 3 && (out.kind() == 'e' || out.kind() == 'g') &&
            lowered(words[3]).find_first_of("={") != std::string::npos)
            values = 3;
        if (words.size() > 4 && (out.kind() == 'e' || out.kind() == 'g') && words[4].starts_with('='))
            values = 3;
    }
    if (values >= words.size() || values == 0)
        return problem(place(line.number), words[0].substr(0, 30) + " lacks its nodes or its value.");
    for (std::size_t i = 1; i < values; ++i) {
        if (!isName(words[i]))
            return problem(place(line.number), "\"" + words[i].substr(0, 30) + "\" is no name of a node.");
        out.nodes.push_back(circuitNode(words[i]));
    }
    for (std::size_t i = values; i < words.size(); ++i)
        out.value += (out.value.empty() ? "" : " ") + words[i];
    return out;
}

/// Models and subcircuits by their names in small letters, each with its lines. A model inside a subcircuit
/// is the subcircuit's own.
using Definitions = std::map<std::string, std::vector<std::string>>;
Definitions definedIn(const std::vector<std::string>& cards) {
    Definitions out;
    std::string inside;
    for (const std::string& card : cards) {
        const auto words = wordsOf(lowered(card));
        const bool begins = words.size() > 1 && (words[0] == ".model" || words[0] == ".subckt");
        if (inside.empty() && begins) {
            out[words[1]].push_back(card);
            if (words[0] == ".subckt") inside = words[1];
            continue;
        }
        if (inside.empty()) continue;
        out[inside].push_back(card);
        if (!words.empty() && words[0] == ".ends") inside.clear();
    }
    return out;
}

/// Take a definition from a library, with those that it uses.
bool borrow(const std::string& name, Definitions& have, const Definitions& library, Netlist& netlist) {
    if (have.contains(name)) return true;
    const auto hit = library.find(name);
    if (hit == library.end()) return false;
    have.insert(*hit);
    netlist.cards.insert(netlist.cards.end(), hit->second.begin(), hit->second.end());
    for (const std::string& line : hit->second) {
        for (const std::string& word : wordsOf(lowered(line))) {
            if (word != name && library.contains(word)) borrow(word, have, library, netlist);
        }
    }
    return true;
}

}  // namespace

char CircuitElement::kind() const {
    return name.empty() ? ' ' : char(std::tolower(static_cast<unsigned char>(name[0])));
}

std::string CircuitElement::word() const { return value.substr(0, value.find(' ')); }

const CircuitElement* Netlist::element(std::string_view name) const {
    const std::string wanted = lowered(name);
    const auto hit = std::find_if(elements.begin(), elements.end(),
                                  [&](const CircuitElement& e) { return lowered(e.name) == wanted; });
    return hit == elements.end() ? nullptr : &*hit;
}

std::string Netlist::shown(const std::string& node) const {
    const auto hit = spelled.find(node);
    return hit == spelled.end() ? node : hit->second;
}

std::vector<std::string> Netlist::nodes() const {
    std::vector<std::string> out;
    std::set<std::string> seen{"0"};
    for (const CircuitElement& e : elements) {
        for (const std::string& node : e.nodes) {
            if (seen.insert(node).second) out.push_back(node);
        }
    }
    return out;
}

Result<CircuitElement> readElement(const std::string& text, std::size_t line) {
    const auto words = wordsOf(text);
    if (words.empty()) return problem(place(line), "An element is missing.");
    return elementOf({line, text}, words);
}

std::vector<std::string> circuitWords(const std::string& line, bool inSmall) {
    std::istringstream in(inSmall ? lowered(line) : line);
    std::vector<std::string> out;
    for (std::string word; in >> word;) out.push_back(word);
    return out;
}

namespace {

/// "V1 in 0 10" and "R1 a b 4k7" do; "R1 and the divider" does not.
bool looksLikePart(const Line& line) {
    const auto words = wordsOf(line.text);
    constexpr std::string_view kKinds = "rclvi";
    const bool valued = words.size() >= 4 && kKinds.find(lowered(words[0])[0]) != std::string_view::npos &&
                        (isDigit(words[3][0]) || lowered(words[3]) == "dc" || lowered(words[3]) == "ac");
    return valued && elementOf(line, words);
}

}  // namespace

Result<Netlist> readNetlist(const std::string& text, const std::string& models) {
    Netlist out;
    const auto lines = joined(text, out.remarks);
    if (lines.size() < 2) return problem("", "There is no circuit in this file.");
    out.title = lines.front().text;
    if (looksLikePart(lines.front()))
        return problem(place(1), "The first line of a netlist is its title, and \"" +
                                     out.title.substr(0, 40) +
                                     "\" looks like a part: put a line with the circuit's name above it.");
    std::set<std::string> names;
    int inside = 0;  // a subcircuit
    bool control = false;
    for (std::size_t i = 1; i < lines.size(); ++i) {
        const auto words = wordsOf(lines[i].text);
        const std::string first = lowered(words[0]);
        if (first == ".end") break;
        if (first == ".control") control = true;
        if (first == ".endc") control = false;
        if (control || first == ".endc") continue;
        if (first == ".include" || first == ".inc" || first == ".lib")
            return problem(place(lines[i].number),
                           "A circuit is one file: put what " + words[0] + " names into it.");
        if (first == ".subckt") ++inside;
        if (inside > 0 || first == ".model" || first == ".param" || first == ".global" || first == ".func") {
            out.cards.push_back(lines[i].text);
            out.cardLines.push_back(lines[i].number);
            if (first == ".ends") --inside;
            continue;
        }
        if (first[0] == '.') continue;
        auto element = elementOf(lines[i], words);
        if (!element) return tl::make_unexpected(element.error());
        if (!names.insert(lowered(element->name)).second)
            return problem(place(lines[i].number), element->name + " stands twice in this circuit.");
        for (std::size_t node = 0; node < element->nodes.size(); ++node)
            out.spelled.try_emplace(element->nodes[node], words[1 + node]);
        if (out.elements.size() == kMostElements)
            return problem(place(lines[i].number), "More than 10,000 elements.");
        out.elements.push_back(std::move(*element));
    }
    if (inside > 0) return problem("", "A subcircuit has no end: .ends is missing.");
    if (out.elements.empty()) return problem("", "There is no element in this circuit.");
    Definitions defined = definedIn(out.cards);
    std::vector<std::string> shipped;
    for (const Line& line : joined('\n' + models, out.remarks)) shipped.push_back(line.text);
    const Definitions library = definedIn(shipped);
    for (const CircuitElement& e : out.elements) {
        const bool modelled =
            e.kind() == 'd' || e.kind() == 'q' || e.kind() == 'j' || e.kind() == 'm' || e.kind() == 'x';
        // A transistor may have its substrate as a fourth node.
        const bool second =
            e.kind() == 'q' && wordsOf(e.value).size() > 1 && defined.contains(lowered(wordsOf(e.value)[1]));
        if (modelled && !second && !borrow(lowered(e.word()), defined, library, out))
            return problem(e.name, "wants the model \"" + e.word() + "\", which is not in this circuit.");
    }
    return out;
}

std::string circuitNode(std::string_view word) {
    std::string node = lowered(word);
    for (char& c : node) {
        if (std::string_view("()[]{},=\"'").find(c) != std::string_view::npos) c = '_';
    }
    return node.empty() || node == "gnd" || node == "/gnd" || node == "ground" || node == "earth" ? "0"
                                                                                                  : node;
}

double sourceValue(const CircuitElement& source) {
    const auto words = wordsOf(source.value);
    const bool named = words.size() > 1 && lowered(words[0]) == "dc";
    return words.empty() ? NAN : spiceNumber(words[named ? 1 : 0]);
}

double spiceNumber(std::string_view text) {
    const std::string word = lowered(text);
    const char* const first = word.data() + (word.starts_with('+') ? 1 : 0);
    double value = 0;
    // Not strtod: that reads as the locale says, and a netlist does not.
    const auto [end, error] = std::from_chars(first, word.data() + word.size(), value);
    if (error != std::errc{} || !std::isfinite(value)) return NAN;
    const std::string_view rest(end, std::size_t(word.data() + word.size() - end));
    // "4k7" is read by some as 4.7 k and by others as 4 k: neither is taken in silence.
    if (rest.find_first_of("0123456789") != std::string_view::npos) return NAN;
    if (rest.starts_with("meg")) return value * 1e6;
    if (rest.starts_with("mil")) return value * 25.4e-6;
    if (rest.starts_with("\u00b5") || rest.starts_with("\u03bc")) return value * 1e-6;
    static const std::map<char, double> scale{{'t', 1e12}, {'g', 1e9},  {'k', 1e3},   {'m', 1e-3},
                                              {'u', 1e-6}, {'n', 1e-9}, {'p', 1e-12}, {'f', 1e-15}};
    const auto hit = rest.empty() ? scale.end() : scale.find(rest[0]);
    if (hit != scale.end()) return value * hit->second;
    return rest.empty() || std::isalpha(static_cast<unsigned char>(rest[0])) ? value : NAN;
}

}  // namespace ombrek
