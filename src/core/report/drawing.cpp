// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/report/drawing.h"

#include "core/text/letters.h"

#include <fmt/format.h>

#include <iterator>

namespace inchpeg
{

namespace
{

constexpr double kLetter = 0.54; ///< mean width of a letter in heights of the font

std::string inkAttributes(double width, Ink ink, Dash dash, const std::optional<Ink> &fill)
{
    std::string text = fmt::format(" fill=\"{}\"", fill ? inkColour(*fill) : "none");
    if (width > 0.0)
        text += fmt::format(" stroke=\"{}\" stroke-width=\"{:.2f}\"", inkColour(ink), width);
    if (const std::vector<double> pattern = dashPattern(dash); !pattern.empty())
        text += fmt::format(" stroke-dasharray=\"{}\"", fmt::join(pattern, " "));
    return text;
}

struct SvgWriter {
    std::string &out;

    void operator()(const DrawnPath &path) const
    {
        out += path.isClosed ? "<polygon points=\"" : "<polyline points=\"";
        for (const DrawnPoint &point : path.points)
            fmt::format_to(std::back_inserter(out), "{:.2f},{:.2f} ", point.x, point.y);
        out += '"';
        out += inkAttributes(path.width, path.ink, path.dash, path.fill) + "/>\n";
    }
    void operator()(const DrawnCircle &circle) const
    {
        out += fmt::format("<circle cx=\"{:.2f}\" cy=\"{:.2f}\" r=\"{:.2f}\"{}/>\n", circle.centre.x,
                           circle.centre.y, circle.radius,
                           inkAttributes(circle.width, circle.ink, Dash::None, circle.fill));
    }
    void operator()(const DrawnText &text) const
    {
        constexpr const char *kAnchors[] = {"start", "middle", "end"};
        out += fmt::format("<text x=\"{:.2f}\" y=\"{:.2f}\" font-size=\"{:.2f}\" text-anchor=\"{}\" "
                           "fill=\"{}\"{}{}>{}</text>\n",
                           text.at.x, text.at.y, text.size, kAnchors[static_cast<int>(text.anchor)],
                           inkColour(text.ink), text.isBold ? " font-weight=\"bold\"" : "",
                           text.isUpright
                               ? fmt::format(" transform=\"rotate(-90 {:.2f} {:.2f})\"", text.at.x, text.at.y)
                               : std::string(),
                           escapedMarkup(text.text));
    }
};

struct Placer {
    DrawnPoint corner;
    double scale;

    [[nodiscard]] DrawnPoint moved(DrawnPoint point) const
    {
        return {corner.x + point.x * scale, corner.y + point.y * scale};
    }
    DrawnShape operator()(DrawnPath path) const
    {
        for (DrawnPoint &point : path.points)
            point = moved(point);
        path.width *= scale;
        return path;
    }
    DrawnShape operator()(DrawnCircle circle) const
    {
        circle.centre = moved(circle.centre);
        circle.radius *= scale;
        circle.width *= scale;
        return circle;
    }
    DrawnShape operator()(DrawnText text) const
    {
        text.at = moved(text.at);
        text.size *= scale;
        return text;
    }
};

} // namespace

std::string_view inkColour(Ink ink)
{
    switch (ink) {
    case Ink::Black:
        return "#1a1a1a";
    case Ink::Grey:
        return "#5f6368";
    case Ink::Pale:
        return "#d5d8dc";
    case Ink::White:
        return "#ffffff";
    case Ink::Accent:
        return "#1f4e79";
    }
    return "#000000";
}

std::vector<double> dashPattern(Dash dash)
{
    switch (dash) {
    case Dash::None:
        return {};
    case Dash::Long:
        return {6.0, 3.0};
    case Dash::Dots:
        return {1.5, 2.5};
    case Dash::Mixed:
        return {8.0, 3.0, 1.5, 3.0};
    }
    return {};
}

void Drawing::line(DrawnPoint from, DrawnPoint to, double lineWidth, Ink ink, Dash dash)
{
    shapes.emplace_back(DrawnPath{{from, to}, lineWidth, ink, false, dash, {}});
}

void Drawing::rectangle(DrawnPoint corner, double wide, double high, std::optional<Ink> fill, double line,
                        Ink ink)
{
    shapes.emplace_back(DrawnPath{{corner,
                                   {corner.x + wide, corner.y},
                                   {corner.x + wide, corner.y + high},
                                   {corner.x, corner.y + high}},
                                  line,
                                  ink,
                                  true,
                                  Dash::None,
                                  fill});
}

void Drawing::place(const Drawing &other, DrawnPoint corner, double scale)
{
    for (const DrawnShape &shape : other.shapes)
        shapes.push_back(std::visit(Placer{corner, scale}, shape));
}

double roughWidth(std::string_view text, double size)
{
    return kLetter * size * static_cast<double>(letterCount(text));
}

std::string fitted(std::string_view text, double size, double width)
{
    if (roughWidth(text, size) <= width)
        return std::string(text);
    const auto letters = static_cast<std::size_t>(width / (kLetter * size));
    return firstLetters(text, letters > 1 ? letters - 1 : 0) + "…";
}

std::vector<std::string> wrapped(std::string_view text, double size, double width, std::size_t mostLines)
{
    std::vector<std::string> lines;
    std::string line;
    while (!text.empty()) {
        const std::size_t end = text.find(' ');
        const std::string_view word = text.substr(0, end);
        const std::string longer = line.empty() ? std::string(word) : line + ' ' + std::string(word);
        if (!line.empty() && roughWidth(longer, size) > width) {
            if (lines.size() + 1 == mostLines) {
                lines.push_back(fitted(line + ' ' + std::string(text), size, width));
                return lines;
            }
            lines.push_back(line);
            line = fitted(word, size, width);
        } else {
            line = line.empty() ? fitted(word, size, width) : longer;
        }
        text = end == std::string_view::npos ? std::string_view() : text.substr(end + 1);
    }
    if (!line.empty())
        lines.push_back(fitted(line, size, width));
    return lines;
}

std::string svgText(const Drawing &drawing, std::string_view title)
{
    std::string text =
        fmt::format("<svg xmlns=\"http://www.w3.org/2000/svg\" role=\"img\" viewBox=\"0 0 {:.2f} {:.2f}\" "
                    "width=\"{:.2f}\" height=\"{:.2f}\" font-family=\"Noto Sans, DejaVu Sans, sans-serif\">\n"
                    "<title>{}</title>\n",
                    drawing.width, drawing.height, drawing.width, drawing.height, escapedMarkup(title));
    for (const DrawnShape &shape : drawing.shapes)
        std::visit(SvgWriter{text}, shape);
    return text + "</svg>\n";
}

std::string escapedMarkup(std::string_view text)
{
    std::string escaped;
    for (const char c : text) {
        switch (c) {
        case '&':
            escaped += "&amp;";
            break;
        case '<':
            escaped += "&lt;";
            break;
        case '>':
            escaped += "&gt;";
            break;
        case '"':
            escaped += "&quot;";
            break;
        case '\'':
            escaped += "&#39;";
            break;
        default:
            // Other control characters stand in no XML text.
            escaped += static_cast<unsigned char>(c) < 0x20 && c != '\n' && c != '\t' ? ' ' : c;
        }
    }
    return escaped;
}

} // namespace inchpeg
