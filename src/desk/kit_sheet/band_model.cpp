#include "desk/kit_sheet/band_model.h"
#include "look/qs.h"

#include <algorithm>
#include <cmath>

namespace ombrek {
namespace {

constexpr double kDeepest = 90;  ///< shown [dB]

StateLine lineOf(const Rewound& coil) {
    const QString turns = QStringLiteral("%1 turns on %2, was %3 on %4")
                              .arg(coil.turnsAfter.front())
                              .arg(qs(coil.coreAfter))
                              .arg(coil.turnsBefore.front())
                              .arg(qs(coil.coreBefore));
    return {coil.note.empty() ? VerdictState::pass : VerdictState::doubtful,
            qs(coil.ref) + QStringLiteral(": ") + turns, qs(formatQuantity(coil.after, Unit::henry, 3)),
            false, false};
}

StateLine lineOf(const Recapped& c) {
    return {VerdictState::pass,
            QStringLiteral("%1: %2, was %3")
                .arg(qs(c.ref), qs(formatQuantity(c.after, Unit::farad, 3)),
                     qs(formatQuantity(c.before, Unit::farad, 3))),
            QStringLiteral("exact %1").arg(qs(formatQuantity(c.wanted, Unit::farad, 3))), false, false};
}

PlotData responsePlot(const Rebuilt& rebuilt) {
    PlotData out;
    out.title = QStringLiteral("Low-pass");
    out.xLabel = QStringLiteral("frequency over the band's upper end");
    out.yLabel = QStringLiteral("[dB]");
    out.xLow = 0.25;
    out.xHigh = 5;
    out.yLow = -kDeepest;
    out.yHigh = 3;
    // Each over its own band, so that the two shapes lie on each other.
    PlotData::Series before, after;
    for (double x = out.xLow; x <= out.xHigh; x += 0.02) {
        before.x.push_back(x);
        before.y.push_back(
            -std::min(kDeepest, insertionLoss(rebuilt.before, x * rebuilt.from.high, rebuilt.ohms)));
        after.x.push_back(x);
        after.y.push_back(
            -std::min(kDeepest, insertionLoss(rebuilt.after, x * rebuilt.band.high, rebuilt.ohms)));
    }
    out.series = {before, after};
    out.marks.push_back({true, 1, QStringLiteral("band"), true});
    out.marks.push_back({true, 2 * rebuilt.band.low / rebuilt.band.high, QStringLiteral("2nd"), false});
    out.marks.push_back({true, 3 * rebuilt.band.low / rebuilt.band.high, QStringLiteral("3rd"), false});
    return out;
}

}  // namespace

std::string bandName(const Band& band) {
    // With common blanks: it is typed, too.
    const auto said = [](double hertz) {
        std::string out = formatQuantity(hertz, Unit::hertz, 4);
        const auto at = out.find("\u202f");
        return at == std::string::npos ? out : out.replace(at, 3, " ");
    };
    const std::string low = said(band.low), high = said(band.high);
    return band.low == band.high ? high : low.substr(0, low.find(' ')) + " to " + high;
}

BandView bandView(const Rebuilt& rebuilt, bool prototype) {
    BandView v;
    v.now = QStringLiteral("For %1: wind %2 coils anew, change %3 capacitors.")
                .arg(qs(bandName(rebuilt.band)))
                .arg(rebuilt.coils.size())
                .arg(rebuilt.capacitors.size());
    v.why = QStringLiteral("From %1, %2. Enter takes it as a variant of this kit; nothing is lost.")
                .arg(qs(bandName(rebuilt.from)),
                     prototype ? QStringLiteral("low-pass from a 0.1 dB Chebyshev prototype")
                               : QStringLiteral("scaled from the kit's own values"));
    if (!rebuilt.barred.empty()) {
        v.now = QStringLiteral("For %1 its low-pass must be known first.").arg(qs(bandName(rebuilt.band)));
        v.why = qs(rebuilt.barred) + QStringLiteral(" L enters it, from the finals to the antenna.");
    }
    for (const FilterElement& e : rebuilt.lowPass) {
        if (const Rewound* coil = rebuilt.coil(e.ref)) v.elements.push_back(lineOf(*coil));
        if (const Recapped* c = rebuilt.capacitor(e.ref)) v.elements.push_back(lineOf(*c));
    }
    const auto inLowPass = [&](const std::string& ref) {
        return std::any_of(rebuilt.lowPass.begin(), rebuilt.lowPass.end(),
                           [&](const FilterElement& e) { return e.ref == ref; });
    };
    for (const Rewound& coil : rebuilt.coils) {
        if (!inLowPass(coil.ref)) v.elements.push_back(lineOf(coil));
    }
    for (const Recapped& c : rebuilt.capacitors) {
        if (!inLowPass(c.ref)) v.elements.push_back(lineOf(c));
    }
    QStringList said;
    for (const std::string& doubt : rebuilt.doubts) said << qs(doubt);
    for (const Rewound& coil : rebuilt.coils) {
        if (!coil.note.empty()) said << qs(coil.ref + ": " + coil.note);
    }
    for (const std::string& again : rebuilt.again) {
        if (again == kProveAgain) {
            v.caution = qs(again);
        } else if (!again.starts_with("Measure ")) {
            said << qs(again);
        }
    }
    v.text = said.join(QChar('\n'));
    v.plotted = !rebuilt.after.empty();
    if (v.plotted) v.plot = responsePlot(rebuilt);
    return v;
}

}  // namespace ombrek
