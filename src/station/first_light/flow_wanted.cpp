#include "station/first_light/flow_wanted.h"

#include <algorithm>
#include <array>
#include <cctype>

namespace ombrek {
namespace {

/// What a text says of the current; a word of it counts whole.
Flow flowIn(const std::string& text) {
    static constexpr std::array<std::string_view, 5> alternating{"ac", "rf", "audio", "rms", "vac"};
    static constexpr std::array<std::string_view, 3> peaks{"vpp", "p-p", "peak-to-peak"};
    const auto has = [](const auto& words, const std::string& word) {
        return std::find(words.begin(), words.end(), word) != words.end();
    };
    Flow out = Flow::dc;
    std::string word;
    for (std::size_t i = 0; i <= text.size(); ++i) {
        const auto c =
            i < text.size() ? static_cast<unsigned char>(text[i]) : static_cast<unsigned char>(' ');
        if (std::isalnum(c) || c == '-') {
            word += char(std::tolower(c));
            continue;
        }
        if (has(peaks, word)) return Flow::peakToPeak;
        if (has(alternating, word)) out = Flow::ac;
        word.clear();
    }
    return text.find("peak to peak") != std::string::npos ? Flow::peakToPeak : out;
}

}  // namespace

Flow flowWanted(const Kit& kit, const Subject& subject, Unit unit) {
    if (unit != Unit::volt && unit != Unit::ampere) return Flow::either;
    if (subject.is(Subject::Kind::check)) {
        // Where to touch, an RF choke that feeds DC, tells nothing of it.
        const Check* check = kit.check(subject.id);
        return check == nullptr ? Flow::dc : flowIn(check->title);
    }
    if (subject.is(Subject::Kind::adjustment) && unit == Unit::volt) {
        const Adjustment* a = kit.adjustment(subject.id);
        return a == nullptr ? Flow::dc : flowIn(a->reads);
    }
    return Flow::dc;
}

}  // namespace ombrek
