// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/tension/tensile.h"
#include "core/method/tension/tension_reading.h"
#include "core/reading/reading_settings.h"

namespace inchpeg::test
{

/// The order by which a piece's record is read under these parameters.
inline ReadingOrder tensileOrder(const TensileParameters &p)
{
    ReadingOrder order{&kTensileReduction, {}, {}, {}};
    order.settings.numbers = {{"area", in_mm2(p.area)},
                              {"modulus_from", p.lowStrain},
                              {"modulus_to", p.highStrain},
                              {"offset", p.offsetStrain},
                              {"break_drop", p.breakDrop}};
    if (p.gaugeLength)
        order.settings.numbers["gauge_length"] = in_mm(*p.gaugeLength);
    if (p.gripDistance)
        order.settings.numbers["grip_distance"] = in_mm(*p.gripDistance);
    if (p.capacity)
        order.settings.numbers["capacity"] = in_N(*p.capacity);
    order.settings.words["toe"] = p.toeCorrection ? "on" : "off";
    const auto place = [&](const char *name, const std::optional<double> &at) {
        if (at)
            order.placed[name] = at;
    };
    const auto sample = [](const std::optional<std::size_t> &index) {
        return index ? std::optional(static_cast<double>(*index)) : std::nullopt;
    };
    place("toe", p.markers.toeStrain);
    place("modulus_from", p.markers.modulusFrom);
    place("modulus_to", p.markers.modulusTo);
    place("strength", sample(p.markers.strength));
    place("yield", sample(p.markers.yield));
    place("break", sample(p.markers.lastBeforeBreak));
    if (p.markers.noYield)
        order.placed["yield"] = std::nullopt;
    return order;
}

} // namespace inchpeg::test
