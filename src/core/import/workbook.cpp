// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/workbook.h"

#include "core/import/archive_check.h"

#include <fmt/format.h>

#include <cmath>
#include <cstdint>
#include <exception>
#include <ixion/cell_access.hpp>
#include <ixion/formula_result.hpp>
#include <ixion/model_context.hpp>
#include <optional>
#include <orcus/orcus_xlsx.hpp>
#include <orcus/spreadsheet/document.hpp>
#include <orcus/spreadsheet/factory.hpp>
#include <orcus/spreadsheet/sheet.hpp>

namespace inchpeg
{

namespace
{

constexpr std::string_view kLocalHeader = "PK\x03\x04";
constexpr std::string_view kDirectoryEntry = "PK\x01\x02";
constexpr std::size_t kUnpackedSizeAt = 24; ///< in an entry of the archive's directory
constexpr std::uint64_t kMostUnpacked = std::uint64_t{512} << 20U;
constexpr orcus::spreadsheet::range_size_t kSheetSize{1048576, 16384};

/// What the archive's own directory says it unpacks to; an archive may be made to fill the memory.
std::uint64_t unpackedSize(std::string_view bytes)
{
    std::uint64_t size = 0;
    for (std::size_t at = bytes.find(kDirectoryEntry); at != std::string_view::npos;
         at = bytes.find(kDirectoryEntry, at + kDirectoryEntry.size())) {
        std::uint32_t entry = 0;
        for (std::size_t i = 4; i-- > 0 && at + kUnpackedSizeAt + 4 <= bytes.size();)
            entry = entry << 8U | static_cast<unsigned char>(bytes[at + kUnpackedSizeAt + i]);
        size += entry;
    }
    return size;
}

/// A text cell on one line, without what would part cells.
std::string cellText(std::string_view text)
{
    std::string out(text);
    for (char &c : out) {
        if (c == '\t' || c == '\n' || c == '\r' || c == kSheetMark)
            c = ' ';
    }
    return out;
}

std::string cellText(const ixion::model_context &cells, const ixion::abs_address_t &address)
{
    const ixion::cell_access cell = cells.get_cell_access(address);
    switch (cell.get_value_type()) {
    case ixion::cell_value_t::numeric:
        return fmt::format("{}", cell.get_numeric_value());
    case ixion::cell_value_t::boolean:
        return cell.get_boolean_value() ? "yes" : "no";
    case ixion::cell_value_t::string:
        return cellText(cell.get_string_value());
    case ixion::cell_value_t::error:
        return "#N/A";
    default:
        return {};
    }
}

void appendSheet(std::string &text, const orcus::spreadsheet::document &book, ixion::sheet_t index)
{
    const ixion::model_context &cells = book.get_model_context();
    const ixion::abs_range_t range = cells.get_data_range(index);
    text += fmt::format("{}{}\n", kSheetMark, cellText(book.get_sheet_name(index)));
    if (!range.valid())
        return;
    for (ixion::row_t row = 0; row <= range.last.row; ++row) {
        std::string line;
        for (ixion::col_t column = range.first.column; column <= range.last.column; ++column) {
            if (column > range.first.column)
                line += '\t';
            line += cellText(cells, {index, row, column});
        }
        // Empty cells at the end of a row belong to other rows' remarks.
        line.erase(line.find_last_not_of('\t') + 1);
        text += line + '\n';
    }
}

} // namespace

bool isWorkbook(std::string_view bytes)
{
    return bytes.starts_with(kLocalHeader);
}

Result<std::string> workbookText(std::string_view bytes)
{
    if (unpackedSize(bytes) > kMostUnpacked)
        return badInput(
            "the workbook would unpack to more than 512 MB; save the sheet with the record as text");
    if (const std::optional<std::string> damage = archiveDamage(bytes))
        return badInput(
            fmt::format("the file looks like an Excel workbook (.xlsx) but is damaged: {}; take it again "
                        "from where it came, or save it anew in a spreadsheet",
                        *damage));
    try {
        orcus::spreadsheet::document book{kSheetSize};
        orcus::spreadsheet::import_factory factory{book};
        orcus::orcus_xlsx reader(&factory);
        reader.read_stream(bytes);
        std::string text;
        const auto sheets = static_cast<ixion::sheet_t>(book.get_sheet_count());
        for (ixion::sheet_t sheet = 0; sheet < sheets; ++sheet)
            appendSheet(text, book, sheet);
        if (sheets == 0)
            return badInput("the file is an archive but no Excel workbook (.xlsx): it holds no sheet");
        return text;
    } catch (const std::exception &problem) {
        return badInput(
            fmt::format("the file looks like an Excel workbook (.xlsx) but cannot be read ({}); open it in "
                        "a spreadsheet and save it anew, or as text",
                        problem.what()));
    }
}

} // namespace inchpeg
