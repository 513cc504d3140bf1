// SPDX-License-Identifier: GPL-3.0-or-later
// Any bytes as a table: text, the parts of a workbook or of an open document. It is read or refused in words;
// a mapping chosen over what was understood changes what it says and nothing else, and a kept mapping comes
// back as it was.
#include "core/import/mapping.h"
#include "core/import/record_table.h"
#include "core/import/table.h"
#include "core/import/text.h"
#include "support/zip_bytes.h"

#include <array>
#include <cstdint>
#include <cstdlib>
#include <numeric>

namespace
{
using namespace inchpeg;

/// What stands between the parts of a workbook in one input.
constexpr std::string_view kBetweenParts = "\n====\n";

std::vector<std::string> partsOf(std::string_view bytes)
{
    std::vector<std::string> parts;
    for (std::size_t at = bytes.find(kBetweenParts); at != std::string_view::npos;
         at = bytes.find(kBetweenParts)) {
        parts.emplace_back(bytes.substr(0, at));
        bytes.remove_prefix(at + kBetweenParts.size());
    }
    parts.emplace_back(bytes);
    return parts;
}

std::string workbookOf(std::string_view bytes)
{
    static constexpr std::array kNames{"xl/worksheets/sheet1.xml", "xl/sharedStrings.xml", "xl/styles.xml",
                                       "xl/workbook.xml", "xl/_rels/workbook.xml.rels"};
    std::vector<std::string> parts = partsOf(bytes);
    if (parts.size() < 4)
        parts.resize(4);
    if (parts[3].empty())
        parts[3] =
            R"(<workbook xmlns:r="r"><sheets><sheet name="S" sheetId="1" r:id="a"/></sheets></workbook>)";
    if (parts.size() < 5)
        parts.emplace_back(
            R"(<Relationships><Relationship Id="a" Type="x/worksheet" Target="worksheets/sheet1.xml"/>)"
            R"(<Relationship Id="b" Type="x/sharedStrings" Target="sharedStrings.xml"/>)"
            R"(<Relationship Id="c" Type="x/styles" Target="styles.xml"/></Relationships>)");
    std::vector<test::ZipPart> zip;
    for (std::size_t part = 0; part < std::min(parts.size(), kNames.size()); ++part)
        zip.push_back({kNames[part], parts[part]});
    return test::zipBytes(zip);
}

void mustSay(const Error &error)
{
    if (error.message.empty())
        std::abort();
}

void readWithMapping(std::string_view text, const Layout &layout, std::uint8_t choice)
{
    ColumnMapping mapping = mappingOf(layout);
    for (std::size_t column = 0; column < mapping.columns.size(); ++column) {
        if ((choice >> (column % 8) & 1) != 0)
            mapping.columns[column] = {ColumnQuantity::Force, choice % 2 != 0 ? "kN" : "mm"};
    }
    const Result<ColumnMapping> kept = mappingFromText(mappingText(mapping));
    if (!kept || !(*kept == mapping))
        std::abort();
    const Result<Layout> mapped = withMapping(layout, mapping);
    if (!mapped)
        return mustSay(mapped.error());
    std::vector<std::size_t> all(mapped->columns.size());
    std::iota(all.begin(), all.end(), std::size_t{0});
    const Result<Readings> readings = readReadings(text, *mapped, all);
    if (!readings)
        return mustSay(readings.error());
    for (const std::vector<double> &column : readings->columns) {
        if (column.size() != readings->rows)
            std::abort();
    }
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t *data, std::size_t size)
{
    if (size < 2)
        return 0;
    // The first byte chooses what is around the rest, the second the mapping.
    const std::string_view rest(reinterpret_cast<const char *>(data) + 2, size - 2);
    std::string bytes;
    switch (data[0] % 3) {
    case 0:
        bytes = rest;
        break;
    case 1:
        bytes = workbookOf(rest);
        break;
    default:
        bytes = test::zipBytes({{"mimetype", "application/vnd.oasis.opendocument.spreadsheet"},
                                {"content.xml", std::string(rest)}});
    }
    const Result<DecodedText> text = decodeText(bytes);
    if (!text) {
        mustSay(text.error());
        return 0;
    }
    const Result<TextTable> table = readTable(text->utf8);
    if (!table) {
        mustSay(inSheet(*text, table.error()));
    } else {
        if (table->lines.size() != table->rows.size() || table->columns.size() != table->names.size())
            std::abort();
        for (std::size_t column = 0; column < table->names.size(); ++column) {
            if (const auto numbers = numbersOf(*table, column); !numbers)
                mustSay(numbers.error());
        }
    }
    const Result<std::vector<Layout>> layouts = findTables(text->utf8);
    if (!layouts) {
        mustSay(layouts.error());
        return 0;
    }
    for (const Layout &layout : *layouts)
        readWithMapping(text->utf8, layout, data[1]);
    return 0;
}
