#pragma once

#include <opencv2/core.hpp>
#include <optional>

namespace ombrek {

/// A ring as it lies in a picture: two ellipses of one direction, perhaps not about the same middle.
struct RingInPicture {
    cv::Point2d outerMiddle, innerMiddle;
    double outerA = 0, outerB = 0, innerA = 0, innerB = 0;  ///< half axes [pixels]
    double turn = 0;                                        ///< of the axes [rad]

    /// A point between the hole's edge (t = 0) and the outer edge (t = 1) at an angle around the ring [rad].
    cv::Point2d at(double angle, double t) const;
    double meanOuter() const { return std::sqrt(outerA * outerB); }
};

/// The one ring in a picture in CIE L*a*b* (32-bit, three channels), or nothing.
std::optional<RingInPicture> findRing(const cv::Mat& lab);

}  // namespace ombrek
