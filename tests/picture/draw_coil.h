#pragma once

#include <cmath>
#include <opencv2/imgproc.hpp>
#include <random>

#include "picture/turn_count.h"

namespace ombrek {

/// What a drawn coil looks like; everything follows from the seed.
struct DrawnCoil {
    int turns = 12;
    std::uint64_t seed = 1;
    double tilt = 0;     ///< [°]
    double noise = 4;    ///< of 255
    double blur = 1;     ///< [pixels]
    double shine = 0.6;  ///< strength of the highlight on the wires, 0 … 1
    int overlaps = 0;    ///< pairs of neighbours that lie partly on each other
    int core = 0;        ///< 0 to 5: yellow, red, light grey, charcoal, blue-grey, green
    int size = 900;      ///< of the picture [pixels]
    double uneven = 0;   ///< light falls off across the picture by this share more
    double bench = 0;    ///< share of the picture's width on each side that is the bench around a card
};

/// A ring coil seen from its front, drawn with shaded round wires, tails, a shadow, light from one side,
/// tilt, noise and blur. A renderer for tests: it knows nothing of how the counter works.
inline Picture drawCoil(const DrawnCoil& coil) {
    std::mt19937_64 engine(coil.seed);
    const auto even = [&](double low, double high) {
        return low + (high - low) * double(engine() >> 11) * 0x1.0p-53;
    };
    constexpr int kOver = 2;  // drawn larger, then reduced
    const int side = coil.size * kOver;
    const cv::Scalar cores[] = {{60, 190, 225}, {50, 50, 185},  {200, 200, 205},
                                {58, 56, 55},   {120, 105, 90}, {80, 130, 70}};
    const cv::Scalar grounds[] = {{235, 238, 240}, {222, 226, 214}, {205, 190, 180}, {246, 240, 232}};
    const cv::Scalar ground = grounds[engine() % 4];
    cv::Mat image(side, side, CV_8UC3, ground);

    const double outer = side * even(0.30, 0.40), hole = outer * even(0.48, 0.60);
    const cv::Point2d middle(side * even(0.47, 0.53), side * even(0.47, 0.53));
    const double squash = std::cos(coil.tilt * CV_PI / 180), lean = even(0, 2 * CV_PI);
    const double thick = outer * 0.35 * std::sin(coil.tilt * CV_PI / 180);
    const auto project = [&](double radius, double angle, double depth = 0) {
        const double x = radius * std::cos(angle - lean),
                     y = radius * std::sin(angle - lean) * squash + depth * thick;
        return cv::Point2d(middle.x + x * std::cos(lean) - y * std::sin(lean),
                           middle.y + x * std::sin(lean) + y * std::cos(lean));
    };
    const auto ellipse = [&](double radius, double depth, const cv::Scalar& colour) {
        std::vector<cv::Point> points;
        for (int i = 0; i < 720; ++i) {
            const cv::Point2d p = project(radius, i * CV_PI / 360, depth);
            points.emplace_back(int(std::lround(p.x)), int(std::lround(p.y)));
        }
        cv::fillPoly(image, std::vector<std::vector<cv::Point>>{points}, colour, cv::LINE_AA);
    };
    // A soft shadow, the ring's side, its face, and the hole with the far wall in it.
    cv::Mat shadow = image.clone();
    std::swap(shadow, image);
    ellipse(outer * 1.02, 0.3, ground * 0.86);
    std::swap(shadow, image);
    cv::resize(shadow, shadow, {}, 0.125, 0.125, cv::INTER_AREA);  // soft things need no fine grid
    cv::GaussianBlur(shadow, shadow, {}, side * 0.012 / 8);
    cv::resize(shadow, image, {side, side}, 0, 0, cv::INTER_LINEAR);
    const cv::Scalar face = cores[coil.core % 6];
    ellipse(outer, 1, face * 0.6);
    ellipse(outer, 0, face);
    ellipse(hole, 0, face * 0.55);
    ellipse(hole * 0.985, thick > 0 ? 0.5 : 0, ground * 0.97);

    // Turns over most of the ring, unevenly, with a gap between start and end.
    const double gap = even(25, 60) * CV_PI / 180, arc = 2 * CV_PI - gap, begin = even(0, 2 * CV_PI);
    const double room = hole * arc / coil.turns;  // along the hole
    const double wire = std::min(room * even(0.70, 0.92), outer * 0.085);
    std::vector<double> angles;
    for (int i = 0; i < coil.turns; ++i)
        angles.push_back(begin + gap / 2 + arc * (i + 0.5) / coil.turns +
                         even(-0.5, 0.5) * (room - wire) / hole * 0.9);
    for (int i = 0; i < coil.overlaps && coil.turns > 3; ++i) {
        const std::size_t at = 1 + engine() % std::size_t(coil.turns - 2);
        angles[at] = angles[at - 1] + wire / (hole + outer) * 2 * even(0.55, 0.8);
    }
    const double hue = even(0.85, 1.1);
    const cv::Scalar copper(42 * hue, 86 * hue, 178 * hue);
    const auto stroke = [&](const cv::Point2d& a, const cv::Point2d& b) {
        // A round wire: dark at its edges, brighter towards a line a little off its middle.
        const cv::Point2d along = (b - a) / std::max(1.0, cv::norm(b - a)), across(-along.y, along.x);
        const cv::Point2d light = across * (across.x * 0.6 - across.y * 0.8 > 0 ? 1 : -1);
        const int layers = 9;
        for (int k = 0; k < layers; ++k) {
            const double share = 1 - double(k) / layers;
            const double bright = 0.45 + 0.75 * (1 - share * share);
            cv::Scalar colour = copper * bright;
            if (k >= layers - 2)
                colour = colour * (1 - 0.6 * coil.shine) + cv::Scalar(225, 235, 255) * (0.6 * coil.shine);
            const cv::Point2d off = light * (wire * 0.16 * (1 - share));
            const auto to = [](const cv::Point2d& p) {
                return cv::Point(int(std::lround(p.x * 16)), int(std::lround(p.y * 16)));
            };
            cv::line(image, to(a + off), to(b + off), colour, std::max(1, int(std::lround(wire * share))),
                     cv::LINE_AA, 4);
        }
    };
    const double first = angles.front(), last = angles.back();
    stroke(project(outer * 0.98, first - 0.05), project(outer * even(1.15, 1.25), first - even(0.05, 0.2)));
    stroke(project(outer * 0.98, last + 0.05), project(outer * even(1.15, 1.25), last + even(0.05, 0.2)));
    for (const double angle : angles) {
        const double slant = even(-0.012, 0.012);
        stroke(project(hole * 0.97, angle - slant, 0), project(outer * 1.01, angle + slant, 0));
    }

    // Light from one side, then the lens: reduce, blur, noise.
    const double from = even(0, 2 * CV_PI), strength = even(0.05, 0.18) + coil.uneven;
    cv::Mat lit;
    image.convertTo(lit, CV_32FC3);
    for (int y = 0; y < side; ++y) {
        for (int x = 0; x < side; ++x) {
            const double f =
                1 + strength * ((x - side / 2.0) * std::cos(from) + (y - side / 2.0) * std::sin(from)) / side;
            lit.at<cv::Vec3f>(y, x) *= float(f);
        }
    }
    cv::resize(lit, lit, {coil.size, coil.size}, 0, 0, cv::INTER_AREA);
    if (coil.bench > 0) {
        const int edge = int(coil.bench * coil.size), card = coil.size - 2 * edge;
        cv::Mat onBench(lit.size(), lit.type(), cv::Scalar(62, 88, 116)), small;
        cv::resize(lit, small, {card, card}, 0, 0, cv::INTER_AREA);
        small.copyTo(onBench(cv::Rect(edge, edge, card, card)));
        lit = onBench;
    }
    if (coil.blur > 0) cv::GaussianBlur(lit, lit, {}, coil.blur);
    std::normal_distribution<float> grain(0, float(coil.noise));
    Picture out{coil.size, coil.size, {}};
    out.rgb.resize(std::size_t(coil.size) * std::size_t(coil.size) * 3);
    std::size_t i = 0;
    for (int y = 0; y < coil.size; ++y) {
        for (int x = 0; x < coil.size; ++x) {
            const auto& bgr = lit.at<cv::Vec3f>(y, x);
            for (int c = 2; c >= 0; --c)
                out.rgb[i++] = cv::saturate_cast<std::uint8_t>(bgr[c] + grain(engine));
        }
    }
    return out;
}

}  // namespace ombrek
