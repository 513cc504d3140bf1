// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/import/layout.h"

#include <cstddef>
#include <span>
#include <vector>

namespace inchpeg
{

/// Reads rows of plain decimal numbers, which nearly all rows of nearly all files are, without looking at
/// anything twice. What it cannot read it leaves to the careful reader; what it reads is bit for bit the
/// same.
class PlainRowReader
{
public:
    /// wanted: indices into layout.columns.
    PlainRowReader(const Layout &layout, std::span<const std::size_t> wanted);

    /// Reads the row that starts at `at` into row (one value a wanted column, as written, not converted) and
    /// moves `at` behind its line end. False, with `at` unmoved, where anything but the layout's number of
    /// plain numbers (or unquoted text in columns that are neither wanted nor numeric) stands there.
    bool read(const char *&at, const char *end, std::span<double> row) const;

private:
    bool readCell(const char *&at, const char *end, double &value) const;
    bool readLongCell(const char *&at, const char *end, double &value) const;
    const char *skipBlanks(const char *at, const char *end) const;

    char m_delimiter;
    char m_decimal;
    bool m_trailingDelimiter;
    std::vector<int> m_slotOfColumn; ///< index into row; kNumberNotWanted or kTextNotWanted
};

} // namespace inchpeg
