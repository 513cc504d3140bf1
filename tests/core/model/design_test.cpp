// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/design.h"

#include <gtest/gtest.h>

#include <set>

namespace inchpeg
{
namespace
{

using Words = std::vector<std::string>;

TEST(Design, FullFactorialHoldsEachCombinationOnce)
{
    const Result<std::vector<Combination>> all = fullFactorial({3, 2, 4});
    ASSERT_TRUE(all);
    EXPECT_EQ(all->size(), 24U);
    EXPECT_EQ(std::set<Combination>(all->begin(), all->end()).size(), 24U);
    EXPECT_EQ(all->front(), (Combination{0, 0, 0})) << "the reference comes first";
    EXPECT_EQ((*all)[1], (Combination{0, 0, 1})) << "the last factor changes fastest";
}

TEST(Design, OneAtATimeChangesOneFactorFromTheReference)
{
    const Result<std::vector<Combination>> all = oneAtATime({3, 2});
    ASSERT_TRUE(all);
    EXPECT_EQ(*all, (std::vector<Combination>{{0, 0}, {1, 0}, {2, 0}, {0, 1}}));
}

TEST(Design, TooManyConditionsAreRefused)
{
    EXPECT_NE(fullFactorial({10, 10, 10}).error().message.find("1000 conditions"), std::string::npos);
    EXPECT_FALSE(fullFactorial({2, 0}));
    EXPECT_FALSE(fullFactorial({}));
    EXPECT_TRUE(fullFactorial({10, 10}));
}

struct FractionCase {
    int factors;
    Words generators;
    int resolution;
    Words relation;                                     ///< all words, shortest first
    std::vector<std::pair<std::string, Words>> aliases; ///< up to pairs
};

// Reference: Montgomery, Design and Analysis of Experiments, 8th ed., table 8.14 and appendix X ("Alias
// relationships for two-level fractional factorial designs"); the same fractions with their defining
// relations stand in NIST/SEMATECH e-Handbook of Statistical Methods, 5.3.3.4.7. Both from memory.
const FractionCase kCases[] = {
    {3, {"C=AB"}, 3, {"I", "ABC"}, {{"A", {"BC"}}, {"B", {"AC"}}, {"C", {"AB"}}}},
    {4, {"D=ABC"}, 4, {"I", "ABCD"}, {{"A", {}}, {"AB", {"CD"}}, {"AC", {"BD"}}, {"AD", {"BC"}}}},
    {5, {"E=ABCD"}, 5, {"I", "ABCDE"}, {{"A", {}}, {"AB", {}}}},
    {5,
     {"D=AB", "E=AC"},
     3,
     {"I", "ABD", "ACE", "BCDE"},
     {{"A", {"BD", "CE"}},
      {"B", {"AD"}},
      {"C", {"AE"}},
      {"D", {"AB"}},
      {"E", {"AC"}},
      {"BC", {"DE"}},
      {"CD", {"BE"}}}},
    {6,
     {"E=ABC", "F=BCD"},
     4,
     {"I", "ABCE", "ADEF", "BCDF"},
     {{"A", {}},
      {"AB", {"CE"}},
      {"AC", {"BE"}},
      {"AD", {"EF"}},
      {"AE", {"BC", "DF"}},
      {"AF", {"DE"}},
      {"BD", {"CF"}},
      {"BF", {"CD"}}}},
    {6,
     {"D=AB", "E=AC", "F=BC"},
     3,
     {"I", "ABD", "ACE", "BCF", "DEF", "ABEF", "ACDF", "BCDE"},
     {{"A", {"BD", "CE"}},
      {"B", {"AD", "CF"}},
      {"C", {"AE", "BF"}},
      {"D", {"AB", "EF"}},
      {"E", {"AC", "DF"}},
      {"F", {"BC", "DE"}},
      {"AF", {"BE", "CD"}}}},
    {7,
     {"E=ABC", "F=BCD", "G=ACD"},
     4,
     {"I", "ABCE", "ABFG", "ACDG", "ADEF", "BCDF", "BDEG", "CEFG"},
     {{"A", {}},
      {"AB", {"CE", "FG"}},
      {"AC", {"BE", "DG"}},
      {"AD", {"CG", "EF"}},
      {"AE", {"BC", "DF"}},
      {"AF", {"BG", "DE"}},
      {"AG", {"BF", "CD"}},
      {"BD", {"CF", "EG"}}}},
    {7,
     {"D=AB", "E=AC", "F=BC", "G=ABC"},
     3,
     {"I", "ABD", "ACE", "AFG", "BCF", "BEG", "CDG", "DEF", "ABCG", "ABEF", "ACDF", "ADEG", "BCDE", "BDFG",
      "CEFG", "ABCDEFG"},
     {{"A", {"BD", "CE", "FG"}},
      {"B", {"AD", "CF", "EG"}},
      {"C", {"AE", "BF", "DG"}},
      {"D", {"AB", "CG", "EF"}},
      {"E", {"AC", "BG", "DF"}},
      {"F", {"AG", "BC", "DE"}},
      {"G", {"AF", "BE", "CD"}}}},
};

TEST(TwoLevelFraction, AliasesAreThoseOfThePublishedTables)
{
    for (const FractionCase &one : kCases) {
        const Result<TwoLevelFraction> fraction = TwoLevelFraction::make(one.factors, one.generators);
        ASSERT_TRUE(fraction) << fraction.error().message;
        SCOPED_TRACE(::testing::Message() << one.factors << " factors, " << one.generators.front());
        EXPECT_EQ(fraction->resolution(), one.resolution);
        EXPECT_EQ(fraction->definingRelation(), one.relation);
        for (const auto &[effect, aliases] : one.aliases)
            EXPECT_EQ(fraction->aliases(effect, 2), aliases) << effect;
    }
}

/// Two effects are aliased exactly where their columns of −1 and +1 agree, or are opposite, in every run.
TEST(TwoLevelFraction, AliasesAgreeWithTheColumnsOfTheRuns)
{
    for (const FractionCase &one : kCases) {
        const Result<TwoLevelFraction> fraction = TwoLevelFraction::make(one.factors, one.generators);
        ASSERT_TRUE(fraction);
        const std::vector<Combination> runs = fraction->runs();
        EXPECT_EQ(std::set<Combination>(runs.begin(), runs.end()).size(),
                  std::size_t{1} << (one.factors - static_cast<int>(one.generators.size())));
        const auto column = [&](const std::string &effect) {
            std::vector<int> signs;
            for (const Combination &run : runs) {
                int sign = 1;
                for (const char letter : effect)
                    sign *= run[static_cast<std::size_t>(letter - 'A')] == 1 ? 1 : -1;
                signs.push_back(sign);
            }
            return signs;
        };
        for (char a = 'A'; a < 'A' + one.factors; ++a) {
            for (char b = 'A'; b < 'A' + one.factors; ++b) {
                for (char c = static_cast<char>(b + 1); c < 'A' + one.factors; ++c) {
                    const std::string pair{b, c};
                    const std::vector<std::string> aliases = fraction->aliases(std::string(1, a), 2);
                    const bool told = std::find(aliases.begin(), aliases.end(), pair) != aliases.end();
                    EXPECT_EQ(told, column(std::string(1, a)) == column(pair)) << a << " and " << pair;
                }
            }
        }
    }
}

TEST(TwoLevelFraction, ANegativeGeneratorTurnsTheColumn)
{
    const Result<TwoLevelFraction> fraction = TwoLevelFraction::make(3, {"C=-AB"});
    ASSERT_TRUE(fraction);
    EXPECT_EQ(fraction->definingRelation(), (Words{"I", "-ABC"}));
    EXPECT_EQ(fraction->aliases("A", 2), (Words{"-BC"}));
    EXPECT_EQ(fraction->runs().front(), (Combination{0, 0, 0})) << "low times low is high, turned: low";
}

TEST(TwoLevelFraction, RefusesWhatIsNoGenerator)
{
    for (const Words &generators : {Words{"D=AB", "D=AC"}, Words{"D=AD"}, Words{"D=A"}, Words{"E=ABC"},
                                    Words{"D:ABC"}, Words{""}, Words{"D=AAB"}}) {
        EXPECT_FALSE(TwoLevelFraction::make(4, generators)) << generators.front();
    }
    EXPECT_FALSE(TwoLevelFraction::make(5, {"D=AB", "E=AB"})) << "two factors alike";
    EXPECT_FALSE(TwoLevelFraction::make(2, {"B=A"}));
}

TEST(TwoLevelFraction, EveryOfferedFractionCanBeMade)
{
    for (int factors = 3; factors <= 7; ++factors) {
        ASSERT_FALSE(offeredFractions(factors).empty());
        for (const OfferedFraction &offered : offeredFractions(factors)) {
            const Result<TwoLevelFraction> fraction = TwoLevelFraction::make(factors, offered.generators);
            ASSERT_TRUE(fraction) << fraction.error().message;
            EXPECT_EQ(fraction->runs().size(), static_cast<std::size_t>(offered.runs));
        }
    }
}

TEST(TwoLevelFraction, AliasesAreSpelledOutWithTheFactorsNames)
{
    const Result<TwoLevelFraction> fraction = TwoLevelFraction::make(3, {"C=AB"});
    EXPECT_EQ(aliasSentences(*fraction, {"fan", "chamber", "speed"}),
              (Words{"The effect of fan cannot be told from that of chamber together with speed.",
                     "The effect of chamber cannot be told from that of fan together with speed.",
                     "The effect of speed cannot be told from that of fan together with chamber."}));
    const Result<TwoLevelFraction> four = TwoLevelFraction::make(4, {"D=ABC"});
    EXPECT_EQ(aliasSentences(*four, {"a", "b", "c", "d"}).size(), 3U) << "each pair of pairs once";
}

} // namespace
} // namespace inchpeg
