// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/shrinkage/shrinkage.h"

#include "core/method/sizes.h"
#include "core/stats/summary.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

/// A reading farther than this from the drawn length is more likely another length, or a slip (ours).
constexpr double kUnlikelyShare = 0.05;

} // namespace

Result<ShrinkageResult> reduceShrinkage(std::span<const double> length_mm, Length nominal)
{
    if (const Status status = checkSizes({{"nominal", nominal}}); !status)
        return status.error();
    if (length_mm.empty())
        return Error{ErrorCode::TooFewPoints, "the record holds no length", {}};
    const double nominal_mm = in_mm(nominal);
    std::vector<double> shrinkage;
    for (std::size_t i = 0; i < length_mm.size(); ++i) {
        if (!(length_mm[i] > 0.0))
            return badInput(
                fmt::format("reading {} is {:g} mm; a length above zero is wanted", i + 1, length_mm[i]));
        shrinkage.push_back(100.0 * (nominal_mm - length_mm[i]) / nominal_mm);
    }
    const Summary summary = summarise(shrinkage);
    ShrinkageResult result;
    result.n = summary.n;
    result.shrinkage_percent = *summary.mean;
    result.sd_percent = summary.sd;
    result.mean_mm = nominal_mm * (1.0 - 0.01 * result.shrinkage_percent);
    const auto farthest = std::max_element(shrinkage.begin(), shrinkage.end(),
                                           [](double a, double b) { return std::abs(a) < std::abs(b); });
    result.validity.push_back(
        {"every reading is of this length", std::abs(*farthest) <= 100.0 * kUnlikelyShare,
         fmt::format(
             "the farthest is {}, drawn {}",
             marked(length_mm[static_cast<std::size_t>(farthest - shrinkage.begin())], Dimension::Length, 5),
             marked(nominal_mm, Dimension::Length, 5))});
    if (result.n < 2)
        result.warnings.emplace_back("one reading tells nothing of its own scatter: measure three times");
    return result;
}

} // namespace inchpeg
