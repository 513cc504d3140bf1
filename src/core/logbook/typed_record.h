// SPDX-License-Identifier: GPL-3.0-or-later
// Readings that were taken by eye and typed: they become a record like any other, delimited text that is kept
// as raw data and never overwritten. A correction is a further record; the one before stays in the project.
#pragma once

#include "core/method/method.h"
#include "core/text/notation.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A column of the card in which a test's readings are typed.
struct TypedColumn {
    std::string_view name; ///< in the record
    std::string_view label;
    std::string_view meaning;
    std::optional<Dimension> dimension; ///< empty: one of the choices
    std::span<const std::string_view> choices;
    bool isRequired = false;
    bool acceptsMass = false;
    bool isElapsed = false; ///< a time that follows from when the rows were typed where it is left empty
    bool isInHours = false; ///< a time that people count in hours: a bare number is so many
};

/// Units of cells that name none, one a column.
std::vector<Unit> shownUnits(const std::vector<TypedColumn> &columns, const Notation &notation);
/// What was typed, in the column's own word where it is a choice; what is none of them stays as it was typed.
std::string typedCell(const TypedColumn &column, std::string text);

/// Of a test with a record over time, travel or temperature its columns; of one that is read from a row the
/// parameters that are of the piece and are not measured in the log.
std::vector<TypedColumn> typedColumns(const Reduction &reduction);

struct TypedRow {
    std::vector<std::string> cells; ///< as typed, one a column; those behind the last may be left out
    std::string takenAt;            ///< ISO 8601, UTC
    bool operator==(const TypedRow &) const = default;
};

struct TypedRecord {
    std::string code; ///< of the piece
    std::string who;
    std::string gauge; ///< what was read, in a word or two; may be empty
    std::vector<TypedRow> rows;
    bool operator==(const TypedRecord &) const = default;
};

/// The bytes of a record from typed rows: a head that says who typed it and on what, the values in working
/// units, when each row was taken and what was typed. Rows without any text are left out.
/// units: one a column, for cells without a unit; those of choices are not looked at.
/// Errors: BadInput with the row (line) and column for a cell that is no such value, for a needed one that is
/// empty, and without a row.
Result<std::string> typedRecordText(const TypedRecord &record, const Reduction &reduction,
                                    std::span<const Unit> units);

/// The rows of such a record as they were typed, so that it can be gone on with; nothing for other bytes.
std::optional<TypedRecord> typedRecordFrom(std::string_view bytes, const Reduction &reduction);
/// The same with the values as they were understood, each with its unit, so that it can be gone on with
/// whatever units are shown by now.
std::optional<TypedRecord> typedRecordWithUnits(std::string_view bytes, const Reduction &reduction);

} // namespace inchpeg
