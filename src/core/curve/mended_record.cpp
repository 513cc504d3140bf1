// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/curve/mended_record.h"

#include "core/base/blocks.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <utility>

namespace inchpeg
{

namespace
{

constexpr double kZeroShareOfPeak = 0.005;
constexpr std::size_t kFlatTopSamples = 8;

bool isAnywhereAboveZero(std::span<const double> values)
{
    return std::any_of(values.begin(), values.end(), [](double value) { return value > 0.0; });
}

Error noLoad(std::string_view name)
{
    return badInput(fmt::format(
        "the {} is zero in every sample; was the gauge connected and its channel recorded?", name));
}

/// True, with a warning, where the largest magnitude is that of a negative value.
bool isTurned(std::span<const double> values, std::string_view name, std::vector<std::string> &warnings,
              const TaskRunner &run)
{
    double lowest = 0.0;
    double highest = 0.0;
    for (const auto &[low, high] : perBlock(values.size(), run, [&](std::size_t begin, std::size_t end) {
             std::pair block{0.0, 0.0};
             for (std::size_t i = begin; i < end; ++i) {
                 block.first = std::min(block.first, values[i]);
                 block.second = std::max(block.second, values[i]);
             }
             return block;
         })) {
        lowest = std::min(lowest, low);
        highest = std::max(highest, high);
    }
    if (-lowest <= highest)
        return false;
    warnings.push_back(fmt::format("the {} is negative where it is largest: its sign was turned over", name));
    return true;
}

} // namespace

void MendedColumn::turn()
{
    for (double &value : mended())
        value = -value;
}

std::vector<double> &MendedColumn::mended()
{
    if (m_mended.empty()) {
        m_mended.assign(m_view.begin(), m_view.end());
        m_view = m_mended;
    }
    return m_mended;
}

void turnUpright(MendedColumn &column, std::string_view name, std::vector<std::string> &warnings,
                 const TaskRunner &run)
{
    if (isTurned(column.view(), name, warnings, run))
        column.turn();
}

void turnUpright(std::vector<double> &values, std::string_view name, std::vector<std::string> &warnings,
                 const TaskRunner &run)
{
    if (isTurned(values, name, warnings, run))
        std::transform(values.begin(), values.end(), values.begin(), std::negate<>());
}

Result<Noise> mendSpikes(MendedColumn &load, std::string_view name, Dimension dimension,
                         std::vector<std::string> &warnings, const TaskRunner &run)
{
    if (!isAnywhereAboveZero(load.view()))
        return noLoad(name);
    const Noise noise = noiseOf(load.view(), run);
    const std::vector<std::size_t> spikes = loneSpikes(load.view(), noise, run);
    for (std::size_t spike : spikes) {
        warnings.push_back(fmt::format("sample {} ({}) stands out alone and was taken for electrical noise",
                                       spike + 1, marked(load.view()[spike], dimension, 6)));
        load.set(spike, 0.5 * (load.view()[spike - 1] + load.view()[spike + 1]));
    }
    if (!spikes.empty() && !isAnywhereAboveZero(load.view())) // what looked like a load was a spike
        return noLoad(name);
    return noise;
}

Check startsAtZero(std::span<const double> load, const Noise &noise, double peak, std::string_view name,
                   Dimension dimension, std::vector<std::string> &warnings)
{
    const std::string first = marked(load.front(), dimension, 3);
    const double percent = 100.0 * load.front() / peak;
    const bool zeroed = std::abs(load.front()) - 3.0 * noise.sigma <= kZeroShareOfPeak * peak;
    if (!zeroed)
        warnings.push_back(fmt::format("the {} starts at {}, {:.2g} % of its peak: zero the gauge before the "
                                       "test (nothing was subtracted)",
                                       name, first, percent));
    return {
        fmt::format("{} starts at zero", name), zeroed,
        fmt::format("the first sample is {}, {:.2g} % of the peak; up to 0.5 % is usual", first, percent)};
}

GaugeLimit gaugeLimit(std::span<const double> load, std::size_t peak, std::optional<double> capacity,
                      Dimension dimension, std::string_view bounded, std::vector<std::string> &warnings)
{
    const double highest = load[peak];
    if (capacity) {
        const bool reached = highest >= kCapacityShare * *capacity;
        if (reached)
            warnings.push_back(fmt::format("the gauge reached the end of its range: {}", bounded));
        return {reached, Check{"the gauge stays within its range", !reached,
                               fmt::format("peak {}, capacity {}", marked(highest, dimension),
                                           marked(*capacity, dimension))}};
    }
    std::size_t flat = 1;
    while (peak + flat < load.size() && load[peak + flat] == highest)
        ++flat;
    const bool abrupt = flat >= kFlatTopSamples && peak > 1 &&
                        highest - load[peak - 1] > 0.3 * highest / static_cast<double>(peak);
    if (abrupt)
        warnings.push_back(
            fmt::format("the force rises and then stays at exactly {} for {} samples: the gauge may "
                        "have been at its limit; give its capacity to have such values taken as \"at "
                        "least\"",
                        marked(highest, dimension), flat));
    return {};
}

} // namespace inchpeg
