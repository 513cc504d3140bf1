// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/command.h"
#include "cli/data_file.h"
#include "core/stats/long_table.h"
#include "core/stats/many_groups.h"
#include "core/stats/power.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg::cli
{

namespace
{

constexpr OptionSpec kValueOption{"value", "COLUMN", "the response", false, true};
constexpr OptionSpec kByOption{"by", "COLUMN", "the group"};
constexpr OptionSpec kByRequired{"by", "COLUMN", "the group", false, true};

Result<GroupedValues> readGroups(const Options &options)
{
    const std::string path = options.required("data");
    const Result<DecodedText> text = readDataText(path);
    if (!text)
        return text.error();
    const Result<TextTable> table = readTable(text->utf8);
    if (!table)
        return inFile(path, table.error());
    Result<GroupedValues> groups = groupValues(*table, options.required("value"), options.value("by"));
    if (!groups)
        return inFile(path, groups.error());
    return groups;
}

/// The groups that hold a value; what is left out is told.
std::vector<Group> filledGroups(const GroupedValues &values, std::vector<std::string> &messages)
{
    std::vector<Group> filled;
    for (const Group &group : values.groups) {
        if (group.values.empty())
            messages.push_back(
                fmt::format("group \"{}\" has no value and is left out of the comparison", group.name));
        else
            filled.push_back(group);
    }
    return filled;
}

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

Json fTestJson(const std::optional<FTest> &test)
{
    if (!test)
        return {{"F", nullptr}, {"df1", nullptr}, {"df2", nullptr}, {"p", nullptr}};
    return {{"F", orNull(test->f)},
            {"df1", orNull(test->df1)},
            {"df2", orNull(test->df2)},
            {"p", orNull(test->p)}};
}

Json chiSquaredJson(const std::optional<ChiSquaredTest> &test, const char *name)
{
    if (!test)
        return {{name, nullptr}, {"df", nullptr}, {"p", nullptr}};
    return {{name, orNull(test->statistic)}, {"df", orNull(test->df)}, {"p", orNull(test->p)}};
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

Json estimateJson(const std::optional<Estimate> &estimate)
{
    if (!estimate)
        return {{"value", nullptr}, {"ci", nullptr}};
    return {{"value", orNull(estimate->value)}, {"ci", orNull(estimate->ci)}};
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

Json bestJson(std::span<const Group> groups, double confidence)
{
    Json levels = Json::array();
    for (const BestLevel &level : comparisonWithBest(groups, true, confidence))
        levels.push_back({{"level", groups[level.level].name},
                          {"ci", orNull(level.ci)},
                          {"may_be_best", level.mayBeBest}});
    return {{"larger_is_better", true}, {"levels", levels}};
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
        Json entry = {{"group", options.value("by") ? Json(group.name) : Json(nullptr)}};
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
        outcome.result["best"] = bestJson(groups, *confidence);
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

std::vector<Command> statsCommands()
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
         {{"test", "t|anova|reference|pairs|trend", "what is compared", false, true},
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

} // namespace inchpeg::cli
