#include "core/adjust/wand.h"

#include <algorithm>
#include <cctype>

#include "core/adjust/by_ear.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

constexpr const char* kNames[] = {"finger", "ferrite", "brass"};

/// Whether it brings the resonance down.
bool lowers(Wand wand) { return wand != Wand::brass; }

}  // namespace

std::optional<WandTest> readWand(std::string_view typed) {
    const std::string text = lowered(typed);
    const auto says = [&](std::string_view word) { return text.find(word) != std::string::npos; };
    std::optional<Wand> wand;
    for (int i = 0; i < 3; ++i) {
        if (!says(kNames[i])) continue;
        if (wand) return std::nullopt;
        wand = Wand(i);
    }
    if (!wand && says("iron")) wand = Wand::ferrite;
    const bool louder = says("louder") || says("more") || says("up");
    const bool softer = says("softer") || says("less") || says("quieter") || says("down");
    const bool same = says("same") || says("nothing");
    if (!wand || louder + softer + same != 1) return std::nullopt;
    return WandTest{*wand, louder ? 1 : softer ? -1 : 0};
}

std::string wandText(const WandTest& test) {
    return std::string(kNames[int(test.wand)]) + ": " + heardWord(test.louder);
}

std::optional<int> wandsSay(const std::vector<WandTest>& tests) {
    bool more = false, less = false, notMore = false, notLess = false;
    for (const WandTest& t : tests) {
        const bool down = lowers(t.wand);
        if (t.louder > 0) (down ? more : less) = true;
        if (t.louder < 0) (down ? notMore : notLess) = true;
    }
    if ((more && less) || (more && notMore) || (less && notLess)) return std::nullopt;
    if (more) return 1;
    if (less) return -1;
    if (notMore && notLess) return 0;
    return std::nullopt;
}

}  // namespace ombrek
