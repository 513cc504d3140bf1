// SPDX-License-Identifier: GPL-3.0-or-later
// Who could be chosen, and what is known of each for one need: measured here, on a data sheet, usual for the
// polymer, or nothing. Two kinds are never mixed into one number.
#pragma once

#include "core/compare/study_values.h"
#include "core/decide/needs.h"
#include "core/model/workshop.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A study with what was read of its pieces. Both must outlive what is made from them.
struct StudyResults {
    const Study *study = nullptr;
    const PieceReadings *readings = nullptr;
    bool isOfLibrary = false; ///< of another project, whose ids are its own
    /// Of a study that others are only held beside: what its rails came to. Its pieces and readings are not
    /// at hand then.
    const StudyValues *values = nullptr;

    /// Rails without a piece of their own that counts are left out. property: one that has a mean.
    [[nodiscard]] std::vector<RailValues> railValues(Method test, const Property &property) const;
};

/// A rail of one of the studies.
struct CandidateRail {
    std::size_t study = 0; ///< place among the results
    ConditionId condition;
};

/// A material with its print condition.
struct Candidate {
    std::string name; ///< "glycol-modified polyester, lot Heather 7 · nozzle temperature 250 °C"
    std::string material;
    std::vector<CandidateRail> rails; ///< empty: nothing was tested
    std::optional<double> quote{};    ///< price of a bought part
};

/// The rails of all studies, those of the same material and levels together, but apart where their studies
/// held a setting (or the printer) fixed at different values; a level that only names the material again
/// (polymer, lot, colour, orientation) makes no candidate of its own. Materials without a rail follow.
std::vector<Candidate> candidatesOf(std::span<const StudyResults> results, const Needs &needs);

enum class EvidenceKind { Measured, Sheet, Usual, None };
std::string_view evidenceName(EvidenceKind kind); ///< "measured", "sheet", "usual", "none"

struct StudyRail {
    StudyId study;
    ConditionId condition;
};

/// The pieces that a gate is judged by: all that are known, or those of the weakest study where there are
/// several.
struct PieceSample {
    double mean = 0.0;
    double sd = 0.0;
    std::size_t n = 0;
};

/// What a gate asks of a sample: of single pieces what nine in ten bear, else the mean. How surely it keeps
/// to a value is told from both sides.
struct SampleBounds {
    double sure = 0.0;   ///< 95 % sure at least so good
    double atBest = 0.0; ///< 95 % sure no better than this
};
/// Nothing with fewer pieces than can tell. at least two pieces with scatter.
std::optional<SampleBounds> boundsOfSample(const PieceSample &sample, const NeedTarget &target);

struct Evidence {
    EvidenceKind kind = EvidenceKind::None;
    std::optional<double> value;         ///< mean of the pieces, or what sheet and custom say; working unit
    std::optional<double> sure;          ///< the bound that the gate is held against, where pieces allow one
    std::optional<double> atBest;        ///< the other side of it: no better than this, 95 % sure
    std::string sureOf;                  ///< "the mean, 95 % sure", "nine in ten pieces, 95 % sure"
    std::optional<PieceSample> judged;   ///< what sure is of
    std::optional<StudyRail> judgedRail; ///< where these pieces hang; empty for another project's
    std::size_t n = 0;                   ///< pieces
    double sd = 0.0;                     ///< of single pieces
    std::optional<Interval> ci;          ///< of the mean
    bool isBound = false;                ///< values are "at least"
    bool isBeyondData = false;           ///< creep: asked for a later time than was read
    std::string study;                   ///< question of the study, or "data sheet", "usual for …"
    std::string method;
    std::string note; ///< what must be known with it
};

/// The best that is known of a candidate for a need: own results before a sheet, a sheet before what is
/// usual.
Evidence evidenceFor(const Candidate &candidate, const Need &need, std::span<const StudyResults> results,
                     const Workshop &workshop);

} // namespace inchpeg
