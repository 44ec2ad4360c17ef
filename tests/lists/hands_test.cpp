#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>
#include <sstream>

#include "lists/parts_list.h"

using namespace ombrek;

// Parts lists of twenty more hands, written when the reader was done; every one is made up. A list begins
// with
// "#"; each "=" says designators, kind, and value in SI, in words, or core and turns; "no": not fitted.

namespace {

struct Wanted {
    std::vector<std::string> refs;
    std::string kind, value;
    bool fitted = true;
};
struct Hand {
    std::string name, text;
    std::vector<Wanted> wanted;
};

Wanted wantedOf(const std::string& row) {
    std::istringstream words(row);
    std::vector<std::string> all;
    for (std::string word; words >> word;) all.push_back(word);
    Wanted out;
    out.fitted = all.back() != "no";
    if (!out.fitted) all.pop_back();
    out.value = all.back();
    out.kind = all[all.size() - 2];
    out.refs.assign(all.begin(), all.end() - 2);
    return out;
}

std::vector<Hand> hands() {
    std::ifstream in(std::string(OMBREK_LISTS) + "/hands.txt");
    std::vector<Hand> out;
    for (std::string line; std::getline(in, line);) {
        if (line.starts_with("# "))
            out.push_back({line.substr(2), "", {}});
        else if (line.starts_with("= "))
            out.back().wanted.push_back(wantedOf(line.substr(2)));
        else
            out.back().text += line + "\n";
    }
    return out;
}

bool right(const ListLine& line, const Wanted& wanted, const PartsList& list, const std::string& ref) {
    if (line.fitted != wanted.fitted) return false;
    if (!wanted.fitted) return true;
    if (word(line.kind) != wanted.kind) return false;
    if (wanted.kind == "coil") {
        const auto comma = wanted.value.find(',');
        return std::any_of(list.coils.begin(), list.coils.end(), [&](const ListCoil& coil) {
            return coil.ref == ref && coil.core == wanted.value.substr(0, comma) && !coil.windings.empty() &&
                   coil.windings[0].turns == std::stoi(wanted.value.substr(comma + 1));
        });
    }
    if (unitOf(line.kind) != Unit::none) return std::fabs(line.nominal / std::stod(wanted.value) - 1) < 1e-6;
    return line.value.find(wanted.value) != std::string::npos && !line.value.starts_with('=');
}

}  // namespace

TEST_CASE("twenty more hands: right or doubted, never silently wrong") {
    int all = 0, good = 0, doubted = 0;
    for (const Hand& hand : hands()) {
        const auto source = readPartsList(hand.text);
        INFO(hand.name);
        REQUIRE(source);
        for (const Wanted& wanted : hand.wanted) {
            for (const std::string& ref : wanted.refs) {
                ++all;
                const ListLine* said = nullptr;
                for (const ListLine& line : source->list.lines) {
                    if (std::find(line.refs.begin(), line.refs.end(), ref) != line.refs.end()) said = &line;
                }
                if (said != nullptr && right(*said, wanted, source->list, ref)) {
                    ++good;
                    continue;
                }
                const bool doubt = said != nullptr ? !said->sure() : !source->list.refused.empty();
                doubted += doubt;
                UNSCOPED_INFO(ref << ": wanted " << wanted.kind << " " << wanted.value << ", "
                                  << (said != nullptr ? std::string(word(said->kind)) + " " + said->value
                                                      : std::string("no line"))
                                  << (doubt ? " (doubted)" : ""));
                CHECK(doubt);
            }
        }
    }
    INFO(good << " right and " << doubted << " doubted of " << all);
    CHECK(all >= 110);
    CHECK(good >= 0.95 * all);
}
