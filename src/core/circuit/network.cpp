#include "core/circuit/network.h"

#include <Eigen/LU>
#include <Eigen/SparseLU>
#include <cmath>
#include <limits>
#include <numbers>

namespace ombrek {
namespace {

using Complex = std::complex<double>;
using Kind = NetworkPart::Kind;

/// Coils whose current is an unknown of its own: the coupled ones.
std::vector<int> currentsOf(const Network& n) {
    std::vector<int> out(n.parts.size(), -1);
    int next = n.nodes - 1;
    for (const Coupling& c : n.couplings) {
        for (const std::size_t part : {c.first, c.second}) {
            if (out[part] < 0) out[part] = next++;
        }
    }
    return out;
}

void stamp(Eigen::MatrixXcd& y, int a, int b, Complex admittance) {
    if (a > 0) y(a - 1, a - 1) += admittance;
    if (b > 0) y(b - 1, b - 1) += admittance;
    if (a > 0 && b > 0) {
        y(a - 1, b - 1) -= admittance;
        y(b - 1, a - 1) -= admittance;
    }
}

Complex impedanceOf(const NetworkPart& p, double omega) {
    switch (p.kind) {
        case Kind::inductor:
            return {p.ohms, omega * p.value};
        case Kind::capacitor:
            return {p.ohms, -1.0 / (omega * p.value)};
        default:
            return p.value;
    }
}

/// A line's admittances, cot and 1/sin of its angle; the faintest loss keeps a half wave finite.
void stampLine(Eigen::MatrixXcd& y, const NetworkPart& p, double omega) {
    const Complex way(1e-13, omega * p.delay);
    const Complex own = std::cosh(way) / (p.value * std::sinh(way)),
                  across = -1.0 / (p.value * std::sinh(way));
    if (p.a > 0) y(p.a - 1, p.a - 1) += own;
    if (p.b > 0) y(p.b - 1, p.b - 1) += own;
    if (p.a > 0 && p.b > 0) {
        y(p.a - 1, p.b - 1) += across;
        y(p.b - 1, p.a - 1) += across;
    }
}

/// A coupled coil: its voltage is that of its own current and of those that share its field.
void stampCurrent(Eigen::MatrixXcd& y, const NetworkPart& p, int row, double omega) {
    for (const auto& [node, sign] : {std::pair{p.a, 1.0}, std::pair{p.b, -1.0}}) {
        if (node == 0) continue;
        y(row, node - 1) += sign;
        y(node - 1, row) += sign;
    }
    y(row, row) -= impedanceOf(p, omega);
}

Eigen::MatrixXcd matrixOf(const Network& n, const std::vector<int>& currents, double omega) {
    int size = n.nodes - 1;
    for (const int row : currents) size = std::max(size, row + 1);
    Eigen::MatrixXcd y = Eigen::MatrixXcd::Zero(size, size);
    for (std::size_t i = 0; i < n.parts.size(); ++i) {
        const NetworkPart& p = n.parts[i];
        if (p.parallel > 0) stamp(y, p.a, p.b, 1.0 / p.parallel);
        if (p.kind == Kind::line)
            stampLine(y, p, omega);
        else if (currents[i] >= 0)
            stampCurrent(y, p, currents[i], omega);
        else
            stamp(y, p.a, p.b, 1.0 / impedanceOf(p, omega));
    }
    for (const Coupling& c : n.couplings) {
        const double m = c.k * std::sqrt(n.parts[c.first].value * n.parts[c.second].value);
        y(currents[c.first], currents[c.second]) -= Complex(0, omega * m);
        y(currents[c.second], currents[c.first]) -= Complex(0, omega * m);
    }
    return y;
}

/// A long network is a band of few numbers: what is nought is not reckoned with.
Eigen::MatrixXcd solved(const Eigen::MatrixXcd& y, const Eigen::MatrixXcd& waves) {
    constexpr Eigen::Index kSmall = 40;
    if (y.rows() <= kSmall) return y.partialPivLu().solve(waves);
    const Eigen::SparseMatrix<Complex> sparse = y.sparseView();
    Eigen::SparseLU<Eigen::SparseMatrix<Complex>> lu(sparse);
    if (lu.info() != Eigen::Success) return Eigen::MatrixXcd::Constant(y.rows(), waves.cols(), NAN);
    return lu.solve(waves);
}

std::string faultOf(const Network& n, double source, double load) {
    if (!(source > 0) || !(load > 0)) return "A port's resistance is positive.";
    if (n.in <= 0 || n.in >= n.nodes || n.out < 0 || n.out >= n.nodes) return "A port is at no node.";
    if (n.in == n.out) return "Both ports are at the same node.";
    for (const NetworkPart& p : n.parts) {
        if (!(p.value > 0) || !std::isfinite(p.value) || !(p.ohms >= 0))
            return p.name + " needs a value above nothing.";
        if (p.kind == Kind::line && !(p.delay > 0)) return p.name + " needs a delay above nothing.";
    }
    return {};
}

}  // namespace

Result<std::vector<Scattering>> scatteringOf(const Network& n, const std::vector<double>& frequencies,
                                             double source, double load) {
    if (const std::string fault = faultOf(n, source, load); !fault.empty()) return problem("", fault);
    const std::vector<int> currents = currentsOf(n);
    std::vector<Scattering> out;
    out.reserve(frequencies.size());
    for (const double f : frequencies) {
        if (!(f > 0) || !std::isfinite(f)) return problem("", "A frequency is above nothing.");
        Eigen::MatrixXcd y = matrixOf(n, currents, 2 * std::numbers::pi * f);
        y(n.in - 1, n.in - 1) += 1.0 / source;
        if (n.twoPort()) y(n.out - 1, n.out - 1) += 1.0 / load;
        // A unit wave into a port is a current of 2/√Z beside the port's own resistance.
        Eigen::MatrixXcd waves = Eigen::MatrixXcd::Zero(y.rows(), n.twoPort() ? 2 : 1);
        waves(n.in - 1, 0) = 2 / std::sqrt(source);
        if (n.twoPort()) waves(n.out - 1, 1) = 2 / std::sqrt(load);
        const Eigen::MatrixXcd v = solved(y, waves);
        if (!v.allFinite() || (y * v - waves).norm() > 1e-6 * waves.norm())
            return problem("", "A node hangs in the air: everything must lead to ground or to a port.");
        Scattering s;
        s.s11 = v(n.in - 1, 0) / std::sqrt(source) - 1.0;
        if (n.twoPort()) {
            s.s21 = v(n.out - 1, 0) / std::sqrt(load);
            s.s12 = v(n.in - 1, 1) / std::sqrt(source);
            s.s22 = v(n.out - 1, 1) / std::sqrt(load) - 1.0;
        }
        out.push_back(s);
    }
    return out;
}

double lossOf(std::complex<double> s21) { return -20 * std::log10(std::abs(s21)); }

double swrOf(std::complex<double> reflection) {
    const double size = std::abs(reflection);
    return size >= 1 ? std::numeric_limits<double>::infinity() : (1 + size) / (1 - size);
}

std::vector<double> frequenciesFrom(double low, double high, int points, bool byRatio) {
    std::vector<double> out;
    out.reserve(std::size_t(std::max(points, 0)));
    for (int i = 0; i < points; ++i) {
        const double part = points > 1 ? double(i) / (points - 1) : 0;
        out.push_back(byRatio ? low * std::pow(high / low, part) : low + part * (high - low));
    }
    if (points > 1) out.back() = high;
    return out;
}

}  // namespace ombrek
