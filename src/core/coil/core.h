#pragma once

#include <string>

namespace ombrek {

/// A magnetic core as the maker's table describes it. Lengths in metres, AL in henry per turn².
struct MagneticCore {
    enum class Shape { ring, twoHole };

    std::string designation;  ///< "T37-6"
    Shape shape = Shape::ring;
    std::string material;           ///< "powdered-iron" or "ferrite"
    std::string mix;                ///< "6", "43"
    double outerDiameter = 0.0;     ///< [m]
    double innerDiameter = 0.0;     ///< [m]
    double height = 0.0;            ///< [m]
    double al = 0.0;                ///< [H/turn²]
    double alTolerancePercent = 0;  ///< [%]
    double initialPermeability = 0;
    double tempco = 0;           ///< of the inductance [ppm/K]
    double qLow = 0, qHigh = 0;  ///< range in which its Q is best [Hz]; 0: not known
    double turnLength = 0.0;     ///< wire of one turn [m], for a shape that is not a ring
    std::string paint;           ///< as painted on a powder core; empty for ferrite
    bool own = false;            ///< in no table: what is known of it goes with the kit

    bool ferrite() const { return material == "ferrite"; }
};

}  // namespace ombrek
