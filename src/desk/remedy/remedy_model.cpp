#include "desk/remedy/remedy_model.h"

#include <algorithm>
#include <cmath>

#include "station/parts_in/one_cause.h"
#include "station/parts_in/parts_in.h"
#include "station/phrases.h"

namespace ombrek {
namespace {

/// The offer as a reading between the wanted limits, its own limits as the error bar.
Verdict verdictOf(const Part& part, const Substitute& offer) {
    Verdict out;
    out.reading = offer.value;
    out.limits = partLimits(part);
    out.uncertainty = offer.limits.halfWidth();
    out.unit = part.unit;
    out.state = offer.within ? VerdictState::pass : VerdictState::doubtful;
    const std::string own = limitsText(offer.limits, part.unit);
    out.sentence = offer.within ? "Whatever it is between " + own + ", it is right."
                                : "Measure it: it may be " + own + ", and not all of that is right.";
    return out;
}

void sayNow(const BagTrouble& trouble, RemedyView& out) {
    if (!out.promised.empty()) {
        const auto said =
            std::find_if(out.decided.begin(), out.decided.end(), [](const auto& d) { return !d.empty(); });
        out.now = said == out.decided.end()
                      ? "Take out of the drawer what was promised: " + listed(out.promised, 3) + "."
                      : "Take it out of the drawer: " + *said + ".";
        out.why = out.promised.size() > 1
                      ? "For " + listed(out.promised, 6) + ". Enter when they are on the bench."
                      : "Enter when it is on the bench: the drawer's count goes down, and the line is "
                        "measured again.";
    } else if (trouble.what == BagTrouble::What::misplaced || trouble.what == BagTrouble::What::loose) {
        out.now = "Put it where it belongs: " + trouble.belongsTo + ".";
        out.why = "Enter moves it and its reading there.";
    } else if (trouble.what == BagTrouble::What::over) {
        out.now = "One part is over: keep it with the spares.";
        out.why = "Enter looks at it again; F8, then S puts the spares of this kit into a drawer.";
    } else if (trouble.what == BagTrouble::What::missing && out.decided[out.at].empty()) {
        out.now = trouble.ref + " is missing: look again before you write.";
        out.why = "F when it turns up. Then your drawers, the shopping list or the supplier.";
    } else if (!out.decided[out.at].empty()) {
        out.now = listed(trouble.lines(), 3) + (trouble.alike.empty() ? " is" : " are") +
                  " settled: " + out.decided[out.at] + ".";
        out.why = "X takes the decision back. Left and Right go to the other troubles.";
    } else {
        out.now = trouble.alike.empty() ? trouble.ref + " is not what the list wants: replace it."
                                        : trouble.head + ": one remedy for all.";
        out.why = trouble.sentence;
    }
}

void listWays(RemedyView& out) {
    if (!out.offers.empty())
        out.ways.push_back(
            {"Your drawers: Enter", "keeps the chosen parts back; no other kit is offered them"});
    out.ways.push_back({"The shopping list: S", "everything that is short or wrong, as a table (CSV)"});
    out.ways.push_back(
        {"The supplier: L", "a letter with what is missing, wrong and over, and how it was found"});
    if (out.part != nullptr && !out.part->measurable())
        out.ways.push_back(
            {"Another type: E on Parts in", "its type, gain group and why it will do, kept in the book"});
}

}  // namespace

RemedyView remedyView(const Judged& judged, const std::vector<StockLine>& stock,
                      const std::vector<Promise>& promises, std::size_t at, std::size_t offer) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    RemedyView out;
    out.troubles = toldOnce(judged.story().troubles, oneCauses(kit, build));
    if (out.troubles.empty()) {
        out.now = "Nothing is wrong with the bag.";
        out.why = "Esc goes back.";
        return out;
    }
    for (const BagTrouble& t : out.troubles) {
        const auto lines = t.lines();
        const bool all = std::all_of(lines.begin(), lines.end(),
                                     [&](const std::string& ref) { return build.remedies.contains(ref); });
        out.decided.push_back(all ? remedyText(build, t.ref) : "");
    }
    out.at = std::min(at, out.troubles.size() - 1);
    const BagTrouble& trouble = out.troubles[out.at];
    out.part = kit.part(trouble.ref);
    out.head = trouble.head;
    if (out.part != nullptr) {
        for (const std::string& ref : trouble.lines()) {
            const bool kept = std::any_of(promises.begin(), promises.end(), [&](const Promise& p) {
                return p.build == build.id && p.ref == ref;
            });
            if (kept) out.promised.push_back(ref);
        }
        out.places = lookAgain(judged, trouble.ref);
        out.offers = fromDrawers(*out.part, stock, promises, build.id);
        for (const Substitute& s : out.offers) out.offerTexts.push_back(describe(s, stock));
        out.beside = (trouble.alike.empty() ? "" : std::to_string(trouble.lines().size()) + " lines, ") +
                     std::string("wanted: ") + out.part->value;
        if (out.part->nominal > 0) out.beside += " ±" + personNumber(out.part->tolerance) + "\u202f%";
        if (out.part->volts > 0) out.beside += ", " + formatQuantity(out.part->volts, Unit::volt, 3);
        if (!out.offers.empty())
            out.verdict = verdictOf(*out.part, out.offers[std::min(offer, out.offers.size() - 1)]);
    }
    sayNow(trouble, out);
    listWays(out);
    return out;
}

std::vector<Book::Kept> keptFor(const BagTrouble& trouble, const Judged& judged,
                                const std::vector<StockLine>& stock, std::vector<Promise> promises,
                                std::size_t offer) {
    std::vector<Book::Kept> out;
    std::vector<std::size_t> taken;
    for (const std::string& ref : trouble.lines()) {
        const Part* part = judged.kit().part(ref);
        if (part == nullptr) continue;
        const auto offers = fromDrawers(*part, stock, promises, judged.build().id);
        // What was chosen for the first serves the others while there is some left, then what is surely
        // right.
        const auto first = [&](auto&& fits) { return std::find_if(offers.begin(), offers.end(), fits); };
        auto chosen = ref == trouble.ref ? offers.begin() + std::ptrdiff_t(std::min(offer, offers.size()))
                                         : first([&](const Substitute& s) { return s.parts == taken; });
        if (chosen == offers.end() && ref != trouble.ref)
            chosen = first([](const Substitute& s) { return s.within; });
        if (chosen == offers.end()) continue;
        if (ref == trouble.ref) taken = chosen->parts;
        Book::Kept kept{ref, {}, describe(*chosen, stock)};
        for (const std::size_t i : chosen->parts) {
            kept.stock.push_back(stock[i].id);
            promises.push_back({stock[i].id, judged.build().id, ref, 1});
        }
        out.push_back(std::move(kept));
    }
    return out;
}

}  // namespace ombrek
