// SPDX-License-Identifier: GPL-3.0-or-later
// A table of results, one row a piece: what each of its columns is, and what its rows give.
#pragma once

#include "core/import/table.h"
#include "core/intake/study_proposal.h"
#include "core/method/method.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// What a column of a table of results holds.
struct ResultsColumn {
    enum class Role {
        Aside,
        Code,
        Property,
        Factor,
        Material,
        Width,
        Thickness,
        Diameter,
        Weighed,
        Note,
        Break,
        Dated
    };
    std::string heading; ///< as the table names it
    Role role = Role::Aside;
    std::string property; ///< of Role::Property
    std::optional<Unit> unit;
    Factor factor{};        ///< of Role::Factor
    std::string question{}; ///< what cannot be known of it: a sentence; else empty
    std::vector<std::string> choices{};
};

/// What a person says of a column: the property or factor that it is.
struct SaidColumn {
    std::string heading;
    std::string meaning; ///< a property's name; "code"; "-" for one that is left aside
    std::string unit;    ///< empty: as found
};

struct ResultsRow {
    std::size_t line = 0; ///< of the text, from 1
    std::string code;     ///< empty where the table has none
    std::vector<std::string> cells;
};

/// A cell that cannot be taken.
struct RefusedCell {
    std::size_t line = 0;
    std::size_t column = 0; ///< from 1
    std::string why;
};

struct ResultsTable {
    std::vector<ResultsColumn> columns;
    std::vector<ResultsRow> rows;
    NumberFormat numbers;
    Method test = Method::Tension; ///< that most of its columns speak of
    bool isTestAssumed = false;    ///< no column says which test it was
    std::vector<std::string> warnings;
};

struct ResultsRequest {
    std::optional<Method> test{}; ///< empty: the columns tell it
    std::vector<SaidColumn> said{};
    std::vector<NamedFactor> factors{};
    std::string codeColumn{}; ///< its heading; empty: as found
};

/// Understands the columns by their headings in the languages that the importer knows, and by what is in
/// them. What may be read in two ways is a question of its column.
/// Errors: BadInput for a text without rows, with two columns of one heading where it matters;
/// InvalidArgument for a column or property that is not there.
Result<ResultsTable> understandResults(std::string_view text, const ResultsRequest &request);

/// What a row gives: its values in working units, each with the heading of its column.
/// refused: cells that hold no number and are not empty, and upper bounds.
GivenRow valuesOf(const ResultsTable &table, const ResultsRow &row, std::vector<RefusedCell> &refused);

/// Whether a text is a table of results rather than the record of one test: rows of different specimens, and
/// headings that name results.
bool isResultsTable(std::string_view text);

} // namespace inchpeg
