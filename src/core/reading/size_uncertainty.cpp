// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reading/size_uncertainty.h"

#include "core/model/measured_with.h"
#include "core/stats/summary.h"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <numbers>

namespace inchpeg
{

namespace
{

/// Of callipers that show hundredths: expanded uncertainty, k = 2, and step (common practice; ISO 13385-1
/// allows them 0.02 to 0.03 mm up to 100 mm, from memory).
constexpr double kUsualCalliperUncertainty_mm = 0.02;
constexpr double kUsualCalliperResolution_mm = 0.01;

/// What the readings of one size do not share: their scatter and the callipers' steps.
double independentUncertainty_mm(const std::vector<double> &readings, double resolution_mm)
{
    std::vector<double> known;
    std::copy_if(readings.begin(), readings.end(), std::back_inserter(known),
                 [](double value) { return value > 0.0; });
    // A rectangular distribution of half-width a has the variance a²/3 (GUM 4.3.7).
    const double step = 0.5 * resolution_mm;
    double variance = step * step / 3.0;
    if (known.size() >= 2)
        variance += varianceOf(known) / static_cast<double>(known.size());
    return std::sqrt(variance);
}

} // namespace

SizeReadings sizeReadings(const Piece &piece)
{
    if (piece.log.sizes != SizeReadings{} || !piece.section)
        return piece.log.sizes;
    SizeReadings sizes;
    if (const auto *rectangle = std::get_if<RectangularSection>(&*piece.section)) {
        if (rectangle->width.si() > 0.0)
            sizes.width_mm = {in_mm(rectangle->width)};
        if (rectangle->thickness.si() > 0.0)
            sizes.thickness_mm = {in_mm(rectangle->thickness)};
    } else if (const auto *round = std::get_if<RoundSection>(&*piece.section)) {
        sizes.diameter_mm = {in_mm(round->diameter)};
    }
    return sizes;
}

const GaugeCard *calliperOf(const Study &study, const Piece &piece, const Workshop &workshop)
{
    for (const char *size : {"width", "diameter", "thickness"}) {
        if (const UsedGauge *used = gaugeOf(piece.log, size))
            return findGauge(workshop, used->name);
    }
    return findGauge(workshop, study.log.measuring.calliper);
}

std::optional<SizeUncertainty> sizeUncertainty(const Piece &piece, const GaugeCard *calliper)
{
    if (!piece.section || std::holds_alternative<PlainArea>(*piece.section) || !areaOf(*piece.section))
        return std::nullopt;
    const SizeReadings sizes = sizeReadings(piece);
    const bool onlyOnce =
        sizes.width_mm.size() < 2 && sizes.thickness_mm.size() < 2 && sizes.diameter_mm.size() < 2;
    if (calliper == nullptr && onlyOnce)
        return std::nullopt; // neither callipers nor scatter are known
    // Callipers that nobody named are taken for usual ones: three equal readings are not without uncertainty.
    const double resolution_mm = calliper != nullptr ? calliper->resolution : kUsualCalliperResolution_mm;
    SizeUncertainty out;
    out.shared_mm = 0.5 * (calliper != nullptr ? calliper->uncertainty : kUsualCalliperUncertainty_mm);
    if (std::holds_alternative<RectangularSection>(*piece.section)) {
        out.width_mm = independentUncertainty_mm(sizes.width_mm, resolution_mm);
        out.thickness_mm = independentUncertainty_mm(sizes.thickness_mm, resolution_mm);
    } else {
        out.diameter_mm = independentUncertainty_mm(sizes.diameter_mm, resolution_mm);
    }
    return out;
}

std::optional<AreaUncertainty> areaUncertainty(const Piece &piece, const GaugeCard *calliper)
{
    const std::optional<SizeUncertainty> sizes = sizeUncertainty(piece, calliper);
    if (!sizes)
        return std::nullopt;
    double variance = 0.0;
    double linear = 0.0; // sum of sensitivities, for the error that all readings share
    const auto add = [&](double sensitivity, const std::optional<double> &own_mm) {
        linear += sensitivity;
        variance += std::pow(sensitivity * own_mm.value_or(0.0), 2.0);
    };
    if (const auto *rectangle = std::get_if<RectangularSection>(&*piece.section)) {
        add(in_mm(rectangle->thickness), sizes->width_mm);
        add(in_mm(rectangle->width), sizes->thickness_mm);
    } else {
        add(0.5 * std::numbers::pi * in_mm(std::get<RoundSection>(*piece.section).diameter),
            sizes->diameter_mm);
    }
    return AreaUncertainty{in_mm2(*areaOf(*piece.section)),
                           std::sqrt(variance + std::pow(linear * sizes->shared_mm, 2.0))};
}

} // namespace inchpeg
