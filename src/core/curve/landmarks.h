// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/base/task_runner.h"

#include <cstddef>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// How much a record scatters, and by how much a fall must exceed that to be believed.
struct Noise {
    double sigma = 0.0;     ///< standard deviation of a single reading, in the record's unit
    double clearFall = 0.0; ///< a fall of at least this stands clear of noise and gauge resolution
};

/// Noise of evenly taken readings, from the median absolute third difference (a curve's trend and curvature
/// cancel in it): sigma = median|d3| / (0.6745 sqrt(20)); 20 is the sum of the squared weights 1, 3, 3, 1.
/// Readings that repeat often are taken for steps of the gauge, and one and a half steps are no fall.
/// docs/methods.md, section "Noise".
Noise noiseOf(std::span<const double> readings, const TaskRunner &run = inOrder);

/// Indices of lone readings that stand out from both neighbours by far more than the readings around them
/// differ: electrical noise, not material.
std::vector<std::size_t> loneSpikes(std::span<const double> readings, const Noise &noise,
                                    const TaskRunner &run = inOrder);

/// Index of the first of the largest readings. Precondition: readings is not empty.
std::size_t highestOf(std::span<const double> readings, const TaskRunner &run = inOrder);

/// Index of the first local maximum that is followed by a clear fall; nothing where none is.
/// Precondition: readings is not empty.
std::optional<std::size_t> firstClearMaximum(std::span<const double> readings, const Noise &noise);

/// Upper end of the fall by which the piece broke: the force loses more than share of its peak while the
/// position grows by at most window, or between two neighbouring samples (whatever their distance; the only
/// rule where position is empty). Nothing where the record ends before such a fall.
/// force: not empty, peak positive. position: empty or as long as force. share: above 0, below 1.
std::optional<std::size_t> breakIndex(std::span<const double> force, std::span<const double> position,
                                      double window, const Noise &noise, double share = 0.5);

/// Area under y over x from the first sample to index last, by the trapezoidal rule.
double areaUnder(std::span<const double> x, std::span<const double> y, std::size_t last,
                 const TaskRunner &run = inOrder);

/// Errors: InvalidArgument for a marker that a person placed outside the record.
Status checkPlaced(std::string_view marker, std::optional<std::size_t> sample, std::size_t samples);

} // namespace inchpeg
