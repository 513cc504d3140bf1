// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/summary.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <cmath>
#include <fstream>
#include <string>
#include <vector>

namespace inchpeg::test
{

/// The contract of the command line: closed forms to 1e-9 relative; probabilities to 1e-6 relative or 1e-8
/// absolute.
inline constexpr double kClosedForm = 9.0;
inline constexpr double kProbability = 6.0;
inline constexpr double kProbabilityFloor = 1e-8;

inline nlohmann::json referenceFile(const std::string &name)
{
    std::ifstream file(INCHPEG_TEST_DATA "/" + name);
    return nlohmann::json::parse(file);
}

/// What tests/reference/make_design_reference.R wrote.
inline const nlohmann::json &designReference()
{
    static const nlohmann::json loaded = referenceFile("reference_designs.json");
    return loaded;
}

/// What tests/reference/make_beyond_reference.R wrote.
inline const nlohmann::json &beyondReference()
{
    static const nlohmann::json loaded = referenceFile("reference_beyond.json");
    return loaded;
}

inline std::vector<double> numbers(const nlohmann::json &list)
{
    return list.get<std::vector<double>>();
}

inline void expectClose(double value, const nlohmann::json &wanted, double digits, const std::string &what)
{
    EXPECT_GE(matchingDigits(value, wanted.get<double>()), digits)
        << what << ": " << value << " against " << wanted;
}

inline void expectProbability(double value, const nlohmann::json &wanted, const std::string &what)
{
    const double p = wanted.get<double>();
    EXPECT_TRUE(std::abs(value - p) <= kProbabilityFloor || matchingDigits(value, p) >= kProbability)
        << what << ": " << value << " against " << p;
}

inline void expectInterval(const std::optional<Interval> &ci, const nlohmann::json &wanted, double digits,
                           const std::string &what)
{
    ASSERT_EQ(ci.has_value(), !wanted.is_null()) << what;
    if (!ci)
        return;
    expectClose(ci->low, wanted[0], digits, what + " low");
    expectClose(ci->high, wanted[1], digits, what + " high");
}

} // namespace inchpeg::test
