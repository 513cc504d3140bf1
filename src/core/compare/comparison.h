// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/difference_that_matters.h"
#include "core/model/study.h"
#include "core/reading/piece_reading.h"
#include "core/stats/robust.h"
#include "core/stats/simultaneous.h"
#include "core/stats/summary.h"
#include "core/stats/two_groups.h"

#include <optional>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// One piece's value of the compared property.
struct PieceValue {
    PieceId piece;
    double value = 0.0;
    bool atLeast = false;  ///< a lower bound
    bool unbroken = false; ///< … for another reason than the gauge: it had not broken, or was still holding
    bool leftOut = false;  ///< by a person; shown but not counted
    bool isApart = false;  ///< of another kind of break than most of the rail; shown but not counted

    [[nodiscard]] bool counts() const { return !leftOut && !isApart; }
};

/// A piece and the one of the reference with the same place on its rail; both count.
struct PiecePair {
    PieceId piece;
    double before = 0.0; ///< the reference's value
    double after = 0.0;
};

/// What the effect of a rail says where bounds are among the values: taken at face value they make it
/// smaller, or larger, than it is.
enum class EffectBound {
    None,
    AtLeast, ///< bounds on the rail: the truth lies above
    AtMost,  ///< bounds on the reference: the truth lies below
};

/// How the grades of a rail compare with those of the reference: by their order alone.
struct GradeComparison {
    double better = 0.5;   ///< share of the pairs in which this rail's piece is graded higher, ties half
    double p = 1.0;        ///< of ranks as far apart by dealing the grades out anew (exact for small rails)
    double adjusted = 1.0; ///< the same with all rails that are compared counted (Holm 1979)
};

/// How a rail compares with the reference rail. Differences are rail minus reference.
struct RailComparison {
    ConditionId condition;
    std::vector<PieceValue> values;
    /// Of the values that count, bounds taken at face value. Grades have no mean: their median stands in its
    /// place, without scatter and interval; words have neither.
    Summary summary;
    Summary breakingForce;                       ///< of the same pieces, in N
    std::size_t bounds = 0;                      ///< how many of those are lower bounds
    BoundReason boundReason = BoundReason::None; ///< of the first of them
    std::size_t unbroken = 0; ///< how many bounds are pieces that had not broken when their record ended
    std::size_t unread = 0;   ///< pieces with a record that could not be read, or not this property
    std::size_t open = 0;     ///< pieces without a record
    std::size_t given = 0;    ///< of the values that count: of a table of results
    /// Where no piece of it counts and a summary is known: `summary` is that one then, and there are no
    /// values.
    std::optional<RailSummary> told{};
    bool isReference = false;
    std::vector<PiecePair> pairs; ///< where the study compares before and after
    std::string kind;             ///< how most of its pieces broke; empty where the test tells no kinds
    std::size_t apart = 0;        ///< pieces of another kind, which are not averaged with these

    // Empty for the reference, where a group has fewer than two values, where bounds are on both sides, and
    // where nothing varies.
    std::optional<Effect> effect; ///< beside the reference: what is claimed, and its interval
    EffectBound effectBound = EffectBound::None;
    /// Where bounds are on either side: the effect with each counted as the bound it is, by maximum
    /// likelihood.
    std::optional<Effect> countingBounds;
    std::optional<GradeComparison> grades; ///< of grades, in place of an effect
    /// Difference that these pieces show 4 times in 5, upwards: a fraction of the reference's mean.
    std::optional<double> detectable;

    // What other schools say of it; only with ComparisonDetail::Tests.
    std::optional<double> familyP;      ///< of the effect, all comparisons counted
    std::optional<TTest> welch;         ///< by itself, own variances
    std::optional<double> welchHolm;    ///< the same, adjusted over all rails that are compared
    std::optional<MannWhitney> ranks;   ///< no shape of scatter taken for granted
    std::optional<TrimmedTest> trimmed; ///< Yuen's, a stray value does not decide
    std::optional<Estimate> hedgesG;
    std::optional<Estimate> ratio; ///< to the reference's mean, Fieller's interval

    /// The flat-printed rail of the same material and the same other levels that it is held against; where
    /// there is only one flat rail of the material, that one.
    std::optional<ConditionId> flatRail;
    bool flatRailDiffers = false; ///< in other levels than the orientation
    std::optional<Estimate> shareOfFlat;
};

/// How the rails of a study were compared.
struct ComparisonProcedure {
    Comparison comparison = Comparison::AgainstReference;
    Spread spread = Spread::Common;
    std::size_t rails = 0;         ///< the reference among them
    double scatter = 0.0;          ///< common sd of single values, a share of the mean for ratios
    double df = 0.0;               ///< that it is known from
    std::optional<double> spreadP; ///< of equal spreads, Bartlett's
    bool isOwnBySizes = false;     ///< own scatter since the rails have uneven numbers of pieces
};

/// A look at the results while pieces are still whole, where the plan allows looks: see PieceAim::looks.
struct Look {
    int pieces = 0;  ///< counted on the rail that has fewest of those compared
    int planned = 0; ///< a rail, spares not among them
    Spending spending = Spending::OBrienFleming;
    double level = 0.0; ///< two-sided, at which a difference counts at this look
};

/// Whether a rail's effect is known to both sides, or it is a reference without bounds; of a rail whose
/// pieces are here.
bool isFullyCompared(const RailComparison &rail);

struct StudyComparison {
    Property property;
    double confidence = PieceAim{}.confidence;
    std::vector<RailComparison> rails;            ///< in the study's order
    std::optional<ComparisonProcedure> procedure; ///< nothing where no two rails can be compared
    std::optional<Look> look;                     ///< where the plan allows looks
    bool asRatio = true;                          ///< effects are ratios of means, else differences
    DifferenceThatMatters matters{};              ///< beside the reference as it was measured

    /// A trend was asked for and none is shown, nor that any rail differs: docs/methods.md, "One family".
    bool isHeldBack = false;

    /// What the answer to the question must stand up to: the confidence, at a look so much more that all
    /// looks together keep it.
    [[nodiscard]] double askedConfidence() const { return look ? 1.0 - look->level : confidence; }
    /// What any other claim must stand up to: the same, or ten times as surely where it is held back.
    [[nodiscard]] double claimConfidence() const
    {
        constexpr double kHeldBack = 10.0;
        return isHeldBack ? 1.0 - (1.0 - askedConfidence()) / kHeldBack : askedConfidence();
    }
};

/// The family that a study's comparisons make: what was asked; two rails are one rail and the reference.
Comparison familyOf(const Study &study);

/// How much of a comparison is wanted: the values and summaries of the rails alone, what their sentences need
/// as well, or every test behind them too.
enum class ComparisonDetail { Values, Sentences, Tests };

/// What is compared: the values themselves, or each over its piece's mass in g; pieces without a mass do not
/// count then.
enum class ComparisonBasis { Value, PerGram };

struct ComparisonRequest {
    std::optional<Method> test{}; ///< one of the study's; empty: the first
    ComparisonDetail detail = ComparisonDetail::Tests;
    ComparisonBasis basis = ComparisonBasis::Value;
};

/// Compares a property over the rails of a study, all with one procedure: see core/stats/simultaneous.h.
/// property: of the test asked for. The confidence is that of the plan. Rails that were printed in another
/// orientation than the reference are summarised but not tested against it (a flat piece answers another
/// question).
StudyComparison compareStudy(const Study &study, const PieceReadings &readings, const Property &property,
                             const ComparisonRequest &asked = {});

/// Scatter of a property within the rails: the square root of the mean of cv² weighted by n - 1, over rails
/// with at least leastPieces values and no bounds. Nothing with fewer than leastRails such rails.
std::optional<double> pooledCv(const Study &study, const PieceReadings &readings, const Property &property,
                               std::size_t leastPieces, std::size_t leastRails);

/// The property by which a study is judged unless the person chooses another.
inline constexpr std::string_view kUsualProperty = "tensile_strength";

} // namespace inchpeg
