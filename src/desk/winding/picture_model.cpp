#include "desk/winding/picture_model.h"

#include "desk/session.h"
#include "station/winding/winding.h"

namespace ombrek {
namespace {

void say(const std::string& ref, const TurnCount& count, bool opened, bool changed, PictureCountView& v) {
    if (!opened) {
        v.now =
            QStringLiteral("Open a picture of %1.").arg(ref.empty() ? QStringLiteral("the coil") : qs(ref));
        v.why = QStringLiteral(
            "Every turn crosses the front of the ring once. It was proven on drawn pictures only: check the "
            "marks.");
        return;
    }
    v.now = QStringLiteral("%1 turns in the picture%2.")
                .arg(count.marks.size())
                .arg(changed      ? QStringLiteral(", by your marks")
                     : count.sure ? QString()
                                  : QStringLiteral(", not sure"));
    v.why = QStringLiteral("Look at every mark; Del strikes one, A adds one. Enter sets the counter to it.");
}

}  // namespace

PictureCountView pictureCountView(const Kit& kit, const Build& build, const std::string& ref,
                                  const TurnCount& count, bool opened, bool changed) {
    PictureCountView v;
    say(ref, count, opened, changed, v);
    const Coil* coil = kit.coil(ref);
    if (coil == nullptr) return v;
    const Winding& winding = coil->windings[windingInHand(*coil, build).value_or(0)];
    const int found = int(count.marks.size()), counted = build.winding(coil->ref, winding.name).turns;
    const auto against = [&](const QString& name, int turns) {
        return Fact{name, QString::number(turns),
                    turns == found ? VerdictState::pass : VerdictState::doubtful, opened};
    };
    v.facts = {
        {QStringLiteral("In the picture"), opened ? QString::number(found) : QStringLiteral("none yet")},
        against(QStringLiteral("Counted"), counted),
        against(QStringLiteral("The plan"), winding.turns)};
    if (coil->windings.size() > 1)
        v.text = QStringLiteral("All windings on the ring are seen together; this compares with %1.")
                     .arg(qs(winding.name));
    return v;
}

}  // namespace ombrek
