// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/verdict.h"
#include "core/report/graph_drawing.h"
#include "core/report/html_report.h"
#include "core/report/rails_drawing.h"
#include "core/report/result_card.h"
#include "core/report/study_report.h"
#include "core/report/study_tables.h"
#include "support/study_builder.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <random>

namespace inchpeg
{

namespace
{

const Workshop &workshop()
{
    static const Workshop one = usualWorkshop();
    return one;
}

Report reportOn(const test::StudyBuilder &builder)
{
    return studyReport({.study = &builder.study,
                        .readings = &builder.readings,
                        .workshop = &workshop(),
                        .origin = {"p.inchpeg", "0.0", "2026-06-01"}},
                       {});
}

const ReportTable *tableNamed(const Report &report, std::string_view title)
{
    for (const ReportTable *table : tablesOf(report)) {
        if (table->title == title)
            return table;
    }
    return nullptr;
}

/// Everything that is said in words, a line a text.
std::string wordsOf(const Report &report)
{
    std::string words;
    for (const ReportSection &section : report.sections) {
        for (const ReportBlock &block : section.blocks) {
            if (const auto *text = std::get_if<ReportText>(&block))
                words += text->text + '\n';
        }
    }
    return words;
}

/// Where a shape lies, letters by their rough width.
struct Extent {
    double left = 1e9, right = -1e9, top = 1e9, bottom = -1e9;
    void add(double x, double y)
    {
        left = std::min(left, x);
        right = std::max(right, x);
        top = std::min(top, y);
        bottom = std::max(bottom, y);
    }
};
Extent extentOf(const DrawnShape &shape)
{
    Extent extent;
    if (const auto *path = std::get_if<DrawnPath>(&shape)) {
        for (const DrawnPoint &point : path->points)
            extent.add(point.x, point.y);
    } else if (const auto *circle = std::get_if<DrawnCircle>(&shape)) {
        extent.add(circle->centre.x - circle->radius, circle->centre.y - circle->radius);
        extent.add(circle->centre.x + circle->radius, circle->centre.y + circle->radius);
    } else if (const auto *text = std::get_if<DrawnText>(&shape)) {
        const double width = roughWidth(text->text, text->size);
        const double back = text->anchor == Anchor::Start    ? 0.0
                            : text->anchor == Anchor::Middle ? width / 2.0
                                                             : width;
        extent.add(text->at.x - (text->isUpright ? text->size : back),
                   text->at.y - (text->isUpright ? back : text->size));
        extent.add(text->at.x + (text->isUpright ? 0.0 : width - back), text->at.y);
    }
    return extent;
}

void expectInside(const Drawing &drawing)
{
    for (const DrawnShape &shape : drawing.shapes) {
        const Extent extent = extentOf(shape);
        EXPECT_GE(extent.left, -1.0);
        EXPECT_LE(extent.right, drawing.width + 1.0);
        EXPECT_GE(extent.top, -1.0);
        EXPECT_LE(extent.bottom, drawing.height + 1.0);
    }
}

} // namespace

TEST(StudyReport, SaysWhatTheLensSaysAndItsTablesHoldTheSameNumbers)
{
    test::StudyBuilder builder;
    builder.rail("230", {20, 21, 22, 21}).rail("240", {27, 28, 26, 27}).rail("250", {21, 20, 22, 23});
    builder.study.question = "Do hotter layers hold?";
    const Report report = reportOn(builder);
    EXPECT_EQ(report.title, "Do hotter layers hold?");
    const StudyComparison comparison = test::strengthCompared(builder);
    const StudyVerdict verdict = verdictOf(builder.study, comparison);
    const std::string words = wordsOf(report);
    EXPECT_NE(words.find(verdict.headline), std::string::npos) << words;
    EXPECT_NE(words.find(verdict.procedure), std::string::npos);
    for (const RailVerdict &rail : verdict.rails)
        EXPECT_NE(words.find(rail.sentence), std::string::npos) << rail.sentence;
    const ReportTable *rails = tableNamed(report, "Strength in MPa by rail");
    ASSERT_NE(rails, nullptr);
    ASSERT_EQ(rails->rows.size(), 3U);
    for (std::size_t i = 0; i < 3; ++i) {
        ASSERT_EQ(rails->rows[i].size(), rails->columns.size());
        EXPECT_EQ(rails->rows[i][1].number, static_cast<double>(comparison.rails[i].summary.n));
        EXPECT_EQ(rails->rows[i][2].number, comparison.rails[i].summary.mean);
        EXPECT_EQ(rails->rows[i][5].number, comparison.rails[i].summary.ci->low);
        // What is printed is what the lens prints.
        EXPECT_NE(verdict.rails[i].meanText.find(rails->rows[i][2].text), std::string::npos)
            << verdict.rails[i].meanText << " holds " << rails->rows[i][2].text;
    }
    const ReportTable *pieces = tableNamed(report, "Pieces: tension");
    ASSERT_NE(pieces, nullptr);
    EXPECT_EQ(pieces->rows.size(), builder.study.pieces.size());
}

TEST(StudyReport, LeavesNothingOutSilently)
{
    test::StudyBuilder builder;
    builder.rail("230", {20, 21, 22})
        .rail("240", {27, 28, 26})
        .rail("250", {50, 50, 50}, Orientation::Standing, 1, true);
    builder.study.pieces[0].exclusion = Exclusion{"slipped in the grips", "M. Quill", "2026-06-01T10:00:00Z"};
    builder.study.pieces[1].markers["yield"] =
        HandMarker{12.0, "the bump is noise", "M. Quill", "2026-06-01T10:05:00Z"};
    builder.study.pieces[2].log.failures.push_back(
        {1, PrintTrouble::Warp, "a corner lifted", true, "M. Quill", "2026-05-30T09:00:00Z"});
    const Report report = reportOn(builder);
    const ReportTable *decisions = tableNamed(report, "Decisions on single pieces");
    ASSERT_NE(decisions, nullptr);
    ASSERT_EQ(decisions->rows.size(), 3U);
    EXPECT_EQ(decisions->rows[0][3].text, "slipped in the grips");
    EXPECT_EQ(decisions->rows[0][4].text, "M. Quill");
    EXPECT_EQ(decisions->rows[1][3].text, "the bump is noise");
    EXPECT_EQ(decisions->rows[2][2].text, "print failed: warp, printed again");
    const ReportTable *pieces = tableNamed(report, "Pieces: tension");
    ASSERT_NE(pieces, nullptr);
    EXPECT_EQ(pieces->rows.front().back().text, "left out: slipped in the grips");
    EXPECT_EQ(pieces->rows.back().back().text, "not tested");
    // A bound is told as one, and is no number for a spreadsheet.
    const ReportCell &bound = pieces->rows[6][4];
    EXPECT_EQ(bound.text.substr(0, 4), "≥ ");
    EXPECT_FALSE(isPlainNumber(bound));
    EXPECT_NE(wordsOf(report).find("Nothing was logged of the prints"), std::string::npos);
}

// The most of a rail was printed as 4 where a piece had been given 4.5: its median had no decimals.
TEST(StudyReport, GradesAreWrittenOut)
{
    test::StudyBuilder builder;
    builder.rail("190", {});
    StudyComparison comparison;
    comparison.property = usualProperty(Method::ByFeel);
    StudyVerdict verdict;
    for (const std::array<double, 4> &grades : {std::array{1.0, 1.5, 2.0, 2.0}, {4.0, 4.0, 4.0, 4.5}}) {
        RailComparison rail;
        rail.condition = builder.study.conditions.front().id;
        rail.summary = summarise(grades);
        comparison.rails.push_back(rail);
        verdict.rails.emplace_back();
    }
    const ReportTable table = railsTable(builder.study, comparison, verdict, {});
    const std::pair<std::size_t, const char *> wanted[] = {{2, "4.00"}, {3, "4.00"}, {4, "4.50"}};
    for (const auto &[column, text] : wanted)
        EXPECT_EQ(table.rows[1][column].text, text) << column;
    EXPECT_EQ(table.rows[0][2].text, "1.75");
    EXPECT_EQ(table.rows[0][4].text, "2.00");
}

TEST(StudyReport, AnEmptyStudyIsToldAsOne)
{
    const test::StudyBuilder builder;
    const Report report = reportOn(builder);
    EXPECT_NE(wordsOf(report).find("Nothing was read yet"), std::string::npos);
    EXPECT_FALSE(htmlReport(report).empty());
}

TEST(HtmlReport, WhatPeopleTypedIsTextNotMarkup)
{
    test::StudyBuilder builder;
    builder.study.factors.front().unit.clear();
    builder.rail("230", {20, 21, 22}).rail("<b>240</b> & \"more\"", {27, 28, 26});
    builder.study.question = "<script>alert(1)</script> stärker?";
    const std::string html = htmlReport(reportOn(builder));
    EXPECT_EQ(html.find("<script>"), std::string::npos);
    EXPECT_NE(html.find("&lt;script&gt;alert(1)&lt;/script&gt; stärker?"), std::string::npos);
    EXPECT_EQ(html.find("<b>240"), std::string::npos);
    for (const char *tag :
         {"table", "figure", "svg", "section", "thead", "tbody", "tr", "td", "p", "h2", "h3"}) {
        std::size_t opened = 0;
        std::size_t closed = 0;
        for (std::size_t at = html.find('<' + std::string(tag)); at != std::string::npos;
             at = html.find('<' + std::string(tag), at + 1)) {
            const char after = html[at + 1 + std::string_view(tag).size()];
            opened += after == '>' || after == ' ' ? 1U : 0U;
        }
        for (std::size_t at = html.find("</" + std::string(tag) + '>'); at != std::string::npos;
             at = html.find("</" + std::string(tag) + '>', at + 1))
            ++closed;
        EXPECT_EQ(opened, closed) << tag;
    }
}

TEST(ReportTable, PastesIntoASpreadsheet)
{
    const ReportTable table{"t",
                            {{"Rail", false}, {"Mean", true}},
                            {{ReportCell("a\tb\nc"), ReportCell("21.5", 21.4567, 1)},
                             {ReportCell("d"), ReportCell("≥ 500", 500.0, 0)}}};
    EXPECT_EQ(tableText(table, ','), "Rail\tMean\na b c\t21,4567\nd\t≥ 500\n");
    EXPECT_EQ(tableText(table, '.'), "Rail\tMean\na b c\t21.4567\nd\t≥ 500\n");
}

TEST(RailsDrawing, ManyRailsAreSharedOutAndNothingLiesOutside)
{
    std::mt19937 random(7);
    std::normal_distribution<double> strength(30.0, 6.0);
    test::StudyBuilder builder;
    builder.study.factors.front().unit.clear();
    for (int rail = 0; rail < 45; ++rail)
        builder.rail(
            "a level with a rather long name that nobody can read in full, number " + std::to_string(rail),
            {strength(random), strength(random), strength(random)}, Orientation::Standing, 0, rail % 7 == 3);
    const StudyComparison comparison = test::strengthCompared(builder);
    const std::vector<Drawing> drawings = railsDrawings(builder.study, comparison, {}, 20);
    ASSERT_EQ(drawings.size(), 3U);
    for (const Drawing &drawing : drawings)
        expectInside(drawing);
    expectInside(resultCard(builder.study, comparison, {"p.inchpeg", "0.0", "2026-06-01"}, {}));
}

TEST(RailsDrawing, AllOnOneScaleWhateverPictureTheyStandIn)
{
    test::StudyBuilder builder;
    builder.rail("1", {10, 11, 12}).rail("2", {40, 41, 42});
    const StudyComparison comparison = test::strengthCompared(builder);
    const std::vector<Drawing> apart = railsDrawings(builder.study, comparison, {}, 1);
    ASSERT_EQ(apart.size(), 2U);
    const auto firstPeg = [](const Drawing &drawing) {
        for (const DrawnShape &shape : drawing.shapes) {
            if (const auto *circle = std::get_if<DrawnCircle>(&shape))
                return circle->centre.x;
        }
        return 0.0;
    };
    // 10 to 42 on a scale from 10 to 50 or so: the pegs lie as far apart as their values do.
    EXPECT_GT(firstPeg(apart[1]) - firstPeg(apart[0]), 200.0);
}

TEST(ResultCard, TheReferenceStaysWhereverItStands)
{
    test::StudyBuilder builder;
    for (int rail = 0; rail < 15; ++rail)
        builder.rail(std::to_string(200 + rail), {20.0 + rail, 21.0 + rail, 22.0 + rail});
    builder.study.reference = builder.study.conditions.back().id;
    builder.study.question = std::string(400, 'w') + " and " + std::string(90, 'i');
    const StudyComparison comparison = test::strengthCompared(builder);
    const Drawing card = resultCard(builder.study, comparison, {"p.inchpeg", "0.0", "2026-06-01"}, {});
    expectInside(card);
    bool isThere = false;
    for (const DrawnShape &shape : card.shapes) {
        if (const auto *text = std::get_if<DrawnText>(&shape))
            isThere = isThere || text->text == "214 °C";
    }
    EXPECT_TRUE(isThere);
    const std::string svg = svgText(card, "a < b");
    EXPECT_NE(svg.find("<title>a &lt; b</title>"), std::string::npos);
}

// Points at the right edge had their titles cut, and close ones wrote over each other.
TEST(GraphDrawing, TitlesStayInsideAndClearOfEachOther)
{
    Graph graph;
    GraphSeries dots;
    dots.shape = GraphShape::Dots;
    for (const auto &[x, y] : {std::pair{1.0, 5.0}, {1.0, 5.1}, {3.0, 4.0}, {3.0, 4.02}, {3.0, 4.04}}) {
        GraphPoint point;
        point.x = x;
        point.y = y;
        point.title = fmt::format("a rail of some length, {}", y);
        dots.points.push_back(point);
    }
    graph.series.push_back(dots);
    const Drawing drawing = graphDrawing(graph, {});
    std::vector<std::pair<double, double>> bases; // where they begin, and their height
    for (const DrawnShape &shape : drawing.shapes) {
        const auto *text = std::get_if<DrawnText>(&shape);
        if (text == nullptr || !text->text.starts_with("a rail"))
            continue;
        const double width = roughWidth(text->text, text->size);
        const double left = text->anchor == Anchor::End ? text->at.x - width : text->at.x;
        EXPECT_GE(left, 0.0);
        EXPECT_LE(left + width, drawing.width);
        for (const auto &[otherLeft, base] : bases)
            EXPECT_TRUE(std::abs(base - text->at.y) >= text->size || std::abs(otherLeft - left) >= width);
        bases.emplace_back(left, text->at.y);
    }
    EXPECT_EQ(bases.size(), 5U);
}

TEST(Drawing, WordsAreCutBetweenLetters)
{
    EXPECT_EQ(fitted("ööööööööö", 10.0, 27.0), "öööö…");
    EXPECT_EQ(fitted("short", 10.0, 100.0), "short");
    EXPECT_EQ(wrapped("one two three four", 10.0, 45.0, 5),
              (std::vector<std::string>{"one two", "three", "four"}));
    EXPECT_EQ(wrapped("one two three four", 10.0, 45.0, 2).back().substr(0, 5), "three");
    EXPECT_EQ(wrapped("", 10.0, 45.0, 2).size(), 0U);
}

} // namespace inchpeg
