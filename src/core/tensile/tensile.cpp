// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tensile/tensile.h"

#include "core/curve/landmarks.h"
#include "core/curve/straight_line.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

/// Ends of a strain window are included although the toe shift rounds.
constexpr double kStrainRounding = 1e-9;
constexpr double kBreakWindowStrain = 0.02;
constexpr double kBreakWindowShareOfExtension = 0.01;
constexpr double kZeroShareOfPeak = 0.005;
constexpr double kCapacityShare = 0.99;
/// Without a clear fall, the strain must grow on by this share of the strain at the maximum to call it yield.
constexpr double kYieldPlateauShare = 0.05;
constexpr std::size_t kWantedModulusSamples = 5;
constexpr std::size_t kFlatTopSamples = 8;

/// True, with a warning, where the largest magnitude is that of a negative value.
bool isTurned(std::span<const double> values, std::string_view name, std::vector<std::string> &warnings)
{
    double lowest = 0.0;
    double highest = 0.0;
    for (double value : values) {
        lowest = std::min(lowest, value);
        highest = std::max(highest, value);
    }
    if (-lowest <= highest)
        return false;
    warnings.push_back(fmt::format("the {} is negative where it is largest: its sign was turned over", name));
    return true;
}

/// A column of the record: the record's own samples, or a mended copy where something had to be mended.
class Samples
{
public:
    explicit Samples(std::span<const double> original) : m_view(original) {}
    Samples(const Samples &) = delete;
    Samples &operator=(const Samples &) = delete;

    [[nodiscard]] std::span<const double> view() const { return m_view; }
    void set(std::size_t i, double value) { mended()[i] = value; }
    void turn()
    {
        for (double &value : mended())
            value = -value;
    }

private:
    std::vector<double> &mended()
    {
        if (m_mended.empty()) {
            m_mended.assign(m_view.begin(), m_view.end());
            m_view = m_mended;
        }
        return m_mended;
    }
    std::span<const double> m_view;
    std::vector<double> m_mended;
};

Status checkMarkers(const MarkerOverrides &markers, std::size_t samples)
{
    const std::pair<const char *, std::optional<std::size_t>> places[] = {
        {"strength", markers.strength}, {"yield", markers.yield}, {"break", markers.lastBeforeBreak}};
    for (const auto &[name, place] : places) {
        if (place && *place >= samples)
            return invalidArgument(
                fmt::format("the {} was placed at sample {}, but the record holds {}; place "
                            "it again or set it back to automatic",
                            name, *place + 1, samples));
    }
    return ok();
}

/// One reduction, step by step; the steps share the mended record.
class TensileReduction
{
public:
    TensileReduction(const ForceCurve &curve, const TensileParameters &parameters)
        : m_parameters(parameters), m_forceSamples(curve.force_N), m_extensionSamples(curve.extension_mm),
          m_extensionIsCrosshead(curve.extensionIsCrosshead)
    {
        m_result.strain = curve.strain;
    }

    Result<TensileResult> run()
    {
        if (const Status status = mendRecord(); !status)
            return status.error();
        findStrain();
        findMaximumAndBreak();
        correctToe();
        placeStrength();
        readModulus();
        readYield();
        readOffsetYield();
        readStrengthAndBreak();
        readEnergy();
        checkRecord();
        return std::move(m_result);
    }

private:
    [[nodiscard]] bool hasStrain() const { return !m_result.strain.empty(); }

    void warn(std::string text) { m_result.warnings.push_back(std::move(text)); }
    void check(std::string rule, bool holds, std::string detail)
    {
        m_result.validity.push_back({std::move(rule), holds, std::move(detail)});
    }

    [[nodiscard]] bool hasForce() const { return *std::max_element(m_force.begin(), m_force.end()) > 0.0; }
    static Status noForce()
    {
        return badInput(
            "the force is zero in every sample; was the gauge connected and its channel recorded?");
    }

    Status mendRecord()
    {
        m_force = m_forceSamples.view();
        m_extension = m_extensionSamples.view();
        if (const Status status = checkMarkers(m_parameters.markers, m_force.size()); !status)
            return status;
        if (m_force.size() < 2)
            return Error{
                ErrorCode::TooFewPoints,
                fmt::format("the record holds {} sample; a curve of at least two is wanted", m_force.size()),
                {}};
        if (isTurned(m_force, "force", m_result.warnings))
            m_forceSamples.turn();
        if (isTurned(m_extension, "extension", m_result.warnings))
            m_extensionSamples.turn();
        if (isTurned(m_result.strain, "strain", m_result.warnings)) {
            for (double &strain : m_result.strain)
                strain = -strain;
        }
        m_force = m_forceSamples.view();
        m_extension = m_extensionSamples.view();
        if (!hasForce())
            return noForce();
        m_noise = noiseOf(m_force);
        for (std::size_t spike : loneSpikes(m_force, m_noise)) {
            warn(fmt::format("sample {} ({}) stands out alone and was taken for electrical noise", spike + 1,
                             marked(m_force[spike], Dimension::Force, 6)));
            m_forceSamples.set(spike, 0.5 * (m_force[spike - 1] + m_force[spike + 1]));
            m_force = m_forceSamples.view();
        }
        if (!hasForce()) // what looked like one was a spike
            return noForce();
        const double area_mm2 = in_mm2(m_parameters.area);
        m_result.stress_MPa.reserve(m_force.size());
        for (double force_N : m_force)
            m_result.stress_MPa.push_back(force_N / area_mm2);
        return ok();
    }

    void findStrain()
    {
        if (hasStrain() || m_extension.empty())
            return;
        std::optional<Length> length = m_parameters.gaugeLength;
        const bool useGrips = m_parameters.gripDistance && (!length || m_extensionIsCrosshead);
        if (useGrips)
            length = m_parameters.gripDistance;
        if (!length) {
            warn("no strain: give the gauge length (or the grip distance for a crosshead travel)");
            return;
        }
        if (useGrips || m_extensionIsCrosshead)
            warn("strain comes from the crosshead travel: it includes the give of the frame and grips, so "
                 "the modulus reads low");
        m_result.strain.reserve(m_extension.size());
        for (double extension_mm : m_extension)
            m_result.strain.push_back(extension_mm / in_mm(*length));
    }

    void findMaximumAndBreak()
    {
        TensileMarkers &markers = m_result.markers;
        const auto highest = std::max_element(m_force.begin(), m_force.end());
        markers.peak = static_cast<std::size_t>(highest - m_force.begin());
        const std::span<const double> position =
            hasStrain() ? std::span<const double>(m_result.strain) : m_extension;
        const double window = hasStrain() || m_extension.empty()
                                  ? kBreakWindowStrain
                                  : kBreakWindowShareOfExtension * std::abs(m_extension[markers.peak]);
        const std::optional<std::size_t> placed = m_parameters.markers.lastBeforeBreak;
        const std::optional<std::size_t> broken =
            placed ? placed : breakIndex(m_force, position, window, m_noise, m_parameters.breakDrop);
        markers.broke = broken.has_value();
        markers.lastBeforeBreak = broken.value_or(m_force.size() - 1);
        const std::optional<std::size_t> first = firstClearMaximum(m_force, m_noise);
        m_firstMaximum = first && *first <= markers.lastBeforeBreak ? *first : markers.peak;
        if (m_firstMaximum > markers.lastBeforeBreak) { // the break was placed before the peak
            const auto end = m_force.begin() + static_cast<std::ptrdiff_t>(markers.lastBeforeBreak) + 1;
            m_firstMaximum =
                static_cast<std::size_t>(std::max_element(m_force.begin(), end) - m_force.begin());
        }
    }

    /// The toe and the modulus look for their straight part before the maximum that the record shows,
    /// wherever a person puts the strength.
    void placeStrength()
    {
        m_result.markers.strength = m_parameters.markers.strength.value_or(m_firstMaximum);
    }

    void correctToe()
    {
        if (!hasStrain())
            return;
        m_result.toeStrain = 0.0;
        if (m_parameters.markers.toeStrain) {
            takeOffToe(*m_parameters.markers.toeStrain);
            return;
        }
        if (!m_parameters.toeCorrection)
            return;
        const std::size_t count = m_firstMaximum + 1;
        const auto line = steepestStraightPart(
            std::span(m_result.strain).first(count), std::span(m_result.stress_MPa).first(count),
            m_parameters.highStrain - m_parameters.lowStrain, m_noise.sigma / in_mm2(m_parameters.area));
        if (!line) {
            warn("no toe correction: no straight rise was found before the first maximum");
            return;
        }
        takeOffToe(line->xWhereZero());
    }

    void takeOffToe(double shift)
    {
        m_result.toeStrain = shift;
        for (double &strain : m_result.strain)
            strain -= shift;
    }

    void readModulus()
    {
        if (!hasStrain())
            return;
        std::vector<double> strain;
        std::vector<double> stress;
        TensileMarkers &markers = m_result.markers;
        const double from = m_parameters.markers.modulusFrom.value_or(m_parameters.lowStrain);
        const double to = m_parameters.markers.modulusTo.value_or(m_parameters.highStrain);
        for (std::size_t i = 0; i < m_firstMaximum; ++i) {
            const double e = m_result.strain[i];
            if (e < from - kStrainRounding || e > to + kStrainRounding)
                continue;
            strain.push_back(e);
            stress.push_back(m_result.stress_MPa[i]);
            markers.modulusFirst = markers.modulusFirst.value_or(i);
            markers.modulusLast = i;
        }
        if (const auto line = fitLine(strain, stress))
            m_result.tensileModulus_MPa = line->slope;
        check("samples in the modulus range", strain.size() >= kWantedModulusSamples,
              fmt::format("{} samples between strains {:g} % and {:g} %; {} or more are wanted",
                          strain.size(), 100.0 * from, 100.0 * to, kWantedModulusSamples));
    }

    /// The strain goes on growing after the maximum while the stress clearly falls, or stays for a while.
    void readYield()
    {
        const TensileMarkers &markers = m_result.markers;
        if (m_parameters.markers.noYield)
            return;
        if (m_parameters.markers.yield) {
            yieldAt(*m_parameters.markers.yield);
            return;
        }
        const std::size_t top = m_firstMaximum;
        if (top >= markers.lastBeforeBreak)
            return;
        const auto from = m_force.begin() + static_cast<std::ptrdiff_t>(top);
        const auto to = m_force.begin() + static_cast<std::ptrdiff_t>(markers.lastBeforeBreak) + 1;
        const bool falls = m_force[top] - *std::min_element(from, to) >= m_noise.clearFall;
        const std::span<const double> position =
            hasStrain() ? std::span<const double>(m_result.strain) : m_extension;
        const bool grows = !position.empty() && position[markers.lastBeforeBreak] - position[top] >=
                                                    kYieldPlateauShare * std::abs(position[top]);
        if (falls || grows)
            yieldAt(top);
    }

    void yieldAt(std::size_t sample)
    {
        m_result.markers.yield = sample;
        m_result.yieldStress_MPa = m_result.stress_MPa[sample];
        if (hasStrain())
            m_result.yieldStrain = m_result.strain[sample];
    }

    /// Where the record crosses the line of slope E through (offset, 0), interpolated linearly.
    void readOffsetYield()
    {
        if (!m_result.tensileModulus_MPa)
            return;
        const auto above = [&](std::size_t i) {
            return m_result.stress_MPa[i] -
                   *m_result.tensileModulus_MPa * (m_result.strain[i] - m_parameters.offsetStrain);
        };
        for (std::size_t i = 1; i <= m_result.markers.lastBeforeBreak; ++i) {
            if (m_result.strain[i] <= m_parameters.offsetStrain || above(i) > 0.0 || above(i - 1) <= 0.0)
                continue;
            const double share = above(i - 1) / (above(i - 1) - above(i));
            m_result.offsetYieldStress_MPa =
                std::lerp(m_result.stress_MPa[i - 1], m_result.stress_MPa[i], share);
            m_result.offsetYieldStrain = std::lerp(m_result.strain[i - 1], m_result.strain[i], share);
            return;
        }
    }

    void readStrengthAndBreak()
    {
        const TensileMarkers &markers = m_result.markers;
        m_result.peakForce_N = m_force[markers.peak];
        m_result.tensileStrength_MPa = m_result.stress_MPa[markers.strength];
        m_result.stressAtBreak_MPa = m_result.stress_MPa[markers.lastBeforeBreak];
        if (!hasStrain())
            return;
        m_result.strainAtStrength = m_result.strain[markers.strength];
        m_result.strainAtBreak = m_result.strain[markers.lastBeforeBreak];
    }

    void readEnergy()
    {
        const std::size_t last = m_result.markers.lastBeforeBreak;
        if (hasStrain())
            m_result.toughness_MJ_per_m3 = areaUnder(m_result.strain, m_result.stress_MPa, last);
        if (!m_extension.empty()) // N·mm is mJ
            m_result.energyToBreak_J = areaUnder(m_extension, m_force, last) / 1e3;
        else if (hasStrain() && m_parameters.gaugeLength)
            m_result.energyToBreak_J =
                areaUnder(m_result.strain, m_force, last) * in_mm(*m_parameters.gaugeLength) / 1e3;
    }

    void checkRecord()
    {
        const TensileMarkers &markers = m_result.markers;
        const double peak_N = m_force[markers.peak];
        const double start_N = std::abs(m_force.front());
        const bool zeroed = start_N - 3.0 * m_noise.sigma <= kZeroShareOfPeak * peak_N;
        check("force starts at zero", zeroed,
              fmt::format("the first sample is {}, {:.2g} % of the peak; up to 0.5 % is usual",
                          marked(m_force.front(), Dimension::Force, 3), 100.0 * m_force.front() / peak_N));
        if (!zeroed)
            warn(fmt::format("the force starts at {}, {:.2g} % of its peak: zero the gauge before the "
                             "test (nothing was subtracted)",
                             marked(m_force.front(), Dimension::Force, 3), 100.0 * m_force.front() / peak_N));
        check("the break is in the record", markers.broke,
              m_parameters.markers.lastBeforeBreak ? "the break was placed by hand"
              : markers.broke ? fmt::format("the force falls by more than {:g} % of its peak after sample {}",
                                            100.0 * m_parameters.breakDrop, markers.lastBeforeBreak + 1)
                              : fmt::format("the record ends before the force falls by {:g} %: values at "
                                            "break are those of its last sample",
                                            100.0 * m_parameters.breakDrop));
        const bool firstIsHighest = m_parameters.markers.strength.has_value() ||
                                    m_force[markers.strength] + m_noise.clearFall >= peak_N;
        check("the first maximum is the largest", firstIsHighest,
              firstIsHighest ? "no later sample is clearly higher"
                             : fmt::format("strength is read at the first maximum ({}) but the force "
                                           "reaches {} later; look for a slip in the grips",
                                           marked(m_force[markers.strength], Dimension::Force),
                                           marked(peak_N, Dimension::Force)));
        checkGauge(peak_N);
    }

    void checkGauge(double peak_N)
    {
        if (m_parameters.capacity) {
            m_result.atLeast = peak_N >= kCapacityShare * in_N(*m_parameters.capacity);
            check("the gauge stays within its range", !m_result.atLeast,
                  fmt::format("peak {}, capacity {}", marked(peak_N, Dimension::Force),
                              marked(in_N(*m_parameters.capacity), Dimension::Force)));
            if (m_result.atLeast)
                warn("the gauge reached the end of its range: strength, peak force and energy are lower "
                     "bounds");
            return;
        }
        const std::size_t peak = m_result.markers.peak;
        std::size_t flat = 1;
        while (peak + flat < m_force.size() && m_force[peak + flat] == peak_N)
            ++flat;
        const bool abrupt = flat >= kFlatTopSamples && peak > 1 &&
                            peak_N - m_force[peak - 1] > 0.3 * peak_N / static_cast<double>(peak);
        if (abrupt)
            warn(fmt::format("the force rises and then stays at exactly {} for {} samples: the gauge may "
                             "have been at its limit; give its capacity to have such values taken as \"at "
                             "least\"",
                             marked(peak_N, Dimension::Force), flat));
    }

    const TensileParameters &m_parameters;
    Samples m_forceSamples;
    Samples m_extensionSamples;
    std::span<const double> m_force;
    std::span<const double> m_extension;
    bool m_extensionIsCrosshead;
    Noise m_noise;
    std::size_t m_firstMaximum = 0;
    TensileResult m_result;
};

} // namespace

Status checkTensileParameters(const TensileParameters &parameters)
{
    if (!(in_mm2(parameters.area) > 0.0))
        return invalidArgument(fmt::format(
            "the cross-section is {:g} mm²; a measured area above zero is wanted", in_mm2(parameters.area)));
    if (parameters.gaugeLength && !(in_mm(*parameters.gaugeLength) > 0.0))
        return invalidArgument(fmt::format("gauge_length is {:g} mm; a length above zero is wanted",
                                           in_mm(*parameters.gaugeLength)));
    if (parameters.gripDistance && !(in_mm(*parameters.gripDistance) > 0.0))
        return invalidArgument(fmt::format("grip_distance is {:g} mm; a length above zero is wanted",
                                           in_mm(*parameters.gripDistance)));
    if (parameters.capacity && !(in_N(*parameters.capacity) > 0.0))
        return invalidArgument(fmt::format("capacity is {:g} N; the gauge's range above zero is wanted",
                                           in_N(*parameters.capacity)));
    if (!(parameters.lowStrain >= 0.0) || !(parameters.highStrain > parameters.lowStrain) ||
        parameters.highStrain > 1.0)
        return invalidArgument(fmt::format("the modulus range is {:g} % to {:g} % strain; two strains from 0 "
                                           "to 100 %, the lower one first, are wanted",
                                           100.0 * parameters.lowStrain, 100.0 * parameters.highStrain));
    if (!(parameters.offsetStrain > 0.0) || parameters.offsetStrain > 1.0)
        return invalidArgument(
            fmt::format("the offset is {:g} % strain; more than 0, usually 0.2 %, is wanted",
                        100.0 * parameters.offsetStrain));
    if (!(parameters.breakDrop > 0.0) || !(parameters.breakDrop < 1.0))
        return invalidArgument(
            fmt::format("the break drop is {:g} % of the peak; between 0 and 100 %, usually 50 %, is wanted",
                        100.0 * parameters.breakDrop));
    return ok();
}

Result<TensileResult> reduceTensile(const ForceCurve &curve, const TensileParameters &parameters)
{
    const std::size_t n = curve.force_N.size();
    for (const std::vector<double> *other : {&curve.extension_mm, &curve.strain, &curve.time_s})
        require(other->empty() || other->size() == n, "reduceTensile(): columns of different lengths");
    if (const Status status = checkTensileParameters(parameters); !status)
        return status.error();
    return TensileReduction(curve, parameters).run();
}

} // namespace inchpeg
