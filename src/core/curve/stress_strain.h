// SPDX-License-Identifier: GPL-3.0-or-later
// Stress over strain, whatever the test: tension and bending differ in how force and travel become stress and
// strain, not in how the curve is read. Definitions: docs/methods.md, sections "Tension" and "Bending".
#pragma once

#include "core/base/result.h"
#include "core/curve/check.h"
#include "core/curve/landmarks.h"
#include "core/units/quantity.h"

#include <cstddef>
#include <functional>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

/// Markers that a person placed instead of those found in the record.
struct MarkerOverrides {
    std::optional<double> modulusFrom; ///< strain after the toe
    std::optional<double> modulusTo;
    std::optional<double> toeStrain; ///< taken off every strain
    std::optional<std::size_t> strength;
    std::optional<std::size_t> yield;
    bool noYield = false; ///< the person sees none
    std::optional<std::size_t> lastBeforeBreak;
    bool operator==(const MarkerOverrides &) const = default;
};

/// How a curve is read.
struct StressStrainRules {
    bool toeCorrection = true;
    double lowStrain = 0.0005;  ///< the modulus is fitted from here …
    double highStrain = 0.0025; ///< … to here, both ends included
    double breakDrop = 0.5;     ///< share of the peak that the force loses in a break
    /// Of elastomers, and of plastics that are drawn and rise again: strength is the largest stress before
    /// the break, not that at the first maximum.
    bool strengthAtLargest = false;
    std::optional<Force> capacity; ///< of the gauge: a peak at 99 % of it or more is only "at least"
    MarkerOverrides markers;
    bool operator==(const StressStrainRules &) const = default;
};

/// Samples of the record at which properties are read; indices into the curve.
struct CurveMarkers {
    std::size_t peak = 0;
    std::size_t strength = 0;
    std::optional<std::size_t> yield;
    std::size_t lastBeforeBreak = 0;
    bool broke = false; ///< false where the record ends before the force falls
    std::optional<std::size_t> modulusFirst;
    std::optional<std::size_t> modulusLast;
    bool operator==(const CurveMarkers &) const = default;
};

/// A mended record; the travel is empty or as long as the force.
struct StressStrainRecord {
    std::span<const double> force_N;
    std::span<const double> travel_mm; ///< tells the break where no strain is known
    Noise noise;                       ///< of the force
    double force_N_per_MPa = 1.0;      ///< the section where the load pulls at it
    /// What the stress is multiplied by at a strain after the toe (large deflections); empty: nothing.
    std::function<double(double strain)> stressFactor{};
};

/// What is read off the curve. Values that need a strain are empty without one.
struct StressStrainReading {
    std::vector<double> stress_MPa; ///< of every sample
    std::vector<double> strain;     ///< after the toe correction; empty where none is known
    CurveMarkers markers;
    std::optional<double> modulus_MPa;
    std::optional<double> toeStrain;
    bool atLeast = false; ///< the gauge was at its end: strength, peak force and energy are lower bounds
    std::vector<Check> validity;
};

/// Reads a record of at least two samples. strain: before the toe correction, or empty.
/// Warnings are appended in the order in which they are found.
/// Errors: InvalidArgument for a marker outside the record.
Result<StressStrainReading> readStressStrain(const StressStrainRecord &record, std::vector<double> strain,
                                             const StressStrainRules &rules,
                                             std::vector<std::string> &warnings,
                                             const TaskRunner &run = inOrder);

/// Errors: InvalidArgument for a modulus range or break drop that makes no sense, or a capacity that is not
/// positive.
Status checkStressStrainRules(const StressStrainRules &rules);

} // namespace inchpeg
