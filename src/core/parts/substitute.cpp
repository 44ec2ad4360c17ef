#include "core/parts/substitute.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <tuple>

#include "core/parts/bag.h"
#include "core/text/enumerators.h"

namespace ombrek {
namespace {

using How = Substitute::How;

/// Resistors and coils add in series, capacitors in parallel.
bool adds(PartKind kind, How how) { return (kind == PartKind::capacitor) == (how == How::parallel); }

double combined(bool add, double a, double b) { return add ? a + b : a * b / (a + b); }

/// Two ratings of the same kind, each part reaching its own at a share of the whole.
double ratedTogether(double ratingA, double shareA, double ratingB, double shareB) {
    if (!(ratingA > 0) || !(ratingB > 0)) return 0;
    return std::min(ratingA / shareA, ratingB / shareB);
}

Substitute pairOf(const std::vector<StockPart>& stock, std::size_t i, std::size_t j, How how) {
    const StockPart &a = stock[i], &b = stock[j];
    const bool add = adds(a.kind, how);
    Substitute out;
    out.how = how;
    out.parts = {i, j};
    out.value = combined(add, a.value, b.value);
    const Limits la = limitsAround(a.value, a.tolerance), lb = limitsAround(b.value, b.tolerance);
    out.limits = {combined(add, la.low, lb.low), combined(add, la.high, lb.high)};
    const double shareA = a.value / (a.value + b.value), shareB = 1 - shareA;
    if (how == How::parallel) {
        out.volts = ratedTogether(a.volts, 1, b.volts, 1);
        out.watts = ratedTogether(a.watts, shareB, b.watts, shareA);
    } else {
        const bool inverse = a.kind == PartKind::capacitor;
        out.volts = ratedTogether(a.volts, inverse ? shareB : shareA, b.volts, inverse ? shareA : shareB);
        out.watts = ratedTogether(a.watts, shareA, b.watts, shareB);
    }
    return out;
}

Substitute singleOf(const std::vector<StockPart>& stock, std::size_t i) {
    Substitute out;
    out.parts = {i};
    out.value = stock[i].value;
    out.limits = limitsAround(stock[i].value, stock[i].tolerance);
    out.volts = stock[i].volts;
    out.watts = stock[i].watts;
    return out;
}

void writeWorking(Substitute& s, const std::vector<StockPart>& stock) {
    const Unit unit = unitOf(stock[s.parts[0]].kind);
    const auto text = [&](double value) { return formatQuantity(value, unit, 4); };
    if (s.how == How::single) {
        s.working.lines.push_back({"as it is", "", text(s.value)});
    } else {
        const std::string a = text(stock[s.parts[0]].value), b = text(stock[s.parts[1]].value);
        const bool add = adds(stock[s.parts[0]].kind, s.how);
        s.working.lines.push_back({add ? "X1 + X2" : "X1·X2/(X1 + X2)",
                                   add ? a + " + " + b : a + " × " + b + " / (" + a + " + " + b + ")",
                                   text(s.value)});
    }
    s.working.lines.push_back({"limits with each part at its own", "", limitsText(s.limits, unit)});
    s.working.source = "series and parallel connection";
}

bool rated(double has, double wanted) { return wanted <= 0 || has >= wanted * (1 - 1e-9); }

bool better(const Substitute& a, const Substitute& b) {
    if (a.within != b.within) return a.within;
    if (a.parts.size() != b.parts.size()) return a.parts.size() < b.parts.size();
    const double da = std::fabs(a.deviation), db = std::fabs(b.deviation);
    if (std::fabs(da - db) > 1e-6) return da < db;
    return a.limits.halfWidth() < b.limits.halfWidth();
}

/// The lines of a kind that have parts, at most two of each value, tolerance and rating: more would only say
/// the same again, and a pair needs no more.
std::vector<std::size_t> likeLines(const SubstituteWanted& wanted, const std::vector<StockPart>& stock) {
    std::vector<std::size_t> out;
    std::map<std::tuple<double, double, double, double>, int> seen;
    for (std::size_t i = 0; i < stock.size(); ++i) {
        const StockPart& p = stock[i];
        if (p.kind != wanted.kind || p.count < 1 || !(p.value > 0)) continue;
        if (++seen[{p.value, p.tolerance, p.volts, p.watts}] <= 2) out.push_back(i);
    }
    return out;
}

}  // namespace

std::string_view word(How how) {
    static constexpr std::array<std::string_view, 3> words{"single", "series", "parallel"};
    static_assert(words.size() == enumerators<How>());
    return words[static_cast<std::size_t>(how)];
}

std::vector<Substitute> substitutes(const SubstituteWanted& wanted, const std::vector<StockPart>& stock,
                                    std::size_t most) {
    std::vector<Substitute> out;
    if (!(wanted.value > 0)) return out;
    const Limits limits = limitsAround(wanted.value, wanted.tolerance);
    const double slack = wanted.value * 1e-9;
    const auto consider = [&](Substitute s) {
        if (s.value < limits.low - slack || s.value > limits.high + slack) return;
        if (!rated(s.volts, wanted.volts) || !rated(s.watts, wanted.watts)) return;
        s.deviation = 100 * (s.value / wanted.value - 1);
        s.within = s.limits.low >= limits.low - slack && s.limits.high <= limits.high + slack;
        out.push_back(std::move(s));
        if (out.size() > 4 * most + 64) {
            std::nth_element(out.begin(), out.begin() + std::ptrdiff_t(most), out.end(), better);
            out.resize(most);
        }
    };
    const std::vector<std::size_t> like = likeLines(wanted, stock);
    for (const std::size_t i : like) consider(singleOf(stock, i));
    for (const How how : {How::series, How::parallel}) {
        // Of an adding pair the other part is the difference: only lines near it need a look.
        std::vector<std::size_t> sorted = like;
        const bool add = adds(wanted.kind, how);
        const auto key = [&](std::size_t i) { return add ? stock[i].value : 1 / stock[i].value; };
        std::sort(sorted.begin(), sorted.end(), [&](auto a, auto b) { return key(a) < key(b); });
        const double low = add ? limits.low : 1 / limits.high, high = add ? limits.high : 1 / limits.low;
        for (std::size_t a = 0; a < sorted.size(); ++a) {
            const double rest = low - key(sorted[a]);
            auto from = std::lower_bound(sorted.begin() + std::ptrdiff_t(a), sorted.end(), rest * (1 - 1e-9),
                                         [&](std::size_t i, double v) { return key(i) < v; });
            for (; from != sorted.end() && key(*from) + key(sorted[a]) <= high * (1 + 1e-9); ++from) {
                if (*from == sorted[a] && stock[*from].count < 2) continue;
                consider(pairOf(stock, sorted[a], *from, how));
            }
        }
    }
    std::sort(out.begin(), out.end(), better);
    if (out.size() > most) out.resize(most);
    for (Substitute& s : out) writeWorking(s, stock);
    return out;
}

}  // namespace ombrek
