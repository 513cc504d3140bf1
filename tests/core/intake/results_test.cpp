// SPDX-License-Identifier: GPL-3.0-or-later
// Tables of results with a known truth, put together here by no code of what reads them.
#include "core/intake/given_results.h"
#include "core/intake/study_from_results.h"
#include "core/reading/piece_reading.h"
#include "core/reading/reading_settings.h"
#include "support/study_builder.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <random>

namespace inchpeg
{

namespace
{

/// A column as somebody writes it: heading, unit, how many of its unit one working unit is.
struct WrittenColumn {
    const char *property;
    const char *heading;
    const char *unit;
    double perWorking;
};
constexpr WrittenColumn kColumns[] = {
    {"tensile_strength", "Tensile strength", "MPa", 1.0},
    {"tensile_strength", "Rm", "N/mm²", 1.0},
    {"tensile_strength", "UTS", "psi", 145.03773773},
    {"tensile_strength", "Zugfestigkeit", "MPa", 1.0},
    {"tensile_modulus", "Young's modulus", "GPa", 0.001},
    {"tensile_modulus", "E-Modul", "MPa", 1.0},
    {"tensile_modulus", "Module d'élasticité", "MPa", 1.0},
    {"strain_at_break", "Elongation at break", "%", 100.0},
    {"strain_at_break", "Bruchdehnung", "%", 100.0},
    {"strain_at_break", "Strain at break", "mm/mm", 1.0},
    {"peak_force", "Fmax", "N", 1.0},
    {"peak_force", "Max. load", "kN", 0.001},
    {"peak_force", "Höchstkraft", "N", 1.0},
    {"yield_stress", "Yield strength", "MPa", 1.0},
    {"energy_to_break", "Energy to break", "J", 1.0},
};

struct MadeTable {
    std::string text;
    std::map<std::string, std::map<std::string, std::pair<double, bool>>> values; ///< by code and property
    std::map<std::string, std::string> rails;                                     ///< by code
    std::size_t properties = 0;
};

MadeTable made(unsigned seed)
{
    std::mt19937 random(seed);
    const auto pick = [&](int most) { return static_cast<int>(random() % static_cast<unsigned>(most)); };
    const char delimiters[] = {',', ';', '\t'};
    const char delimiter = delimiters[pick(3)];
    const bool comma = delimiter != ',' && pick(2) == 0;
    const int style = pick(4); // of units
    std::vector<WrittenColumn> columns;
    std::set<std::string> taken;
    for (int tries = 0; tries < 20 && columns.size() < 1 + static_cast<std::size_t>(pick(4)) + 1; ++tries) {
        const WrittenColumn &column = kColumns[pick(std::size(kColumns))];
        if (taken.insert(column.property).second)
            columns.push_back(column);
    }
    const auto number = [&](double value) {
        std::string text = fmt::format("{:.5g}", value);
        if (comma)
            std::replace(text.begin(), text.end(), '.', ',');
        return text;
    };
    const char *codeHeadings[] = {"Specimen", "Sample", "ID", "Probe"};
    const char *factors[] = {"Nozzle temperature (°C)", "Material", "Infill (%)", "Batch"};
    const int factor = pick(4);
    const std::vector<std::vector<std::string>> levels{
        {"230", "240", "250"}, {"PETG", "PLA"}, {"20", "40", "60"}, {"L1", "L2"}};
    MadeTable table;
    table.properties = columns.size();
    std::string d(1, delimiter);
    table.text = codeHeadings[pick(4)] + d + factors[factor];
    std::string units = d;
    for (const WrittenColumn &column : columns) {
        table.text += d + column.heading;
        if (style == 0)
            table.text += fmt::format(" ({})", column.unit);
        else if (style == 1)
            table.text += fmt::format(" [{}]", column.unit);
        else if (style == 2)
            table.text += fmt::format(" in {}", column.unit);
        units += d + column.unit;
    }
    table.text += "\n" + (style == 3 ? units + "\n" : "");
    int code = 0;
    for (const std::string &level : levels[static_cast<std::size_t>(factor)]) {
        for (int piece = 0; piece < 3 + pick(3); ++piece) {
            const std::string name = fmt::format("X{:02}", ++code);
            table.rails[name] = level;
            table.text += name + d + level;
            for (const WrittenColumn &column : columns) {
                const double working =
                    std::string_view(column.property) == "strain_at_break"   ? 0.02 + 0.001 * pick(40)
                    : std::string_view(column.property) == "tensile_modulus" ? 1800.0 + pick(900)
                                                                             : 40.0 + 0.1 * pick(200);
                const bool bound = pick(12) == 0;
                const std::string shown = number(working * column.perWorking);
                const double back = std::stod([&] {
                                        std::string text = shown;
                                        std::replace(text.begin(), text.end(), ',', '.');
                                        return text;
                                    }()) /
                                    column.perWorking;
                table.values[name][column.property] = {back, bound};
                const char *marks[] = {">", "> ", "≥ "};
                table.text += d + (bound ? marks[pick(3)] : "") + shown;
            }
            table.text += "\n";
        }
    }
    return table;
}

} // namespace

TEST(ResultsTable, TwoHundredTablesAreRightOrAsked)
{
    int right = 0;
    for (unsigned seed = 1; seed <= 200; ++seed) {
        const MadeTable truth = made(seed);
        EXPECT_TRUE(isResultsTable(truth.text)) << truth.text;
        const Result<ResultsTable> table = understandResults(truth.text, {});
        if (!table) {
            ADD_FAILURE() << "seed " << seed << ": " << errorSentence(table.error()) << "\n" << truth.text;
            continue;
        }
        const StudyProposal proposal = proposeFromResults(*table);
        if (!proposal.open.empty())
            continue; // asked
        ++right;
        EXPECT_EQ(proposal.pieces.size(), truth.rails.size()) << truth.text;
        for (const ProposedPiece &piece : proposal.pieces) {
            const ResultsRow &row = table->rows[piece.source];
            EXPECT_EQ(proposal.rails[piece.rail].levels.front(), truth.rails.at(row.code)) << truth.text;
            std::vector<RefusedCell> refused;
            const GivenRow given = valuesOf(*table, row, refused);
            EXPECT_TRUE(refused.empty());
            EXPECT_EQ(given.values.size(), truth.properties) << truth.text;
            for (const GivenValue &value : given.values) {
                const auto &[number, bound] = truth.values.at(row.code).at(value.property);
                EXPECT_NEAR(value.number, number, 1e-6 * std::abs(number)) << value.property << "\n"
                                                                           << truth.text;
                EXPECT_EQ(value.isAtLeast, bound) << truth.text;
            }
        }
    }
    EXPECT_GE(right, 180);
}

TEST(ResultsTable, FiveHundredCurvesAreNone)
{
    for (int i = 0; i < 500; ++i) {
        std::string text = i % 3 == 0   ? "Time (s),Force (N),Extension (mm)\n"
                           : i % 3 == 1 ? "No,Load [N],Strain [%]\n"
                                        : "force,time\n";
        const int rows = 20 + 7 * i % 90;
        for (int r = 0; r < rows; ++r) {
            const double force = 300.0 * r / rows * (1.0 + 0.001 * (i % 17));
            text += i % 3 == 0   ? fmt::format("{:.1f},{:.2f},{:.3f}\n", 0.1 * r, force, 0.02 * r)
                    : i % 3 == 1 ? fmt::format("{},{:.2f},{:.3f}\n", r + 1, force, 0.01 * r)
                                 : fmt::format("{:.2f},{:.2f}\n", force, 0.1 * r);
        }
        ASSERT_FALSE(isResultsTable(text)) << text.substr(0, 120);
    }
}

TEST(ResultsTable, AUnitThatIsNotSaidIsAskedWhereItMatters)
{
    const char *text =
        "Specimen;Material;E-Modulus;Strength\nA;PLA;3.1;50\nB;PLA;3.2;52\nC;ASA;2.0;40\nD;ASA;2.1;41\n";
    const Result<ResultsTable> table = understandResults(text, {});
    ASSERT_TRUE(table);
    const StudyProposal proposal = proposeFromResults(*table);
    ASSERT_EQ(proposal.open.size(), 1U);
    EXPECT_NE(proposal.open.front().about.find("E-Modulus"), std::string::npos);
    const Result<ResultsTable> said =
        understandResults(text, {{}, {{"E-Modulus", "tensile_modulus", "GPa"}}, {}, {}});
    ASSERT_TRUE(said);
    EXPECT_TRUE(proposeFromResults(*said).open.empty());
    std::vector<RefusedCell> refused;
    EXPECT_DOUBLE_EQ(valuesOf(*said, said->rows.front(), refused).values.front().number, 3100.0);
}

TEST(ResultsTable, AnUpperBoundAndAWordAreRefusedWithTheirPlace)
{
    const Result<ResultsTable> table = understandResults(
        "Specimen,Material,Tensile strength (MPa)\nA,PLA,50\nB,PLA,< 3\nC,ASA,none yet\nD,ASA,41\nE,ASA,42\n",
        {});
    ASSERT_TRUE(table) << table.error().message;
    std::vector<RefusedCell> refused;
    for (const ResultsRow &row : table->rows)
        static_cast<void>(valuesOf(*table, row, refused));
    ASSERT_EQ(refused.size(), 2U);
    EXPECT_EQ(refused[0].line, 3U);
    EXPECT_EQ(refused[0].column, 3U);
    EXPECT_NE(refused[0].why.find("upper bound"), std::string::npos);
    EXPECT_EQ(refused[1].line, 4U);
}

TEST(ResultsTable, AColumnAGroupIsDealtOut)
{
    const char *text = "PLA\tPETG\tASA\n50,1\t44,0\t39,0\n51,2\t45,1\t40,2\n49,7\t43,5\t\n";
    EXPECT_TRUE(isResultsTable(text));
    const Result<ResultsTable> open = understandResults(text, {});
    ASSERT_TRUE(open) << open.error().message;
    EXPECT_FALSE(proposeFromResults(*open).open.empty()) << "what the values are has to be said";
    const Result<ResultsTable> said =
        understandResults(text, {Method::Tension, {{"value", "tensile_strength", "MPa"}}, {}, {}});
    ASSERT_TRUE(said);
    const StudyProposal proposal = proposeFromResults(*said);
    ASSERT_TRUE(proposal.open.empty()) << proposal.open.front().about;
    ASSERT_EQ(proposal.rails.size(), 3U);
    EXPECT_EQ(proposal.pieces.size(), 8U);
    EXPECT_EQ(proposal.rails[0].levels.front(), "PLA");
    std::vector<RefusedCell> refused;
    EXPECT_DOUBLE_EQ(valuesOf(*said, said->rows.front(), refused).values.front().number, 50.1);
}

// A unit behind a number had been taken for the column's: 0.05 GPa stood as 0.05 MPa.
TEST(ResultsTable, AUnitBehindANumberCounts)
{
    const Result<ResultsTable> table =
        understandResults("Specimen,Material,Strength (MPa),E-Modulus\nA,PLA,50,2.1 GPa\nB,PLA,0.052 GPa,2.2 "
                          "GPa\nC,ASA,40,1.9 GPa\n"
                          "D,ASA,41 N,2000 MPa\n",
                          {});
    ASSERT_TRUE(table) << table.error().message;
    EXPECT_TRUE(proposeFromResults(*table).open.empty()) << proposeFromResults(*table).open.front().about;
    std::vector<RefusedCell> refused;
    EXPECT_DOUBLE_EQ(valuesOf(*table, table->rows[0], refused).values[1].number, 2100.0);
    EXPECT_DOUBLE_EQ(valuesOf(*table, table->rows[1], refused).values[0].number, 52.0);
    EXPECT_TRUE(refused.empty());
    EXPECT_DOUBLE_EQ(valuesOf(*table, table->rows[3], refused).values[0].number, 2000.0);
    ASSERT_EQ(refused.size(), 1U);
    EXPECT_NE(refused.front().why.find("another unit"), std::string::npos);
}

TEST(ResultsTable, APieceThatDidNotBreakGivesNoNumberAndIsTold)
{
    const Result<ResultsTable> table = understandResults(
        "Specimen,Material,Charpy (kJ/m²)\nA,PLA,4.5\nB,PLA,4.6\nC,ASA,n.b.\nD,ASA,9.1\nE,ASA,9.3\n", {});
    ASSERT_TRUE(table) << table.error().message;
    std::vector<RefusedCell> refused;
    EXPECT_TRUE(valuesOf(*table, table->rows[2], refused).values.empty());
    EXPECT_TRUE(refused.empty());
    ASSERT_EQ(table->warnings.size(), 1U);
    EXPECT_NE(table->warnings.front().find("line 4"), std::string::npos);
}

TEST(ResultsTable, ATestIsToldByItsColumns)
{
    const auto testOf = [](const std::string &heading) {
        const Result<ResultsTable> table = understandResults(
            "Specimen,Material," + heading + "\nA,PLA,50\nB,PLA,51\nC,ASA,40\nD,ASA,41\n", {});
        EXPECT_TRUE(table) << heading;
        return table ? table->test : Method::Warp;
    };
    EXPECT_EQ(testOf("Flexural strength (MPa)"), Method::Bending);
    EXPECT_EQ(testOf("Charpy impact strength (kJ/m²)"), Method::Impact);
    EXPECT_EQ(testOf("HDT (°C)"), Method::HeatDeflection);
    EXPECT_EQ(testOf("Vicat (°C)"), Method::Softening);
    EXPECT_EQ(testOf("Shore D hardness"), Method::Hardness);
    EXPECT_EQ(testOf("Druckfestigkeit (MPa)"), Method::Compression);
    EXPECT_EQ(testOf("Zugfestigkeit (MPa)"), Method::Tension);
}

TEST(GivenValues, StandOnTheirPiecesAndAreKeptWithWhereTheyStood)
{
    test::StudyBuilder builder;
    builder.rail("230", {50.0, 51.0, 49.0}).rail("240", {});
    firstTest(builder.study).piecesPerCondition = 3;
    ASSERT_TRUE(setPiecesPerCondition(builder.study, Method::Tension, 3, builder.ids()));
    std::string text = "code;Strength [MPa];Mass (g);Remark\n";
    for (const Piece &piece : builder.study.pieces) {
        if (!piece.recording)
            text += piece.code + ";55,5;9,31;looked odd\n";
    }
    text += builder.study.pieces.front().code + ";1;1;\nnobody;2;2;\n";
    const Result<ResultsTable> table = understandResults(text, {Method::Tension, {}, {}, {}});
    ASSERT_TRUE(table) << table.error().message;
    const Result<GivenResults> results = resultsForPieces(builder.study, *table, "XYZ", false);
    ASSERT_TRUE(results);
    EXPECT_EQ(results->taken.size(), 3U);
    ASSERT_EQ(results->waiting.size(), 2U);
    EXPECT_NE(results->waiting[0].why.find("has a record"), std::string::npos);
    ASSERT_TRUE(takeResults(builder.study, *table, *results, RawFileId{99}, {}));
    const Piece &piece = builder.study.pieces.back();
    ASSERT_TRUE(isGiven(piece));
    EXPECT_EQ(piece.log.mass_g, 9.31);
    EXPECT_EQ(piece.log.note, "looked odd");
    const std::string kept = mappingText(piece.recording->mapping);
    const Result<ColumnMapping> back = mappingFromText(kept);
    ASSERT_TRUE(back) << kept;
    EXPECT_EQ(*back, piece.recording->mapping);
    const Result<ReadingOrder> order = readingOrder(builder.study, piece, {});
    ASSERT_TRUE(order) << "a given value needs no section";
    const Result<PieceReading> reading =
        readPiece({piece.id, nullptr, piece.recording->mapping, *order, {}, inOrder});
    ASSERT_TRUE(reading);
    EXPECT_DOUBLE_EQ(valueOf(reading->result.values, "tensile_strength")->number, 55.5);
}

TEST(GivenValues, AnOddHeadingComesBackAsItWas)
{
    ColumnMapping mapping;
    mapping.given = GivenRow{
        12, {{"tensile_strength", 45.2, true, "σ=max; 100% @ 23 >= [MPa]"}, {"peak_force", 1e-9, false, ""}}};
    const Result<ColumnMapping> back = mappingFromText(mappingText(mapping));
    ASSERT_TRUE(back);
    EXPECT_EQ(*back, mapping);
    for (const char *damaged : {"given ", "given 0", "given x;a=1@b", "given 3;a", "given 3;=1@b",
                                "given 3;a=x@b", "given 3;a=1@%4"})
        EXPECT_FALSE(mappingFromText(damaged)) << damaged;
}

TEST(WithoutASection, WhatNeedsNoneIsRead)
{
    test::StudyBuilder builder;
    builder.rail("230", {50.0});
    Piece &piece = builder.study.pieces.front();
    std::string text = "Time (s),Force (N),Extension (mm)\n";
    for (int i = 0; i <= 100; ++i)
        text += fmt::format("{},{},{}\n", i, i <= 90 ? 10.0 * i : 0.0, 0.05 * i);
    const auto bytes = std::make_shared<const std::string>(text);
    const auto read = [&] {
        const Result<ReadingOrder> order = readingOrder(builder.study, piece, {});
        EXPECT_TRUE(order);
        return *readPiece({piece.id, bytes, {}, *order, {}, inOrder});
    };
    const PieceReading whole = read();
    piece.section.reset();
    const PieceReading without = read();
    ASSERT_NE(valueOf(without.result.values, "peak_force"), nullptr);
    EXPECT_DOUBLE_EQ(valueOf(without.result.values, "peak_force")->number,
                     valueOf(whole.result.values, "peak_force")->number);
    EXPECT_NE(valueOf(whole.result.values, "tensile_strength"), nullptr);
    EXPECT_EQ(valueOf(without.result.values, "tensile_strength"), nullptr);
    EXPECT_EQ(valueOf(without.result.values, "tensile_modulus"), nullptr);
    EXPECT_EQ(without.outline.yAxis.dimension, Dimension::Force);
    EXPECT_FALSE(without.result.warnings.empty());
}

TEST(LongTable, ARowAValueBecomesARowAPiece)
{
    const char *kLong = "specimen,material,property,value,unit\n"
                        "PLA-1,PLA,Tensile strength,40.1,MPa\nPLA-1,PLA,Tensile modulus,2.1,GPa\n"
                        "PLA-2,PLA,Tensile modulus,2150,MPa\nPLA-2,PLA,Tensile strength,> 41.5,MPa\n"
                        "PETG-1,PETG,Tensile strength,50.2,MPa\n";
    EXPECT_TRUE(isResultsTable(kLong));
    const Result<ResultsTable> table = understandResults(kLong, {});
    ASSERT_TRUE(table) << table.error().message;
    ASSERT_EQ(table->rows.size(), 3U);
    EXPECT_EQ(table->rows[0].code, "PLA-1");
    EXPECT_EQ(table->rows[1].line, 4U) << "of its first value";
    std::vector<RefusedCell> refused;
    const GivenRow second = valuesOf(*table, table->rows[1], refused);
    EXPECT_TRUE(refused.empty());
    ASSERT_EQ(second.values.size(), 2U);
    for (const GivenValue &value : second.values) {
        const bool isStrength = value.property == "tensile_strength";
        EXPECT_TRUE(isStrength || value.property == "tensile_modulus") << value.property;
        EXPECT_NEAR(value.number, isStrength ? 41.5 : 2150.0, 1e-9);
        EXPECT_EQ(value.isAtLeast, isStrength);
    }
    EXPECT_EQ(valuesOf(*table, table->rows[2], refused).values.size(), 1U);
}

TEST(LongTable, WithoutCodesTheValuesOfAPropertyAreCounted)
{
    const Result<ResultsTable> table = understandResults(
        "Material;Eigenschaft;Wert;Einheit\nPLA;Zugfestigkeit;40,1;MPa\nPLA;Zugfestigkeit;41,2;MPa\n"
        "PETG;Zugfestigkeit;50,2;MPa\nPETG;Zugfestigkeit;51,0;MPa\n",
        {});
    ASSERT_TRUE(table) << table.error().message;
    EXPECT_EQ(table->rows.size(), 4U);
    std::vector<RefusedCell> refused;
    EXPECT_NEAR(valuesOf(*table, table->rows[3], refused).values.at(0).number, 51.0, 1e-12);
    // A column that is called a property and names none makes no long table of it.
    const Result<ResultsTable> other = understandResults(
        "property,value,Tensile strength (MPa)\nred,1,40\nblue,2,41\ngreen,3,42\nred,4,43\n", {});
    ASSERT_TRUE(other) << other.error().message;
    EXPECT_EQ(other->rows.size(), 4U);
}

// The heading that comes again was a word, and made a factor of the way.
TEST(LongTable, RecordsBelowEachOtherAreNoResults)
{
    std::string text;
    for (int record = 0; record < 3; ++record) {
        text += "Time (s),Force (N),Extension (mm)\n";
        for (int i = 0; i < 20; ++i)
            text += std::to_string(0.1 * i) + "," + std::to_string(3.0 * i + record) + "," +
                    std::to_string(0.05 * i) + "\n";
    }
    EXPECT_FALSE(isResultsTable(text));
}

} // namespace inchpeg
