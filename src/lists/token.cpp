#include "lists/token.h"

#include <algorithm>

#include "core/text/letters.h"
#include "lists/kind_evidence.h"

namespace ombrek {
namespace {

bool hasLetter(std::string_view text) { return std::any_of(text.begin(), text.end(), isWordLetter); }

bool isRating(std::string_view text) {
    for (const Unit unit : {Unit::volt, Unit::watt, Unit::percent, Unit::ampere}) {
        const auto amount = readAmount(text, unit);
        if (amount && amount->said == Amount::Said::unit) return true;
    }
    return false;
}

bool isDielectric(std::string_view text) {
    return byWord(text)[PartKind::capacitor] > 0 || byPackage(text).has_value() || notFittedIn(text);
}

/// Where a word is to be parted: the place of the joint; npos: nowhere.
std::size_t jointOf(std::string_view word) {
    const bool numeric = !word.empty() && (isDigit(word[0]) || word[0] == '.');
    if (!numeric || (word.size() > 4 && byPackage(word))) return std::string_view::npos;
    for (std::size_t i = 1; i + 1 < word.size(); ++i) {
        const char c = word[i];
        const std::string_view before = word.substr(0, i), after = word.substr(i + 1);
        const std::string_view next = after.substr(0, after.find_first_of("/_(,;"));
        switch (c) {
            case '_':
            case '(':
            case ';':
                return i;
            case '/':
                if (hasLetter(before) || before.find('%') != std::string_view::npos || isRating(next)) {
                    // "1/4W" is a fraction, "47/16V" is not.
                    if (hasLetter(before) || before.find('%') != std::string_view::npos) return i;
                    const auto whole = wholeNumber(before, 2) && readAmount(next, Unit::watt);
                    if (!whole) return i;
                } else if (wholeNumber(before) && wholeNumber(next) && before.size() >= 2) {
                    return i;
                }
                break;
            case ',':
                if (hasLetter(before) && (isRating(next) || isDielectric(next))) return i;
                break;
            case '-':
                if (hasLetter(before) && isRating(next)) return i;
                break;
            case '@':
                return i;
            default:
                break;
        }
    }
    return std::string_view::npos;
}

/// "100u16V": a value and a voltage without anything between them.
std::size_t runTogether(std::string_view word) {
    if (word.empty() || !isDigit(word[0]) || !(word.back() == 'V' || word.ends_with("VDC")))
        return std::string_view::npos;
    for (std::size_t i = 1; i + 1 < word.size(); ++i) {
        if (isDigit(word[i]) || !isDigit(word[i + 1]) || word[i] == '.' || word[i] == ',') continue;
        const auto value = readAmount(word.substr(0, i + 1), Unit::farad);
        if (value && value->said != Amount::Said::number && isRating(word.substr(i + 1))) return i + 1;
    }
    return std::string_view::npos;
}

void add(std::vector<Token>& out, const std::string& own, bool bracketed, char joint) {
    std::string word = own;
    static const std::string around = ",;:()[]{}|\"'*=";
    while (!word.empty() && around.find(word.back()) != std::string::npos) word.pop_back();
    // ",01" is a number that begins with its decimal mark.
    const auto begins = [&] { return !(word.size() > 1 && word[0] == ',' && isDigit(word[1])); };
    while (!word.empty() && around.find(word.front()) != std::string::npos && begins()) word.erase(0, 1);
    while (word.size() > 1 && word.back() == '.') word.pop_back();
    if (word.empty()) return;
    const std::size_t at = jointOf(word);
    if (at != std::string::npos) {
        add(out, word.substr(0, at), bracketed, joint);
        const bool bracket = word[at] == '(';
        add(out, word.substr(at + 1), bracketed || bracket, word[at]);
        return;
    }
    if (const std::size_t cut = runTogether(word); cut != std::string::npos) {
        add(out, word.substr(0, cut), bracketed, joint);
        add(out, word.substr(cut), bracketed, '/');
        return;
    }
    Token token;
    token.text = foldSigns(word);
    token.own = own;
    token.bracketed = bracketed;
    token.glued = joint != 0;
    token.joint = joint;
    out.push_back(std::move(token));
}

/// No-break and narrow blanks as blanks.
std::string plainBlanks(std::string_view text) {
    std::string out;
    for (std::size_t i = 0; i < text.size();) {
        std::size_t size = text[i] == '\t';
        for (const std::string_view blank : {"\u00a0", "\u202f", "\u2009"}) {
            if (text[i] == blank[0] && text.substr(i).starts_with(blank)) size = blank.size();
        }
        out += size > 0 ? ' ' : text[i];
        i += std::max<std::size_t>(size, 1);
    }
    return out;
}

}  // namespace

std::vector<Piece> piecesOf(std::string_view line) {
    std::vector<Piece> out;
    for (std::size_t i = 0; i < line.size();) {
        while (i < line.size() && line[i] == ' ') ++i;
        if (i >= line.size()) break;
        std::size_t end = i;
        while (end < line.size() && !line.substr(end).starts_with("  ")) ++end;
        const std::size_t next = end;
        while (end > i && line[end - 1] == ' ') --end;
        out.push_back({i, end});
        i = next;
    }
    return out;
}

std::size_t findWord(std::string_view low, std::string_view phrase) {
    for (auto at = low.find(phrase); at != std::string_view::npos; at = low.find(phrase, at + 1)) {
        const std::size_t end = at + phrase.size();
        const bool before =
            at == 0 || !isWordLetter(low[at]) || (!isWordLetter(low[at - 1]) && !isDigit(low[at - 1]));
        const bool after = end >= low.size() || !isWordLetter(low[end - 1]) || !isWordLetter(low[end]);
        if (before && after) return at;
    }
    return std::string_view::npos;
}

void PhraseSet::add(const std::string& phrase) {
    if (!phrase.empty()) byFirst_[static_cast<unsigned char>(phrase[0])].push_back({phrase, added_});
    ++added_;
}

bool PhraseSet::holds(std::string_view word) const {
    if (word.empty()) return false;
    const auto& some = byFirst_[static_cast<unsigned char>(word[0])];
    return std::any_of(some.begin(), some.end(), [&](const Phrase& phrase) { return phrase.text == word; });
}

namespace {

bool beginsWord(std::string_view low, std::size_t at) {
    return at == 0 || !isWordLetter(low[at]) || (!isWordLetter(low[at - 1]) && !isDigit(low[at - 1]));
}

bool standsAt(std::string_view low, std::size_t at, const std::string& phrase) {
    const std::size_t end = at + phrase.size();
    return low.compare(at, phrase.size(), phrase) == 0 &&
           (end >= low.size() || !isWordLetter(low[end - 1]) || !isWordLetter(low[end]));
}

}  // namespace

std::size_t PhraseSet::first(std::string_view low) const {
    for (std::size_t at = 0; at < low.size(); ++at) {
        if (!beginsWord(low, at)) continue;
        for (const Phrase& phrase : byFirst_[static_cast<unsigned char>(low[at])]) {
            if (standsAt(low, at, phrase.text)) return at;
        }
    }
    return std::string_view::npos;
}

std::vector<std::pair<std::size_t, std::size_t>> PhraseSet::places(std::string_view low) const {
    std::vector<std::pair<std::size_t, std::size_t>> out;
    for (std::size_t at = 0; at < low.size(); ++at) {
        if (!beginsWord(low, at)) continue;
        for (const Phrase& phrase : byFirst_[static_cast<unsigned char>(low[at])]) {
            if (standsAt(low, at, phrase.text)) out.emplace_back(phrase.number, at);
        }
    }
    std::sort(out.begin(), out.end());
    return out;
}

std::string withoutLongLines(std::string text) {
    constexpr std::size_t kLongest = 20000, kShown = 120;
    std::string out;
    bool cut = false;
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t end = std::min(text.find_first_of("\r\n", from), text.size());
        const std::size_t length = end - from;
        if (length > kLongest) {
            if (!cut) out = text.substr(0, from);
            cut = true;
            std::size_t shown = from + kShown;
            while (shown > from && (static_cast<unsigned char>(text[shown]) & 0xC0) == 0x80) --shown;
            out += text.substr(from, shown - from) + " \u2026 (a line of " + std::to_string(length) +
                   " letters: not read)";
        } else if (cut) {
            out.append(text, from, length);
        }
        if (cut && end < text.size()) out += text[end];
        from = end + 1;
    }
    return cut ? out : text;
}

std::string plainId(std::string_view text, std::string_view otherwise) {
    std::string out;
    for (const char c : lowerText(text)) {
        if ((c >= 'a' && c <= 'z') || isDigit(c)) {
            out += c;
        } else if (!out.empty() && out.back() != '-') {
            out += '-';
        }
    }
    out = out.substr(0, 40);
    while (!out.empty() && out.back() == '-') out.pop_back();
    return out.empty() ? std::string(otherwise) : out;
}

bool wholeNumber(std::string_view text, std::size_t most) {
    return !text.empty() && text.size() <= most && std::all_of(text.begin(), text.end(), isDigit);
}

std::vector<Token> tokensOf(std::string_view text) {
    const std::string plain = plainBlanks(text);
    std::vector<Token> out;
    int depth = 0;
    std::size_t i = 0;
    while (i < plain.size()) {
        std::size_t end = i;
        while (end < plain.size() && plain[end] != ' ' && plain[end] != '\t') ++end;
        if (end > i) {
            const std::string word = plain.substr(i, end - i);
            const bool opens = word[0] == '(' || word[0] == '[';
            add(out, word, depth > 0 || opens, 0);
            for (const char c : word) {
                depth += c == '(' || c == '[';
                depth -= c == ')' || c == ']';
            }
            depth = std::max(depth, 0);
        }
        i = end + 1;
    }
    return out;
}

std::string untaken(const std::vector<Token>& tokens) {
    std::string out;
    for (const Token& token : tokens) {
        if (token.taken) continue;
        if (!out.empty()) out += token.glued ? std::string(1, token.joint == '(' ? ' ' : token.joint) : " ";
        out += token.own;
    }
    const std::string stray = " ,;|";
    while (!out.empty() && stray.find(out.back()) != std::string::npos) out.pop_back();
    while (!out.empty() && (stray + "-:").find(out.front()) != std::string::npos) out.erase(0, 1);
    return out;
}

}  // namespace ombrek
