// SPDX-License-Identifier: GPL-3.0-or-later
// Excel workbooks as rigs and spreadsheets export them; written here by another library than reads them.
#include "core/curve/force_curve.h"
#include "core/import/table.h"
#include "core/import/text.h"
#include "core/import/workbook.h"
#include "support/sanitized.h"
#include "support/temporary_folder.h"
#include "support/zip_bytes.h"

#include <gtest/gtest.h>

#include <functional>
#include <xlsxwriter.h>

namespace inchpeg
{

namespace
{

std::string workbook(const std::function<void(lxw_workbook *)> &fill)
{
    const test::TemporaryFolder folder;
    const std::string path = folder.path("book.xlsx");
    lxw_workbook *book = workbook_new(path.c_str());
    fill(book);
    EXPECT_EQ(workbook_close(book), LXW_NO_ERROR);
    return test::bytesOf(path);
}

void addRecord(lxw_workbook *book, const char *name, double peak_N, int rows = 40)
{
    lxw_worksheet *sheet = workbook_add_worksheet(book, name);
    worksheet_write_string(sheet, 0, 0, "Specimen A 12", nullptr);
    worksheet_write_string(sheet, 2, 0, "Standard force (N)", nullptr);
    worksheet_write_string(sheet, 2, 1, "Extension (gauge) (mm)", nullptr);
    worksheet_write_string(sheet, 2, 2, "Cycle", nullptr);
    for (int i = 0; i < rows; ++i) {
        const auto row = static_cast<lxw_row_t>(3 + i);
        worksheet_write_number(sheet, row, 0, peak_N * i / (rows - 1), nullptr);
        worksheet_write_number(sheet, row, 1, 0.01 * i, nullptr);
        worksheet_write_number(sheet, row, 2, 1 + i % 4, nullptr);
    }
}

} // namespace

TEST(Workbook, ARecordIsReadFromItsSheet)
{
    const std::string bytes = workbook([](lxw_workbook *book) { addRecord(book, "Pull 1", 450.25); });
    const Result<ImportedCurve> imported = importForceCurve(bytes);
    ASSERT_TRUE(imported) << imported.error().message;
    EXPECT_EQ(imported->rows, 40U);
    EXPECT_EQ(imported->curve.force_N.back(), 450.25);
    EXPECT_DOUBLE_EQ(imported->curve.extension_mm[7], 0.07);
    EXPECT_TRUE(imported->curve.strain.empty()) << "a counter is no strain";
    EXPECT_EQ(encodingName(decodeText(bytes)->encoding), "xlsx");
}

TEST(Workbook, TheFirstSheetWithARecordIsReadAndAnotherCanBeChosen)
{
    const std::string bytes = workbook([](lxw_workbook *book) {
        lxw_worksheet *cover = workbook_add_worksheet(book, "Cover");
        worksheet_write_string(cover, 0, 0, "Report of the day", nullptr);
        addRecord(book, "Pull 1", 100.0);
        addRecord(book, "Pull 2", 200.0, 25);
    });
    const Result<ImportedCurve> first = importForceCurve(bytes);
    ASSERT_TRUE(first) << first.error().message;
    EXPECT_EQ(first->rows, 40U);
    EXPECT_EQ(first->curve.force_N.back(), 100.0);
    EXPECT_NE(first->warnings.back().find("another table"), std::string::npos);
    const Result<ImportedCurve> second = importForceCurve(bytes, inOrder, 2);
    ASSERT_TRUE(second) << second.error().message;
    EXPECT_EQ(second->rows, 25U);
    EXPECT_EQ(second->curve.force_N.back(), 200.0);
    EXPECT_FALSE(importForceCurve(bytes, inOrder, 9));
}

// A formula's own result is what the spreadsheet showed when it was saved.
TEST(Workbook, FormulasGiveTheirKeptResult)
{
    const std::string bytes = workbook([](lxw_workbook *book) {
        lxw_worksheet *sheet = workbook_add_worksheet(book, nullptr);
        worksheet_write_string(sheet, 0, 0, "Force (kgf)", nullptr);
        worksheet_write_string(sheet, 0, 1, "Time (s)", nullptr);
        for (int i = 0; i < 10; ++i) {
            worksheet_write_formula_num(sheet, static_cast<lxw_row_t>(1 + i), 0, "=2*B2", nullptr, 1.5 * i);
            worksheet_write_number(sheet, static_cast<lxw_row_t>(1 + i), 1, i, nullptr);
        }
    });
    const Result<ImportedCurve> imported = importForceCurve(bytes);
    ASSERT_TRUE(imported) << imported.error().message;
    EXPECT_DOUBLE_EQ(imported->curve.force_N[2], 3.0 * 9.80665);
}

TEST(Workbook, WhatIsNoneOrDamagedIsRefusedInWords)
{
    const std::string good = workbook([](lxw_workbook *book) { addRecord(book, "Pull", 10.0); });
    for (const std::size_t length : {std::size_t{4}, std::size_t{100}, good.size() / 2, good.size() - 30}) {
        const Result<ImportedCurve> cut = importForceCurve(good.substr(0, length));
        ASSERT_FALSE(cut) << length;
        EXPECT_NE(cut.error().message.find("workbook"), std::string::npos) << cut.error().message;
    }
    // Flipped bytes anywhere: read or refused, never a crash. The library that reads workbooks ends the
    // program at some of them, so each place is tried.
    for (std::size_t at = 0; at < good.size(); at += test::kSanitized ? 7 : 1) {
        std::string damaged = good;
        damaged[at] = static_cast<char>(damaged[at] ^ 0x55);
        if (const Result<ImportedCurve> imported = importForceCurve(damaged); !imported) {
            EXPECT_FALSE(imported.error().message.empty());
        }
    }
}

TEST(Workbook, WhatNoReaderReadsIsNamedWithWhatToDo)
{
    const std::pair<std::string, const char *> files[] = {
        {"\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1" + std::string(600, '\0'), ".xls"},
        {test::zipBytes({{"xl/workbook.bin", "x"}}), ".xlsb"},
        {test::zipBytes({{"readme.txt", "x"}}), "unpack it"},
        {std::string("\x1F\x8B\x08") + "gz", "unpack it"},
        {"%PDF-1.7 ...", "PDF"}};
    for (const auto &[bytes, word] : files) {
        const Result<ImportedCurve> imported = importForceCurve(bytes);
        ASSERT_FALSE(imported) << word;
        EXPECT_NE(imported.error().message.find(word), std::string::npos) << imported.error().message;
    }
}

TEST(Workbook, CellsMergedDownTheRowsHoldTheirValueInEach)
{
    const std::string bytes = workbook([](lxw_workbook *book) {
        lxw_worksheet *sheet = workbook_add_worksheet(book, nullptr);
        worksheet_write_string(sheet, 0, 0, "group", nullptr);
        worksheet_write_string(sheet, 0, 1, "strength", nullptr);
        worksheet_merge_range(sheet, 1, 0, 3, 0, "low", nullptr);
        worksheet_merge_range(sheet, 4, 0, 6, 0, "high", nullptr);
        for (int i = 0; i < 6; ++i)
            worksheet_write_number(sheet, static_cast<lxw_row_t>(1 + i), 1, 40.0 + i, nullptr);
    });
    const Result<DecodedText> text = decodeText(bytes);
    ASSERT_TRUE(text) << text.error().message;
    const Result<TextTable> table = readTable(text->utf8);
    ASSERT_TRUE(table) << table.error().message;
    ASSERT_EQ(table->rows.size(), 6U);
    EXPECT_EQ(table->rows[2][0], "low");
    EXPECT_EQ(table->rows[5][0], "high");
    EXPECT_EQ(table->lines[5], 7U) << "lines are the sheet's rows";
}

// Found by random changes to files: columns were looked at once for each other column, for minutes here.
TEST(Workbook, RowsAsWideAsASheetAreReadInNoTime)
{
    std::string row = "1";
    for (int c = 1; c < 16384; ++c)
        row += "\t2";
    const Result<Layout> layout = findLayout("force (N)\n" + row + "\n" + row + "\n");
    ASSERT_TRUE(layout) << layout.error().message;
    EXPECT_EQ(layout->columns.size(), 16384U);
    std::string tall = "force (N)\n";
    for (int i = 0; i < 700; ++i)
        tall += row + "\n";
    const Result<TextTable> table = readTable(tall);
    ASSERT_FALSE(table) << "it would fill the memory";
    EXPECT_NE(table.error().message.find("too much to be held"), std::string::npos) << table.error().message;
}

TEST(Workbook, AFormulaWithoutItsResultIsToldAsOne)
{
    const std::string bytes = test::zipBytes(
        {{"[Content_Types].xml", "<Types/>"},
         {"xl/workbook.xml",
          "<workbook><sheets><sheet name=\"A\" sheetId=\"1\" r:id=\"r1\"/></sheets></workbook>"},
         {"xl/_rels/workbook.xml.rels", "<Relationships><Relationship Id=\"r1\" Type=\"x/worksheet\" "
                                        "Target=\"worksheets/sheet1.xml\"/></Relationships>"},
         {"xl/worksheets/sheet1.xml",
          "<worksheet><sheetData><row><c t=\"str\"><v>time (s)</v></c><c t=\"str\"><v>force (N)</v></c></row>"
          "<row><c><v>0</v></c><c><v>1</v></c></row><row><c><v>1</v></c><c><f>A2*3</f></c></row>"
          "<row><c><v>2</v></c><c><v>9</v></c></row></sheetData></worksheet>"}});
    const Result<ImportedCurve> imported = importForceCurve(bytes);
    ASSERT_FALSE(imported);
    EXPECT_NE(imported.error().message.find("is a formula whose result the workbook does not hold"),
              std::string::npos)
        << imported.error().message;
    EXPECT_EQ(imported.error().position->line, 3U);
}

// The directory of the archive is made to say that it unpacks to four gigabytes.
TEST(Workbook, AnArchiveThatWouldFillTheMemoryIsRefused)
{
    std::string bytes = workbook([](lxw_workbook *book) { addRecord(book, "Pull", 10.0); });
    const std::size_t entry = bytes.find("PK\x01\x02");
    ASSERT_NE(entry, std::string::npos);
    for (std::size_t i = 0; i < 4; ++i)
        bytes[entry + 24 + i] = '\xFE';
    const Result<ImportedCurve> imported = importForceCurve(bytes);
    ASSERT_FALSE(imported);
    EXPECT_NE(imported.error().message.find("512 MB"), std::string::npos) << imported.error().message;
}

} // namespace inchpeg
