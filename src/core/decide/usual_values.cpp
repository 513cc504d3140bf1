// SPDX-License-Identifier: GPL-3.0-or-later
// Rough orders of generic polymers as they are printed: common practice, from memory. They stand in only
// where there is neither a result of one's own nor a sheet, and are said to be usual.
#include "core/decide/usual_values.h"

#include <algorithm>
#include <array>

namespace inchpeg
{

namespace
{

struct Orders {
    std::string_view polymer;
    double heatLow_C;  ///< heat deflection at 0.45 MPa
    double heatHigh_C; ///< at 1.80 MPa
    double sags_C;
    double shrinkage_percent;
    double weather; ///< 1 falls apart in a summer, 5 stands for years
    double nozzle_C;
    bool chamber;
};

constexpr std::array kOrders = {
    Orders{"low-heat polyester", 55.0, 52.0, 57.0, 0.25, 2.0, 210.0, false},
    Orders{"glycol-modified polyester", 70.0, 64.0, 73.0, 0.3, 3.0, 245.0, false},
    Orders{"weather-proof styrenic", 95.0, 88.0, 96.0, 0.6, 5.0, 255.0, true},
    Orders{"styrenic", 93.0, 85.0, 95.0, 0.6, 2.0, 250.0, true},
    Orders{"carbonate blend", 115.0, 105.0, 118.0, 0.6, 3.0, 275.0, true},
    Orders{"polycarbonate", 135.0, 125.0, 138.0, 0.6, 3.0, 285.0, true},
    Orders{"filled polyamide", 150.0, 120.0, 155.0, 0.4, 3.0, 285.0, true},
    Orders{"polyamide", 95.0, 65.0, 110.0, 1.2, 2.0, 265.0, true},
    Orders{"polypropylene", 90.0, 55.0, 100.0, 1.5, 2.0, 230.0, false},
    Orders{"flexible urethane", 50.0, 40.0, 90.0, 0.8, 3.0, 230.0, false},
    Orders{"high-temperature polymer", 180.0, 160.0, 185.0, 0.8, 4.0, 360.0, true},
    Orders{"resin", 60.0, 52.0, 65.0, 0.8, 1.0, 0.0, false},
};

constexpr double kMiddleLoad_MPa = 1.0; ///< between the two loads of ISO 75

const Orders *ordersOf(const PolymerFacts &polymer)
{
    const auto found = std::find_if(kOrders.begin(), kOrders.end(),
                                    [&](const Orders &one) { return one.polymer == polymer.name; });
    return found == kOrders.end() ? nullptr : &*found;
}

std::optional<double> above(double value)
{
    return value > 0.0 ? std::optional(value) : std::nullopt;
}

} // namespace

std::optional<double> usualFor(const PolymerFacts &polymer, const Need &need)
{
    const Orders *orders = ordersOf(polymer);
    switch (need.kind) {
    case NeedKind::Strength:
        return above(polymer.strength_MPa);
    case NeedKind::Layers:
        return above(polymer.strength_MPa * polymer.layerShare);
    case NeedKind::Stiff:
        return above(polymer.modulus_MPa);
    case NeedKind::Blow:
        return above(polymer.impact_kJ_per_m2);
    case NeedKind::Heat:
        if (orders == nullptr)
            return std::nullopt;
        return need.load_MPa.value_or(0.45) < kMiddleLoad_MPa ? orders->heatLow_C : orders->heatHigh_C;
    case NeedKind::Softens:
        return orders == nullptr ? std::nullopt : above(orders->sags_C);
    case NeedKind::Distance:
        return orders == nullptr ? std::nullopt : above(orders->shrinkage_percent);
    case NeedKind::Weather:
        return orders == nullptr ? std::nullopt : above(orders->weather);
    default:
        return std::nullopt; // of a load over a shape, or of days under it, nothing is usual
    }
}

PrinterWants printerWants(const PolymerFacts &polymer)
{
    const Orders *orders = ordersOf(polymer);
    PrinterWants wants;
    if (orders != nullptr) {
        wants.nozzle_C = orders->nozzle_C;
        wants.chamber = orders->chamber;
    }
    wants.hardNozzle = polymer.dust;
    wants.drying = polymer.takesUpWater;
    return wants;
}

} // namespace inchpeg
