#include <cmath>
#include <fstream>
#include <sstream>

#include "core/sums/relations.h"

using namespace ombrek;
using namespace ombrek::sums;

// What builders type on the sums line, in two halves: the second was written in another manner when the
// reader was done. The answers stand beside each sentence, reckoned apart from the definitions.

namespace {

std::vector<MagneticCore> coresOfCorpus() {
    MagneticCore a;
    a.designation = "T50-2";
    a.al = 4.9e-9;
    a.alTolerancePercent = 5;
    MagneticCore b = a;
    b.designation = "T37-6";
    b.al = 3.0e-9;
    return {a, b};
}

struct Score {
    int all = 0, right = 0, refused = 0;
    std::string wrong, open;
};

/// Whether the number is among the answers, to the figures that it was written with.
bool given(const std::vector<SumAnswer>& answers, double wanted, const std::string& unit) {
    for (const SumAnswer& answer : answers) {
        const bool same = unit == symbol(answer.unit) || (unit == "-" && answer.unit == Unit::none) ||
                          (unit == "ohm" && answer.unit == Unit::ohm) || unit == "*";
        if (same && std::fabs(answer.value - wanted) <= 1e-4 * std::max(std::fabs(wanted), 1e-18))
            return true;
    }
    return false;
}

Score scoreOf(const std::string& file) {
    std::ifstream in(std::string(OMBREK_TESTS) + "/core/" + file);
    REQUIRE(in);
    Score out;
    for (std::string line; std::getline(in, line);) {
        if (line.empty() || line[0] == '#') continue;
        const auto second = line.rfind(" | "), first = line.rfind(" | ", second - 1);
        const std::string sentence = line.substr(0, first),
                          number = line.substr(first + 3, second - first - 3);
        const std::string unit = line.substr(second + 3);
        ++out.all;
        const auto answers = answerSum(sentence, coresOfCorpus());
        if (number == "?") {
            out.right += !answers;
            if (answers)
                out.wrong +=
                    sentence + " -> " + answers->front().meaning + " " + answers->front().text + "\n";
        } else if (!answers) {
            ++out.refused;
            out.open += sentence + ": " + answers.error().sentence + "\n";
        } else if (given(*answers, std::stod(number), unit)) {
            ++out.right;
        } else {
            out.wrong += sentence + " -> ";
            for (const SumAnswer& a : *answers) out.wrong += a.meaning + " " + a.text + "; ";
            out.wrong += "\n";
        }
    }
    return out;
}

}  // namespace

TEST_CASE("sums as builders type them are answered, and none wrongly") {
    const auto file = GENERATE("sums-first.txt", "sums-second.txt");
    const Score score = scoreOf(file);
    INFO(file << ": " << score.right << " of " << score.all << " right, " << score.refused
              << " refused\nwrong:\n"
              << score.wrong << "refused:\n"
              << score.open);
    CHECK(score.all >= 75);
    CHECK(score.right >= 0.95 * score.all);
    CHECK(score.wrong.empty());
}

TEST_CASE("every relation answers its own example") {
    for (const Relation& row : relations()) {
        const std::string example = row.example, question = example.substr(0, example.rfind(" = "));
        std::string wanted = example.substr(example.rfind(" = ") + 3);
        INFO(example);
        const auto answers = answerSum(question, coresOfCorpus());
        REQUIRE(answers);
        std::string all;
        bool found = false;
        for (const SumAnswer& answer : *answers) {
            std::string text = answer.text;
            for (auto at = text.find("\u202f"); at != std::string::npos; at = text.find("\u202f"))
                text.replace(at, 3, " ");
            all += text + "; ";
            found = found || text == wanted;
        }
        INFO(all);
        CHECK(found);
    }
}
