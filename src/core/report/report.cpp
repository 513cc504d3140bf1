// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/report/report.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

std::string cellText(const ReportCell &cell, char decimalMark)
{
    std::string text = cell.text;
    if (isPlainNumber(cell)) {
        text = fmt::format("{}", *cell.number);
        std::replace(text.begin(), text.end(), '.', decimalMark);
    }
    std::replace_if(
        text.begin(), text.end(), [](char c) { return c == '\t' || c == '\n' || c == '\r'; }, ' ');
    return text;
}

} // namespace

bool isPlainNumber(const ReportCell &cell)
{
    return cell.number && !cell.text.starts_with("≥");
}

std::vector<const ReportTable *> tablesOf(const Report &report)
{
    std::vector<const ReportTable *> tables;
    for (const ReportSection &section : report.sections) {
        for (const ReportBlock &block : section.blocks) {
            if (const auto *table = std::get_if<ReportTable>(&block))
                tables.push_back(table);
        }
    }
    return tables;
}

std::string tableText(const ReportTable &table, char decimalMark)
{
    std::string text;
    for (std::size_t i = 0; i < table.columns.size(); ++i)
        text += (i == 0 ? "" : "\t") + cellText(table.columns[i].heading, decimalMark);
    text += '\n';
    for (const std::vector<ReportCell> &row : table.rows) {
        for (std::size_t i = 0; i < row.size(); ++i)
            text += (i == 0 ? "" : "\t") + cellText(row[i], decimalMark);
        text += '\n';
    }
    return text;
}

} // namespace inchpeg
