// SPDX-License-Identifier: GPL-3.0-or-later
// Reference: R 4.2.2 (mvtnorm 1.1 for critical values, asked for 1e-6) over data sets that come with R; made
// by tests/reference/make_design_reference.R, kept in tests/data/reference_designs.json.
#include "core/base/random.h"
#include "core/stats/compared_power.h"
#include "core/stats/critical_table.h"
#include "core/stats/distributions.h"
#include "core/stats/many_groups.h"
#include "core/stats/moderated_scatter.h"
#include "core/stats/simultaneous.h"
#include "core/stats/studentised.h"
#include "support/calibration.h"
#include "support/reference_values.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

using nlohmann::json;
using test::designReference;
using test::expectClose;
using test::expectProbability;
using test::kClosedForm;

std::vector<Group> drawn(Random &random, std::size_t rails, std::size_t pieces, double cv,
                         const std::vector<double> &means = {})
{
    std::vector<Group> groups(rails);
    for (std::size_t g = 0; g < rails; ++g) {
        for (std::size_t i = 0; i < pieces; ++i)
            groups[g].values.push_back((g < means.size() ? means[g] : 40.0) * (1.0 + cv * random.normal()));
    }
    return groups;
}

std::vector<Group> grouped(const json &set)
{
    std::vector<Group> groups;
    for (std::size_t i = 0; i < set["value"].size(); ++i) {
        const std::string name = set["group"][i];
        auto found = std::find_if(groups.begin(), groups.end(),
                                  [&](const Group &group) { return group.name == name; });
        if (found == groups.end())
            found = groups.insert(groups.end(), Group{name, {}});
        found->values.push_back(set["value"][i].get<double>());
    }
    return groups;
}

} // namespace

TEST(Simultaneous, AgreesWithR)
{
    for (const json &set : designReference()["many"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        ComparisonRule rule;
        rule.asRatio = set["ratio"].get<bool>();
        rule.spread = Spread::Common;
        const auto family = SimultaneousComparison::of(grouped(set), 0, rule);
        ASSERT_TRUE(family);
        expectClose(family->commonScatter(), set["scatter"], kClosedForm, "scatter");
        EXPECT_EQ(family->commonDf(), set["df"].get<double>());
        expectProbability(*family->spreadP(), set["spread_p"], "Bartlett p");
        for (std::size_t i = 0; i < set["estimate"].size(); ++i) {
            const Effect effect = *family->effect(0, i + 1);
            expectClose(effect.estimate, set["estimate"][i], kClosedForm, "estimate");
            expectClose(effect.t, set["t"][i], kClosedForm, "t");
            expectClose(effect.critical, set["critical"], 7.0, "critical");
            expectClose(effect.ci.low, set["low"][i], 7.0, "low");
            expectClose(effect.ci.high, set["high"][i], 7.0, "high");
        }
    }
}

TEST(Simultaneous, DifferencesAreDunnettsAndTukeys)
{
    Random random(4);
    const std::vector<Group> groups = drawn(random, 4, 5, 0.1);
    ComparisonRule rule{Comparison::AgainstReference, false, 0.95, Spread::Common};
    const auto family = SimultaneousComparison::of(groups, 0, rule);
    for (const DunnettComparison &wanted : dunnett(groups, 0)) {
        const Effect effect = *family->effect(0, wanted.level);
        EXPECT_NEAR(effect.t, wanted.t, 1e-12);
        EXPECT_NEAR(effect.ci.low, wanted.ci.low, 1e-9);
        EXPECT_NEAR(family->familyP(effect), wanted.p, 1e-9);
    }
    rule.comparison = Comparison::AllPairs;
    const auto all = SimultaneousComparison::of(groups, 0, rule);
    const Result<GroupComparison> pairs = compareGroups(groups);
    for (const PairComparison &wanted : pairs->pairs) {
        const Effect effect = *all->effect(wanted.a, wanted.b);
        EXPECT_NEAR(effect.ci.low, wanted.tukey->ci.low, 1e-9);
        EXPECT_NEAR(all->familyP(effect), wanted.tukey->p, 1e-9);
    }
    rule.spread = Spread::Own;
    const auto own = SimultaneousComparison::of(groups, 0, rule);
    const Effect effect = *own->effect(1, 3);
    const PairComparison &wanted = pairs->pairs[4];
    ASSERT_EQ(wanted.a, 1U);
    ASSERT_EQ(wanted.b, 3U);
    EXPECT_NEAR(effect.ci.low, wanted.gamesHowell->ci.low, 1e-9);
    EXPECT_NEAR(own->familyP(effect), wanted.gamesHowell->p, 1e-9);
}

TEST(Simultaneous, AClaimIsItsInterval)
{
    // Clear exactly where the interval excludes no difference, and where the family's p is below alpha.
    Random random(6);
    int clear = 0;
    for (int i = 0; i < 300; ++i) {
        const std::vector<Group> groups =
            drawn(random, 3, static_cast<std::size_t>(2 + i % 4), 0.06, {40.0, 46.0, 36.0});
        const bool asRatio = i % 2 == 0;
        const auto family = SimultaneousComparison::of(
            groups, 0, {i % 3 == 0 ? Comparison::AllPairs : Comparison::AgainstReference, asRatio, 0.95, {}});
        for (std::size_t b = 1; b < 3; ++b) {
            const std::optional<Effect> effect = family->effect(0, b);
            const double none = asRatio ? 1.0 : 0.0;
            EXPECT_EQ(effect->isClear(), effect->ci.low > none || effect->ci.high < none);
            EXPECT_EQ(effect->isClear(), family->familyP(*effect) < 0.05);
            clear += effect->isClear() ? 1 : 0;
        }
    }
    EXPECT_GT(clear, 50);
    EXPECT_LT(clear, 550);
}

TEST(Simultaneous, UnitAndOrderChangeNothing)
{
    Random random(8);
    std::vector<Group> groups = drawn(random, 4, 4, 0.05);
    const Effect before = *SimultaneousComparison::of(groups, 0, {})->effect(0, 2);
    for (Group &group : groups) {
        for (double &value : group.values)
            value *= 145.0377;
        std::reverse(group.values.begin(), group.values.end());
    }
    std::swap(groups[0], groups[3]);
    const Effect after = *SimultaneousComparison::of(groups, 3, {})->effect(3, 2);
    EXPECT_NEAR(after.estimate, before.estimate, 1e-12);
    EXPECT_NEAR(after.ci.low, before.ci.low, 1e-9);
}

TEST(Simultaneous, SaysNothingWhereNothingCanBeSaid)
{
    const std::vector<Group> alike{{"a", {5.0, 5.0}}, {"b", {6.0, 6.0}}};
    EXPECT_FALSE(SimultaneousComparison::of(alike, 0, {}));
    const std::vector<Group> around{{"a", {5.0, 6.0}}, {"b", {-1.0, 0.5}}};
    EXPECT_FALSE(SimultaneousComparison::of(around, 0, {}));
    EXPECT_TRUE(SimultaneousComparison::of(around, 0, {Comparison::AgainstReference, false, 0.95, {}}));
    // Three equal readings on one rail: no own spread, and Bartlett cannot be asked.
    const std::vector<Group> one{{"a", {5.0, 5.2}}, {"b", {6.0, 6.0}}, {"c", {5.5, 5.5}}};
    const auto common = SimultaneousComparison::of(one, 1, {});
    EXPECT_EQ(common->spread(), Spread::Common);
    EXPECT_FALSE(common->spreadP());
    EXPECT_TRUE(common->effect(1, 2));
    const auto own =
        SimultaneousComparison::of(one, 1, {Comparison::AgainstReference, true, 0.95, Spread::Own});
    EXPECT_FALSE(own->effect(1, 2));
}

TEST(Simultaneous, ScattersLeanOnEachOtherALittle)
{
    // By SciPy 1.10.1, digamma, polygamma and brentq.
    const auto expect = [](const std::vector<double> &variances, const std::vector<double> &dfs, double more,
                           const std::vector<double> &wanted) {
        const ModeratedScatters moderated = moderatedScatters(variances, dfs);
        EXPECT_NEAR(moderated.more_df, more, 1e-9);
        for (std::size_t g = 0; g < wanted.size(); ++g)
            EXPECT_NEAR(moderated.variances[g], wanted[g], 1e-9 * wanted[g]) << g;
    };
    expect({1, 4, 9, 2}, {2, 2, 2, 2}, 0.4, {1.5, 4.0, 8.166666666666668, 2.3333333333333335});
    expect({1, 1.2, 0.9, 64}, {11, 11, 11, 11}, 1.118452722898741,
           {1.5803565699588218, 1.761897897907639, 1.489585905984413, 58.76587487383632});
    expect({1, 2, 3, 4, 5, 60}, {3, 4, 5, 4, 4, 3}, 1.0222222222222224,
           {2.7472962847265467, 3.195843484670376, 3.8275299909059224, 4.7887638386526765, 5.585224015643827,
            46.752821146605});
    EXPECT_EQ(moderatedScatters(std::vector{1.0, 9.0}, std::vector{5.0, 5.0}).more_df, 0.0)
        << "two rails are Welch's";
}

TEST(Simultaneous, TwoRailsAreComparedByWelchsTest)
{
    Random random(13);
    const std::vector<Group> groups = drawn(random, 2, 5, 0.08);
    const auto family =
        SimultaneousComparison::of(groups, 0, {Comparison::AgainstReference, false, 0.95, {}});
    const Effect effect = *family->effect(0, 1);
    const std::optional<TTest> welch = welchTTest(groups[1].values, groups[0].values);
    EXPECT_NEAR(std::abs(effect.t), std::abs(welch->t), 1e-12);
    EXPECT_NEAR(effect.df, welch->df, 1e-9);
    EXPECT_NEAR(family->familyP(effect), welch->p, 1e-9);
}

// By SciPy 1.10.1 (t, norm, chi2): two groups over a grid of 2,000 × 2,000 scatters; more of them by 400,000
// drawn studies, with Dunnett's and Tukey's values from an integral of their own and studentized_range.
TEST(Simultaneous, PowerOfWhatIsComparedIsThatOfAnIntegral)
{
    struct Known {
        Comparison comparison;
        int groups, pieces;
        double noncentrality, power;
    };
    for (const Known &known :
         {Known{Comparison::TwoGroups, 2, 2, 4.0, 0.3028}, Known{Comparison::TwoGroups, 2, 3, 3.0, 0.5109},
          Known{Comparison::TwoGroups, 2, 12, 2.8, 0.7600},
          Known{Comparison::AgainstReference, 4, 3, 3.5, 0.5221},
          Known{Comparison::AgainstReference, 8, 3, 3.5, 0.4219},
          Known{Comparison::AgainstReference, 4, 6, 3.2, 0.6811},
          Known{Comparison::AllPairs, 4, 3, 3.8, 0.4924}}) {
        const auto power = ComparedPower::shared(known.comparison, known.groups, known.pieces, 0.05);
        EXPECT_NEAR(power->beyond(known.noncentrality), known.power, 0.006)
            << known.groups << " groups of " << known.pieces;
        EXPECT_NEAR(power->beyond(power->noncentralityFor(0.8)), 0.8, 1e-6);
    }
}

// Nothing differs, and one rail, the reference or half of them scatter more: pooled, 11 to 18 of 100 studies
// of three pieces a rail called a rail higher or lower.
TEST(Simultaneous, ClaimsKeepTheirLevelWhereRailsScatterDifferently)
{
    struct Design {
        std::size_t rails, pieces;
        double times;
        double most;
    };
    Random random(test::simulationSeed(20261203));
    for (const Design &design : {Design{2, 3, 3, 0.06}, Design{4, 3, 3, 0.06}, Design{4, 3, 6, 0.08},
                                 Design{8, 3, 4, 0.08}, Design{4, 6, 3, 0.06}, Design{12, 3, 3, 0.06}}) {
        for (const char *which : {"a rail", "the reference", "half of the rails"}) {
            const std::string name = fmt::format("{} rails of {}, {} scatters {:.0f} times: wrong",
                                                 design.rails, design.pieces, which, design.times);
            test::simulatedShare(name, test::atMost(design.most, 0.008), [&] {
                std::vector<Group> groups(design.rails);
                for (std::size_t g = 0; g < design.rails; ++g) {
                    const bool scatters = which[0] == 'a'   ? g == 1
                                          : which[0] == 't' ? g == 0
                                                            : g >= design.rails / 2;
                    for (std::size_t i = 0; i < design.pieces; ++i)
                        groups[g].values.push_back(
                            40.0 * (1.0 + (scatters ? design.times : 1.0) * 0.03 * random.normal()));
                }
                const auto family = SimultaneousComparison::of(groups, 0, {});
                for (std::size_t g = 1; g < design.rails; ++g) {
                    if (family->effect(0, g)->isClear())
                        return true;
                }
                return false;
            });
        }
    }
}

// Nothing differs, and the rail of few pieces scatters most: pooled with the others it was told apart in 17
// to 31 of 100 studies.
TEST(Simultaneous, FewPiecesThatScatterAreNotSpokenForByMany)
{
    struct Design {
        const char *name;
        std::vector<std::size_t> pieces;
        std::vector<double> cv;
    };
    const Design designs[] = {
        {"12 pieces at 5 % beside 2 at 15 %", {12, 2}, {0.05, 0.15}},
        {"12 pieces at 5 % beside 3 at 20 %", {12, 3}, {0.05, 0.20}},
        {"10, 2, 10 and 10 pieces, the small rail at 20 %, the others at 5 %",
         {10, 2, 10, 10},
         {0.05, 0.2, 0.05, 0.05}},
        {"30 pieces beside 3, all at 5 %", {30, 3}, {0.05, 0.05}},
    };
    Random random(test::simulationSeed(20261202));
    for (const Design &design : designs) {
        test::simulatedShare(std::string(design.name) + ": wrong", test::atMost(0.06), [&] {
            std::vector<Group> groups(design.pieces.size());
            for (std::size_t g = 0; g < groups.size(); ++g) {
                for (std::size_t i = 0; i < design.pieces[g]; ++i)
                    groups[g].values.push_back(40.0 * (1.0 + design.cv[g] * random.normal()));
            }
            const auto comparison = SimultaneousComparison::of(groups, 0, {});
            for (std::size_t g = 1; comparison && g < groups.size(); ++g) {
                const std::optional<Effect> effect = comparison->effect(0, g);
                if (effect && effect->isClear())
                    return true;
            }
            return false;
        });
    }
    const std::vector<Group> even = drawn(random, 3, 5, 0.05);
    EXPECT_FALSE(SimultaneousComparison::of(even, 0, {})->isOwnBySizes());
}

TEST(Simultaneous, InterpolatedCriticalValuesOfManyRailsAreThoseWorkedOut)
{
    // A second, slow method: each critical value worked out by itself.
    Random random(5);
    for (const std::size_t pieces : {2U, 3U, 6U, 12U}) {
        for (const Comparison comparison : {Comparison::AgainstReference, Comparison::AllPairs}) {
            const std::size_t rails = comparison == Comparison::AllPairs ? 12 : 50;
            ComparisonRule rule{comparison, false, 0.95, Spread::Own};
            const std::vector<Group> groups = drawn(random, rails, pieces, 0.1);
            const auto family = SimultaneousComparison::of(groups, 0, rule);
            ASSERT_TRUE(family);
            double worst = 0.0;
            for (std::size_t i = 1; i < rails; ++i) {
                const Effect effect = family->effect(0, i).value();
                const double exact = family->criticalT(effect.df);
                worst = std::max(worst, std::abs(effect.critical / exact - 1.0));
            }
            EXPECT_LT(worst, 1e-6) << pieces << " pieces, " << rails << " rails";
        }
    }
}

TEST(Simultaneous, TabulatedCriticalValuesAreThoseWorkedOut)
{
    for (const std::size_t rails : {3U, 6U, 12U}) {
        const auto dunnett =
            StudentisedDistribution::sharedDunnett(std::vector<double>(rails - 1, std::sqrt(0.5)));
        const auto tukey = StudentisedDistribution::sharedRange(rails);
        for (const double df : {1.0, 1.3, 2.06, 3.99, 4.0, 5.7, 15.2, 17.0, 63.0, 140.0}) {
            EXPECT_NEAR(CriticalTable::shared(dunnett, 0.95)->at(df) / dunnett->quantile(0.95, df), 1.0, 1e-6)
                << rails << " rails, " << df;
            EXPECT_NEAR(CriticalTable::shared(tukey, 0.95)->at(df) / tukey->quantile(0.95, df), 1.0, 1e-6)
                << rails << " rails, " << df;
        }
    }
}

TEST(Simultaneous, DetectableNoncentralityAgreesWithR)
{
    // R 4.2.2 power.t.test(n, sd = 1, power = 0.8, strict = TRUE, tol = 1e-12)$delta, times √(n/2).
    const std::pair<double, double> kDeltas[] = {
        {3.0, 3.070892266}, {6.0, 1.795540921}, {20.0, 0.9091290327}};
    for (const auto &[n, delta] : kDeltas) {
        const double df = 2.0 * n - 2.0;
        EXPECT_NEAR(detectableNoncentrality(studentQuantile(0.975, df), df, 0.8), delta * std::sqrt(n / 2.0),
                    2e-8);
    }
    const double critical = studentQuantile(0.975, 10.0);
    EXPECT_GT(detectableNoncentrality(critical, 10.0, 0.9), detectableNoncentrality(critical, 10.0, 0.8));
}

} // namespace inchpeg
