#include "core/adjust/scale.h"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <optional>

#include "core/text/letters.h"

namespace ombrek {
namespace {

using Kind = ReadingScale::Kind;

constexpr double kMostOver = 60;  ///< decibels over S9 that a meter shows
constexpr int kBrightest = 5;

struct Word {
    const char* text;
    int rank;
};
constexpr Word kLights[] = {{"dark", 0}, {"out", 0},    {"faint", 1}, {"dim", 2},
                            {"half", 3}, {"bright", 4}, {"full", 5}};

/// The whole and broken numbers in a text, in their order; nothing when it holds anything else but marks.
std::optional<std::vector<double>> numbersIn(std::string_view text) {
    std::vector<double> out;
    for (std::size_t i = 0; i < text.size();) {
        const auto c = static_cast<unsigned char>(text[i]);
        if (std::isdigit(c)) {
            double value = 0;
            const auto read =
                std::from_chars(text.data() + i, text.data() + text.size(), value, std::chars_format::fixed);
            if (read.ec != std::errc{}) return std::nullopt;
            out.push_back(value);
            i = std::size_t(read.ptr - text.data());
        } else if (std::isspace(c) || c == ':' || c == '/' || c == '+' || c == ',') {
            ++i;
        } else {
            return std::nullopt;
        }
    }
    return out;
}

std::optional<double> lightRank(std::string_view text) {
    for (const Word& word : kLights) {
        if (text == word.text) return word.rank;
    }
    const auto numbers = numbersIn(text);
    if (!numbers || numbers->size() != 1 || numbers->front() > kBrightest) return std::nullopt;
    return numbers->front();
}

std::optional<double> sRank(std::string_view text) {
    if (text.starts_with('s')) text.remove_prefix(1);
    if (text.ends_with("db")) text.remove_suffix(2);
    const auto numbers = numbersIn(text);
    if (!numbers || numbers->empty() || numbers->size() > 2 || numbers->front() > 9) return std::nullopt;
    if (numbers->size() == 1) return numbers->front();
    if (numbers->front() != 9 || (*numbers)[1] > kMostOver) return std::nullopt;
    return 9 + (*numbers)[1] / 10;
}

std::optional<double> barRank(const ReadingScale& scale, std::string_view text) {
    const auto numbers = numbersIn(text);
    const bool ranged = scale.ranges > 1;
    if (!numbers || numbers->size() != (ranged ? 2 : 1)) return std::nullopt;
    const double range = ranged ? numbers->front() : 1, blocks = numbers->back();
    if (range < 1 || range > scale.ranges || range != std::floor(range) || blocks > scale.blocks)
        return std::nullopt;
    return (range - 1) * (scale.blocks + 1) + blocks;
}

double most(const ReadingScale& scale) {
    switch (scale.kind) {
        case Kind::sMeter:
            return 9 + kMostOver / 10;
        case Kind::bar:
            return scale.ranges * (scale.blocks + 1) - 1;
        case Kind::light:
            return kBrightest;
        case Kind::number:
            break;
    }
    return INFINITY;
}

}  // namespace

Result<ScaleMark> readMark(const ReadingScale& scale, std::string_view typed) {
    const std::string text = lowered(trimmed(typed));
    std::optional<double> rank;
    if (!text.empty() && scale.kind == Kind::sMeter) rank = sRank(text);
    if (!text.empty() && scale.kind == Kind::bar) rank = barRank(scale, text);
    if (!text.empty() && scale.kind == Kind::light) rank = lightRank(text);
    if (!rank) return problem("", "Type what it shows: " + markWords(scale) + ".");
    return ScaleMark{*rank, isFull(scale, *rank)};
}

std::string markText(const ReadingScale& scale, double rank) {
    if (scale.kind == Kind::sMeter)
        return rank <= 9 ? "S" + decimals(rank, rank == std::floor(rank) ? 0 : 1)
                         : "S9+" + decimals((rank - 9) * 10, 0);
    if (scale.kind == Kind::light)
        for (const Word& word : kLights) {
            if (word.rank == rank) return word.text;
        }
    if (scale.kind != Kind::bar) return decimals(rank, 0);
    const int range = int(rank) / (scale.blocks + 1), blocks = int(rank) % (scale.blocks + 1);
    const std::string bar = std::to_string(blocks) + " of " + std::to_string(scale.blocks);
    return scale.ranges > 1 ? "range " + std::to_string(range + 1) + ", " + bar : bar;
}

bool isFull(const ReadingScale& scale, double rank) { return rank >= most(scale); }

std::string markWords(const ReadingScale& scale) {
    switch (scale.kind) {
        case Kind::sMeter:
            return "7, or 9+20";
        case Kind::bar:
            return scale.ranges > 1 ? "the digit and the blocks, 2 5; " + std::to_string(scale.ranges) +
                                          " ranges of " + std::to_string(scale.blocks)
                                    : "its blocks, 0 to " + std::to_string(scale.blocks);
        case Kind::light:
            return "0 dark to 5 full";
        case Kind::number:
            break;
    }
    return "a number";
}

std::vector<HeardPoint> comparisons(const std::vector<MarkPoint>& marks) {
    std::vector<HeardPoint> out;
    for (std::size_t i = 1, best = 0; i < marks.size(); ++i) {
        const double rise = marks[i].rank - marks[best].rank;
        out.push_back({marks[best].position, marks[i].position, rise > 0 ? 1 : rise < 0 ? -1 : 0});
        if (rise > 0) best = i;
    }
    return out;
}

}  // namespace ombrek
