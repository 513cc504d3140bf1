// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/import/layout.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// How a person wants one column to be understood.
struct ColumnAssignment {
    std::optional<ColumnQuantity> quantity; ///< nothing: the column is not used
    std::string unitSymbol;                 ///< empty without a quantity
    bool isCrosshead = false;
    bool isTransverse = false;
    bool operator==(const ColumnAssignment &) const = default;
};

/// A value of a piece that came without its record.
struct GivenValue {
    std::string property; ///< of the piece's test
    double number = 0.0;  ///< in the working unit of the property
    bool isAtLeast = false;
    std::string column; ///< of the table that gave it, as its heading names it
    bool operator==(const GivenValue &) const = default;
};

/// The row of a table of results that is taken for a piece's record: its values are given, not read.
struct GivenRow {
    std::size_t line = 0; ///< of the text of the whole file, from 1
    std::vector<GivenValue> values;
    bool operator==(const GivenRow &) const = default;
};

/// How a person wants a file to be understood.
struct ColumnMapping {
    std::optional<std::size_t> table;      ///< which of several tables, from 1; nothing: as found
    std::vector<ColumnAssignment> columns; ///< one a column; empty: as found
    std::optional<GivenRow> given{};       ///< it is no record: the piece's values stand in one of its rows
    [[nodiscard]] bool empty() const { return !table && columns.empty() && !given; }
    bool operator==(const ColumnMapping &) const = default;
};

/// The mapping that repeats a layout as it stands.
ColumnMapping mappingOf(const Layout &layout);

/// The layout with its columns understood as the mapping says; one without columns changes nothing.
/// Errors: InvalidArgument where the number of columns differs or a unit does not fit its quantity.
Result<Layout> withMapping(Layout layout, const ColumnMapping &mapping);

/// "force[N];extension[mm]!;-": the form in which a mapping is kept ("!" marks a crosshead); where a table is
/// chosen it begins with "table 2;"; a row of results is "given 12;tensile_strength=45.2@Strength [MPa]",
/// ">=" for a lower bound, with "%3B" and the like for the marks of this form in a heading.
std::string mappingText(const ColumnMapping &mapping);
/// Errors: BadInput where the text is not such a form.
Result<ColumnMapping> mappingFromText(std::string_view text);

} // namespace inchpeg
