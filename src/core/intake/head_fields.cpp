// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intake/head_fields.h"

#include "core/import/cells.h"
#include "core/import/heading_words.h"
#include "core/import/text.h"
#include "core/units/number.h"
#include "core/units/quantity.h"

#include <algorithm>
#include <array>
#include <utility>

namespace inchpeg
{

namespace
{

using Meant = std::pair<std::string_view, HeadMeaning>;
constexpr std::array kMeanings = {
    Meant{"specimen", HeadMeaning::Specimen},
    Meant{"specimen id", HeadMeaning::Specimen},
    Meant{"specimen name", HeadMeaning::Specimen},
    Meant{"sample", HeadMeaning::Specimen},
    Meant{"sample id", HeadMeaning::Specimen},
    Meant{"sample name", HeadMeaning::Specimen},
    Meant{"piece", HeadMeaning::Specimen},
    Meant{"probe", HeadMeaning::Specimen},
    Meant{"prüfling", HeadMeaning::Specimen},
    Meant{"éprouvette", HeadMeaning::Specimen},
    Meant{"material", HeadMeaning::Material},
    Meant{"werkstoff", HeadMeaning::Material},
    Meant{"matériau", HeadMeaning::Material},
    Meant{"polymer", HeadMeaning::Material},
    Meant{"filament", HeadMeaning::Material},
    Meant{"lot", HeadMeaning::Lot},
    Meant{"batch", HeadMeaning::Lot},
    Meant{"charge", HeadMeaning::Lot},
    Meant{"width", HeadMeaning::Width},
    Meant{"breite", HeadMeaning::Width},
    Meant{"largeur", HeadMeaning::Width},
    Meant{"b", HeadMeaning::Width},
    Meant{"w", HeadMeaning::Width},
    Meant{"thickness", HeadMeaning::Thickness},
    Meant{"dicke", HeadMeaning::Thickness},
    Meant{"épaisseur", HeadMeaning::Thickness},
    Meant{"h", HeadMeaning::Thickness},
    Meant{"diameter", HeadMeaning::Diameter},
    Meant{"durchmesser", HeadMeaning::Diameter},
    Meant{"diamètre", HeadMeaning::Diameter},
    Meant{"operator", HeadMeaning::Operator},
    Meant{"prüfer", HeadMeaning::Operator},
    Meant{"opérateur", HeadMeaning::Operator},
    Meant{"tested by", HeadMeaning::Operator},
    Meant{"date", HeadMeaning::Date},
    Meant{"datum", HeadMeaning::Date},
    Meant{"test date", HeadMeaning::Date},
    Meant{"speed", HeadMeaning::Speed},
    Meant{"test speed", HeadMeaning::Speed},
    Meant{"crosshead speed", HeadMeaning::Speed},
    Meant{"prüfgeschwindigkeit", HeadMeaning::Speed},
    Meant{"vitesse", HeadMeaning::Speed},
    Meant{"test", HeadMeaning::Test},
    Meant{"test type", HeadMeaning::Test},
    Meant{"method", HeadMeaning::Test},
    Meant{"prüfung", HeadMeaning::Test},
    Meant{"prüfart", HeadMeaning::Test},
    Meant{"essai", HeadMeaning::Test},
};

constexpr std::string_view kNameMarks = " \t:=#%*.\"";

std::string_view withoutMarks(std::string_view text)
{
    const std::size_t from = text.find_first_not_of(kNameMarks);
    if (from == std::string_view::npos)
        return {};
    return text.substr(from, text.find_last_not_of(kNameMarks) + 1 - from);
}

/// A unit in brackets behind the name.
void takeBracket(HeadField &field)
{
    const std::size_t open = field.name.find_last_of("([");
    if (open == std::string::npos || open == 0 || field.name.find_first_of(")]", open) == std::string::npos)
        return;
    const std::size_t close = field.name.find_first_of(")]", open);
    const std::string unit = field.name.substr(open + 1, close - open - 1);
    if (!findUnit(unit))
        return;
    field.unit = unit;
    field.name = std::string(withoutMarks(std::string_view(field.name).substr(0, open)));
}

/// What parts name and value: a colon or an equals sign, else what parts cells, whichever comes first.
std::optional<HeadField> fieldOf(std::string_view line, char delimiter)
{
    const std::string_view marks = delimiter == ',' ? ":=;\t," : ":=;\t";
    const std::size_t mark = line.find_first_of(marks);
    if (mark == std::string_view::npos || mark == 0)
        return std::nullopt;
    const std::string_view name = line.substr(0, mark);
    const bool isOfCells = line[mark] != ':' && line[mark] != '=';
    const char parts = isOfCells ? line[mark] : delimiter == ' ' ? kNoDelimiter : delimiter;
    std::vector<std::string_view> cells;
    splitCells(line.substr(mark + 1), parts, cells);
    HeadField field{std::string(withoutMarks(name)), {}, {}, 0};
    for (const std::string_view cell : cells) {
        const std::string text = cellText(cell);
        if (text.empty())
            continue;
        if (field.value.empty())
            field.value = text;
        else if (field.unit.empty() && findUnit(text))
            field.unit = text;
        else
            return std::nullopt; // a row of several things
    }
    takeBracket(field);
    if (field.name.empty() || field.value.empty() || readCell(field.name, {}).kind == CellKind::Number)
        return std::nullopt;
    return field;
}

} // namespace

std::vector<HeadField> headFieldsOf(std::string_view text, const Layout &layout)
{
    std::vector<HeadField> fields;
    const std::size_t last = layout.headingLine ? *layout.headingLine - 1 : layout.headerLines;
    for (std::size_t line = 1; line <= last && !text.empty(); ++line) {
        const std::string_view current = takeLine(text);
        if (std::optional<HeadField> field = fieldOf(current, layout.delimiter)) {
            field->line = line;
            fields.push_back(std::move(*field));
        }
    }
    return fields;
}

HeadMeaning meaningOfHead(std::string_view name)
{
    std::string small = lowered(name);
    std::replace(small.begin(), small.end(), '_', ' ');
    for (const auto &[word, meaning] : kMeanings) {
        if (word == small)
            return meaning;
    }
    return HeadMeaning::None;
}

std::optional<double> lengthOfHead(const HeadField &field)
{
    const Unit fallback = findUnit(field.unit).value_or(workingUnit(Dimension::Length));
    if (fallback.dimension != Dimension::Length)
        return std::nullopt;
    const Result<double> value = parseQuantity(field.value, fallback);
    return value && *value > 0.0 ? std::optional(*value) : std::nullopt;
}

std::optional<Section> sectionOfHeads(const std::vector<HeadField> &fields)
{
    std::optional<double> width_mm;
    std::optional<double> thickness_mm;
    std::optional<double> diameter_mm;
    for (const HeadField &field : fields) {
        switch (meaningOfHead(field.name)) {
        case HeadMeaning::Width:
            width_mm = lengthOfHead(field);
            break;
        case HeadMeaning::Thickness:
            thickness_mm = lengthOfHead(field);
            break;
        case HeadMeaning::Diameter:
            diameter_mm = lengthOfHead(field);
            break;
        default:
            break;
        }
    }
    if (width_mm && thickness_mm)
        return RectangularSection{millimetres(*width_mm), millimetres(*thickness_mm)};
    if (diameter_mm)
        return RoundSection{millimetres(*diameter_mm)};
    return std::nullopt;
}

} // namespace inchpeg
