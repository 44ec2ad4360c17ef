#include "picture/ground.h"

#include <algorithm>

namespace ombrek {
namespace {

constexpr std::size_t kSamples = 1500;

/// Pixels of the frame, a fortieth of the picture wide, evenly thinned.
std::vector<cv::Point> frameOf(const cv::Mat& lab) {
    const int frame = std::max(3, std::min(lab.rows, lab.cols) / 40);
    std::vector<cv::Point> points, out;
    for (int y = 0; y < lab.rows; ++y) {
        for (int x = 0; x < lab.cols; ++x) {
            if (x == frame && y >= frame && y < lab.rows - frame) x = lab.cols - frame;
            points.emplace_back(x, y);
        }
    }
    const std::size_t step = std::max<std::size_t>(1, points.size() / kSamples);
    for (std::size_t i = 0; i < points.size(); i += step) out.push_back(points[i]);
    return out;
}

}  // namespace

Ground::Ground(const cv::Mat& lab) : width_(lab.cols), height_(lab.rows) {
    const auto samples = frameOf(lab);
    for (int c = 0; c < 3; ++c) fit(lab, samples, c);
}

cv::Vec3f Ground::at(int x, int y) const {
    const double u = double(x) / width_ - 0.5, v = double(y) / height_ - 0.5;
    cv::Vec3f out;
    for (int c = 0; c < 3; ++c) {
        const auto& w = weights_[c];
        out[c] = float(w(0) + w(1) * u + (w(2) + w(3) * u) * v);
    }
    return out;
}

cv::Mat Ground::evened(const cv::Mat& lab) const {
    // Less light makes all three of L*, a* and b* less, by nearly the same share.
    const double middle = weights_[0](0);
    cv::Mat out = lab.clone();
    for (int y = 0; y < lab.rows; ++y) {
        for (int x = 0; x < lab.cols; ++x)
            out.at<cv::Vec3f>(y, x) *= float(std::clamp(middle / std::max(1.0f, at(x, y)[0]), 0.5, 2.0));
    }
    return out;
}

cv::Matx14d Ground::termsOf(double x, double y) const {
    const double u = x / width_ - 0.5, v = y / height_ - 0.5;
    return {1, u, v, u * v};
}

/// Least squares, three times, each time without what lies far off: a tail that crosses the frame.
void Ground::fit(const cv::Mat& lab, std::vector<cv::Point> samples, int channel) {
    for (int round = 0; round < 3; ++round) {
        cv::Mat terms(int(samples.size()), 4, CV_64F), values(int(samples.size()), 1, CV_64F), weights;
        for (int i = 0; i < terms.rows; ++i) {
            const cv::Matx14d row = termsOf(samples[std::size_t(i)].x, samples[std::size_t(i)].y);
            for (int k = 0; k < 4; ++k) terms.at<double>(i, k) = row(k);
            values.at<double>(i) = lab.at<cv::Vec3f>(samples[std::size_t(i)])[channel];
        }
        cv::solve(terms, values, weights, cv::DECOMP_SVD);
        weights_[channel] = cv::Matx41d(weights);
        cv::Mat off = cv::abs(values - terms * weights), sorted;
        cv::sort(off, sorted, cv::SORT_EVERY_COLUMN | cv::SORT_ASCENDING);
        const double far = std::max(1.0, 4 * sorted.at<double>(sorted.rows / 2));
        std::vector<cv::Point> near;
        for (int i = 0; i < off.rows; ++i) {
            if (off.at<double>(i) <= far) near.push_back(samples[std::size_t(i)]);
        }
        if (near.size() == samples.size()) break;
        samples = std::move(near);
    }
}

}  // namespace ombrek
