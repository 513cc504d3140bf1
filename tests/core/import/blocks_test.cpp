// SPDX-License-Identifier: GPL-3.0-or-later
// A long file is read in blocks on several cores, by a short way for plain rows: none of it may show.
#include "core/curve/force_curve.h"
#include "core/import/cells.h"
#include "core/import/layout.h"
#include "core/import/plain_row.h"
#include "core/import/table.h"
#include "service/on_all_cores.h"
#include "sim/random.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

/// More rows than one block holds; odd(i) may replace a row.
std::string longText(std::size_t rows, const std::function<std::string(std::size_t)> &odd = {})
{
    std::string text = "time_s,force_N,extension_mm\n";
    for (std::size_t i = 0; i < rows; ++i) {
        const std::string replaced = odd ? odd(i) : std::string();
        text += replaced.empty() ? fmt::format("{:.2f},{:.3f},{:.5f}\n", 0.01 * static_cast<double>(i),
                                               0.5 * static_cast<double>(i), 1e-5 * static_cast<double>(i))
                                 : replaced;
    }
    return text;
}

constexpr std::size_t kRows = 60000; ///< about 1.3 MB, several blocks

} // namespace

TEST(Blocks, ALongFileReadsTheSameOnOneCoreAndOnAll)
{
    const std::string text = longText(kRows, [](std::size_t i) -> std::string {
        return i % 7919 == 5 ? "\n" : i % 4001 == 3 ? "-- pause --\n" : i == 30000 ? "300.00,\n" : "";
    });
    const Result<ImportedCurve> one = importForceCurve(text);
    const Result<ImportedCurve> all = importForceCurve(text, onAllCores);
    ASSERT_TRUE(one && all) << (one ? all.error().message : one.error().message);
    EXPECT_EQ(one->curve, all->curve);
    EXPECT_EQ(one->warnings, all->warnings);
    EXPECT_EQ(one->skippedLines, 16U) << "15 pauses and a cut row; blank lines are nothing";
    EXPECT_EQ(one->curve.force_N.size(), kRows - 16U - 8U);
    EXPECT_EQ(one->curve.force_N.back(), 0.5 * (kRows - 1)) << "the gaps are closed";
    EXPECT_TRUE(std::is_sorted(one->curve.force_N.begin(), one->curve.force_N.end()));
}

TEST(Blocks, AnErrorFarDownNamesItsLine)
{
    const std::string text =
        longText(kRows, [](std::size_t i) { return i == 54321 ? std::string("1,two,3\n") : std::string(); });
    for (const TaskRunner &run : {TaskRunner(inOrder), TaskRunner(onAllCores)}) {
        const Result<ImportedCurve> read = importForceCurve(text, run);
        ASSERT_FALSE(read);
        EXPECT_EQ(read.error().position, (TextPosition{54321 + 2, 2}));
    }
}

TEST(Blocks, TheFirstOfSeveralErrorsIsTold)
{
    const std::string text = longText(
        kRows, [](std::size_t i) { return i % 20000 == 15000 ? std::string("1,x,3\n") : std::string(); });
    const Result<ImportedCurve> read = importForceCurve(text, onAllCores);
    ASSERT_FALSE(read);
    EXPECT_EQ(read.error().position->line, 15002U);
}

TEST(Blocks, LinesThatEndInALoneReturnAreReadToo)
{
    std::string text = longText(kRows);
    std::replace(text.begin(), text.end(), '\n', '\r');
    const Result<ImportedCurve> read = importForceCurve(text, onAllCores);
    ASSERT_TRUE(read) << read.error().message;
    EXPECT_EQ(read->rows, kRows);
}

// Found by fuzzing: lone returns among line feeds were not counted, and the rows had no room.
TEST(Blocks, MixedLineEndsAreCountedAsTheyAreRead)
{
    std::string text = "force_N,extension_mm\n";
    for (int i = 0; i < 30000; ++i)
        text += fmt::format("{},{}{}", i, i, i % 3 == 0 ? "\n" : i % 3 == 1 ? "\r" : "\r\n");
    const Result<ImportedCurve> read = importForceCurve(text, onAllCores);
    ASSERT_TRUE(read) << read.error().message;
    EXPECT_EQ(read->rows, 30000U);
    EXPECT_EQ(read->curve.force_N[29999], 29999.0);
    text += "1,x\n2,2\n";
    const Result<ImportedCurve> bad = importForceCurve(text, onAllCores);
    ASSERT_FALSE(bad);
    EXPECT_EQ(bad.error().position->line, 30002U);
}

TEST(Blocks, TheShortWayGivesWhatTheCarefulWayGivesBitForBit)
{
    sim::Random random(8);
    Layout layout;
    layout.delimiter = ';';
    layout.columns.resize(2);
    const std::size_t wanted[] = {0, 1};
    int shortWay = 0;
    for (const char mark : {'.', ','}) {
        layout.numbers.decimal = mark;
        const PlainRowReader plain(layout, wanted);
        for (int i = 0; i < 20000; ++i) {
            const auto number = [&] {
                const int whole = static_cast<int>(random.uniform() * 12.0);
                const int decimals = static_cast<int>(random.uniform() * 12.0);
                std::string digits = random.uniform() < 0.3 ? "-" : "";
                for (int d = 0; d < whole; ++d)
                    digits += static_cast<char>('0' + static_cast<int>(random.uniform() * 10.0));
                if (decimals > 0 || random.uniform() < 0.2)
                    digits += mark;
                for (int d = 0; d < decimals; ++d)
                    digits += static_cast<char>('0' + static_cast<int>(random.uniform() * 10.0));
                return digits;
            };
            const std::string a = number();
            const std::string b = number();
            const std::string text = a + ";" + b + "\nand more than a word of text behind it";
            const char *at = text.data();
            double row[2] = {0.0, 0.0};
            if (!plain.read(at, text.data() + text.size(), row))
                continue;
            ++shortWay;
            EXPECT_EQ(*at, 'a');
            for (const auto &[cell, value] : {std::pair{a, row[0]}, std::pair{b, row[1]}}) {
                const Cell careful = readCell(cell, layout.numbers);
                ASSERT_EQ(careful.kind, CellKind::Number) << cell;
                EXPECT_EQ(careful.value, value) << cell;
            }
        }
    }
    EXPECT_GT(shortWay, 20000);
}

} // namespace inchpeg
