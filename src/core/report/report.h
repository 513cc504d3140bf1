// SPDX-License-Identifier: GPL-3.0-or-later
// A report as it is, whatever it is written to: sections of text, tables and pictures. Built by study_report
// and decision_report, written as PDF, HTML and workbook.
#pragma once

#include "core/report/drawing.h"

#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace inchpeg
{

enum class TextKind {
    Lead, ///< what it says, large
    Paragraph,
    Item, ///< of a list
    Caution,
};

struct ReportText {
    TextKind kind = TextKind::Paragraph;
    std::string text;
};

/// A cell: what is printed, and the number behind it for a workbook.
struct ReportCell {
    ReportCell() = default;
    ReportCell(std::string shown) : text(std::move(shown)) {}
    ReportCell(std::string shown, double value, int places)
        : text(std::move(shown)), number(value), decimals(places)
    {
    }

    std::string text;
    std::optional<double> number{}; ///< in the unit of the column
    int decimals = 0;
};

/// Whether a spreadsheet may reckon with it: "≥ 500" is no number, its bound would be averaged.
bool isPlainNumber(const ReportCell &cell);

struct ReportColumn {
    std::string heading; ///< with its unit
    bool isNumber = false;
    double share = 1.0; ///< of the width
};

struct ReportTable {
    std::string title; ///< also of its sheet in a workbook
    std::vector<ReportColumn> columns;
    std::vector<std::vector<ReportCell>> rows;
};

struct ReportPicture {
    Drawing drawing;
    std::string caption;
};

using ReportBlock = std::variant<ReportText, ReportTable, ReportPicture>;

struct ReportSection {
    std::string heading;
    std::vector<ReportBlock> blocks;

    void say(std::string text, TextKind kind = TextKind::Paragraph)
    {
        if (!text.empty())
            blocks.emplace_back(ReportText{kind, std::move(text)});
    }
};

/// What stands under the title: "Pieces", "24 of 24 tested".
struct ReportFact {
    std::string name;
    std::string text;
};

struct Report {
    std::string kind;  ///< "Test report", "Decision"
    std::string title; ///< the question, or the part
    std::vector<ReportFact> facts;
    std::vector<ReportSection> sections;
    std::string foot; ///< on each page: what made it, and when
};

/// All its tables, in order.
std::vector<const ReportTable *> tablesOf(const Report &report);

/// A table as tab-separated lines under its headings, for a spreadsheet: numbers with all their digits and
/// this decimal mark, bounds as texts, no tab or line end inside of a cell.
std::string tableText(const ReportTable &table, char decimalMark);

} // namespace inchpeg
