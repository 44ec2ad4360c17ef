#include "desk/winding/trimmer_model.h"

#include <algorithm>
#include <cmath>

#include "desk/session.h"
#include "station/winding/winding.h"

namespace ombrek {
namespace {

QString plain(double value, Unit unit, int figures) { return qs(formatQuantity(value, unit, figures)); }

void sayTried(const TrimmerCover& cover, int tried, int turns, TrimmerPageView& v) {
    v.now = QStringLiteral("With %1 turns instead of %2: %3.")
                .arg(tried)
                .arg(turns)
                .arg(cover.state == VerdictState::pass   ? QStringLiteral("it reaches")
                     : cover.state == VerdictState::fail ? QStringLiteral("it does not reach")
                                                         : QStringLiteral("it reaches, near an end"));
    v.why = QStringLiteral("Only tried: the coil in the book is as it was.");
}

void sayAsItIs(const Coil& coil, int change, bool known, TrimmerPageView& v) {
    if (change != 0) {
        v.now = QStringLiteral("%1 %2 turns on %3 before it is soldered.")
                    .arg(change > 0 ? QStringLiteral("Add") : QStringLiteral("Take off"))
                    .arg(std::abs(change))
                    .arg(qs(coil.ref));
        v.why = qs(v.cover.sentence);
        return;
    }
    v.now = QStringLiteral("%1 will reach its band with %2.").arg(qs(coil.tune->trimmer), qs(coil.ref));
    v.why = known ? QStringLiteral("By the measured inductance. Solder it, with its tails long.")
                  : QStringLiteral("By the kit's figures; look again when the coil is measured.");
}

void addChance(const Kit& kit, const Coil& coil, const Build& build, bool known, TrimmerPageView& v) {
    const auto chance = coilReach(kit, coil, build);
    if (!chance) return;
    const auto share = [](double of) { return QStringLiteral("%1\u202f%").arg(std::lround(of * 100)); };
    v.chance = {{QStringLiteral("Reaches the band"), share(chance->reaches)},
                {QStringLiteral("Well inside its travel"), share(chance->healthy)}};
    v.chanceText =
        QStringLiteral(
            "%1 coils drawn by lot: %2 of the inductance, the fixed capacitors and the trimmer's "
            "ends each anywhere within theirs.")
            .arg(chance->trials)
            .arg(known ? QStringLiteral("the meter's error") : QStringLiteral("the core's tolerance"));
}

}  // namespace

std::vector<const Coil*> tunedCoils(const Kit& kit) {
    std::vector<const Coil*> out;
    for (const Coil& coil : kit.coils) {
        if (coil.tune) out.push_back(&coil);
    }
    return out;
}

TrimmerPageView trimmerPageView(const Kit& kit, const Build& build, const std::string& ref, int more) {
    TrimmerPageView v;
    const Coil* coil = kit.coil(ref);
    if (coil == nullptr || !coil->tune) {
        v.now = QStringLiteral("No coil of this kit has a trimmer.");
        v.why = QStringLiteral("Esc goes back.");
        return v;
    }
    v.coil = coil;
    const Reading* measured = build.last(Subject::coil(coil->ref));
    const bool known = measured != nullptr && measured->value > 0;
    const int turns = mainTurns(*coil, build), tried = std::max(1, turns + more);
    const double now = known ? measured->value : coil->target;
    const double value = now * tried * tried / (double(turns) * turns);
    const TankCapacitance tank = tankOf(kit, *coil->tune);
    v.cover = trimmerCover(value, tried, tank, coil->tune->low, coil->tune->high);
    if (more != 0) {
        sayTried(v.cover, tried, turns, v);
    } else {
        sayAsItIs(*coil, turnsChange(v.cover, tried), known, v);
    }
    v.facts = {
        {known ? QStringLiteral("Measured") : QStringLiteral("Wanted"), plain(now, Unit::henry, 4)},
        {QStringLiteral("Turns"), QString::number(turns)},
        {tank.stray > 0 ? QStringLiteral("Fixed, with strays") : QStringLiteral("Fixed, strays not said"),
         plain(tank.fixed + tank.stray, Unit::farad, 3)},
        {qs(coil->tune->trimmer), plain(tank.trimmerLow, Unit::farad, 3) + QStringLiteral(" to ") +
                                      plain(tank.trimmerHigh, Unit::farad, 3)},
        {QStringLiteral("Centred with"),
         plain(v.cover.turnsToCentre, Unit::none, 3) + QStringLiteral(" turns")}};
    // Common practice: a board and what follows add 3 to 10 pF.
    if (!(tank.stray > 0))
        v.why += QStringLiteral(" Strays are not said; S takes them, 3 to 10 pF are usual.");
    addChance(kit, *coil, build, known, v);
    return v;
}

}  // namespace ombrek
