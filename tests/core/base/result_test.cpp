// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/result.h"

#include <gtest/gtest.h>

namespace inchpeg
{

TEST(Result, HoldsAValueOrAnError)
{
    const Result<int> good = 7;
    EXPECT_TRUE(good.has_value());
    EXPECT_TRUE(static_cast<bool>(good));
    EXPECT_EQ(*good, 7);
    const Result<int> bad = invalidArgument("no");
    EXPECT_FALSE(bad.has_value());
    EXPECT_EQ(bad.error().message, "no");
}

TEST(Result, AskingForWhatIsNotThereBreaksTheContract)
{
    const Result<int> good = 7;
    const Result<int> bad = badInput("no");
    EXPECT_THROW(static_cast<void>(good.error()), ContractViolation);
    EXPECT_THROW(static_cast<void>(bad.value()), ContractViolation);
    EXPECT_THROW(static_cast<void>(*bad), ContractViolation);
}

TEST(Result, GivesItsValueAway)
{
    Result<std::string> text = std::string(100, 'x');
    const std::string taken = std::move(text).value();
    EXPECT_EQ(taken.size(), 100U);
}

TEST(Error, PutsItsPositionInFront)
{
    EXPECT_EQ(errorSentence(badInput("bad")), "bad");
    EXPECT_EQ(errorSentence(badInput("bad", TextPosition{3, {}})), "line 3: bad");
    EXPECT_EQ(errorSentence(badInput("bad", TextPosition{3, 2})), "line 3, column 2: bad");
}

} // namespace inchpeg
