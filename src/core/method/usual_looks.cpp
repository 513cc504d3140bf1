// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/usual_looks.h"

#include <cmath>
#include <numbers>

namespace inchpeg::sketch
{

namespace
{

constexpr double kMiddle = 0.5 * kSketchSide;
constexpr double kLeft = 14.0; ///< of an upright piece
constexpr double kRight = 26.0;

void append(std::vector<SketchPoint> &points, const std::vector<SketchPoint> &more)
{
    points.insert(points.end(), more.begin(), more.end());
}

/// A block with its bore, seen in section; what sits in the bore stands above it by this much.
void boredBlock(BreakSketch &sketch, double outBy, bool isWithWall)
{
    for (const double left : {4.0, 25.0})
        sketch.box(SketchInk::Piece, left, 16.0, 11.0, 20.0);
    sketch.box(SketchInk::Piece, 15.0, 30.0, 10.0, 6.0);
    if (isWithWall)
        sketch.box(SketchInk::Piece, 11.5, 16.0 - outBy, 17.0, 12.0);
    sketch.box(SketchInk::Tool, 15.0, 16.0 - outBy, 10.0, 12.0);
    sketch.arrow({kMiddle, 13.0 - outBy}, {kMiddle, 2.0});
}

void screwHole(BreakSketch &sketch)
{
    sketch.box(SketchInk::Piece, 4.0, 18.0, 32.0, 18.0);
    sketch.box(SketchInk::Bore, 15.0, 18.0, 10.0, 15.0);
}

void block(BreakSketch &sketch, std::vector<SketchPoint> dentFromRight)
{
    std::vector<SketchPoint> outline{{4.0, 17.0}, {4.0, 36.0}, {36.0, 36.0}, {36.0, 17.0}};
    append(outline, dentFromRight);
    sketch.outline(SketchInk::Piece, std::move(outline));
}

} // namespace

void onePlane(BreakSketch &sketch)
{
    sketch.halves({{0.0, 0.0}, {1.0, 0.0}});
    sketch.layers(6.0, 15.0);
    sketch.layers(25.0, 36.0);
}

void twoLayers(BreakSketch &sketch)
{
    sketch.halves({{0.0, -3.0}, {0.5, -3.0}, {0.5, 3.0}, {1.0, 3.0}});
    sketch.layers(5.0, 13.0);
    sketch.layers(27.0, 36.0);
}

void torn(BreakSketch &sketch)
{
    sketch.halves({{0.0, 3.0}, {0.15, -5.0}, {0.3, 4.0}, {0.5, -6.0}, {0.65, 5.0}, {0.85, -4.0}, {1.0, 2.0}});
}

void necked(BreakSketch &sketch)
{
    for (const double side : {-1.0, 1.0}) {
        const double end = side < 0.0 ? 2.0 : kSketchSide - 2.0;
        const double waist = kMiddle + side * 1.5;
        std::vector<SketchPoint> half{{kLeft, end}, {kRight, end}};
        append(half, bent({kRight, kMiddle + side * 10.0}, {kRight - 3.5, kMiddle + side * 5.0},
                          {kRight - 4.0, waist}));
        append(half, bent({kLeft + 4.0, waist}, {kLeft + 3.5, kMiddle + side * 5.0},
                          {kLeft, kMiddle + side * 10.0}));
        sketch.outline(SketchInk::Piece, std::move(half));
    }
}

void whitened(BreakSketch &sketch)
{
    sketch.halves({{0.0, 0.0}, {0.5, 1.5}, {1.0, -1.0}});
    for (double y = kMiddle - 9.0; y <= kMiddle + 9.0; y += 3.0) {
        if (std::abs(y - kMiddle) > 2.5)
            sketch.line(SketchInk::Edge, {kLeft, y + 2.0}, {kRight, y - 2.0});
    }
}

void bentWhole(BreakSketch &sketch)
{
    std::vector<SketchPoint> bar = bent({3.0, 14.0}, {kMiddle, 32.0}, {kSketchSide - 3.0, 14.0});
    append(bar, bent({kSketchSide - 3.0, 20.0}, {kMiddle, 39.0}, {3.0, 20.0}));
    sketch.outline(SketchInk::Piece, std::move(bar));
    sketch.arrow({kMiddle, 5.0}, {kMiddle, 19.0});
}

void atGrips(BreakSketch &sketch)
{
    sketch.halves({{0.0, 0.0}, {0.5, 1.5}, {1.0, -1.0}}, 14.0);
    sketch.jaws();
}

void slipped(BreakSketch &sketch)
{
    sketch.halves({{0.0, 0.0}, {1.0, 0.0}}, 9.0, 7.5);
    sketch.jaws();
    sketch.arrow({kMiddle, 18.0}, {kMiddle, 34.0});
}

void offMiddle(BreakSketch &sketch)
{
    constexpr double kBroke = 12.0;
    constexpr double kTop = 16.0;
    sketch.box(SketchInk::Piece, 3.0, kTop, kBroke - 4.5, 7.0);
    sketch.box(SketchInk::Piece, kBroke + 1.5, kTop, kSketchSide - 4.5 - kBroke, 7.0);
    sketch.supports();
    sketch.arrow({kMiddle, 3.0}, {kMiddle, 14.0});
}

void flaw(BreakSketch &sketch)
{
    sketch.halves({{0.0, 0.0}, {1.0, 0.0}});
    sketch.oval(SketchInk::Bore, {kMiddle, kMiddle}, 3.5, 3.5);
}

void insertOut(BreakSketch &sketch)
{
    boredBlock(sketch, 7.0, false);
}

void insertWithBoss(BreakSketch &sketch)
{
    boredBlock(sketch, 7.0, true);
}

void popped(BreakSketch &sketch)
{
    sketch.box(SketchInk::Piece, 4.0, 20.0, 32.0, 16.0);
    sketch.box(SketchInk::Piece, 4.0, 9.0, 32.0, 6.0);
    sketch.box(SketchInk::Tool, 14.0, 14.0, 12.0, 4.0);
}

void stripped(BreakSketch &sketch)
{
    screwHole(sketch);
    for (double y = 4.0; y <= 16.0; y += 3.0) // the screw with what it tore along
        sketch.outline(
            SketchInk::Piece,
            {{15.0, y}, {25.0, y}, {27.0, y + 1.5}, {25.0, y + 3.0}, {15.0, y + 3.0}, {13.0, y + 1.5}});
}

void screwBroke(BreakSketch &sketch)
{
    screwHole(sketch);
    sketch.box(SketchInk::Piece, 16.5, 23.0, 7.0, 10.0);
    sketch.box(SketchInk::Piece, 16.5, 5.0, 7.0, 9.0);
}

void split(BreakSketch &sketch)
{
    sketch.outline(SketchInk::Piece, {{4.0, 6.0}, {17.0, 6.0}, {20.0, 36.0}, {4.0, 36.0}});
    sketch.outline(SketchInk::Piece, {{36.0, 6.0}, {23.0, 6.0}, {20.0, 36.0}, {36.0, 36.0}});
}

void rounded(BreakSketch &sketch)
{
    sketch.oval(SketchInk::Piece, {kMiddle, kMiddle}, 16.0, 16.0);
    sketch.oval(SketchInk::Bore, {kMiddle, kMiddle}, 9.0, 9.0);
    std::vector<SketchPoint> hexagon;
    for (int i = 0; i < 6; ++i) {
        const double angle = 0.3 + i * std::numbers::pi / 3.0;
        hexagon.push_back({kMiddle + 7.0 * std::cos(angle), kMiddle + 7.0 * std::sin(angle)});
    }
    sketch.outline(SketchInk::Tool, std::move(hexagon));
}

void sheared(BreakSketch &sketch)
{
    sketch.box(SketchInk::Piece, 3.0, 12.0, 10.0, 12.0);
    sketch.box(SketchInk::Piece, 14.5, 18.0, 11.0, 12.0);
    sketch.box(SketchInk::Piece, 27.0, 12.0, 10.0, 12.0);
    sketch.arrow({kMiddle, 3.0}, {kMiddle, 15.0});
}

void pierced(BreakSketch &sketch)
{
    sketch.box(SketchInk::Piece, 4.0, 17.0, 12.0, 19.0);
    sketch.box(SketchInk::Piece, 24.0, 17.0, 12.0, 19.0);
    sketch.box(SketchInk::Tool, 17.5, 2.0, 5.0, 30.0);
}

void crushed(BreakSketch &sketch)
{
    block(sketch, bent({33.0, 17.0}, {kMiddle, 35.0}, {7.0, 17.0}));
    sketch.box(SketchInk::Tool, 17.5, 2.0, 5.0, 22.0);
}

} // namespace inchpeg::sketch
