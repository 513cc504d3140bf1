// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// How the chance of a false claim is spent on looks at the data while pieces are still whole.
enum class Spending {
    OBrienFleming, ///< next to nothing at first, nearly all at the end
    Pocock,        ///< about alike at each look
};
std::string_view spendingName(Spending spending); ///< as kept in files: "strict first", "alike"
std::optional<Spending> spendingFrom(std::string_view name);

/// Two-sided levels at which a difference counts at each look, so that over all looks a difference that is
/// not there is claimed with the chance alpha.
///
/// information: share of all values that each look sees, growing, above 0, the last at most 1. A look at 1
/// spends all that is left. Source: Lan and DeMets (1983), Biometrika 70, 659: spending functions
/// 4 - 4 Φ(z(α/4)/√t), that of either side twice, and α ln(1 + (e - 1) t), with the recursive integral of
/// Armitage, McPherson and Rowe (1969), J. R. Stat. Soc. A 132, 235. Known scatter is taken; that levels of t
/// tests keep the error nearly as well is shown in docs/validation.md. Right to 1e-6 relative.
std::vector<double> levelsOfLooks(std::span<const double> information, double alpha, Spending spending);

/// The same for looks after each piece a rail from the second to the last of so many, remembered: first the
/// level with two pieces. None is below 1e-8. pieces: 2 or more.
std::span<const double> levelsOfEachPiece(int pieces, double alpha, Spending spending);

/// Those at which comparisons by t are held, the scatter being estimated anew at each look: a fifth of the
/// chance is kept back (ours), since the levels are those of a known scatter; docs/validation.md shows what
/// is left.
std::span<const double> levelsOfStudyLooks(int pieces, double alpha, Spending spending);

} // namespace inchpeg
