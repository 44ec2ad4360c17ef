#include "lists/voltage_words.h"

#include <algorithm>
#include <unordered_set>

#include "core/text/letters.h"
#include "lists/amount.h"
#include "lists/kind_evidence.h"
#include "lists/token.h"

namespace ombrek {
bool isPinWord(std::string_view low) {
    static const std::unordered_set<std::string_view> words{
        "pin",       "pins",      "stift",  "broche",    "patilla", "pata",  "pad",     "point",
        "tp",        "hole",      "punkt",  "anschluss", "step",    "no.",   "nr.",     "piedino",
        "page",      "chapter",   "figure", "fig",       "fig.",    "table", "section", "error",
        "version",   "rev",       "rev.",   "revision",  "issue",   "seite", "kapitel", "abb.",
        "abbildung", "tabelle",   "bild",   "chapitre",  "figura",  "tabla", "tableau", "p\u00e1gina",
        "pagina",    "hoofdstuk", "code",   "message",   "line",    "menu",  "part"};
    return words.contains(low);
}

std::vector<Number> numbersOf(const std::string& text) {
    std::vector<Number> out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const bool sign =
            (text[i] == '-' || text[i] == '+') && i + 1 < text.size() && isDigit(text[i + 1]) &&
            (i == 0 || text[i - 1] == ' ' || text[i - 1] == '(' || text[i - 1] == ':' || text[i - 1] == '\t');
        const bool starts =
            isDigit(text[i]) || sign ||
            (text[i] == '.' && i + 1 < text.size() && isDigit(text[i + 1]) && (i == 0 || text[i - 1] == ' '));
        if (!starts) continue;
        std::size_t end = i + (sign ? 1 : 0);
        while (end < text.size() && (isDigit(text[end]) || ((text[end] == '.' || text[end] == ',') &&
                                                            end + 1 < text.size() && isDigit(text[end + 1]))))
            ++end;
        // Part of a name: "IC3", "U2-1", "2N3904".
        const bool plusMinus = i > 1 && text.compare(i - 2, 2, "\u00b1") == 0;
        const bool inName = i > 0 && !plusMinus && (isWordLetter(text[i - 1]) || text[i - 1] == '_');
        // "U2-1" is a pin, "4.9-5.1" a range.
        const bool range = !out.empty() && i > 0 && out.back().end + 1 == i && text[i - 1] == '-';
        const bool pinned =
            !range && i > 1 && text[i - 1] == '-' && (isDigit(text[i - 2]) || isWordLetter(text[i - 2]));
        std::size_t before = i;
        while (before > 0 && text[before - 1] == ' ') --before;
        std::size_t word = before;
        while (word > 0 && text[word - 1] != ' ' && text[word - 1] != '(') --word;
        const bool pin = isPinWord(lowerText(text.substr(word, before - word)));
        Number number;
        number.begin = i;
        std::string digits = text.substr(i, end - i);
        if (digits.starts_with('+')) digits.erase(0, 1);
        const bool negative = digits.starts_with('-');
        Manner manner;
        manner.comma = Manner::Comma::decimal;
        const auto value = readAmount(negative ? digits.substr(1) : digits, Unit::none, manner);
        std::size_t unit = end;
        while (unit < text.size() && text[unit] == ' ') ++unit;
        for (const VoltageUnit& u : kUnits) {
            if (number.unit || unit >= text.size() || text[unit] != u.text[0]) continue;
            if (!std::string_view(text).substr(unit).starts_with(u.text)) continue;
            const std::size_t after = unit + u.text.size();
            if (after < text.size() && (isWordLetter(text[after]) || isDigit(text[after]))) continue;
            // "5 A" apart may be a name; a prefix alone must be close to its number.
            if (u.text.size() == 1 && unit > end && (u.text == "k" || u.text == "M" || u.text == "R"))
                continue;
            number.unit = u.unit;
            number.value = (value ? value->value : 0) * u.scale;
            number.end = after;
        }
        if (!number.unit) {
            number.value = value ? value->value : 0;
            number.end = end;
            number.percent = unit < text.size() && text[unit] == '%';
            if (number.percent) number.end = unit + 1;
            // "5.0Vdc" is met; "3rd" and "10x" are words.
            if (end < text.size() && isWordLetter(text[end])) {
                i = end;
                continue;
            }
        }
        if (negative) number.value = -number.value;
        const bool named = inName || pinned || (pin && !number.unit);
        if (value && !named) out.push_back(number);
        i = std::max(end, number.end) - 1;
    }
    return out;
}

std::string tidy(std::string_view text) {
    std::string out;
    for (const char c : text) {
        if (c == '\t') {
            out += ' ';
        } else if (!(c == ' ' && out.ends_with(' '))) {
            out += c;
        }
    }
    const std::string stray = " .,;:=-|()[]";
    while (!out.empty() && stray.find(out.back()) != std::string::npos) {
        // A bracket that belongs to a name stays.
        if (out.back() == ')' && out.find('(') != std::string::npos) break;
        out.pop_back();
    }
    while (!out.empty() && std::string(" .,;:=|)").find(out.front()) != std::string::npos) out.erase(0, 1);
    return out;
}

/// "Test 3:", "4.", "b)" before what is to be measured.
std::string_view withoutNumbering(std::string_view body) {
    static constexpr std::string_view words[] = {"test",    "check",        "step",    "measurement",
                                                 "messung", "pr\u00fcfung", "schritt", "essai",
                                                 "mesure",  "prueba",       "medida"};
    const std::string low = lowerText(body);
    std::size_t at = 0;
    for (const std::string_view word : words) {
        if (low.starts_with(word) && low.size() > word.size() && low[word.size()] == ' ')
            at = word.size() + 1;
    }
    std::size_t end = at;
    while (end < body.size() && isDigit(body[end])) ++end;
    const std::size_t figures = end - at;
    if (figures == 0 || figures > 3 || end >= body.size()) return body;
    if (end < body.size() && body[end] >= 'a' && body[end] <= 'z' && end + 1 < body.size() &&
        !isWordLetter(body[end + 1]))
        ++end;
    const char mark = end < body.size() ? body[end] : ' ';
    // "5. 0 V" is no number of a row; "3) …", "3: …" and "3. The …" are.
    const bool counted =
        mark == ')' || mark == ':' || (mark == '.' && end + 1 < body.size() && body[end + 1] == ' ');
    const std::string_view rest = trimmed(body.substr(std::min(end + 1, body.size())));
    if (!counted || rest.empty() || (at == 0 && !isWordLetter(rest.front()) && rest.front() != '+'))
        return body;
    return rest;
}

/// "… TP1 and ground. It should be over 1 k": one sentence.
std::string oneSentence(std::string_view body) {
    std::string out(body);
    for (const std::string_view it :
         {". It should", ". This should", ". It must", ". You should read", ". Expect"}) {
        const auto at = out.find(it);
        if (at == std::string::npos) continue;
        const std::size_t verb = out.find("should", at) == at + it.size() - 6 ? at + it.size() - 6 : at + 2;
        out.replace(at, verb - at, " ");
    }
    return out;
}

}  // namespace ombrek
