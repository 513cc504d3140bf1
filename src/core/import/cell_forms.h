// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/import/column.h"
#include "core/units/number.h"

#include <optional>
#include <span>
#include <string_view>

namespace inchpeg
{

/// A number with a unit behind it: "12.3 N", "0,12%".
struct NumberWithUnit {
    double value = 0.0;
    std::string_view unit;
};
std::optional<NumberWithUnit> numberWithUnit(std::string_view cell, const NumberFormat &numbers);

/// Whether a cell that is no plain number holds one in another form: a unit behind it, a time of day.
bool isNumberInOtherForm(std::string_view cell, const NumberFormat &numbers);

/// Understands a column whose cells are no plain numbers, from those of its first rows: a unit behind each
/// number, or clock times (where its heading tells a time or nothing). Leaves it as it is where they are
/// neither. True where it holds numbers then.
bool takeCellForm(Column &column, std::span<const std::string_view> cells, const NumberFormat &numbers,
                  std::span<const Column> others);

/// A cell of a column as it was understood, in the column's unit.
Cell readCellOf(const Column &column, std::string_view text, const NumberFormat &numbers);

/// A sentence about a cell that is not as the others of its column are; empty where it is as any text.
std::string otherFormMessage(const Column &column, std::string_view text, const NumberFormat &numbers);

} // namespace inchpeg
