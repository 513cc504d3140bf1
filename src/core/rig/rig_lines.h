// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/import/column.h"

#include <deque>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace inchpeg
{

/// What a rig or logger says on its line, as docs/rig_protocol.md has it. A rig that only prints numbers
/// speaks it.

/// Names and units of the columns that follow. It may come again, when the rig was restarted.
struct RigHeading {
    std::vector<Column> columns;
    bool operator==(const RigHeading &) const = default;
};
/// A reading a column, in the column's unit; nothing for an empty cell.
struct RigRow {
    std::vector<std::optional<double>> values;
};
struct RigFact {
    std::string text; ///< "range = 2 kN"
};
struct RigFault {
    std::string text; ///< "overload"; empty: the fault has ended
};
struct RigAnswer {
    bool isOk = false;
    std::string text;
};
struct RigDamage {
    std::string line;             ///< what came, cut to a readable length
    bool isBeforeHeading = false; ///< a row of numbers whose columns nobody has named yet
};
using RigLine = std::variant<RigHeading, RigRow, RigFact, RigFault, RigAnswer, RigDamage>;

/// What a rig without a heading sends: one reading a line.
struct RigDefault {
    ColumnQuantity quantity = ColumnQuantity::Force;
    Unit unit = *findUnit("N");
};

/// Cuts what comes over a line into lines, however it is chopped, and reads each.
class RigLines
{
public:
    explicit RigLines(const RigDefault &usual = {});

    /// The lines that are complete by now, blank ones left out.
    std::vector<RigLine> take(std::string_view bytes);
    /// The columns of the rows that come next.
    [[nodiscard]] const std::vector<Column> &columns() const { return m_columns; }
    /// True once a heading came.
    [[nodiscard]] bool hasHeading() const { return m_hasHeading; }
    /// Throws away what came of a line that is not complete: the cable was pulled.
    void forget();
    /// A line that holds this and nothing else is what was sent to the rig, come back; once.
    void expectEcho(const std::string &command);

private:
    bool isEcho(std::string_view line);
    std::optional<RigLine> read(std::string_view line);
    std::optional<RigLine> readCells(std::string_view line);

    std::vector<Column> m_columns;
    char m_delimiter = ';';
    bool m_hasHeading = false;
    std::string m_pending;
    std::deque<std::string> m_sent; ///< to the rig, and not come back
    bool m_isTooLong = false;       ///< what is pending is thrown away up to its end
    bool m_endedByReturn = false;   ///< a line feed that follows ends no line of its own
};

inline constexpr std::size_t kLongestRigLine = 4096;

} // namespace inchpeg
