// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/break_sketch.h"

#include <cmath>
#include <numbers>

namespace inchpeg
{

namespace
{

constexpr double kPieceLeft = 14.0;
constexpr double kPieceRight = 26.0;
constexpr double kBreakGap = 3.0;
constexpr double kArrowHead = 3.0;

} // namespace

void BreakSketch::box(SketchInk ink, double left, double top, double width, double height)
{
    outline(ink, {{left, top}, {left + width, top}, {left + width, top + height}, {left, top + height}});
}

void BreakSketch::oval(SketchInk ink, SketchPoint centre, double radiusX, double radiusY)
{
    constexpr int kPoints = 40;
    std::vector<SketchPoint> points;
    for (int i = 0; i < kPoints; ++i) {
        const double angle = 2.0 * std::numbers::pi * i / kPoints;
        points.push_back({centre.x + radiusX * std::cos(angle), centre.y + radiusY * std::sin(angle)});
    }
    outline(ink, std::move(points));
}

void BreakSketch::arrow(SketchPoint from, SketchPoint to)
{
    line(SketchInk::Load, from, to);
    const double back = to.y > from.y ? -3.5 : 3.5;
    line(SketchInk::Load, to, {to.x - kArrowHead, to.y + back});
    line(SketchInk::Load, to, {to.x + kArrowHead, to.y + back});
}

void BreakSketch::halves(const std::vector<SketchPoint> &face, double brokeAt, double top)
{
    std::vector<SketchPoint> upper{{kPieceLeft, top}, {kPieceRight, top}};
    std::vector<SketchPoint> lower{{kPieceLeft, kSketchSide - 2.0}, {kPieceRight, kSketchSide - 2.0}};
    for (auto point = face.rbegin(); point != face.rend(); ++point) {
        const double x = kPieceLeft + point->x * (kPieceRight - kPieceLeft);
        upper.push_back({x, brokeAt - 0.5 * kBreakGap + point->y});
        lower.push_back({x, brokeAt + 0.5 * kBreakGap + point->y});
    }
    outline(SketchInk::Piece, std::move(upper));
    outline(SketchInk::Piece, std::move(lower));
}

void BreakSketch::layers(double from, double to)
{
    constexpr double kApart = 4.0;
    for (double y = from; y <= to; y += kApart)
        line(SketchInk::Layer, {kPieceLeft + 1.0, y}, {kPieceRight - 1.0, y});
}

void BreakSketch::jaws()
{
    box(SketchInk::Tool, 8.0, 1.0, 6.0, 13.0);
    box(SketchInk::Tool, 26.0, 1.0, 6.0, 13.0);
}

void BreakSketch::supports()
{
    for (const double x : {6.0, kSketchSide - 6.0})
        outline(SketchInk::Tool, {{x, 24.0}, {x - 4.0, 32.0}, {x + 4.0, 32.0}});
}

std::vector<SketchPoint> bent(SketchPoint from, SketchPoint control, SketchPoint to)
{
    constexpr int kPieces = 12;
    std::vector<SketchPoint> points;
    for (int i = 0; i <= kPieces; ++i) {
        const double t = static_cast<double>(i) / kPieces;
        const double a = (1.0 - t) * (1.0 - t);
        const double b = 2.0 * t * (1.0 - t);
        const double c = t * t;
        points.push_back({a * from.x + b * control.x + c * to.x, a * from.y + b * control.y + c * to.y});
    }
    return points;
}

} // namespace inchpeg
