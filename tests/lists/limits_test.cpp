#include <catch2/catch.hpp>
#include <cstdlib>
#include <fstream>
#include <sstream>

#include "lists/condition_words.h"
#include "lists/limit_words.h"
#include "lists/voltage_table.h"

using namespace ombrek;

// Limits and conditions in nine languages. The lines of the corpus were written before the reader saw them;
// "limits-second.txt" when it was done, in another manner. What is meant is the writer's word.

namespace {

struct Score {
    int right = 0, doubted = 0, wrong = 0;
    std::string wrongs;
    int all() const { return right + doubted + wrong; }
};

/// "4" → 4, "-" → nothing. @pre written by us, with a point
std::optional<double> wanted(const std::string& cell) {
    if (cell == "-" || cell == "?") return std::nullopt;
    std::istringstream in(cell);
    in.imbue(std::locale::classic());
    double value = 0;
    in >> value;
    return value;
}

bool same(const std::optional<double>& a, const std::optional<double>& b) {
    return a.has_value() == b.has_value() && (!a || *a == Approx(*b).epsilon(1e-4));
}

Score scoreOf(const std::string& file) {
    Score out;
    std::ifstream in(std::string(OMBREK_LISTS) + "/" + file);
    REQUIRE(in);
    for (std::string line; std::getline(in, line);) {
        if (line.empty() || line.starts_with("# ")) continue;
        std::istringstream cells(line);
        std::string low, high, condition, sentence;
        std::getline(cells, low, '\t');
        std::getline(cells, high, '\t');
        std::getline(cells, condition, '\t');
        std::getline(cells, sentence);
        // "\n" parts lines: a heading and a row. What is wanted is of the last check.
        for (std::size_t at = sentence.find("\\n"); at != std::string::npos; at = sentence.find("\\n"))
            sentence.replace(at, 2, "\n");
        const VoltageTable table = readVoltageTable(sentence + "\n");
        if (table.checks.empty() || !table.checks.back().doubts.empty()) {
            ++out.doubted;
            if (low != "?") out.wrongs += "doubted: " + line + "\n";
            continue;
        }
        const PastedCheck& check = table.checks.back();
        const bool right = low != "?" && same(check.low, wanted(low)) && same(check.high, wanted(high)) &&
                           check.condition == (condition == "-" ? "" : condition);
        ++(right ? out.right : out.wrong);
        if (!right)
            out.wrongs += "WRONG: " + line + " -> " + (check.low ? std::to_string(*check.low) : "-") + " " +
                          (check.high ? std::to_string(*check.high) : "-") + " " + check.condition + "\n";
    }
    return out;
}

}  // namespace

TEST_CASE("limits and conditions of the first half of the corpus") {
    const Score score = scoreOf("limits-first.txt");
    INFO(score.wrongs);
    CHECK(score.wrong == 0);
    CHECK(score.all() >= 150);
    CHECK(score.right >= score.all() * 95 / 100);
}

TEST_CASE("limits and conditions of the second half of the corpus") {
    const Score score = scoreOf("limits-second.txt");
    INFO(score.wrongs);
    CHECK(score.wrong == 0);
    CHECK(score.all() >= 150);
    CHECK(score.right >= score.all() * 90 / 100);
}
