#include "instruments/scpi.h"

#include <array>
#include <cctype>
#include <charconv>
#include <cmath>
#include <limits>

#include "core/quantity/shown.h"

namespace ombrek {
namespace {

char upper(char c) { return static_cast<char>(std::toupper(static_cast<unsigned char>(c))); }

bool equalsIgnoringCase(std::string_view a, std::string_view b) {
    if (a.size() != b.size()) return false;
    for (std::size_t i = 0; i < a.size(); ++i) {
        if (upper(a[i]) != upper(b[i])) return false;
    }
    return true;
}

std::string_view shortForm(std::string_view node) {
    std::size_t n = 0;
    while (n < node.size() && !std::islower(static_cast<unsigned char>(node[n]))) ++n;
    return node.substr(0, n);
}

struct Query {
    Unit unit;
    const char* text;
};
constexpr std::array<Query, 7> kQueries{{{Unit::volt, "MEAS:VOLT?"},
                                         {Unit::ampere, "MEAS:CURR?"},
                                         {Unit::ohm, "MEAS:RES?"},
                                         {Unit::farad, "MEAS:CAP?"},
                                         {Unit::henry, "MEAS:IND?"},
                                         {Unit::hertz, "MEAS:FREQ?"},
                                         {Unit::dbm, "MEAS:POW?"}}};

}  // namespace

bool headerMatches(std::string_view pattern, std::string_view header) {
    if (header.starts_with(':')) header.remove_prefix(1);
    const bool query = pattern.ends_with('?');
    if (query != header.ends_with('?')) return false;
    if (query) {
        pattern.remove_suffix(1);
        header.remove_suffix(1);
    }
    while (true) {
        const auto p = pattern.find(':'), h = header.find(':');
        const auto node = pattern.substr(0, p), word = header.substr(0, h);
        if (!equalsIgnoringCase(node, word) && !equalsIgnoringCase(shortForm(node), word)) return false;
        if ((p == std::string_view::npos) != (h == std::string_view::npos)) return false;
        if (p == std::string_view::npos) return true;
        pattern.remove_prefix(p + 1);
        header.remove_prefix(h + 1);
    }
}

std::string measureQuery(Unit unit) {
    for (const Query& query : kQueries) {
        if (query.unit == unit) return query.text;
    }
    if (unit == Unit::decibel) return "MEAS:POW:HARM?";
    return "";
}

Result<double> readReply(std::string_view line) {
    while (!line.empty() && std::isspace(static_cast<unsigned char>(line.back()))) line.remove_suffix(1);
    while (!line.empty() && std::isspace(static_cast<unsigned char>(line.front()))) line.remove_prefix(1);
    std::string_view digits = line;
    if (digits.starts_with('+')) digits.remove_prefix(1);
    double value = 0.0;
    const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
    if (digits.empty() || error != std::errc{} || end != digits.data() + digits.size() ||
        !std::isfinite(value)) {
        std::string shown;
        for (const char c : line.substr(0, 24)) shown += c >= ' ' && c < 127 ? c : '.';
        return problem("", "the instrument answered \"" + shown + "\", which is no number.");
    }
    constexpr double kNothing = 9.91e37, kMost = 1e30, kSame = 1e33;
    if (std::fabs(value - kOverload) < kSame) return std::numeric_limits<double>::infinity();
    if (std::fabs(value + kOverload) < kSame) return problem("", "overload: the reading is below its range.");
    if (std::fabs(value - kNothing) < kSame)
        return problem("", "the instrument finds nothing to measure; are the clips on it?");
    if (std::fabs(value) > kMost)
        return problem(
            "", "the instrument answered " + plainNumber(value) + ", which is no reading of anything.");
    return value;
}

std::vector<std::string> scpiWords(std::string_view line) {
    std::vector<std::string> out;
    std::string word;
    bool quoted = false, any = false;
    for (const char c : line) {
        if (c == '"' || c == '\'') {
            quoted = !quoted;
            any = true;
        } else if (!quoted && (c == ',' || std::isspace(static_cast<unsigned char>(c)))) {
            if (any) out.push_back(word);
            word.clear();
            any = false;
        } else {
            word.push_back(c);
            any = true;
        }
    }
    if (any) out.push_back(word);
    return out;
}

}  // namespace ombrek
