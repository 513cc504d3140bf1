// SPDX-License-Identifier: GPL-3.0-or-later
// Files as other programs write them: none is read wrong in silence, nearly all are read right, and the
// sentence that refuses one names its cause.
#include "core/curve/force_curve.h"
#include "core/import/record_table.h"
#include "core/import/table.h"
#include "core/import/text.h"
#include "support/foreign_writers.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace inchpeg
{

namespace
{

constexpr unsigned kSeed = 20261201;
constexpr double kNear = 1e-7; ///< of the value: nine digits are written

bool isNear(double value, double truth)
{
    return std::abs(value - truth) <= kNear * std::max(1.0, std::abs(truth));
}

/// Empty where all is as it is in the file.
std::string wrongIn(const ImportedRecord &record, const test::ForeignFile &file)
{
    const std::vector<double> &force_N = record.table.columns[0];
    const std::vector<double> &extension_mm = record.table.columns[1];
    const std::vector<double> &time_s = record.table.columns[3];
    if (force_N.size() != file.rows)
        return fmt::format("{} rows for {}", force_N.size(), file.rows);
    const double peak_N = *std::max_element(force_N.begin(), force_N.end());
    if (!isNear(peak_N, file.peak_N))
        return fmt::format("peak {} N for {}", peak_N, file.peak_N);
    if (extension_mm.empty() || !isNear(extension_mm.back(), file.lastExtension_mm))
        return fmt::format("extension {} mm for {}", extension_mm.empty() ? -1.0 : extension_mm.back(),
                           file.lastExtension_mm);
    if (time_s.empty() || std::abs(time_s.back() - time_s.front() - file.lastTime_s) > 1e-3)
        return fmt::format("time {} s for {}", time_s.empty() ? -1.0 : time_s.back() - time_s.front(),
                           file.lastTime_s);
    return {};
}

} // namespace

TEST(ForeignWriters, RecordsAreReadRightOrRefusedByTheirCause)
{
    const std::vector<test::ForeignFile> files = test::foreignRecords(kSeed);
    std::map<std::string, std::size_t> writers;
    std::size_t toRead = 0;
    std::size_t right = 0;
    std::map<std::string, std::string> refused;
    for (const test::ForeignFile &file : files) {
        const std::string which = file.writer + ": " + file.what;
        ++writers[file.writer];
        const Result<ImportedRecord> record = importRecord(file.bytes, kForceColumns, inOrder, file.table);
        if (!file.refusedWith.empty()) {
            ASSERT_FALSE(record) << which << " is read";
            EXPECT_NE(record.error().message.find(file.refusedWith), std::string::npos)
                << which << " is refused with: " << record.error().message;
            continue;
        }
        ++toRead;
        if (!record) {
            refused[which] = record.error().message;
            continue;
        }
        const std::string wrong = wrongIn(*record, file);
        EXPECT_EQ(wrong, "") << which << "\n" << file.bytes.substr(0, 300);
        right += wrong.empty() ? 1U : 0U;
    }
    for (const auto &[which, why] : refused)
        fmt::print("refused: {}: {}\n", which, why);
    fmt::print("{} records of {} writers: {} of {} read right\n", files.size(), writers.size(), right,
               toRead);
    EXPECT_GE(writers.size(), 12U);
    EXPECT_GE(files.size(), 500U);
    EXPECT_GE(static_cast<double>(right), 0.95 * static_cast<double>(toRead));
}

TEST(ForeignWriters, TablesOfResultsAreAveragedWithoutTheirSummaries)
{
    const std::vector<test::ForeignTable> tables = test::foreignTables(kSeed);
    std::size_t right = 0;
    std::size_t toRead = 0;
    for (const test::ForeignTable &file : tables) {
        const std::string which = file.writer + ": " + file.what;
        const Result<DecodedText> text = decodeText(file.bytes);
        ASSERT_TRUE(text) << which << ": " << text.error().message;
        const Result<TextTable> table = readTable(text->utf8);
        if (!file.refusedWith.empty()) {
            ASSERT_FALSE(table) << which << " is read";
            EXPECT_NE(table.error().message.find(file.refusedWith), std::string::npos)
                << table.error().message;
            continue;
        }
        ++toRead;
        const Result<std::size_t> column =
            table ? findColumn(*table, file.column) : Result<std::size_t>(table.error());
        if (!column) {
            fmt::print("refused: {}: {}\n", which, column.error().message);
            continue;
        }
        const Result<std::vector<std::optional<double>>> values = numbersOf(*table, *column);
        ASSERT_TRUE(values) << which << ": " << values.error().message;
        double sum = 0.0;
        for (const std::optional<double> &value : *values)
            sum += value.value_or(std::nan(""));
        EXPECT_EQ(values->size(), file.n) << which;
        EXPECT_NEAR(sum / static_cast<double>(values->size()), file.mean, 1e-9) << which;
        ++right;
    }
    fmt::print("{} tables: {} of {} read\n", tables.size(), right, toRead);
    EXPECT_GE(tables.size(), 150U);
    EXPECT_GE(static_cast<double>(right), 0.95 * static_cast<double>(toRead));
}

} // namespace inchpeg
