#include "picture/ring.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <vector>

#include "picture/ground.h"

namespace ombrek {
namespace {

/// How far every pixel is from the background, times three.
cv::Mat differenceOf(const cv::Mat& lab) {
    const Ground ground(lab);
    cv::Mat smooth, difference(lab.size(), CV_8U);
    cv::GaussianBlur(lab, smooth, {}, 1.5);
    for (int y = 0; y < lab.rows; ++y) {
        for (int x = 0; x < lab.cols; ++x) {
            const cv::Vec3f d = smooth.at<cv::Vec3f>(y, x) - ground.at(x, y);
            // Shadows change the lightness more than the colour.
            const double far = std::sqrt(0.5 * d[0] * d[0] + d[1] * d[1] + d[2] * d[2]);
            difference.at<std::uint8_t>(y, x) = cv::saturate_cast<std::uint8_t>(far * 3);
        }
    }
    return difference;
}

using Contour = std::vector<cv::Point>;

/// An ellipse through a contour, fitted again without the points that lie off it (tails, shadows).
cv::RotatedRect sturdyEllipse(const Contour& contour) {
    std::vector<cv::Point2f> points(contour.begin(), contour.end());
    cv::RotatedRect out = cv::fitEllipse(points);
    for (int round = 0; round < 4; ++round) {
        const double c = std::cos(out.angle * CV_PI / 180), s = std::sin(out.angle * CV_PI / 180);
        std::vector<cv::Point2f> kept;
        for (const cv::Point2f& p : points) {
            const cv::Point2f d = p - out.center;
            const double u = (d.x * c + d.y * s) / (out.size.width / 2),
                         v = (-d.x * s + d.y * c) / (out.size.height / 2);
            if (std::fabs(std::hypot(u, v) - 1) < 0.06) kept.push_back(p);
        }
        if (kept.size() < 20 || kept.size() == points.size()) break;
        out = cv::fitEllipse(kept);
    }
    return out;
}

const Contour* largest(const std::vector<Contour>& contours) {
    const auto hit = std::max_element(
        contours.begin(), contours.end(),
        [](const Contour& a, const Contour& b) { return cv::contourArea(a) < cv::contourArea(b); });
    return hit == contours.end() || hit->size() < 20 ? nullptr : &*hit;
}

void drawFilled(cv::Mat& mask, const cv::RotatedRect& ellipse, double scale) {
    cv::RotatedRect scaled = ellipse;
    scaled.size.width *= float(scale);
    scaled.size.height *= float(scale);
    cv::ellipse(mask, scaled, cv::Scalar(255), cv::FILLED);
}

}  // namespace

cv::Point2d RingInPicture::at(double angle, double t) const {
    const double c = std::cos(turn), s = std::sin(turn);
    // The angle is of the picture; the ellipse is met where its own parameter has that direction.
    const double own = angle - turn;
    const double u = std::cos(own), v = std::sin(own);
    const auto on = [&](const cv::Point2d& middle, double a, double b) {
        return cv::Point2d(middle.x + a * u * c - b * v * s, middle.y + a * u * s + b * v * c);
    };
    return on(innerMiddle, innerA, innerB) * (1 - t) + on(outerMiddle, outerA, outerB) * t;
}

namespace {

/// The ring in what differs from the background by more than a threshold.
std::optional<RingInPicture> ringAbove(const cv::Mat& difference, double threshold) {
    cv::Mat mask;
    cv::threshold(difference, mask, threshold, 255, cv::THRESH_BINARY);
    const int size = std::min(difference.rows, difference.cols);
    const auto disc = [](int r) {
        return cv::getStructuringElement(cv::MORPH_ELLIPSE, {2 * r + 1, 2 * r + 1});
    };
    cv::morphologyEx(mask, mask, cv::MORPH_CLOSE, disc(std::max(1, size / 200)));
    cv::Mat body;
    cv::morphologyEx(mask, body, cv::MORPH_OPEN, disc(std::max(3, size / 45)));
    std::vector<Contour> contours;
    cv::findContours(body, contours, cv::RETR_EXTERNAL, cv::CHAIN_APPROX_NONE);
    const Contour* outline = largest(contours);
    if (outline == nullptr || cv::contourArea(*outline) < 0.02 * difference.total()) return std::nullopt;
    const cv::RotatedRect outer = sturdyEllipse(*outline);
    const double shortAxis = std::min(outer.size.width, outer.size.height),
                 longAxis = std::max(outer.size.width, outer.size.height);
    if (shortAxis < 40 || shortAxis < 0.75 * longAxis ||
        longAxis > 1.3 * std::max(difference.rows, difference.cols))
        return std::nullopt;
    const double filled = cv::contourArea(*outline) / (CV_PI * shortAxis * longAxis / 4);
    if (filled < 0.85 || filled > 1.12) return std::nullopt;

    cv::Mat inside(difference.size(), CV_8U, cv::Scalar(0));
    drawFilled(inside, outer, 0.85);
    cv::Mat hole;
    cv::bitwise_not(mask, hole);
    cv::bitwise_and(hole, inside, hole);
    cv::morphologyEx(hole, hole, cv::MORPH_OPEN, disc(std::max(1, size / 150)));
    cv::findContours(hole, contours, cv::RETR_EXTERNAL, cv::CHAIN_APPROX_NONE);
    const Contour* edge = largest(contours);
    if (edge == nullptr) return std::nullopt;
    const double share = cv::contourArea(*edge) / (CV_PI * shortAxis * longAxis / 4);
    if (share < 0.03 || share > 0.75) return std::nullopt;
    Contour hull;
    cv::convexHull(*edge, hull);
    const cv::RotatedRect inner = hull.size() >= 5 ? cv::fitEllipse(hull) : cv::minAreaRect(*edge);
    if (cv::norm(inner.center - outer.center) > 0.2 * shortAxis) return std::nullopt;

    RingInPicture out;
    out.outerMiddle = outer.center;
    out.innerMiddle = inner.center;
    out.outerA = outer.size.width / 2;
    out.outerB = outer.size.height / 2;
    out.turn = outer.angle * CV_PI / 180;
    const double scale =
        std::sqrt(inner.size.width * inner.size.height / (outer.size.width * outer.size.height));
    out.innerA = out.outerA * scale;
    out.innerB = out.outerB * scale;
    return out;
}

std::optional<RingInPicture> ringIn(const cv::Mat& lab) {
    const cv::Mat difference = differenceOf(lab);
    cv::Mat ignored;
    const double otsu = cv::threshold(difference, ignored, 0, 255, cv::THRESH_BINARY | cv::THRESH_OTSU);
    // A strong difference first; a pale core on pale ground shows only by a weak one.
    for (const double threshold : {std::clamp(otsu * 0.55, 18.0, 60.0), 30.0, 24.0, 18.0, 14.0, 10.0}) {
        if (auto ring = ringAbove(difference, threshold)) return ring;
    }
    return std::nullopt;
}

}  // namespace

std::optional<RingInPicture> findRing(const cv::Mat& lab) {
    if (auto ring = ringIn(lab)) return ring;
    // The coil on a card, and the bench around it: look at the middle alone.
    for (const double share : {0.7, 0.5}) {
        const cv::Size size(int(lab.cols * share), int(lab.rows * share));
        if (std::min(size.width, size.height) < 100) break;
        const cv::Point corner((lab.cols - size.width) / 2, (lab.rows - size.height) / 2);
        if (auto ring = ringIn(lab(cv::Rect(corner, size)))) {
            ring->outerMiddle += cv::Point2d(corner);
            ring->innerMiddle += cv::Point2d(corner);
            return ring;
        }
    }
    return std::nullopt;
}

}  // namespace ombrek
