// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/warp/warp.h"

#include "core/method/sizes.h"
#include "core/stats/summary.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr std::size_t kCorners = 4;

} // namespace

Result<WarpResult> reduceWarp(std::span<const double> lift_mm, const std::optional<Length> &diagonal)
{
    if (diagonal) {
        if (const Status status = checkSizes({{"diagonal", *diagonal}}); !status)
            return status.error();
    }
    if (lift_mm.empty())
        return Error{ErrorCode::TooFewPoints, "the record holds no lift", {}};
    for (std::size_t i = 0; i < lift_mm.size(); ++i) {
        if (!(lift_mm[i] >= 0.0))
            return badInput(fmt::format(
                "corner {} is {:g} mm; its height above the plate, 0 or more, is wanted", i + 1, lift_mm[i]));
    }
    WarpResult result;
    result.largest_mm = *std::max_element(lift_mm.begin(), lift_mm.end());
    result.mean_mm = meanOf(lift_mm);
    if (diagonal)
        result.share = result.largest_mm / in_mm(*diagonal);
    result.validity.push_back({"all four corners are read", lift_mm.size() >= kCorners,
                               fmt::format("{} read; one corner may lift alone", lift_mm.size())});
    return result;
}

} // namespace inchpeg
