// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/stats_command.h"

#include "cli/data_file.h"
#include "cli/stats_input.h"
#include "cli/stats_json.h"
#include "core/stats/many_groups.h"
#include "core/stats/power.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <iterator>

namespace inchpeg::cli
{

namespace
{

Json summaryJson(const Summary &summary)
{
    return {{"n", summary.n},
            {"mean", orNull(summary.mean)},
            {"sd", orNull(summary.sd)},
            {"cv", orNull(summary.cv)},
            {"se", orNull(summary.se)},
            {"ci", orNull(summary.ci)},
            {"median", orNull(summary.median)},
            {"q1", orNull(summary.q1)},
            {"q3", orNull(summary.q3)},
            {"min", orNull(summary.min)},
            {"max", orNull(summary.max)},
            {"skewness", orNull(summary.skewness)},
            {"kurtosis", orNull(summary.kurtosis)},
            {"mad", orNull(summary.mad)}};
}

Json variancesJson(const VarianceTests &tests)
{
    return {{"bartlett", chiSquaredJson(tests.bartlett, "K2")},
            {"levene", fTestJson(tests.levene)},
            {"brown_forsythe", fTestJson(tests.brownForsythe)}};
}

Json tTestJson(const std::optional<TTest> &test, bool withInterval)
{
    Json out = {{"t", nullptr}, {"df", nullptr}, {"p", nullptr}};
    if (test)
        out = {{"t", orNull(test->t)}, {"df", orNull(test->df)}, {"p", orNull(test->p)}};
    if (withInterval)
        out["ci"] = test ? orNull(test->ci) : Json(nullptr);
    return out;
}

Json rangeTestJson(const std::optional<RangeTest> &test, bool withDf)
{
    Json out;
    out["q"] = test ? orNull(test->q) : Json(nullptr);
    if (withDf)
        out["df"] = test ? orNull(test->df) : Json(nullptr);
    out["p"] = test ? orNull(test->p) : Json(nullptr);
    out["ci"] = test ? orNull(test->ci) : Json(nullptr);
    return out;
}

Json pairJson(const PairComparison &pair, std::span<const Group> groups)
{
    Json mannWhitney = {{"U", nullptr}, {"p", nullptr}, {"exact", nullptr}};
    if (pair.mannWhitney)
        mannWhitney = {
            {"U", pair.mannWhitney->u}, {"p", pair.mannWhitney->p}, {"exact", pair.mannWhitney->exact}};
    return {{"a", groups[pair.a].name},
            {"b", groups[pair.b].name},
            {"difference", pair.difference},
            {"pooled_t", tTestJson(pair.pooled, false)},
            {"welch_t", tTestJson(pair.welch, true)},
            {"tukey", rangeTestJson(pair.tukey, false)},
            {"games_howell", rangeTestJson(pair.gamesHowell, true)},
            {"mann_whitney", mannWhitney},
            {"welch_p_holm", orNull(pair.welchHolm)},
            {"hedges_g", estimateJson(pair.hedgesG)},
            {"ratio", estimateJson(pair.ratio)}};
}

Json anovaJson(const Anova &anova)
{
    return {{"F", anova.test ? orNull(anova.test->f) : Json(nullptr)},
            {"df1", anova.df1},
            {"df2", anova.df2},
            {"p", anova.test ? orNull(anova.test->p) : Json(nullptr)},
            {"ss_between", anova.ssBetween},
            {"ss_within", anova.ssWithin},
            {"eta2", orNull(anova.eta2)},
            {"omega2", orNull(anova.omega2)}};
}

Json dunnettJson(std::span<const Group> groups, std::size_t reference, double confidence)
{
    Json list = Json::array();
    for (const DunnettComparison &comparison : dunnett(groups, reference, confidence))
        list.push_back({{"level", groups[comparison.level].name},
                        {"difference", comparison.difference},
                        {"t", comparison.t},
                        {"p", comparison.p},
                        {"ci", orNull(comparison.ci)}});
    return list;
}

Result<Outcome> describe(const Options &options)
{
    const Result<double> confidence = options.confidence();
    if (!confidence)
        return confidence.error();
    const Result<GroupedValues> values = readGroups(options);
    if (!values)
        return values.error();
    Json list = Json::array();
    for (const Group &group : values->groups) {
        Json entry = {{"group", groupName(options, group.name)}};
        entry.update(summaryJson(summarise(group.values, *confidence)));
        list.push_back(std::move(entry));
    }
    return Outcome{{{"groups", list}, {"dropped", values->dropped}}, {}, false};
}

Result<Outcome> variances(const Options &options)
{
    const Result<GroupedValues> values = readGroups(options);
    if (!values)
        return values.error();
    Outcome outcome;
    const std::vector<Group> groups = filledGroups(*values, outcome.messages);
    if (groups.size() < 2)
        return inFile(options.required("data"), tooFewGroups(groups.size()));
    outcome.result = variancesJson(varianceTests(groups));
    outcome.result["dropped"] = values->dropped;
    return outcome;
}

Result<Outcome> compare(const Options &options)
{
    const Result<double> confidence = options.confidence();
    if (!confidence)
        return confidence.error();
    const Result<GroupedValues> values = readGroups(options);
    if (!values)
        return values.error();
    Outcome outcome;
    const std::vector<Group> groups = filledGroups(*values, outcome.messages);
    const Result<GroupComparison> comparison = compareGroups(groups, *confidence);
    if (!comparison)
        return inFile(options.required("data"), comparison.error());
    Json pairs = Json::array();
    for (const PairComparison &pair : comparison->pairs)
        pairs.push_back(pairJson(pair, groups));
    outcome.result = {{"anova", anovaJson(comparison->anova)},
                      {"welch", fTestJson(comparison->welch)},
                      {"kruskal_wallis", chiSquaredJson(comparison->kruskalWallis, "H")},
                      {"variances", variancesJson(comparison->variances)},
                      {"pairs", pairs}};
    if (const std::optional<std::string> reference = options.value("reference")) {
        const auto found = std::find_if(groups.begin(), groups.end(),
                                        [&](const Group &group) { return group.name == *reference; });
        if (found == groups.end())
            return invalidArgument(fmt::format("--reference \"{}\" is not a group with values", *reference));
        const auto index = static_cast<std::size_t>(found - groups.begin());
        outcome.result["dunnett"] = dunnettJson(groups, index, *confidence);
        outcome.result["best"] = {
            {"larger_is_better", true},
            {"levels", bestLevelsJson(comparisonWithBest(groups, true, *confidence),
                                      [&](std::size_t level) { return Json(groups[level].name); })}};
    }
    outcome.result["dropped"] = values->dropped;
    return outcome;
}

Result<Outcome> power(const Options &options)
{
    constexpr double kMost = 1e12;
    const Result<std::optional<double>> delta = options.number("delta", -kMost, kMost);
    const Result<std::optional<double>> sd = options.number("sd", 0.0, kMost);
    const Result<std::optional<double>> alpha = options.number("alpha", 0.0, 1.0);
    const Result<std::optional<double>> wanted = options.number("power", 0.0, 1.0);
    const Result<std::optional<double>> n = options.number("n", 2.0, kMostPiecesPlanned);
    const Result<std::optional<double>> groups = options.number("groups", 2.0, 1000.0);
    for (const Result<std::optional<double>> *one : {&delta, &sd, &alpha, &wanted, &n, &groups}) {
        if (!*one)
            return one->error();
    }
    const std::string test = options.required("test");
    const std::optional<Comparison> comparison = comparisonFrom(test.c_str());
    if (!comparison)
        return invalidArgument(
            fmt::format("--test is \"{}\"; t, anova, reference, pairs or trend is wanted", test));
    if (wanted->has_value() == n->has_value())
        return invalidArgument(
            "give either --power, for the pieces it needs, or --n, for the power it gives");
    if (!(**sd > 0.0))
        return invalidArgument("--sd is 0; a standard deviation above zero is wanted");
    for (const auto &[name, value] : {std::pair("n", *n), std::pair("groups", *groups)}) {
        if (value && *value != std::floor(*value))
            return invalidArgument(fmt::format("--{} is {:g}; a whole number is wanted", name, *value));
    }
    const PowerQuestion question{*comparison, std::abs(**delta) / **sd, alpha->value_or(0.05),
                                 static_cast<int>(groups->value_or(2.0))};
    const Result<Power> found =
        *wanted ? piecesFor(question, **wanted) : powerOf(question, static_cast<int>(**n));
    if (!found)
        return found.error();
    return Outcome{Json{{"n_per_group", found->piecesPerGroup},
                        {"power", found->power},
                        {"noncentrality", found->noncentrality}},
                   {},
                   false};
}

} // namespace

std::vector<Command> groupCommands()
{
    return {
        {"stats",
         "describe",
         "",
         "summaries of each group",
         {kDataOption, kValueOption, kByOption, kConfidenceOption},
         0,
         describe},
        {"stats",
         "variances",
         "",
         "tests of equal variances",
         {kDataOption, kValueOption, kByRequired},
         0,
         variances},
        {"stats",
         "compare",
         "",
         "compare groups: all, in pairs, and with a reference",
         {kDataOption,
          kValueOption,
          kByRequired,
          kConfidenceOption,
          {"reference", "LEVEL", "also compare each group with this one, and with the best"}},
         0,
         compare},
        {"stats",
         "power",
         "",
         "pieces for a power, or the power of pieces",
         {{"test", "t|anova|reference|pairs|trend|paired|good-enough", "what is compared", false, true},
          {"delta", "DIFFERENCE", "to be found", false, true},
          {"sd", "SD", "of single values", false, true},
          {"alpha", "FRACTION", "0.05 unless given"},
          {"power", "FRACTION", "wanted: gives the pieces"},
          {"n", "N", "pieces a group: gives the power"},
          {"groups", "K", "2 unless given"}},
         0,
         power},
    };
}

std::vector<Command> statsCommands()
{
    std::vector<Command> all = groupCommands();
    for (std::vector<Command> more : {sampleCommands(), designCommands(), beyondCommands(), modelCommands()})
        std::move(more.begin(), more.end(), std::back_inserter(all));
    return all;
}

} // namespace inchpeg::cli
