// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/file_matching.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

Study twoRails()
{
    test::StudyBuilder builder;
    firstTest(builder.study).piecesPerCondition = 12;
    EXPECT_TRUE(addCondition(builder.study, {{}, {"230"}, {}, {}}, builder.ids()));
    EXPECT_TRUE(addCondition(builder.study, {{}, {"245"}, {}, {}}, builder.ids()));
    return builder.study;
}

/// The codes that the files were given, "-" for none.
std::string codes(const Study &study, const FileMatches &matches)
{
    std::string text;
    for (const auto &match : matches)
        text += (text.empty() ? "" : " ") + (match ? findPiece(study, *match)->code : std::string("-"));
    return text;
}

std::string byName(const Study &study, const std::vector<std::string> &files, std::string_view pattern)
{
    const Result<FileMatches> matches = matchByName(study, files, pattern);
    return matches ? codes(study, *matches) : matches.error().message;
}

} // namespace

TEST(FileMatching, ByCode)
{
    const Study study = twoRails();
    EXPECT_EQ(byName(study, {"A1.csv", "b12.TXT", "C1.csv"}, "{code}"), "A1 B12 -");
    EXPECT_EQ(byName(study, {"pull_A1.csv", "pull-A11.csv", "A1.csv"}, "*_{code}"), "A1 A11 -");
    EXPECT_EQ(byName(study, {"A1_monday.csv", "A12 monday.csv"}, "{code}_*"), "A1 A12");
}

TEST(FileMatching, ByLevelAndNumber)
{
    const Study study = twoRails();
    EXPECT_EQ(byName(study, {"230_1.csv", "230C_02.csv", "245°C_3.csv", "260_1.csv"}, "{level}_{n}"),
              "A1 A2 B3 -");
    EXPECT_EQ(byName(study, {"lug_245_10.csv", "lug_245_1.csv"}, "*_{level}_{n}"), "B10 B1");
}

TEST(FileMatching, SeveralLevelsStandOneAfterTheOther)
{
    test::StudyBuilder builder;
    firstTest(builder.study).piecesPerCondition = 3;
    builder.study.factors = {{"nozzle temperature", "°C", {}}, {"walls", "", {}}};
    EXPECT_TRUE(addCondition(builder.study, {{}, {"230", "2"}, {}, {}}, builder.ids()));
    EXPECT_TRUE(addCondition(builder.study, {{}, {"230", "4"}, {}, {}}, builder.ids()));
    EXPECT_EQ(byName(builder.study, {"230_4_1.csv", "230_2_3.csv"}, "{level}_{n}"), "B1 A3");
}

TEST(FileMatching, FilesAreForThePiecesOfTheirTest)
{
    test::StudyBuilder builder;
    firstTest(builder.study).piecesPerCondition = 2;
    builder.study.tests.push_back({Method::Creep, 1, {}});
    EXPECT_TRUE(addCondition(builder.study, {{}, {"230"}, {}, {}}, builder.ids()));
    EXPECT_EQ(byName(builder.study, {"A1.csv", "A3.csv"}, "{code}"), "A1 -");
    const std::vector<std::string> names{"A1.csv", "A3.csv"};
    const Result<FileMatches> creep = matchByName(builder.study, names, "{code}", Method::Creep);
    EXPECT_FALSE((*creep)[0]);
    EXPECT_EQ((*creep)[1], builder.study.pieces[2].id);
    EXPECT_EQ(matchByOrder(builder.study, names, Method::Creep)[0], builder.study.pieces[2].id);
}

TEST(FileMatching, TwoFilesForOnePegGoToNeither)
{
    const Study study = twoRails();
    EXPECT_EQ(byName(study, {"A1.csv", "A1.txt", "A2.csv"}, "{code}"), "- - A2");
}

TEST(FileMatching, APegWithARecordIsNotGivenAway)
{
    Study study = twoRails();
    study.pieces[0].recording = Recording{RawFileId{99}, {}};
    EXPECT_EQ(byName(study, {"A1.csv", "A2.csv"}, "{code}"), "- A2");
    EXPECT_EQ(codes(study, matchByOrder(study, std::vector<std::string>{"x.csv", "y.csv"})), "A2 A3");
}

TEST(FileMatching, TheNumberStarDoesNotSplitDigits)
{
    const Study study = twoRails();
    EXPECT_EQ(byName(study, {"run11_A1.csv"}, "*{code}"), "A1");
    EXPECT_EQ(byName(study, {"A11.csv"}, "{level}*{n}"), "-");
}

TEST(FileMatching, FindsThePatternThatPlacesMost)
{
    const Study study = twoRails();
    const auto best =
        bestNameMatching(study, std::vector<std::string>{"frame_A1.csv", "frame_A2.csv", "notes.csv"});
    ASSERT_TRUE(best);
    EXPECT_EQ(best->pattern, "*_{code}");
    EXPECT_EQ(codes(study, best->matches), "A1 A2 -");
    EXPECT_FALSE(bestNameMatching(study, std::vector<std::string>{"one.csv", "two.csv"}));
}

TEST(FileMatching, OrderIsNatural)
{
    const Study study = twoRails();
    EXPECT_EQ(
        codes(study, matchByOrder(study, std::vector<std::string>{"run10.csv", "run2.csv", "run1.csv"})),
        "A3 A2 A1");
    EXPECT_TRUE(naturallyBefore("run2", "run10"));
    EXPECT_FALSE(naturallyBefore("run10", "run2"));
    EXPECT_TRUE(naturallyBefore("a007", "a8"));
}

TEST(FileMatching, ManyFilesForFewPegsLeaveTheRestOver)
{
    const Study study = twoRails();
    const FileMatches matches = matchByOrder(study, std::vector<std::string>(30, "x.csv"));
    EXPECT_EQ(std::count(matches.begin(), matches.end(), std::nullopt), 6);
}

TEST(FileMatching, APatternNeedsAPlaceholder)
{
    EXPECT_NE(byName(twoRails(), {"A1.csv"}, "*.csv").find("{code}"), std::string::npos);
}

} // namespace inchpeg
