// SPDX-License-Identifier: GPL-3.0-or-later
// What stands around the rows of a record: headings, units, summaries, other tables.
#include "core/curve/force_curve.h"
#include "core/import/table.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

Result<ImportedCurve> read(std::string_view text, std::optional<std::size_t> table = {})
{
    return importForceCurve(text, inOrder, table);
}

bool anyWarning(const ImportedCurve &imported, std::string_view part)
{
    for (const std::string &warning : imported.warnings) {
        if (warning.find(part) != std::string::npos)
            return true;
    }
    return false;
}

} // namespace

// A counter without a unit was taken for a strain, and the modulus was gone without a word.
TEST(Tables, AColumnThatTellsNothingIsNotUsed)
{
    for (const char *unit : {"-", "1", ""}) {
        const Column cycle = understandColumn("Cycle", unit);
        EXPECT_FALSE(cycle.quantity) << unit;
        EXPECT_TRUE(cycle.unknownUnitText.empty()) << unit;
        const Column strain = understandColumn("Strain", unit);
        EXPECT_EQ(strain.quantity, ColumnQuantity::Strain) << unit;
        EXPECT_TRUE(strain.unknownUnitText.empty()) << unit;
    }
    // As typed readings are kept: it was asked what the 1 is, and no typed hardness could be read.
    EXPECT_EQ(understandColumn("hardness [1]", {}).question, "");
    EXPECT_EQ(understandColumn("hardness [1]", {}).quantity, ColumnQuantity::Hardness);
    EXPECT_FALSE(understandColumn("Cycle [-]", {}).quantity);
    EXPECT_FALSE(understandColumn("Humidity [%]", {}).quantity);
    EXPECT_EQ(understandColumn("Channel 2 [%]", {}).quantity, std::nullopt);
    EXPECT_EQ(understandColumn("Axial [µε]", {}).quantity, ColumnQuantity::Strain);
    EXPECT_DOUBLE_EQ(understandColumn("Axial [µε]", {}).unit->toWorking(1500.0), 0.0015);
}

// "x,N" over whole numbers was read as one column with decimal commas.
TEST(Tables, AHeadingOfUnitsAloneNamesItsColumns)
{
    for (const char *text : {"mm\tN\n1\t10\n2\t20\n3\t30\n", "mm,N\n1,10\n2,20\n3,30\n",
                             "mm;N\n1;10\n2;20\n3;30\n", "[mm];[N]\n1;10\n2;20\n3;30\n"}) {
        SCOPED_TRACE(text);
        const Result<ImportedCurve> imported = read(text);
        ASSERT_TRUE(imported) << imported.error().message;
        EXPECT_EQ(imported->layout.unitsLine, 1U);
        EXPECT_EQ(imported->curve.force_N, (std::vector<double>{10.0, 20.0, 30.0}));
        EXPECT_EQ(imported->curve.extension_mm, (std::vector<double>{1.0, 2.0, 3.0}));
        EXPECT_FALSE(anyWarning(*imported, "no unit"));
    }
    const Result<ImportedCurve> oneNamed = read("x,N\n1,10\n2,20\n3,30\n");
    ASSERT_TRUE(oneNamed) << oneNamed.error().message;
    EXPECT_EQ(oneNamed->curve.force_N, (std::vector<double>{10.0, 20.0, 30.0}));
    // A letter or word that may be something else stays a name.
    for (const char *heading : {"s", "m", "h", "K", "min", "in", "%", "1", "-"})
        EXPECT_FALSE(understandColumn(heading, {}).quantity) << heading;
    EXPECT_EQ(understandColumn("°C", {}).quantity, ColumnQuantity::Temperature);
}

// "# begin" under the names of the columns made the columns nameless.
TEST(Tables, ARemarkBetweenHeadingAndRowsHidesNoHeading)
{
    for (const char *remark : {"# begin\n", "run 3\n", "# begin\n\n# now\n", "% 250 mm/s, slow\n"}) {
        for (const char *units : {"", "s,N,mm\n"}) {
            SCOPED_TRACE(remark);
            const std::string names =
                *units == '\0' ? "Time (s),Force (N),Extension (mm)\n" : "Time,Force,Extension\n";
            const Result<ImportedCurve> imported =
                read("# frame 3\n" + names + units + remark + "0,10,0.1\n1,20,0.2\n2,30,0.3\n3,40,0.4\n");
            ASSERT_TRUE(imported) << imported.error().message;
            EXPECT_EQ(imported->curve.force_N, (std::vector<double>{10.0, 20.0, 30.0, 40.0}));
            EXPECT_EQ(imported->curve.extension_mm, (std::vector<double>{0.1, 0.2, 0.3, 0.4}));
        }
    }
    const Result<ImportedCurve> two = read("Time (s),Force (N)\n# begin\n0,10\n1,20\n2,30\n");
    ASSERT_TRUE(two) << two.error().message;
    EXPECT_EQ(two->curve.force_N, (std::vector<double>{10.0, 20.0, 30.0}));
}

// A name and its unit with a comma between them are one column, where the rows have decimal commas.
TEST(Tables, ANameAndItsUnitAreOneColumn)
{
    const Result<ImportedCurve> imported = read("Force, N\n1,10\n2,25\n3,30\n");
    ASSERT_TRUE(imported) << imported.error().message;
    EXPECT_EQ(imported->layout.columns.size(), 1U);
    EXPECT_EQ(imported->curve.force_N, (std::vector<double>{1.10, 2.25, 3.30}));
    const Result<ImportedCurve> two = read("force,time\n1,10\n2,20\n");
    ASSERT_TRUE(two) << two.error().message;
    EXPECT_EQ(two->layout.columns.size(), 2U);
}

TEST(Tables, HeadingsOfManyLanguagesAreUnderstood)
{
    const std::pair<const char *, ColumnQuantity> headings[] = {
        {"Prüfkraft in N", ColumnQuantity::Force},        {"Force de traction [N]", ColumnQuantity::Force},
        {"Carga aplicada (kN)", ColumnQuantity::Force},   {"FORÇA [N]", ColumnQuantity::Force},
        {"Déplacement (mm)", ColumnQuantity::Extension},  {"Traversenweg [mm]", ColumnQuantity::Extension},
        {"Allungamento / mm", ColumnQuantity::Extension}, {"Deformación (%)", ColumnQuantity::Strain},
        {"Prüfzeit [s]", ColumnQuantity::Time},           {"Czas [s]", ColumnQuantity::Time},
        {"Time since load (s)", ColumnQuantity::Time},    {"Température (°C)", ColumnQuantity::Temperature},
    };
    for (const auto &[heading, quantity] : headings)
        EXPECT_EQ(understandColumn(heading, {}).quantity, quantity) << heading;
    EXPECT_TRUE(understandColumn("Traversenweg [mm]", {}).isCrosshead);
    EXPECT_FALSE(understandColumn("Load rate [N/s]", {}).quantity) << "a rate is no force";
}

TEST(Tables, OfSeveralBracketsTheOneWithTheUnitCounts)
{
    for (const char *heading :
         {"Extension (gauge) (mm)", "Extension (mm) (gauge)", "Extension [gauge] [mm]"}) {
        const Column column = understandColumn(heading, {});
        EXPECT_EQ(column.quantity, ColumnQuantity::Extension) << heading;
        EXPECT_EQ(column.unit->symbol, "mm") << heading;
        EXPECT_FALSE(column.unitAssumed) << heading;
        EXPECT_TRUE(column.unknownUnitText.empty()) << heading;
    }
    const Column byRow = understandColumn("Extension (gauge)", "mm");
    EXPECT_EQ(byRow.name, "Extension (gauge)");
    EXPECT_EQ(byRow.unit->symbol, "mm");
    EXPECT_EQ(understandColumn("Force (stone)", {}).unknownUnitText, "stone");
}

TEST(Tables, ATabFileStaysOneWhateverItsHeadingsHold)
{
    const std::string metadata = "Test speed 5 mm/min\nWidth 10.02 mm\nSpecimen\tA 12\n\n";
    const std::string rows = "0.0\t0\t0.00\n0.1\t12.5\t0.25\n0.2\t20\t0.50\n";
    for (const std::string &heading :
         {std::string("Elapsed time (s)\tLoad cell force (N)\tExtension (gauge) (mm)\n"),
          std::string("Elapsed time\tLoad cell force\tExtension of the gauge\ns\tN\tmm\n")}) {
        const Result<ImportedCurve> imported = read(metadata + heading + rows);
        ASSERT_TRUE(imported) << imported.error().message;
        EXPECT_EQ(imported->layout.delimiter, '\t');
        EXPECT_EQ(imported->curve.force_N, (std::vector{0.0, 12.5, 20.0}));
        EXPECT_EQ(imported->curve.extension_mm, (std::vector{0.0, 0.25, 0.5}));
    }
}

TEST(Tables, AUnitsRowMayHoldADash)
{
    const Result<ImportedCurve> imported =
        read("Kraft;Zyklus;Weg\nkN;-;mm\n0,0;1;0,0\n0,5;2;0,1\n1,0;3;0,2\n");
    ASSERT_TRUE(imported) << imported.error().message;
    EXPECT_EQ(imported->layout.unitsLine, 2U);
    EXPECT_EQ(imported->curve.force_N[1], 500.0);
    EXPECT_TRUE(imported->curve.strain.empty());
}

TEST(Tables, ADelimiterAtTheEndOfEachLineMakesNoColumn)
{
    for (const std::string &text : {std::string("F [N];x [mm];\n0;0;\n1;0,1;\n2;0,2;\n"),
                                    std::string("F [N];x [mm]\n0;0;\n1;0,1;\n2;0,2;\n")}) {
        const Result<ImportedCurve> imported = read(text);
        ASSERT_TRUE(imported) << imported.error().message;
        EXPECT_EQ(imported->layout.columns.size(), 2U);
        EXPECT_EQ(imported->rows, 3U);
    }
}

TEST(Tables, ASummaryBelowTheRowsIsNotUsedAndSaid)
{
    const std::string rows = "t;F [N];x [mm]\n0;0;0\n1;12;0.1\n2;20;0.2\n";
    const Result<ImportedCurve> imported = read(rows + "Fmax;20.5\nbroken;yes\nend of test\n");
    ASSERT_TRUE(imported) << imported.error().message;
    EXPECT_EQ(imported->rows, 3U);
    EXPECT_EQ(imported->skippedLines, 3U);
    EXPECT_TRUE(anyWarning(*imported, "line")) << "the first of them is named";
    EXPECT_TRUE(anyWarning(*imported, "5"));
    // The same between two rows is an error with its line.
    const Result<ImportedCurve> between = read(rows + "Fmax;20.5\n3;18;0.3\n");
    ASSERT_FALSE(between);
    EXPECT_EQ(between.error().position->line, 5U);
    // Numbers that are none are an error, the last line or not.
    for (const char *line : {"3;nan;0.3\n", "3;1e999;0.3\n", "3;4;5;6\n"}) {
        const Result<ImportedCurve> damaged = read(rows + line);
        ASSERT_FALSE(damaged) << line;
        EXPECT_EQ(damaged.error().position->line, 5U) << line;
    }
}

// "Fmax" stands in a column that is not read, and its numbers in those that are.
TEST(Tables, TextInAColumnOfNumbersMakesALineNoRow)
{
    const Result<ImportedCurve> imported =
        read("Nr;F [N];x [mm]\n1;0;0\n2;12;0.1\n3;20;0.2\nFmax;20.5;0.2\n");
    ASSERT_TRUE(imported) << imported.error().message;
    EXPECT_EQ(imported->rows, 3U);
    EXPECT_EQ(imported->curve.force_N.back(), 20.0);
}

TEST(Tables, OfSeveralTablesTheFirstRecordIsReadAndTheOthersAreChosenByNumber)
{
    const std::string text = "Specimen;Width (mm);Thickness (mm)\n1;10.02;4.01\n\n"
                             "Time (s);Force (N);Extension (mm)\n0;0;0\n1;12;0.1\n2;20;0.2\n3;21;0.3\n\n"
                             "Time (s);Force (N);Extension (mm)\n0;0;0\n1;30;0.1\n2;60;0.2\n";
    const Result<std::vector<Layout>> tables = findTables(text);
    ASSERT_TRUE(tables);
    ASSERT_EQ(tables->size(), 3U);
    EXPECT_EQ((*tables)[0].columns[1].quantity, ColumnQuantity::Length);
    EXPECT_EQ((*tables)[2].headerLines, 10U);
    const Result<ImportedCurve> first = read(text);
    ASSERT_TRUE(first) << first.error().message;
    EXPECT_EQ(first->curve.force_N, (std::vector{0.0, 12.0, 20.0, 21.0}));
    EXPECT_TRUE(anyWarning(*first, "another table begins at line 10"));
    const Result<ImportedCurve> third = read(text, 3);
    ASSERT_TRUE(third) << third.error().message;
    EXPECT_EQ(third->curve.force_N, (std::vector{0.0, 30.0, 60.0}));
    const Result<ImportedCurve> none = read(text, 4);
    ASSERT_FALSE(none);
    EXPECT_NE(none.error().message.find("3 tables"), std::string::npos) << none.error().message;
}

TEST(Tables, ARecordBelowALongTableOfSomethingElseIsFound)
{
    std::string text = "Time (s),Temperature (°C)\n";
    for (int i = 0; i < 900; ++i)
        text += std::to_string(i) + ",23.5\n";
    text += "\nTime (s),Force (N)\n0,0\n1,5\n2,9\n";
    const Result<ImportedCurve> imported = read(text);
    ASSERT_TRUE(imported) << imported.error().message;
    EXPECT_EQ(imported->curve.force_N, (std::vector{0.0, 5.0, 9.0}));
}

TEST(Tables, HeadingsPartedByBlanksAreMatchedToTheirColumns)
{
    for (const char *heading : {"Time (s)   Load cell (N)   Channel 3", "Time (s) Force (N) Nr."}) {
        const Result<ImportedCurve> imported =
            read(std::string(heading) + "\n 0.0   1.5   1\n 0.1   2.5   2\n 0.2  3.5  3\n");
        ASSERT_TRUE(imported) << heading << ": " << imported.error().message;
        EXPECT_EQ(imported->curve.force_N, (std::vector{1.5, 2.5, 3.5})) << heading;
        EXPECT_EQ(imported->curve.time_s.size(), 3U) << heading;
    }
}

TEST(Tables, AFirstRowWithoutItsValueIsNoHeading)
{
    for (const char *text : {"set,strength\nmasked,\nbare,61.2\nclad,58.0\n",
                             "set;strength\nmasked;\npainted;\nbare;61,2\nclad;58,0\n"}) {
        const Result<Layout> layout = findLayout(text);
        ASSERT_TRUE(layout) << text;
        ASSERT_EQ(layout->columns.size(), 2U) << text;
        EXPECT_EQ(layout->columns[0].name, "set") << text;
        EXPECT_EQ(layout->columns[1].name, "strength") << text;
        EXPECT_EQ(layout->headerLines, 1U) << text;
    }
}

TEST(Tables, AnEndlessLineIsRefusedAtOnce)
{
    std::string text = "force,time\n";
    for (int i = 0; i < 1'000'000; ++i)
        text += "1,";
    const Result<Layout> layout = findLayout(text);
    ASSERT_FALSE(layout);
    EXPECT_NE(layout.error().message.find("characters"), std::string::npos) << layout.error().message;
    ASSERT_TRUE(layout.error().position);
    EXPECT_EQ(layout.error().position->line, 2U);
}

} // namespace inchpeg
