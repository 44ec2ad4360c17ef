#include "picture/turn_count.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <opencv2/imgproc.hpp>

#include "core/text/counted.h"
#include "picture/ground.h"
#include "picture/ring.h"

namespace ombrek {
namespace {

constexpr int kAngles = 2880;  ///< steps around the ring
constexpr int kSide = 1000;    ///< longest side that is looked at [pixels]
constexpr double kFirst = 0.40, kLast = 0.92;
constexpr int kLooks = 14;       ///< radii at which the wires are counted
constexpr double kAlike = 1.35;  ///< widths of single wires differ by less

/// The ring unrolled: one row a radius, one column an angle, L*a*b*.
cv::Mat unroll(const cv::Mat& lab, const RingInPicture& ring) {
    cv::Mat mapX(kLooks, kAngles, CV_32F), mapY(kLooks, kAngles, CV_32F), out;
    for (int k = 0; k < kLooks; ++k) {
        const double t = kFirst + (kLast - kFirst) * k / (kLooks - 1);
        for (int i = 0; i < kAngles; ++i) {
            const cv::Point2d p = ring.at(2 * CV_PI * i / kAngles, t);
            mapX.at<float>(k, i) = float(p.x);
            mapY.at<float>(k, i) = float(p.y);
        }
    }
    cv::remap(lab, out, mapX, mapY, cv::INTER_LINEAR, cv::BORDER_REPLICATE);
    return out;
}

/// Blurred around the ring, where the end meets the beginning.
std::vector<float> smoothed(const std::vector<float>& signal, double sigma) {
    const int reach = std::max(1, int(3 * sigma)), n = int(signal.size());
    std::vector<float> kernel;
    float sum = 0;
    for (int i = -reach; i <= reach; ++i) {
        kernel.push_back(float(std::exp(-0.5 * i * i / (sigma * sigma))));
        sum += kernel.back();
    }
    std::vector<float> out(signal.size());
    for (int i = 0; i < n; ++i) {
        float value = 0;
        for (int k = 0; k <= 2 * reach; ++k)
            value += kernel[std::size_t(k)] * signal[std::size_t((i + k - reach + n) % n)];
        out[std::size_t(i)] = value / sum;
    }
    return out;
}

/// Two kinds of surface on the ring, wire and core, told apart by colour. The wire is the one nearer to the
/// hue of enamelled copper.
struct Surfaces {
    cv::Vec3f wire, core;
    double apart = 0;  ///< distance of the two

    /// Above 0 nearer to the wire, below nearer to the core; ±1 at the two.
    float wireness(const cv::Vec3f& lab) const {
        const cv::Vec3f axis = weigh(wire - core), from = weigh(lab - (wire + core) * 0.5f);
        return from.dot(axis) / std::max(1e-3f, axis.dot(axis)) * 2;
    }
    static cv::Vec3f weigh(const cv::Vec3f& v) { return {0.45f * v[0], v[1], v[2]}; }
};

double fromCopper(const cv::Vec3f& lab) {
    constexpr double kHue = 52 * CV_PI / 180;  // of copper under red-brown enamel
    const double chroma = std::hypot(lab[1], lab[2]);
    const double off = std::remainder(std::atan2(lab[2], lab[1]) - kHue, 2 * CV_PI);
    return std::fabs(off) * std::min(chroma, 40.0) + std::max(0.0, 28 - chroma) * 1.2;
}

Surfaces surfacesOf(const cv::Mat& unrolled) {
    cv::Mat samples(int(unrolled.total() / 4), 3, CV_32F);
    for (int i = 0; i < samples.rows; ++i) {
        const cv::Vec3f v = Surfaces::weigh(unrolled.at<cv::Vec3f>(4 * i / kAngles, 4 * i % kAngles));
        for (int c = 0; c < 3; ++c) samples.at<float>(i, c) = v[c];
    }
    cv::Mat labels, centres;
    cv::theRNG().state = 7;
    cv::kmeans(samples, 2, labels, {cv::TermCriteria::MAX_ITER | cv::TermCriteria::EPS, 60, 0.05}, 4,
               cv::KMEANS_PP_CENTERS, centres);
    const auto centre = [&](int i) {
        return cv::Vec3f(centres.at<float>(i, 0) / 0.45f, centres.at<float>(i, 1), centres.at<float>(i, 2));
    };
    Surfaces out{centre(0), centre(1)};
    if (fromCopper(out.core) < fromCopper(out.wire)) std::swap(out.wire, out.core);
    out.apart = cv::norm(Surfaces::weigh(out.wire - out.core));
    return out;
}

struct Run {
    int from = 0, length = 0;  ///< in angle steps; may run over the end
};

/// Stretches where the signal is above zero, with gaps and specks shorter than `speck` closed.
std::vector<Run> runsOf(const std::vector<float>& signal, int speck) {
    const int n = int(signal.size());
    std::vector<char> on(signal.size());
    for (int i = 0; i < n; ++i) on[std::size_t(i)] = signal[std::size_t(i)] > 0 ? 1 : 0;
    const auto collect = [&](bool of) {
        std::vector<Run> out;
        int start = -1;
        for (int i = 0; i < n; ++i) {
            if (bool(on[std::size_t(i)]) != bool(on[std::size_t((i + n - 1) % n)])) {
                start = i;
                break;
            }
        }
        if (start < 0) {
            if (bool(on[0]) == of) out.push_back({0, n});
            return out;
        }
        for (int i = 0; i < n;) {
            int length = 1;
            const bool state = on[std::size_t((start + i) % n)];
            while (i + length < n && bool(on[std::size_t((start + i + length) % n)]) == state) ++length;
            if (state == of) out.push_back({(start + i) % n, length});
            i += length;
        }
        return out;
    };
    for (const bool of : {false, true}) {
        for (const Run& run : collect(of)) {
            if (run.length >= speck || run.length == n) continue;
            for (int i = 0; i < run.length; ++i) on[std::size_t((run.from + i) % n)] = of ? 0 : 1;
        }
    }
    return collect(true);
}

/// Where wires lie at one radius.
struct Look {
    std::vector<double> at;  ///< angle steps
    double doubt = 0;        ///< how many of them might be one more or less
};

double quantile(std::vector<double> values, double share) {
    if (values.empty()) return 0;
    const auto at = values.begin() + std::ptrdiff_t(share * double(values.size() - 1));
    std::nth_element(values.begin(), at, values.end());
    return *at;
}

class Counter {
 public:
    Counter(const cv::Mat& unrolled, const RingInPicture& ring)
        : unrolled_(unrolled), ring_(ring), surfaces_(surfacesOf(unrolled)) {}

    const Surfaces& surfaces() const { return surfaces_; }

    std::vector<Look> looks() {
        std::vector<std::vector<float>> wireness(kLooks), light(kLooks);
        for (int k = 0; k < kLooks; ++k) {
            for (int i = 0; i < kAngles; ++i) {
                const auto& v = unrolled_.at<cv::Vec3f>(k, i);
                wireness[std::size_t(k)].push_back(surfaces_.wireness(v));
                light[std::size_t(k)].push_back(v[0]);
            }
            wireness[std::size_t(k)] = smoothed(wireness[std::size_t(k)], 2.0);
        }
        const std::vector<double> widths = widthsOf(wireness);
        width_ = quantile(widths, 0.30);
        alike_ = width_ < kAlike * quantile(widths, 0.05);
        if (!(width_ > 0)) return {};
        std::vector<Look> out;
        for (int k = 0; k < kLooks; ++k)
            out.push_back(look(k, wireness[std::size_t(k)], light[std::size_t(k)]));
        return out;
    }

    /// Whether what was taken for single wires is alike: else some may be two.
    bool alike() const { return alike_; }
    double widthInSteps(int k) const { return width_ / stepAt(k); }

 private:
    double stepAt(int k) const {
        const double t = kFirst + (kLast - kFirst) * k / (kLooks - 1);
        const double inner = std::sqrt(ring_.innerA * ring_.innerB), outer = ring_.meanOuter();
        return 2 * CV_PI * (inner + t * (outer - inner)) / kAngles;
    }

    /// Widths of wires at the outer radii, where they lie apart. A wire goes on towards the hole; a speck of
    /// noise does not.
    std::vector<double> widthsOf(const std::vector<std::vector<float>>& wireness) const {
        constexpr int kInward = 3;
        std::vector<double> out;
        for (int k = kLooks / 2; k < kLooks; ++k) {
            const auto& inward = wireness[std::size_t(k - kInward)];
            for (const Run& run : runsOf(wireness[std::size_t(k)], 5)) {
                if (inward[std::size_t((run.from + run.length / 2) % kAngles)] > 0)
                    out.push_back(run.length * stepAt(k));
            }
        }
        return out;
    }

    Look look(int k, const std::vector<float>& wireness, const std::vector<float>& light) const {
        const double width = widthInSteps(k);
        const std::vector<float> shine = smoothed(light, std::max(1.0, width * 0.12));
        Look out;
        for (const Run& run : runsOf(wireness, std::max(3, int(width * 0.3)))) {
            if (run.length < 0.45 * width) {
                out.doubt += 0.5;
                continue;
            }
            place(run, width, shine, out);
        }
        std::sort(out.at.begin(), out.at.end());
        return out;
    }

    /// One wire in a run of its own width; in a longer one, a wire at every crest of light.
    void place(const Run& run, double width, const std::vector<float>& shine, Look& out) const {
        const double ratio = run.length / width;
        if (ratio < 1.35) {
            out.at.push_back(run.from + run.length / 2.0);
            return;
        }
        std::vector<double> crests = crestsOf(run, width, shine);
        const double byLength = ratio < 1.8 ? 2 : ratio;
        if (std::fabs(double(crests.size()) - byLength) > 0.35 + 0.15 * ratio) out.doubt += 0.5;
        const auto least = std::size_t(std::max(1.0, std::round(ratio * 0.75)));
        if (crests.size() < least) {  // no relief to see: share the run out evenly
            crests.clear();
            const int even = int(std::max(1.0, std::round(ratio)));
            for (int i = 0; i < even; ++i) crests.push_back(run.from + run.length * (i + 0.5) / even);
            out.doubt += 1;
        }
        out.at.insert(out.at.end(), crests.begin(), crests.end());
    }

    std::vector<double> crestsOf(const Run& run, double width, const std::vector<float>& shine) const {
        const auto value = [&](int i) { return shine[std::size_t(((i % kAngles) + kAngles) % kAngles)]; };
        std::vector<std::pair<float, int>> tops;
        const int near = std::max(2, int(width * 0.3));
        for (int i = run.from + int(width * 0.15); i < run.from + run.length - int(width * 0.15); ++i) {
            bool top = true;
            for (int j = 1; j <= near && top; ++j) top = value(i) >= value(i - j) && value(i) > value(i + j);
            if (top) tops.push_back({value(i), i});
        }
        // A crest counts when it stands out from the valleys beside it.
        std::vector<double> out;
        for (const auto& [height, i] : tops) {
            float left = height, right = height;
            for (int j = 1; j <= int(width * 0.7); ++j) {
                left = std::min(left, value(i - j));
                right = std::min(right, value(i + j));
            }
            if (height - std::max(left, right) > 1.2f) out.push_back(i);
        }
        return out;
    }

    const cv::Mat& unrolled_;
    const RingInPicture& ring_;
    Surfaces surfaces_;
    double width_ = 0;  ///< of a wire [pixels]
    bool alike_ = false;
};

/// The count most looks agree on; among equals the one seen farther out, where wires lie apart.
int agreedCount(const std::vector<Look>& looks, double& share) {
    std::map<int, double> votes;
    double all = 0;
    for (std::size_t k = 0; k < looks.size(); ++k) {
        const double weight = (0.6 + 0.4 * double(k) / double(looks.size())) / (1 + looks[k].doubt);
        votes[int(looks[k].at.size())] += weight;
        all += weight;
    }
    const auto best =
        std::max_element(votes.begin(), votes.end(), [](auto& a, auto& b) { return a.second < b.second; });
    share = all > 0 ? best->second / all : 0;
    return best->first;
}

std::vector<WireMark> marksOf(const std::vector<Look>& looks, int count, const RingInPicture& ring,
                              double scale) {
    int best = -1;
    for (int k = 0; k < kLooks; ++k) {
        if (int(looks[std::size_t(k)].at.size()) == count) best = k;
    }
    std::vector<WireMark> out;
    if (best < 0) return out;
    for (const double at : looks[std::size_t(best)].at) {
        int found = 0;
        for (const Look& other : looks) {
            found += std::any_of(other.at.begin(), other.at.end(), [&](double b) {
                return std::fabs(std::remainder(at - b, double(kAngles))) < kAngles / 120.0;
            });
        }
        const double angle = 2 * CV_PI * at / kAngles;
        const cv::Point2d in = ring.at(angle, 0) / scale, edge = ring.at(angle, 1) / scale;
        double degrees = std::fmod(angle * 180 / CV_PI, 360);
        out.push_back({degrees, in.x, in.y, edge.x, edge.y, double(found) / kLooks});
    }
    return out;
}

}  // namespace

Result<TurnCount> countTurns(const Picture& picture) {
    const long pixels = long(picture.width) * picture.height;
    if (picture.width < 64 || picture.height < 64)
        return problem("picture", "This picture is too small to see wires in: 64 pixels each way at least.");
    if (pixels > kMostPixels)
        return problem("picture",
                       "This picture is too large (more than 60 megapixels): make it smaller first.");
    if (long(picture.rgb.size()) != 3 * pixels) return problem("picture", "This picture is not whole.");
    const cv::Mat whole(picture.height, picture.width, CV_8UC3,
                        const_cast<std::uint8_t*>(picture.rgb.data()));
    const double scale = std::min(1.0, double(kSide) / std::max(picture.width, picture.height));
    cv::Mat small, lab;
    cv::resize(whole, small, {}, scale, scale, cv::INTER_AREA);
    small.convertTo(small, CV_32FC3, 1.0 / 255);
    cv::cvtColor(small, lab, cv::COLOR_RGB2Lab);
    lab = Ground(lab).evened(lab);
    const auto ring = findRing(lab);
    if (!ring)
        return problem(
            "picture",
            "No ring is seen. Lay the coil flat on a plain ground of another colour, and let it fill "
            "half the picture.");
    TurnCount out;
    out.width = picture.width;
    out.height = picture.height;
    cv::Mat calm;
    cv::bilateralFilter(lab, calm, 5, 8, 2);
    const cv::Mat unrolled = unroll(calm, *ring);
    Counter counter(unrolled, *ring);
    const std::vector<Look> looks = counter.looks();
    double share = 0;
    if (looks.empty() || counter.surfaces().apart < 6)
        return problem("picture", "A ring is seen, but no wire that differs from it.");
    out.count = agreedCount(looks, share);
    if (out.count == 0) return problem("picture", "A ring is seen, but no wire on it.");
    out.marks = marksOf(looks, out.count, *ring, scale);
    const bool together =
        std::all_of(out.marks.begin(), out.marks.end(), [](auto& m) { return m.agreement > 0.45; });
    out.sure = share > 0.62 && together && counter.alike() && int(out.marks.size()) == out.count;
    out.sentence = counted(out.count, "wire crosses", "wires cross") + " the front" +
                   (out.sure ? "." : ", but not every look agrees: check the marks.");
    return out;
}

}  // namespace ombrek
