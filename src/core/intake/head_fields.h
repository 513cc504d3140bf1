// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/import/layout.h"
#include "core/specimen/section.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A line above a table that says something of the whole record: "Width: 10.02 mm".
struct HeadField {
    std::string name; ///< as written, without marks behind it
    std::string value;
    std::string unit; ///< in a cell of its own, or in brackets behind the name; else empty
    std::size_t line = 0;
};

/// The fields above the table of a text. A colon, an equals sign or the table's own delimiter parts name and
/// value.
std::vector<HeadField> headFieldsOf(std::string_view text, const Layout &layout);

/// What the program knows what to do with.
enum class HeadMeaning {
    None,
    Specimen,
    Material,
    Lot,
    Width,
    Thickness,
    Diameter,
    Operator,
    Date,
    Speed,
    Test
};
HeadMeaning meaningOfHead(std::string_view name);

/// A size of a piece in mm, with the unit that stands with it; mm where none does. Nothing where it is no
/// length.
std::optional<double> lengthOfHead(const HeadField &field);

/// The section that the fields give; nothing where they give none.
std::optional<Section> sectionOfHeads(const std::vector<HeadField> &fields);

} // namespace inchpeg
