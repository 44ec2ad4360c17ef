#include "core/sums/sums.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <optional>

#include "core/coil/winding.h"
#include "core/parts/marks.h"
#include "core/proof/frequency.h"
#include "core/sums/arithmetic.h"
#include "core/sums/proof_sums.h"
#include "core/sums/relations.h"
#include "core/text/counted.h"
#include "core/text/letters.h"

namespace ombrek {

using namespace sums;

namespace {

using Answers = std::vector<SumAnswer>;

std::string upper(std::string text) {
    for (char& c : text) c = static_cast<char>(std::toupper(static_cast<unsigned char>(c)));
    return text;
}

/// "a WORD b" split at the first word; nothing if the word is not there between blanks.
std::optional<std::pair<std::string, std::string>> splitAt(const std::string& text, const std::string& word) {
    const auto at = text.find(" " + word + " ");
    if (at == std::string::npos) return std::nullopt;
    const std::string_view all = text;
    return std::pair{std::string(trimmed(all.substr(0, at))),
                     std::string(trimmed(all.substr(at + word.size() + 2)))};
}

Working simpleWorking(std::string formula, std::string put, std::string result, std::string source) {
    return Working{{{std::move(formula), std::move(put), std::move(result)}}, std::move(source)};
}

const MagneticCore* coreNamed(const std::string& name, const std::vector<MagneticCore>& cores) {
    const auto hit = std::find_if(cores.begin(), cores.end(),
                                  [&](const MagneticCore& c) { return upper(c.designation) == upper(name); });
    return hit == cores.end() ? nullptr : &*hit;
}

SumAnswer coilOf(const MagneticCore& core, int turns) {
    const double value = inductance(core, turns);
    return {std::to_string(turns) + " turns on " + core.designation, value, Unit::henry,
            formatQuantity(value, Unit::henry, 3), inductanceWorking(core, turns)};
}

Answers turnsWanted(const MagneticCore& core, double wanted) {
    if (!(wanted > 0)) return {};
    const double exact = std::sqrt(wanted / core.al);
    if (exact > 10000) return {};
    const int turns = turnsFor(core, wanted);
    Working working = simpleWorking(
        "N = √(L/AL)",
        "√(" + formatQuantity(wanted, Unit::henry, 4) + " / " + formatQuantity(core.al, Unit::henry, 4) + ")",
        formatQuantity(exact, Unit::none, 4), "");
    const Working back = inductanceWorking(core, turns);
    working.lines.insert(working.lines.end(), back.lines.begin(), back.lines.end());
    working.source = back.source;
    return {{"turns on " + core.designation + " for " + formatQuantity(wanted, Unit::henry, 4), double(turns),
             Unit::none,
             counted(turns, "turn") + ", " + formatQuantity(inductance(core, turns), Unit::henry, 3),
             working}};
}

/// "T50-2 18t", "T37-6 for 1.2u", "turns for 3 uH on T37-6": a core, a figure, and words that say nothing
/// more.
Answers coil(const Sentence& sentence, const std::vector<MagneticCore>& cores) {
    static constexpr std::string_view kSaid =
        " turns turn for on how many of wound core a the is what inductance with to get ";
    const MagneticCore* core = nullptr;
    const Figure* figure = nullptr;
    for (const Piece& piece : sentence.pieces) {
        const MagneticCore* named = coreNamed(piece.text, cores);
        if (named != nullptr && core == nullptr) {
            core = named;
        } else if (piece.what == Piece::What::figure && figure == nullptr) {
            figure = &piece.figure;
        } else if (piece.what != Piece::What::word ||
                   kSaid.find(" " + piece.text + " ") == std::string_view::npos) {
            return {};
        }
    }
    if (core == nullptr || figure == nullptr) return {};
    for (const Meaning& meaning : figure->meanings) {
        if (meaning.kind == Kind::turns) {
            const bool whole =
                meaning.value >= 1 && meaning.value <= 10000 && meaning.value == std::floor(meaning.value);
            return whole ? Answers{coilOf(*core, int(meaning.value))} : Answers{};
        }
        if (meaning.kind == Kind::henry) return turnsWanted(*core, meaning.value);
    }
    return {};
}

Answers comparison(const std::string& text) {
    const auto parts = splitAt(text, "vs");
    if (!parts) return {};
    const auto read = parseQuantity(parts->first), reference = parseQuantity(parts->second);
    if (!read || !reference || reference->value <= 0) return {};
    const bool units = read->unit != Unit::none && reference->unit != Unit::none;
    if (units && read->unit != reference->unit) return {};
    const Unit unit = read->unit != Unit::none ? read->unit : reference->unit;
    const double ppm = partsPerMillion(read->value, reference->value);
    const std::string difference = formatQuantity(read->value - reference->value, unit, 4);
    const bool small = std::fabs(ppm) < 20000;
    return {{"deviation", small ? ppm : ppm / 1e4, small ? Unit::ppm : Unit::percent,
             (small ? formatQuantity(ppm, Unit::ppm, 4) : formatQuantity(ppm / 1e4, Unit::percent, 3)) +
                 ", " + difference,
             deviationWorking(read->value, reference->value, unit)}};
}

Answers marks(const std::string& text) {
    Answers out;
    for (const MarkReading& m : readMark(text)) {
        const std::string tolerance = toleranceText(m).empty() ? std::string() : " " + toleranceText(m);
        out.push_back({std::string(word(m.kind)) + " marked " + text, m.value, m.unit,
                       formatQuantity(m.value, m.unit, 4) + tolerance,
                       simpleWorking(meaning(m), "", formatQuantity(m.value, m.unit, 4),
                                     "IEC 60062, common practice")});
    }
    return out;
}

Answers plainValue(const std::string& text) {
    const auto value = parseQuantity(text);
    if (!value) return {};
    return {{"value", value->value, value->unit, formatQuantity(value->value, value->unit, 6),
             simpleWorking(text, "", personNumber(value->value), "")}};
}

/// What a sum of signs comes to; in another unit where one is asked for.
Answers arithmetic(const std::string& text, const Sentence& sentence) {
    Answers out;
    for (const Meaning& meaning : reckoned(sentence)) {
        const std::string shown = kindText(meaning.kind, meaning.value);
        const auto wanted = std::find_if(sentence.wanted.begin(), sentence.wanted.end(),
                                         [&](const Wanted& w) { return w.kind == meaning.kind; });
        if (sentence.wanted.empty() || wanted != sentence.wanted.end()) {
            out.push_back({"the sum", meaning.value, unitOf(meaning.kind), shown,
                           simpleWorking(text, "", shown, "arithmetic")});
        } else {
            const Sentence turned{{{Piece::What::figure, {shown, {meaning}}, shown}}, sentence.wanted};
            for (SumAnswer& answer : answerByRelation(turned)) out.push_back(std::move(answer));
        }
    }
    return out;
}

std::vector<std::string> wordsOf(const Sentence& sentence) {
    std::vector<std::string> out;
    for (const Piece& piece : sentence.pieces) {
        if (piece.what == Piece::What::word) out.push_back(piece.text);
    }
    return out;
}

tl::unexpected<Problem> notUnderstood(const std::string& text, const Sentence& sentence) {
    static const std::string kTry = " Try 104, 4k7 || 10k, T50-6 for 2.9u, 31 Vpp in W, half wave 7.03 MHz.";
    if (text.empty()) return problem("", "Type what is on the part, or a sum: 104, T50-6 18t, 5 W in dBm.");
    const std::string unknown = wordUnknown(sentence);
    if (!unknown.empty() && wordsOf(sentence).size() > 1)
        return problem("",
                       "\"" + unknown.substr(0, 40) + "\" is not a word of the sums that are known." + kTry);
    return problem("", "\"" + text.substr(0, 40) + "\" is not understood." + kTry);
}

}  // namespace

Result<std::vector<SumAnswer>> answerSum(std::string_view typed, const std::vector<MagneticCore>& cores) {
    const std::string text(trimmed(typed.substr(0, 200)));
    const Sentence sentence = readSentence(text);
    Answers out;
    const auto add = [&](Answers more) { out.insert(out.end(), more.begin(), more.end()); };
    add(coil(sentence, cores));
    if (out.empty()) add(comparison(text));
    if (out.empty()) add(proofSums(text));
    if (out.empty()) {
        // A mark has no words: "220 1W" may be one, "1 W in 220 ohm" not.
        const bool bare = sentence.wanted.empty() && wordsOf(sentence).empty() && sentence.pieces.size() > 1;
        if (bare) add(marks(text));
        add(arithmetic(text, sentence));
        if (out.empty() || bare) add(answerByRelation(sentence, out.empty()));
    }
    if (out.empty() && sentence.wanted.empty()) {
        add(marks(text));
        const bool alreadyRead = !out.empty() && text.find_first_of("RKkMpnu\u00b5") != std::string::npos;
        if (!alreadyRead) add(plainValue(text));
    }
    if (out.empty()) return notUnderstood(text, sentence);
    return out;
}

}  // namespace ombrek
