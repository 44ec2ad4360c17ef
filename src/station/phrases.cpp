#include "station/phrases.h"

#include <array>

#include "station/parts_in/parts_in.h"

namespace ombrek {

Verdict toldNot(std::string sentence) {
    Verdict out;
    out.state = VerdictState::cannotTell;
    out.sentence = std::move(sentence);
    return out;
}

std::string listed(const std::vector<std::string>& refs, std::size_t most) {
    std::string out;
    for (std::size_t i = 0; i < refs.size() && i < most; ++i) out += (i ? ", " : "") + refs[i];
    if (refs.size() > most) out += " and " + std::to_string(refs.size() - most) + " more";
    return out;
}

std::string markSentence(const Part& part, const std::string& printed) {
    if (markAgrees(part, printed)) return printed + " is as the list wants.";
    if (!part.measurable())
        return printed + " is not " + (part.mark.empty() ? part.value : part.mark) +
               ": E accepts another type.";
    const auto readings = readMark(printed, part.kind);
    if (readings.empty()) return "\"" + printed + "\" is no mark that is known: measure it.";
    const MarkReading& r = readings.front();
    const std::string tolerance = toleranceText(r);
    return printed + " is " + formatQuantity(r.value, r.unit, 4) +
           (tolerance.empty() ? "" : " " + tolerance) + ", not " + part.value + ": measure it.";
}

std::string remedyText(const Build& build, const std::string& ref) {
    const auto remedy = build.remedies.find(ref);
    if (remedy == build.remedies.end()) return "";
    switch (remedy->second.how) {
        case Remedy::How::drawer:
            return "from your drawers: " + remedy->second.note;
        case Remedy::How::shopping:
            return "on the shopping list";
        case Remedy::How::supplier:
            return "asked of the supplier";
        case Remedy::How::equivalent:
            return "another type: " + remedy->second.note;
    }
    return "";
}

std::string countWord(std::size_t count) {
    static constexpr std::array<const char*, 10> words{"no",   "one", "two",   "three", "four",
                                                       "five", "six", "seven", "eight", "nine"};
    return count < words.size() ? words[count] : std::to_string(count);
}

std::string valueText(const Part& part) {
    return part.nominal > 0 ? part.value + " ±" + personNumber(part.tolerance) + "\u202f%" : part.value;
}

}  // namespace ombrek
