// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "support/sanitized.h"

#include <gtest/gtest.h>

#include <cmath>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <string>

namespace inchpeg::test
{

/// How many studies are simulated a case: few in the test, as many as INCHPEG_CALIBRATION says for the tables
/// of docs/validation.md (bench/promises).
inline int simulatedStudies(int usual = kSanitized ? 60 : 300)
{
    const char *text = std::getenv("INCHPEG_CALIBRATION");
    return text != nullptr ? std::atoi(text) : usual;
}

/// Whether many studies are simulated.
inline bool isForPromises()
{
    return std::getenv("INCHPEG_CALIBRATION") != nullptr;
}

/// The seed of a simulation: the same in each run of the tests, another one for each round of bench/promises
/// (INCHPEG_SEED).
inline std::uint64_t simulationSeed(std::uint64_t usual)
{
    const char *text = std::getenv("INCHPEG_SEED");
    return text != nullptr ? usual + 1'000'003 * std::strtoull(text, nullptr, 10) : usual;
}

/// How often something happens, as it is promised.
struct Promise {
    enum class Is { AtMost, AtLeast, Near, Told } is = Is::Told;
    double share = 0.0;
    double within = 0.0; ///< so much further off is still kept

    [[nodiscard]] const char *name() const
    {
        return is == Is::AtMost    ? "at most"
               : is == Is::AtLeast ? "at least"
               : is == Is::Near    ? "near"
                                   : "told";
    }
};
inline Promise atMost(double share, double within = 0.0)
{
    return {Promise::Is::AtMost, share, within};
}
inline Promise atLeast(double share, double within = 0.0)
{
    return {Promise::Is::AtLeast, share, within};
}
inline Promise near(double share, double within)
{
    return {Promise::Is::Near, share, within};
}

/// Three standard errors of a share of so many.
inline double chance(double share, int of = simulatedStudies())
{
    return 3.0 * std::sqrt(share * (1.0 - share) / std::max(1, of));
}

/// Expects what was promised, within three standard errors of so many studies, and writes it down for
/// bench/promises (INCHPEG_PROMISES). Gives the share.
inline double expectKept(const std::string &what, Promise promise, int happened, int of)
{
    const double share = static_cast<double>(happened) / std::max(1, of);
    const double slack = promise.within + chance(promise.share, of);
    if (promise.is == Promise::Is::AtMost || promise.is == Promise::Is::Near) {
        EXPECT_LE(share, promise.share + slack) << what << ", of " << of;
    }
    if (promise.is == Promise::Is::AtLeast || promise.is == Promise::Is::Near) {
        EXPECT_GE(share, promise.share - slack) << what << ", of " << of;
    }
    const char *path = std::getenv("INCHPEG_PROMISES");
    if (std::FILE *file = path != nullptr ? std::fopen(path, "a") : nullptr) {
        const ::testing::TestInfo *test = ::testing::UnitTest::GetInstance()->current_test_info();
        std::fprintf(file, "%s.%s\t%s\t%s\t%.6g\t%.6g\t%d\t%d\n", test->test_suite_name(), test->name(),
                     what.c_str(), promise.name(), promise.share, promise.within, happened, of);
        std::fclose(file);
    }
    return share;
}

/// The same of as many studies as are to be simulated, each of which happens() or not.
template <typename F>
double simulatedShare(const std::string &what, Promise promise, F happens)
{
    const int studies = simulatedStudies();
    int count = 0;
    for (int i = 0; i < studies; ++i)
        count += happens() ? 1 : 0;
    return expectKept(what, promise, count, studies);
}

} // namespace inchpeg::test
