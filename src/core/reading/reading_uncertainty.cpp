// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reading/reading_uncertainty.h"

#include "core/method/section_settings.h"
#include "core/text/letters.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace inchpeg
{

namespace
{

constexpr double kExpansion = 2.0; ///< of a calibration's uncertainty: k = 2
/// A step is looked for among so many samples; a gauge with finer steps than that shows none.
constexpr std::size_t kSamplesForStep = 20000;
/// An input of which nothing is known is taken for 1 % off, class 1 of ISO 7500-1 and ISO 9513; a third of
/// the known uncertainty would add a twentieth to it (ours).
constexpr double kProbe = 0.01;
constexpr double kNegligible = 1.0 / 3.0;

/// Makes a reading again with one input moved.
class Variations
{
public:
    Variations(Reading &reading, const ReadingOrder &order, const ReadingSource &source,
               const TaskRunner &run)
        : m_reading(reading), m_order(order), m_source(source), m_run(run),
          m_variance(reading.values.size(), 0.0)
    {
        const auto columns = order.reduction->columns;
        const auto force = std::find_if(columns.begin(), columns.end(), [](const RecordColumn &column) {
            return column.quantity == ColumnQuantity::Force;
        });
        if (force != columns.end())
            m_force = static_cast<std::size_t>(force - columns.begin());
    }

    void moveSizes(const SizeUncertainty &sizes)
    {
        const std::pair<const char *, std::optional<double>> known[] = {
            {"width", sizes.width_mm}, {"thickness", sizes.thickness_mm}, {"diameter", sizes.diameter_mm}};
        MethodSettings all = m_source.settings;
        for (const auto &[name, own_mm] : known) {
            if (!own_mm || !m_source.settings.number(name))
                continue;
            all.numbers[name] += sizes.shared_mm;
            MethodSettings one = m_source.settings;
            one.numbers[name] += *own_mm;
            add(m_source.table, one);
        }
        add(m_source.table, all);
    }

    /// What is usually known so well, each by itself: a span, an insert's depth, a mass that presses.
    void moveUsual()
    {
        for (const Parameter &parameter : m_order.reduction->parameters) {
            const std::optional<double> number = m_source.settings.number(parameter.name);
            if (!number || !parameter.knownTo.isKnown())
                continue;
            const std::optional<Unit> unit = findUnit(parameter.unit);
            const double amount = parameter.knownTo.amount * (unit ? unit->toWorking(1.0) : 1.0);
            MethodSettings settings = m_source.settings;
            settings.numbers[std::string(parameter.name)] =
                *number + std::hypot(amount, parameter.knownTo.share * *number);
            add(m_source.table, settings);
        }
    }

    void moveGauge(double share)
    {
        if (!m_force)
            return;
        RecordTable table = m_source.table;
        for (double &force_N : table.columns[*m_force])
            force_N *= 1.0 + share;
        MethodSettings settings = m_source.settings; // the end of the range is read by the same scale
        if (const auto capacity = settings.numbers.find("capacity"); capacity != settings.numbers.end())
            capacity->second *= 1.0 + share;
        add(table, settings);
    }

    void moveStep()
    {
        const double step_N = m_force ? stepOf(m_source.table.columns[*m_force]) : 0.0;
        if (!(step_N > 0.0))
            return;
        RecordTable table = m_source.table;
        for (double &force_N : table.columns[*m_force])
            force_N += std::copysign(step_N / std::sqrt(12.0), force_N);
        add(table, m_source.settings);
    }

    /// What hangs on an input of which nothing is known has no uncertainty.
    void forgetWhatHangsOnUnknowns(bool gaugeIsKnown, bool sizesAreKnown)
    {
        if (std::none_of(m_variance.begin(), m_variance.end(), [](double one) { return one > 0.0; }))
            return;
        for (std::size_t c = 0; c < m_source.table.columns.size(); ++c) {
            if ((c == m_force && gaugeIsKnown) || !m_source.table.has(c))
                continue;
            RecordTable table = m_source.table;
            for (double &value : table.columns[c])
                value *= 1.0 + kProbe;
            forget(differences(std::move(table), m_source.settings));
        }
        for (const Parameter &parameter : m_order.reduction->parameters) {
            const std::optional<double> number = m_source.settings.number(parameter.name);
            const bool isSize = parameter.name == kWidth.name || parameter.name == kThickness.name ||
                                parameter.name == kDiameter.name;
            if (!number || parameter.source == ParameterSource::Test || parameter.knownTo.isKnown() ||
                (isSize && sizesAreKnown))
                continue;
            MethodSettings settings = m_source.settings;
            settings.numbers[std::string(parameter.name)] = *number * (1.0 + kProbe);
            forget(differences(m_source.table, settings));
        }
    }

    void keep()
    {
        for (std::size_t i = 0; i < m_variance.size(); ++i) {
            ReadValue &value = m_reading.values[i];
            if (m_variance[i] > 0.0 && value.bound == BoundReason::None)
                value.uncertainty = std::sqrt(m_variance[i]);
        }
    }

private:
    /// The smallest difference between two readings of the gauge; 0 where there is none.
    static double stepOf(std::vector<double> values)
    {
        values.resize(std::min(values.size(), kSamplesForStep));
        std::sort(values.begin(), values.end());
        double step = std::numeric_limits<double>::infinity();
        for (std::size_t i = 1; i < values.size(); ++i) {
            const double apart = values[i] - values[i - 1];
            if (apart > 1e-9 * std::abs(values.back()))
                step = std::min(step, apart);
        }
        return std::isfinite(step) ? step : 0.0;
    }

    /// By how much each value is another one when an input is.
    [[nodiscard]] std::vector<double> differences(RecordTable table, const MethodSettings &settings) const
    {
        std::vector<double> out(m_variance.size(), 0.0);
        const Result<Reading> moved =
            m_order.reduction->read(std::move(table), settings, m_order.placed, m_run);
        for (std::size_t i = 0; moved && i < out.size(); ++i) {
            const ReadValue &value = m_reading.values[i];
            const auto same =
                std::find_if(moved->values.begin(), moved->values.end(), [&](const ReadValue &other) {
                    return other.property == value.property && other.label == value.label;
                });
            if (same != moved->values.end())
                out[i] = same->number - value.number;
        }
        return out;
    }

    void add(RecordTable table, const MethodSettings &settings)
    {
        const std::vector<double> moved = differences(std::move(table), settings);
        for (std::size_t i = 0; i < moved.size(); ++i)
            m_variance[i] += moved[i] * moved[i];
    }

    void forget(const std::vector<double> &moved)
    {
        for (std::size_t i = 0; i < moved.size(); ++i) {
            if (std::abs(moved[i]) > kNegligible * std::sqrt(m_variance[i]))
                m_variance[i] = 0.0;
        }
    }

    Reading &m_reading;
    const ReadingOrder &m_order;
    const ReadingSource &m_source;
    const TaskRunner &m_run;
    std::vector<double> m_variance;
    std::optional<std::size_t> m_force;
};

} // namespace

std::string usuallyKnownText(const Reduction &reduction)
{
    std::string text;
    for (const Parameter &parameter : reduction.parameters) {
        const UsualUncertainty &known = parameter.knownTo;
        if (!known.isKnown())
            continue;
        const std::string size = known.amount > 0.0
                                     ? fmt::format("{:g} {}", kExpansion * known.amount, parameter.unit)
                                     : fmt::format("{:g} %", 100.0 * kExpansion * known.share);
        text += fmt::format("{}{} ± {}", text.empty() ? "" : ", ", smallLetters(parameter.label), size);
    }
    return text;
}

void addUncertainties(Reading &reading, const ReadingOrder &order, const ReadingSource &source,
                      const TaskRunner &run)
{
    Variations variations(reading, order, source, run);
    if (order.sizes)
        variations.moveSizes(*order.sizes);
    const bool gaugeIsKnown =
        source.gauge && source.gauge->calibration && source.gauge->calibration->uncertainty_percent;
    if (gaugeIsKnown)
        variations.moveGauge(0.01 * *source.gauge->calibration->uncertainty_percent / kExpansion);
    if (order.sizes || gaugeIsKnown) {
        variations.moveStep();
        variations.moveUsual();
    }
    variations.forgetWhatHangsOnUnknowns(gaugeIsKnown, order.sizes.has_value());
    variations.keep();
}

} // namespace inchpeg
