#include "core/air/receive_comparison.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/quantity.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

struct EarWord {
    std::string_view word;
    HeardDifference heard;
};
constexpr EarWord kEar[] = {{"not heard", {-15, 5}}, {"much weaker", {-12, 4}}, {"much stronger", {12, 4}},
                            {"weaker", {-6, 3}},     {"stronger", {6, 3}},      {"equal", {0, 2}},
                            {"same", {0, 2}},        {"the same", {0, 2}}};

/// The numbers of a text and what stands before each.
std::vector<std::pair<char, double>> numbersIn(std::string text) {
    std::replace(text.begin(), text.end(), ',', '.');
    std::vector<std::pair<char, double>> out;
    for (std::size_t at = 0; at < text.size();) {
        const bool sign = (text[at] == '-' || text[at] == '+') && at + 1 < text.size() &&
                          std::isdigit(static_cast<unsigned char>(text[at + 1])) != 0;
        if (!sign && std::isdigit(static_cast<unsigned char>(text[at])) == 0) {
            ++at;
            continue;
        }
        std::size_t used = 0;
        std::size_t end = at + 1;
        while (end < text.size() &&
               (std::isdigit(static_cast<unsigned char>(text[end])) != 0 || text[end] == '.'))
            ++end;
        const auto read = parseQuantity(text.substr(at, end - at));
        used = end - at;
        out.emplace_back(at > 0 ? text[at - 1] : ' ', read ? read->value : NAN);
        at += used;
    }
    return out;
}

}  // namespace

std::optional<HeardDifference> readComparison(std::string_view said) {
    constexpr double kSUnit = 6, kMeter = 3, kLevel = 1.5;
    constexpr double kMost = 80;
    const std::string text = lowered(trimmed(said));
    for (const EarWord& e : kEar) {
        if (text == e.word) return e.heard;
    }
    const auto numbers = numbersIn(text);
    std::optional<HeardDifference> out;
    if (numbers.size() == 2 && numbers[0].first == 's' && numbers[1].first == 's') {
        if (numbers[0].second <= 9 && numbers[1].second <= 9)
            out = HeardDifference{(numbers[0].second - numbers[1].second) * kSUnit, kMeter};
    } else if (numbers.size() == 2 && text.find("db") != std::string::npos) {
        out = HeardDifference{numbers[0].second - numbers[1].second, kLevel};
    } else if (numbers.size() == 1 && text.ends_with("db")) {
        out = HeardDifference{numbers[0].second, kLevel};
    }
    if (out && !(std::abs(out->decibels) <= kMost)) return std::nullopt;
    return out;
}

ReceiveVerdict judgeReceive(const std::vector<HeardDifference>& all) {
    constexpr std::size_t kLeast = 3;
    constexpr double kAlike = 3;
    ReceiveVerdict out;
    if (all.empty()) {
        out.sentence = "Nothing was compared yet.";
        return out;
    }
    const double n = double(all.size());
    double sum = 0, squares = 0, own = 0;
    for (const HeardDifference& h : all) sum += h.decibels, own += h.spread * h.spread;
    out.mean = sum / n;
    for (const HeardDifference& h : all) squares += std::pow(h.decibels - out.mean, 2);
    const double scatter = n > 1 ? squares / (n - 1) : 0;
    out.uncertainty = 2 * std::sqrt(std::max(scatter, own / n) / n);
    const std::string by = formatQuantity(std::abs(out.mean), Unit::decibel, 2) + " ± " +
                           formatQuantity(out.uncertainty, Unit::decibel, 2);
    if (all.size() < kLeast) {
        out.state = VerdictState::cannotTell;
        out.sentence = std::to_string(all.size()) + " of " + std::to_string(kLeast) +
                       " comparisons: signals come and go, take turns on several.";
        return out;
    }
    if (out.mean < -kAlike && -out.mean - out.uncertainty > 0) {
        out.state = -out.mean - out.uncertainty > kAlike ? VerdictState::fail : VerdictState::doubtful;
        out.sentence = "It hears " + by + " less than the other receiver.";
        out.remedy = -out.mean > 10
                         ? "So much is a stage that does not work or a band-pass beside its band: peak the "
                           "receive circuits again, then look at the antenna's way in."
                         : "Peak the receive circuits again on a weak signal; then compare noise with and "
                           "without the antenna: where it rises by less than 3 dB, gain is missing.";
    } else if (out.uncertainty > 2 * kAlike) {
        out.state = VerdictState::cannotTell;
        out.sentence = "The comparisons scatter by " + by + ": fading; take turns faster, on more signals.";
    } else {
        out.state = VerdictState::pass;
        out.sentence =
            out.mean > kAlike
                ? "It hears " + by + " more than the other receiver."
                : "It hears as well as the other receiver, within " +
                      formatQuantity(std::max(out.uncertainty, std::abs(out.mean)), Unit::decibel, 2) + ".";
    }
    return out;
}

}  // namespace ombrek
