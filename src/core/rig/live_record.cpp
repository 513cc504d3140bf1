// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rig/live_record.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

namespace inchpeg
{

namespace
{

constexpr double kGapTimes = 10.0; ///< usual spacings
constexpr double kLeastGap_s = 0.5;
constexpr std::size_t kSpacings = 51; ///< from which the usual one is told
constexpr std::size_t kLeastSpacings = 3;

double medianOfSome(std::deque<double> values)
{
    const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::nth_element(values.begin(), middle, values.end());
    return *middle;
}

std::string headingCell(const Column &column)
{
    return column.unit && !column.unit->symbol.empty()
               ? fmt::format("{}[{}]", column.name, column.unit->symbol)
               : column.name;
}

/// Of the quantities that a test is about, the earlier the rather.
int rankOf(const std::optional<ColumnQuantity> &quantity)
{
    constexpr ColumnQuantity kRanks[] = {
        ColumnQuantity::Force,       ColumnQuantity::Torque, ColumnQuantity::Extension, ColumnQuantity::Angle,
        ColumnQuantity::Temperature, ColumnQuantity::Strain, ColumnQuantity::Length};
    const auto found = std::find(std::begin(kRanks), std::end(kRanks), quantity);
    return quantity == ColumnQuantity::Time ? 100 : static_cast<int>(found - std::begin(kRanks));
}

} // namespace

LiveRecord::LiveRecord(const RecordRule &rule, const RigDefault &usual) : m_rule(rule), m_lines(usual)
{
    setColumns(m_lines.columns());
}

LiveRecord::LiveRecord(const RecordRule &rule, const LiveRecord &before)
    : m_rule(rule), m_lines(before.m_lines), m_facts(before.m_facts), m_latest(before.m_latest)
{
    setColumns(m_lines.columns());
    if (m_latest && m_latest->values.size() != m_shownColumns.size())
        m_latest.reset();
    m_fault = before.m_fault;
}

void LiveRecord::setColumns(const std::vector<Column> &columns)
{
    m_columns = columns;
    m_sentCells = columns.size();
    m_order.clear();
    m_fits = true;
    const auto time = std::find_if(columns.begin(), columns.end(), [](const Column &column) {
        return column.quantity == ColumnQuantity::Time;
    });
    m_time.reset();
    m_shownColumns = columns;
    if (time != columns.end())
        m_time = static_cast<std::size_t>(time - columns.begin());
    else
        m_shownColumns.insert(m_shownColumns.begin(), understandColumn("t[s]", {}));
    const auto best =
        std::min_element(m_shownColumns.begin(), m_shownColumns.end(), [](const Column &a, const Column &b) {
            return rankOf(a.quantity) < rankOf(b.quantity);
        });
    m_main = static_cast<std::size_t>(best - m_shownColumns.begin());
}

std::vector<RecordedRow> LiveRecord::takeNewRows()
{
    return std::exchange(m_newRows, {});
}

void LiveRecord::pulled()
{
    m_lines.forget();
    m_wasPulled = true;
}

std::string LiveRecord::take(std::string_view bytes, double arrival_s)
{
    std::string text;
    for (const RigLine &line : m_lines.take(bytes)) {
        if (m_hasEnded)
            break;
        if (const auto *row = std::get_if<RigRow>(&line)) {
            add(*row, arrival_s, text);
        } else if (const auto *heading = std::get_if<RigHeading>(&line)) {
            addHeading(*heading, text);
        } else if (const auto *fact = std::get_if<RigFact>(&line)) {
            if (std::find(m_facts.begin(), m_facts.end(), fact->text) != m_facts.end())
                continue; // told again after a restart
            m_facts.push_back(fact->text);
            if (m_hasBegun)
                text += fmt::format("# {}\n", fact->text);
        } else if (const auto *fault = std::get_if<RigFault>(&line)) {
            addFault(*fault, text);
        } else if (const auto *answer = std::get_if<RigAnswer>(&line)) {
            m_answers.push_back(*answer);
        } else {
            ++(std::get<RigDamage>(line).isBeforeHeading ? m_unnamed : m_damaged);
        }
    }
    return text;
}

void LiveRecord::addFault(const RigFault &fault, std::string &text)
{
    m_fault = fault.text;
    m_faults.push_back({m_lastTime_s.value_or(0.0), fault.text.empty() ? "clear" : fault.text});
    if (m_hasBegun)
        text += fmt::format("# fault at {} s: {}\n", m_faults.back().at_s, m_faults.back().text);
}

/// Before anything is recorded any heading will do; afterwards the record keeps its columns, in whatever
/// order they come.
void LiveRecord::addHeading(const RigHeading &heading, std::string &text)
{
    m_unnamed = 0;
    if (!m_hasBegun) {
        setColumns(heading.columns);
        m_lastRigTime_s.reset();
        m_spacings_s.clear();
        m_newRows.clear(); // of other columns
        m_latest.reset();
        return;
    }
    m_sentCells = heading.columns.size();
    m_order.clear();
    for (const Column &column : m_columns) {
        const auto found = std::find(heading.columns.begin(), heading.columns.end(), column);
        if (found != heading.columns.end())
            m_order.push_back(static_cast<std::size_t>(found - heading.columns.begin()));
    }
    m_fits = m_order.size() == m_columns.size();
    if (!m_fits) {
        addFault({"the columns changed"}, text);
        return;
    }
    for (const Column &column : heading.columns) {
        const std::string fact =
            fmt::format("{} came after the record had begun and is left out", column.name);
        const bool isNew = std::find(m_columns.begin(), m_columns.end(), column) == m_columns.end();
        if (!isNew || std::find(m_facts.begin(), m_facts.end(), fact) != m_facts.end())
            continue;
        m_facts.push_back(fact);
        text += fmt::format("# {}\n", fact);
    }
}

double LiveRecord::timeOf(const RigRow &row, double arrival_s, double &missing_s)
{
    const double sinceLast_s = m_lastArrival_s ? arrival_s - *m_lastArrival_s : 0.0;
    const std::optional<std::size_t> &column = m_time;
    double t_s = 0.0;
    bool hasRestarted = false;
    if (column && row.values[*column]) {
        const double rig_s = m_columns[*column].unit->toWorking(*row.values[*column]);
        hasRestarted = m_lastRigTime_s && rig_s < *m_lastRigTime_s;
        if (hasRestarted)
            m_offset_s = *m_lastTime_s + sinceLast_s - rig_s;
        m_lastRigTime_s = rig_s;
        t_s = rig_s + m_offset_s;
    } else if (column) {
        t_s = m_lastTime_s.value_or(0.0) + sinceLast_s;
    } else {
        if (!m_zeroArrival_s)
            m_zeroArrival_s = arrival_s;
        t_s = arrival_s - *m_zeroArrival_s;
    }
    missing_s = 0.0;
    if (m_lastTime_s) {
        // By the rig's own clock where it has one: what a busy machine takes late is not missing.
        const double spacing_s = t_s - *m_lastTime_s;
        const bool isLong = m_spacings_s.size() >= kLeastSpacings && spacing_s >= kLeastGap_s &&
                            spacing_s > kGapTimes * medianOfSome(m_spacings_s);
        if (isLong || hasRestarted || m_wasPulled) {
            missing_s = std::max(spacing_s, std::numeric_limits<double>::min());
        } else {
            m_spacings_s.push_back(spacing_s);
            if (m_spacings_s.size() > kSpacings)
                m_spacings_s.pop_front();
        }
    }
    m_wasPulled = false;
    m_lastArrival_s = arrival_s;
    return t_s;
}

bool LiveRecord::endsWith(double t_s, double reading) const
{
    if (m_rule.rows && m_rows >= *m_rule.rows)
        return true;
    if (m_rule.seconds && t_s - *m_first_s >= *m_rule.seconds)
        return true;
    return m_rule.stopAfterDrop && m_peak > 0.0 && reading < (1.0 - *m_rule.stopAfterDrop) * m_peak;
}

std::string LiveRecord::beginning() const
{
    std::string text;
    for (const std::string &fact : m_facts)
        text += fmt::format("# {}\n", fact);
    for (const RecordedFault &fault : m_faults)
        text += fmt::format("# fault before the record: {}\n", fault.text);
    std::string heading;
    for (const Column &column : m_shownColumns)
        heading += (heading.empty() ? "" : ";") + headingCell(column);
    return text + heading + "\n";
}

void LiveRecord::add(const RigRow &sent, double arrival_s, std::string &text)
{
    if (!m_fits || sent.values.size() != m_sentCells) {
        ++m_damaged;
        return;
    }
    RigRow row = sent;
    if (!m_order.empty()) {
        row.values.resize(m_order.size());
        for (std::size_t i = 0; i < m_order.size(); ++i)
            row.values[i] = sent.values[m_order[i]];
    }
    const std::size_t main = m_main;
    const std::optional<std::size_t> &time = m_time;
    const std::optional<double> &value = row.values[time ? main : main - 1];
    const double reading = std::abs(value.value_or(0.0));
    const bool begins = !m_hasBegun && (!m_rule.startAt || (value && reading >= *m_rule.startAt));
    if (begins)
        m_zeroArrival_s = arrival_s; // a record without times of its own begins at 0
    double missing_s = 0.0;
    const std::optional<double> before_s = m_lastTime_s;
    RecordedRow recorded{timeOf(row, arrival_s, missing_s), row.values};
    m_lastTime_s = recorded.t_s;
    if (time)
        recorded.values[*time] = m_columns[*time].unit->fromWorking(recorded.t_s);
    else
        recorded.values.insert(recorded.values.begin(), recorded.t_s);
    m_latest = recorded;
    if (begins) {
        m_hasBegun = true;
        m_first_s = recorded.t_s;
        text += beginning();
    } else if (m_hasBegun && missing_s > 0.0) {
        m_gaps.push_back({*before_s, recorded.t_s});
        text += fmt::format("# gap from {} to {} s\n", *before_s, recorded.t_s);
    }
    m_newRows.push_back(recorded);
    if (!m_hasBegun)
        return;
    ++m_rows;
    m_last_s = recorded.t_s;
    m_peak = std::max(m_peak, reading);
    for (std::size_t i = 0; i < recorded.values.size(); ++i)
        text += fmt::format("{}{}", i == 0 ? "" : ";",
                            recorded.values[i] ? fmt::format("{}", *recorded.values[i]) : std::string());
    text += '\n';
    m_hasEnded = endsWith(*m_last_s, value ? reading : m_peak);
}

} // namespace inchpeg
