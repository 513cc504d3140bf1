// SPDX-License-Identifier: GPL-3.0-or-later
// A picture as lines, circles and words, for paper: black on white, told apart by shape, dash and shade. PDF,
// SVG and the result card are made of the same drawing.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace inchpeg
{

enum class Ink { Black, Grey, Pale, White, Accent };
std::string_view inkColour(Ink ink); ///< "#1a1a1a"

struct DrawnPoint {
    double x = 0.0;
    double y = 0.0; ///< downwards
};

/// How a line is broken up, in multiples of 1 unit; tells lines apart without colour.
enum class Dash { None, Long, Dots, Mixed };
std::vector<double> dashPattern(Dash dash); ///< drawn, left out, drawn …; empty: an unbroken line

/// Lines from point to point.
struct DrawnPath {
    std::vector<DrawnPoint> points;
    double width = 1.0; ///< 0: no line
    Ink ink = Ink::Black;
    bool isClosed = false;
    Dash dash = Dash::None;
    std::optional<Ink> fill{};
};

struct DrawnCircle {
    DrawnPoint centre;
    double radius = 1.0;
    double width = 1.0;
    Ink ink = Ink::Black;
    std::optional<Ink> fill{};
};

enum class Anchor { Start, Middle, End };

struct DrawnText {
    DrawnPoint at; ///< of its base line
    std::string text;
    double size = 10.0; ///< of the font, in the drawing's points
    Anchor anchor = Anchor::Start;
    bool isBold = false;
    Ink ink = Ink::Black;
    bool isUpright = false; ///< turned by a quarter, read from below
};

using DrawnShape = std::variant<DrawnPath, DrawnCircle, DrawnText>;

struct Drawing {
    double width = 0.0;
    double height = 0.0;
    std::vector<DrawnShape> shapes; ///< in this order

    [[nodiscard]] bool isEmpty() const { return shapes.empty(); }
    void line(DrawnPoint from, DrawnPoint to, double width = 1.0, Ink ink = Ink::Black,
              Dash dash = Dash::None);
    void rectangle(DrawnPoint corner, double width, double height, std::optional<Ink> fill, double line = 0.0,
                   Ink ink = Ink::Black);
    /// Puts another drawing in, its corner there.
    void place(const Drawing &other, DrawnPoint corner, double scale = 1.0);
};

/// How wide a text is about, for room beside it: letters of a plain face are half as wide as high.
double roughWidth(std::string_view text, double size);
/// Cut to about that width, "…" behind it; whole where it fits.
std::string fitted(std::string_view text, double size, double width);
/// Broken at blanks into lines of about that width; mostLines: what is left then ends in "…".
std::vector<std::string> wrapped(std::string_view text, double size, double width, std::size_t mostLines);

/// As one SVG element; title: read out in place of the picture.
std::string svgText(const Drawing &drawing, std::string_view title);

/// For HTML and XML: & < > " '.
std::string escapedMarkup(std::string_view text);

} // namespace inchpeg
