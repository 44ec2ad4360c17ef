#include "lists/joined_words.h"

#include <algorithm>
#include <vector>

#include "lists/kind_evidence.h"

namespace ombrek {
namespace {

bool digits(std::string_view text, std::size_t least, std::size_t most) {
    return text.size() >= least && text.size() <= most &&
           std::all_of(text.begin(), text.end(), [](char c) { return c >= '0' && c <= '9'; });
}

bool capitals(std::string_view text, std::size_t most) {
    return !text.empty() && text.size() <= most &&
           std::all_of(text.begin(), text.end(), [](char c) { return c >= 'A' && c <= 'Z'; });
}

/// Words with the blanks that follow each.
struct JoinedPart {
    std::string word, gap;
};

std::vector<JoinedPart> partsOf(std::string_view text) {
    std::vector<JoinedPart> out;
    for (std::size_t i = 0; i < text.size();) {
        const bool narrow = text.substr(i).starts_with("\u202f"), hard = text.substr(i).starts_with("\u00a0");
        if (text[i] == ' ' || narrow || hard) {
            if (out.empty()) out.push_back({});
            out.back().gap += ' ';
            i += narrow ? 3 : hard ? 2 : 1;
            continue;
        }
        if (out.empty() || !out.back().gap.empty()) out.push_back({});
        out.back().word += text[i++];
    }
    return out;
}

/// "4 700 pF": three digits behind one to three, before a unit or at the end.
bool thousands(const std::vector<JoinedPart>& parts, std::size_t i, bool cell) {
    if (i + 1 >= parts.size() || parts[i].gap.size() != 1) return false;
    const std::string& next = parts[i + 1].word;
    const std::string_view three = std::string_view(next).substr(0, 3);
    if (!digits(parts[i].word, 1, 3) || parts[i].word[0] == '0' || !digits(three, 3, 3)) return false;
    const bool unit = next.size() == 3 || !(next[3] >= '0' && next[3] <= '9');
    // Nothing is worth "000" by itself; "2 100 nF" may be two of 100 nF.
    return unit && next[3 < next.size() ? 3 : 0] != '.' && (three == "000" || (cell && i == 0));
}

/// "BC 550", "1N 4148": letters that begin a type, and its number.
bool type(const std::vector<JoinedPart>& parts, std::size_t i) {
    if (i + 1 >= parts.size() || parts[i].gap.size() != 1) return false;
    const std::string &head = parts[i].word, &number = parts[i + 1].word;
    const bool register1 = head == "1N" || head == "2N" || head == "3N" || head == "2SC" || head == "2SK";
    if (!register1 && (head.size() < 2 || !capitals(head, 3))) return false;
    const std::size_t end = number.find_first_not_of("0123456789");
    const std::string_view figures = std::string_view(number).substr(0, end),
                           tail = end == std::string::npos ? "" : std::string_view(number).substr(end);
    return digits(figures, 3, 4) && (tail.empty() || capitals(tail, 2)) && byType(head + number).has_value();
}

}  // namespace

std::string joinWords(std::string_view text, bool cell) {
    std::vector<JoinedPart> parts = partsOf(text);
    for (std::size_t i = 0; i + 1 < parts.size(); ++i) {
        const bool number = thousands(parts, i, cell), part = !number && type(parts, i);
        if (!number && !part) continue;
        parts[i].word += parts[i + 1].word;
        parts[i].gap = parts[i + 1].gap;
        parts.erase(parts.begin() + std::ptrdiff_t(i) + 1);
        // "BC 550 C": its gain group.
        if (part && i + 1 < parts.size() && parts[i].gap.size() == 1 && capitals(parts[i + 1].word, 1) &&
            parts[i].word.back() >= '0' && parts[i].word.back() <= '9') {
            parts[i].word += parts[i + 1].word;
            parts[i].gap = parts[i + 1].gap;
            parts.erase(parts.begin() + std::ptrdiff_t(i) + 1);
        }
    }
    std::string out;
    for (const JoinedPart& part : parts) out += part.word + part.gap;
    return out;
}

}  // namespace ombrek
