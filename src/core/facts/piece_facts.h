// SPDX-License-Identifier: GPL-3.0-or-later
// What each piece had, from plan, log and record together: gathered once, for whatever is said about causes.
#pragma once

#include "core/model/study.h"
#include "core/reading/piece_reading.h"

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// What stands behind a value: what was seen goes before what was meant.
enum class KnownFrom { Plan, Log, Record };

/// What a piece had of one setting.
struct HadSetting {
    std::string text;             ///< as it was written, "60 °C", "lot 7"
    std::optional<double> number; ///< where it is one; its unit is that of the others of this setting
    KnownFrom from = KnownFrom::Plan;
};

/// One piece: what it was printed from and on, and how it was tested.
struct PieceFacts {
    PieceId piece;
    ConditionId rail;
    std::map<std::string, HadSetting, std::less<>> settings; ///< by name; none of a factor of the study
};

/// Names of what is known of a piece beyond the settings of plan and plates.
namespace had
{
inline constexpr std::string_view kPrinter = "printer";
inline constexpr std::string_view kSpool = "spool";
inline constexpr std::string_view kDay = "day of printing";
inline constexpr std::string_view kGauge = "gauge";
inline constexpr std::string_view kHeatingRate = "heating rate";
inline constexpr std::string_view kStrainRate = "strain rate";
inline constexpr std::string_view kReadTo = "time under load";
} // namespace had

/// One row a piece of this test that counts: printed, or with a record, and not left out; of all tests where
/// none is given. What is planned and left empty in the log of a plate is taken as planned, a setting that is
/// logged as it was. A step (drying, conditioning, annealing) that is logged for some plates alone is "not
/// logged" for the others. readings: for what follows from records; may be null.
std::vector<PieceFacts> pieceFacts(const Study &study, std::optional<Method> test = {},
                                   const PieceReadings *readings = nullptr);

/// "60 °C" and "60.0" are one setting: the number that a text is, with or without a unit.
std::optional<double> settingNumber(std::string_view text);

} // namespace inchpeg
