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

/// How a person wants a file to be understood.
struct ColumnMapping {
    std::optional<std::size_t> table;      ///< which of several tables, from 1; nothing: as found
    std::vector<ColumnAssignment> columns; ///< one a column; empty: as found
    [[nodiscard]] bool empty() const { return !table && columns.empty(); }
    bool operator==(const ColumnMapping &) const = default;
};

/// The mapping that repeats a layout as it stands.
ColumnMapping mappingOf(const Layout &layout);

/// The layout with its columns understood as the mapping says; one without columns changes nothing.
/// Errors: InvalidArgument where the number of columns differs or a unit does not fit its quantity.
Result<Layout> withMapping(Layout layout, const ColumnMapping &mapping);

/// "force[N];extension[mm]!;-": the form in which a mapping is kept ("!" marks a crosshead); where a table is
/// chosen it begins with "table 2;".
std::string mappingText(const ColumnMapping &mapping);
/// Errors: BadInput where the text is not such a form.
Result<ColumnMapping> mappingFromText(std::string_view text);

} // namespace inchpeg
