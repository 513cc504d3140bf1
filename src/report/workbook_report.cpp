// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/workbook_report.h"

#include "core/text/letters.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>
#include <xlsxwriter.h>

namespace inchpeg
{

namespace
{

constexpr std::size_t kLongestSheetName = 31; ///< of the format
constexpr std::size_t kNumberRoom = 5;        ///< for " (12)" behind a name
constexpr double kTextWidth = 110.0;          ///< of the first sheet's column, in letters
constexpr double kLeastWidth = 8.0;
constexpr double kWidest = 60.0;
constexpr double kHeadRow = 30.0;

/// Sheets' names may not hold : \ / ? * [ ], must differ whatever their case, and are short.
std::string sheetName(const std::string &title, std::set<std::string> &taken)
{
    std::string name;
    for (const char c : title) {
        if (std::string_view(":\\/?*[]'").find(c) == std::string_view::npos)
            name += c;
    }
    std::string one = firstLetters(name, kLongestSheetName);
    for (int i = 2; one.empty() || !taken.insert(smallLetters(one)).second; ++i)
        one = firstLetters(name, kLongestSheetName - kNumberRoom) + fmt::format(" ({})", i);
    return one;
}

class WorkbookWriter
{
public:
    explicit WorkbookWriter(const std::string &path) : m_book(workbook_new(path.c_str()))
    {
        m_title = format(true, 16.0);
        m_head = format(true, 10.0);
        format_set_bottom(m_head, LXW_BORDER_MEDIUM);
        format_set_text_wrap(m_head);
        format_set_align(m_head, LXW_ALIGN_VERTICAL_BOTTOM);
        m_section = format(true, 12.0);
        m_lead = format(true, 11.0);
        format_set_text_wrap(m_lead);
        m_text = format(false, 10.0);
        format_set_text_wrap(m_text);
        format_set_align(m_text, LXW_ALIGN_VERTICAL_TOP);
    }

    Status write(const Report &report, const std::string &path)
    {
        if (m_book == nullptr)
            return Error{ErrorCode::Storage, path + ": cannot be written", {}};
        lxw_doc_properties properties{};
        std::string title = report.title;
        std::string foot = report.foot;
        properties.title = title.data();
        properties.comments = foot.data();
        workbook_set_properties(m_book, &properties);
        words(report);
        for (const ReportTable *one : tablesOf(report))
            table(*one);
        const lxw_error closed = workbook_close(m_book);
        if (closed != LXW_NO_ERROR)
            return Error{
                ErrorCode::Storage, fmt::format("{}: cannot be written: {}", path, lxw_strerror(closed)), {}};
        return ok();
    }

private:
    lxw_format *format(bool isBold, double size)
    {
        lxw_format *made = workbook_add_format(m_book);
        format_set_font_size(made, size);
        if (isBold)
            format_set_bold(made);
        return made;
    }
    lxw_format *numberFormat(int decimals)
    {
        lxw_format *&made = m_numbers[decimals];
        if (made == nullptr) {
            made = format(false, 10.0);
            format_set_num_format(
                made,
                decimals > 0 ? ("0." + std::string(static_cast<std::size_t>(decimals), '0')).c_str() : "0");
            format_set_align(made, LXW_ALIGN_VERTICAL_TOP);
        }
        return made;
    }

    void words(const Report &report)
    {
        lxw_worksheet *sheet = workbook_add_worksheet(m_book, sheetName(report.kind, m_taken).c_str());
        worksheet_set_column(sheet, 0, 0, kTextWidth, nullptr);
        lxw_row_t row = 0;
        const auto line = [&](const std::string &text, lxw_format *look) {
            worksheet_write_string(sheet, row++, 0, text.c_str(), look);
        };
        line(report.title, m_title);
        for (const ReportFact &fact : report.facts)
            line(fact.name + ": " + fact.text, m_text);
        for (const ReportSection &section : report.sections) {
            ++row;
            line(section.heading, m_section);
            for (const ReportBlock &block : section.blocks) {
                if (const auto *text = std::get_if<ReportText>(&block))
                    line((text->kind == TextKind::Caution ? "Mind: " : "") + text->text,
                         text->kind == TextKind::Lead ? m_lead : m_text);
                else if (const auto *one = std::get_if<ReportTable>(&block))
                    line("→ sheet: " + one->title, m_text);
            }
        }
        ++row;
        line(report.foot, m_text);
    }

    void table(const ReportTable &table)
    {
        lxw_worksheet *sheet = workbook_add_worksheet(m_book, sheetName(table.title, m_taken).c_str());
        worksheet_set_row(sheet, 0, kHeadRow, nullptr);
        for (std::size_t column = 0; column < table.columns.size(); ++column) {
            const auto place = static_cast<lxw_col_t>(column);
            worksheet_write_string(sheet, 0, place, table.columns[column].heading.c_str(), m_head);
            std::size_t widest = letterCount(table.columns[column].heading) / 2;
            for (std::size_t row = 0; row < table.rows.size(); ++row) {
                cell(sheet, static_cast<lxw_row_t>(row + 1), place, table.rows[row][column]);
                widest = std::max(widest, letterCount(table.rows[row][column].text));
            }
            worksheet_set_column(sheet, place, place,
                                 std::clamp(static_cast<double>(widest) + 2.0, kLeastWidth, kWidest),
                                 nullptr);
        }
        worksheet_freeze_panes(sheet, 1, 0);
        worksheet_repeat_rows(sheet, 0, 0);
        worksheet_set_landscape(sheet);
        worksheet_fit_to_pages(sheet, 1, 0);
    }

    void cell(lxw_worksheet *sheet, lxw_row_t row, lxw_col_t column, const ReportCell &cell)
    {
        if (isPlainNumber(cell))
            worksheet_write_number(sheet, row, column, *cell.number, numberFormat(cell.decimals));
        else if (!cell.text.empty())
            worksheet_write_string(sheet, row, column, cell.text.c_str(), m_text);
    }

    lxw_workbook *m_book;
    std::set<std::string> m_taken;
    std::map<int, lxw_format *> m_numbers;
    lxw_format *m_title = nullptr;
    lxw_format *m_head = nullptr;
    lxw_format *m_section = nullptr;
    lxw_format *m_lead = nullptr;
    lxw_format *m_text = nullptr;
};

} // namespace

Status writeWorkbookReport(const Report &report, const std::string &path)
{
    return WorkbookWriter(path).write(report, path);
}

} // namespace inchpeg
