#include "lists/list_line.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

#include "core/parts/bands.h"
#include "core/parts/marks.h"
#include "core/text/letters.h"
#include "lists/coil_words.h"
#include "lists/designators.h"
#include "lists/joined_words.h"
#include "lists/kind_evidence.h"
#include "lists/list_doubts.h"
#include "lists/token.h"

namespace ombrek {
namespace {

using Tokens = std::vector<Token>;
constexpr std::size_t kNone = static_cast<std::size_t>(-1);

/// An amount among words, which may stand apart from its unit: "100 nF".
struct Found {
    Amount amount;
    std::size_t at = kNone, words = 0;
    std::string text;
};

std::optional<Found> amountAt(const Tokens& tokens, std::size_t i, Unit unit, const Manner& manner) {
    if (tokens[i].taken) return std::nullopt;
    const std::string& one = tokens[i].text;
    const auto alone = readAmount(one, unit, manner);
    if (alone && alone->said != Amount::Said::number) return Found{*alone, i, 1, one};
    const bool number = alone || (unit == Unit::watt && one.find('/') != std::string::npos);
    if (number && i + 1 < tokens.size() && !tokens[i + 1].taken) {
        const std::string& next = tokens[i + 1].text;
        const bool word = !next.empty() && next.size() <= 12 && !(next[0] >= '0' && next[0] <= '9') &&
                          next.find('/') == std::string::npos;
        const auto both = word ? readAmount(one + next, unit, manner) : std::nullopt;
        if (both && both->said != Amount::Said::number) return Found{*both, i, 2, one + " " + next};
    }
    if (alone) return Found{*alone, i, 1, one};
    return std::nullopt;
}

void take(Tokens& tokens, const Found& found) {
    for (std::size_t i = 0; i < found.words; ++i) tokens[found.at + i].taken = true;
}

/// "50V", "1/4 W", "5 %": the first within bounds, taken; others like it are taken too.
std::optional<double> takeRating(Tokens& tokens, Unit unit, double least, double most, const Manner& manner) {
    std::optional<double> out;
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        const auto found = amountAt(tokens, i, unit, manner);
        if (!found || found->amount.said != Amount::Said::unit) continue;
        if (found->amount.value < least || found->amount.value > most) continue;
        if (!out) take(tokens, *found);
        if (!out) out = found->amount.value;
    }
    return out;
}

/// "(marked 104)", "code 104", or a run of colour words; taken. Empty: none.
std::string takeMark(Tokens& tokens) {
    static constexpr std::array<std::string_view, 11> says{"marked",   "marking", "mark",     "code",
                                                           "labelled", "printed", "aufdruck", "marqué",
                                                           "marcado",  "marcato", "labeled"};
    for (std::size_t i = 0; i + 1 < tokens.size(); ++i) {
        if (std::find(says.begin(), says.end(), lowerText(tokens[i].text)) == says.end()) continue;
        std::string mark;
        tokens[i].taken = true;
        for (std::size_t k = i + 1; k < tokens.size(); ++k) {
            const bool colour = isBandColour(lowerText(tokens[k].text));
            if (k > i + 1 && !colour && !(tokens[i].bracketed && tokens[k].bracketed)) break;
            mark += (mark.empty() ? "" : " ") + tokens[k].text;
            tokens[k].taken = true;
            if (!colour && !tokens[i].bracketed) break;
            if (tokens[k].own.find_first_of(")]") != std::string::npos) break;
        }
        return mark;
    }
    std::string colours;
    std::vector<std::size_t> from;
    std::size_t count = 0;
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        std::string word = lowerText(tokens[i].text);
        std::replace_if(
            word.begin(), word.end(), [](char c) { return c == '-' || c == '/' || c == ','; }, ' ');
        std::size_t inside = 0;
        bool all = true;
        std::string words;
        for (std::size_t at = 0; at < word.size();) {
            const std::size_t end = std::min(word.find(' ', at), word.size());
            if (end > at) {
                all = all && isBandColour(word.substr(at, end - at));
                words += (words.empty() ? "" : " ") + word.substr(at, end - at);
                ++inside;
            }
            at = end + 1;
        }
        if (inside == 0 || !all) continue;
        from.push_back(i);
        count += inside;
        colours += (colours.empty() ? "" : " ") + words;
    }
    if (count < 3) return "";
    for (const std::size_t i : from) tokens[i].taken = true;
    return colours;
}

bool preposition(std::string_view word) {
    static constexpr std::array<std::string_view, 34> words{
        "for", "of",  "at",   "on",   "to",  "near", "from", "by",  "with", "in", "see",  "f\u00fcr",
        "bei", "am",  "an",   "auf",  "zu",  "zum",  "zur",  "von", "mit",  "im", "pour", "de",
        "du",  "sur", "avec", "para", "con", "per",  "di",   "der", "del",  "des"};
    return std::find(words.begin(), words.end(), lowerText(word)) != words.end();
}

/// What the words of a row say it is. In a run of such words the last is what it is ("crystal socket"); one
/// behind a preposition only says where it goes ("for the relay").
KindEvidence wordEvidence(const Tokens& tokens) {
    KindEvidence out;
    bool aside = false;
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        if (i > 0 && tokens[i - 1].own.find_first_of(",;)") != std::string::npos) aside = false;
        aside = aside || preposition(tokens[i].text);
        const KindEvidence said = byWord(tokens[i].text);
        if (said[said.best()] <= 0) continue;
        double factor = aside ? 0.2 : 1;
        const bool more = i + 1 < tokens.size() && tokens[i].own.find_first_of(",;)") == std::string::npos;
        if (more) {
            const KindEvidence next = byWord(tokens[i + 1].text);
            // "trimmer capacitor" is a trimmer: what is adjusted says so in front.
            const bool adjusted = said[PartKind::trimmer] >= 4;
            if (!adjusted && next[next.best()] > 0 && next.best() != said.best()) factor = 0.25;
        }
        const PartKind kind = said.best();
        out[kind] = std::max(out[kind], said[kind] * factor);
    }
    return out;
}

KindEvidence typeEvidence(const Tokens& tokens) {
    KindEvidence out;
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        const auto kind = byType(tokens[i].text);
        if (!kind || coreOf(tokens[i].text)) continue;
        const bool aside = i > 0 && preposition(tokens[i - 1].text);
        out[*kind] = std::max(out[*kind], aside ? 1.0 : 5.0);
    }
    return out;
}

KindEvidence packageEvidence(const Tokens& tokens, const std::string& cell) {
    KindEvidence out;
    const auto add = [&](std::string_view word) {
        if (const auto said = byPackage(word)) {
            for (std::size_t i = 0; i < out.weight.size(); ++i)
                out.weight[i] = std::max(out.weight[i], said->weight[i]);
        }
    };
    for (const Token& token : tokens) add(token.text);
    add(cell);
    for (const Token& token : tokensOf(cell)) add(token.text);
    return out;
}

/// What the amounts of a row say: a unit outright, a prefix for those whose letter agrees.
KindEvidence amountEvidence(const Tokens& tokens, const KindEvidence& letters, const Manner& manner) {
    struct Row {
        Unit unit;
        PartKind kind;
        double outright;
    };
    static constexpr std::array<Row, 4> rows{{{Unit::ohm, PartKind::resistor, 4},
                                              {Unit::farad, PartKind::capacitor, 4},
                                              {Unit::henry, PartKind::inductor, 4},
                                              {Unit::hertz, PartKind::crystal, 4}}};
    KindEvidence out;
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        if (tokens[i].joint == '@' || (i > 0 && preposition(tokens[i - 1].text))) continue;
        for (const Row& row : rows) {
            const auto found = amountAt(tokens, i, row.unit, manner);
            if (!found || found->amount.said == Amount::Said::number) continue;
            if (byType(found->text)) continue;
            // "4R7" on a choke is 4.7 uH (common practice): its R is a decimal mark.
            const auto r = found->text.find_first_of("Rr");
            const bool mark = row.unit == Unit::ohm && r != std::string::npos && r > 0 &&
                              r + 1 < found->text.size() &&
                              found->text.find_first_not_of("0123456789Rr") == std::string::npos;
            if (mark && letters[PartKind::inductor] > 0) continue;
            const bool agrees =
                letters[row.kind] > 0 || (row.kind == PartKind::inductor && letters[PartKind::coil] > 0);
            double weight = found->amount.said == Amount::Said::unit ? row.outright : agrees ? 2.5 : 1.2;
            // "4R7" names no unit beyond doubt where another letter stands; a rig's MHz is anywhere.
            if (!agrees && row.unit == Unit::hertz) weight = letters[PartKind::transistor] > 0 ? 4 : 2;
            out[row.kind] = std::max(out[row.kind], weight);
            const bool turned = row.unit == Unit::ohm || row.unit == Unit::farad;
            if (turned && letters[PartKind::trimmer] > 0)
                out[PartKind::trimmer] = std::max(out[PartKind::trimmer], weight + 0.5);
        }
    }
    return out;
}

/// What stands in a cell of designators beside them, a word each: "Cout" of "C1 Cout".
void doubtBeside(std::string text, const std::vector<DesignatorRun>& runs, ListLine& out) {
    for (const DesignatorRun& run : runs) {
        for (std::size_t i = run.begin; i < run.end && i < text.size(); ++i) text[i] = ' ';
    }
    std::string beside;
    for (char& c : text) c = std::string_view(",;\t\n").find(c) == std::string_view::npos ? c : ' ';
    for (std::size_t at = 0, end = 0; at < text.size(); at = end + 1) {
        end = std::min(text.find(' ', at), text.size());
        const std::string word = text.substr(at, end - at);
        const bool letters = std::any_of(word.begin(), word.end(), [](unsigned char c) {
            return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c >= 0x80;
        });
        if (letters && word.size() > 3) beside += (beside.empty() ? "" : " ") + word;
    }
    if (!beside.empty())
        out.doubts.push_back("\"" + beside.substr(0, 80) + "\" stands among the designators and is none.");
}

void readRefs(const std::string& text, ListLine& out) {
    std::vector<DesignatorRun> runs = designatorRuns(text, {Letters::any});
    if (!runs.empty()) doubtBeside(text, runs, out);
    for (DesignatorRun& run : runs) {
        out.refs.insert(out.refs.end(), run.refs.begin(), run.refs.end());
        if (!run.doubt.empty()) out.doubts.push_back(run.doubt);
    }
    std::vector<std::string> seen;
    for (const std::string& ref : out.refs) {
        if (std::find(seen.begin(), seen.end(), ref) == seen.end()) {
            seen.push_back(ref);
        } else {
            out.doubts.push_back(ref + " stands here twice.");
        }
    }
    out.refs = std::move(seen);
}

bool saysYes(const std::string& cell) {
    const std::string low = lowerText(trimmed(cell));
    static constexpr std::array<std::string_view, 12> yes{"y", "yes", "x",  "1",       "true", "ja",
                                                          "j", "oui", "si", "s\u00ed", "*",    "fitted"};
    return std::find(yes.begin(), yes.end(), low) != yes.end();
}
bool saysNo(const std::string& cell) {
    const std::string low = lowerText(trimmed(cell));
    static constexpr std::array<std::string_view, 8> no{"n", "no", "0", "false", "nein", "non", "-", "nee"};
    return std::find(no.begin(), no.end(), low) != no.end();
}

/// One row while it is being understood.
class RowReader {
 public:
    RowReader(const ListFields& fields, const RowContext& context) : fields_(fields), context_(context) {
        fields_.value = joinWords(trimmed(fields_.value), true);
        for (std::string* text : {&fields_.description, &fields_.mpn}) *text = joinWords(*text, false);
    }

    ListLine read() {
        readRefs(fields_.refs, out_);
        readFitted();
        out_.package = std::string(trimmed(fields_.package));
        out_.code = std::string(trimmed(fields_.code));
        out_.mpn = std::string(trimmed(fields_.mpn));
        tokens_ = tokensOf(fields_.value);
        inValue_ = tokens_.size();
        for (const std::string* text : {&fields_.description, &fields_.remark}) {
            Tokens more = tokensOf(*text);
            tokens_.insert(tokens_.end(), more.begin(), more.end());
        }
        out_.mark = fields_.mark.empty() ? takeMark(tokens_) : std::string(trimmed(fields_.mark));
        if (out_.quantity == 0 && fields_.quantity.empty()) takeSaidCount();
        decideKind();
        takePackage();
        if (unitOf(out_.kind) != Unit::none) {
            readMeasured();
        } else {
            readDescribed();
        }
        readQuantityCell();
        if (out_.quantity > 0 && !out_.refs.empty() && std::size_t(out_.quantity) != out_.refs.size()) {
            out_.doubts.push_back("The list says " + std::to_string(out_.quantity) +
                                  ", the designators make " + std::to_string(out_.refs.size()) + ".");
        }
        return std::move(out_);
    }

 private:
    void readFitted() {
        out_.fitted = context_.fitted;
        if (!trimmed(fields_.notFitted).empty() && !saysNo(fields_.notFitted)) out_.fitted = false;
        if (!trimmed(fields_.fitted).empty()) {
            if (saysNo(fields_.fitted) || notFittedIn(fields_.fitted)) {
                out_.fitted = false;
            } else if (!saysYes(fields_.fitted)) {
                out_.doubts.push_back("\"" + fields_.fitted.substr(0, 40) + "\": is it fitted?");
            }
        }
        for (std::string* text : {&fields_.value, &fields_.description, &fields_.remark, &fields_.mpn,
                                  &fields_.package, &fields_.code, &fields_.quantity}) {
            if (const auto hit = notFittedIn(*text)) {
                out_.fitted = false;
                const bool condition =
                    doubtCondition(std::string_view(*text).substr(hit->begin + hit->length));
                text->replace(hit->begin, condition ? std::string::npos : hit->length, " ");
                if (text->find_first_not_of(" ()[]/-,;") == std::string::npos) text->clear();
            }
        }
    }

    /// "DNP on the 80 m version": whether it is in this one, the list does not say.
    bool doubtCondition(std::string_view behind) {
        static constexpr std::string_view leads[] = {"on ",   "in ",     "for ",    "with ", "when ",
                                                     "if ",   "unless ", "except ", "bei ",  "f\u00fcr ",
                                                     "wenn ", "pour ",   "si ",     "para "};
        const std::string low = lowerText(trimmed(behind));
        for (const std::string_view lead : leads) {
            if (!low.starts_with(lead)) continue;
            out_.doubts.push_back("Not fitted \"" + low.substr(0, 40) + "\": is that yours?");
            return true;
        }
        return false;
    }

    KindEvidence letters() const {
        KindEvidence out;
        if (!out_.refs.empty()) out = byLetters(lettersOf(out_.refs.front()));
        return out;
    }

    void decideKind() {
        if (const auto named = partKind(lowered(trimmed(fields_.kind)))) {
            out_.kind = *named;
            return;
        }
        const KindEvidence byLetter = letters();
        KindEvidence sum = byLetter;
        const bool silent = sum[sum.best()] <= 0;
        if (context_.kind != PartKind::other) {
            // A heading speaks where letters are silent or divided; a semiconductor's may be any of three.
            if (silent || sum[context_.kind] > 0) sum[context_.kind] += silent ? 2.5 : 1;
        }
        Tokens said = tokensOf(fields_.kind);
        const Tokens packaged = tokensOf(fields_.package);
        said.insert(said.end(), packaged.begin(), packaged.end());
        KindEvidence words = wordEvidence(tokens_), named = wordEvidence(said);
        for (std::size_t i = 0; i < words.weight.size(); ++i)
            words.weight[i] = std::max(words.weight[i], 1.3 * named.weight[i]);
        sum += words;
        Tokens types = tokens_;
        for (const std::string* text : {&fields_.mpn, &fields_.kind}) {
            const Tokens more = tokensOf(*text);
            types.insert(types.end(), more.begin(), more.end());
        }
        sum += typeEvidence(types);
        sum += packageEvidence(tokens_, fields_.package + " " + fields_.kind);
        const KindEvidence amounts = amountEvidence(tokens_, byLetter, context_.manner);
        sum += amounts;
        // "TRIMMER CAP 6-50PF": what is adjusted is that first, whatever else it is called.
        const bool adjusted = std::any_of(tokens_.begin(), tokens_.end(),
                                          [](const Token& t) { return adjustableWord(t.text); });
        if (adjusted && words[PartKind::capacitor] > 0) sum[PartKind::trimmer] += 3;
        // What is turned has a value, too: "R62 500 ohm trimpot".
        const double turned = std::max(amounts[PartKind::resistor], amounts[PartKind::capacitor]);
        if (words[PartKind::trimmer] >= 5) sum[PartKind::trimmer] += turned;
        if (words[PartKind::other] >= 5) sum[PartKind::other] += turned;
        sum += coilEvidence(tokens_);
        if (byLetter[PartKind::resistor] > 0 && inValue_ == 1 && wholeNumber(tokens_[0].text, 7))
            sum[PartKind::resistor] += 2;
        out_.kind = sum.best();
        const auto lead = sum.lead();
        const auto wound = [](PartKind kind) { return kind == PartKind::coil || kind == PartKind::inductor; };
        if (lead.by < 0.6 && !(wound(out_.kind) && wound(lead.next)) && sum[out_.kind] > 0) {
            out_.doubts.push_back("It may be " + kindName(out_.kind) + " or " + kindName(lead.next) +
                                  ": the list does not say.");
        }
        const PartKind usual = byLetter.best();
        const bool overruled = unitOf(usual) != Unit::none && unitOf(out_.kind) != Unit::none &&
                               usual != out_.kind && byLetter[usual] >= 3 && byLetter[out_.kind] <= 0;
        if (overruled) {
            out_.doubts.push_back(std::string("The letter says ") + kindName(usual) + ", the row says " +
                                  kindName(out_.kind) + ".");
        }
        if (wound(out_.kind) && wound(lead.next) && lead.by < 0.6) out_.kind = PartKind::coil;
    }

    static std::string kindName(PartKind kind) {
        if (kind == PartKind::other) return "a connector or another part";
        if (kind == PartKind::ic) return "an IC";
        return (kind == PartKind::inductor ? "an " : "a ") + std::string(word(kind));
    }

    void takePackage() {
        for (Token& token : tokens_) {
            if (token.taken || !byPackage(token.text) || wholeNumber(token.text)) continue;
            if (unitOf(out_.kind) == Unit::none) continue;
            if (out_.package.empty()) out_.package = token.text;
        }
        if (!out_.package.empty() || unitOf(out_.kind) == Unit::none) return;
        // "0805" is a package where another number can be the value.
        std::size_t numbers = 0, chip = kNone;
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            if (tokens_[i].taken || tokens_[i].text.empty()) continue;
            const char first = tokens_[i].text[0];
            numbers += (first >= '0' && first <= '9') || first == '.';
            if (wholeNumber(tokens_[i].text) && byPackage(tokens_[i].text)) chip = i;
        }
        if (chip == kNone || numbers < 2) return;
        out_.package = tokens_[chip].text;
        tokens_[chip].taken = true;
    }

    // Counts ------------------------------------------------------------------------------------------

    /// "6x", "x6", "6 pcs", "qty 6" anywhere.
    void takeSaidCount() {
        static constexpr std::array<std::string_view, 14> after{
            "pcs", "pc",         "pce", "off", "x",   "pieces",      "stk",
            "st",  "st\u00fcck", "ea",  "pz",  "uds", "pi\u00e8ces", "each"};
        static constexpr std::array<std::string_view, 8> before{"qty",      "quantity", "menge", "anzahl",
                                                                "qt\u00e9", "cant",     "qta",   "count"};
        for (std::size_t i = 0; i < tokens_.size() && fields_.quantity.empty(); ++i) {
            if (tokens_[i].taken || tokens_[i].glued) continue;
            const std::string one = lowerText(tokens_[i].text);
            const bool times = one.size() > 1 && one.size() <= 5 &&
                               ((one.back() == 'x' && wholeNumber(one.substr(0, one.size() - 1))) ||
                                (one.front() == 'x' && wholeNumber(one.substr(1))));
            const auto is = [](const auto& list, const std::string& word) {
                return std::find(list.begin(), list.end(), word) != list.end();
            };
            const bool number = wholeNumber(one, 4);
            const std::string next = i + 1 < tokens_.size() ? lowerText(tokens_[i + 1].text) : std::string();
            const std::string last = i > 0 ? lowerText(tokens_[i - 1].text) : std::string();
            const bool pieces = number && is(after, next), named = number && is(before, last);
            if (!times && !pieces && !named) continue;
            // "2 x 8 turns" is how it is wound.
            const auto turns = [&](std::size_t at) {
                return at < tokens_.size() && coilEvidence({tokens_[at]})[PartKind::coil] > 0;
            };
            if (coilEvidence(tokens_)[PartKind::coil] >= 3 && (pieces || times) && i + 2 < tokens_.size() &&
                wholeNumber(tokens_[i + (pieces ? 2 : 1)].text, 3) && !turns(i + 1))
                continue;
            tokens_[i].taken = true;
            if (pieces) tokens_[i + 1].taken = true;
            if (named) tokens_[i - 1].taken = true;
            out_.quantity = readQuantity(one);
            return;
        }
    }

    /// "tap at 7", "and 12": a number behind such a word is a place, not a count.
    static bool placed(std::string_view word) {
        const std::string low = lowerText(word);
        return preposition(low) || low == "and" || low == "und" || low == "et" || low == "y" || low == "tap";
    }

    /// A bare number that is the quantity: where the file has it, else where the row lets it be one.
    void takeBareCount(bool valueKnown) {
        if (out_.quantity > 0 || !fields_.quantity.empty() || inValue_ > 0) return;
        std::vector<std::size_t> numbers;
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            const Token& token = tokens_[i];
            if (!token.taken && !token.glued && !token.bracketed && wholeNumber(token.text, 3) &&
                token.own.find_first_of("(.") == std::string::npos && !(i > 0 && placed(tokens_[i - 1].text)))
                numbers.push_back(i);
        }
        if (numbers.empty()) return;
        std::size_t chosen = kNone;
        using Count = RowContext::Count;
        const bool front = numbers.front() == 0, back = numbers.back() + 1 == tokens_.size();
        const auto count = [&](std::size_t i) { return std::size_t(readQuantity(tokens_[i].text)); };
        if (context_.count == Count::front && front) chosen = numbers.front();
        if (context_.count == Count::back && back) chosen = numbers.back();
        if (chosen == kNone && (valueKnown || numbers.size() > 1) && context_.count != Count::none) {
            if (back && count(numbers.back()) == out_.refs.size()) {
                chosen = numbers.back();
            } else if (front && count(numbers.front()) == out_.refs.size()) {
                chosen = numbers.front();
            } else if (back && valueKnown && context_.count == Count::unknown) {
                chosen = numbers.back();
            }
        }
        if (chosen == kNone) return;
        out_.quantity = readQuantity(tokens_[chosen].text);
        tokens_[chosen].taken = true;
    }

    void readQuantityCell() {
        const std::string cell(trimmed(fields_.quantity));
        if (cell.empty()) return;
        if (cell == "0") {
            out_.fitted = false;
            out_.doubts.push_back("The list says none of it: taken as not fitted.");
            return;
        }
        out_.quantity = readQuantity(cell);
        if (out_.quantity == 0) out_.doubts.push_back("\"" + cell.substr(0, 40) + "\" is no quantity.");
    }

    // Values ------------------------------------------------------------------------------------------

    /// Every amount that may be the value, the clearest first.
    std::vector<Found> candidates(Unit unit) const {
        std::vector<Found> out;
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            if (tokens_[i].joint == '@') continue;
            auto found = amountAt(tokens_, i, unit, context_.manner);
            if (!found || found->amount.said == Amount::Said::number) continue;
            if (found->amount.said == Amount::Said::prefix && byType(found->text)) continue;
            out.push_back(*found);
        }
        std::stable_sort(out.begin(), out.end(), [&](const Found& a, const Found& b) {
            const auto rank = [&](const Found& f) {
                return int(f.at < inValue_) * 4 + int(f.amount.said == Amount::Said::unit) * 2 -
                       int(tokens_[f.at].bracketed);
            };
            return rank(a) > rank(b);
        });
        return out;
    }

    static bool same(double a, double b) {
        return std::fabs(a - b) <= 1e-6 * std::max(std::fabs(a), std::fabs(b));
    }

    void readMeasured() {
        const Unit unit = unitOf(out_.kind);
        out_.unit = unit;
        readRatings();
        const auto found = candidates(unit);
        if (!found.empty()) {
            take(tokens_, found.front());
            setValue(found.front());
            // Others that say the same are the same; one that does not is a doubt.
            for (std::size_t i = 1; i < found.size(); ++i) {
                if (same(found[i].amount.value, out_.nominal)) {
                    take(tokens_, found[i]);
                } else if (!remarked(found[i])) {
                    value_.count = 2;
                }
            }
            takeCodeBesideValue();
            takeToleranceLetter(found.front());
            if (out_.kind == PartKind::capacitor && !(out_.volts > 0)) takeJoinedVolts(found.front());
            takeBareCount(true);
        } else {
            takeBareValueAndCount();
        }
        finishValue();
    }

    /// An amount behind a preposition, or in a remark's column, speaks of something else.
    bool remarked(const Found& found) const {
        const std::size_t remarks = tokensOf(fields_.remark).size();
        if (found.at + remarks >= tokens_.size()) return true;
        return found.at > 0 && preposition(tokens_[found.at - 1].text);
    }

    void setValue(const Found& found) {
        out_.nominal = found.amount.value;
        out_.link = out_.kind == PartKind::resistor && found.amount.value == 0;
        value_.text = found.text;
        value_.count = std::max<std::size_t>(value_.count, 1);
        value_.found = true;
        if (!found.amount.doubt.empty())
            out_.doubts.push_back("\"" + found.text + "\": " + found.amount.doubt + ".");
        if (found.amount.toleranceLetter) setTolerance(found.amount.toleranceLetter);
    }

    void setTolerance(char letter) {
        const ToleranceLetter* row = toleranceLetter(letter);
        if (row && !percent_ && row->low == row->high) percent_ = row->high;
    }

    void readRatings() {
        Tokens volts = tokensOf(
            fields_.volts +
            (fields_.volts.empty() || fields_.volts.find_first_of("Vv") != std::string::npos ? "" : "V"));
        const Manner& manner = context_.manner;
        const auto stated = takeRating(volts, Unit::volt, 0.5, 1e5, manner);
        const auto own = takeRating(tokens_, Unit::volt, 0.5, 1e5, manner);
        out_.volts = stated ? *stated : own ? *own : context_.volts;
        const auto watts = takeRating(tokens_, Unit::watt, 0.01, 1000, manner);
        out_.watts = watts ? *watts : context_.watts;
        takeRating(tokens_, Unit::ampere, 1e-6, 1000, manner);
        if (out_.kind == PartKind::resistor && !watts) takeBareWatts();
        Tokens percent = tokensOf(fields_.tolerance);
        percent_ = takeRating(percent, Unit::percent, 0.005, 100, manner);
        if (!percent_ && !trimmed(fields_.tolerance).empty()) {
            const auto plain = readAmount(trimmed(fields_.tolerance), Unit::percent, manner);
            if (plain && plain->value > 0 && plain->value <= 100) percent_ = plain->value;
        }
        const auto inRow = takeRating(tokens_, Unit::percent, 0.005, 100, manner);
        if (!percent_) percent_ = inRow;
    }

    /// "1/4" at a resistor is a quarter watt.
    void takeBareWatts() {
        for (Token& token : tokens_) {
            const auto at = token.text.find('/');
            if (token.taken || at == std::string::npos || at == 0) continue;
            if (!wholeNumber(token.text.substr(0, at), 1) || !wholeNumber(token.text.substr(at + 1), 2))
                continue;
            out_.watts = double(readQuantity(token.text.substr(0, at))) /
                         std::max(1.0, double(readQuantity(token.text.substr(at + 1))));
            token.taken = true;
            return;
        }
    }

    /// "100nF (104)", "100n 104": a code that reads the value that is there, or stands in brackets.
    void takeCodeBesideValue() {
        if (!out_.mark.empty()) return;
        for (Token& token : tokens_) {
            const bool code = !token.taken && token.text.size() >= 2 && token.text.size() <= 5 &&
                              token.text[0] >= '0' && token.text[0] <= '9' &&
                              token.text.find_first_of("./,%") == std::string::npos;
            if (!code || byPackage(token.text)) continue;
            const auto readings = readMark(token.text, out_.kind);
            const bool reads = std::any_of(readings.begin(), readings.end(),
                                           [&](const MarkReading& r) { return same(r.value, out_.nominal); });
            const bool plain = wholeNumber(token.text, 2);
            if ((reads && !plain) || (token.bracketed && !readings.empty() && !plain)) {
                out_.mark = token.text;
                token.taken = true;
                return;
            }
        }
    }

    /// "10k J": the letter of IEC 60062 behind the value.
    void takeToleranceLetter(const Found& found) {
        const std::size_t next = found.at + found.words;
        if (next >= tokens_.size() || tokens_[next].taken || tokens_[next].text.size() != 1) return;
        if (std::string("FGJKM").find(tokens_[next].text[0]) == std::string::npos) return;
        setTolerance(tokens_[next].text[0]);
        tokens_[next].taken = true;
    }

    /// "10u/25": a number joined to a capacitor's value is its voltage (common practice).
    void takeJoinedVolts(const Found& found) {
        const std::size_t next = found.at + found.words;
        if (next >= tokens_.size() || tokens_[next].taken || tokens_[next].joint != '/') return;
        const auto volts = readAmount(tokens_[next].text, Unit::volt, context_.manner);
        if (!volts || volts->value < 2 || volts->value > 2000) return;
        out_.volts = volts->value;
        tokens_[next].taken = true;
    }

    /// No amount with a unit or a prefix: a bare number must be the value, and it must not be the quantity.
    void takeBareValueAndCount() {
        if (context_.count == RowContext::Count::front || context_.count == RowContext::Count::back)
            takeBareCount(false);
        std::vector<std::size_t> numbers;
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            const Token& token = tokens_[i];
            if (token.taken || token.glued || (inValue_ > 0 && i >= inValue_)) continue;
            if (token.text.find_first_not_of("0123456789.,") == std::string::npos ||
                !readMark(token.text, out_.kind).empty())
                numbers.push_back(i);
        }
        const auto isCount = [&](std::size_t i) {
            return wholeNumber(tokens_[i].text, 3) && inValue_ == 0 && fields_.quantity.empty() &&
                   std::size_t(readQuantity(tokens_[i].text)) == out_.refs.size();
        };
        std::size_t chosen = kNone;
        for (const std::size_t i : numbers) {
            if (chosen == kNone && !(numbers.size() > 1 && isCount(i))) chosen = i;
        }
        if (chosen == kNone && !numbers.empty()) chosen = numbers.front();
        if (chosen == kNone) return;
        const std::string text = tokens_[chosen].text;
        const double value = bareValue(text);
        if (!(value > 0) && !(value == 0 && out_.kind == PartKind::resistor && text == "0")) return;
        tokens_[chosen].taken = true;
        out_.nominal = value;
        out_.link = value == 0;
        value_ = {
            true, 1, text,
            context_.prefix.empty() && !(out_.kind == PartKind::capacitor && value < 1e-6 &&
                                         value >= 0.9e-9 && text.find_first_of(".,") != std::string::npos)};
        if (out_.kind == PartKind::resistor) value_.bare = false;
        value_.bareNumber = true;
        value_.at = chosen;
        const bool mayBeCount = isCount(chosen) && out_.quantity == 0 && numbers.size() == 1;
        takeBareCount(true);
        if (mayBeCount && out_.quantity == 0) out_.doubts.push_back("\"" + text + "\" may be the quantity.");
        if (chosen + 1 < tokens_.size() && tokens_[chosen + 1].joint == '/') {
            Found found{{}, chosen, 1, text};
            if (out_.kind == PartKind::capacitor) takeJoinedVolts(found);
        }
    }

    /// A number without a unit: in the column's unit; ohms at a resistor; at a capacitor microfarads for a
    /// fraction and a code for whole digits; microhenries or a code at a choke (common practice).
    double bareValue(const std::string& text) const {
        if (!context_.prefix.empty()) {
            const auto named = readAmount(text + context_.prefix, unitOf(out_.kind), context_.manner);
            if (named) return named->value;
        }
        // An electrolytic's bare number is microfarads, a mica's or a polystyrene's picofarads.
        if (out_.kind == PartKind::capacitor) {
            const std::string words =
                lowerText(fields_.value + " " + fields_.description + " " + fields_.remark);
            const auto says = [&](std::initializer_list<const char*> list) {
                return std::any_of(list.begin(), list.end(),
                                   [&](const char* w) { return words.find(w) != std::string::npos; });
            };
            const char* prefix = says({"electro", "elektro", "elko", "elco", "tantal", "chimique", "elettro"})
                                     ? "uF"
                                 : says({"mica", "glimmer", "polystyr", "styroflex"}) ? "pF"
                                                                                      : nullptr;
            const auto named =
                prefix ? readAmount(text + prefix, Unit::farad, context_.manner) : std::nullopt;
            if (named) return named->value;
        }
        const auto plain = readAmount(text, unitOf(out_.kind), context_.manner);
        if (plain && plain->said == Amount::Said::number) {
            if (out_.kind == PartKind::resistor) return plain->value;
            if (!wholeNumber(text)) {
                if (out_.kind == PartKind::capacitor) return plain->value * (plain->value < 1 ? 1e-6 : 1e-12);
                return plain->value * 1e-6;
            }
        }
        const auto readings = readMark(text, out_.kind);
        return readings.empty() ? 0 : readings.front().value;
    }

    void finishValue() {
        out_.toleranceAssumed = !percent_ && !(context_.tolerance > 0);
        out_.description = untaken(tokens_);
        if (!value_.found) takeColours();
        if (!value_.found) {
            if (out_.fitted) out_.doubts.push_back("No value was found.");
            out_.value = out_.description;
            return;
        }
        const double usual = usualTolerance(out_.kind, out_.nominal, fields_.description + fields_.value);
        out_.tolerance = percent_ ? *percent_ : context_.tolerance > 0 ? context_.tolerance : usual;
        if (out_.link) {
            out_.value = "0 \u03a9 link";
            return;
        }
        doubtValue(out_, value_.text, value_.count, value_.bare);
        doubtMark(out_);
        doubtRange(fields_.value + " " + fields_.description, out_);
        doubtLeft();
        doubtWordBehind();
        doubtOthersParts();
        out_.value = formatQuantity(out_.nominal, out_.unit, 4);
    }

    /// "R2 brown black red": the bands are the value where no other stands.
    void takeColours() {
        const auto readings = out_.mark.empty() ? std::vector<MarkReading>() : readMark(out_.mark, out_.kind);
        if (readings.empty() || readings.front().code != MarkCode::bands) return;
        out_.nominal = readings.front().value;
        value_ = {true, 1, out_.mark};
        if (!percent_) percent_ = readings.front().tolerancePercent;
        if (readings.size() > 1) out_.doubts.push_back("Its bands can be read from either end.");
    }

    /// "47 zorkfarad", "10 кОм": a number alone, and behind it a word that nobody knows, may be something
    /// else.
    void doubtWordBehind() {
        if (!value_.bareNumber || value_.at + 1 >= tokens_.size()) return;
        const Token& next = tokens_[value_.at + 1];
        const std::string low = lowerText(next.text);
        const bool letters = std::all_of(low.begin(), low.end(), [](char c) {
            return (c >= 'a' && c <= 'z') || static_cast<unsigned char>(c) >= 0x80;
        });
        static constexpr std::string_view stems[] = {"ohm",  "farad",  "henr",   "hert",         "volt",
                                                     "watt", "\u043c", "\u0424", "\u0433\u043d", "\u0444"};
        const bool unit = std::any_of(std::begin(stems), std::end(stems), [&](std::string_view stem) {
            return low.find(stem) != std::string::npos;
        });
        const bool known = byWord(next.text).lead().by > 0 || byPackage(next.text) || byType(next.text) ||
                           isBandColour(low) || preposition(low);
        const bool inCell = inValue_ == 0 || value_.at + 1 < inValue_;
        if (next.taken || !letters || low.size() < 2 || next.bracketed || !inCell) return;
        if (unit || (!known && value_.at + 2 == tokens_.size() && inValue_ > 0))
            out_.doubts.push_back("\"" + value_.text + " " + next.own.substr(0, 30) +
                                  "\": the word behind the number is not known.");
    }

    /// "10k  c1 100n", "10k, and C1 is 100n": another part's designator with its value that was not used.
    void doubtOthersParts() {
        for (std::size_t i = 0; i + 1 < tokens_.size(); ++i) {
            if (tokens_[i].taken || tokens_[i].text.size() < 2 || tokens_[i].text.size() > 5) continue;
            const auto run = designatorRuns(tokens_[i].text, {Letters::any});
            const bool named =
                run.size() == 1 && run.front().begin == 0 && run.front().end == tokens_[i].text.size() &&
                std::string_view("RCLrcl").find(tokens_[i].text[0]) != std::string_view::npos &&
                wholeNumber(tokens_[i].text.substr(1), 3);
            if (!named || byPackage(tokens_[i].text) || byType(tokens_[i].text)) continue;
            const std::size_t at = i + 1 + (lowerText(tokens_[i + 1].text) == "is" && i + 2 < tokens_.size());
            for (const Unit unit : {Unit::ohm, Unit::farad, Unit::henry}) {
                const auto found = amountAt(tokens_, at, unit, context_.manner);
                if (!found || found->amount.said == Amount::Said::number) continue;
                out_.doubts.push_back("\"" + tokens_[i].own.substr(0, 12) + " " + found->text +
                                      "\" was not used: is it a part of its own?");
                return;
            }
        }
    }

    /// What begins like a number in the value's own cell and was not understood.
    void doubtLeft() {
        for (std::size_t i = 0; i < inValue_; ++i) {
            const Token& token = tokens_[i];
            const char first = token.text.empty() ? ' ' : token.text[0];
            const bool number = (first >= '0' && first <= '9') || first == '.';
            if (token.taken || !number || byPackage(token.text) || byWord(token.text).lead().by > 0 ||
                token.joint == '@')
                continue;
            out_.doubts.push_back("\"" + token.own.substr(0, 40) + "\" was not understood.");
        }
    }

    void readDescribed() {
        if (out_.quantity == 0) takeDescribedCount();
        if (out_.kind == PartKind::trimmer) readRange(fields_.value + " " + fields_.description, out_);
        Tokens value(tokens_.begin(), tokens_.begin() + std::ptrdiff_t(inValue_));
        Tokens rest(tokens_.begin() + std::ptrdiff_t(inValue_), tokens_.end());
        out_.value = untaken(value);
        out_.description = untaken(rest);
        if (out_.value.empty()) out_.value = out_.description;
        if (out_.value.empty()) out_.value = out_.mpn;
        if (out_.value.empty()) out_.value = std::string(trimmed(fields_.kind));
        if (out_.value.empty() && out_.fitted) out_.doubts.push_back("The list does not say what this is.");
        if (out_.kind == PartKind::crystal) doubtFrequencies();
        if (out_.kind == PartKind::coil && out_.fitted && wholeNumber(out_.value) &&
            out_.description.find(' ') == std::string::npos)
            out_.doubts.push_back("\"" + out_.value + "\" stands alone: turns, or an inductance?");
        const bool semiconductor =
            out_.kind == PartKind::diode || out_.kind == PartKind::transistor || out_.kind == PartKind::ic;
        for (const Token& token : tokens_) {
            if (semiconductor && out_.mpn.empty() && byType(token.text)) out_.mpn = token.text;
        }
        for (const Token& token : tokens_) {
            if (out_.package.empty() && byPackage(token.text) && !wholeNumber(token.text) &&
                !byType(token.text))
                out_.package = token.text;
        }
    }

    /// "7030 kHz 10116 kHz": one crystal has one.
    void doubtFrequencies() {
        double first = 0;
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            const auto found = amountAt(tokens_, i, Unit::hertz, context_.manner);
            if (!found || found->amount.said != Amount::Said::unit) continue;
            if (first > 0 && !same(first, found->amount.value)) {
                out_.doubts.push_back("More than one frequency stands here: one crystal has one.");
                return;
            }
            first = found->amount.value;
        }
    }

    /// The count of a described part: only where the file has it, or where it agrees with the designators.
    void takeDescribedCount() {
        if (inValue_ > 0 || tokens_.size() < 2) return;
        takeBareCount(true);
    }

    ListFields fields_;
    const RowContext& context_;
    ListLine out_;
    Tokens tokens_;
    std::size_t inValue_ = 0;  ///< how many of the words stand in the value's own cell
    std::optional<double> percent_;
    struct {
        bool found = false;
        std::size_t count = 0;
        std::string text;
        bool bare = false;
        bool bareNumber = false;  ///< neither unit nor prefix stood beside it
        std::size_t at = 0;
    } value_;
};

}  // namespace

double usualTolerance(PartKind kind, double nominal, std::string_view description) {
    const std::string words = lowered(description);
    if (kind == PartKind::resistor) return 5;
    if (kind == PartKind::capacitor && (words.find("electrolytic") != std::string::npos || nominal >= 0.9e-6))
        return 20;
    return 10;
}

ListLine understand(const ListFields& fields, const RowContext& context) {
    return RowReader(fields, context).read();
}

int readQuantity(std::string_view text) {
    std::string digits;
    for (const char c : trimmed(text)) {
        if (c >= '0' && c <= '9') {
            digits += c;
        } else if (!digits.empty()) {
            break;
        } else if (c != 'x' && c != 'X') {
            return 0;
        }
    }
    // "6 pcs" and "2x" are counts; "12V" and "3.5" are none.
    const auto at = trimmed(text).find_last_of("0123456789");
    const std::string tail =
        lowerText(trimmed(trimmed(text).substr(at == std::string_view::npos ? 0 : at + 1)));
    static constexpr std::array<std::string_view, 15> tails{"",    "x",          "pcs", "pc",   "pce",
                                                            "off", "pieces",     "stk", "stk.", "st",
                                                            "st.", "st\u00fcck", "ea",  "pz",   ".0"};
    const bool ends = std::find(tails.begin(), tails.end(), tail) != tails.end();
    if (digits.empty() || digits.size() > 5 || !ends) return 0;
    if (text.find_first_of(".,") != std::string_view::npos && tail != "stk." && tail != "st.") {
        // "6.0" as spreadsheets write a count.
        const std::string_view all = trimmed(text);
        const auto mark = all.find_first_of(".,");
        if (all.find_first_not_of("0", mark + 1) != std::string_view::npos) return 0;
    }
    return std::stoi(digits);
}

std::string valueText(const ListLine& line) {
    if (!(line.nominal > 0)) return line.value;
    return line.value + " ±" + personNumber(line.tolerance) + "\u202f%" +
           (line.toleranceAssumed ? " assumed" : "");
}

}  // namespace ombrek
