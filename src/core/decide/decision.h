// SPDX-License-Identifier: GPL-3.0-or-later
// From needs and evidence to an order of the candidates, how sure its first place is, and what to test next.
// Rules: docs/methods.md, "Decide".
#pragma once

#include "core/base/task_runner.h"
#include "core/decide/evidence.h"
#include "core/text/notation.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

enum class GateState {
    Passes,
    Fails,
    Unknown, ///< nothing is known, or what is known is too close to tell
};
std::string_view gateStateName(GateState state); ///< "passes", "fails", "unknown"

/// A candidate at one need.
struct Gate {
    GateState state = GateState::Unknown;
    Evidence evidence;
    /// How far what the gate asks for (of pieces, what they surely reach; where it fails, what they reach at
    /// best) lies on its good side: a share of the gate, in K for temperatures, in grades for grades.
    /// Negative beyond it.
    std::optional<double> margin;
    std::string why; ///< in a sentence
};

struct RankedCandidate {
    Candidate candidate;
    std::vector<Gate> gates; ///< in the order of the needs
    int fails = 0;           ///< musts that it fails
    int unknown = 0;         ///< musts that are not known
    double wishScore = 0.0;  ///< 0 to 1, of the wishes by their weights; 1 where there is none
    double firstShare = 0.0; ///< how often it comes first where values are drawn from what is known
    std::string why;         ///< why it stands where it stands
};

/// What would settle a gate: pieces with which it is settled, either way, in eight of ten cases drawn from
/// what is known.
struct Settling {
    std::size_t need = 0;
    std::size_t candidate = 0; ///< place in the order
    std::optional<Method> test;
    int pieces = 0; ///< in all, those that are there among them; 0 where pieces alone will not settle it
    std::optional<StudyRail> more{}; ///< the rail that further pieces belong on; empty: a study of its own
    int there = 0;                   ///< pieces of it that are there
    std::string why;
};

struct Decision {
    Needs needs;
    std::vector<RankedCandidate>
        order; ///< first those that pass all musts, then the unknown, then those that fail
    std::vector<Settling> settle;
    std::string headline;
    std::vector<std::string> sentences; ///< relaxations, turns of the order by other weights, cautions
};

struct DecisionRequest {
    std::span<const StudyResults> results;
    const Workshop *workshop = nullptr;
    Needs needs;
    int draws = 4000; ///< for the share of first places; 0: not worked out
    std::uint64_t seed = 1;
};

Decision decide(const DecisionRequest &request, const Notation &notation = {});

/// A gate by its evidence; what cannot be told is unknown. money: the unit of prices.
Gate gateOf(const Need &need, Evidence evidence, const Notation &notation = {}, std::string_view money = {});

} // namespace inchpeg
