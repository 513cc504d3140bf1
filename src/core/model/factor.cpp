// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/factor.h"

#include "core/text/letters.h"
#include "core/units/number.h"

#include <algorithm>
#include <numeric>
#include <string>
#include <vector>

namespace inchpeg
{

namespace
{

using namespace factor;

constexpr FactorKind kLibrary[] = {
    {kMaterial, "", ChangedPer::Plate, "low-heat polyester, styrenic",
     "each material has its own best temperature"},
    {kLot, "", ChangedPer::Plate, "Meadow 3, Heather 9", "note the lot of every spool"},
    {kColour, "", ChangedPer::Plate, "natural, black", "a colour is usually another lot as well"},
    {kOrientation, "", ChangedPer::Piece, "flat, standing", "standing pieces are loaded across their layers"},
    {kNozzleTemperature, "°C", ChangedPer::Plate, "230, 240, 250, 260",
     "hotter nozzles push out more: weigh the pieces and compare masses"},
    {kBedTemperature, "°C", ChangedPer::Plate, "60, 80", ""},
    {kChamberTemperature, "°C", ChangedPer::Plate, "25, 45, 60",
     "some machines switch their auxiliary fan off while they heat the chamber"},
    {kChamberMode, "", ChangedPer::Plate, "open, closed, heated",
     "some machines switch their auxiliary fan off while they heat the chamber"},
    {kPartCooling, "%", ChangedPer::Piece, "0, 30, 60",
     "a fan that is set per piece still blows at its neighbours"},
    {kAuxiliaryFan, "%", ChangedPer::Plate, "0, 70", ""},
    {kLayerHeight, "mm", ChangedPer::Piece, "0.12, 0.2, 0.28", "also changes the layer time"},
    {kLayerTime, "s", ChangedPer::Plate, "8, 15, 30", "follows from how many pieces share a layer"},
    {kSpeed, "mm/s", ChangedPer::Piece, "50, 100, 200", "also changes the layer time, unless that is held"},
    {kWalls, "", ChangedPer::Piece, "2, 4, 6", "also changes mass and print time"},
    {kInfill, "%", ChangedPer::Piece, "15, 40, 100", "also changes mass and print time"},
    {kInfillPattern, "", ChangedPer::Piece, "lines, gyroid, honeycomb", "also changes mass and print time"},
    {kNozzleSize, "mm", ChangedPer::Plate, "0.4, 0.6", "also changes line width and walls"},
    {kOneAtATime, "", ChangedPer::Plate, "whole plate, one at a time",
     "changes the layer time of every piece"},
    {kAnnealing, "", ChangedPer::AfterPrint, "as printed, annealed",
     "may shrink or warp: measure the section after it"},
    {kDrying, "", ChangedPer::Plate, "as stored, dried",
     "a wet spool also strings and weighs less per piece"},
    {kConditioning, "", ChangedPer::AfterPrint, "dry, 23 °C and 50 %", ""},
    {kInsertType, "", ChangedPer::AfterPrint, "knurled, straight", ""},
    {kSettingLoad, "N", ChangedPer::AfterPrint, "20, 50", ""},
    {kSettingTemperature, "°C", ChangedPer::AfterPrint, "200, 240", "hot tools: gloves and extraction"},
};

} // namespace

std::string_view changedPerName(ChangedPer changedPer)
{
    switch (changedPer) {
    case ChangedPer::Piece:
        return "piece";
    case ChangedPer::AfterPrint:
        return "after print";
    case ChangedPer::Plate:
        break;
    }
    return "plate";
}

ChangedPer changedPerFrom(std::string_view name)
{
    for (const ChangedPer known : {ChangedPer::Piece, ChangedPer::AfterPrint}) {
        if (changedPerName(known) == name)
            return known;
    }
    return ChangedPer::Plate;
}

std::span<const FactorKind> factorLibrary()
{
    return kLibrary;
}

namespace
{

/// Letters to be put in, taken out or exchanged to make one text of the other (Levenshtein).
std::size_t slipsBetween(std::string_view a, std::string_view b)
{
    std::vector<std::size_t> row(b.size() + 1);
    std::iota(row.begin(), row.end(), std::size_t{0});
    for (std::size_t i = 1; i <= a.size(); ++i) {
        std::size_t diagonal = row[0];
        row[0] = i;
        for (std::size_t j = 1; j <= b.size(); ++j) {
            const std::size_t changed = diagonal + (a[i - 1] == b[j - 1] ? 0U : 1U);
            diagonal = row[j];
            row[j] = std::min({row[j] + 1, row[j - 1] + 1, changed});
        }
    }
    return row.back();
}

constexpr std::size_t kShortName = 6; ///< of which two slips would make another word

} // namespace

const FactorKind *meantFactorKind(std::string_view name)
{
    const std::string typed = smallLetters(trimmed(name));
    if (typed.empty() || findFactorKind(typed) != nullptr)
        return nullptr;
    const FactorKind *meant = nullptr;
    std::size_t fewest = typed.size() < kShortName ? 2 : 3; // fewer than these
    for (const FactorKind &kind : factorLibrary()) {
        const std::size_t slips = slipsBetween(typed, kind.name);
        if (slips < fewest) {
            fewest = slips;
            meant = &kind;
        }
    }
    if (meant != nullptr)
        return meant;
    // The longest kind that the text ends with: what was there before was typed after, not over.
    for (const FactorKind &kind : factorLibrary()) {
        const bool stuck = kind.name.size() >= kShortName && typed.size() > kind.name.size() &&
                           (typed.ends_with(kind.name) || typed.starts_with(kind.name));
        if (stuck && (meant == nullptr || kind.name.size() > meant->name.size()))
            meant = &kind;
    }
    return meant;
}

const FactorKind *findFactorKind(std::string_view name)
{
    const auto found = std::find_if(std::begin(kLibrary), std::end(kLibrary),
                                    [name](const FactorKind &kind) { return kind.name == name; });
    return found == std::end(kLibrary) ? nullptr : found;
}

} // namespace inchpeg
