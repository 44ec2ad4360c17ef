#include "core/proof/as_measured.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>

namespace ombrek {
namespace {

constexpr std::size_t kMostPoints = 120;
constexpr double kDeepest = 1e-3;  ///< |S21| below which an analyser's own leakage counts

/// Neighbouring points share their errors: a curve tells as much as some twenty of them.
double weightOf(std::size_t points) { return std::min(1.0, std::sqrt(20.0 / double(points))); }

/// Residuals of a curve in units of its noise.
Eigen::VectorXd residuals(const std::vector<LadderElement>& filter, const std::vector<FilterPoint>& points,
                          const std::vector<double>& frequencies, double source, double load) {
    static thread_local LadderSweep s;
    sweepInto(s, filter, frequencies, source, load);
    Eigen::VectorXd out(Eigen::Index(2 * points.size()));
    for (std::size_t k = 0; k < points.size(); ++k) {
        const double through = std::hypot(s.s21re[k], s.s21im[k]), back = std::hypot(s.s11re[k], s.s11im[k]);
        const double seen = 20 * std::log10(std::max(points[k].through, kDeepest));
        out[Eigen::Index(2 * k)] = (20 * std::log10(std::max(through, kDeepest)) - seen) / 0.5;
        out[Eigen::Index(2 * k + 1)] = std::isnan(points[k].back) ? 0 : (back - points[k].back) / 0.03;
    }
    return out * weightOf(points.size());
}

struct Fit {
    std::vector<double> values;
    double cost = 0;  ///< squares of residuals and of what the parts moved
    double apart = 0;
};

/// Gauss–Newton on the logarithms of the values, each held by its prior; damped where a step does not help.
Fit fitFrom(std::vector<LadderElement> filter, const std::vector<double>& spreads,
            const std::vector<FilterPoint>& points, double source, double load) {
    std::vector<double> frequencies;
    for (const FilterPoint& p : points) frequencies.push_back(p.frequency);
    const std::size_t n = filter.size();
    const auto start = filter;
    Eigen::VectorXd moved = Eigen::VectorXd::Zero(Eigen::Index(n));
    const auto put = [&](const Eigen::VectorXd& by) {
        auto out = start;
        for (std::size_t i = 0; i < n; ++i) out[i].value = start[i].value * std::exp(by[Eigen::Index(i)]);
        return out;
    };
    const auto cost = [&](const Eigen::VectorXd& r, const Eigen::VectorXd& by) {
        double sum = r.squaredNorm();
        for (std::size_t i = 0; i < n; ++i) sum += std::pow(by[Eigen::Index(i)] / spreads[i], 2);
        return sum;
    };
    Eigen::VectorXd r = residuals(filter, points, frequencies, source, load);
    double now = cost(r, moved), damping = 1e-3;
    for (int round = 0; round < 25; ++round) {
        Eigen::MatrixXd jacobian(r.size(), Eigen::Index(n));
        for (std::size_t i = 0; i < n; ++i) {
            Eigen::VectorXd by = moved;
            by[Eigen::Index(i)] += 1e-4;
            jacobian.col(Eigen::Index(i)) =
                (residuals(put(by), points, frequencies, source, load) - r) / 1e-4;
        }
        Eigen::MatrixXd a = jacobian.transpose() * jacobian;
        Eigen::VectorXd b = -jacobian.transpose() * r;
        for (std::size_t i = 0; i < n; ++i) {
            const auto k = Eigen::Index(i);
            a(k, k) = a(k, k) * (1 + damping) + 1 / (spreads[i] * spreads[i]);
            b[k] -= moved[k] / (spreads[i] * spreads[i]);
        }
        const Eigen::VectorXd next = (moved + a.ldlt().solve(b)).cwiseMax(-3).cwiseMin(3);
        const Eigen::VectorXd there = residuals(put(next), points, frequencies, source, load);
        const double then = cost(there, next);
        if (then >= now) {
            if ((damping *= 10) > 1e6) break;
            continue;
        }
        const bool done = now - then < 1e-3;
        moved = next;
        r = there;
        now = then;
        damping = std::max(damping / 10, 1e-9);
        if (done) break;
    }
    Fit out;
    for (const LadderElement& e : put(moved)) out.values.push_back(e.value);
    out.cost = now;
    double sum = 0;
    for (std::size_t k = 0; k < points.size(); ++k)
        sum += std::pow(0.5 * r[Eigen::Index(2 * k)] / weightOf(points.size()), 2);
    out.apart = std::sqrt(sum / double(points.size()));
    return out;
}

/// A way in which a part is wrong, and how often that is so (common practice).
struct Wrong {
    std::string what;
    double factor = 1, often = 0;
};

std::vector<Wrong> waysOf(const FilterPart& part, int turns) {
    if (part.coil()) {
        std::vector<Wrong> out;
        for (const auto& [more, what, often] :
             {std::tuple{1, "a turn too many", 0.05}, std::tuple{-1, "a turn too few", 0.05},
              std::tuple{2, "two turns too many", 0.01}, std::tuple{-2, "two turns too few", 0.01}}) {
            if (turns + more > 0 && turns > 0)
                out.push_back({what, std::pow(1 + double(more) / turns, 2), often});
        }
        out.push_back({"turns that touch, or a short between them", 1e-2, 0.005});
        return out;
    }
    if (part.element.kind == LadderElement::Kind::seriesR || part.element.kind == LadderElement::Kind::shuntR)
        return {{"ten times its value", 10, 0.01}, {"a tenth of its value", 0.1, 0.01}};
    return {{"ten times its value", 10, 0.01},
            {"a tenth of its value", 0.1, 0.01},
            {"the next larger value", 1.47, 0.02},
            {"the next smaller value", 0.68, 0.02},
            {"missing, or its joint open", 1e-3, 0.02}};
}

std::vector<FilterPoint> thinned(const std::vector<FilterPoint>& points) {
    std::vector<FilterPoint> out;
    const std::size_t step = (points.size() + kMostPoints - 1) / kMostPoints;
    for (std::size_t i = 0; i < points.size(); i += std::max<std::size_t>(step, 1)) out.push_back(points[i]);
    return out;
}

}  // namespace

std::vector<FilterStory> storiesOf(const std::vector<FilterPart>& filter, const std::vector<int>& turns,
                                   const std::vector<FilterPoint>& all, double source, double load) {
    std::vector<FilterStory> out;
    if (filter.empty() || all.size() < 3) return out;
    const auto points = thinned(all);
    std::vector<double> spreads, costs;
    for (const FilterPart& p : filter) spreads.push_back(std::max(p.spread, 0.5) / 100 / std::sqrt(3.0));
    const auto add = [&](const std::string& ref, const Wrong& way, std::size_t part) {
        auto elements = elementsOf(filter);
        if (!ref.empty()) elements[part].value *= way.factor;
        const Fit fit = fitFrom(elements, spreads, points, source, load);
        out.push_back({ref, way.what, 0, fit.apart, fit.values});
        costs.push_back(fit.cost / 2 - std::log(way.often));
    };
    add("", {"all parts as they should be", 1, 0.7}, 0);
    for (std::size_t i = 0; i < filter.size(); ++i) {
        for (const Wrong& way : waysOf(filter[i], i < turns.size() ? turns[i] : 0))
            add(filter[i].ref, way, i);
    }
    const double least = *std::min_element(costs.begin(), costs.end());
    double sum = 0;
    for (std::size_t i = 0; i < out.size(); ++i) sum += out[i].odds = std::exp(least - costs[i]);
    for (FilterStory& s : out) s.odds /= sum;
    std::stable_sort(out.begin(), out.end(),
                     [](const FilterStory& a, const FilterStory& b) { return a.odds > b.odds; });
    return out;
}

}  // namespace ombrek
