#include "lists/list_text.h"

#include <algorithm>
#include <array>
#include <map>
#include <optional>
#include <regex>
#include <utility>

#include "core/text/letters.h"
#include "lists/band_words.h"
#include "lists/columns.h"
#include "lists/designators.h"
#include "lists/list_table.h"
#include "lists/token.h"

namespace ombrek {
namespace {

bool hasDigit(std::string_view text) {
    return std::any_of(text.begin(), text.end(), [](char c) { return c >= '0' && c <= '9'; });
}
bool hasLetter(std::string_view text) {
    return std::any_of(text.begin(), text.end(), [](char c) {
        return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || static_cast<unsigned char>(c) >= 0xC0;
    });
}

/// "Ref  Value  Qty", "Reference,Quantity,DNP": the head of columns.
bool headsColumns(std::string_view text) {
    std::string apart(text);
    std::replace_if(
        apart.begin(), apart.end(), [](char c) { return c == ',' || c == ';'; }, ' ');
    CsvRow cells;
    for (const Token& token : tokensOf(apart)) cells.push_back(token.text);
    return cells.size() >= 2 && isHeader(cells) && headingsIn(cells) * 4 >= cells.size() * 3;
}

/// "Page 3 of 12", "- 12 -", "Ref  Value  Qty", rules of dashes: nothing to take.
bool isPageMatter(std::string_view text) {
    const std::string low = lowered(text);
    if (!hasLetter(low)) return true;
    static constexpr std::array<std::string_view, 10> words{
        "page",    "designator", "parts list",      "rev",        "issue", "manual",
        "bill of", "seite",      "st\u00fcckliste", "p\u00e1gina"};
    const bool named = std::any_of(words.begin(), words.end(), [&](std::string_view word) {
        const auto at = low.find(word);
        return at != std::string::npos && (at == 0 || !(low[at - 1] >= 'a' && low[at - 1] <= 'z'));
    });
    return named || headsColumns(text);
}

/// Columns drawn with bars, leader dots and boxes become blanks.
std::string plainColumns(std::string_view text) {
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (isLetter(text[i]) || isDigit(text[i]) || text[i] == ' ') {
            out += text[i];
        } else if (text[i] == '|' || text[i] == '\t') {
            out += "  ";
        } else if (text.substr(i).starts_with("\u2502") || text.substr(i).starts_with("\u25a1") ||
                   text.substr(i).starts_with("\u2610") || text.substr(i).starts_with("\u2022")) {
            out += "  ";
            i += 2;
        } else if (text.substr(i).starts_with("....") || text.substr(i).starts_with("____")) {
            const char leader = text[i];
            while (i < text.size() && text[i] == leader) ++i;
            --i;
            out += "  ";
        } else if (text.substr(i).starts_with("[ ]") || text.substr(i).starts_with("[x]") ||
                   text.substr(i).starts_with("( )")) {
            out += "  ";
            i += 2;
        } else if (text.substr(i).starts_with("\u00a0")) {
            out += ' ';
            ++i;
        } else {
            out += text[i];
        }
    }
    return out;
}

/// A run whose letters are not usual, where a row begins: "DZ1 ZMM3.3".
std::optional<DesignatorRun> unusualAtStart(std::string_view text) {
    const std::size_t end = std::min(text.find_first_of(" \t:,"), text.size());
    const std::string_view word = text.substr(0, end);
    const auto one = readDesignator(word, Letters::any);
    // "r3  4k7" is R3 where its letters are usual ones.
    const bool small = word.find_first_of("abcdefghijklmnopqrstuvwxyz") != std::string_view::npos;
    std::string capital = one ? one->prefix : "";
    for (char& c : capital) c = c >= 'a' && c <= 'z' ? char(c - 'a' + 'A') : c;
    if (!one || (small && (!usualLetters(capital) || one->prefix.size() > 2 || one->number > 299)) ||
        one->prefix.size() > 4 || one->number > 999 || byType(word) || coreOf(word) || byPackage(word) ||
        trimmed(text.substr(end)).empty())
        return std::nullopt;
    const auto runs = designatorRuns(text, {Letters::any});
    if (runs.empty() || runs.front().begin != 0) return std::nullopt;
    return runs.front();
}

bool allCapital(std::string_view text) {
    return std::none_of(text.begin(), text.end(), [](char c) { return c >= 'a' && c <= 'z'; });
}

/// The same behind a gap at the end of a row: "16x  SMAJ15CA   DT100, DT101".
std::optional<DesignatorRun> unusualAtEnd(std::string_view text) {
    const auto pieces = piecesOf(text);
    if (pieces.size() < 2) return std::nullopt;
    const std::string_view last = text.substr(pieces.back().begin);
    auto run = onlyDesignators(last, {Letters::any});
    if (!run || !allCapital(last) || byType(last) || coreOf(last) || byPackage(last) ||
        lettersOf(run->refs.front()).size() > 4 || !readDesignator(run->refs.front(), Letters::any))
        return std::nullopt;
    run->begin = pieces.back().begin;
    run->end = text.size();
    return run;
}

/// Whether the words before designators only say where a thing goes.
bool passing(const std::vector<Token>& before) {
    static constexpr std::string_view words[] = {"for",        "see",   "near", "of",   "at",   "with",
                                                 "f\u00fcr",   "siehe", "bei",  "pour", "voir", "para",
                                                 "v\u00e9ase", "per",   "vedi", "voor", "zie"};
    if (before.empty()) return false;
    const std::string last = lowerText(before.back().text);
    return std::find(std::begin(words), std::end(words), last) != std::end(words);
}

/// The runs that may name a line's parts: at its beginning (after a number, a count or a tick box), and at
/// its end.
struct Runs {
    std::optional<DesignatorRun> front, back;
};
Runs runsOf(std::string_view text, bool shortNumbers = true) {
    Runs out;
    const auto runs = designatorRuns(text, {Letters::usual, shortNumbers});
    if (const auto unusual = runs.empty() || runs.front().begin > 0 ? unusualAtStart(text) : std::nullopt) {
        out.front = unusual;
        return out;
    }
    // "T200  FDV304P": a designator alone in front leaves what is behind it a type.
    const bool named = !runs.empty() && runs.front().begin == 0 && runs.front().refs.size() == 1 &&
                       text.substr(runs.front().end).starts_with("  ");
    if (auto last = unusualAtEnd(text); last && !named && (runs.empty() || runs.back().begin < last->begin))
        out.back = last;
    if (runs.empty()) return out;
    const std::string_view before = trimmed(text.substr(0, runs.front().begin));
    const auto head = tokensOf(before);
    const bool counted =
        readQuantity(before) > 0 && (head.size() == 1 || (head.size() == 2 && !hasDigit(head[1].text)));
    const bool first = !hasLetter(before) || counted || (before.size() <= 3 && !hasDigit(before));
    if (first) out.front = runs.front();
    // "8-pin socket for U1", "see schematic for C99": named in passing, not what the row is.
    if (!first && passing(head)) return out;
    const std::string_view after = trimmed(text.substr(runs.back().end));
    if (!out.back && (!first || (runs.size() > 1 && after.empty()))) out.back = runs.back();
    return out;
}

std::optional<DesignatorRun> mainRun(std::string_view text) {
    const Runs runs = runsOf(text);
    return runs.front ? runs.front : runs.back;
}

/// A pasted line, joined with those it goes on in.
struct Row {
    std::size_t line = 0;
    std::string text;
    enum class What { parts, section, hardware, nothing } what = What::parts;
};

/// The lines of a text put together to rows.
class Joiner {
 public:
    std::vector<Row> read(const std::string& text, const Progress& progress, bool& stopped) {
        std::size_t from = 0, number = 0;
        while (from < text.size()) {
            const std::size_t end = std::min(text.find('\n', from), text.size());
            ++number;
            if (progress && number % 512 == 0 && !progress(0.5 * double(from) / double(text.size()))) {
                stopped = true;
                return {};
            }
            const std::string_view raw(text.data() + from, end - from);
            if (raw.size() > kLongestLine) {
                flush();
                rows_.push_back({number, std::string(raw.substr(0, 60)), Row::What::nothing});
            } else {
                take(number, plainColumns(raw));
            }
            from = end + 1;
        }
        flush();
        return std::move(rows_);
    }

 private:
    static constexpr std::size_t kLongestLine = 1000;

    void take(std::size_t number, const std::string& text) {
        // "R1=R2=4k7": parts that share a value.
        static const std::regex shared("([A-Z]{1,3}[0-9]{1,4})=(?=[A-Z]{1,3}[0-9]{1,4}=)"),
            last("(, [A-Z]{1,3}[0-9]{1,4})=");
        const std::string chained =
            text.find('=') == std::string::npos
                ? ""
                : std::regex_replace(std::regex_replace(text, shared, "$1, "), last, "$1  ");
        std::string_view body = trimmed(chained.empty() ? text : chained);
        if (body.starts_with("# ")) body = trimmed(body.substr(2));
        if (body.empty()) {
            blank_ = true;
            return;
        }
        auto run = mainRun(body);
        if (run && isThread(body, *run)) run.reset();
        if (!run || isProse(body, *run)) return takeWithout(number, text, body);
        if (const auto several = inOneLine(body); several.size() > 1 && !(pending_ && awaitsRefs_)) {
            flush();
            if (const auto head = headOf(body)) rows_.push_back({number, *head, Row::What::section});
            for (const std::string& part : several) rows_.push_back({number, part});
            blank_ = false;
            return;
        }
        const auto parts = sideBySide(text);
        if (parts.size() > 1 && !(pending_ && awaitsRefs_)) {
            flush();
            for (const std::string& part : parts) rows_.push_back({number, part});
            blank_ = false;
            return;
        }
        // Designators that go on from a line that ended in a comma, or from a line of nothing but
        // designators.
        const bool onlyRefs = pending_ && onlyDesignators(pending_->text) && !saysOneNumber(pending_->text);
        if (pending_ && !blank_ && takeRefsBelow(body)) return;
        if (pending_ && (awaitsRefs_ || (onlyRefs && !blank_ && startsLikeMore(*run)))) {
            pending_->text += (awaitsRefs_ || !onlyRefs ? " " : ", ") + std::string(body);
            awaitsRefs_ = run->goesOn && run->begin == 0;
        } else if (pending_ && !blank_ && isRemark(text, *run)) {
            pending_->text += "  " + std::string(body);
        } else {
            flush();
            pending_ = Row{number, std::string(body)};
            indent_ = text.size() - trimmed(text).size() > 0 ? text.find_first_not_of(" \t") : 0;
            awaitsRefs_ = run->goesOn;
        }
        blank_ = false;
    }

    /// "R5, 10": one designator and a bare number, which is its value unless the list says otherwise.
    static bool saysOneNumber(std::string_view body) {
        const auto runs = designatorRuns(body, {Letters::usual, false});
        return runs.size() == 1 && runs.front().refs.size() == 1 && runs.front().begin == 0 &&
               !runs.front().goesOn && runs.front().end < body.size() &&
               wholeNumber(trimmed(body.substr(runs.front().end + 1)), 4);
    }

    /// Designators that go on below those that ended in a comma, the value beside them: "C3, C4,  0.1u" and
    /// "C5, C6" in the next line.
    bool takeRefsBelow(std::string_view body) {
        const auto more = onlyDesignators(body);
        if (!more || saysOneNumber(body)) return false;
        const auto run = mainRun(pending_->text);
        if (!run || lettersOf(run->refs.front()) != lettersOf(more->refs.front()) ||
            run->end >= pending_->text.size() || pending_->text[run->end] != ',')
            return false;
        pending_->text.insert(run->end + 1, " " + std::string(body) + (body.ends_with(',') ? "" : " "));
        return true;
    }

    /// "4 spacers M3": a metric thread, no designator.
    static bool isThread(std::string_view body, const DesignatorRun& run) {
        static constexpr std::string_view threads[] = {"M2", "M3", "M4", "M5", "M6", "M7", "M8", "M10"};
        const bool metric = run.refs.size() == 1 && std::find(std::begin(threads), std::end(threads),
                                                              run.refs.front()) != std::end(threads);
        return metric && run.begin > 0 && readHardware(body, true).has_value();
    }

    /// Designators in a sentence: "Fit R1 only when the supply is above 12 V."
    static bool isProse(std::string_view body, const DesignatorRun& run) {
        std::size_t small = 0;
        for (const Token& token : tokensOf(body)) {
            const bool word =
                token.text.size() > 1 && std::all_of(token.text.begin(), token.text.end(),
                                                     [](char c) { return c >= 'a' && c <= 'z'; });
            small += word;
        }
        return run.begin > 0 && body.ends_with('.') && small >= 5;
    }

    /// A line further in that names a designator in passing: "(see also R7)".
    bool isRemark(const std::string& text, const DesignatorRun& run) const {
        const std::size_t indent = text.find_first_not_of(" \t");
        const std::string_view body = trimmed(text);
        return run.begin > 0 && indent > indent_ + 1 &&
               (body[0] == '(' || (body[0] >= 'a' && body[0] <= 'z'));
    }

    /// "Resistors:" before parts that stand in one line.
    static std::optional<std::string> headOf(std::string_view body) {
        const auto colon = body.find(':');
        if (colon == std::string_view::npos || hasDigit(body.substr(0, colon))) return std::nullopt;
        const std::string head(trimmed(body.substr(0, colon)));
        return readSection(head) ? std::optional(head) : std::nullopt;
    }

    /// "R1, R4: 1K5; R2: 820": rows behind semicolons, each of designators with what they are; empty where
    /// one of them is not.
    static std::vector<std::string> behindSemicolons(std::string_view body) {
        std::vector<std::string> out;
        for (std::size_t from = 0; from <= body.size();) {
            const std::size_t end = std::min(body.find(';', from), body.size());
            const std::string piece(trimmed(body.substr(from, end - from)));
            const auto runs = designatorRuns(piece);
            const bool row = !runs.empty() && runs.front().begin == 0 && !runs.front().goesOn &&
                             runs.front().end < piece.size() &&
                             std::string_view(":= ").find(piece[runs.front().end]) != std::string_view::npos;
            if (!row) return {};
            out.push_back(piece);
            from = end + 1;
        }
        return out.size() >= 2 ? out : std::vector<std::string>{};
    }

    /// "R1 10k, R2 4k7, Q1 2N3904": each a designator with what it is; empty where it is one row.
    static std::vector<std::string> inOneLine(std::string_view body) {
        if (auto rows = behindSemicolons(body); !rows.empty()) return rows;
        const auto colon = body.find(':');
        if (colon != std::string_view::npos && !hasDigit(body.substr(0, colon)))
            body = trimmed(body.substr(colon + 1));
        std::vector<std::string> out;
        for (std::size_t from = 0; from <= body.size();) {
            // A decimal comma parts nothing.
            std::size_t end = std::min(body.find_first_of(",;", from), body.size());
            while (end + 1 < body.size() && body[end] == ',' && body[end + 1] >= '0' && body[end + 1] <= '9')
                end = std::min(body.find_first_of(",;", end + 1), body.size());
            const std::string piece(trimmed(body.substr(from, end - from)));
            const std::size_t gap = piece.find(' ');
            const bool named = readDesignator(piece.substr(0, gap)).has_value();
            if (named && gap == std::string::npos) return {};  // a designator alone shares a value
            if (named && hasDigit(piece.substr(gap))) {
                out.push_back(piece);
            } else if (out.empty()) {
                return {};
            } else {
                out.back() += ", " + piece;
            }
            from = end + 1;
        }
        return out.size() >= 2 ? out : std::vector<std::string>{};
    }

    /// "DZ100  ZMM3.3    XP101  A1": a designator of any letters and what it is, and again; empty where it is
    /// one row.
    static std::vector<std::string> inPairs(const std::string& text) {
        const auto pieces = piecesOf(text);
        if (pieces.size() < 4 || pieces.size() % 2) return {};
        std::vector<std::string> out;
        for (std::size_t i = 0; i < pieces.size(); i += 2) {
            const std::string name = text.substr(pieces[i].begin, pieces[i].end - pieces[i].begin);
            const auto one = readDesignator(name, Letters::any);
            const auto other = readDesignator(
                std::string_view(text).substr(pieces[i + 1].begin, pieces[i + 1].end - pieces[i + 1].begin));
            if (!one || !allCapital(name) || one->prefix.size() > 4 || (byType(name) && one->number > 299) ||
                byPackage(name) || byWord(name).lead().by > 0 ||
                (other && other->prefix == one->prefix && other->text().size() == one->text().size()))
                return {};
            out.push_back(text.substr(pieces[i].begin, pieces[i + 1].end - pieces[i].begin));
        }
        return out;
    }

    /// "R1  10k    R2  22k": parts beside each other, each behind a gap.
    static std::vector<std::string> sideBySide(const std::string& text) {
        if (auto pairs = inPairs(text); !pairs.empty()) return pairs;
        const auto pieces = piecesOf(text);
        std::vector<std::size_t> heads;
        std::vector<std::string> out;
        for (std::size_t i = 0; i < pieces.size(); ++i) {
            const std::string_view piece =
                std::string_view(text).substr(pieces[i].begin, pieces[i].end - pieces[i].begin);
            auto runs = designatorRuns(piece);
            // "r1 10k    c1 100n": small letters, where the row begins with some.
            const bool small = !pieces.empty() && piece[0] >= 'a' && piece[0] <= 'z';
            if (const auto low = small && runs.empty() && (i == 0 || !heads.empty())
                                     ? unusualAtStart(std::string_view(text).substr(pieces[i].begin))
                                     : std::nullopt)
                runs = {*low};
            const bool begins = !runs.empty() && runs.front().begin == 0 && !runs.front().goesOn;
            // "E2,5-6" is a package: a designator ends where a word ends.
            const char after = begins && runs.front().end < piece.size() ? piece[runs.front().end] : ' ';
            if (begins && (after == ' ' || after == ':' || after == '=')) heads.push_back(i);
        }
        if (heads.size() < 2 || heads.front() != 0) return out;
        for (std::size_t k = 0; k < heads.size(); ++k) {
            const std::size_t last = (k + 1 < heads.size() ? heads[k + 1] : pieces.size()) - 1;
            const std::string part =
                text.substr(pieces[heads[k]].begin, pieces[last].end - pieces[heads[k]].begin);
            // Each must say more than its designators, or the line is one row of designators.
            if (onlyDesignators(part)) return {};
            out.push_back(part);
        }
        return out;
    }

    /// A line of designators alone is followed by more of the same letter.
    bool startsLikeMore(const DesignatorRun& run) const {
        const auto pending = designatorRuns(pending_->text);
        // One designator alone is a part without a value.
        const bool several = pending.size() > 1 || (!pending.empty() && pending.front().refs.size() > 1);
        return run.begin == 0 && several &&
               lettersOf(run.refs.front()) == lettersOf(pending.front().refs.front());
    }

    /// No designator: the rest of a line, a heading, a page's head or foot, hardware, or something else.
    void takeWithout(std::size_t number, const std::string& text, std::string_view body) {
        const std::size_t indent = text.find_first_not_of(" \t");
        const bool indented = pending_ ? indent > indent_ : indent > 0;
        const bool onlyRefs = pending_ && onlyDesignators(pending_->text).has_value();
        const auto section = readSection(body);
        const bool matter = isPageMatter(body) && !(onlyRefs && !blank_ && hasDigit(body) && hasLetter(body));
        if (matter && !(section && !awaitsRefs_ && !headsColumns(body))) return;
        if (awaitsRefs_) return;  // a running head between two halves of a line
        const auto hardware = readHardware(body, inHardware_);
        const bool open = pending_ && (pending_->text.ends_with(',') || pending_->text.ends_with('-'));
        const bool small = body[0] >= 'a' && body[0] <= 'z' && body.find(' ') != std::string_view::npos;
        // A row that ends in a count or a value is complete.
        const bool words = pending_ && !hasDigit(pending_->text.substr(pending_->text.find_last_of(' ') + 1));
        const bool goesOn = pending_ && !blank_ &&
                            (indented || open || onlyRefs || body[0] == '(' || (small && words && !hardware));
        if (goesOn && !(hardware && !indented && !onlyRefs && !open)) {
            pending_->text += "  " + std::string(body);
            return;
        }
        flush();
        blank_ = false;
        if (section && !(hardware && hardware->countSaid)) {
            inHardware_ = section->hardware;
            rows_.push_back({number, std::string(body), Row::What::section});
        } else if (hardware) {
            rows_.push_back({number, std::string(body), Row::What::hardware});
        } else {
            rows_.push_back({number, std::string(body), Row::What::nothing});
        }
    }

    void flush() {
        if (pending_) rows_.push_back(std::move(*pending_));
        pending_.reset();
        awaitsRefs_ = false;
    }

    std::vector<Row> rows_;
    std::optional<Row> pending_;
    std::size_t indent_ = 0;
    bool awaitsRefs_ = false, blank_ = false, inHardware_ = false;
};

/// A row with its designators taken out: what stands before and after them.
struct Split {
    DesignatorRun run;
    std::string before, after;
};
Split splitAt(const std::string& text, const DesignatorRun& run) {
    Split out{run, text.substr(0, run.begin), text.substr(run.end)};
    if (out.after.starts_with(',') || out.after.starts_with(';')) out.after.erase(0, 1);  // parts the two
    // "12." in front is an item's number, neither a value nor a quantity.
    const auto item = trimmed(out.before);
    if (!item.empty() && !hasLetter(item) && (item.back() == '.' || item.back() == ')')) out.before.clear();
    return out;
}

/// Where the file has its quantities, and whether numbers in front only count the rows.
struct Habits {
    RowContext::Count count = RowContext::Count::unknown;
    bool itemsInFront = false;
    bool refsBehind = false;
};

Habits habitsOf(const std::vector<Row>& rows) {
    int front = 0, frontAgrees = 0, back = 0, backAgrees = 0, rising = 0, refsFront = 0, refsBack = 0,
        all = 0;
    int before = 0;
    for (const Row& row : rows) {
        if (row.what != Row::What::parts) continue;
        const Runs runs = runsOf(row.text);
        const auto run = runs.front ? runs.front : runs.back;
        if (!run) continue;
        ++all;
        refsFront += runs.front && !runs.back;
        refsBack += !runs.front && runs.back;
        const auto head = tokensOf(row.text.substr(0, run->begin)),
                   tail = tokensOf(row.text.substr(run->end));
        if (!head.empty() && wholeNumber(head.front().text, 3)) {
            ++front;
            const int count = readQuantity(head.front().text);
            frontAgrees += std::size_t(count) == run->refs.size();
            rising += count == before + 1;
            before = count;
        }
        if (tail.size() > 1 && wholeNumber(tail.back().text, 3) && !tail.back().glued &&
            !tail.back().bracketed) {
            ++back;
            backAgrees += std::size_t(readQuantity(tail.back().text)) == run->refs.size();
        }
    }
    Habits out;
    out.itemsInFront = front >= 3 && rising * 10 >= front * 8 && frontAgrees * 10 < front * 8;
    if (!out.itemsInFront && front >= 2 && front * 2 > all && frontAgrees * 10 >= front * 6) {
        out.count = RowContext::Count::front;
    } else if (back >= 2 && back * 2 > all && backAgrees * 10 >= back * 6) {
        out.count = RowContext::Count::back;
    } else if (all >= 6 && back * 10 < all && front * 10 < all) {
        out.count = RowContext::Count::none;
    }
    out.refsBehind = refsBack > refsFront;
    return out;
}

class RowTaker {
 public:
    RowTaker(PartsTaker& taker, const Habits& habits, std::string variant)
        : taker_(taker), habits_(habits), variant_(std::move(variant)) {
        taker_.context().count = habits.count;
    }

    void take(const Row& row) {
        settleHeading(&row);
        takeAs(row);
        first_ = false;
    }
    /// A heading with nothing below it was none, or its rows were not seen: it is shown.
    void finish() { settleHeading(nullptr); }
    /// The bands that its rows name.
    const std::vector<std::string>& variants() const { return variants_; }

 private:
    void takeAs(const Row& row) {
        switch (row.what) {
            case Row::What::section:
                taker_.head(*readSection(row.text));
                heading_ = row;
                return;
            case Row::What::hardware:
                taker_.take(*readHardware(row.text, true), row.line);
                return;
            case Row::What::nothing:
                if (isHeading(row.text) && !first_) return taker_.head(Section{});
                if (first_ && isTitle(row.text)) {
                    first_ = false;
                    return taker_.title(row.text);
                }
                taker_.refuse(row.line, row.text,
                              row.text.size() >= 60 && row.text.find(' ') == std::string::npos
                                  ? "The line is too long for a list."
                                  : "No designator stands in this line.");
                return;
            case Row::What::parts:
                takeParts(row);
                return;
        }
    }

    /// Whether what was read as a heading heads the row that follows it; shown where it does not: "lamp for
    /// the dial" names a part that has no designator.
    void settleHeading(const Row* next) {
        if (!heading_) return;
        const Row heading = *std::exchange(heading_, std::nullopt);
        const Section section = *readSection(heading.text);
        const auto words = tokensOf(heading.text);
        const bool names =
            std::any_of(words.begin(), words.end(), [](const Token& t) { return passing({t}); });
        bool heads = next != nullptr;
        if (heads && names && next->what == Row::What::parts) {
            const auto run = mainRun(next->text);
            const bool small = heading.text[0] >= 'a' && heading.text[0] <= 'z';
            heads = (section.kind == PartKind::other && !small) ||
                    (run && byLetters(lettersOf(run->refs.front()))[section.kind] > 0);
        } else if (heads && names) {
            heads = next->what == Row::What::hardware && section.hardware;
        }
        if (!heads)
            taker_.refuse(heading.line, heading.text,
                          "It reads like a heading, and no part of it stands below.");
    }

    struct Reading {
        ListLine line;
        DesignatorRun run;
        double merit = 0;
    };

    /// A row that says a value for each band. @return whether it is one
    bool takeBands(const Row& row) {
        const Runs runs = runsOf(row.text);
        if (!runs.front || runs.front->begin != 0) return false;
        const auto said = saidForBands(std::string_view(row.text).substr(runs.front->end));
        if (said.empty()) return false;
        const SaidFor* chosen = nullptr;
        std::string differ;
        for (const SaidFor& s : said) {
            if (std::find(variants_.begin(), variants_.end(), s.variant) == variants_.end())
                variants_.push_back(s.variant);
            differ += (differ.empty() ? "" : ", ") + s.variant + ": " + s.text;
            if (!variant_.empty() && plainVariant(s.variant) == plainVariant(variant_)) chosen = &s;
        }
        ListFields fields;
        for (const std::string& ref : runs.front->refs)
            fields.refs += (fields.refs.empty() ? "" : ", ") + ref;
        fields.value = chosen != nullptr ? chosen->text : said.front().text;
        ListLine& line = taker_.take(fields, row.line, row.text);
        line.variants = differ;
        if (chosen != nullptr) return true;
        line.nominal = 0;
        line.value = differ;
        line.doubts = {"It differs by variant: " + differ + ". Choose the variant that you build."};
        return true;
    }

    void takeParts(const Row& row) {
        if (takeBands(row)) return;
        std::vector<Reading> readings;
        for (const bool shortNumbers : {true, false}) {
            const Runs runs = runsOf(row.text, shortNumbers);
            for (const bool front : {true, false}) {
                const auto& run = front ? runs.front : runs.back;
                // The same run is read once.
                const bool known =
                    run && std::any_of(readings.begin(), readings.end(), [&](const Reading& r) {
                        return r.run.begin == run->begin && r.run.end == run->end && r.run.refs == run->refs;
                    });
                if (!run || known) continue;
                Reading reading = read(row.text, *run);
                if (front == habits_.refsBehind) reading.merit -= 0.5;
                readings.push_back(std::move(reading));
            }
        }
        if (readings.empty()) {
            taker_.refuse(row.line, row.text, "No designator stands in this line.");
            return;
        }
        const auto best = std::max_element(readings.begin(), readings.end(),
                                           [](const auto& a, const auto& b) { return a.merit < b.merit; });
        best->line.line = row.line;
        best->line.text = row.text;
        doubtShort(readings, *best);
        if (best->run.goesOn) best->line.doubts.push_back("The designators break off.");
        doubtOthers(row.text, best->run, best->line);
        taker_.keep(std::move(best->line));
    }

    /// "L1,12,T37-2": twelve turns, or a second coil.
    static void doubtShort(const std::vector<Reading>& readings, Reading& best) {
        if (best.line.kind != PartKind::coil) return;
        for (const Reading& other : readings) {
            if (other.run.begin == best.run.begin && other.run.refs.size() < best.run.refs.size())
                best.line.doubts.push_back(
                    "\"" + lettersOf(best.run.refs.back()) + "\" is not said again before " +
                    best.run.refs.back().substr(lettersOf(best.run.refs.back()).size()) +
                    ": another coil, or turns?");
        }
    }

    Reading read(const std::string& text, const DesignatorRun& run) {
        Split split = splitAt(text, run);
        if (habits_.itemsInFront && !hasLetter(split.before)) split.before.clear();
        ListFields fields;
        fields.refs = text.substr(run.begin, run.end - run.begin);
        fields.description = split.before + "  " + split.after;
        // The run was read once; the fields must say the same.
        fields.refs.clear();
        for (const std::string& ref : run.refs) fields.refs += (fields.refs.empty() ? "" : ", ") + ref;
        Reading out{taker_.reading(fields), run, 0};
        if (!run.doubt.empty()) out.line.doubts.insert(out.line.doubts.begin(), run.doubt);
        out.merit = meritOf(out.line);
        return out;
    }

    static void doubtOthers(const std::string& text, const DesignatorRun& run, ListLine& line) {
        std::string_view before = trimmed(std::string_view(text).substr(0, run.begin));
        before = before.substr(before.find_last_of(" \t") + 1);
        if (before.size() > 2 && before.ends_with(',') && !hasDigit(before))
            line.doubts.push_back("\"" + std::string(before.substr(0, before.size() - 1)) +
                                  "\" in front of " + run.refs.front() + " has no number; it was left out.");
        for (const DesignatorRun& other : designatorRuns(text)) {
            const bool apart = other.begin >= run.end || other.end <= run.begin;
            if (apart && lettersOf(other.refs.front()) == lettersOf(run.refs.front()) &&
                other.refs.front() != line.mpn)
                line.doubts.push_back(other.refs.front() + " also stands in this line.");
        }
    }

    PartsTaker& taker_;
    const Habits& habits_;
    std::string variant_;
    std::vector<std::string> variants_;
    std::optional<Row> heading_;  ///< the last, while nothing stood below it
    bool first_ = true;           ///< no row was taken yet
};

}  // namespace

PartsList readListText(const std::string& bytes, const Progress& progress, const std::string& variant) {
    const std::string text = withoutLongLines(toUtf8(bytes));
    bool stopped = false;
    const std::vector<Row> rows = Joiner().read(text, progress, stopped);
    if (stopped) return {};
    PartsTaker taker(mannerOf(foldSigns(text)));
    const Habits habits = habitsOf(rows);
    RowTaker rowTaker(taker, habits, variant);
    std::size_t done = 0;
    for (const Row& row : rows) {
        if (progress && ++done % 256 == 0 && !progress(0.5 + 0.5 * double(done) / double(rows.size())))
            return {};
        rowTaker.take(row);
    }
    rowTaker.finish();
    PartsList out = taker.finish();
    out.variants = rowTaker.variants();
    return out;
}

}  // namespace ombrek
