// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/specimen/section.h"

#include <fmt/format.h>

#include <numbers>

namespace inchpeg
{

namespace
{

Status requirePositive(double value, std::string_view name, std::string_view unit)
{
    if (value > 0.0)
        return ok();
    return invalidArgument(
        fmt::format("{} is {:g} {}; a measured {} above zero is wanted", name, value, unit, name));
}

struct AreaOf {
    Result<Area> operator()(const RectangularSection &section) const
    {
        if (const Status status = requirePositive(in_mm(section.width), "width", "mm"); !status)
            return status.error();
        if (const Status status = requirePositive(in_mm(section.thickness), "thickness", "mm"); !status)
            return status.error();
        return section.width * section.thickness;
    }
    Result<Area> operator()(const RoundSection &section) const
    {
        if (const Status status = requirePositive(in_mm(section.diameter), "diameter", "mm"); !status)
            return status.error();
        return section.diameter * section.diameter * (std::numbers::pi / 4.0);
    }
    Result<Area> operator()(const PlainArea &section) const
    {
        if (const Status status = requirePositive(in_mm2(section.area), "area", "mm²"); !status)
            return status.error();
        return section.area;
    }
};

} // namespace

Result<Area> areaOf(const Section &section)
{
    return std::visit(AreaOf{}, section);
}

} // namespace inchpeg
