// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/curve/stress_strain.h"

#include "core/base/blocks.h"
#include "core/base/contract.h"
#include "core/curve/mended_record.h"
#include "core/curve/straight_line.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

namespace inchpeg
{

namespace
{

/// Ends of a strain window are included although the toe shift rounds.
constexpr double kStrainRounding = 1e-9;
constexpr double kBreakWindowStrain = 0.02;
constexpr double kBreakWindowShareOfTravel = 0.01;
/// Without a clear fall, the strain must grow on by this share of the strain at the maximum to call it yield.
constexpr double kYieldPlateauShare = 0.05;
constexpr std::size_t kWantedModulusSamples = 5;

Status checkMarkers(const MarkerOverrides &markers, std::size_t samples)
{
    const std::pair<const char *, std::optional<std::size_t>> places[] = {
        {"strength", markers.strength}, {"yield", markers.yield}, {"break", markers.lastBeforeBreak}};
    for (const auto &[name, place] : places) {
        if (const Status status = checkPlaced(name, place, samples); !status)
            return status;
    }
    return ok();
}

/// One reading, step by step.
class Reader
{
public:
    Reader(const StressStrainRecord &record, std::vector<double> strain, const StressStrainRules &rules,
           std::vector<std::string> &warnings, const TaskRunner &task)
        : m_record(record), m_rules(rules), m_force(record.force_N), m_warnings(warnings), m_run(task)
    {
        m_out.strain = std::move(strain);
    }

    StressStrainReading run()
    {
        m_out.stress_MPa =
            convertedColumn(m_force, m_run, [section = m_record.force_N_per_MPa](double force_N) {
                return force_N / section;
            });
        findMaximumAndBreak();
        correctToe();
        correctStress();
        // The toe and the modulus look for their straight part before the maximum that the record shows,
        // wherever a person puts the strength.
        const std::size_t found = m_rules.strengthAtLargest
                                      ? highestOf(m_force.first(m_out.markers.lastBeforeBreak + 1), m_run)
                                      : m_firstMaximum;
        m_out.markers.strength = m_rules.markers.strength.value_or(found);
        readModulus();
        findYield();
        checkRecord();
        return std::move(m_out);
    }

private:
    [[nodiscard]] bool hasStrain() const { return !m_out.strain.empty(); }
    [[nodiscard]] std::span<const double> position() const
    {
        return hasStrain() ? std::span<const double>(m_out.strain) : m_record.travel_mm;
    }
    void check(std::string rule, bool holds, std::string detail)
    {
        m_out.validity.push_back({std::move(rule), holds, std::move(detail)});
    }

    void findMaximumAndBreak()
    {
        CurveMarkers &markers = m_out.markers;
        markers.peak = highestOf(m_force, m_run);
        const double window = hasStrain() || m_record.travel_mm.empty()
                                  ? kBreakWindowStrain
                                  : kBreakWindowShareOfTravel * std::abs(m_record.travel_mm[markers.peak]);
        const std::optional<std::size_t> placed = m_rules.markers.lastBeforeBreak;
        const std::optional<std::size_t> broken =
            placed ? placed : breakIndex(m_force, position(), window, m_record.noise, m_rules.breakDrop);
        markers.broke = broken.has_value();
        markers.lastBeforeBreak = broken.value_or(m_force.size() - 1);
        m_firstMaximum = firstMaximumOf(m_force, m_record.noise);
    }

    /// The first that stands clear of the noise, else the largest, in either case before the break.
    [[nodiscard]] std::size_t firstMaximumOf(std::span<const double> load, const Noise &noise) const
    {
        const std::size_t last = m_out.markers.lastBeforeBreak;
        const std::optional<std::size_t> first = firstClearMaximum(load, noise);
        if (first && *first <= last)
            return *first;
        return highestOf(load.first(last + 1), m_run); // of more than one, the first
    }

    void correctToe()
    {
        if (!hasStrain())
            return;
        m_out.toeStrain = 0.0;
        if (m_rules.markers.toeStrain) {
            takeOffToe(*m_rules.markers.toeStrain);
            return;
        }
        if (!m_rules.toeCorrection)
            return;
        const std::size_t count = beforeStiffening(std::span(m_out.strain).first(m_firstMaximum + 1),
                                                   std::span(m_out.stress_MPa).first(m_firstMaximum + 1));
        const auto part = steepestStraightPart(
            std::span(m_out.strain).first(count), std::span(m_out.stress_MPa).first(count),
            m_rules.highStrain - m_rules.lowStrain, m_record.noise.sigma / m_record.force_N_per_MPa);
        if (!part) {
            m_warnings.emplace_back("no toe correction: no straight rise was found before the first maximum");
            return;
        }
        takeOffToe(part->line.xWhereZero());
    }

    void takeOffToe(double shift)
    {
        m_out.toeStrain = shift;
        forBlocks(m_out.strain.size(), m_run, [&](std::size_t, std::size_t begin, std::size_t end) {
            for (std::size_t i = begin; i < end; ++i)
                m_out.strain[i] -= shift;
        });
    }

    void correctStress()
    {
        if (!m_record.stressFactor || !hasStrain())
            return;
        for (std::size_t i = 0; i < m_out.stress_MPa.size(); ++i)
            m_out.stress_MPa[i] *= m_record.stressFactor(m_out.strain[i]);
        Noise noise = m_record.noise;
        noise.sigma /= m_record.force_N_per_MPa;
        noise.clearFall /= m_record.force_N_per_MPa;
        m_firstMaximum = firstMaximumOf(m_out.stress_MPa, noise);
    }

    void readModulus()
    {
        if (!hasStrain())
            return;
        std::vector<double> strain;
        std::vector<double> stress;
        CurveMarkers &markers = m_out.markers;
        const double from = m_rules.markers.modulusFrom.value_or(m_rules.lowStrain);
        const double to = m_rules.markers.modulusTo.value_or(m_rules.highStrain);
        for (std::size_t i = 0; i < m_firstMaximum; ++i) {
            const double e = m_out.strain[i];
            if (e < from - kStrainRounding || e > to + kStrainRounding)
                continue;
            strain.push_back(e);
            stress.push_back(m_out.stress_MPa[i]);
            markers.modulusFirst = markers.modulusFirst.value_or(i);
            markers.modulusLast = i;
        }
        if (const auto line = fitLine(strain, stress))
            m_out.modulus_MPa = line->slope;
        check("samples in the modulus range", strain.size() >= kWantedModulusSamples,
              fmt::format("{} samples between strains {:g} % and {:g} %; {} or more are wanted",
                          strain.size(), 100.0 * from, 100.0 * to, kWantedModulusSamples));
    }

    /// The strain goes on growing after the maximum while the stress clearly falls, or stays for a while.
    void findYield()
    {
        CurveMarkers &markers = m_out.markers;
        if (m_rules.markers.noYield)
            return;
        if (m_rules.markers.yield) {
            markers.yield = m_rules.markers.yield;
            return;
        }
        const std::size_t top = m_firstMaximum;
        if (top >= markers.lastBeforeBreak)
            return;
        const auto from = m_force.begin() + static_cast<std::ptrdiff_t>(top);
        const auto to = m_force.begin() + static_cast<std::ptrdiff_t>(markers.lastBeforeBreak) + 1;
        const bool falls = m_force[top] - *std::min_element(from, to) >= m_record.noise.clearFall;
        const std::span<const double> at = position();
        const bool grows =
            !at.empty() && at[markers.lastBeforeBreak] - at[top] >= kYieldPlateauShare * std::abs(at[top]);
        if (falls || grows)
            markers.yield = top;
    }

    void checkRecord()
    {
        const CurveMarkers &markers = m_out.markers;
        const double peak_N = m_force[markers.peak];
        m_out.validity.push_back(
            startsAtZero(m_force, m_record.noise, peak_N, "force", Dimension::Force, m_warnings));
        check("the break is in the record", markers.broke,
              m_rules.markers.lastBeforeBreak ? "the break was placed by hand"
              : markers.broke ? fmt::format("the force falls by more than {:g} % of its peak after sample {}",
                                            100.0 * m_rules.breakDrop, markers.lastBeforeBreak + 1)
                              : fmt::format("the record ends before the force falls by {:g} %: values at "
                                            "break are those of its last sample",
                                            100.0 * m_rules.breakDrop));
        const bool firstIsHighest = m_rules.markers.strength.has_value() || m_rules.strengthAtLargest ||
                                    m_force[markers.strength] + m_record.noise.clearFall >= peak_N;
        check("the first maximum is the largest", firstIsHighest,
              firstIsHighest ? "no later sample is clearly higher"
                             : fmt::format("strength is read at the first maximum ({}) but the force "
                                           "reaches {} later; look for a slip in the grips",
                                           marked(m_force[markers.strength], Dimension::Force),
                                           marked(peak_N, Dimension::Force)));
        if (!markers.broke && !firstClearMaximum(m_force, m_record.noise))
            m_warnings.emplace_back("the force is largest where the record ends: unless the piece broke just "
                                    "there, its strength is higher");
        const GaugeLimit limit = gaugeLimit(
            m_force, markers.peak, m_rules.capacity ? std::optional(in_N(*m_rules.capacity)) : std::nullopt,
            Dimension::Force, "strength, peak force and energy are lower bounds", m_warnings);
        m_out.atLeast = limit.reached;
        if (limit.check)
            m_out.validity.push_back(*limit.check);
    }

    const StressStrainRecord &m_record;
    const StressStrainRules &m_rules;
    std::span<const double> m_force;
    std::vector<std::string> &m_warnings;
    const TaskRunner &m_run;
    std::size_t m_firstMaximum = 0;
    StressStrainReading m_out;
};

} // namespace

Result<StressStrainReading> readStressStrain(const StressStrainRecord &record, std::vector<double> strain,
                                             const StressStrainRules &rules,
                                             std::vector<std::string> &warnings, const TaskRunner &run)
{
    const std::size_t n = record.force_N.size();
    require(n >= 2, "readStressStrain() of fewer than two samples");
    require(strain.empty() || strain.size() == n, "readStressStrain(): strain of another length");
    require(record.travel_mm.empty() || record.travel_mm.size() == n,
            "readStressStrain(): travel of another length");
    if (const Status status = checkMarkers(rules.markers, n); !status)
        return status.error();
    return Reader(record, std::move(strain), rules, warnings, run).run();
}

Status checkStressStrainRules(const StressStrainRules &rules)
{
    if (rules.capacity && !(in_N(*rules.capacity) > 0.0))
        return invalidArgument(
            fmt::format("capacity is {:g} N; the gauge's range above zero is wanted", in_N(*rules.capacity)));
    if (!(rules.lowStrain >= 0.0) || !(rules.highStrain > rules.lowStrain) || rules.highStrain > 1.0)
        return invalidArgument(fmt::format("the modulus range is {:g} % to {:g} % strain; two strains from 0 "
                                           "to 100 %, the lower one first, are wanted",
                                           100.0 * rules.lowStrain, 100.0 * rules.highStrain));
    if (!(rules.breakDrop > 0.0) || !(rules.breakDrop < 1.0))
        return invalidArgument(
            fmt::format("the break drop is {:g} % of the peak; between 0 and 100 %, usually 50 %, is wanted",
                        100.0 * rules.breakDrop));
    return ok();
}

} // namespace inchpeg
