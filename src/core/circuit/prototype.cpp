#include "core/circuit/prototype.h"

#include <cmath>
#include <numbers>
#include <stdexcept>

namespace ombrek {

std::vector<double> chebyshev(int order, double ripple) {
    if (order < 1 || order > 15 || order % 2 == 0) throw std::domain_error("the order is odd, 1 to 15");
    if (!(ripple > 0) || !(ripple < 10)) throw std::domain_error("the ripple is between 0 and 10 dB");
    const double beta = std::log(1.0 / std::tanh(ripple * std::numbers::ln10 / 40.0));
    const double gamma = std::sinh(beta / (2.0 * order));
    const auto a = [&](int k) { return std::sin((2.0 * k - 1.0) * std::numbers::pi / (2.0 * order)); };
    const auto b = [&](int k) {
        const double s = std::sin(k * std::numbers::pi / order);
        return gamma * gamma + s * s;
    };
    std::vector<double> out{2.0 * a(1) / gamma};
    for (int k = 2; k <= order; ++k) out.push_back(4.0 * a(k - 1) * a(k) / (b(k - 1) * out.back()));
    return out;
}

}  // namespace ombrek
