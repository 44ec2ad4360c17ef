#include "kit/stock.h"

#include <algorithm>
#include <cctype>

#include "core/parts/bag.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

bool addRange(const std::string& token, StockQuery& out) {
    const auto dots = token.find("..");
    if (dots == std::string::npos) return false;
    const auto high = partQuantity(token.substr(dots + (token.substr(dots).starts_with("...") ? 3 : 2)));
    const auto low = partQuantity(token.substr(0, dots));
    const auto plainLow = parseQuantity(token.substr(0, dots));
    if (!high) return false;
    if (low && low->value <= high->value) {
        out.ranges.push_back({low->value, high->value, high->unit != Unit::none ? high->unit : low->unit});
    } else if (plainLow && plainLow->unit == Unit::none) {  // "10..47n": the prefix is the second's
        const auto digits = token.find_first_not_of("0123456789.,", dots + 2);
        const auto scaled =
            partQuantity(token.substr(0, dots) + (digits == std::string::npos ? "" : token.substr(digits)));
        if (!scaled || scaled->value > high->value) return false;
        out.ranges.push_back({scaled->value, high->value, high->unit});
    } else {
        return false;
    }
    return true;
}

}  // namespace

std::optional<Quantity> partQuantity(std::string_view text) {
    auto out = parseQuantity(text);
    if (!out || !(out->value > 0)) return std::nullopt;
    const bool plain = text.find_first_not_of("0123456789.,") == std::string_view::npos;
    if (plain) return std::nullopt;
    if (out->unit == Unit::none) {
        if (text.find_first_of("pnuf") != std::string_view::npos || text.find("µ") != std::string_view::npos)
            out->unit = Unit::farad;
        if (text.find_first_of("kKMR") != std::string_view::npos) out->unit = Unit::ohm;
    }
    return *out;
}

int freeFor(const StockLine& line, const std::vector<Promise>& promises, std::int64_t build,
            const std::string& ref) {
    int out = line.count;
    for (const Promise& p : promises) {
        const bool own = p.build == build && p.ref == ref;
        if (p.stock == line.id && !own) out -= p.count;
    }
    return std::max(0, out);
}

std::vector<StockPart> freeStock(const std::vector<StockLine>& stock, const std::vector<Promise>& promises,
                                 std::int64_t build, const std::string& ref) {
    std::vector<StockPart> out;
    out.reserve(stock.size());
    for (const StockLine& line : stock) {
        out.push_back({std::to_string(line.id), line.kind, line.value,
                       line.tolerance > 0 ? line.tolerance : 20.0, line.volts, line.watts,
                       freeFor(line, promises, build, ref)});
    }
    return out;
}

std::string describe(const StockLine& line) {
    std::string out;
    const auto add = [&](const std::string& text) { out += (out.empty() ? "" : ", ") + text; };
    if (line.value > 0) {
        add(formatQuantity(line.value, line.unit, 4));
        if (line.tolerance > 0) out += " ±" + personNumber(line.tolerance) + "\u202f%";
    }
    if (line.volts > 0) add(formatQuantity(line.volts, Unit::volt, 3));
    if (line.watts > 0) add(formatQuantity(line.watts, Unit::watt, 3));
    if (!line.what.empty()) add(line.what);
    return out;
}

StockQuery readQuery(std::string_view text) {
    StockQuery out;
    std::size_t i = 0;
    while (i < text.size()) {
        while (i < text.size() && (text[i] == ' ' || text[i] == '\t')) ++i;
        const std::size_t start = i;
        while (i < text.size() && text[i] != ' ' && text[i] != '\t') ++i;
        std::string token(text.substr(start, i - start));
        if (token.empty() || token == ".." || addRange(token, out)) continue;
        if (token.size() > 1 && token.back() == 'v') token.back() = 'V';
        const auto value = partQuantity(token);
        if (value && value->unit == Unit::volt) {
            out.volts = value->value;
        } else if (value && value->unit == Unit::percent) {
            out.tolerance = value->value;
        } else if (value &&
                   (value->unit == Unit::ohm || value->unit == Unit::farad || value->unit == Unit::henry)) {
            out.ranges.push_back({value->value * (1 - 1e-6), value->value * (1 + 1e-6), value->unit});
        } else {
            out.words.push_back(lowered(token));
        }
    }
    return out;
}

StockSearch::StockSearch(const std::vector<StockLine>& stock) {
    numbers_.reserve(stock.size());
    words_.reserve(stock.size());
    for (const StockLine& line : stock) {
        numbers_.push_back({line.value, float(line.volts), float(line.tolerance), line.unit});
        words_.push_back(lowered(line.drawer) + " " + std::string(word(line.kind)) + " " +
                         lowered(line.what));
    }
}

std::vector<std::size_t> StockSearch::find(std::string_view text) const {
    const StockQuery query = readQuery(text);
    std::vector<std::size_t> out;
    for (std::size_t i = 0; i < numbers_.size(); ++i) {
        const Numbers& n = numbers_[i];
        const bool ranged = std::all_of(query.ranges.begin(), query.ranges.end(), [&](const auto& r) {
            return n.value >= r.low * (1 - 1e-9) && n.value <= r.high * (1 + 1e-9) &&
                   (r.unit == Unit::none || r.unit == n.unit);
        });
        if (!ranged || n.volts < query.volts) continue;
        if (query.tolerance > 0 && !(n.tolerance > 0 && n.tolerance <= query.tolerance * (1 + 1e-6)))
            continue;
        const bool worded = std::all_of(query.words.begin(), query.words.end(), [&](const std::string& word) {
            return words_[i].find(word) != std::string::npos;
        });
        if (worded) out.push_back(i);
    }
    return out;
}

}  // namespace ombrek
