#include "core/circuit/ladder.h"

#include <Eigen/Core>
#include <cmath>
#include <complex>
#include <numbers>
#include <stdexcept>

namespace ombrek {
namespace {

using Complex = std::complex<double>;

Eigen::Matrix2cd chainMatrix(const LadderElement& element, double omega) {
    const Complex jwx(0.0, omega * element.value);
    Eigen::Matrix2cd m = Eigen::Matrix2cd::Identity();
    switch (element.kind) {
        case LadderElement::Kind::seriesL:
            m(0, 1) = jwx;
            break;
        case LadderElement::Kind::seriesC:
            m(0, 1) = 1.0 / jwx;
            break;
        case LadderElement::Kind::shuntL:
            m(1, 0) = 1.0 / jwx;
            break;
        case LadderElement::Kind::shuntC:
            m(1, 0) = jwx;
            break;
    }
    return m;
}

}  // namespace

double insertionLoss(const std::vector<LadderElement>& ladder, double frequency, double resistance) {
    if (!(frequency > 0) || !(resistance > 0))
        throw std::domain_error("frequency and resistance are positive");
    const double omega = 2.0 * std::numbers::pi * frequency;
    Eigen::Matrix2cd chain = Eigen::Matrix2cd::Identity();
    for (const LadderElement& element : ladder) {
        if (!(element.value > 0)) throw std::domain_error("an element's value is positive");
        chain *= chainMatrix(element, omega);
    }
    const Complex s21 =
        2.0 / (chain(0, 0) + chain(0, 1) / resistance + chain(1, 0) * resistance + chain(1, 1));
    return -20.0 * std::log10(std::abs(s21));
}

}  // namespace ombrek
