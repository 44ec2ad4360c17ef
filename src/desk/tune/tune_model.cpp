#include "desk/tune/tune_model.h"

#include <algorithm>
#include <cmath>

#include "desk/session.h"
#include "judged/tune_next.h"
#include "station/rests_on.h"
#include "station/tune/tune_rounds.h"
#include "station/tune/tune_ways.h"

namespace ombrek {
namespace {

constexpr double kSameSide = 0.002;  ///< a nearer place is no turning back [travel]
constexpr double kPlay = 0.05;       ///< it is gone below what is wanted by this much, to take up its play

const Adjustment* inHand(const Judged& judged, const std::string& chosen, const Adjustment* next) {
    const Kit& kit = judged.kit();
    if (const Adjustment* hit = kit.adjustment(chosen)) return hit;
    if (next != nullptr) return next;
    return kit.adjustments.empty() ? nullptr : &kit.adjustments.back();
}

QString place(const Adjustment& a, double position) { return qs(positionText(a.turned, position)); }

/// "turn C10 to 51.8 %", and from below where it has play, so that it is always come to from one side. Never
/// up past where it is wanted, and a bias is not danced with.
QString turnWords(const TuneView& v) {
    const Adjustment& a = *v.adjustment;
    const double to = v.state.nextPosition;
    const bool down = v.last && v.last->subject.id == a.id && hasPlay(a.turned) && a.safe == SafeEnd::none &&
                      v.last->setting(kPosition) > to + kSameSide && to > kPlay;
    if (down) return QStringLiteral("turn %1 down past it, then up to %2").arg(qs(a.adjuster), place(a, to));
    return QStringLiteral("turn %1 to %2").arg(qs(a.adjuster), place(a, to));
}

QString readWords(const TuneView& v) {
    if (v.seen()) return QStringLiteral("and look: Y seen, N not");
    return v.marked() ? QStringLiteral("and type what it shows") : QStringLiteral("and read");
}

void say(TuneView& v) {
    const Adjustment& a = *v.adjustment;
    const bool knowingly = v.last.has_value();  // begun all the same: the way goes on
    if (v.settled()) {
        v.now = QStringLiteral("%1: settled.").arg(qs(a.title));
        v.why = v.next ? QStringLiteral("Enter goes on: %1.").arg(qs(v.next->title))
                       : QStringLiteral("All are settled; F6 goes to Proof.");
    } else if (v.before.bars() || (!v.before.clear() && !knowingly)) {
        v.now = qs(v.before.now);
        v.why = qs(v.before.why);
    } else if (v.state.meterEnds) {
        const bool other = v.next != nullptr && v.next != v.adjustment;
        v.now = QStringLiteral("%1: as near as this meter tells.").arg(qs(a.title));
        v.why = qs(v.state.sentence) + (other ? QStringLiteral(" Enter goes on: %1.").arg(qs(v.next->title))
                                              : QStringLiteral(" A better meter decides; R reads it again."));
    } else if (!v.state.remedy.empty()) {
        v.now = qs(v.state.remedy);
        v.why = qs(v.state.sentence);
    } else if (const Adjustment* other = v.other) {
        v.now = QStringLiteral("Now the other: %1.").arg(qs(other->title));
        v.why = qs(v.state.sentence) + QStringLiteral(" Enter goes there; R reads this one all the same.");
    } else {
        v.now = QStringLiteral("%1: %2 %3.").arg(qs(a.title), turnWords(v), readWords(v));
        v.why = qs(v.state.sentence);
        if (!v.before.clear()) v.why += QChar(' ') + qs(v.before.now);
    }
}

QString quantity(double value, Unit unit, int digits) { return qs(formatQuantity(value, unit, digits)); }

void addBias(const TuneView& v, std::vector<Fact>& out) {
    const Adjustment& a = *v.adjustment;
    if (a.never > 0) out.push_back({QStringLiteral("Never"), quantity(a.never, a.unit, 3)});
    if (!v.state.bias) return;
    const BiasState& bias = *v.state.bias;
    if (!std::isnan(bias.baseline))
        out.push_back({QStringLiteral("At its safe end"), quantity(bias.baseline, a.unit, 3)});
    if (!std::isnan(bias.rise)) out.push_back({QStringLiteral("Over that"), quantity(bias.rise, a.unit, 2)});
    if (!v.state.shares) return;
    for (std::size_t i = 0; i < v.state.shares->each.size(); ++i) {
        const double share = v.state.shares->each[i];
        if (!std::isnan(share)) out.push_back({qs(a.each[i]), quantity(share, a.unit, 2)});
    }
}

std::vector<Fact> factsOf(const TuneView& v, const BackOff& way, double position) {
    const Adjustment& a = *v.adjustment;
    std::vector<Fact> out{{QStringLiteral("Turn"), qs(a.adjuster)},
                          {QStringLiteral("Stands at"), place(a, position)}};
    if (const std::string hour = hourText(a.turned, position); !hour.empty() && !v.state.together)
        out.push_back({QStringLiteral("By the clock"), qs(hour)});
    const double best = v.state.bestPosition;
    // Two readings of a peak say on which side it lies, not where.
    const std::size_t least = v.state.peak ? 3 : 2;
    if (v.state.readings.size() >= least && a.kind != Adjustment::Kind::bias)
        out.push_back({QStringLiteral("Best at"),
                       best < 0 || best > 1 ? QStringLiteral("beyond its end") : place(a, best)});
    if (a.sets()) out.push_back({QStringLiteral("Wanted"), quantity(a.target, a.unit, 8)});
    if (a.kind == Adjustment::Kind::bias) addBias(v, out);
    if (v.state.peak && v.state.peak->high > v.state.peak->low &&
        v.state.peak->kind == PeakEstimate::Kind::inside)
        out.push_back({QStringLiteral("Lies between"),
                       place(a, v.state.peak->low) + QStringLiteral(" and ") + place(a, v.state.peak->high)});
    if (a.kind == Adjustment::Kind::peak && keyDown(a))
        out.push_back({QStringLiteral("It is"), qs(wordOf(way))});
    if (!v.state.together)
        out.push_back({QStringLiteral("Readings"), QString::number(v.state.readings.size())});
    if (!v.state.heard.empty() && !v.marked())
        out.push_back({QStringLiteral("Heard"), QString::number(v.state.heard.size())});
    return out;
}

const char* kindText(const Adjustment& a) {
    switch (a.kind) {
        case Adjustment::Kind::peak:
            return a.turned.kind == Adjuster::Kind::trimmer
                       ? " A true peak shows twice in a full turn; one, at an end, means the coil is wrong. "
                         "By "
                         "ear: L louder, E the same, S softer than where it stood before."
                       : " By ear: L louder, E the same, S softer than where it stood before.";
        case Adjustment::Kind::null:
            return " The least is wanted.";
        case Adjustment::Kind::bias:
            return " Begin fully down; T keeps what is left with one transistor out.";
        case Adjustment::Kind::contrast:
            return " No picture is usually contrast.";
        default:
            return "";
    }
}

QString textOf(const Judged& judged, const TuneView& v) {
    const Adjustment& a = *v.adjustment;
    QString out = a.reads.empty() ? QString() : QStringLiteral("Read: %1.").arg(qs(a.reads));
    if (v.marked())
        out += QStringLiteral(" Type %1.").arg(qs(markWords(a.scale)));
    else
        out += QString::fromUtf8(kindText(a));
    if (a.keyDown > 0)
        out += QStringLiteral(" Key down %1 s at most").arg(qs(decimals(a.keyDown, 0))) +
               (a.rest > 0 ? QStringLiteral(", then %1 s of rest").arg(qs(decimals(a.rest, 0))) : QString()) +
               QStringLiteral("; K counts.");
    for (const TuneTurn& turn : v.order) {
        if (turn.adjustment == &a && !turn.reason.empty())
            out += QStringLiteral(" Its place: %1.").arg(qs(turn.reason));
    }
    if (v.state.shares && (v.settled() || v.state.shares->state != VerdictState::notDone))
        out += QChar(' ') + qs(v.state.shares->sentence);
    QStringList opens;
    for (const Adjustment& other : judged.kit().adjustments) {
        if (std::find(other.after.begin(), other.after.end(), a.id) != other.after.end())
            opens << qs(other.title);
    }
    if (!opens.isEmpty())
        out += QStringLiteral(" When it is turned again, look again at: %1.")
                   .arg(opens.join(QStringLiteral(", ")));
    return out.trimmed();
}

QString lineRight(const Judged& judged, const Adjustment& a) {
    if (!a.band.empty()) return qs(a.band);
    if (a.kind == Adjustment::Kind::contrast) return {};
    const auto last = lastStanding(judged.kit(), judged.build(), Subject::adjustment(a.id));
    if (!last || judged.tune(a).state != VerdictState::pass) return {};
    return qs(positionText(a.turned, last->setting(kPosition)));
}

std::vector<PartnerRow> partnerRows(const Judged& judged, const TuneView& v, double position) {
    const auto together = partnersOf(judged.kit(), *v.adjustment);
    std::vector<PartnerRow> out;
    if (together.size() < 2) return out;
    for (const Adjustment* a : together) {
        PartnerRow row;
        const TuneState& state = judged.tune(*a);
        const Reading* last = judged.build().lastEver(Subject::adjustment(a->id));
        row.adjuster = qs(a->adjuster);
        row.title = qs(a->title);
        row.turned = a->turned;
        row.inHand = a == v.adjustment;
        row.state = state.state;
        row.position = row.inHand ? position : last == nullptr ? 0.5 : last->setting(kPosition, 0.5);
        const bool turn = state.other.empty() && state.state != VerdictState::pass;
        row.wanted = turn ? state.nextPosition : NAN;
        const bool itsTurn = !v.state.other.empty() && v.state.other == a->id;
        row.inHand = v.state.other.empty() ? a == v.adjustment : itsTurn;
        row.right = state.state == VerdictState::pass ? QStringLiteral("done")
                    : turn ? QStringLiteral("to %1").arg(qs(positionText(a->turned, state.nextPosition)))
                           : QStringLiteral("waits");
        out.push_back(std::move(row));
    }
    return out;
}

/// What the last rounds gained, of those whose plot does not show it.
QString roundsText(const Judged& judged, const TuneView& v) {
    const auto together = partnersOf(judged.kit(), *v.adjustment);
    if (together.size() < 2) return {};
    const auto rounds = roundsOf(judged.build(), together);
    return rounds.empty() ? QString() : QChar(' ') + qs(roundSentence(rounds, rounds.size() - 1));
}

/// Of those that are judged together: the last reading of any of them.
std::optional<Reading> lastOfAll(const Judged& judged, const Adjustment& a) {
    std::optional<Reading> out;
    for (const Adjustment* partner : partnersOf(judged.kit(), a)) {
        const Reading* last = judged.build().last(Subject::adjustment(partner->id));
        if (last != nullptr && last->unit == a.unit && (!out || last->id > out->id)) out = *last;
    }
    return out;
}

void showLast(TuneView& v) {
    if (!v.last || v.last->unit != Unit::none) return;
    if (v.seen())
        v.lastText = v.last->value > 0.5 ? QStringLiteral("seen") : QStringLiteral("not seen");
    else if (v.last->settings.contains(kBefore))
        v.lastText = QString::fromUtf8(heardWord(int(v.last->value)));
    else if (v.last->settings.contains(kWand) && !v.state.wands.empty())
        v.lastText = qs(wandText(v.state.wands.back()));
    else
        v.lastText = qs(markText(v.adjustment->scale, v.last->value));
}

}  // namespace

TuneView tuneView(const Judged& judged, const std::string& chosen, std::optional<double> position,
                  const std::vector<StockLine>& drawers, std::int64_t now) {
    TuneView v;
    v.order = tuningOrder(judged.kit(), judged.build());
    v.next = nextAdjustment(judged);
    v.adjustment = inHand(judged, chosen, v.next);
    if (v.adjustment == nullptr) {
        v.now = QStringLiteral("This kit names nothing to adjust.");
        v.why = QStringLiteral(
            "Ins writes an adjustment from the paper, Ctrl+V pastes them: C10: peak the audio at the phones. "
            "If there are none, F6 goes to Proof.");
        return v;
    }
    const Adjustment& a = *v.adjustment;
    v.state = judged.tune(a);
    v.other = judged.kit().adjustment(v.state.other);
    v.before = beforeTuning(judged, a, now);
    v.last = lastStanding(judged.kit(), judged.build(), Subject::adjustment(a.id));
    if (v.state.together) v.last = lastOfAll(judged, a);
    v.ways = waysFromEndStop(judged.kit(), a, judged.build(), v.state, drawers);
    showLast(v);
    say(v);
    const double stands = position.value_or(v.state.nextPosition);
    v.facts = factsOf(v, backOffOf(judged.build()), stands);
    v.text = textOf(judged, v) + roundsText(judged, v);
    v.caution = qs(a.caution);
    if (v.caution.isEmpty() && a.kind == Adjustment::Kind::bias)
        v.caution =
            QStringLiteral("Dummy load on. A hand on the heat sink: too hot to keep it there is too hot.");
    for (const TuneTurn& turn : v.order)
        v.lines.push_back({judged.tune(*turn.adjustment).state, qs(turn.adjustment->title),
                           lineRight(judged, *turn.adjustment), turn.adjustment == &a, false});
    v.partners = partnerRows(judged, v, stands);
    return v;
}

}  // namespace ombrek
