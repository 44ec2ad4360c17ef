#include "lists/given_kind.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <sstream>

#include "core/text/enumerators.h"
#include "formats/stock_csv.h"
#include "lists/coil_words.h"
#include "lists/instructions.h"
#include "lists/kind_evidence.h"
#include "lists/packing_list.h"
#include "lists/parts_list.h"
#include "lists/placement.h"
#include "lists/voltage_table.h"

namespace ombrek {
namespace {

using std::string_view_literals::operator""sv;

/// What a file begins with, whatever its name.
struct Magic {
    std::string_view bytes;
    GivenKind kind;
};
constexpr std::array kMagic{Magic{"SQLite format 3\0"sv, GivenKind::book},
                            Magic{"\x89PNG\r\n"sv, GivenKind::picture},
                            Magic{"\xFF\xD8\xFF"sv, GivenKind::picture},
                            Magic{"PK\x03\x04"sv, GivenKind::archive}, Magic{"%PDF"sv, GivenKind::pdf}};

std::vector<std::string> linesIn(const std::string& text) {
    std::vector<std::string> out;
    std::istringstream in(text);
    for (std::string line; std::getline(in, line);) {
        if (line.find_first_not_of(" \t\r") != std::string::npos) out.push_back(line);
    }
    return out;
}

/// The option line of a Touchstone file (version 1.1 and 2.0): "# MHz S RI R 50".
bool isTouchstone(const std::vector<std::string>& lines, std::string_view name) {
    const std::string lower = lowerText(name);
    const bool named = lower.size() > 4 && lower[lower.size() - 4] == '.' && lower[lower.size() - 3] == 's' &&
                       lower.back() == 'p' &&
                       std::isdigit(static_cast<unsigned char>(lower[lower.size() - 2]));
    return std::any_of(lines.begin(), lines.end(), [&](const std::string& line) {
        if (line.front() != '#') return false;
        std::istringstream words(lowerText(std::string_view(line).substr(1)));
        bool unit = false, parameter = false;
        for (std::string word; words >> word;) {
            unit = unit || word == "hz" || word == "khz" || word == "mhz" || word == "ghz";
            parameter = parameter || word == "s" || word == "y" || word == "z";
        }
        return (unit && parameter) || (named && (unit || parameter));
    });
}

/// ADIF: fields as <CALL:6>, or its XML. Half of UTF-16 is read as it lies.
bool isLog(const std::string& head) {
    std::string text = lowerText(toUtf8(head));
    return text.find("<call:") != std::string::npos || text.find("<adx>") != std::string::npos ||
           (text.find("<eoh>") != std::string::npos && text.find("<adif_ver") != std::string::npos);
}

/// Numbered sentences that fit something, forbid or name a tool.
std::size_t instructionsIn(const std::string& text) {
    const auto steps = readInstructions(text);
    return std::size_t(std::count_if(steps.begin(), steps.end(), [](const PastedStep& s) {
        const auto words = std::count(s.text.begin(), s.text.end(), ' ');
        return !s.number.empty() && words >= 3 && (!s.fits.empty() || !s.holds.empty() || !s.tools.empty());
    }));
}

std::size_t checksIn(const std::string& text) {
    const auto table = readVoltageTable(text);
    return std::size_t(std::count_if(table.checks.begin(), table.checks.end(),
                                     [](const PastedCheck& c) { return c.measured() && c.doubts.empty(); }));
}

std::size_t coilsIn(const std::vector<std::string>& lines) {
    return std::size_t(std::count_if(lines.begin(), lines.end(), [](const std::string& line) {
        const auto coil = readCoilWords(line);
        return coil && !coil->core.empty() && !coil->windings.empty();
    }));
}

std::size_t placedIn(const std::string& text) {
    const auto placement = readPlacement(text);
    return placement ? placement->parts.size() : 0;
}

GivenKind textKind(const std::string& text, std::string_view name) {
    const auto lines = linesIn(text);
    if (lines.empty()) return GivenKind::unknown;
    if (isLog(text)) return GivenKind::log;
    if (isTouchstone(lines, name)) return GivenKind::touchstone;
    const std::string first = lowerText(lines.front());
    if (first.find("drawer") != std::string::npos && readStock(text)) return GivenKind::stock;
    if (readPackingList(text)) return GivenKind::packingList;
    const auto most = [&](std::size_t rows) { return 5 * rows >= 3 * lines.size(); };
    const auto list = readPartsList(text);
    const std::size_t parts = list ? list->list.lines.size() : 0;
    if (most(coilsIn(lines))) return GivenKind::coils;
    if (instructionsIn(text) >= std::max<std::size_t>(2, lines.size() / 3)) return GivenKind::steps;
    if (most(placedIn(text))) return GivenKind::placement;
    const std::size_t checks = checksIn(text);
    if (checks >= 2 && checks > parts) return GivenKind::voltages;
    return 4 * parts >= lines.size() && parts > 0 ? GivenKind::partsList : GivenKind::unknown;
}

}  // namespace

GivenKind givenKind(const std::string& head, std::string_view name) {
    for (const Magic& magic : kMagic) {
        if (std::string_view(head).substr(0, magic.bytes.size()) == magic.bytes) return magic.kind;
    }
    const std::size_t begin = head.find_first_not_of(" \t\r\n\xEF\xBB\xBF");
    if (begin == std::string::npos) return GivenKind::unknown;
    if (head[begin] == '{') {
        if (head.find("\"ombrek-upgrade\"") != std::string::npos) return GivenKind::upgrade;
        return head.find("\"ombrek-kit\"") == std::string::npos ? GivenKind::unknown : GivenKind::kit;
    }
    const bool wide = head.substr(0, 2) == "\xFF\xFE" || head.substr(0, 2) == "\xFE\xFF";
    if (!wide && head.find('\0') != std::string::npos) return GivenKind::unknown;
    return textKind(head, name);
}

std::string_view word(GivenKind kind) {
    static constexpr std::array words{"something unknown",
                                      "a book",
                                      "a kit",
                                      "an upgrade",
                                      "a picture",
                                      "a Touchstone file",
                                      "a station's log",
                                      "a placement table",
                                      "a packing list",
                                      "a table of drawers",
                                      "a parts list",
                                      "a table of checks",
                                      "instructions",
                                      "coils to wind",
                                      "an archive",
                                      "a PDF"};
    static_assert(words.size() == enumerators<GivenKind>());
    return words[static_cast<std::size_t>(kind)];
}

}  // namespace ombrek
