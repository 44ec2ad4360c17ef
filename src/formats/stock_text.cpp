#include "formats/stock_text.h"

#include <algorithm>
#include <cctype>

namespace ombrek {
namespace {

constexpr int kMostOfALine = 1000000;

std::vector<std::string> wordsOf(std::string_view text) {
    std::vector<std::string> out;
    std::string word;
    for (const char c : text) {
        if (c == ' ' || c == '\t') {
            if (!word.empty()) out.push_back(std::exchange(word, ""));
        } else {
            word.push_back(c);
        }
    }
    if (!word.empty()) out.push_back(word);
    return out;
}

/// "x4"; nothing for any other word.
std::optional<int> countOf(const std::string& word) {
    if (word.size() < 2 || word.size() > 8 || (word[0] != 'x' && word[0] != 'X')) return std::nullopt;
    if (word.find_first_not_of("0123456789", 1) != std::string::npos) return std::nullopt;
    return std::stoi(word.substr(1));
}

bool takeQuantity(const std::string& word, StockLine& out) {
    if (!std::isdigit(static_cast<unsigned char>(word[0])) && word[0] != 'R' && word[0] != 'p' &&
        word[0] != 'n')
        return false;
    const StockQuery query = readQuery(word);
    if (query.volts > 0) {
        out.volts = query.volts;
        return true;
    }
    if (query.tolerance > 0) {
        out.tolerance = query.tolerance;
        return true;
    }
    const auto value = parseQuantity(word);
    if (value && value->unit == Unit::watt) {
        out.watts = value->value;
        return true;
    }
    if (query.ranges.empty() || out.value > 0) return false;
    out.unit = query.ranges.front().unit;
    out.value = value ? value->value : query.ranges.front().low;
    return true;
}

PartKind kindOfUnit(Unit unit) {
    return unit == Unit::ohm     ? PartKind::resistor
           : unit == Unit::farad ? PartKind::capacitor
           : unit == Unit::henry ? PartKind::inductor
                                 : PartKind::other;
}

}  // namespace

Result<StockLine> readStockText(std::string_view text) {
    const auto words = wordsOf(text);
    if (words.size() < 2)
        return problem("stock", "Type the drawer, then the part and how many: B3 22n 5% 100V film x4.");
    StockLine out;
    out.drawer = words.front();
    out.count = 1;
    bool kindSaid = false;
    for (std::size_t i = 1; i < words.size(); ++i) {
        const std::string& word = words[i];
        if (const auto count = countOf(word)) {
            if (*count > kMostOfALine) return problem("count", "So many do not fit in a drawer.");
            out.count = *count;
        } else if (const auto kind = partKind(word); kind && !kindSaid) {
            out.kind = *kind;
            kindSaid = true;
        } else if (!takeQuantity(word, out)) {
            out.what += (out.what.empty() ? "" : " ") + word;
        }
    }
    if (!kindSaid) out.kind = kindOfUnit(out.unit);
    if (out.value <= 0 && out.what.empty())
        return problem("stock", "There is no part on this line: give a value or a name after the drawer.");
    return out;
}

std::string stockText(const StockLine& line) {
    std::string out = line.drawer;
    if (line.value <= 0 || kindOfUnit(line.unit) != line.kind) out += " " + std::string(word(line.kind));
    const auto plain = [](double value, Unit unit) {  // "4.7 kΩ" without its thin space is one word
        std::string text = formatQuantity(value, unit, 6);
        for (std::size_t at; (at = text.find("\u202f")) != std::string::npos;) text.erase(at, 3);
        return text;
    };
    if (line.value > 0) out += " " + plain(line.value, line.unit);
    if (line.tolerance > 0) out += " " + plainNumber(line.tolerance) + "%";
    if (line.volts > 0) out += " " + plain(line.volts, Unit::volt);
    if (line.watts > 0) out += " " + plain(line.watts, Unit::watt);
    if (!line.what.empty()) out += " " + line.what;
    return out + " x" + std::to_string(line.count);
}

}  // namespace ombrek
