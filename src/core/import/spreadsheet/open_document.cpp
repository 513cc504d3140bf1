// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/spreadsheet/sheet.h"
#include "core/import/spreadsheet/xml_walk.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

namespace inchpeg
{

namespace
{

/// A duration as ISO 8601 writes it, "PT10H05M01.2S", as hours, minutes and seconds.
std::string clockOf(std::string_view duration)
{
    double seconds = 0.0;
    double number = 0.0;
    bool isTime = false;
    for (std::size_t i = duration.find_first_not_of("-P"); i < duration.size();) {
        if (duration[i] == 'T') {
            isTime = true;
            ++i;
            continue;
        }
        const std::size_t end = duration.find_first_not_of("0123456789.,", i);
        if (end == i || end == std::string_view::npos)
            return std::string(duration);
        std::string digits(duration.substr(i, end - i));
        std::replace(digits.begin(), digits.end(), ',', '.');
        const Cell cell = readCell(digits, {});
        number = cell.kind == CellKind::Number ? cell.value : 0.0;
        const char unit = duration[end];
        seconds += number * (unit == 'D'             ? 86400.0
                             : unit == 'H'           ? 3600.0
                             : unit == 'M' && isTime ? 60.0
                                                     : 1.0);
        i = end + 1;
    }
    constexpr double kTenThousandths = 10000.0; // as finely as a spreadsheet keeps it
    const double whole = std::floor(seconds);
    const auto s = static_cast<long long>(whole);
    const auto rest = static_cast<long long>(std::llround((seconds - whole) * kTenThousandths));
    std::string text = fmt::format("{:02}:{:02}:{:02}", s / 3600, s / 60 % 60, s % 60);
    if (rest > 0 && rest < 10000) {
        text += fmt::format(".{:04}", rest);
        text.erase(text.find_last_not_of('0') + 1);
    }
    return text;
}

class ContentReader
{
public:
    Status read(const std::string &xml)
    {
        const Status walked =
            walkXml(xml, {.begins = [this](std::string_view element,
                                           const XmlAttributes &attributes) { begins(element, attributes); },
                          .ends = [this](std::string_view element) { ends(element); },
                          .text = [this](std::string_view text) { takeText(text); }});
        if (walked && m_filled > kMostCells)
            return badInput(
                "the workbook repeats its cells beyond ten millions; save the sheet with the record as text");
        return walked;
    }
    std::vector<Sheet> take() { return std::move(m_sheets); }

private:
    void begins(std::string_view element, const XmlAttributes &attributes)
    {
        if (element == "style")
            m_styleName = attributes.value("name");
        else if (element == "table-properties" && attributes.value("display") == "false")
            m_hiddenStyles.insert(m_styleName);
        else if (element == "table" && m_annotations == 0)
            beginSheet(attributes);
        else if (element == "table-row")
            beginRow(attributes);
        else if (element == "table-cell" || element == "covered-table-cell")
            beginCell(element, attributes);
        else if (element == "annotation")
            ++m_annotations; // a remark on a cell is not what stands in it
        else if (element == "p" && m_isInCell && m_annotations == 0 && !m_shown.empty())
            m_shown += ' ';
        else if ((element == "s" || element == "tab" || element == "line-break") && m_isInCell)
            m_shown += ' ';
        m_paragraphs += element == "p" ? 1 : 0;
    }

    void beginSheet(const XmlAttributes &attributes)
    {
        Sheet &sheet = m_sheets.emplace_back();
        sheet.name = attributes.value("name");
        sheet.isHidden = m_hiddenStyles.contains(std::string(attributes.value("style-name")));
        m_row = 0;
    }

    void beginRow(const XmlAttributes &attributes)
    {
        m_rowRepeats = attributes.count("number-rows-repeated", 1, kMostSheetRows);
        m_column = 0;
        m_cells.clear();
    }

    void beginCell(std::string_view element, const XmlAttributes &attributes)
    {
        m_isInCell = true;
        m_shown.clear();
        m_repeats = attributes.count("number-columns-repeated", 1, kMostSheetColumns);
        m_type = attributes.value("value-type");
        m_value = m_type == "date"      ? attributes.value("date-value")
                  : m_type == "time"    ? attributes.value("time-value")
                  : m_type == "boolean" ? attributes.value("boolean-value")
                                        : attributes.value("value");
        m_formula = m_type.empty() ? attributes.value("formula") : "";
        const std::size_t rows = attributes.count("number-rows-spanned", 1, kMostSheetRows);
        if (element == "table-cell" && rows > 1 && !m_sheets.empty())
            m_sheets.back().merged.push_back({m_row, m_column, rows});
    }

    void ends(std::string_view element)
    {
        m_paragraphs -= element == "p" ? 1 : 0;
        if (element == "annotation")
            --m_annotations;
        else if (element == "table-cell" || element == "covered-table-cell")
            endCell();
        else if (element == "table-row")
            endRow();
    }

    void endCell()
    {
        m_isInCell = false;
        const std::string text = cellText();
        // Thousands of empty cells are written as one that repeats; so are equal ones.
        for (std::size_t i = 0; i < m_repeats && !text.empty() && m_cells.size() < kMostSheetColumns; ++i)
            m_cells.emplace_back(m_column + i, text);
        m_column = std::min(m_column + m_repeats, kMostSheetColumns);
    }

    void endRow()
    {
        if (m_sheets.empty())
            return;
        m_filled += m_rowRepeats * m_cells.size();
        for (std::size_t i = 0; i < m_rowRepeats && !m_cells.empty() && m_filled <= kMostCells; ++i) {
            for (const auto &[column, text] : m_cells)
                putCell(m_sheets.back(), m_row + i, column, text);
        }
        m_row = std::min(m_row + m_rowRepeats, kMostSheetRows);
    }

    void takeText(std::string_view text)
    {
        if (m_isInCell && m_paragraphs > 0 && m_annotations == 0)
            m_shown += text;
    }

    [[nodiscard]] std::string cellText() const
    {
        if (m_type == "percentage")
            return percentText(m_value);
        if (m_type == "time")
            return clockOf(m_value);
        if (m_type == "date")
            return m_value;
        if (m_type == "boolean")
            return m_value == "true" ? "yes" : "no";
        if (m_type == "float" || m_type == "currency") {
            const std::string_view unit = unitBehindNumber(m_shown);
            return unit.empty() ? m_value : fmt::format("{} {}", m_value, unit);
        }
        return m_shown.empty() && !m_formula.empty() ? m_formula : m_shown;
    }

    static constexpr std::size_t kMostCells = 10000000;

    std::vector<Sheet> m_sheets;
    std::size_t m_filled = 0; ///< cells of all sheets
    std::set<std::string> m_hiddenStyles;
    std::string m_styleName;
    std::vector<std::pair<std::size_t, std::string>> m_cells; ///< of the row, with their columns
    std::size_t m_row = 0;
    std::size_t m_column = 0;
    std::size_t m_repeats = 1;
    std::size_t m_rowRepeats = 1;
    std::string m_type;
    std::string m_value;
    std::string m_formula;
    std::string m_shown;
    bool m_isInCell = false;
    int m_paragraphs = 0;
    int m_annotations = 0;
};

} // namespace

Result<std::vector<Sheet>> readOpenDocument(const Archive &archive)
{
    const Result<std::string> content = archive.read("content.xml");
    if (!content)
        return content.error();
    ContentReader reader;
    if (const Status read = reader.read(*content); !read)
        return read.error();
    return reader.take();
}

} // namespace inchpeg
