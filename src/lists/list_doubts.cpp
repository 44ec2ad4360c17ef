#include "lists/list_doubts.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/parts/marks.h"
#include "core/quantity/preferred.h"
#include "core/text/letters.h"

namespace ombrek {

void readRange(std::string_view text, ListLine& out) {
    const auto digit = [](char c) { return c >= '0' && c <= '9'; };
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (!digit(text[i]) || (i > 0 && (digit(text[i - 1]) || text[i - 1] == '.'))) continue;
        std::size_t end = i;
        while (end < text.size() && (digit(text[end]) || text[end] == '.' || text[end] == ',')) ++end;
        const std::string low(text.substr(i, end - i));
        std::string_view rest = trimmed(text.substr(end));
        if (rest.starts_with("pF")) rest = trimmed(rest.substr(2));
        std::size_t sign = 0;
        for (const std::string_view s : {"\u2013", "\u2026", "..", "to ", "-"}) {
            if (rest.starts_with(s)) sign = s.size();
        }
        if (sign == 0) continue;
        rest = trimmed(rest.substr(sign));
        std::size_t stop = 0;
        while (stop < rest.size() && (digit(rest[stop]) || rest[stop] == '.')) ++stop;
        const std::string_view unit = trimmed(rest.substr(stop));
        if (stop == 0 || !(lowered(unit.substr(0, 2)) == "pf" || unit.starts_with('p'))) continue;
        const auto a = parseQuantity(low + "p", Unit::farad);
        const auto b = parseQuantity(std::string(rest.substr(0, stop)) + "p", Unit::farad);
        if (!a || !b || b->value <= a->value) continue;
        out.low = a->value;
        out.high = b->value;
        out.unit = Unit::farad;
        return;
    }
}

void doubtRange(std::string_view text, ListLine& out) {
    ListLine range;
    readRange(text, range);
    if (out.kind == PartKind::capacitor && range.high > range.low)
        out.doubts.push_back("A range stands here, " + formatQuantity(range.low, Unit::farad, 3) + " to " +
                             formatQuantity(range.high, Unit::farad, 3) + ": is it adjustable?");
}

void doubtValue(ListLine& out, const std::string& said, std::size_t count, bool bare) {
    const std::string text = formatQuantity(out.nominal, out.unit, 4);
    if (count > 1)
        out.doubts.push_back("More than one value stands here; the first was taken: " + text + ".");
    if (bare && out.kind != PartKind::resistor)
        out.doubts.push_back("\"" + said + "\" has no unit: taken as " + text + ".");
    const bool preferred = isPreferred(out.nominal, Series::e24) || isPreferred(out.nominal, Series::e96) ||
                           isPreferred(out.nominal, Series::e192);
    // Chokes come in other steps too, 2.5 mH among them.
    if (!preferred && out.kind != PartKind::inductor)
        out.doubts.push_back(text + " is no preferred value (IEC 60063).");
    struct Range {
        PartKind kind;
        double low, high;
    };
    static constexpr std::array<Range, 3> usual{{{PartKind::resistor, 0.1, 50e6},
                                                 {PartKind::capacitor, 0.2e-12, 0.05},
                                                 {PartKind::inductor, 1e-9, 1}}};
    for (const Range& r : usual) {
        if (r.kind == out.kind && (out.nominal < r.low || out.nominal > r.high))
            out.doubts.push_back(text + " is an unusual value; check its prefix.");
    }
}

void doubtMark(ListLine& out) {
    if (out.mark.empty() || !(out.nominal > 0)) return;
    const auto readings = readMark(out.mark, out.kind);
    if (readings.empty()) return;
    const bool agrees = std::any_of(readings.begin(), readings.end(), [&](const MarkReading& r) {
        return std::fabs(r.value / out.nominal - 1) < 1e-3;
    });
    if (!agrees) {
        out.doubts.push_back("The mark " + out.mark + " would be " +
                             formatQuantity(readings.front().value, out.unit, 4) + ", not " +
                             formatQuantity(out.nominal, out.unit, 4) + ".");
    } else if (std::count(out.mark.begin(), out.mark.end(), ' ') == 2 && out.mark.size() > 8) {
        // Three colours are the value alone; lists leave the tolerance band out.
    } else if (out.toleranceAssumed && readings.front().tolerancePercent) {
        out.tolerance = *readings.front().tolerancePercent;
        out.toleranceAssumed = false;
    }
}

}  // namespace ombrek
