// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/print_state.h"
#include "core/model/study.h"
#include "core/planning/plates.h"

#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A setting of a plate: what the plan says and what really was.
struct ComparedSetting {
    std::string name;
    std::string planned; ///< empty: the plan says nothing
    std::string real;    ///< empty: not logged
    bool differs = false;
    std::optional<DifferenceAnswer> answer;
    /// True for a difference that nobody was asked about yet.
    [[nodiscard]] bool isOpen() const { return differs && !answer; }
};

/// The number that a setting begins with ("60 °C" is 60); nothing where it begins with none.
std::optional<double> leadingNumber(std::string_view text);

/// The settings of a plate: those that the plan names (locked ones, and levels that all its pieces share),
/// then those that were only logged. Numbers are compared as numbers ("250" is "250.0 °C"), texts without
/// case.
std::vector<ComparedSetting> comparedSettings(const Study &study, const Plate &plate);

/// Logs a setting as it really was; an empty value takes it away. An answer about another value goes.
/// Errors: InvalidArgument without a name.
Status logSetting(Study &study, int plate, const std::string &name, const std::string &value);
/// Answers whether a difference was meant. Errors: NotFound where that setting is not logged.
Status answerDifference(Study &study, int plate, const std::string &name, const DifferenceAnswer &answer);

/// Settings from the comment header of a G-code file: lines "; key = value". Keys that mean a setting of the
/// factor library get its name ("nozzle_temperature", "temperature" … "nozzle temperature"); others are left
/// out. Mass and time of the slicer are taken where they are named with their unit.
struct HeaderSettings {
    std::vector<RealSetting> settings;
    std::optional<double> grams;
    std::optional<double> minutes;
};
/// Errors: BadInput for a text without a single such comment.
Result<HeaderSettings> settingsFromHeader(std::string_view text);

/// "2:05:30", "1h 20m 5s" or "95 min" in minutes; nothing for anything else.
std::optional<double> minutesFrom(std::string_view text);

/// Errors: InvalidArgument for times that are none, or an end before the start.
Status checkPlateRecord(const PlateRecord &record);

/// A piece on a printed plate failed. A piece that is to be printed again is laid out on a new plate.
/// Errors: InvalidArgument where it is on no printed plate, failed there already, or holds a record.
Status markFailed(Study &study, PieceId piece, PrintFailure failure);
/// Takes the last failure of a piece back. Errors: InvalidArgument where there is none, or the piece is on a
/// later plate by now.
Status unmarkFailed(Study &study, PieceId piece);

} // namespace inchpeg
