// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/data_file.h"
#include "cli/numbered_names.h"
#include "cli/stats_command.h"
#include "cli/stats_input.h"
#include "cli/stats_json.h"
#include "core/stats/equivalence.h"
#include "core/stats/paired.h"
#include "core/stats/plateau.h"
#include "core/stats/random_effects.h"
#include "core/stats/staircase.h"
#include "core/stats/trend.h"
#include "core/stats/two_way.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::cli
{

namespace
{

constexpr std::string_view kXY[] = {"x", "y"};

Result<Outcome> paired(const Options &options)
{
    constexpr std::string_view kColumns[] = {"before", "after"};
    const Result<double> confidence = options.confidence();
    if (!confidence)
        return confidence.error();
    const Result<CompleteRows> rows = readRows(options, kColumns);
    if (!rows)
        return rows.error();
    const PairedComparison pairs = comparePaired(rows->numbers[0], rows->numbers[1], *confidence);
    Json wilcoxon = {{"V", nullptr}, {"p", nullptr}, {"exact", nullptr}};
    if (pairs.wilcoxon)
        wilcoxon = {
            {"V", pairs.wilcoxon->v}, {"p", orNull(pairs.wilcoxon->p)}, {"exact", pairs.wilcoxon->exact}};
    return Outcome{{{"n", pairs.n},
                    {"mean_difference", orNull(pairs.meanDifference)},
                    {"t", orNull(pairs.t)},
                    {"df", orNull(pairs.df)},
                    {"p", orNull(pairs.p)},
                    {"ci", orNull(pairs.ci)},
                    {"wilcoxon", wilcoxon},
                    {"dropped", rows->dropped}},
                   {},
                   false};
}

std::vector<std::size_t> levelsOf(const std::vector<std::string> &names)
{
    NumberedNames numbered;
    std::vector<std::size_t> levels;
    for (const std::string &name : names)
        levels.push_back(numbered.place(name));
    return levels;
}

Result<Outcome> twoway(const Options &options)
{
    constexpr std::string_view kValues[] = {"value"};
    constexpr std::string_view kFactors[] = {"a", "b"};
    const Result<int> type = wholeNumber(options, "type", 2, 3, 2);
    if (!type)
        return type.error();
    const Result<CompleteRows> rows = readRows(options, kValues, kFactors);
    if (!rows)
        return rows.error();
    const std::vector<std::size_t> a = levelsOf(rows->texts[0]);
    const std::vector<std::size_t> b = levelsOf(rows->texts[1]);
    std::vector<TwoWayValue> values;
    for (std::size_t i = 0; i < a.size(); ++i)
        values.push_back({rows->numbers[0][i], a[i], b[i]});
    const Result<TwoWayAnova> anova =
        twoWayAnova(values, *type == 3 ? SquaresType::Third : SquaresType::Second);
    if (!anova)
        return inFile(options.required("data"), anova.error());
    const std::string nameA = options.required("a");
    const std::string nameB = options.required("b");
    const Json table = {termJson(nameA, anova->a), termJson(nameB, anova->b),
                        termJson(nameA + ":" + nameB, anova->interaction),
                        termJson("residual", anova->residual)};
    return Outcome{{{"table", table}, {"type", *type}, {"dropped", rows->dropped}}, {}, false};
}

Result<Outcome> trend(const Options &options)
{
    const Result<double> confidence = options.confidence();
    if (!confidence)
        return confidence.error();
    const Result<int> degree = wholeNumber(options, "degree", 1, kMostTrendDegree, 1);
    if (!degree)
        return degree.error();
    const Result<CompleteRows> rows = readRows(options, kXY);
    if (!rows)
        return rows.error();
    const Result<Trend> fit = fitTrend(rows->numbers[0], rows->numbers[1], *degree, *confidence);
    if (!fit)
        return inFile(options.required("data"), fit.error());
    Json coefficients = Json::array();
    for (const TrendCoefficient &coefficient : fit->coefficients)
        coefficients.push_back({{"power", coefficient.power},
                                {"value", orNull(coefficient.value)},
                                {"se", orNull(coefficient.se)},
                                {"t", orNull(coefficient.t)},
                                {"p", orNull(coefficient.p)},
                                {"ci", orNull(coefficient.ci)}});
    Json optimum = {{"x", nullptr}, {"ci", nullptr}, {"kind", nullptr}};
    if (fit->optimum)
        optimum = {{"x", orNull(fit->optimum->x)},
                   {"ci", orNull(fit->optimum->ci)},
                   {"kind", fit->optimum->isMaximum ? "maximum" : "minimum"}};
    Json result = {{"n", rows->numbers[0].size()},
                   {"coefficients", coefficients},
                   {"r2", orNull(fit->r2)},
                   {"adjusted_r2", orNull(fit->adjustedR2)},
                   {"residual_sd", orNull(fit->residualSd)},
                   {"df", fit->df},
                   {"F", orNull(fit->f)},
                   {"p", orNull(fit->p)},
                   {"lack_of_fit", fit->lackOfFit ? fTestJson(fit->lackOfFit) : Json(nullptr)}};
    if (*degree == 2)
        result["optimum"] = optimum;
    result["dropped"] = rows->dropped;
    return Outcome{result, {}, false};
}

Result<Outcome> plateau(const Options &options)
{
    constexpr std::string_view kEnds[] = {"low", "high"};
    const Result<double> confidence = options.confidence();
    const Result<std::string> end = oneOf(options, "prefer", kEnds);
    const Result<bool> larger = yesOrNo(options, "larger-is-better", true);
    if (!confidence)
        return confidence.error();
    if (!end)
        return end.error();
    if (!larger)
        return larger.error();
    const Result<CompleteRows> rows = readRows(options, kXY);
    if (!rows)
        return rows.error();
    std::vector<double> levels;
    std::vector<Group> groups;
    for (std::size_t i = 0; i < rows->numbers[0].size(); ++i) {
        const double x = rows->numbers[0][i];
        const auto found = std::find(levels.begin(), levels.end(), x);
        const auto place = static_cast<std::size_t>(found - levels.begin());
        if (found == levels.end()) {
            levels.push_back(x);
            groups.push_back({fmt::format("{:g}", x), {}});
        }
        groups[place].values.push_back(rows->numbers[1][i]);
    }
    const Result<Plateau> found = findPlateau(levels, groups, {*end == "low", *larger, *confidence});
    if (!found)
        return inFile(options.required("data"), found.error());
    return Outcome{
        {{"best_level", levels[found->best]},
         {"chosen_level", found->chosen ? Json(levels[*found->chosen]) : Json(nullptr)},
         {"larger_is_better", *larger},
         {"levels", bestLevelsJson(found->levels, [&](std::size_t level) { return Json(levels[level]); })},
         {"dropped", rows->dropped}},
        {},
        false};
}

Result<Outcome> equivalence(const Options &options)
{
    const Result<std::optional<double>> margin = options.number("margin", 0.0, 1e300);
    const Result<bool> relative = yesOrNo(options, "relative", false);
    if (!margin)
        return margin.error();
    if (!relative)
        return relative.error();
    const Result<GroupedValues> values = readGroups(options);
    if (!values)
        return values.error();
    Outcome outcome;
    const Result<std::vector<Group>> pair = twoGroups(*values, outcome.messages);
    if (!pair)
        return inFile(options.required("data"), pair.error());
    const Result<double> absolute = absoluteMargin(margin->value_or(0.0), *relative, pair->front().values);
    if (!absolute)
        return absolute.error();
    const Equivalence found = testEquivalence(pair->front().values, pair->back().values, *absolute);
    outcome.result = {{"difference", orNull(found.difference)},
                      {"margin", *absolute},
                      {"t_lower", orNull(found.tLower)},
                      {"t_upper", orNull(found.tUpper)},
                      {"df", orNull(found.df)},
                      {"p", orNull(found.p)},
                      {"ci90", orNull(found.ci90)},
                      {"equivalent", found.equivalent ? Json(*found.equivalent) : Json(nullptr)},
                      {"dropped", values->dropped}};
    return outcome;
}

Result<Outcome> staircase(const Options &options)
{
    constexpr std::string_view kColumns[] = {"level", "broke"};
    const Result<CompleteRows> rows = readRows(options, kColumns);
    if (!rows)
        return rows.error();
    std::vector<StaircaseTrial> trials;
    for (std::size_t i = 0; i < rows->numbers[0].size(); ++i) {
        const Result<bool> failed = flagOf(rows->numbers[1][i], options.required("broke"), rows->lines[i]);
        if (!failed)
            return inFile(options.required("data"), failed.error());
        trials.push_back({rows->numbers[0][i], *failed});
    }
    const Result<Staircase> found = evaluateStaircase(trials);
    if (!found)
        return inFile(options.required("data"), found.error());
    return Outcome{{{"n_used", found->used},
                    {"mean", orNull(found->mean)},
                    {"sd", orNull(found->sd)},
                    {"se_mean", orNull(found->seMean)},
                    {"step", found->step},
                    {"valid", found->isValid},
                    {"dropped", rows->dropped}},
                   {},
                   false};
}

Result<Outcome> anovaRandom(const Options &options)
{
    const Result<GroupedValues> values = readGroups(options);
    if (!values)
        return values.error();
    Outcome outcome;
    const Result<VarianceComponents> components = varianceComponents(filledGroups(*values, outcome.messages));
    if (!components)
        return inFile(options.required("data"), components.error());
    outcome.result = {
        {"ms_between", orNull(components->msBetween)}, {"ms_within", orNull(components->msWithin)},
        {"s_r", orNull(components->repeatability)},    {"s_between", orNull(components->between)},
        {"s_R", orNull(components->reproducibility)},  {"dropped", values->dropped}};
    return outcome;
}

} // namespace

std::vector<Command> designCommands()
{
    return {
        {"stats",
         "paired",
         "",
         "the same specimens before and after: Student's t and Wilcoxon's signed ranks",
         {kDataOption,
          {"before", "COLUMN", "the first reading", false, true},
          {"after", "COLUMN", "the second reading", false, true},
          kConfidenceOption},
         0,
         paired},
        {"stats",
         "twoway",
         "",
         "analysis of variance of two factors and their interaction",
         {kDataOption,
          kValueOption,
          {"a", "COLUMN", "the first factor", false, true},
          {"b", "COLUMN", "the second factor", false, true},
          {"type", "2|3", "of the sums of squares, 2 unless given"}},
         0,
         twoway},
        {"stats",
         "trend",
         "",
         "polynomial trend, its lack of fit and optimum",
         {kDataOption, kXOption, kYOption, {"degree", "1|2|3", "1 unless given"}, kConfidenceOption},
         0,
         trend},
        {"stats",
         "plateau",
         "",
         "the preferred end of the levels that may be best (Hsu)",
         {kDataOption,
          kXOption,
          kYOption,
          {"prefer", "low|high", "which end of x", false, true},
          {"larger-is-better", "yes|no", "yes unless given"},
          kConfidenceOption},
         0,
         plateau},
        {"stats",
         "equivalence",
         "",
         "whether two groups differ by less than a margin: two one-sided Welch tests",
         {kDataOption,
          kValueOption,
          kByRequired,
          {"margin", "M", "in the value's unit, or a fraction of the first group's mean", false, true},
          {"relative", "yes|no", "yes: the margin is a fraction"}},
         0,
         equivalence},
        {"stats",
         "staircase",
         "",
         "up-and-down test: the level at which half fail (Dixon-Mood)",
         {kDataOption,
          {"level", "COLUMN", "drop height, load or torque", false, true},
          {"broke", "COLUMN", "1 for a failure, else 0", false, true}},
         0,
         staircase},
        {"stats",
         "anova-random",
         "",
         "repeatability and reproducibility: scatter within and between groups",
         {kDataOption, kValueOption, kByRequired},
         0,
         anovaRandom},
    };
}

} // namespace inchpeg::cli
