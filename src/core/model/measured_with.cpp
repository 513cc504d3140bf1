// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/measured_with.h"

#include "core/model/piece_log.h"

#include <algorithm>

namespace inchpeg
{

namespace
{

double corrected(const UsedGauge *gauge, double shown)
{
    return gauge != nullptr && gauge->calibration && shown > 0.0
               ? correctedReading(*gauge->calibration, shown)
               : shown;
}

} // namespace

const UsedGauge *gaugeOf(const PieceLog &log, std::string_view field)
{
    for (const MeasuredWith &one : log.gauges) {
        if (std::find(one.fields.begin(), one.fields.end(), field) != one.fields.end())
            return &one.gauge;
    }
    return nullptr;
}

void keepGauge(PieceLog &log, const std::string &field, const std::optional<UsedGauge> &gauge)
{
    for (MeasuredWith &one : log.gauges)
        std::erase(one.fields, field);
    std::erase_if(log.gauges, [](const MeasuredWith &one) { return one.fields.empty(); });
    if (!gauge)
        return;
    const auto same = std::find_if(log.gauges.begin(), log.gauges.end(),
                                   [&](const MeasuredWith &one) { return one.gauge == *gauge; });
    MeasuredWith &with = same != log.gauges.end() ? *same : log.gauges.emplace_back(MeasuredWith{*gauge, {}});
    with.fields.insert(std::lower_bound(with.fields.begin(), with.fields.end(), field), field);
}

SizeReadings correctedSizes(const PieceLog &log)
{
    SizeReadings sizes = log.sizes;
    const auto correct = [&log](std::vector<double> &list, std::string_view field) {
        const UsedGauge *gauge = gaugeOf(log, field);
        for (double &value : list)
            value = corrected(gauge, value);
    };
    correct(sizes.width_mm, "width");
    correct(sizes.thickness_mm, "thickness");
    correct(sizes.diameter_mm, "diameter");
    return sizes;
}

std::optional<double> correctedMass_g(const PieceLog &log)
{
    return log.mass_g ? std::optional(corrected(gaugeOf(log, "mass"), *log.mass_g)) : std::nullopt;
}

} // namespace inchpeg
