// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/section_settings.h"

namespace inchpeg
{

Result<Section> sectionFrom(const MethodSettings &settings)
{
    const auto width = settings.length("width");
    const auto thickness = settings.length("thickness");
    const auto area = settings.number("area");
    const auto diameter = settings.length("diameter");
    const int ways = (width || thickness ? 1 : 0) + (area ? 1 : 0) + (diameter ? 1 : 0);
    if (ways > 1)
        return invalidArgument("the cross-section is given in more than one way; give width and "
                               "thickness, or area, or diameter");
    if (area)
        return Section(PlainArea{squareMillimetres(*area)});
    if (diameter)
        return Section(RoundSection{*diameter});
    if (!width)
        return invalidArgument("\"width\" is missing; give width and thickness, or area, or diameter");
    if (!thickness)
        return invalidArgument("\"thickness\" is missing; the cross-section is width × thickness");
    return Section(RectangularSection{*width, *thickness});
}

void setSection(MethodSettings &settings, const Section &section)
{
    if (const auto *rectangle = std::get_if<RectangularSection>(&section)) {
        settings.numbers["width"] = in_mm(rectangle->width);
        settings.numbers["thickness"] = in_mm(rectangle->thickness);
    } else if (const auto *round = std::get_if<RoundSection>(&section)) {
        settings.numbers["diameter"] = in_mm(round->diameter);
    } else {
        settings.numbers["area"] = in_mm2(std::get<PlainArea>(section).area);
    }
}

} // namespace inchpeg
