#include "desk/kit_sheet/kit_model.h"

#include <algorithm>
#include <set>

#include "look/qs.h"
#include "station/notes.h"
#include "station/phrases.h"

namespace ombrek {
namespace {

QString shortened(const std::string& text) {
    return text.size() > 60 ? qs(text).left(57) + QStringLiteral("…") : qs(text);
}

}  // namespace

const std::vector<BenchWord>& benchWords() {
    static const std::vector<BenchWord> words{
        {"bench solder", "Solder", "Solder: alloy and diameter, as Sn63Pb37 0.7 mm"},
        {"bench iron", "Iron", "Iron: temperature and tip"},
        {"bench flux", "Flux", "Flux, or none"},
        {"bench rules", "Rules", "A rule of your own bench"}};
    return words;
}

KitView kitView(const Kit& kit, const Build& build) {
    KitView v;
    v.title = QStringLiteral("Otherwise than the paper");
    for (const Note& note : notesOf(kit, build)) {
        const QString title = qs(note.title);
        if (!note.erratum.empty())
            v.rows.push_back({{VerdictState::fail, title + QStringLiteral(": ") + qs(note.erratum),
                               QStringLiteral("erratum"), false, false},
                              note.at,
                              QStringLiteral("The paper is wrong here: ") + qs(note.erratum)});
        if (!note.otherwise.empty())
            v.rows.push_back({{VerdictState::doubtful, title + QStringLiteral(": ") + qs(note.otherwise),
                               QStringLiteral("made otherwise"), false, false},
                              note.at,
                              QStringLiteral("Made otherwise: ") + qs(note.otherwise)});
    }
    v.now = kit.variants.size() > 1 ? QStringLiteral("%1, built as %2.").arg(qs(kit.name), qs(kit.variant))
                                    : QStringLiteral("%1: the kit itself.").arg(qs(kit.name));
    v.why = v.rows.empty()
                ? QStringLiteral(
                      "As its paper says, so far. Shift+E at a part, coil, step or check "
                      "notes an erratum, Shift+D what you did otherwise.")
                : QStringLiteral("Errata go with the kit file, what you did otherwise into the report.");
    return v;
}

KitView compareView(const std::vector<KitDifference>& differences, const QString& file) {
    KitView v;
    v.title = QStringLiteral("Yours against %1").arg(file);
    v.now = qs(comparedInWords(differences));
    v.why = differences.empty() ? QStringLiteral("Nothing to take over. Esc leaves it.")
                                : QStringLiteral(
                                      "M takes theirs over: what you measured, wrote and fitted stays. "
                                      "Esc leaves it.");
    for (const KitDifference& d : differences) {
        const QString at =
            d.subject.is(Subject::Kind::unknown) ? QStringLiteral("The kit") : qs(nameOf(d.subject));
        const QString what =
            d.field.empty() ? (d.mine.empty() ? QStringLiteral("only theirs") : QStringLiteral("only yours"))
                            : qs(d.field);
        const QString text = d.field.empty()
                                 ? at
                                 : at + QStringLiteral(": ") + shortened(d.mine.empty() ? "–" : d.mine) +
                                       QStringLiteral(" → ") + shortened(d.theirs.empty() ? "–" : d.theirs);
        v.rows.push_back(
            {{d.field == "erratum" ? VerdictState::fail : VerdictState::doubtful, text, what, false, false},
             d.subject,
             QStringLiteral("Yours: %1\nTheirs: %2")
                 .arg(qs(d.mine.empty() ? "–" : d.mine), qs(d.theirs.empty() ? "–" : d.theirs))});
    }
    return v;
}

std::vector<Fact> materialFacts(const Kit& kit) {
    std::vector<Fact> out;
    if (!kit.variants.empty())
        out.push_back({QStringLiteral("Variant"),
                       QStringLiteral("%1, of %2").arg(qs(kit.variant)).arg(kit.variants.size())});
    for (const std::string& name : kit.upgrades) out.push_back({QStringLiteral("Upgrade"), qs(name)});
    const auto count = [&](const char* what, std::size_t number, const char* none) {
        out.push_back({QString::fromUtf8(what),
                       number > 0 ? QString::number(number) : QString::fromUtf8(none),
                       VerdictState::cannotTell, number == 0});
    };
    const auto placed = std::count_if(kit.parts.begin(), kit.parts.end(),
                                      [](const Part& part) { return part.place.has_value(); });
    count("Parts", kit.parts.size(), "none");
    count("Parts with a place", std::size_t(placed), "none: at F3, I reads a placement table");
    count("Coils", kit.coils.size(), "none named: at F2, Ins enters them");
    count("Steps", kit.steps.size(), "none: at F3, Ins enters them");
    count("Checks", kit.checks.size(), "none named: at F4, Ins enters them");
    count("Adjustments", kit.adjustments.size(), "none named: at F5, Ins enters them");
    const bool told = kit.ratings.transmits() || !kit.ratings.mayTransmit();
    out.push_back({QStringLiteral("Promised"),
                   !kit.ratings.mayTransmit() ? QStringLiteral("does not transmit")
                   : !kit.ratings.transmits()
                       ? QStringLiteral("not said: at F6, Ins enters it")
                       : qs(formatQuantity(kit.ratings.power, Unit::watt, 3) + " at " +
                            formatQuantity(kit.ratings.supply, Unit::volt, 3) + " on " +
                            formatQuantity(kit.ratings.frequency, Unit::hertz, 5)),
                   VerdictState::cannotTell, !told});
    return out;
}

QString readyText(const Kit& kit) {
    QStringList out;
    if (!kit.documents.empty()) out << QStringLiteral("Documents: %1.").arg(qs(listed(kit.documents)));
    std::vector<std::string> tools;
    for (const Step& step : kit.steps) {
        for (const std::string& tool : step.tools) {
            if (std::find(tools.begin(), tools.end(), tool) == tools.end()) tools.push_back(tool);
        }
    }
    if (!tools.empty()) out << QStringLiteral("Its steps want: %1.").arg(qs(listed(tools, 12)));
    return out.join(QChar(' '));
}

std::vector<std::string> solderedIn(const Kit& kit, const Build& build,
                                    const std::vector<Subject>& replaced) {
    std::vector<std::string> out;
    for (const Step& step : kit.steps) {
        if (!build.done(step.id)) continue;
        for (const std::string& ref : step.fits) {
            const bool named =
                std::any_of(replaced.begin(), replaced.end(), [&](const Subject& s) { return s.id == ref; });
            if (named && std::find(out.begin(), out.end(), ref) == out.end()) out.push_back(ref);
        }
    }
    return out;
}

std::vector<Subject> replacedBetween(const std::string& before, const std::string& after) {
    std::vector<Subject> out;
    static const std::set<std::string> beside{"erratum", "place", "what", "note", "bag", "tune"};
    for (const KitDifference& d : compareKits(before, after)) {
        if (!d.subject.is(Subject::Kind::part) && !d.subject.is(Subject::Kind::coil)) continue;
        if (beside.contains(d.field)) continue;
        if (std::find(out.begin(), out.end(), d.subject) == out.end()) out.push_back(d.subject);
    }
    return out;
}

}  // namespace ombrek
