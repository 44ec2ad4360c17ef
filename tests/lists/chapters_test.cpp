#include <catch2/catch.hpp>
#include <fstream>
#include <set>
#include <sstream>

#include "lists/instructions.h"

using namespace ombrek;

// Chapters of instructions in 25 manners, written when the reader was done; every line is made up. A chapter
// begins with "#", and each ">" says which parts one of its steps fits, "-" none.

namespace {

struct Chapter {
    std::string name, text;
    std::vector<std::string> fits;
};

std::vector<Chapter> chapters() {
    std::ifstream in(std::string(OMBREK_LISTS) + "/chapters.txt");
    std::vector<Chapter> out;
    for (std::string line; std::getline(in, line);) {
        if (line.starts_with("# "))
            out.push_back({line.substr(2), "", {}});
        else if (line.starts_with("> "))
            out.back().fits.push_back(line == "> -" ? "" : line.substr(2));
        else
            out.back().text += line + "\n";
    }
    return out;
}

/// What a step fits beyond those before it, as the plan takes them.
std::string fitsOf(const PastedStep& step, std::set<std::string>& before) {
    std::string out;
    for (const std::string& ref : step.fits) {
        if (before.insert(ref).second) out += (out.empty() ? "" : " ") + ref;
    }
    return out;
}

}  // namespace

TEST_CASE("25 chapters: what each step fits is right or doubted, never silently wrong") {
    int all = 0, right = 0, doubted = 0;
    for (const Chapter& chapter : chapters()) {
        const auto steps = readInstructions(chapter.text);
        INFO(chapter.name);
        CHECK(steps.size() == chapter.fits.size());
        std::set<std::string> before;
        for (std::size_t i = 0; i < chapter.fits.size(); ++i) {
            ++all;
            const std::string fits = i < steps.size() ? fitsOf(steps[i], before) : "no step";
            if (fits == chapter.fits[i]) {
                ++right;
                continue;
            }
            const bool doubt = i < steps.size() && !steps[i].doubts.empty();
            doubted += doubt;
            INFO((i < steps.size() ? steps[i].text : "no step")
                 << ": \"" << fits << "\", wanted \"" << chapter.fits[i] << "\"");
            CHECK(doubt);
        }
    }
    INFO(right << " right and " << doubted << " doubted of " << all);
    CHECK(all >= 100);
    CHECK(right >= 0.95 * all);
}
