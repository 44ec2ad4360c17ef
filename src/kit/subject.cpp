#include "kit/subject.h"

#include <algorithm>
#include <array>

namespace ombrek {
namespace {

using Kind = Subject::Kind;
using Condition = Subject::Condition;

/// How a kind begins in text. One that takes an id ends with a colon; longer beginnings come first.
struct Form {
    Kind kind;
    std::string_view text;
    bool takesId() const { return text.ends_with(':'); }
};
constexpr std::array<Form, 16> kForms{{{Kind::part, "part:"},
                                       {Kind::loose, "loose:"},
                                       {Kind::coil, "coil:"},
                                       {Kind::check, "check:"},
                                       {Kind::adjustment, "adjust:"},
                                       {Kind::step, "step:"},
                                       {Kind::harmonic, "proof:harmonic:"},
                                       {Kind::node, "node:"},
                                       {Kind::supply, "proof:supply"},
                                       {Kind::power, "proof:power"},
                                       {Kind::current, "proof:current"},
                                       {Kind::frequency, "proof:frequency"},
                                       {Kind::openClips, "clips:open"},
                                       {Kind::reference, "reference:"},
                                       {Kind::crystal, "crystal:"},
                                       {Kind::dial, "dial:"}}};

struct ConditionWord {
    Condition condition;
    std::string_view text;
};
constexpr std::array<ConditionWord, 4> kConditions{{{Condition::powerOff, "#power-off"},
                                                    {Condition::icsOut, "#ics-out"},
                                                    {Condition::receive, "#receive"},
                                                    {Condition::keyDown, "#key-down"}}};

/// Bands are of the rig as a whole; a part's designator may hold any letter.
bool hasBands(Kind kind) {
    return kind == Kind::supply || kind == Kind::power || kind == Kind::frequency || kind == Kind::harmonic ||
           kind == Kind::current || kind == Kind::dial;
}

}  // namespace

std::string Subject::text() const {
    if (kind == Kind::unknown) return id;
    const auto form =
        std::find_if(kForms.begin(), kForms.end(), [&](const Form& f) { return f.kind == kind; });
    std::string out = std::string(form->text) + id;
    if (!band.empty()) out += "@" + band;
    for (const ConditionWord& c : kConditions) {
        if (c.condition == condition) out += c.text;
    }
    return out;
}

std::string nameOf(const Subject& subject) {
    const std::string text = subject.text();
    return text.substr(text.find(':') + 1);
}

Subject readSubject(std::string_view text) {
    Subject unknown{Kind::unknown, std::string(text), "", Condition::any};
    Subject out;
    for (const ConditionWord& c : kConditions) {
        if (!text.ends_with(c.text)) continue;
        out.condition = c.condition;
        text.remove_suffix(c.text.size());
    }
    const auto form =
        std::find_if(kForms.begin(), kForms.end(), [&](const Form& f) { return text.starts_with(f.text); });
    if (form == kForms.end()) return unknown;
    out.kind = form->kind;
    text.remove_prefix(form->text.size());
    if (const auto at = text.find('@'); hasBands(out.kind) && at != std::string_view::npos) {
        out.band = text.substr(at + 1);
        text = text.substr(0, at);
    }
    if (form->takesId() == text.empty()) return unknown;
    out.id = text;
    return out;
}

}  // namespace ombrek
