// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/bend_steps/bend_steps.h"

#include "core/method/sizes.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kSteadyShare = 0.02;
/// Deflections beyond this share of the span are no longer small (ASTM D790-17, 12.3: a tenth).
constexpr double kLargeDeflection = 0.10;

Status checkParameters(const BendStepsParameters &p)
{
    if (const Status status = checkSizes({{"width", p.width}, {"thickness", p.thickness}, {"span", p.span}});
        !status)
        return status;
    return ok();
}

LoadStep stepOf(std::span<const LoadReading> readings, std::size_t first, std::size_t last,
                const BendStepsParameters &p)
{
    LoadStep step{readings[first].load_N, first, last, {}, {}, {}};
    const double begun_mm = readings[first].deflection_mm;
    const double ended_mm = readings[last].deflection_mm;
    const double span_mm = in_mm(p.span);
    if (ended_mm > 0.0)
        step.apparentModulus_MPa = (p.isCantilever ? 4.0 : 0.25) * span_mm * span_mm * span_mm * step.load_N /
                                   (in_mm(p.width) * std::pow(in_mm(p.thickness), 3.0) * ended_mm);
    if (last == first)
        return step;
    if (begun_mm > 0.0)
        step.timeRatio = ended_mm / begun_mm;
    step.steady = std::abs(ended_mm - readings[last - 1].deflection_mm) <= kSteadyShare * std::abs(ended_mm);
    return step;
}

void judge(BendStepsResult &result, std::span<const LoadReading> readings, const BendStepsParameters &p)
{
    std::size_t still = 0;
    while (still < result.steps.size() && result.steps[still].steady == true)
        ++still;
    if (still > 0)
        result.steadyLoad_N = result.steps[still - 1].load_N;
    result.neverMoved = still == result.steps.size();
    const std::size_t readTwice =
        static_cast<std::size_t>(std::count_if(result.steps.begin(), result.steps.end(),
                                               [](const LoadStep &step) { return step.steady.has_value(); }));
    result.validity.push_back(
        {"every load is read more than once", readTwice == result.steps.size(),
         fmt::format("{} of {} loads; readings at 1, 30 and 60 s show whether the beam holds still",
                     readTwice, result.steps.size())});
    const double furthest_mm =
        std::max_element(readings.begin(), readings.end(), [](const LoadReading &a, const LoadReading &b) {
            return a.deflection_mm < b.deflection_mm;
        })->deflection_mm;
    result.validity.push_back(
        {"deflections stay small", furthest_mm <= kLargeDeflection * in_mm(p.span),
         fmt::format("up to {}; beyond a tenth of the span the beam formula reads the modulus too high",
                     marked(furthest_mm, Dimension::Length, 3))});
}

} // namespace

Result<BendStepsResult> reduceBendSteps(std::span<const LoadReading> readings,
                                        const BendStepsParameters &parameters)
{
    if (const Status status = checkParameters(parameters); !status)
        return status.error();
    BendStepsResult result;
    std::size_t without = 0;
    for (std::size_t first = 0; first < readings.size();) {
        std::size_t last = first;
        while (last + 1 < readings.size() && readings[last + 1].load_N == readings[first].load_N)
            ++last;
        if (readings[first].load_N > 0.0)
            result.steps.push_back(stepOf(readings, first, last, parameters));
        else
            without += last - first + 1;
        first = last + 1;
    }
    if (result.steps.empty())
        return badInput("no reading under a load: a load above zero with its deflection is wanted");
    if (without > 0)
        result.warnings.push_back(fmt::format("{} reading{} without a load {} not used", without,
                                              without == 1 ? "" : "s", without == 1 ? "was" : "were"));
    judge(result, readings, parameters);
    return result;
}

} // namespace inchpeg
