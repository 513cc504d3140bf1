// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/ids.h"
#include "core/model/design.h"
#include "core/stats/power.h"
#include "core/stats/spending.h"

#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// A setting that is held in all conditions.
struct LockedSetting {
    std::string name; ///< of the factor library, or the person's own
    std::string value;
    bool operator==(const LockedSetting &) const = default;
};

/// What the number of pieces is judged by.
struct PieceAim {
    Comparison comparison = Comparison::AgainstReference;
    double confidence = 0.95;
    double power = 0.80;
    std::optional<double> cv; ///< scatter set by the person; empty: of own pieces, else usual for the method
    /// Of plates about their rail, as a share of the mean; empty: assumed (core/planning/plate_power).
    std::optional<double> plateCv{};
    /// The smallest difference as an absolute value in the property's unit; empty: Study::smallestDifference
    /// stands as a share of the reference.
    std::optional<double> absoluteDifference;
    int spares = 0; ///< of the pieces of each condition, for expected failures
    /// How claims are kept honest where results are looked at while pieces are still whole; empty: they are
    /// looked at when all are broken.
    std::optional<Spending> looks;
    bool operator==(const PieceAim &) const = default;
};

/// What the slicer says of one piece of a condition.
struct SlicerFigure {
    std::optional<double> grams;
    std::optional<double> minutes;
    bool operator==(const SlicerFigure &) const = default;
};

/// A piece on its plate, seen from above, the plate's front left corner at the origin.
struct PlacedPiece {
    PieceId piece;
    double x_mm = 0.0; ///< of the lower left corner of its footprint
    double y_mm = 0.0;
    double width_mm = 0.0; ///< of the footprint
    double depth_mm = 0.0;
    int testPlace = 0; ///< its place in the order of testing, from 1
    bool operator==(const PlacedPiece &) const = default;
};

/// A plate that is printed: it stays as it is whatever is planned afterwards.
struct PrintedPlate {
    int number = 0;
    int round = 1;
    std::string printedAt; ///< ISO 8601, UTC
    std::vector<PlacedPiece> pieces;
    bool operator==(const PrintedPlate &) const = default;
};

struct PrintPlan {
    std::string printer;    ///< name in the workshop; empty: its first
    std::uint64_t seed = 1; ///< of the order of printing and testing
    int rounds = 1;         ///< in how many rounds the pieces are printed; each holds its share of every rail
    double gap_mm = 8.0;    ///< between pieces on a plate
    std::map<ConditionId, SlicerFigure> slicer;
    std::vector<PrintedPlate> printed; ///< in order of their numbers
    bool operator==(const PrintPlan &) const = default;
};

struct DatePlan {
    std::string start; ///< "2026-11-30"; empty: not dated yet
    bool dry = true;
    std::optional<double> conditioning_h; ///< empty: usual for the material
    bool operator==(const DatePlan &) const = default;
};

/// A line of the record of changes to a plan that has begun.
struct PlanNote {
    std::string when; ///< ISO 8601, UTC
    std::string who;
    std::string text;
    bool operator==(const PlanNote &) const = default;
};

/// A caution that a person has confirmed.
struct Confirmation {
    std::string caution; ///< key
    std::string who;
    std::string when;
    bool operator==(const Confirmation &) const = default;
};

/// Everything that is planned about a study beyond its question, factors and rails.
struct Plan {
    DesignKind design = DesignKind::Chosen;
    std::vector<std::string> generators; ///< of a fraction
    std::vector<LockedSetting> locked;
    PieceAim aim;
    PrintPlan print;
    DatePlan dates;
    std::vector<Confirmation> confirmed;
    std::vector<PieceId> addedLater; ///< pieces planned after the first plate was printed
    std::vector<PlanNote> record;
    bool operator==(const Plan &) const = default;
};

/// The plan as one JSON object, keys in a fixed order: docs/plan_format.md. What stands at its default is
/// left out, so that an empty plan is "{}".
std::string planText(const Plan &plan);
/// Errors: BadInput, with the key, for a text that is no plan.
Result<Plan> planFromText(std::string_view text);

} // namespace inchpeg
