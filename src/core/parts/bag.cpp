#include "core/parts/bag.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <string_view>
#include <unordered_map>

#include "core/parts/assignment.h"

namespace ombrek {
namespace {

// Priors, common practice: what a careful packer gets wrong.
constexpr double kMissing = 0.01;       ///< a line's part is not in the bag
constexpr double kSurplus = 0.01;       ///< a part has no line
constexpr double kSubstituted = 0.015;  ///< a part of another value
constexpr double kMismarked = 0.003;    ///< a mark that lies
constexpr double kDecades = 20.7;       ///< nine decades, as a natural logarithm: where a stray part may lie
constexpr double kNeighbour = 0.6931;   ///< a substitute is within a factor of two
constexpr double kFade = 0.35;          ///< nearer substitutes are likelier
constexpr double kOwnBag = 3.0;         ///< trust in the builder's own pairing, as a log-likelihood
constexpr double kClose = 7.0;          ///< explanations a thousand times less likely are left out

double normalBelow(double z) { return 0.5 * std::erfc(-z / std::sqrt(2.0)); }

/// Density of a log-deviation under a rectangular tolerance widened by a normal error.
double inTolerance(double deviation, double tolerance, double error) {
    const double t = std::max(tolerance, 1e-4);
    if (error < t / 200) return std::fabs(deviation) <= t ? 1 / (2 * t) : 0.0;
    return (normalBelow((deviation + t) / error) - normalBelow((deviation - t) / error)) / (2 * t);
}

double asSubstitute(double deviation) {
    const double x = std::fabs(deviation);
    if (x > kNeighbour) return 0.0;
    return std::exp(-x / kFade) / (2 * kFade * (1 - std::exp(-kNeighbour / kFade)));
}

bool measured(const FoundPart& part) { return std::isfinite(part.value) && part.value > 0; }
bool same(double a, double b) { return std::fabs(a / b - 1) < 1e-3; }

/// Likelihood of the part's mark if it is this line's.
double markLikelihood(const FoundPart& part, const WantedPart& line) {
    double rank = 1;
    for (const double value : part.marked) {
        if (same(value, line.nominal)) return 1 / rank;
        ++rank;
    }
    return kMismarked;
}

/// Cost of the pair against a missing line and a stray part, the builder's own pairing aside; infinite when
/// it cannot be.
double pairCost(const FoundPart& part, const WantedPart& line) {
    if (part.kind != line.kind || !(line.nominal > 0)) return std::numeric_limits<double>::infinity();
    const double tolerance = std::min(line.tolerance, 99.0) / 100;
    double likelihood = 0;
    if (measured(part)) {
        const double deviation = std::log(part.value / line.nominal);
        const double error = part.error / 2 / part.value;
        likelihood = (1 - kSubstituted) * inTolerance(deviation, tolerance, error) +
                     kSubstituted * asSubstitute(deviation);
        if (!part.marked.empty()) likelihood *= markLikelihood(part, line);
    } else {
        const double said = markLikelihood(part, line);
        const double deviation = part.marked.empty() ? 0 : std::log(part.marked.front() / line.nominal);
        likelihood =
            said > kMismarked ? said * inTolerance(0, tolerance, 0) : kSubstituted * asSubstitute(deviation);
    }
    if (!(likelihood > 0)) return std::numeric_limits<double>::infinity();
    return std::log(kMissing * kSurplus / kDecades) - std::log(likelihood);
}

/// Equal lines: any of their designators will do.
using LikeLines = std::vector<std::vector<std::size_t>>;

LikeLines likeLines(const std::vector<WantedPart>& wanted) {
    std::map<std::tuple<PartKind, double, double>, std::size_t> seen;
    LikeLines out;
    for (std::size_t i = 0; i < wanted.size(); ++i) {
        const auto [at, fresh] =
            seen.try_emplace({wanted[i].kind, wanted[i].nominal, wanted[i].tolerance}, out.size());
        if (fresh) out.emplace_back();
        out[at->second].push_back(i);
    }
    return out;
}

std::string valueText(double value, PartKind kind, int figures = 3) {
    return formatQuantity(value, unitOf(kind), figures);
}

std::string wantedText(const WantedPart& line) {
    return line.ref + " (" + valueText(line.nominal, line.kind) + " ±" + personNumber(line.tolerance) +
           "\u202f%)";
}

std::string reads(const FoundPart& part) {
    if (measured(part)) return "reads " + formatQuantity(part.value, unitOf(part.kind), 3, Zeros::keep);
    return part.marked.empty() ? "has no reading" : "is marked " + valueText(part.marked.front(), part.kind);
}

/// Everything about one kind of part: its own lines, parts, costs and solution.
struct Block {
    std::vector<std::size_t> lines, parts;
    std::vector<std::size_t>
        classes;  ///< of like lines: the class of each line, from 0, and its number for all kinds
    std::vector<std::size_t> classNumber;
    CostTable costs{0, 0};
    Assignment best;
};

/// Costs part by part: like lines cost the same, save the one that the builder took the part for.
void fillCosts(const std::vector<WantedPart>& wanted, const std::vector<FoundPart>& found, Block& out) {
    out.costs = CostTable(out.parts.size(), out.lines.size());
    std::unordered_map<std::string_view, std::size_t> lineOf;
    std::vector<std::size_t> example(out.classNumber.size());
    for (std::size_t l = 0; l < out.lines.size(); ++l) {
        lineOf.emplace(wanted[out.lines[l]].ref, l);
        example[out.classes[l]] = out.lines[l];
    }
    std::vector<double> ofClass(example.size());
    for (std::size_t p = 0; p < out.parts.size(); ++p) {
        const FoundPart& part = found[out.parts[p]];
        for (std::size_t k = 0; k < example.size(); ++k) ofClass[k] = pairCost(part, wanted[example[k]]);
        for (std::size_t l = 0; l < out.lines.size(); ++l) out.costs.at(p, l) = ofClass[out.classes[l]];
        const auto own = lineOf.find(part.takenFor);
        if (!part.takenFor.empty() && own != lineOf.end()) out.costs.at(p, own->second) -= kOwnBag;
    }
}

Block solveKind(PartKind kind, const std::vector<WantedPart>& wanted, const std::vector<std::size_t>& classOf,
                const std::vector<FoundPart>& found) {
    Block out;
    std::map<std::size_t, std::size_t> own;
    for (std::size_t i = 0; i < wanted.size(); ++i) {
        if (wanted[i].kind != kind) continue;
        out.lines.push_back(i);
        const auto [at, fresh] = own.try_emplace(classOf[i], own.size());
        if (fresh) out.classNumber.push_back(classOf[i]);
        out.classes.push_back(at->second);
    }
    for (std::size_t i = 0; i < found.size(); ++i) {
        if (found[i].kind == kind) out.parts.push_back(i);
    }
    fillCosts(wanted, found, out);
    out.best = cheapestAssignment(out.costs);
    return out;
}

class Matcher {
 public:
    Matcher(const std::vector<WantedPart>& wanted, const std::vector<FoundPart>& found, VerdictRule rule,
            bool finished)
        : wanted_(wanted), found_(found), rule_(rule), finished_(finished), like_(likeLines(wanted)) {
        classOf_.resize(wanted.size());
        for (std::size_t k = 0; k < like_.size(); ++k) {
            for (const std::size_t i : like_[k]) classOf_[i] = k;
        }
        for (std::size_t i = 0; i < wanted.size(); ++i) lineOf_.emplace(wanted[i].ref, i);
        answer_.could.resize(found.size());
    }

    BagAnswer run() {
        std::vector<int> lineOf(found_.size(), kUnpaired);
        std::vector<char> taken(wanted_.size(), 0);
        for (int kind = 0; kind < kPartKinds; ++kind) {
            const Block block = solveKind(static_cast<PartKind>(kind), wanted_, classOf_, found_);
            ClassDetours detours(block.costs, block.best, block.classes, kClose);
            for (std::size_t p = 0; p < block.parts.size(); ++p) {
                const int column = block.best.columnOf[p];
                if (column != kUnpaired) {
                    lineOf[block.parts[p]] = int(block.lines[std::size_t(column)]);
                    taken[block.lines[std::size_t(column)]] = 1;
                }
                explain(block, p, detours);
            }
        }
        for (std::size_t i = 0; i < found_.size(); ++i) {
            if (lineOf[i] == kUnpaired) {
                answer_.surplus.push_back({i, oddsOf(i), surplusReason(found_[i])});
            } else {
                answer_.pairs.push_back(pairOf(i, std::size_t(lineOf[i])));
            }
        }
        if (finished_) {
            for (std::size_t i = 0; i < wanted_.size(); ++i) {
                if (!taken[i]) answer_.missing.push_back({i, missingOdds(i), missingReason(i)});
            }
        }
        return std::move(answer_);
    }

 private:
    /// The odds of every line the part may be, from what the next best pairings cost.
    void explain(const Block& block, std::size_t row, ClassDetours& detours) {
        const std::size_t part = block.parts[row];
        const int own = block.best.columnOf[row];
        std::vector<Explanation>& could = answer_.could[part];
        const auto refsOf = [&](std::size_t line) {
            std::vector<std::string> refs;
            for (const std::size_t i : like_[classOf_[line]]) refs.push_back(wanted_[i].ref);
            return refs;
        };
        if (!anyClose(block, row)) {
            could.push_back(
                {own == kUnpaired ? std::vector<std::string>{} : refsOf(block.lines[std::size_t(own)]), 1.0});
            return;
        }
        const ClassDetours::Of detour = detours.of(row);
        double sum = std::exp(-detour.unpaired);
        for (const double dearer : detour.toClass) sum += std::exp(-dearer);
        for (std::size_t k = 0; k < detour.toClass.size(); ++k) {
            if (detour.toClass[k] < kClose)
                could.push_back(
                    {refsOf(like_[block.classNumber[k]].front()), std::exp(-detour.toClass[k]) / sum});
        }
        if (detour.unpaired < kClose) could.push_back({{}, std::exp(-detour.unpaired) / sum});
        std::stable_sort(could.begin(), could.end(),
                         [](const Explanation& a, const Explanation& b) { return a.odds > b.odds; });
        consider(part);
    }

    /// Whether anything but the pairing made is worth a thought; the prices tell without a search.
    bool anyClose(const Block& block, std::size_t row) const {
        const int own = block.best.columnOf[row];
        if (own != kUnpaired && -block.best.rowPrice[row] < kClose) return true;
        for (std::size_t c = 0; c < block.lines.size(); ++c) {
            const bool likeOwn =
                own != kUnpaired && classOf_[block.lines[c]] == classOf_[block.lines[std::size_t(own)]];
            if (!likeOwn &&
                block.costs.at(row, c) - block.best.rowPrice[row] - block.best.columnPrice[c] < kClose)
                return true;
        }
        return false;
    }

    /// The measurement that would tell the two best explanations of a part apart, if they are close.
    void consider(std::size_t index) {
        const auto& could = answer_.could[index];
        if (could.size() < 2 || could[1].odds < 0.1 || could[1].odds <= closest_) return;
        const FoundPart& part = found_[index];
        closest_ = could[1].odds;
        answer_.deciderFound = int(index);
        const std::string name = part.takenFor.empty() ? part.id : part.takenFor;
        if (!measured(part)) {
            answer_.decider = "Measure " + name + ": its mark alone does not tell " + either(could) + ".";
            return;
        }
        if (could[1].refs.empty() || could[0].refs.empty()) {
            answer_.decider = "Measure " + name +
                              " again with a better meter, then look at its mark: " + either(could) + ".";
            return;
        }
        const WantedPart &a = *named(could[0].refs.front()), &b = *named(could[1].refs.front());
        const double gap = std::fabs(a.nominal - b.nominal) / 2;
        const bool overlap =
            limitsAround(a.nominal, a.tolerance).high > limitsAround(b.nominal, b.tolerance).low &&
            limitsAround(b.nominal, b.tolerance).high > limitsAround(a.nominal, a.tolerance).low;
        // A meter that is good enough already is not the lack: another part of the two is.
        const bool clear = part.error < gap / 4;
        if (clear && !overlap) {
            answer_.decider = "No better meter helps: " + name + " " + reads(part) +
                              ", and more parts do than the list wants. Look at its mark: " + either(could) +
                              ".";
        } else if (overlap && part.error < gap / 2) {
            answer_.decider = "Measure the other parts that may be " + valueText(a.nominal, a.kind) + " or " +
                              valueText(b.nominal, b.kind) + ": the last one over settles " + name + ".";
        } else {
            answer_.decider = "Measure " + name + " with a meter good to ±" + valueText(gap / 4, a.kind, 2) +
                              ": that tells " + either(could) + ".";
        }
    }

    std::string either(const std::vector<Explanation>& could) const {
        const auto text = [&](const Explanation& e) {
            return e.refs.empty() ? std::string("a part over") : wantedText(*named(e.refs.front()));
        };
        return text(could[0]) + " from " + text(could[1]);
    }

    const WantedPart* named(const std::string& ref) const { return &wanted_[lineOf_.at(ref)]; }

    double oddsOf(std::size_t part) const {
        return answer_.could[part].empty() ? 1.0 : answer_.could[part].front().odds;
    }

    BagPair pairOf(std::size_t i, std::size_t j) const {
        const FoundPart& part = found_[i];
        const WantedPart& line = wanted_[j];
        BagPair out{i, j, BagCase::fits, {}, oddsOf(i), ""};
        if (measured(part)) {
            out.verdict = judge(part.value, limitsAround(line.nominal, line.tolerance), part.error, rule_,
                                unitOf(part.kind));
        } else {
            const bool said = !part.marked.empty() && markLikelihood(part, line) > kMismarked;
            out.verdict.state = said ? VerdictState::pass : VerdictState::fail;
            out.verdict.sentence = said ? "Marked as the list wants; not measured." : "Marked another value.";
        }
        const bool liesInMark = !part.marked.empty() && markLikelihood(part, line) <= kMismarked;
        const bool elsewhere =
            !part.takenFor.empty() && part.takenFor != line.ref && !alike(part.takenFor, j);
        if (out.verdict.state == VerdictState::fail) {
            out.what = BagCase::substituted;
            out.reason = line.ref + " wants " + valueText(line.nominal, line.kind) + "; this " + reads(part) +
                         ", and no line wants that: of another value.";
        } else if (liesInMark && measured(part)) {
            out.what = BagCase::mismarked;
            out.reason = "Marked " + valueText(part.marked.front(), part.kind) + " but " + reads(part) +
                         ": mismarked, it is " + wantedText(line) + ".";
        } else if (elsewhere) {
            out.what = BagCase::misplaced;
            out.reason = "Taken for " + part.takenFor + ", but it " + reads(part) + ": it belongs to " +
                         wantedText(line) + ".";
        } else {
            out.reason = "It " + reads(part) + ": " + wantedText(line) + ".";
        }
        return out;
    }

    bool alike(const std::string& ref, std::size_t line) const {
        const auto hit = lineOf_.find(ref);
        return hit != lineOf_.end() && classOf_[hit->second] == classOf_[line];
    }

    std::string surplusReason(const FoundPart& part) const {
        std::string out = "It " + reads(part) + ", and ";
        const bool wantedAtAll = std::any_of(wanted_.begin(), wanted_.end(), [&](const WantedPart& w) {
            return w.kind == part.kind && measured(part) &&
                   limitsAround(w.nominal, w.tolerance).holds(part.value);
        });
        return out + (wantedAtAll ? "every line of that value has its part: one over."
                                  : "no line that is still open wants such a part.");
    }

    std::string missingReason(std::size_t line) const {
        const auto& others = like_[classOf_[line]];
        const std::string value = valueText(wanted_[line].nominal, wanted_[line].kind);
        if (others.size() == 1) return "No part left in the bag can be the " + value + ".";
        return "Not every one of the " + std::to_string(others.size()) + " parts of " + value + " is there.";
    }

    double missingOdds(std::size_t line) const {
        double out = 1;
        for (std::size_t i = 0; i < found_.size(); ++i) {
            for (const Explanation& e : answer_.could[i]) {
                if (std::find(e.refs.begin(), e.refs.end(), wanted_[line].ref) != e.refs.end() &&
                    &e != &answer_.could[i].front())
                    out *= 1 - e.odds;
            }
        }
        return out;
    }

    const std::vector<WantedPart>& wanted_;
    const std::vector<FoundPart>& found_;
    VerdictRule rule_;
    bool finished_;
    LikeLines like_;
    std::vector<std::size_t> classOf_;
    std::unordered_map<std::string_view, std::size_t> lineOf_;  ///< by designator
    BagAnswer answer_;
    double closest_ = 0;
};

}  // namespace

BagAnswer matchBag(const std::vector<WantedPart>& wanted, const std::vector<FoundPart>& found,
                   VerdictRule rule, bool finished) {
    return Matcher(wanted, found, rule, finished).run();
}

std::vector<MarkReading> rankByNeed(std::vector<MarkReading> readings,
                                    const std::vector<WantedPart>& wanted) {
    std::stable_partition(readings.begin(), readings.end(), [&](const MarkReading& r) {
        return std::any_of(wanted.begin(), wanted.end(), [&](const WantedPart& w) {
            return w.kind == r.kind && w.nominal > 0 && same(r.value, w.nominal);
        });
    });
    return readings;
}

}  // namespace ombrek
