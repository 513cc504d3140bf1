// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/specimen/section.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// How a specimen is built up.
enum class ShapeFamily {
    DogBone,      ///< flat, narrow in the middle, with round shoulders
    RoundDogBone, ///< turned: a thin round waist between thick ends
    Bar,          ///< rectangular
    NotchedBar,   ///< rectangular with one notch in the middle of a long edge
    RoundBar,     ///< a pin or rod
    Core,         ///< a round block with a hole for an insert
    Block,        ///< a cuboid that is pressed, towed or measured
};

/// A specimen shape with its nominal dimensions; those that its family does not have are 0.
struct SpecimenShape {
    std::string key; ///< as kept in a plan
    std::string name;
    ShapeFamily family = ShapeFamily::Bar;
    std::string standard; ///< "ISO 527-2, type 1A", or empty for a shape without one
    double length_mm = 0.0;
    double width_mm = 0.0;       ///< of the section that breaks; for round shapes its diameter
    double thickness_mm = 0.0;   ///< 0 for round shapes
    double endWidth_mm = 0.0;    ///< dog-bones: of the grips; core: its outer diameter
    double parallel_mm = 0.0;    ///< dog-bones: length of the narrow part
    double radius_mm = 0.0;      ///< dog-bones: of the shoulders
    double gaugeLength_mm = 0.0; ///< 0 where there is none
    double span_mm = 0.0;        ///< between supports, for bars
    double notchDepth_mm = 0.0;
    double notchRadius_mm = 0.0;
    double holeDiameter_mm = 0.0; ///< of a core
    bool operator==(const SpecimenShape &) const = default;
};

/// The shapes on the shelf.
std::span<const SpecimenShape> shapeShelf();
const SpecimenShape *findShape(std::string_view key);

/// Errors: InvalidArgument, with what is wrong, for a shape that cannot be built.
Status checkShape(const SpecimenShape &shape);

struct PlanePoint {
    double x_mm = 0.0;
    double y_mm = 0.0;
};

/// The outline seen from above as the shape lies flat, counter-clockwise, around the origin; curves as short
/// chords of at most 3°.
std::vector<PlanePoint> outlineOf(const SpecimenShape &shape);

/// Enclosed area of a closed polygon, and the length of its edge.
double polygonArea_mm2(std::span<const PlanePoint> outline);
double polygonLength_mm(std::span<const PlanePoint> outline);

/// Volume of the solid shape.
double volume_mm3(const SpecimenShape &shape);

/// The section that is loaded: under the notch for a notched bar, one cross-section for a pin.
Section nominalSection(const SpecimenShape &shape);

bool isRound(const SpecimenShape &shape);

} // namespace inchpeg
