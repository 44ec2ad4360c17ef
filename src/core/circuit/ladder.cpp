#include "core/circuit/ladder.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

namespace ombrek {
namespace {

using Kind = LadderElement::Kind;

/// Voltage and current into the rest of the ladder, of every frequency.
struct Waves {
    std::vector<double> vr, vi, ir, ii;
};

/// a += (r + j·ω·value)·b, of every frequency: a coil in the way, or a capacitor across. The arrays are
/// apart, so that the compiler takes several frequencies at once.
void add(std::size_t n, double* __restrict ar, double* __restrict ai, const double* __restrict br,
         const double* __restrict bi, double r, double value, const double* __restrict omega) {
    for (std::size_t k = 0; k < n; ++k) {
        const double x = omega[k] * value;
        ar[k] += r * br[k] - x * bi[k];
        ai[k] += r * bi[k] + x * br[k];
    }
}

/// a += (r + jx)·b.
void add(std::size_t n, double* __restrict ar, double* __restrict ai, const double* __restrict br,
         const double* __restrict bi, double r, const double* __restrict x) {
    for (std::size_t k = 0; k < n; ++k) {
        ar[k] += r * br[k] - x[k] * bi[k];
        ai[k] += r * bi[k] + x[k] * br[k];
    }
}

/// a += b·(1/(r + jx)), of every frequency.
void addThrough(std::size_t n, double* ar, double* ai, const double* br, const double* bi, double r,
                const double* x) {
    for (std::size_t k = 0; k < n; ++k) {
        const double size = r * r + x[k] * x[k], g = r / size, b = -x[k] / size;
        ar[k] += g * br[k] - b * bi[k];
        ai[k] += g * bi[k] + b * br[k];
    }
}

bool isSeries(Kind kind) { return kind == Kind::seriesL || kind == Kind::seriesC || kind == Kind::seriesR; }

/// Reactance of an element at every frequency [Ω].
void reactances(const LadderElement& e, std::span<const double> omega, double* x) {
    const std::size_t n = omega.size();
    if (e.kind == Kind::seriesL || e.kind == Kind::shuntL) {
        for (std::size_t k = 0; k < n; ++k) x[k] = omega[k] * e.value;
    } else if (e.kind == Kind::seriesC || e.kind == Kind::shuntC) {
        for (std::size_t k = 0; k < n; ++k) x[k] = -1.0 / (omega[k] * e.value);
    } else {
        std::fill(x, x + n, 0.0);
    }
}

void passBack(const LadderElement& e, std::span<const double> omega, Waves& w, double* x) {
    const std::size_t n = omega.size();
    // The commonest, without a division.
    if (e.kind == Kind::shuntC && e.ohms == 0)
        return add(n, w.ir.data(), w.ii.data(), w.vr.data(), w.vi.data(), 0, e.value, omega.data());
    if (e.kind == Kind::seriesL)
        return add(n, w.vr.data(), w.vi.data(), w.ir.data(), w.ii.data(), e.ohms, e.value, omega.data());
    reactances(e, omega, x);
    const bool resistor = e.kind == Kind::seriesR || e.kind == Kind::shuntR;
    const double r = resistor ? e.value : e.ohms;
    if (isSeries(e.kind))
        add(n, w.vr.data(), w.vi.data(), w.ir.data(), w.ii.data(), r, x);
    else
        addThrough(n, w.ir.data(), w.ii.data(), w.vr.data(), w.vi.data(), r, x);
}

}  // namespace

double LadderSweep::loss(std::size_t p) const {
    constexpr double kDecibel = 10.0 / std::numbers::ln10;  // the natural logarithm is the quicker one
    return -kDecibel * std::log(s21re[p] * s21re[p] + s21im[p] * s21im[p]);
}

void sweepInto(LadderSweep& out, const std::vector<LadderElement>& ladder,
               std::span<const double> frequencies, double source, double load) {
    const std::size_t n = frequencies.size();
    if (!(source > 0) || !(load > 0)) throw std::domain_error("a port's resistance is positive");
    thread_local Waves w;
    thread_local std::vector<double> omega, x;
    omega.resize(n);
    x.resize(n);
    for (std::size_t k = 0; k < n; ++k) {
        if (!(frequencies[k] > 0)) throw std::domain_error("a frequency is positive");
        omega[k] = 2.0 * std::numbers::pi * frequencies[k];
    }
    // One volt across the load.
    w.vr.assign(n, 1.0);
    w.vi.assign(n, 0.0);
    w.ir.assign(n, 1.0 / load);
    w.ii.assign(n, 0.0);
    for (auto e = ladder.rbegin(); e != ladder.rend(); ++e) {
        if (!(e->value > 0) || !(e->ohms >= 0)) throw std::domain_error("an element's value is positive");
        passBack(*e, omega, w, x.data());
    }
    for (auto* part : {&out.s11re, &out.s11im, &out.s21re, &out.s21im}) part->resize(n);
    const double through = 2.0 * std::sqrt(source / load);
    for (std::size_t k = 0; k < n; ++k) {
        const double ar = w.vr[k] + source * w.ir[k], ai = w.vi[k] + source * w.ii[k];
        const double br = w.vr[k] - source * w.ir[k], bi = w.vi[k] - source * w.ii[k];
        const double size = 1.0 / (ar * ar + ai * ai);
        out.s21re[k] = through * ar * size;
        out.s21im[k] = -through * ai * size;
        out.s11re[k] = (br * ar + bi * ai) * size;
        out.s11im[k] = (bi * ar - br * ai) * size;
    }
}

LadderSweep sweep(const std::vector<LadderElement>& ladder, std::span<const double> frequencies,
                  double source, double load) {
    LadderSweep out;
    sweepInto(out, ladder, frequencies, source, load);
    return out;
}

double insertionLoss(const std::vector<LadderElement>& ladder, double frequency, double resistance) {
    return sweep(ladder, {&frequency, 1}, resistance, resistance).loss(0);
}

}  // namespace ombrek
