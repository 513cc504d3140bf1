// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/specimen/shape.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace inchpeg
{

namespace
{

constexpr double kNotchHalfAngle = std::numbers::pi / 8.0; ///< 45° in all (ISO 179-1, ASTM D256)
constexpr double kChord = std::numbers::pi / 60.0;

/// How far along its axis a shoulder reaches, and whether its arc ends level with the grips.
double shoulderLength_mm(const SpecimenShape &shape)
{
    const double rise = 0.5 * (shape.endWidth_mm - shape.width_mm);
    return std::sqrt(std::max(0.0, rise * (2.0 * shape.radius_mm - rise)));
}

/// Half the width at a distance from the middle.
double halfWidth_mm(const SpecimenShape &shape, double fromMiddle_mm)
{
    const double into = fromMiddle_mm - 0.5 * shape.parallel_mm;
    if (into <= 0.0)
        return 0.5 * shape.width_mm;
    if (into >= shoulderLength_mm(shape))
        return 0.5 * shape.endWidth_mm;
    return 0.5 * shape.width_mm + shape.radius_mm -
           std::sqrt(shape.radius_mm * shape.radius_mm - into * into);
}

std::vector<PlanePoint> dogBoneOutline(const SpecimenShape &shape)
{
    // The upper right quarter, from the middle to the end, mirrored three times.
    std::vector<PlanePoint> quarter{{0.0, 0.5 * shape.width_mm}};
    const double start = 0.5 * shape.parallel_mm;
    const double reach = shoulderLength_mm(shape);
    const double whole = std::asin(std::min(1.0, reach / shape.radius_mm));
    const int chords = std::max(4, static_cast<int>(std::ceil(whole / kChord)));
    for (int i = 0; i <= chords; ++i) {
        const double x = start + shape.radius_mm * std::sin(whole * i / chords);
        quarter.push_back({x, halfWidth_mm(shape, x)});
    }
    quarter.back().y_mm = 0.5 * shape.endWidth_mm;
    quarter.push_back({0.5 * shape.length_mm, 0.5 * shape.endWidth_mm});
    std::vector<PlanePoint> outline;
    for (auto point = quarter.rbegin(); point != quarter.rend();
         ++point) // right end over the top to the middle
        outline.push_back(*point);
    for (std::size_t i = 1; i < quarter.size(); ++i)
        outline.push_back({-quarter[i].x_mm, quarter[i].y_mm});
    for (auto point = quarter.rbegin(); point != quarter.rend(); ++point)
        outline.push_back({-point->x_mm, -point->y_mm});
    for (std::size_t i = 1; i < quarter.size(); ++i)
        outline.push_back({quarter[i].x_mm, -quarter[i].y_mm});
    return outline;
}

std::vector<PlanePoint> circle(double diameter_mm)
{
    constexpr int kPoints = 120;
    std::vector<PlanePoint> outline;
    for (int i = 0; i < kPoints; ++i) {
        const double angle = 2.0 * std::numbers::pi * i / kPoints;
        outline.push_back({0.5 * diameter_mm * std::cos(angle), 0.5 * diameter_mm * std::sin(angle)});
    }
    return outline;
}

/// The notch is a V of 45° with a rounded tip, cut into the upper edge.
std::vector<PlanePoint> notchedOutline(const SpecimenShape &shape)
{
    const double x = 0.5 * shape.length_mm;
    const double y = 0.5 * shape.width_mm;
    const double r = shape.notchRadius_mm;
    const double bottom = y - shape.notchDepth_mm;
    // The flanks touch the tip circle where its normal is at the half angle from the horizontal.
    const double touchX = r * std::cos(kNotchHalfAngle);
    const double touchY = bottom + r - r * std::sin(kNotchHalfAngle);
    const double halfMouth = touchX + (y - touchY) * std::tan(kNotchHalfAngle);
    std::vector<PlanePoint> outline{{x, -y}, {x, y}, {halfMouth, y}};
    const double half = 0.5 * std::numbers::pi - kNotchHalfAngle;
    constexpr int kChords = 24;
    for (int i = 0; i <= kChords; ++i) {
        const double angle = half - 2.0 * half * i / kChords;
        outline.push_back({r * std::sin(angle), bottom + r - r * std::cos(angle)});
    }
    outline.push_back({-halfMouth, y});
    outline.push_back({-x, y});
    outline.push_back({-x, -y});
    return outline;
}

double roundDogBoneVolume_mm3(const SpecimenShape &shape)
{
    // Solid of revolution: π times the integral of the squared radius, by Simpson's rule along the shoulder.
    constexpr int kSteps = 200;
    const double reach = shoulderLength_mm(shape);
    const double start = 0.5 * shape.parallel_mm;
    double shoulder = 0.0;
    for (int i = 0; i <= kSteps; ++i) {
        const double r = halfWidth_mm(shape, start + reach * i / kSteps);
        shoulder += (i == 0 || i == kSteps ? 1.0 : i % 2 == 1 ? 4.0 : 2.0) * r * r;
    }
    shoulder *= reach / kSteps / 3.0;
    const double waist = 0.25 * shape.width_mm * shape.width_mm * shape.parallel_mm;
    const double grips =
        0.25 * shape.endWidth_mm * shape.endWidth_mm * (shape.length_mm - shape.parallel_mm - 2.0 * reach);
    return std::numbers::pi * (waist + 2.0 * shoulder + grips);
}

std::vector<SpecimenShape> makeShelf()
{
    // Dimensions of the standards from memory; verify against your copy before reporting "according to".
    std::vector<SpecimenShape> all;
    const auto add = [&](SpecimenShape shape) { all.push_back(std::move(shape)); };
    add({.key = "dogbone-1a",
         .name = "large dog-bone",
         .family = ShapeFamily::DogBone,
         .standard = "ISO 527-2, type 1A",
         .length_mm = 170.0,
         .width_mm = 10.0,
         .thickness_mm = 4.0,
         .endWidth_mm = 20.0,
         .parallel_mm = 80.0,
         .radius_mm = 24.0,
         .gaugeLength_mm = 75.0});
    add({.key = "dogbone-1b",
         .name = "large dog-bone, long shoulders",
         .family = ShapeFamily::DogBone,
         .standard = "ISO 527-2, type 1B",
         .length_mm = 150.0,
         .width_mm = 10.0,
         .thickness_mm = 4.0,
         .endWidth_mm = 20.0,
         .parallel_mm = 60.0,
         .radius_mm = 60.0,
         .gaugeLength_mm = 50.0});
    add({.key = "dogbone-1ba",
         .name = "half-size dog-bone",
         .family = ShapeFamily::DogBone,
         .standard = "ISO 527-2, type 1BA",
         .length_mm = 75.0,
         .width_mm = 5.0,
         .thickness_mm = 2.0,
         .endWidth_mm = 10.0,
         .parallel_mm = 30.0,
         .radius_mm = 30.0,
         .gaugeLength_mm = 25.0});
    add({.key = "dogbone-d638-1",
         .name = "wide dog-bone",
         .family = ShapeFamily::DogBone,
         .standard = "ASTM D638, type I",
         .length_mm = 165.0,
         .width_mm = 13.0,
         .thickness_mm = 3.2,
         .endWidth_mm = 19.0,
         .parallel_mm = 57.0,
         .radius_mm = 76.0,
         .gaugeLength_mm = 50.0});
    add({.key = "dogbone-d638-5",
         .name = "small dog-bone",
         .family = ShapeFamily::DogBone,
         .standard = "ASTM D638, type V",
         .length_mm = 63.5,
         .width_mm = 3.18,
         .thickness_mm = 3.2,
         .endWidth_mm = 9.53,
         .parallel_mm = 9.53,
         .radius_mm = 12.7,
         .gaugeLength_mm = 7.62});
    add({.key = "standing-mini",
         .name = "mini dog-bone to print standing",
         .family = ShapeFamily::DogBone,
         .standard = {},
         .length_mm = 40.0,
         .width_mm = 5.0,
         .thickness_mm = 4.0,
         .endWidth_mm = 12.0,
         .parallel_mm = 10.0,
         .radius_mm = 8.0,
         .gaugeLength_mm = 10.0});
    add({.key = "standing-round",
         .name = "round waist to print standing",
         .family = ShapeFamily::RoundDogBone,
         .standard = {},
         .length_mm = 44.0,
         .width_mm = 6.0,
         .endWidth_mm = 14.0,
         .parallel_mm = 10.0,
         .radius_mm = 10.0,
         .gaugeLength_mm = 10.0});
    add({.key = "bar-80x10x4",
         .name = "bar",
         .family = ShapeFamily::Bar,
         .standard = "ISO 20753, type B (ISO 178, ISO 75-2, ISO 899-2)",
         .length_mm = 80.0,
         .width_mm = 10.0,
         .thickness_mm = 4.0,
         .span_mm = 64.0});
    add({.key = "bar-127x13x3",
         .name = "long bar",
         .family = ShapeFamily::Bar,
         .standard = "ASTM D790 and ASTM D648",
         .length_mm = 127.0,
         .width_mm = 12.7,
         .thickness_mm = 3.2,
         .span_mm = 51.2});
    add({.key = "notched-80x10x4",
         .name = "notched bar",
         .family = ShapeFamily::NotchedBar,
         .standard = "ISO 179-1, notch A",
         .length_mm = 80.0,
         .width_mm = 10.0,
         .thickness_mm = 4.0,
         .span_mm = 62.0,
         .notchDepth_mm = 2.0,
         .notchRadius_mm = 0.25});
    add({.key = "notched-d256",
         .name = "short notched bar",
         .family = ShapeFamily::NotchedBar,
         .standard = "ASTM D256",
         .length_mm = 63.5,
         .width_mm = 12.7,
         .thickness_mm = 3.2,
         .notchDepth_mm = 2.54,
         .notchRadius_mm = 0.25});
    add({.key = "shear-pin-8",
         .name = "shear pin",
         .family = ShapeFamily::RoundBar,
         .standard = {},
         .length_mm = 50.0,
         .width_mm = 8.0});
    add({.key = "torsion-bar-8",
         .name = "torsion rod",
         .family = ShapeFamily::RoundDogBone,
         .standard = {},
         .length_mm = 70.0,
         .width_mm = 8.0,
         .endWidth_mm = 14.0,
         .parallel_mm = 30.0,
         .radius_mm = 8.0});
    add({.key = "insert-core-12",
         .name = "insert core",
         .family = ShapeFamily::Core,
         .standard = {},
         .length_mm = 12.0,
         .width_mm = 12.0,
         .thickness_mm = 10.0,
         .endWidth_mm = 12.0,
         .holeDiameter_mm = 4.0});
    add({.key = "cube-20",
         .name = "cube",
         .family = ShapeFamily::Block,
         .standard = {},
         .length_mm = 20.0,
         .width_mm = 20.0,
         .thickness_mm = 20.0});
    add({.key = "block-10x10x4",
         .name = "block to press together",
         .family = ShapeFamily::Block,
         .standard = "ISO 604, type B",
         .length_mm = 10.0,
         .width_mm = 10.0,
         .thickness_mm = 4.0});
    add({.key = "plate-60x60x2",
         .name = "plate",
         .family = ShapeFamily::Block,
         .standard = "ISO 6603-1",
         .length_mm = 60.0,
         .width_mm = 60.0,
         .thickness_mm = 2.0});
    return all;
}

} // namespace

std::span<const SpecimenShape> shapeShelf()
{
    static const std::vector<SpecimenShape> shelf = makeShelf();
    return shelf;
}

const SpecimenShape *findShape(std::string_view key)
{
    const std::span<const SpecimenShape> shelf = shapeShelf();
    const auto found = std::find_if(shelf.begin(), shelf.end(),
                                    [key](const SpecimenShape &shape) { return shape.key == key; });
    return found == shelf.end() ? nullptr : &*found;
}

bool isRound(const SpecimenShape &shape)
{
    return shape.family == ShapeFamily::RoundBar || shape.family == ShapeFamily::RoundDogBone;
}

Status checkShape(const SpecimenShape &shape)
{
    const auto above = [&](double value_mm, const char *what) -> Status {
        if (!(value_mm > 0.0) || !(value_mm < 2000.0))
            return invalidArgument(fmt::format("{}: its {} is {} mm; above 0 and below 2000 mm is possible",
                                               shape.name, what, value_mm));
        return ok();
    };
    Status status = above(shape.length_mm, "length");
    if (status)
        status = above(shape.width_mm, isRound(shape) ? "diameter" : "width");
    if (status && !isRound(shape))
        status = above(shape.thickness_mm, "thickness");
    if (!status)
        return status;
    switch (shape.family) {
    case ShapeFamily::DogBone:
    case ShapeFamily::RoundDogBone: {
        if (status = above(shape.radius_mm, "shoulder radius"); !status)
            return status;
        if (!(shape.endWidth_mm >= shape.width_mm))
            return invalidArgument(shape.name + ": the grips must be at least as wide as the narrow part");
        if (0.5 * (shape.endWidth_mm - shape.width_mm) > shape.radius_mm)
            return invalidArgument(shape.name +
                                   ": the shoulder radius is too small to reach the grips' width");
        if (!(shape.parallel_mm >= 0.0) ||
            shape.parallel_mm + 2.0 * shoulderLength_mm(shape) > shape.length_mm + 1e-9)
            return invalidArgument(
                fmt::format("{}: narrow part and shoulders need {:.1f} mm, the piece is {:.1f} mm long",
                            shape.name, shape.parallel_mm + 2.0 * shoulderLength_mm(shape), shape.length_mm));
        break;
    }
    case ShapeFamily::NotchedBar:
        if (!(shape.notchDepth_mm > 0.0 && shape.notchDepth_mm < shape.width_mm))
            return invalidArgument(shape.name + ": the notch must be less deep than the bar is wide");
        if (!(shape.notchRadius_mm >= 0.0 && shape.notchRadius_mm < shape.notchDepth_mm))
            return invalidArgument(shape.name + ": the notch's tip radius must be below its depth");
        break;
    case ShapeFamily::Core:
        if (!(shape.holeDiameter_mm > 0.0 && shape.holeDiameter_mm < shape.width_mm))
            return invalidArgument(shape.name + ": the hole must be narrower than the core");
        break;
    default:
        break;
    }
    return ok();
}

std::vector<PlanePoint> outlineOf(const SpecimenShape &shape)
{
    switch (shape.family) {
    case ShapeFamily::DogBone:
    case ShapeFamily::RoundDogBone:
        return dogBoneOutline(shape);
    case ShapeFamily::NotchedBar:
        return notchedOutline(shape);
    case ShapeFamily::Core:
        return circle(shape.width_mm);
    default: {
        const double x = 0.5 * shape.length_mm;
        const double y = 0.5 * shape.width_mm;
        return {{x, -y}, {x, y}, {-x, y}, {-x, -y}};
    }
    }
}

double polygonArea_mm2(std::span<const PlanePoint> outline)
{
    double twice = 0.0;
    for (std::size_t i = 0; i < outline.size(); ++i) {
        const PlanePoint &a = outline[i];
        const PlanePoint &b = outline[(i + 1) % outline.size()];
        twice += a.x_mm * b.y_mm - b.x_mm * a.y_mm;
    }
    return 0.5 * std::abs(twice);
}

double polygonLength_mm(std::span<const PlanePoint> outline)
{
    double length = 0.0;
    for (std::size_t i = 0; i < outline.size(); ++i) {
        const PlanePoint &a = outline[i];
        const PlanePoint &b = outline[(i + 1) % outline.size()];
        length += std::hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm);
    }
    return length;
}

double volume_mm3(const SpecimenShape &shape)
{
    switch (shape.family) {
    case ShapeFamily::RoundDogBone:
        return roundDogBoneVolume_mm3(shape);
    case ShapeFamily::RoundBar:
        return 0.25 * std::numbers::pi * shape.width_mm * shape.width_mm * shape.length_mm;
    case ShapeFamily::Core:
        return 0.25 * std::numbers::pi *
               (shape.width_mm * shape.width_mm - shape.holeDiameter_mm * shape.holeDiameter_mm) *
               shape.thickness_mm;
    default:
        return polygonArea_mm2(outlineOf(shape)) * shape.thickness_mm;
    }
}

Section nominalSection(const SpecimenShape &shape)
{
    if (isRound(shape))
        return RoundSection{millimetres(shape.width_mm)};
    return RectangularSection{millimetres(shape.width_mm - shape.notchDepth_mm),
                              millimetres(shape.thickness_mm)};
}

} // namespace inchpeg
