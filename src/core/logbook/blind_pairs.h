// SPDX-License-Identifier: GPL-3.0-or-later
// Comparing pieces two at a time by feel, without knowing what they are. docs/methods.md, "Pairs by feel".
#pragma once

#include "core/base/ids.h"
#include "core/base/result.h"

#include <cstddef>
#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

enum class PairAnswer { Left, Even, Right };

struct AskedPair {
    PieceId left;
    PieceId right;
    bool isAgain = false; ///< the same two were asked for before, the other way round
    std::optional<PairAnswer> answer;
    bool operator==(const AskedPair &) const = default;
};

/// A round of pairs in the order in which they are asked for.
struct BlindPairs {
    std::vector<AskedPair> asked;
    bool operator==(const BlindPairs &) const = default;
};

/// What is done to the pieces, and so how often one can be asked for.
enum class PairManner {
    Bent,   ///< none breaks: each piece meets up to four others, and every pair comes twice
    Broken, ///< each piece is in one pair, once; of an odd number one is left over
};

/// Which pieces meet is drawn without regard to their rails, so that rails that do not differ can be told
/// apart by luck alone; every piece meets as many others as the next (a ring in a drawn order, each with its
/// two neighbours on either side).
BlindPairs drawBlindPairs(std::vector<PieceId> pieces, PairManner manner, std::uint64_t seed);

/// The pair that is asked for next, as an index; nothing once all are answered.
std::optional<std::size_t> nextPair(const BlindPairs &pairs);
std::size_t pairsAnswered(const BlindPairs &pairs);

/// How a piece did in the pairs that were answered.
struct PairCounts {
    int won = 0;
    int even = 0;
    int lost = 0;
    int askedAgain = 0; ///< pairs that were answered twice
    int changed = 0;    ///< of these, how many were answered otherwise the second time
    bool operator==(const PairCounts &) const = default;
};
PairCounts countsOf(const BlindPairs &pairs, PieceId piece);

/// The pieces that are in a pair.
std::vector<PieceId> piecesOf(const BlindPairs &pairs);

/// Takes out the pairs of a piece that cannot be asked for any more: it was voided or has its record.
void keepOnly(BlindPairs &pairs, const std::function<bool(PieceId)> &isStillThere);

/// As one JSON array, kept as a setting of the project: docs/project_format.md.
std::string blindPairsText(const BlindPairs &pairs);
/// Errors: BadInput.
Result<BlindPairs> blindPairsFromText(std::string_view text);

} // namespace inchpeg
