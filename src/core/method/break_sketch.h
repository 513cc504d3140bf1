// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

namespace inchpeg
{

struct SketchPoint {
    double x = 0.0;
    double y = 0.0; ///< downwards
};

/// What a stroke stands for; whoever draws it chooses the colours.
enum class SketchInk {
    Piece, ///< filled, with an outline
    Tool,  ///< what holds or loads the piece: filled dark
    Bore,  ///< a hole in the piece: filled like the paper
    Edge,  ///< a line of the piece
    Layer, ///< a thin line
    Load,  ///< a line that tells which way it was loaded
};

struct SketchStroke {
    SketchInk ink = SketchInk::Piece;
    std::vector<SketchPoint> points; ///< a closed outline where the ink fills
};

/// Collects the strokes of a drawing in a square of kSketchSide; the piece stands upright between x = 14 and
/// 26 unless it lies.
class BreakSketch
{
public:
    void outline(SketchInk ink, std::vector<SketchPoint> points)
    {
        m_strokes.push_back({ink, std::move(points)});
    }
    void line(SketchInk ink, SketchPoint from, SketchPoint to) { m_strokes.push_back({ink, {from, to}}); }
    void box(SketchInk ink, double left, double top, double width, double height);
    void oval(SketchInk ink, SketchPoint centre, double radiusX, double radiusY);
    void arrow(SketchPoint from, SketchPoint to); ///< upright
    /// Two halves of an upright piece whose faces follow the points: x from 0 to 1 across it, y counted from
    /// where it broke.
    void halves(const std::vector<SketchPoint> &face, double brokeAt = 20.0, double top = 2.0);
    void layers(double from, double to); ///< of an upright piece
    void jaws();
    void supports(); ///< under a bar that lies

    [[nodiscard]] const std::vector<SketchStroke> &strokes() const { return m_strokes; }

private:
    std::vector<SketchStroke> m_strokes;
};

inline constexpr double kSketchSide = 40.0;

/// Points along a curve bent by one control point, both ends included.
std::vector<SketchPoint> bent(SketchPoint from, SketchPoint control, SketchPoint to);

} // namespace inchpeg
