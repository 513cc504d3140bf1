// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/ids.h"
#include "core/base/result.h"
#include "core/import/mapping.h"
#include "core/model/calibration.h"
#include "core/model/factor.h"
#include "core/model/plan.h"
#include "core/model/study_log.h"
#include "core/model/study_test.h"
#include "core/specimen/section.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

enum class SectionShape { Rectangular, Round, PlainArea };

/// What is known of a rail without its pieces: from a sheet, a paper, another laboratory.
struct RailSummary {
    Method test = Method::Tension;
    std::string property;        ///< of that test
    double mean = 0.0;           ///< in the property's working unit
    std::optional<double> sd{};  ///< of single pieces
    std::optional<int> pieces{}; ///< how many it is the mean of
    std::string source;          ///< where it comes from
    std::string who{};
    std::string when{}; ///< ISO 8601, UTC
    bool operator==(const RailSummary &) const = default;

    /// Without both it is shown and never tested.
    [[nodiscard]] bool canBeTested() const { return sd && pieces && *pieces >= 2; }
};

/// A combination of levels; on the screen it is a rail.
struct Condition {
    ConditionId id;
    std::vector<std::string> levels; ///< one for each factor: a number in its unit, or a name
    Orientation orientation = Orientation::Flat;
    std::string material;
    std::vector<RailSummary> summaries{}; ///< at most one of each property of each test
    bool operator==(const Condition &) const = default;
};

/// Why a piece does not count, said by a person.
struct Exclusion {
    std::string reason;
    std::string who;
    std::string when; ///< ISO 8601, UTC
    bool operator==(const Exclusion &) const = default;
};

/// Where a person placed a marker, and why.
struct HandMarker {
    /// See MarkerPlace. Empty for one that the person says is none.
    std::optional<double> at;
    std::string reason;
    std::string who;
    std::string when; ///< ISO 8601, UTC
    bool operator==(const HandMarker &) const = default;
};
using HandMarkers = std::map<std::string, HandMarker, std::less<>>; ///< by name, see MarkerKind

/// Which raw file holds a piece's record, and how a person corrected the reading of its columns.
struct Recording {
    RawFileId file;
    ColumnMapping mapping;            ///< empty: as found in the file
    std::optional<UsedGauge> gauge{}; ///< what it was recorded with; empty: not known
    bool operator==(const Recording &) const = default;
};

/// One specimen; on the screen it is a peg.
struct Piece {
    PieceId id;
    ConditionId condition;
    std::string code;               ///< written on the piece, unique in the study
    std::optional<Section> section; ///< as measured; follows from the log's readings where there are some
    std::optional<Recording> recording;
    std::optional<Exclusion> exclusion;
    HandMarkers markers;           ///< of its record; empty: all as found
    Method test = Method::Tension; ///< one of the study's tests
    PieceLog log{};
    bool operator==(const Piece &) const = default;
};

/// True where the piece's values stand in a table of results: they are given, not read from a record.
bool isGiven(const Piece &piece);

struct Study {
    StudyId id;
    std::string question; ///< a sentence
    /// At least one, each method once. The question is asked of the first; it is shown first.
    std::vector<StudyTest> tests{StudyTest{}};
    std::vector<Factor> factors{Factor{}}; ///< one to kMostFactors
    std::vector<Condition> conditions;
    ConditionId reference;
    double smallestDifference = 0.10; ///< that would change the decision, a fraction of the reference
    SectionShape sectionShape = SectionShape::Rectangular;
    std::vector<Piece> pieces; ///< by condition, in order of their numbers
    Plan plan;
    StudyLog log;
    bool operator==(const Study &) const = default;
};

std::string_view sectionShapeName(SectionShape shape); ///< "rectangular", "round", "area"

/// Of a property of a test; nullptr where nothing is known of it but by pieces.
const RailSummary *findSummary(const Condition &condition, Method test, std::string_view property);

const Condition *findCondition(const Study &study, ConditionId id);
const Piece *findPiece(const Study &study, PieceId id);
Piece *findPiece(Study &study, PieceId id);

/// The pieces of a condition, in order.
std::vector<const Piece *> piecesOf(const Study &study, ConditionId condition);

/// "230 °C" or "black lot", "250 °C · fan 0 %" with several factors: the levels with their units. A level
/// that says nothing without its factor's name ("0 %", "off", "yes") has the name before it.
std::string levelText(const Study &study, const Condition &condition);

/// The level of one factor, with its unit: "230 °C".
std::string levelText(const Factor &factor, const std::string &level);

/// The test that the question is asked of.
const StudyTest &firstTest(const Study &study);
StudyTest &firstTest(Study &study);
/// The method of the first test.
Method methodOf(const Study &study);
/// nullptr where the study has no such test.
const StudyTest *findTest(const Study &study, Method method);
StudyTest *findTest(Study &study, Method method);
bool isOfFirstTest(const Study &study, const Piece &piece);

/// True where flat and standing pieces are in the same study.
bool mixesOrientations(const Study &study);

/// What tells a condition from the others: its levels, and where another condition has the same levels the
/// orientation or the material in brackets: "250 °C (standing)".
std::string distinctTitle(const Study &study, const Condition &condition);

/// The levels, with "flat" added where the study mixes orientations.
std::string railTitle(const Study &study, const Condition &condition);

/// The markers that a person placed on a piece's record, in the order of its test; names that the test does
/// not have (it was another when they were placed) at the end.
std::vector<std::pair<std::string_view, const HandMarker *>> handMarkersOf(const Piece &piece);
/// True for a marker of any test.
bool isKnownMarker(std::string_view name);

} // namespace inchpeg
