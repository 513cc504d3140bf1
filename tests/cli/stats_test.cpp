// SPDX-License-Identifier: GPL-3.0-or-later
// The calls of "stats" through the real program: their keys, their nulls and what they refuse. The numbers
// themselves are held against R in tests/core/stats.
#include "cli/run_cli.h"
#include "support/matching_digits.h"

#include <sstream>

namespace inchpeg
{

namespace
{

using nlohmann::json;
using test::CliOutcome;
using test::expectRefused;
using test::holds;
using test::runCli;

const std::string kTable = "g,v,w,x,bound,side,level,broke\n"
                           "A,10,11,1,0,p,1,0\n"
                           "A,11,12.5,1,0,q,2,1\n"
                           "A,12,12,2,1,p,1,0\n"
                           "A,13.5,15,2,0,q,2,0\n"
                           "B,14,13,3,0,p,3,1\n"
                           "B,15.2,17,3,0,q,2,1\n"
                           "B,13,15.1,4,0,p,1,0\n"
                           "B,16,16.5,4,1,q,2,0\n"
                           "B,,,,,,,\n";

/// "stats CALL …" over a table, from one line of arguments.
CliOutcome stats(const std::string &line, const std::string &table = kTable)
{
    std::vector<std::string> arguments{"stats"};
    std::istringstream words(line);
    for (std::string word; words >> word;)
        arguments.push_back(word);
    arguments.insert(arguments.end(), {"--data", "-"});
    return runCli(arguments, table);
}

std::string keys(const json &object)
{
    std::string out;
    for (const auto &[key, value] : object.items())
        out += out.empty() ? key : " " + key;
    return out;
}

} // namespace

TEST(StatsCalls, HaveTheirKeys)
{
    // Keys in alphabetical order, as the parser sorts them.
    const std::pair<const char *, const char *> kCalls[] = {
        {"normality --value v --by g", "dropped groups"},
        {"outliers --value v --by g", "dropped groups"},
        {"paired --before v --after w", "ci df dropped mean_difference n p t wilcoxon"},
        {"twoway --value v --a g --b side", "dropped table type"},
        {"trend --x x --y v --degree 2",
         "F adjusted_r2 coefficients df dropped lack_of_fit n optimum p r2 residual_sd"},
        {"plateau --x x --y v --prefer low", "best_level chosen_level dropped larger_is_better levels"},
        {"weibull --value v --by g --censored bound", "dropped groups"},
        {"survival --value v --by g --censored bound", "dropped groups log_rank"},
        {"basis --value v", "dropped n nonparametric normal weibull"},
        {"equivalence --value v --by g --margin 3",
         "ci90 df difference dropped equivalent margin p t_lower t_upper"},
        {"staircase --level level --broke broke", "dropped mean n_used sd se_mean step valid"},
        {"bootstrap --value v --by g --statistic mean --seed 1", "dropped groups"},
        {"bootstrap --value v --by g --statistic ratio --seed 1", "dropped pair"},
        {"anova-random --value v --by g", "dropped ms_between ms_within s_R s_between s_r"}};
    for (const auto &[call, wanted] : kCalls) {
        const CliOutcome outcome = stats(call);
        ASSERT_EQ(outcome.status, 0) << call << outcome.err;
        EXPECT_EQ(keys(outcome.json()), wanted) << call;
        EXPECT_EQ(outcome.json()["dropped"], 1) << call;
    }
    EXPECT_EQ(keys(stats("normality --value v").json()["groups"][0]),
              "anderson_darling group n shapiro_wilk");
    EXPECT_TRUE(stats("normality --value v").json()["groups"][0]["group"].is_null());
    EXPECT_EQ(keys(stats("outliers --value v").json()["groups"][0]["grubbs"]),
              "G critical index outlier p value");
    EXPECT_EQ(keys(stats("weibull --value v").json()["groups"][0]),
              "anderson_darling b10 b50 censored group log_likelihood mean n scale shape");
    EXPECT_EQ(keys(stats("survival --value v --censored bound").json()["groups"][0]["steps"][0]),
              "at_risk events se survival value");
    EXPECT_TRUE(stats("survival --value v --censored bound").json()["log_rank"].is_null());
}

TEST(StatsCalls, NameRowsOfTheFile)
{
    // The far value stands in data row 4, after a row without a value and one of another group.
    const json groups =
        stats("outliers --value v --by g", "g,v\nA,10\nA,\nB,3\nA,10.1\nA,99\nA,9.9\nA,10.05\nA,9.95\nA,10\n")
            .json()["groups"];
    EXPECT_EQ(groups[0]["grubbs"]["index"], 4);
    EXPECT_EQ(groups[0]["mnr"]["outliers"], json::array({4}));
    EXPECT_EQ(groups[0]["esd"]["outliers"], json::array({4}));
    EXPECT_TRUE(groups[1]["grubbs"]["G"].is_null());
    EXPECT_EQ(groups[1]["esd"]["outliers"], json::array());
}

TEST(StatsCalls, TermsAreNamedByTheirColumns)
{
    const json table = stats("twoway --value v --a g --b side --type 3").json()["table"];
    ASSERT_EQ(table.size(), 4U);
    EXPECT_EQ(table[2]["term"], "g:side");
    EXPECT_EQ(table[3]["term"], "residual");
    EXPECT_TRUE(table[3]["F"].is_null());
    EXPECT_EQ(table[3]["df"], 4.0);
}

TEST(StatsCalls, PlateauSpeaksInLevels)
{
    const json high = stats("plateau --x x --y v --prefer high --confidence 0.9").json();
    EXPECT_EQ(high["best_level"], 3);
    EXPECT_EQ(high["chosen_level"], 4);
    EXPECT_EQ(high["levels"][0]["level"], 1);
    EXPECT_EQ(stats("plateau --x x --y v --prefer low --larger-is-better no").json()["best_level"], 1);
}

TEST(StatsCalls, EquivalenceTakesAShareOfTheFirstGroup)
{
    const json relative = stats("equivalence --value v --by g --margin 0.5 --relative yes").json();
    EXPECT_DOUBLE_EQ(relative["margin"].get<double>(), 0.5 * (10 + 11 + 12 + 13.5) / 4);
    EXPECT_EQ(relative["equivalent"], true);
}

TEST(StatsCalls, ResamplingRepeatsForItsSeed)
{
    const std::string call = "bootstrap --value v --statistic median --resamples 500 --seed ";
    EXPECT_EQ(stats(call + "5").out, stats(call + "5").out);
    EXPECT_NE(stats(call + "5").out,
              stats("bootstrap --value v --statistic mean --resamples 500 --seed 6").out);
}

TEST(StatsCalls, AGroupThatSaysNothingIsNull)
{
    const CliOutcome outcome =
        stats("weibull --value v --by g --censored c", "g,v,c\nA,1,1\nA,2,1\nB,1,0\nB,2,0\nB,3,1\n");
    EXPECT_EQ(outcome.status, 0);
    EXPECT_TRUE(outcome.json()["groups"][0]["shape"]["value"].is_null());
    EXPECT_EQ(outcome.json()["groups"][0]["censored"], 2);
    EXPECT_TRUE(outcome.json()["groups"][1]["anderson_darling"].is_null());
    EXPECT_TRUE(holds(outcome.err, "lower bounds")) << outcome.err;
}

TEST(StatsCalls, RefuseWhatTheyCannotUse)
{
    const std::tuple<const char *, const char *, const char *> kCases[] = {
        {"trend --x x --y v", "x,v\n2,1\n2,2\n", "different value"},
        {"trend --x x --y v --degree 3", "x,v\n1,1\n2,2\n3,4\n", "at least 4"},
        {"trend --x x --y v --degree 4", "x,v\n1,1\n2,2\n3,4\n", "--degree"},
        {"trend --x g --y v", kTable.c_str(), "line 2, column 1"},
        {"weibull --value v", "v\n1\n-2\n", "line 3: -2 is not above 0"},
        {"weibull --value v --censored c", "v,c\n1,0\n2,3\n", "line 3: column \"c\" holds 3; 0 or 1"},
        {"survival --value v", "v\n1\n", "--censored"},
        {"staircase --level l --broke b", "l,b\n1,0\n2,1\n3.5,1\n", "equally spaced"},
        {"staircase --level l --broke b", "l,b\n1,0\n1,1\n", "at least two"},
        {"staircase --level l --broke b", "l,b\n1,0\n2,7\n", "line 3: column \"b\" holds 7"},
        {"equivalence --value v --by g --margin 1", "g,v\nA,1\nA,2\n", "two are wanted"},
        {"equivalence --value v --by g --margin 0", kTable.c_str(), "margin"},
        {"equivalence --value v --by g --margin 1 --relative perhaps", kTable.c_str(), "yes or no"},
        {"bootstrap --value v --statistic mode", kTable.c_str(), "mean, median, sd, ratio"},
        {"bootstrap --value v --statistic ratio", kTable.c_str(), "two are wanted"},
        {"bootstrap --value v --statistic mean --resamples 1.5", kTable.c_str(), "whole number"},
        {"plateau --x x --y v --prefer middle", kTable.c_str(), "low, high"},
        {"plateau --x x --y v --prefer low", "x,v\n1,1\n1,2\n", "at least two"},
        {"twoway --value v --a g --b side", "g,side,v\nA,p,1\nA,q,2\n", "at least two"},
        {"twoway --value v --a g --b side --type 1", kTable.c_str(), "--type"},
        {"anova-random --value v --by g", "g,v\nA,1\nA,2\n", "at least two"},
        {"outliers --value v --alpha 0", kTable.c_str(), "between 0 and 1"},
        {"paired --before v --after w", "v,w\n1,\n,2\n", "each of the wanted columns, v, w"},
        {"normality --value v", "v\n1\nNaN\n", "line 3"}};
    for (const auto &[call, table, says] : kCases) {
        SCOPED_TRACE(call);
        expectRefused(stats(call, table), says);
    }
}

} // namespace inchpeg
