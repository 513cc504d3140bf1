// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/print_estimate.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace inchpeg
{

namespace
{

// What is taken where neither factors nor locked settings say (common practice).
constexpr double kUsualWalls = 4.0;
constexpr double kUsualInfill_percent = 100.0;
constexpr double kUsualLayer_mm = 0.2;
constexpr double kUsualNozzle_mm = 0.4;
constexpr double kLineOverNozzle = 1.125; ///< width of a line over that of the nozzle
constexpr int kSkinLayers = 5;            ///< solid ones at bottom and top each
constexpr double kSecondsPerLayer = 1.5;  ///< moves that lay nothing
constexpr double kFilament_mm = 1.75;
constexpr double kDrySafety_K = 5.0;

/// How the shape stands on the plate: what a layer looks like and how high it gets.
struct Build {
    double layerArea_mm2 = 0.0; ///< on average
    double layerEdge_mm = 0.0;
    double height_mm = 0.0;
    /// Share of the volume in so thick a layer at the bottom and as thick a one at the top.
    double skinShare = 0.0;
};

/// Of a circle of this diameter the share of its area within so much of its lowest point, and of its highest.
double roundSkinShare(double diameter_mm, double skin_mm)
{
    const double r = 0.5 * diameter_mm;
    const double h = std::min(skin_mm, r);
    const double segment = r * r * std::acos((r - h) / r) - (r - h) * std::sqrt(2.0 * r * h - h * h);
    return 2.0 * segment / (std::numbers::pi * r * r);
}

/// skin_mm: how thick the solid layers at bottom and top are, each.
Build buildOf(const SpecimenShape &shape, Orientation orientation, double skin_mm)
{
    const double volume = volume_mm3(shape);
    if (orientation == Orientation::Standing && shape.family != ShapeFamily::Core) {
        const double area = volume / shape.length_mm;
        const double edge = isRound(shape) ? 2.0 * std::sqrt(std::numbers::pi * area)
                                           : 2.0 * (area / shape.thickness_mm + shape.thickness_mm);
        return {area, edge, shape.length_mm, std::min(1.0, 2.0 * skin_mm / shape.length_mm)};
    }
    // A round shape lies on its thickest part; its skins are the narrow slices at bottom and top.
    const double height = isRound(shape) ? std::max(shape.width_mm, shape.endWidth_mm) : shape.thickness_mm;
    const double meanDiameter = std::sqrt(4.0 * volume / (std::numbers::pi * shape.length_mm));
    const double skinShare =
        isRound(shape) ? roundSkinShare(meanDiameter, skin_mm) : std::min(1.0, 2.0 * skin_mm / height);
    double edge = polygonLength_mm(outlineOf(shape));
    if (shape.family == ShapeFamily::Core)
        edge += std::numbers::pi * shape.holeDiameter_mm;
    return {volume / height, edge, height, skinShare};
}

double densityOf(const Study &study, const Condition &condition, const SpoolCard *spool)
{
    if (spool != nullptr && spool->density_g_per_cm3)
        return *spool->density_g_per_cm3;
    return polymerOf(study, condition).facts->density_g_per_cm3;
}

double positive(const std::optional<double> &value, double usual)
{
    return value && *value > 0.0 ? *value : usual;
}

} // namespace

std::string materialText(const Study &study, const Condition &condition)
{
    if (!condition.material.empty())
        return condition.material;
    return settingOf(study, condition, factor::kMaterial).value_or(std::string());
}

PieceEstimate estimatePiece(const Study &study, const PlannedTest &test, const Condition &condition,
                            const Workshop &workshop)
{
    const SpoolCard *spool = findSpool(workshop, materialText(study, condition));
    const PrinterCard *printer = findPrinter(workshop, study.plan.print.printer);
    const double walls = std::max(0.0, numberSetting(study, condition, factor::kWalls).value_or(kUsualWalls));
    const double infill = std::clamp(
        numberSetting(study, condition, factor::kInfill).value_or(kUsualInfill_percent) / 100.0, 0.0, 1.0);
    const double layer_mm = positive(numberSetting(study, condition, factor::kLayerHeight), kUsualLayer_mm);
    const double line_mm =
        kLineOverNozzle * positive(numberSetting(study, condition, factor::kNozzleSize), kUsualNozzle_mm);

    const Build build = buildOf(test.shape, condition.orientation, kSkinLayers * layer_mm);
    const double volume = build.layerArea_mm2 * build.height_mm;
    const double layers = std::max(1.0, std::round(build.height_mm / layer_mm));
    // A layer's walls cannot hold more than the layer; skins are solid within the walls.
    const double wallShare = std::min(1.0, walls * line_mm * build.layerEdge_mm / build.layerArea_mm2);
    const double solidShare =
        wallShare + (1.0 - wallShare) * (build.skinShare + (1.0 - build.skinShare) * infill);
    const double laid_mm3 = volume * solidShare;

    PieceEstimate estimate;
    estimate.grams = laid_mm3 / 1e3 * densityOf(study, condition, spool);
    const double flow = printer != nullptr ? printer->flow_mm3_per_s : PrinterCard{}.flow_mm3_per_s;
    estimate.minutes = (laid_mm3 / flow + layers * kSecondsPerLayer) / 60.0;
    // The slicer was asked for the first test.
    const auto figure = study.plan.print.slicer.find(condition.id);
    if (figure != study.plan.print.slicer.end() && test.method == methodOf(study)) {
        estimate.gramsFromSlicer = figure->second.grams.has_value();
        estimate.minutesFromSlicer = figure->second.minutes.has_value();
        estimate.grams = figure->second.grams.value_or(estimate.grams);
        estimate.minutes = figure->second.minutes.value_or(estimate.minutes);
    }
    return estimate;
}

PrintCost costOf(const Study &study, const Condition &condition, const Workshop &workshop)
{
    PrintCost cost;
    for (const PlannedTest &test : plannedTests(study)) {
        const auto pieces =
            static_cast<int>(std::count_if(study.pieces.begin(), study.pieces.end(), [&](const Piece &piece) {
                return piece.condition == condition.id && piece.test == test.method;
            }));
        const PieceEstimate each = estimatePiece(study, test, condition, workshop);
        cost.pieces += pieces;
        cost.grams += pieces * each.grams;
        cost.minutes += pieces * each.minutes;
    }
    const SpoolCard *spool = findSpool(workshop, materialText(study, condition));
    const double price_per_kg = spool != nullptr ? spool->price_per_kg : SpoolCard{}.price_per_kg;
    cost.money = cost.grams / 1e3 * price_per_kg + cost.minutes / 60.0 * workshop.printerRate_per_h;
    return cost;
}

PrintCost costOf(const Study &study, const Workshop &workshop)
{
    PrintCost sum;
    for (const Condition &condition : study.conditions) {
        const PrintCost cost = costOf(study, condition, workshop);
        sum.pieces += cost.pieces;
        sum.grams += cost.grams;
        sum.minutes += cost.minutes;
        sum.money += cost.money;
    }
    return sum;
}

std::vector<SpoolUse> spoolUse(const Study &study, const Workshop &workshop)
{
    std::vector<SpoolUse> uses;
    for (const Condition &condition : study.conditions) {
        const std::string material = materialText(study, condition);
        auto use = std::find_if(uses.begin(), uses.end(),
                                [&](const SpoolUse &one) { return one.material == material; });
        if (use == uses.end())
            use = uses.insert(uses.end(), SpoolUse{material, 0.0, 0.0, {}, {}});
        const double grams = costOf(study, condition, workshop).grams;
        const double density = densityOf(study, condition, findSpool(workshop, material));
        use->needed_g += grams;
        use->needed_m +=
            grams / density * 1e3 / (0.25 * std::numbers::pi * kFilament_mm * kFilament_mm) / 1e3;
    }
    for (SpoolUse &use : uses) {
        const SpoolCard *spool = findSpool(workshop, use.material);
        const std::string name = use.material.empty() ? "the spool" : use.material;
        use.sentence =
            fmt::format("{}: {:.0f} g, {:.0f} m of 1.75 mm filament.", name, use.needed_g, use.needed_m);
        if (spool == nullptr || !spool->gross_g || !spool->empty_g)
            continue;
        const double present = *spool->gross_g - *spool->empty_g;
        use.left_g = present - use.needed_g;
        use.sentence += *use.left_g < 0.0
                            ? fmt::format(" The spool holds {:.0f} g: {:.0f} g too little. A second spool is "
                                          "another lot; do not change spools within a rail.",
                                          present, -*use.left_g)
                            : fmt::format(" The spool holds {:.0f} g; {:.0f} g are left after this.", present,
                                          *use.left_g);
    }
    return uses;
}

MaterialCare careOf(const Study &study, const Condition &condition, const Workshop &workshop)
{
    MaterialCare care;
    care.material = materialText(study, condition);
    const PolymerGuess polymer = polymerOf(study, condition);
    const SpoolCard *spool = findSpool(workshop, care.material);
    const std::string name = care.material.empty() ? std::string(polymer.facts->name) : care.material;
    if (study.plan.dates.dry) {
        care.dry_C = spool != nullptr ? spool->dry_C.value_or(polymer.facts->dry_C) : polymer.facts->dry_C;
        care.dry_h = spool != nullptr ? spool->dry_h.value_or(polymer.facts->dry_h) : polymer.facts->dry_h;
        if (spool != nullptr && spool->spoolLimit_C && care.dry_C > *spool->spoolLimit_C - kDrySafety_K) {
            care.dry_C = *spool->spoolLimit_C - kDrySafety_K;
            care.limitedBySpool = true;
        }
    }
    care.conditioning_h = study.plan.dates.conditioning_h.value_or(polymer.facts->conditioning_h);
    care.sentence = care.dry_h > 0.0
                        ? fmt::format("{}: dry for {:.0f} h at {:.0f} °C", name, care.dry_h, care.dry_C)
                        : fmt::format("{}: no drying", name);
    if (care.limitedBySpool)
        care.sentence +=
            fmt::format(" (its spool stands {:.0f} °C; dry longer, or off the spool)", *spool->spoolLimit_C);
    care.sentence += fmt::format(", then {:.0f} h at 23 °C and 50 % before the test.", care.conditioning_h);
    if (polymer.facts->takesUpWater)
        care.sentence +=
            " It takes up water for weeks: test all rails at the same age, and weigh the pieces.";
    return care;
}

std::vector<MaterialCare> materialCare(const Study &study, const Workshop &workshop)
{
    std::vector<MaterialCare> all;
    for (const Condition &condition : study.conditions) {
        MaterialCare care = careOf(study, condition, workshop);
        if (std::none_of(all.begin(), all.end(),
                         [&](const MaterialCare &one) { return one.sentence == care.sentence; }))
            all.push_back(std::move(care));
    }
    return all;
}

} // namespace inchpeg
