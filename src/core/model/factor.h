// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <string>
#include <string_view>

namespace inchpeg
{

/// How finely a setting can be changed; what is changed per plate cannot vary between pieces of one plate.
enum class ChangedPer {
    Piece,      ///< each piece of a plate may have its own
    Plate,      ///< one a plate
    AfterPrint, ///< done to the printed piece
};
std::string_view changedPerName(ChangedPer changedPer); ///< "piece", "plate", "after print"
ChangedPer changedPerFrom(std::string_view name);       ///< Plate for an unknown name: the careful choice

/// What a study varies.
struct Factor {
    std::string name;
    std::string unit; ///< empty where the levels are names
    ChangedPer changedPer = ChangedPer::Plate;
    bool operator==(const Factor &) const = default;
};

/// A usual factor or locked setting of printing.
struct FactorKind {
    std::string_view name;
    std::string_view unit;
    ChangedPer changedPer = ChangedPer::Plate;
    std::string_view levels; ///< an example of levels, as typed
    std::string_view remark; ///< what to mind, or empty
};

/// From material to setting temperature; a person may also name their own.
std::span<const FactorKind> factorLibrary();
/// Nothing for a factor of the person's own.
const FactorKind *findFactorKind(std::string_view name);

/// The kind that a name is probably meant to be, where it is none: a slip or two of the keys ("noozle
/// temperature"), or a kind's name with something stuck to it ("materialchamber mode"). Nothing for any other
/// name.
const FactorKind *meantFactorKind(std::string_view name);

namespace factor
{
// Names that rules refer to.
inline constexpr std::string_view kMaterial = "material";
inline constexpr std::string_view kLot = "lot";
inline constexpr std::string_view kColour = "colour";
inline constexpr std::string_view kOrientation = "orientation";
inline constexpr std::string_view kNozzleTemperature = "nozzle temperature";
inline constexpr std::string_view kBedTemperature = "bed temperature";
inline constexpr std::string_view kChamberTemperature = "chamber temperature";
inline constexpr std::string_view kChamberMode = "chamber mode";
inline constexpr std::string_view kPartCooling = "part cooling";
inline constexpr std::string_view kAuxiliaryFan = "auxiliary fan";
inline constexpr std::string_view kLayerHeight = "layer height";
inline constexpr std::string_view kLayerTime = "layer time";
inline constexpr std::string_view kSpeed = "speed";
inline constexpr std::string_view kWalls = "walls";
inline constexpr std::string_view kInfill = "infill";
inline constexpr std::string_view kInfillPattern = "infill pattern";
inline constexpr std::string_view kNozzleSize = "nozzle size";
inline constexpr std::string_view kOneAtATime = "one-at-a-time printing";
inline constexpr std::string_view kAnnealing = "annealing";
inline constexpr std::string_view kDrying = "drying";
inline constexpr std::string_view kConditioning = "conditioning";
inline constexpr std::string_view kInsertType = "insert type";
inline constexpr std::string_view kSettingLoad = "setting load";
inline constexpr std::string_view kSettingTemperature = "setting temperature";
} // namespace factor

} // namespace inchpeg
