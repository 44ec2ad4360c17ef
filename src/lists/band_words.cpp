#include "lists/band_words.h"

#include <algorithm>
#include <array>

#include "core/text/letters.h"
#include "lists/coil_words.h"
#include "lists/columns.h"
#include "lists/designators.h"
#include "lists/kind_evidence.h"
#include "lists/token.h"

namespace ombrek {
namespace {

/// The bands that are named by a wavelength; shorter ones are lengths of wire as well.
constexpr std::array<int, 12> kBands{160, 80, 75, 60, 40, 30, 20, 17, 15, 12, 11, 10};
constexpr std::array<std::string_view, 9> kLeads{"on ",  "for ",  "at ", "auf ", "f\u00fcr ",
                                                 "bei ", "pour ", "en ", "para "};

struct Tag {
    std::string name;
    std::size_t begin = 0, end = 0;  ///< with its bracket, colon or lead
};

/// A band in a piece, with what joins it to its value; a bare length is none.
std::optional<Tag> tagIn(std::string_view piece) {
    const std::string low = lowerText(piece);
    for (std::size_t i = 0; i < low.size(); ++i) {
        if (!isDigit(low[i]) || (i > 0 && (isDigit(low[i - 1]) || low[i - 1] == '.' || low[i - 1] == ',')))
            continue;
        std::size_t end = i;
        while (end < low.size() && isDigit(low[end])) ++end;
        if (end - i > 3) continue;
        const int metres = std::stoi(low.substr(i, end - i));
        if (std::find(kBands.begin(), kBands.end(), metres) == kBands.end()) continue;
        if (end < low.size() && low[end] == ' ') ++end;
        if (end >= low.size() || low[end] != 'm' ||
            (end + 1 < low.size() && ((low[end + 1] >= 'a' && low[end + 1] <= 'z') || isDigit(low[end + 1]))))
            continue;
        ++end;
        Tag tag{std::to_string(metres) + " m", i, end};
        const auto after = low.find_first_not_of(' ', end);
        const auto before = i == 0 ? std::string::npos : low.find_last_not_of(' ', i - 1);
        if (before != std::string::npos && low[before] == '(' && after != std::string::npos &&
            low[after] == ')') {
            tag.begin = before, tag.end = after + 1;
            return tag;
        }
        if (after != std::string::npos && (low[after] == ':' || low[after] == '=')) {
            tag.end = after + 1;
            return tag;
        }
        for (const std::string_view lead : kLeads) {
            if (i >= lead.size() && low.compare(i - lead.size(), lead.size(), lead) == 0) {
                tag.begin = i - lead.size();
                return tag;
            }
        }
    }
    return std::nullopt;
}

/// Cells of a line, by whatever parts them.
CsvRow cellsOf(const std::string& line) {
    CsvRow out;
    for (const char mark : {'\t', '|', ';'}) {
        if (line.find(mark) == std::string::npos) continue;
        std::string cell;
        for (const char c : line + mark) {
            if (c != mark) {
                cell += c;
            } else {
                out.emplace_back(trimmed(cell));
                cell.clear();
            }
        }
        while (!out.empty() && out.back().empty()) out.pop_back();
        if (mark == '|' && !out.empty() && out.front().empty()) out.erase(out.begin());
        return out;
    }
    for (const Piece& piece : piecesOf(line))
        out.push_back(line.substr(piece.begin, piece.end - piece.begin));
    return out;
}

bool isRule(const CsvRow& cells) {
    return std::all_of(cells.begin(), cells.end(), [](const std::string& cell) {
        return cell.find_first_not_of("-=+:_ ") == std::string::npos;
    });
}

/// "Band  C1  C2  L1": a word, and designators alone.
bool heads(const CsvRow& cells) {
    return cells.size() >= 3 && !readDesignator(cells.front()) && !isVariantWord(cells.front()) &&
           std::all_of(cells.begin() + 1, cells.end(),
                       [](const std::string& cell) { return readDesignator(cell).has_value(); });
}

}  // namespace

std::vector<SaidFor> saidForBands(std::string_view words) {
    std::vector<SaidFor> out;
    for (std::size_t from = 0; from < words.size();) {
        std::size_t end = std::min(words.find_first_of(",;", from), words.size());
        while (end + 1 < words.size() && words[end] == ',' && isDigit(words[end + 1]))
            end = std::min(words.find_first_of(",;", end + 1), words.size());
        const std::string_view piece = trimmed(words.substr(from, end - from));
        from = end + 1;
        if (piece.empty()) continue;
        if (const auto tag = tagIn(piece)) {
            const std::string text = std::string(trimmed(piece.substr(0, tag->begin))) + " " +
                                     std::string(trimmed(piece.substr(tag->end)));
            out.push_back({tag->name, std::string(trimmed(text))});
        } else if (out.empty()) {
            return {};
        } else {
            out.back().text += ", " + std::string(piece);
        }
    }
    const bool distinct =
        out.size() >= 2 && std::all_of(out.begin(), out.end(), [&](const SaidFor& s) {
            return !s.text.empty() && std::count_if(out.begin(), out.end(), [&](const SaidFor& other) {
                                          return other.variant == s.variant;
                                      }) == 1;
        });
    if (!distinct) return {};
    const std::string last = lowerText(out.back().text);
    for (const std::string_view on : {" on ", " auf ", " sur ", " en "}) {
        const auto at = last.find(on);
        if (at == std::string::npos) continue;
        const std::string shared = out.back().text.substr(at);
        for (std::size_t i = 0; i + 1 < out.size(); ++i) {
            if (lowerText(out[i].text).find(on) == std::string::npos) out[i].text += shared;
        }
        break;
    }
    return out;
}

std::optional<BandTable> bandTableIn(const std::string& text) {
    std::vector<std::string> lines;
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t end = std::min(text.find('\n', from), text.size());
        lines.push_back(text.substr(from, end - from));
        if (!lines.back().empty() && lines.back().back() == '\r') lines.back().pop_back();
        from = end + 1;
    }
    for (std::size_t h = 0; h < lines.size(); ++h) {
        if (lines[h].size() > 400) continue;
        const CsvRow header = cellsOf(lines[h]);
        if (!heads(header)) continue;
        std::vector<CsvRow> bands;
        std::size_t end = h + 1;
        for (; end < lines.size(); ++end) {
            const CsvRow cells = cellsOf(lines[end]);
            if (cells.empty() || isRule(cells)) continue;
            if (!isVariantWord(cells.front()) || cells.size() != header.size()) break;
            bands.push_back(cells);
        }
        if (bands.size() < 2) continue;
        BandTable out;
        CsvRow names{"Ref"};
        for (const CsvRow& band : bands) names.push_back(band.front());
        out.table.rows.push_back(names);
        out.table.lines.push_back(h + 1);
        for (std::size_t c = 1; c < header.size(); ++c) {
            CsvRow row{header[c]};
            for (const CsvRow& band : bands) row.push_back(band[c]);
            out.table.rows.push_back(std::move(row));
            out.table.lines.push_back(h + 1);
        }
        for (std::size_t i = 0; i < lines.size(); ++i) out.rest += (i >= h && i < end ? "" : lines[i]) + "\n";
        return out;
    }
    return std::nullopt;
}

}  // namespace ombrek
