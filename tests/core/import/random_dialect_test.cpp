// SPDX-License-Identifier: GPL-3.0-or-later
// Files in dialects drawn at random: every one is read right or refused with a sentence, none read wrong in
// silence.
#include "support/random_dialect.h"

#include <gtest/gtest.h>

#include <cmath>
#include <cstdlib>

namespace inchpeg
{

namespace
{

/// 2,000 files a run; fuzz/run asks for more by INCHPEG_DIALECTS.
std::uint64_t dialectCount()
{
    const char *wanted = std::getenv("INCHPEG_DIALECTS");
    return wanted != nullptr ? std::strtoull(wanted, nullptr, 10) : 2000;
}

bool agree(const std::vector<double> &read, const std::vector<double> &said, double step)
{
    if (read.size() != said.size())
        return false;
    for (std::size_t i = 0; i < read.size(); ++i) {
        if (!(std::abs(read[i] - said[i]) <= 0.5001 * step + 1e-9 * std::abs(said[i])))
            return false;
    }
    return true;
}

} // namespace

TEST(RandomDialects, AreReadRightOrRefusedNeverWrongInSilence)
{
    const std::uint64_t count = dialectCount();
    std::uint64_t right = 0;
    std::uint64_t refused = 0;
    for (std::uint64_t seed = 1; seed <= count; ++seed) {
        const test::DialectFile file = test::randomDialect(seed);
        const Result<ImportedCurve> imported = importForceCurve(file.bytes);
        if (!imported) {
            ++refused;
            EXPECT_FALSE(imported.error().message.empty());
            if (std::getenv("INCHPEG_DIALECTS_TOLD") != nullptr)
                std::printf("refused %llu (%s): %s\n", static_cast<unsigned long long>(seed),
                            file.description.c_str(), errorSentence(imported.error()).c_str());
            continue;
        }
        const bool isRight =
            agree(imported->curve.force_N, file.curve.force_N, file.forceStep_N) &&
            agree(imported->curve.extension_mm, file.curve.extension_mm, file.extensionStep_mm) &&
            agree(imported->curve.time_s, file.curve.time_s, file.timeStep_s) &&
            imported->curve.strain.empty();
        right += isRight ? 1 : 0;
        EXPECT_TRUE(isRight) << "seed " << seed << ": " << file.description << "\nread " << imported->rows
                             << " of " << file.curve.force_N.size() << " rows\n"
                             << file.bytes.substr(0, 400);
    }
    RecordProperty("read right", std::to_string(right));
    RecordProperty("refused", std::to_string(refused));
    std::printf("%llu files: %llu read right, %llu refused\n", static_cast<unsigned long long>(count),
                static_cast<unsigned long long>(right), static_cast<unsigned long long>(refused));
    EXPECT_GE(static_cast<double>(right), 0.99 * static_cast<double>(count))
        << "nearly all of them are readable";
}

} // namespace inchpeg
