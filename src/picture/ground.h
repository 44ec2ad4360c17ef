#pragma once

#include <opencv2/core.hpp>
#include <vector>

namespace ombrek {

/// The background of a picture in CIE L*a*b* as its frame shows it: each channel a + bx + cy + dxy over the
/// picture, since light seldom falls evenly on a bench.
class Ground {
 public:
    explicit Ground(const cv::Mat& lab);
    /// What the background would be at a pixel.
    cv::Vec3f at(int x, int y) const;
    /// The same picture as if the light fell evenly.
    cv::Mat evened(const cv::Mat& lab) const;

 private:
    cv::Matx14d termsOf(double x, double y) const;
    void fit(const cv::Mat& lab, std::vector<cv::Point> samples, int channel);

    int width_, height_;
    cv::Matx41d weights_[3];
};

}  // namespace ombrek
