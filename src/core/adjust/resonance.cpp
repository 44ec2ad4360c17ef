#include "core/adjust/resonance.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace ombrek {
namespace {

constexpr double kFarLow = -1.0, kFarHigh = 2.0;     ///< where peaks beyond the ends are sought [travel]
constexpr double kNarrowest = 0.004, kWidest = 1.5;  ///< half widths [travel]
constexpr double kOutside = 0.25;                    ///< the belief that the peak is beyond an end
constexpr double kModel = 0.06;                      ///< what the curve itself is off, far down its sides
constexpr double kFloor = 0.002;                     ///< of the highest reading, below which nothing is read
constexpr std::size_t kKept = 500;
constexpr double kCouplings[] = {1.2, 1.45, 1.75, 2.1, 2.6, 3.3};
constexpr double kTilts[] = {-0.15, 0, 0.15};
constexpr double kFixed = 0.8;  ///< of a trimmer as they are used, mostly (common practice)

double hump(double coupling, double s) {
    const double k2 = coupling * coupling;
    return 2 * coupling / std::sqrt(std::pow(1 - s * s + k2, 2) + 4 * s * s);
}

using LogLikelihood = double (*)(const void* about, const Resonance& shape, double temper, double& height);

/// A cell of the grid of middles and half widths, by its centre.
struct Cell {
    Resonance shape;
    double log = 0;
};

struct Grid {
    std::vector<Cell> cells;
    void add(const Cell& cell, double volume) {
        cells.push_back(cell);
        cells.back().log += volume;
    }
};

double logPrior(double at) {
    return at >= 0 && at <= 1 ? std::log(1 - kOutside) : std::log(kOutside / (kFarHigh - kFarLow - 1));
}

/// Errors are first taken as larger, so that no narrow belief falls between two centres of a coarse grid.
constexpr double kTempers[] = {8, 4, 2, 1, 1};
constexpr double kWithin = 9;          ///< of the logarithm: what is carried to the next level
constexpr std::size_t kCarried = 350;  ///< cells, at most; of each shape of two humps fewer
constexpr std::size_t kCarriedTwo = 100;

/// Those that are believed, the likeliest first.
void thin(std::vector<Cell>& cells, std::size_t most) {
    std::sort(cells.begin(), cells.end(), [](const Cell& a, const Cell& b) { return a.log > b.log; });
    if (cells.size() > most) cells.resize(most);
    while (!cells.empty() && cells.back().log < cells.front().log - kWithin) cells.pop_back();
}

/// Cells that are believed are cut into four, level by level.
void search(Grid& out, const Resonance& kind, const void* about, LogLikelihood of, double prior) {
    // Two humps are wider together than one, and seen on a coarser grid.
    const int places = kind.coupling > 0 ? 80 : 120, widths = kind.coupling > 0 ? 11 : 16;
    double cell = (kFarHigh - kFarLow) / places, step = std::pow(kWidest / kNarrowest, 1.0 / widths);
    std::vector<Cell> cells;
    for (int w = 0; w < widths; ++w) {
        for (int p = 0; p < places; ++p) {
            Cell one{kind, 0};
            one.shape.at = kFarLow + (p + 0.5) * cell;
            one.shape.halfWidth = kNarrowest * std::pow(step, w + 0.5);
            cells.push_back(one);
        }
    }
    bool coarsest = true;
    for (const double temper : kTempers) {
        if (!coarsest) {
            cell /= 2;
            step = std::sqrt(step);
            std::vector<Cell> finer;
            for (const Cell& parent : cells) {
                for (const double x : {-0.5, 0.5}) {
                    for (const double w : {-0.5, 0.5}) {
                        Cell one{kind, 0};
                        one.shape.at = parent.shape.at + x * cell;
                        one.shape.halfWidth = parent.shape.halfWidth * std::pow(step, w);
                        finer.push_back(one);
                    }
                }
            }
            cells = std::move(finer);
        }
        coarsest = false;
        for (Cell& one : cells)
            one.log = of(about, one.shape, temper, one.shape.height) + logPrior(one.shape.at) + prior;
        thin(cells, kind.coupling > 0 ? kCarriedTwo : kCarried);
    }
    const double volume = std::log(cell * std::log(step));
    for (const Cell& one : cells) out.add(one, volume);
}

std::vector<Resonance> believed(const Grid& grid) {
    std::vector<Cell> cells = grid.cells;
    std::sort(cells.begin(), cells.end(), [](const Cell& a, const Cell& b) { return a.log > b.log; });
    std::vector<Resonance> out;
    double sum = 0;
    for (const Cell& cell : cells) {
        if (cell.log < cells.front().log - kWithin || out.size() == kKept) break;
        out.push_back(cell.shape);
        out.back().weight = std::exp(cell.log - cells.front().log);
        sum += out.back().weight;
    }
    for (Resonance& r : out) r.weight /= sum;
    return out;
}

struct Read {
    const std::vector<ResonancePoint>& points;
    double noise, top;
};

double logRead(const void* about, const Resonance& shape, double temper, double& height) {
    const auto& [points, noise, top] = *static_cast<const Read*>(about);
    double gg = 0, gy = 0, yy = 0, errors = 1, logs = 0;
    for (const ResonancePoint& p : points) {
        const double g = gainOf(shape, p.position), y = p.reading / top;
        const double own = p.error > 0 ? p.error / top : noise * y, model = kModel * (1 - g) * y;
        const double square = temper * temper * (own * own + kFloor * kFloor + model * model);
        gg += g * g / square;
        gy += g * y / square;
        yy += y * y / square;
        errors *= square;
        if (errors < 1e-200) logs -= 0.5 * std::log(errors), errors = 1;
    }
    height = gy / gg;
    // Of the height nothing is known beforehand but that it is one: each decade alike.
    const double out = -0.5 * (yy - gy * height) + logs - 0.5 * std::log(errors * gg) - std::log(height);
    height *= top;
    return out;
}

/// How far the likeliest curve is off the readings, in their own errors, squared and summed.
double chiOf(const Read& about, const Resonance& shape) {
    double out = 0;
    for (const ResonancePoint& p : about.points) {
        const double own = p.error > 0 ? p.error : about.noise * p.reading;
        const double error = std::hypot(own, kFloor * about.top);
        out += std::pow((p.reading - shape.height * gainOf(shape, p.position)) / error, 2);
    }
    return out;
}

}  // namespace

double offOf(const Resonance& r, double position) {
    const double off = position - r.at;
    if (r.fixed <= 0) return off / r.halfWidth;
    const double mid = std::max(0.05, r.fixed + r.at);
    return std::log(std::max(0.02, 1 + off / mid)) * mid / r.halfWidth;
}

double gainOf(const Resonance& r, double position) {
    const double s = offOf(r, position);
    if (r.coupling <= 0) return 1 / std::sqrt(1 + s * s);
    if (r.tilt == 0) return hump(r.coupling, s);
    const double side = std::tanh(s / std::max(0.3, std::sqrt(std::max(0.09, r.coupling * r.coupling - 1))));
    return hump(r.coupling, s) * (1 + r.tilt * side) / (1 + std::abs(r.tilt) * std::tanh(1.0));
}

namespace {

/// Where the two humps are.
std::array<double, 2> humpsOf(const Resonance& r) {
    const double s = std::sqrt(r.coupling * r.coupling - 1);
    if (r.fixed <= 0) return {r.at - s * r.halfWidth, r.at + s * r.halfWidth};
    const double mid = std::max(0.05, r.fixed + r.at), by = s * r.halfWidth / mid;
    return {r.at + mid * std::expm1(-by), r.at + mid * std::expm1(by)};
}

}  // namespace

double highestOf(const Resonance& r) {
    if (r.coupling <= 1) return r.at;
    return humpsOf(r)[r.tilt < 0 ? 0 : 1];
}

double lossAt(const Resonance& r, double position) {
    double top = 0;
    if (r.coupling <= 1) {
        top = gainOf(r, std::clamp(r.at, 0.0, 1.0));
    } else {
        for (const double x : humpsOf(r)) top = std::max(top, gainOf(r, std::clamp(x, 0.0, 1.0)));
    }
    return std::max(0.0, 20 * std::log10(top / gainOf(r, position)));
}

std::vector<Resonance> resonancesOf(const std::vector<ResonancePoint>& points, double noise) {
    double top = 0;
    for (const ResonancePoint& p : points) top = std::max(top, p.reading);
    const Read about{points, noise, top};
    Grid grid;
    const auto kind = [](double fixed, double coupling, double tilt) {
        Resonance out;
        out.fixed = fixed;
        out.coupling = coupling;
        out.tilt = tilt;
        return out;
    };
    for (const double fixed : {0.0, kFixed}) search(grid, kind(fixed, 0, 0), &about, logRead, std::log(0.5));
    const auto likeliest = std::max_element(grid.cells.begin(), grid.cells.end(),
                                            [](const Cell& a, const Cell& b) { return a.log < b.log; });
    // Where one circuit does not go through the readings two may; two humps in one of ten (common practice).
    if (points.size() >= 4 && chiOf(about, likeliest->shape) > 0.6 * double(points.size())) {
        const double prior = std::log(0.1 / double(std::size(kCouplings) * std::size(kTilts)));
        for (const double coupling : kCouplings) {
            for (const double tilt : kTilts)
                search(grid, kind(kFixed, coupling, tilt), &about, logRead, prior);
        }
    }
    return believed(grid);
}

}  // namespace ombrek
