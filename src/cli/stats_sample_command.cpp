// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/data_file.h"
#include "cli/stats_command.h"
#include "cli/stats_input.h"
#include "cli/stats_json.h"
#include "core/stats/bootstrap.h"
#include "core/stats/normality.h"
#include "core/stats/outliers.h"
#include "core/stats/survival.h"
#include "core/stats/tolerance_bounds.h"
#include "core/stats/weibull.h"

#include <fmt/format.h>

#include <algorithm>
#include <limits>

namespace inchpeg::cli
{

namespace
{

Result<Outcome> normality(const Options &options)
{
    const Result<GroupedValues> values = readGroups(options);
    if (!values)
        return values.error();
    Json list = Json::array();
    for (const Group &group : values->groups) {
        const std::optional<ShapiroWilk> shapiro = shapiroWilk(group.values);
        const std::optional<AndersonDarling> anderson = andersonDarling(group.values);
        list.push_back({{"group", groupName(options, group.name)},
                        {"n", group.values.size()},
                        {"shapiro_wilk",
                         {{"W", shapiro ? orNull(shapiro->w) : Json(nullptr)},
                          {"p", shapiro ? orNull(shapiro->p) : Json(nullptr)}}},
                        {"anderson_darling",
                         {{"A2", anderson ? orNull(anderson->a2) : Json(nullptr)},
                          {"p", anderson ? orNull(anderson->p) : Json(nullptr)}}}});
    }
    return Outcome{{{"groups", list}, {"dropped", values->dropped}}, {}, false};
}

/// Positions in a group as data rows of the file.
Json rowsJson(const std::vector<std::size_t> &positions, const std::vector<std::size_t> &rows)
{
    Json list = Json::array();
    for (std::size_t position : positions)
        list.push_back(rows[position]);
    return list;
}

Json grubbsJson(const std::optional<GrubbsTest> &test, const Group &group,
                const std::vector<std::size_t> &rows)
{
    if (!test)
        return {{"G", nullptr},     {"critical", nullptr}, {"p", nullptr},
                {"index", nullptr}, {"value", nullptr},    {"outlier", nullptr}};
    return {
        {"G", orNull(test->g)},          {"critical", orNull(test->critical)},    {"p", orNull(test->p)},
        {"index", rows[test->position]}, {"value", group.values[test->position]}, {"outlier", test->outlier}};
}

Result<Outcome> outliers(const Options &options)
{
    const Result<double> alpha = openFraction(options, "alpha", 0.05);
    if (!alpha)
        return alpha.error();
    const Result<GroupedValues> values = readGroups(options);
    if (!values)
        return values.error();
    Json list = Json::array();
    for (std::size_t g = 0; g < values->groups.size(); ++g) {
        const Group &group = values->groups[g];
        const std::vector<std::size_t> &rows = values->rows[g];
        const std::optional<NormedResidual> mnr = maximumNormedResidual(group.values, *alpha);
        Json mnrJson = {{"statistic", nullptr}, {"critical", nullptr}, {"outliers", Json::array()}};
        if (mnr)
            mnrJson = {{"statistic", orNull(mnr->statistic)},
                       {"critical", orNull(mnr->critical)},
                       {"outliers", rowsJson(mnr->outliers, rows)}};
        list.push_back({{"group", groupName(options, group.name)},
                        {"n", group.values.size()},
                        {"grubbs", grubbsJson(grubbs(group.values, *alpha), group, rows)},
                        {"mnr", mnrJson},
                        {"esd", {{"outliers", rowsJson(rosnerOutliers(group.values, *alpha), rows)}}}});
    }
    return Outcome{{{"groups", list}, {"dropped", values->dropped}}, {}, false};
}

Json weibullJson(const std::optional<WeibullFit> &fit)
{
    const auto number = [&](double WeibullFit::*member) {
        return fit ? orNull((*fit).*member) : Json(nullptr);
    };
    return {{"shape", estimateJson(fit ? std::optional(fit->shape) : std::nullopt)},
            {"scale", estimateJson(fit ? std::optional(fit->scale) : std::nullopt)},
            {"log_likelihood", number(&WeibullFit::logLikelihood)},
            {"b10", number(&WeibullFit::b10)},
            {"b50", number(&WeibullFit::b50)},
            {"mean", number(&WeibullFit::mean)},
            {"anderson_darling", fit ? orNull(fit->andersonDarling) : Json(nullptr)}};
}

std::size_t boundsAmong(std::span<const BoundedValue> values)
{
    std::size_t count = 0;
    for (const BoundedValue &value : values)
        count += value.isLowerBound ? 1 : 0;
    return count;
}

Result<Outcome> weibull(const Options &options)
{
    const Result<double> confidence = options.confidence();
    if (!confidence)
        return confidence.error();
    const Result<GroupedBounds> values = readBounds(options);
    if (!values)
        return values.error();
    Outcome outcome;
    Json list = Json::array();
    for (std::size_t g = 0; g < values->groups.size(); ++g) {
        const BoundedGroup &group = values->groups[g];
        const Result<WeibullFit> fit = fitWeibull(group.values, *confidence);
        if (!fit && fit.error().code == ErrorCode::BadInput) {
            const auto bad = std::find_if(group.values.begin(), group.values.end(),
                                          [](const BoundedValue &value) { return !(value.value > 0.0); });
            Error error = fit.error();
            error.position =
                TextPosition{values->lines[g][static_cast<std::size_t>(bad - group.values.begin())], {}};
            return inFile(options.required("data"), error);
        }
        if (!fit)
            outcome.messages.push_back(fmt::format("group \"{}\": {}", group.name, fit.error().message));
        Json entry = {{"group", groupName(options, group.name)},
                      {"n", group.values.size()},
                      {"censored", boundsAmong(group.values)}};
        entry.update(weibullJson(fit ? std::optional(*fit) : std::nullopt));
        list.push_back(std::move(entry));
    }
    outcome.result = {{"groups", list}, {"dropped", values->dropped}};
    return outcome;
}

Result<Outcome> survival(const Options &options)
{
    const Result<GroupedBounds> values = readBounds(options);
    if (!values)
        return values.error();
    Json list = Json::array();
    for (const BoundedGroup &group : values->groups) {
        const SurvivalCurve curve = survivalCurve(group.values);
        Json steps = Json::array();
        for (const SurvivalStep &step : curve.steps)
            steps.push_back({{"value", step.value},
                             {"at_risk", step.atRisk},
                             {"events", step.events},
                             {"survival", step.survival},
                             {"se", orNull(step.se)}});
        list.push_back({{"group", groupName(options, group.name)},
                        {"n", curve.n},
                        {"events", curve.events},
                        {"median", orNull(curve.median)},
                        {"steps", steps}});
    }
    Json test = nullptr;
    if (options.value("by"))
        test = chiSquaredJson(logRank(values->groups), "chi2");
    return Outcome{{{"groups", list}, {"log_rank", test}, {"dropped", values->dropped}}, {}, false};
}

Result<Outcome> basis(const Options &options)
{
    const Result<GroupedValues> values = readGroups(options);
    if (!values)
        return values.error();
    const std::vector<double> &sample = values->groups.front().values;
    const NormalBounds normal = normalBounds(sample);
    const ToleranceBounds weibullBound = weibullBounds(sample);
    const ToleranceBounds order = orderStatisticBounds(sample);
    return Outcome{{{"n", sample.size()},
                    {"normal",
                     {{"a", orNull(normal.a)},
                      {"b", orNull(normal.b)},
                      {"k_a", orNull(normal.kA)},
                      {"k_b", orNull(normal.kB)}}},
                    {"weibull", {{"a", orNull(weibullBound.a)}, {"b", orNull(weibullBound.b)}}},
                    {"nonparametric", {{"b", orNull(order.b)}, {"a", orNull(order.a)}}},
                    {"dropped", values->dropped}},
                   {},
                   false};
}

Json bootstrapJson(const BootstrapEstimate &estimate)
{
    return {{"estimate", orNull(estimate.estimate)},
            {"percentile", orNull(estimate.percentile)},
            {"bca", orNull(estimate.bca)}};
}

Result<Outcome> bootstrapIntervals(const Options &options)
{
    constexpr std::string_view kStatistics[] = {"mean", "median", "sd", "ratio"};
    constexpr int kMostResamples = 1'000'000;
    const Result<double> confidence = options.confidence();
    const Result<std::string> name = oneOf(options, "statistic", kStatistics);
    const Result<int> resamples = wholeNumber(options, "resamples", 1, kMostResamples, 9999);
    const Result<int> seed = wholeNumber(options, "seed", 0, std::numeric_limits<int>::max(), 1);
    if (!confidence)
        return confidence.error();
    if (!name)
        return name.error();
    for (const Result<int> *number : {&resamples, &seed}) {
        if (!*number)
            return number->error();
    }
    const Result<GroupedValues> values = readGroups(options);
    if (!values)
        return values.error();
    const BootstrapSettings settings{*confidence, *resamples, static_cast<std::uint64_t>(*seed)};
    Outcome outcome;
    if (*name == "ratio") {
        const Result<std::vector<Group>> pair = twoGroups(*values, outcome.messages);
        if (!pair)
            return inFile(options.required("data"), pair.error());
        const std::vector<std::vector<double>> samples{pair->front().values, pair->back().values};
        Json entry = {{"a", pair->front().name}, {"b", pair->back().name}};
        entry.update(bootstrapJson(bootstrap(samples, ratioStatistic(), settings)));
        outcome.result = {{"pair", entry}, {"dropped", values->dropped}};
        return outcome;
    }
    const Statistic statistic = *name == "mean"     ? meanStatistic()
                                : *name == "median" ? medianStatistic()
                                                    : sdStatistic();
    Json list = Json::array();
    for (const Group &group : values->groups) {
        const std::vector<std::vector<double>> samples{group.values};
        Json entry = {{"group", groupName(options, group.name)}, {"n", group.values.size()}};
        entry.update(bootstrapJson(bootstrap(samples, statistic, settings)));
        list.push_back(std::move(entry));
    }
    outcome.result = {{"groups", list}, {"dropped", values->dropped}};
    return outcome;
}

} // namespace

std::vector<Command> sampleCommands()
{
    return {
        {"stats",
         "normality",
         "",
         "Shapiro-Wilk and Anderson-Darling tests of each group",
         {kDataOption, kValueOption, kByOption},
         0,
         normality},
        {"stats",
         "outliers",
         "",
         "values that lie too far out: Grubbs, maximum normed residual, generalised ESD",
         {kDataOption, kValueOption, kByOption, {"alpha", "FRACTION", "0.05 unless given"}},
         0,
         outliers},
        {"stats",
         "weibull",
         "",
         "two-parameter Weibull distribution of each group, with lower bounds",
         {kDataOption, kValueOption, kByOption, kCensoredOption, kConfidenceOption},
         0,
         weibull},
        {"stats",
         "survival",
         "",
         "Kaplan-Meier survival of each group, and the log-rank test",
         {kDataOption,
          kValueOption,
          kByOption,
          {"censored", "COLUMN", "1 where the value is a lower bound, else 0", false, true}},
         0,
         survival},
        {"stats",
         "basis",
         "",
         "A and B basis: bounds that 99 % and 90 % of all pieces hold, with 95 % confidence",
         {kDataOption, kValueOption},
         0,
         basis},
        {"stats",
         "bootstrap",
         "",
         "intervals by resampling: percentile and BCa",
         {kDataOption,
          kValueOption,
          kByOption,
          kConfidenceOption,
          {"statistic", "mean|median|sd|ratio", "ratio: mean of the second group over the first", false,
           true},
          {"resamples", "N", "9999 unless given"},
          {"seed", "N", "1 unless given"}},
         0,
         bootstrapIntervals},
    };
}

} // namespace inchpeg::cli
