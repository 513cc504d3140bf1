// SPDX-License-Identifier: GPL-3.0-or-later
// Reference: R 4.2.2 and SciPy 1.10.1 over data sets that come with R, and NIST StRD SiRstv; made by
// tests/reference/make_reference.R and make_reference.py, kept in tests/data/reference_statistics.json.
#include "core/stats/many_groups.h"
#include "support/reference_values.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

using nlohmann::json;
using test::expectClose;
using test::expectProbability;
using test::kClosedForm;
using test::kProbability;

const json &reference()
{
    static const json loaded = test::referenceFile("reference_statistics.json");
    return loaded;
}

class ReferenceData : public testing::TestWithParam<std::size_t>
{
protected:
    const json &m_set = reference()["sets"][GetParam()];
    std::vector<Group> m_groups = [this] {
        std::vector<Group> groups;
        for (const json &level : m_set["levels"])
            groups.push_back({level.get<std::string>(), {}});
        for (std::size_t i = 0; i < m_set["value"].size(); ++i) {
            for (Group &group : groups) {
                if (group.name == m_set["group"][i].get<std::string>())
                    group.values.push_back(m_set["value"][i].get<double>());
            }
        }
        return groups;
    }();
};

} // namespace

TEST_P(ReferenceData, SummariesAgreeWithRAndSciPy)
{
    for (std::size_t g = 0; g < m_groups.size(); ++g) {
        const json &wanted = m_set["describe"][g];
        const Summary summary = summarise(m_groups[g].values);
        const std::string where = m_groups[g].name + " ";
        ASSERT_EQ(summary.n, wanted["n"].get<std::size_t>());
        const std::pair<const char *, std::optional<double>> values[] = {{"mean", summary.mean},
                                                                         {"sd", summary.sd},
                                                                         {"cv", summary.cv},
                                                                         {"se", summary.se},
                                                                         {"median", summary.median},
                                                                         {"q1", summary.q1},
                                                                         {"q3", summary.q3},
                                                                         {"min", summary.min},
                                                                         {"max", summary.max},
                                                                         {"mad", summary.mad},
                                                                         {"skewness", summary.skewness},
                                                                         {"kurtosis", summary.kurtosis}};
        for (const auto &[name, value] : values)
            expectClose(value.value(), wanted[name], kClosedForm, where + name);
        expectClose(summary.ci->low, wanted["ci"][0], kClosedForm, where + "ci low");
        expectClose(summary.ci->high, wanted["ci"][1], kClosedForm, where + "ci high");
    }
}

TEST_P(ReferenceData, TestsOverAllGroupsAgreeWithRAndSciPy)
{
    const Result<GroupComparison> comparison = compareGroups(m_groups);
    ASSERT_TRUE(comparison);
    const Anova &anova = comparison->anova;
    expectClose(anova.test->f, m_set["anova"]["F"], kClosedForm, "F");
    expectProbability(anova.test->p, m_set["anova"]["p"], "anova p");
    expectClose(anova.ssBetween, m_set["anova"]["ss_between"], kClosedForm, "ss between");
    expectClose(anova.ssWithin, m_set["anova"]["ss_within"], kClosedForm, "ss within");
    expectClose(comparison->welch->f, m_set["welch"]["F"], kClosedForm, "Welch F");
    expectClose(comparison->welch->df2, m_set["welch"]["df2"], kClosedForm, "Welch df2");
    expectProbability(comparison->welch->p, m_set["welch"]["p"], "Welch p");
    expectClose(comparison->kruskalWallis->statistic, m_set["kruskal_wallis"]["H"], kClosedForm, "H");
    expectProbability(comparison->kruskalWallis->p, m_set["kruskal_wallis"]["p"], "H p");
    expectClose(comparison->variances.bartlett->statistic, m_set["bartlett"]["K2"], kClosedForm, "K2");
    expectProbability(comparison->variances.bartlett->p, m_set["bartlett"]["p"], "K2 p");
    expectClose(comparison->variances.levene->f, m_set["levene"]["F"], kClosedForm, "Levene");
    expectProbability(comparison->variances.levene->p, m_set["levene"]["p"], "Levene p");
    expectClose(comparison->variances.brownForsythe->f, m_set["brown_forsythe"]["F"], kClosedForm,
                "Brown–Forsythe");
    expectProbability(comparison->variances.brownForsythe->p, m_set["brown_forsythe"]["p"],
                      "Brown–Forsythe p");
}

TEST_P(ReferenceData, PairsAgreeWithRAndSciPy)
{
    const Result<GroupComparison> comparison = compareGroups(m_groups);
    ASSERT_TRUE(comparison);
    ASSERT_EQ(comparison->pairs.size(), m_set["pairs"].size());
    for (std::size_t i = 0; i < comparison->pairs.size(); ++i) {
        const PairComparison &pair = comparison->pairs[i];
        const json &wanted = m_set["pairs"][i];
        SCOPED_TRACE(m_groups[pair.a].name + " and " + m_groups[pair.b].name);
        expectClose(pair.difference, wanted["difference"], kClosedForm, "difference");
        expectClose(pair.pooled->t, wanted["pooled_t"]["t"], kClosedForm, "pooled t");
        expectProbability(pair.pooled->p, wanted["pooled_t"]["p"], "pooled p");
        expectClose(pair.welch->t, wanted["welch_t"]["t"], kClosedForm, "Welch t");
        expectClose(pair.welch->df, wanted["welch_t"]["df"], kClosedForm, "Welch df");
        expectProbability(pair.welch->p, wanted["welch_t"]["p"], "Welch p");
        expectClose(pair.welch->ci.low, wanted["welch_t"]["ci"][0], kClosedForm, "Welch low");
        expectClose(pair.welch->ci.high, wanted["welch_t"]["ci"][1], kClosedForm, "Welch high");
        expectProbability(*pair.welchHolm, wanted["welch_p_holm"], "Holm");
        expectClose(pair.mannWhitney->u, wanted["mann_whitney"]["U"], kClosedForm, "U");
        expectProbability(pair.mannWhitney->p, wanted["mann_whitney"]["p"], "U p");
        expectClose(pair.tukey->q, wanted["tukey"]["q"], kClosedForm, "Tukey q");
        expectProbability(pair.tukey->p, wanted["tukey"]["p"], "Tukey p");
        expectClose(pair.gamesHowell->q, wanted["games_howell"]["q"], kClosedForm, "Games–Howell q");
        expectProbability(pair.gamesHowell->p, wanted["games_howell"]["p"], "Games–Howell p");
        expectClose(pair.hedgesG->value, wanted["hedges_g"]["value"], kClosedForm, "g");
        // SciPy's noncentral t carries about nine digits; its root no more.
        expectClose(pair.hedgesG->ci->low, wanted["hedges_g"]["ci"][0], kProbability, "g low");
        expectClose(pair.hedgesG->ci->high, wanted["hedges_g"]["ci"][1], kProbability, "g high");
        expectClose(pair.ratio->value, wanted["ratio"]["value"], kClosedForm, "ratio");
        ASSERT_EQ(pair.ratio->ci.has_value(), wanted["ratio"]["ci"].size() == 2);
        if (pair.ratio->ci) {
            expectClose(pair.ratio->ci->low, wanted["ratio"]["ci"][0], kClosedForm, "ratio low");
            expectClose(pair.ratio->ci->high, wanted["ratio"]["ci"][1], kClosedForm, "ratio high");
        }
    }
}

TEST_P(ReferenceData, DunnettAgreesWithR)
{
    const std::vector<DunnettComparison> comparisons = dunnett(m_groups, 0);
    ASSERT_EQ(comparisons.size(), m_set["dunnett"]["t"].size());
    for (std::size_t i = 0; i < comparisons.size(); ++i) {
        expectClose(comparisons[i].t, m_set["dunnett"]["t"][i], kClosedForm, "Dunnett t");
        // mvtnorm::pmvt integrates by random points; it was asked for 1e-7.
        EXPECT_NEAR(comparisons[i].p, m_set["dunnett"]["p"][i].get<double>(), 1e-6);
    }
}

INSTANTIATE_TEST_SUITE_P(AllSets, ReferenceData, testing::Range<std::size_t>(0, 13), [](const auto &tested) {
    std::string name = reference()["sets"][tested.param]["name"].template get<std::string>();
    std::erase_if(name, [](char c) {
        return !((c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9'));
    });
    return name;
});

} // namespace inchpeg
