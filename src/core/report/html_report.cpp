// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/report/html_report.h"

#include <fmt/format.h>

#include <numeric>

namespace inchpeg
{

namespace
{

constexpr const char *kStyle = R"(
body { font-family: "Noto Sans", "DejaVu Sans", sans-serif; color: #1a1a1a; background: #ffffff; line-height: 1.45;
  max-width: 62rem; margin: 2rem auto; padding: 0 1.5rem; font-variant-numeric: tabular-nums; }
h1 { font-size: 1.7rem; margin: 0.1rem 0 0.8rem; } h2 { font-size: 1.2rem; margin: 2rem 0 0.5rem; border-bottom: 1px solid #d5d8dc; }
h3 { font-size: 1rem; margin: 1.2rem 0 0.3rem; } .kind { color: #5f6368; margin: 0; }
dl { display: grid; grid-template-columns: max-content 1fr; gap: 0.15rem 1.2rem; } dt { color: #5f6368; } dd { margin: 0; }
.lead { font-size: 1.15rem; font-weight: 600; } .item { margin: 0.2rem 0 0.2rem 1.2rem; text-indent: -0.9rem; } .item::before { content: "• "; } .caution { border-left: 4px solid #1a1a1a; padding-left: 0.7rem; }
table { border-collapse: collapse; width: 100%; font-size: 0.85rem; margin: 0.2rem 0 0.8rem; }
th, td { border-bottom: 1px solid #d5d8dc; padding: 0.25rem 0.5rem; text-align: left; vertical-align: top; overflow-wrap: anywhere; }
th { border-bottom: 2px solid #1a1a1a; } td.n, th.n { text-align: right; white-space: nowrap; }
figure { margin: 0.8rem 0; } svg { width: 100%; max-width: 54rem; height: auto; } figcaption, footer { color: #5f6368; font-size: 0.85rem; }
.wide { overflow-x: auto; } footer { margin-top: 2.5rem; border-top: 1px solid #d5d8dc; }
@media print { body { max-width: none; margin: 0; } h2, h3 { break-after: avoid; } tr, figure { break-inside: avoid; } thead { display: table-header-group; } }
)";

struct BlockWriter {
    std::string operator()(const ReportText &text) const
    {
        const std::string shown = escapedMarkup(text.text);
        switch (text.kind) {
        case TextKind::Lead:
            return "<p class=\"lead\">" + shown + "</p>\n";
        case TextKind::Item:
            return "<p class=\"item\">" + shown + "</p>\n";
        case TextKind::Caution:
            return "<p class=\"caution\"><b>Mind:</b> " + shown + "</p>\n";
        case TextKind::Paragraph:
            break;
        }
        return "<p>" + shown + "</p>\n";
    }
    std::string operator()(const ReportTable &table) const
    {
        return "<h3>" + escapedMarkup(table.title) + "</h3>\n<div class=\"wide\">" + tableHtml(table) +
               "</div>\n";
    }
    std::string operator()(const ReportPicture &picture) const
    {
        return "<figure>" + svgText(picture.drawing, picture.caption.empty() ? "Picture" : picture.caption) +
               (picture.caption.empty() ? ""
                                        : "<figcaption>" + escapedMarkup(picture.caption) + "</figcaption>") +
               "</figure>\n";
    }
};

} // namespace

std::string tableHtml(const ReportTable &table)
{
    std::string html =
        "<table class=\"ruled\" width=\"100%\" cellspacing=\"0\" cellpadding=\"3\"><thead><tr>";
    const double all =
        std::accumulate(table.columns.begin(), table.columns.end(), 0.0,
                        [](double sum, const ReportColumn &column) { return sum + column.share; });
    for (const ReportColumn &column : table.columns)
        html += fmt::format("<th width=\"{:.0f}%\"{}>{}</th>", 100.0 * column.share / all,
                            column.isNumber ? " class=\"n\" align=\"right\"" : " align=\"left\"",
                            escapedMarkup(column.heading));
    html += "</tr></thead>\n<tbody>\n";
    for (const std::vector<ReportCell> &row : table.rows) {
        html += "<tr>";
        for (std::size_t i = 0; i < row.size(); ++i)
            html +=
                fmt::format("<td{}>{}</td>", table.columns[i].isNumber ? " class=\"n\" align=\"right\"" : "",
                            escapedMarkup(row[i].text));
        html += "</tr>\n";
    }
    return html + "</tbody></table>\n";
}

std::string htmlReport(const Report &report)
{
    std::string html = fmt::format(
        "<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n"
        "<meta name=\"viewport\" content=\"width=device-width, initial-scale=1\">\n<title>{}</title>\n"
        "<style>{}</style>\n</head>\n<body>\n<p class=\"kind\">{}</p>\n<h1>{}</h1>\n<dl>\n",
        escapedMarkup(report.title), kStyle, escapedMarkup(report.kind), escapedMarkup(report.title));
    for (const ReportFact &fact : report.facts)
        html += fmt::format("<dt>{}</dt><dd>{}</dd>\n", escapedMarkup(fact.name), escapedMarkup(fact.text));
    html += "</dl>\n";
    for (const ReportSection &section : report.sections) {
        html += "<h2>" + escapedMarkup(section.heading) + "</h2>\n";
        for (const ReportBlock &block : section.blocks)
            html += std::visit(BlockWriter{}, block);
    }
    return html + "<footer>" + escapedMarkup(report.foot) + "</footer>\n</body>\n</html>\n";
}

} // namespace inchpeg
