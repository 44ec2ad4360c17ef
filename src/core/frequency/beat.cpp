#include "core/frequency/beat.h"

#include <algorithm>
#include <complex>
#include <unsupported/Eigen/FFT>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

using Spectrum = std::vector<std::complex<double>>;

constexpr double kShortest = 1;       ///< of a recording [s]
constexpr double kLowest = 20;        ///< note that is heard [Hz]
constexpr double kAboveNoise = 12;    ///< times the median of the spectrum: a note
constexpr double kSlowest = 1.5;      ///< cycles of a slow beat that must be in the recording
constexpr double kFastest = 25;       ///< slow beat [Hz]
constexpr double kDeep = 0.04;        ///< of the strength: so much must a slow beat move it
constexpr double kAround = 30;        ///< of the note: what its strength is made of [Hz]
constexpr double kShareOfBin = 0.05;  ///< error of an interpolated top, of 1/T

/// The longest length up to this that a fast transform is fast for: of twos, threes and fives alone, and
/// even. Recordings end anywhere, and a prime number of samples takes as long as its square.
std::size_t fastLength(std::size_t most) {
    for (std::size_t n = most - most % 2; n > 2; n -= 2) {
        std::size_t left = n;
        for (const std::size_t factor : {2, 3, 5})
            while (left % factor == 0) left /= factor;
        if (left == 1) return n;
    }
    return most;
}

/// A top of a spectrum between two bins, by the parabola through three logarithms.
double topOf(const std::vector<double>& size, std::size_t k) {
    if (k == 0 || k + 1 >= size.size()) return double(k);
    const double a = std::log(size[k - 1] + 1e-30), b = std::log(size[k] + 1e-30),
                 c = std::log(size[k + 1] + 1e-30);
    const double bend = a - 2 * b + c;
    return double(k) + (bend < 0 ? std::clamp(0.5 * (a - c) / bend, -0.5, 0.5) : 0.0);
}

std::vector<double> windowed(const std::vector<double>& x) {
    std::vector<double> out(x.size());
    for (std::size_t i = 0; i < x.size(); ++i)
        out[i] = x[i] * (0.5 - 0.5 * std::cos(2 * M_PI * double(i) / double(x.size())));
    return out;
}

std::vector<double> sizesOf(const std::vector<double>& x) {
    Eigen::FFT<double> fft;
    Spectrum f;
    fft.fwd(f, windowed(x));
    std::vector<double> out;
    for (std::size_t i = 0; i <= x.size() / 2; ++i) out.push_back(std::abs(f[i]));
    return out;
}

double medianOf(std::vector<double> x) {
    if (x.empty()) return 0;
    const auto middle = x.begin() + std::ptrdiff_t(x.size() / 2);
    std::nth_element(x.begin(), middle, x.end());
    return *middle;
}

/// The strongest of a range of bins; 0 when there is none.
std::size_t strongest(const std::vector<double>& size, double from, double to) {
    const auto low = std::size_t(std::max(1.0, std::ceil(from)));
    const auto high = std::min(size.size() - 1, std::size_t(std::max(0.0, to)));
    if (low >= high) return 0;
    return std::size_t(
        std::max_element(size.begin() + std::ptrdiff_t(low), size.begin() + std::ptrdiff_t(high)) -
        size.begin());
}

/// The strength of what lies around a note, over the time of the recording.
std::vector<double> strengthOf(const std::vector<double>& x, double note, double around) {
    Eigen::FFT<double> fft;
    Spectrum f, out;
    fft.fwd(f, x);
    for (std::size_t i = 0; i < f.size(); ++i)
        if (i > f.size() / 2 || std::abs(double(i) - note) > around) f[i] = 0;
    fft.inv(out, f);
    std::vector<double> size;
    for (const auto& z : out) size.push_back(std::abs(z));
    return size;
}

/// The slow beat in a strength [Hz], with its share of it.
void findSlow(const std::vector<double>& strength, double rate, Beat& out) {
    double mean = 0;
    for (const double s : strength) mean += s / double(strength.size());
    if (!(mean > 0)) return;
    std::vector<double> moves;
    for (const double s : strength) moves.push_back(s / mean - 1);
    const double seconds = double(strength.size()) / rate;
    const auto size = sizesOf(moves);
    const std::size_t k = strongest(size, kSlowest, kFastest * seconds);
    if (k == 0 || size[k] / (double(moves.size()) / 4) < kDeep) return;
    out.slow = topOf(size, k) / seconds;
    out.slowError = 0.25 / seconds;
}

}  // namespace

Result<Beat> beatOf(const std::vector<float>& samples, double rate) {
    if (!(rate > 0) || double(samples.size()) < kShortest * rate)
        return problem("", "The recording is too short: ten seconds tell a tenth of a hertz.");
    std::vector<double> x(samples.begin(), samples.end());
    x.resize(fastLength(x.size()));
    for (double& v : x)
        if (!std::isfinite(v)) v = 0;
    const double seconds = double(x.size()) / rate;
    const auto size = sizesOf(x);
    const std::size_t k = strongest(size, kLowest * seconds, double(size.size() - 1));
    if (k == 0 || !(size[k] > kAboveNoise * medianOf(size)) || !(size[k] > 0))
        return problem("", "No note is heard in it, nothing but noise.");
    Beat out;
    out.tone = topOf(size, k) / seconds;
    out.toneError = kShareOfBin / seconds;
    findSlow(strengthOf(x, double(k), kAround * seconds), rate, out);
    out.sentence = std::isnan(out.slow)
                       ? "A note of " + decimals(out.tone, 2) + " Hz, ±" + decimals(out.toneError, 2) + " Hz."
                       : "A note of " + decimals(out.tone, 1) + " Hz that beats at " + decimals(out.slow, 2) +
                             " Hz, ±" + decimals(out.slowError, 2) +
                             " Hz: so far apart are the two carriers.";
    return out;
}

}  // namespace ombrek
