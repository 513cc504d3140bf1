// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/stats/many_groups.h"

#include <optional>
#include <span>
#include <vector>

namespace inchpeg
{

struct PlateauRule {
    bool preferLow = true; ///< the lowest of the levels that may be best, else the highest
    bool largerIsBetter = true;
    double confidence = 0.95;
};

/// The preferred end of the levels that are not told from the best: the coolest of the strongest.
struct Plateau {
    std::size_t best = 0;              ///< by its mean
    std::optional<std::size_t> chosen; ///< nothing where no level varies
    std::vector<BestLevel> levels;     ///< Hsu's comparison with the best, in the order of the groups
};

/// groups: of each x its values of y, none empty; x: one a group, all different.
/// Errors: TooFewPoints with fewer than two.
Result<Plateau> findPlateau(std::span<const double> x, std::span<const Group> groups,
                            const PlateauRule &rule);

} // namespace inchpeg
