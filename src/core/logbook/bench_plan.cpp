// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/bench_plan.h"

#include "core/logbook/print_record.h"
#include "core/method/method.h"
#include "core/model/print_state.h"
#include "core/model/study_edit.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

namespace inchpeg
{

namespace
{

constexpr double kStartShare = 0.01;
constexpr double kLeastSteps = 10.0;
constexpr double kEndDrop = 0.6;
constexpr double kNearEnd = 0.8;
constexpr double kAtEnd = 0.99;

std::map<PieceId, int> drawnPlaces(const Study &study)
{
    std::map<PieceId, int> places;
    for (const PrintedPlate &plate : study.plan.print.printed) {
        for (const PlacedPiece &placed : plate.pieces)
            places[placed.piece] = placed.testPlace; // of its last print
    }
    return places;
}

} // namespace

std::vector<PieceId> benchOrder(const Study &study, Method test)
{
    const std::map<PieceId, int> places = drawnPlaces(study);
    std::vector<PieceId> order;
    for (const Piece &piece : study.pieces) {
        const bool hasFailed =
            !piece.log.failures.empty(); // most have not, and each look costs a walk over the plates
        const PrintState state = hasFailed ? printState(study, piece) : PrintState::Printed;
        const bool isLost = state == PrintState::Failed || state == PrintState::AwaitsReprint;
        if (piece.test == test && !piece.recording && !piece.exclusion && !isLost)
            order.push_back(piece.id);
    }
    const auto placeOf = [&](PieceId piece) {
        const auto found = places.find(piece);
        return found == places.end() ? std::numeric_limits<int>::max() : found->second;
    };
    std::stable_sort(order.begin(), order.end(),
                     [&](PieceId a, PieceId b) { return placeOf(a) < placeOf(b); });
    return order;
}

std::optional<RecordRule> benchRule(Method test, const std::optional<ExpectedLoad> &load, const RigCard *rig)
{
    const LoadKind kind = factsOf(test).load;
    if ((kind != LoadKind::Force_N && kind != LoadKind::Torque_Nm) || isUnderDeadLoad(test))
        return std::nullopt;
    RecordRule rule;
    const double range = rig == nullptr ? 0.0 : rig->range;
    const double steps = rig == nullptr ? 0.0 : kLeastSteps * rig->resolution;
    const double whole = load && load->value > 0.0 ? load->value : range;
    rule.startAt = std::max({kStartShare * whole, steps, 1e-9});
    rule.stopAfterDrop = kEndDrop;
    return rule;
}

std::optional<double> rangeFromFacts(std::span<const std::string> facts)
{
    for (const std::string &fact : facts) {
        const auto equals = fact.find('=');
        if (equals == std::string::npos || trimmed(std::string_view(fact).substr(0, equals)) != "range")
            continue;
        const std::string_view text = trimmed(std::string_view(fact).substr(equals + 1));
        const std::size_t digits = numberPrefixLength(text);
        const std::optional<double> number = parseTypedNumber(text.substr(0, digits));
        const std::optional<Unit> unit = findUnit(trimmed(text.substr(digits)));
        if (number && unit)
            return unit->toWorking(*number);
    }
    return std::nullopt;
}

RangeState rangeState(double reading, double range)
{
    if (!(range > 0.0))
        return RangeState::Inside;
    const double share = std::abs(reading) / range;
    return share >= kAtEnd ? RangeState::AtEnd : share >= kNearEnd ? RangeState::NearEnd : RangeState::Inside;
}

Status testAgain(Piece &piece, std::string_view reason, std::string_view day)
{
    if (!piece.recording)
        return invalidArgument(fmt::format("piece {} holds no record that would be taken off", piece.code));
    const std::string why = singleSpaced(reason);
    if (why.empty())
        return invalidArgument("say why it is tested again: it slipped in the jaws; the reason is kept");
    setRecording(piece, std::nullopt);
    piece.log.breakLook.clear();
    piece.log.run.reset();
    piece.log.note += fmt::format("{}{} tested again: {}", piece.log.note.empty() ? "" : "\n", day, why);
    return ok();
}

Status printAgain(Study &study, PieceId piece, std::string_view reason, const std::string &who,
                  const std::string &when)
{
    const std::string why = singleSpaced(reason);
    if (why.empty())
        return invalidArgument("say what was wrong with it: meant solid, was hollow; the reason is kept");
    const std::vector<int> plates = platesOf(study, piece);
    if (plates.empty())
        return invalidArgument("the piece is on no printed plate");
    return markFailed(study, piece, {plates.back(), PrintTrouble::Other, why, true, who, when});
}

} // namespace inchpeg
