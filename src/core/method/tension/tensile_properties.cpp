// SPDX-License-Identifier: GPL-3.0-or-later
// What a tensile result holds, in words: the one list that windows, files and the command line go by.
#include "core/method/tension/tensile.h"

#include <fmt/format.h>

#include <array>

namespace inchpeg
{

namespace
{

constexpr std::array kProperties = {
    TensileProperty{"tensile_modulus", "Modulus", Dimension::Stress,
                    "Least-squares slope of stress over strain in the modulus range, 0.05 % to 0.25 % strain "
                    "unless set otherwise, after the toe (ISO 527-1)",
                    &TensileResult::tensileModulus_MPa, false},
    TensileProperty{
        "yield_stress", "Yield stress", Dimension::Stress,
        "Stress at the first maximum after which strain grows while stress falls or stays (ISO 527-1)",
        &TensileResult::yieldStress_MPa, false},
    TensileProperty{"yield_strain", "Yield strain", Dimension::Ratio,
                    "Strain at the yield stress (ISO 527-1)", &TensileResult::yieldStrain, false},
    TensileProperty{
        "offset_yield_stress", "Offset yield stress", Dimension::Stress,
        "Stress where the record meets the modulus line shifted by the offset, 0.2 % strain unless "
        "set otherwise",
        &TensileResult::offsetYieldStress_MPa, false},
    TensileProperty{
        "tensile_strength", "Strength", Dimension::Stress,
        "Stress at the first local maximum clear of the noise, else the largest stress (ISO 527-1)",
        &TensileResult::tensileStrength_MPa, true},
    TensileProperty{"strain_at_strength", "Strain at strength", Dimension::Ratio,
                    "Strain at the tensile strength (ISO 527-1)", &TensileResult::strainAtStrength, true},
    TensileProperty{
        "stress_at_break", "Stress at break", Dimension::Stress,
        "Stress at the upper end of the fall by which the piece broke, else at the end of the record",
        &TensileResult::stressAtBreak_MPa, true, true},
    TensileProperty{"strain_at_break", "Strain at break", Dimension::Ratio,
                    "Strain at the break, toe taken off", &TensileResult::strainAtBreak, true, true},
    TensileProperty{"energy_to_break", "Energy to break", Dimension::Energy,
                    "Area under force over extension to the break", &TensileResult::energyToBreak_J, true,
                    true},
    TensileProperty{"toughness", "Toughness", Dimension::EnergyDensity,
                    "Area under stress over strain to the break", &TensileResult::toughness_MJ_per_m3, true,
                    true},
    TensileProperty{"toe_strain", "Toe", Dimension::Ratio,
                    "Strain taken off so that the steepest initial straight part meets the origin",
                    &TensileResult::toeStrain, false},
    TensileProperty{"peak_force", "Breaking force", Dimension::Force,
                    "Largest force of the record, lone spikes left out", &TensileResult::peakForce_N, true},
};

} // namespace

std::span<const TensileProperty> tensileProperties()
{
    return kProperties;
}

bool isLowerBound(const TensileProperty &property, const TensileResult &result)
{
    return (property.boundByGauge && result.atLeast) || (property.boundByBreak && !result.markers.broke);
}

Result<TensileProperty> tensileProperty(std::string_view name)
{
    std::string known;
    for (const TensileProperty &property : kProperties) {
        if (property.name == name)
            return property;
        known += (known.empty() ? "" : ", ") + std::string(property.name);
    }
    return Error{
        ErrorCode::NotFound, fmt::format("there is no property \"{}\"; known are {}", name, known), {}};
}

} // namespace inchpeg
