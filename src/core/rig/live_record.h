// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/rig/rig_lines.h"

#include <cstddef>
#include <deque>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A stretch without readings, in the record's time.
struct RecordGap {
    double from_s = 0.0;
    double to_s = 0.0;
};
/// What the rig reported, and when.
struct RecordedFault {
    double at_s = 0.0;
    std::string text; ///< "overload"; "clear" where it ended
};

/// When a record begins and ends by itself; by the main channel, see LiveRecord::mainColumn().
struct RecordRule {
    std::optional<double> startAt{};       ///< first |reading| that counts, in the column's unit
    std::optional<double> stopAfterDrop{}; ///< a fraction of the largest |reading| that it falls by
    std::optional<double> seconds{};       ///< of the record
    std::optional<std::size_t> rows{};
};

/// A row of a record: its time, and its readings in the units of the columns.
struct RecordedRow {
    double t_s = 0.0;
    std::vector<std::optional<double>> values; ///< the time column among them
};

/// Makes a record of what a rig sends: when it begins and ends, where its time comes from, what was missed.
/// Time is that of the column of times where there is one (a jump back starts a new count and is a gap), else
/// that of arrival; a gap is a silence by that same clock. What is recorded comes out as delimited text, to
/// be appended to a file as it comes.
class LiveRecord
{
public:
    explicit LiveRecord(const RecordRule &rule, const RigDefault &usual = {});

    /// The next record on the same line: columns and facts are known.
    LiveRecord(const RecordRule &rule, const LiveRecord &before);

    /// arrival_s: by a clock that cannot be set. The text to append, empty where nothing is to be kept yet.
    std::string take(std::string_view bytes, double arrival_s);
    /// A command went out: a line that does not speak yet may send it back as it came.
    void sent(const std::string &command) { m_lines.expectEcho(command); }
    /// The cable was pulled: what came of a line is lost, and the next row ends a gap.
    void pulled();

    /// By rule: enough rows, seconds, or the drop that ends it.
    [[nodiscard]] bool hasEnded() const { return m_hasEnded; }
    [[nodiscard]] bool hasBegun() const { return m_hasBegun; }
    [[nodiscard]] std::size_t rows() const { return m_rows; }
    /// Damaged lines; rows of numbers that came before a heading count only while none has come.
    [[nodiscard]] std::size_t damaged() const { return m_damaged + m_unnamed; }
    [[nodiscard]] double seconds() const { return m_first_s ? *m_last_s - *m_first_s : 0.0; }
    [[nodiscard]] const std::vector<RecordGap> &gaps() const { return m_gaps; }
    [[nodiscard]] const std::vector<RecordedFault> &faults() const { return m_faults; }
    [[nodiscard]] const std::vector<std::string> &facts() const { return m_facts; }
    [[nodiscard]] const std::vector<RigAnswer> &answers() const { return m_answers; }
    /// Of the record, with a time before them where the rig sends none.
    [[nodiscard]] const std::vector<Column> &columns() const { return m_shownColumns; }
    /// Place of the force, torque or other reading that the rule is about, among columns().
    [[nodiscard]] std::size_t mainColumn() const { return m_main; }
    /// The latest row, recorded or not yet begun; and those that came since they were last taken, recorded or
    /// not.
    [[nodiscard]] const std::optional<RecordedRow> &latest() const { return m_latest; }
    std::vector<RecordedRow> takeNewRows();
    /// The largest |reading| of the main column since the beginning.
    [[nodiscard]] double peak() const { return m_peak; }
    /// The fault that is reported now; empty without one.
    [[nodiscard]] const std::string &fault() const { return m_fault; }

private:
    void add(const RigRow &row, double arrival_s, std::string &text);
    void addHeading(const RigHeading &heading, std::string &text);
    void addFault(const RigFault &fault, std::string &text);
    /// The record's time of a row. missing_s: how long nothing came before it, where that is a gap.
    [[nodiscard]] double timeOf(const RigRow &row, double arrival_s, double &missing_s);
    [[nodiscard]] std::string beginning() const;
    [[nodiscard]] bool endsWith(double t_s, double reading) const;
    void setColumns(const std::vector<Column> &columns);

    RecordRule m_rule;
    RigLines m_lines;
    std::vector<Column> m_columns;      ///< of the rig, as the record holds them
    std::vector<Column> m_shownColumns; ///< with a time before them where the rig sends none
    std::optional<std::size_t> m_time;  ///< among the rig's own
    std::size_t m_main = 0;             ///< among those that are shown
    std::size_t m_sentCells = 0;        ///< in a row as it comes now
    std::vector<std::size_t> m_order;   ///< where each of them comes in a row; empty: as it is
    bool m_fits = true;                 ///< what comes now has these columns
    std::vector<std::string> m_facts;
    std::vector<RecordGap> m_gaps;
    std::vector<RecordedFault> m_faults;
    std::vector<RigAnswer> m_answers;
    std::string m_fault;
    std::size_t m_rows = 0;
    std::size_t m_damaged = 0;
    std::size_t m_unnamed = 0;
    bool m_hasBegun = false;
    bool m_hasEnded = false;
    double m_peak = 0.0;
    double m_offset_s = 0.0;               ///< of the record's time beside the rig's own, after a restart
    std::optional<double> m_lastRigTime_s; ///< as sent
    std::optional<double> m_lastArrival_s;
    std::optional<double> m_zeroArrival_s; ///< where time is that of arrival
    std::optional<double> m_lastTime_s;    ///< of the latest row, recorded or not
    std::optional<double> m_first_s;       ///< of the rows recorded
    std::optional<double> m_last_s;
    std::deque<double> m_spacings_s; ///< of the latest rows
    bool m_wasPulled = false;        ///< since the latest row
    std::optional<RecordedRow> m_latest;
    std::vector<RecordedRow> m_newRows;
};

} // namespace inchpeg
