// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/decide/evidence.h"
#include "core/text/notation.h"

#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

/// What a service trial is worth beside the rest that is known: of each rail how its parts fared, what
/// coupons of the same material hold (flat in tension, standing across the layers; of the polymer where no
/// coupon is of that very material), and what one costs to print or to buy. A last sentence tells in how many
/// pairs of rails the order of the coupons and of the users' confidence agree. Empty of a study without a
/// service trial that has records. all: results of all studies; bought: parts with a price, found by their
/// names.
std::vector<std::string> serviceTies(const Study &study, const PieceReadings &readings,
                                     std::span<const StudyResults> all, const Workshop &workshop,
                                     std::span<const BoughtPart> bought, const Notation &notation);

} // namespace inchpeg
