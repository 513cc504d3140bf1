// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/base/task_runner.h"
#include "core/curve/check.h"
#include "core/curve/landmarks.h"
#include "core/units/unit.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A column of a record: the record's own samples, or a mended copy where something had to be mended.
class MendedColumn
{
public:
    explicit MendedColumn(std::span<const double> original) : m_view(original) {}
    MendedColumn(const MendedColumn &) = delete;
    MendedColumn &operator=(const MendedColumn &) = delete;

    [[nodiscard]] std::span<const double> view() const { return m_view; }
    void set(std::size_t i, double value) { mended()[i] = value; }
    void turn();

private:
    std::vector<double> &mended();

    std::span<const double> m_view;
    std::vector<double> m_mended;
};

/// Turns a column over where its largest magnitude is that of a negative value, with a warning.
void turnUpright(MendedColumn &column, std::string_view name, std::vector<std::string> &warnings,
                 const TaskRunner &run = inOrder);
void turnUpright(std::vector<double> &values, std::string_view name, std::vector<std::string> &warnings,
                 const TaskRunner &run = inOrder);

/// Takes lone spikes out of a load: each becomes the mean of its neighbours, with a warning. Yields the noise
/// of the column before that.
/// dimension: of the load, for the warning.
/// Errors: BadInput for a load that is zero or less throughout, before or after the spikes are out.
Result<Noise> mendSpikes(MendedColumn &load, std::string_view name, Dimension dimension,
                         std::vector<std::string> &warnings, const TaskRunner &run = inOrder);

/// Whether a load begins at zero, within 0.5 % of its peak; where not, a warning is added too.
Check startsAtZero(std::span<const double> load, const Noise &noise, double peak, std::string_view name,
                   Dimension dimension, std::vector<std::string> &warnings);

/// A gauge that shows this share of its range, or more, is at its end (ours).
inline constexpr double kCapacityShare = 0.99;

/// Whether the gauge was at its end.
struct GaugeLimit {
    bool reached = false;
    std::optional<Check> check; ///< where its range is known
};

/// A peak at 99 % of the gauge's range or more is a lower bound. Without a range, a top that stays at exactly
/// one value after a steep rise is warned of.
/// bounded: "strength, peak force and energy are lower bounds".
GaugeLimit gaugeLimit(std::span<const double> load, std::size_t peak, std::optional<double> capacity,
                      Dimension dimension, std::string_view bounded, std::vector<std::string> &warnings);

} // namespace inchpeg
