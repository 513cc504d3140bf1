// SPDX-License-Identifier: GPL-3.0-or-later
// What goes beyond the calls of the contract: groups with bounds, bends, blocks, orders and choices, tests
// that a stray value does not decide, and looks before all is broken.
#include "cli/data_file.h"
#include "cli/numbered_names.h"
#include "cli/stats_command.h"
#include "cli/stats_input.h"
#include "cli/stats_json.h"
#include "core/stats/bend.h"
#include "core/stats/blocks.h"
#include "core/stats/bounded_groups.h"
#include "core/stats/distributions.h"
#include "core/stats/orders.h"
#include "core/stats/robust.h"
#include "core/stats/spending.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace inchpeg::cli
{

namespace
{

Json boundedGroupsJson(const std::vector<BoundedGroup> &groups, const BoundedFit &fit, double z)
{
    Json list = Json::array();
    for (std::size_t g = 0; g < groups.size(); ++g) {
        const auto bounds = std::count_if(groups[g].values.begin(), groups[g].values.end(),
                                          [](const BoundedValue &value) { return value.isLowerBound; });
        Json entry = {{"group", groups[g].name}, {"n", groups[g].values.size()},
                      {"censored", bounds},      {"location", orNull(fit.location[g])},
                      {"se", nullptr},           {"ci", nullptr}};
        if (fit.location[g]) {
            entry["se"] = fit.standardError(g);
            entry["ci"] = around(*fit.location[g], fit.standardError(g), z);
        }
        list.push_back(std::move(entry));
    }
    return list;
}

/// Each group with a location beside the first that has one.
Json boundedDifferencesJson(const std::vector<BoundedGroup> &groups, const BoundedFit &fit, double z)
{
    Json list = Json::array();
    const auto first =
        static_cast<std::size_t>(std::find_if(fit.location.begin(), fit.location.end(),
                                              [](const auto &one) { return one.has_value(); }) -
                                 fit.location.begin());
    for (std::size_t g = first + 1; g < groups.size(); ++g) {
        if (!fit.location[g])
            continue;
        const double difference = fit.difference(first, g);
        const double error = fit.differenceError(first, g);
        list.push_back({{"a", groups[first].name},
                        {"b", groups[g].name},
                        {"difference", difference},
                        {"se", error},
                        {"z", difference / error},
                        {"p", 2.0 * normalUpper(std::abs(difference / error))},
                        {"ci", around(difference, error, z)}});
    }
    return list;
}

Result<Outcome> bounded(const Options &options)
{
    const Result<ScatterLaw> law = scatterLaw(options);
    if (!law)
        return law.error();
    const Result<double> confidence = options.confidence();
    if (!confidence)
        return confidence.error();
    const Result<GroupedBounds> values = readBounds(options);
    if (!values)
        return values.error();
    const Result<BoundedFit> fit = fitBoundedGroups(values->groups, *law);
    if (!fit)
        return inFile(options.required("data"), fit.error());
    const Result<std::optional<LikelihoodRatio>> test = testBoundedGroups(values->groups, *law);
    const double z = normalQuantile(0.5 + 0.5 * *confidence);
    Json ratio = {{"chi2", nullptr}, {"df", nullptr}, {"p", nullptr}};
    if (test && *test)
        ratio = {{"chi2", (*test)->chi2}, {"df", (*test)->df}, {"p", (*test)->p}};
    return Outcome{{{"distribution", options.value("distribution").value_or("lognormal")},
                    {"groups", boundedGroupsJson(values->groups, *fit, z)},
                    {"scale", fit->scale},
                    {"log_likelihood", fit->logLikelihood},
                    {"pairs", boundedDifferencesJson(values->groups, *fit, z)},
                    {"likelihood_ratio", ratio},
                    {"dropped", values->dropped}},
                   {},
                   false};
}

Result<Outcome> bend(const Options &options)
{
    constexpr std::string_view kXY[] = {"x", "y"};
    const Result<double> confidence = options.confidence();
    if (!confidence)
        return confidence.error();
    const Result<CompleteRows> rows = readRows(options, kXY);
    if (!rows)
        return rows.error();
    const Result<Bend> found = fitBend(rows->numbers[0], rows->numbers[1], *confidence);
    if (!found)
        return inFile(options.required("data"), found.error());
    return Outcome{{{"at", found->at},
                    {"ci", Json::array({orNull(found->low), orNull(found->high)})},
                    {"slope_before", found->slopeBefore},
                    {"slope_after", found->slopeAfter},
                    {"residual_squares", found->residualSquares},
                    {"df", found->df},
                    {"F", found->F},
                    {"p_at_most", found->pAtMost},
                    {"dropped", rows->dropped}},
                   {},
                   false};
}

Result<Outcome> blocks(const Options &options)
{
    constexpr std::string_view kValue[] = {"value"};
    constexpr std::string_view kTexts[] = {"by", "block"};
    const Result<double> confidence = options.confidence();
    if (!confidence)
        return confidence.error();
    const Result<CompleteRows> rows = readRows(options, kValue, kTexts);
    if (!rows)
        return rows.error();
    NumberedNames groups;
    NumberedNames plates;
    std::vector<BlockedValue> values;
    for (std::size_t i = 0; i < rows->numbers[0].size(); ++i)
        values.push_back(
            {rows->numbers[0][i], groups.place(rows->texts[0][i]), plates.place(rows->texts[1][i])});
    const Result<BlockFit> fit = fitBlocks(values);
    if (!fit)
        return inFile(options.required("data"), fit.error());
    Json means = Json::array();
    Json pairs = Json::array();
    for (Eigen::Index g = 0; g < fit->means.size(); ++g) {
        const std::string &name = groups.all()[static_cast<std::size_t>(g)];
        means.push_back({{"group", name}, {"mean", fit->means[g]}, {"se", std::sqrt(fit->covariance(g, g))}});
        if (g == 0)
            continue;
        const double error = fit->differenceError(0, g);
        const bool hasDf = fit->df > 0.0;
        const double t = fit->difference(0, g) / error;
        const double half = hasDf ? studentQuantile(0.5 + 0.5 * *confidence, fit->df) : 0.0;
        pairs.push_back({{"a", groups.all().front()},
                         {"b", name},
                         {"difference", fit->difference(0, g)},
                         {"se", error},
                         {"t", t},
                         {"df", fit->df},
                         {"p", hasDf ? Json(studentTwoSided(t, fit->df)) : Json(nullptr)},
                         {"ci", hasDf ? around(fit->difference(0, g), error, half) : Json(nullptr)}});
    }
    return Outcome{{{"groups", means},
                    {"pairs", pairs},
                    {"block_sd", fit->blockSd},
                    {"residual_sd", fit->residualSd},
                    {"log_likelihood", fit->logLikelihood},
                    {"dropped", rows->dropped}},
                   {},
                   false};
}

Result<Outcome> ordered(const Options &options)
{
    constexpr std::string_view kXY[] = {"x", "y"};
    const Result<CompleteRows> rows = readRows(options, kXY);
    if (!rows)
        return rows.error();
    const std::optional<OrderedTrend> trend = orderedTrend(rows->numbers[0], rows->numbers[1]);
    const auto number = [&](double OrderedTrend::*member) {
        return trend ? orNull((*trend).*member) : Json(nullptr);
    };
    return Outcome{{{"z", number(&OrderedTrend::z)},
                    {"p", number(&OrderedTrend::p)},
                    {"tau", number(&OrderedTrend::tau)},
                    {"dropped", rows->dropped}},
                   {},
                   false};
}

Result<Outcome> agreement(const Options &options)
{
    constexpr std::string_view kValue[] = {"value"};
    constexpr std::string_view kTexts[] = {"by", "judge"};
    const Result<CompleteRows> rows = readRows(options, kValue, kTexts);
    if (!rows)
        return rows.error();
    NumberedNames things;
    NumberedNames judges;
    std::map<std::pair<std::size_t, std::size_t>, double> given;
    for (std::size_t i = 0; i < rows->numbers[0].size(); ++i) {
        const auto place = std::pair{judges.place(rows->texts[1][i]), things.place(rows->texts[0][i])};
        if (!given.try_emplace(place, rows->numbers[0][i]).second)
            return inFile(options.required("data"),
                          badInput(fmt::format("\"{}\" grades \"{}\" twice; one grade a judge is wanted",
                                               rows->texts[1][i], rows->texts[0][i]),
                                   TextPosition{rows->lines[i], {}}));
    }
    std::vector<std::vector<double>> grades(judges.all().size(), std::vector<double>(things.all().size()));
    for (std::size_t j = 0; j < judges.all().size(); ++j) {
        for (std::size_t t = 0; t < things.all().size(); ++t) {
            const auto found = given.find({j, t});
            if (found == given.end())
                return inFile(options.required("data"),
                              badInput(fmt::format("\"{}\" has no grade from \"{}\"; each judge grades each",
                                                   things.all()[t], judges.all()[j])));
            grades[j][t] = found->second;
        }
    }
    const Result<Agreement> found = agreementOf(grades);
    if (!found)
        return inFile(options.required("data"), found.error());
    return Outcome{{{"judges", judges.all().size()},
                    {"n", things.all().size()},
                    {"W", found->W},
                    {"chi2", found->chi2},
                    {"df", found->df},
                    {"p", found->p},
                    {"dropped", rows->dropped}},
                   {},
                   false};
}

Result<Outcome> choices(const Options &options)
{
    constexpr std::string_view kTexts[] = {"better", "worse"};
    constexpr std::string_view kTimes[] = {"times"};
    const Result<CompleteRows> rows = readRows(options, kTimes, kTexts);
    if (!rows)
        return rows.error();
    NumberedNames things;
    for (std::size_t i = 0; i < rows->lines.size(); ++i) {
        things.place(rows->texts[0][i]);
        things.place(rows->texts[1][i]);
    }
    std::vector<std::vector<double>> wins(things.all().size(), std::vector<double>(things.all().size(), 0.0));
    for (std::size_t i = 0; i < rows->lines.size(); ++i) {
        const std::size_t better = things.place(rows->texts[0][i]);
        const std::size_t worse = things.place(rows->texts[1][i]);
        if (better == worse)
            return inFile(options.required("data"),
                          badInput(fmt::format("\"{}\" is held against itself", rows->texts[0][i]),
                                   TextPosition{rows->lines[i], {}}));
        const double times = rows->numbers[0][i];
        if (!(times >= 0.0))
            return inFile(options.required("data"),
                          badInput(fmt::format("{:g} is no count; how often it was chosen is wanted", times),
                                   TextPosition{rows->lines[i], {}}));
        wins[better][worse] += times;
    }
    const Result<ChoiceFit> fit = fitChoices(wins);
    if (!fit)
        return inFile(options.required("data"), fit.error());
    Json list = Json::array();
    for (std::size_t i = 0; i < things.all().size(); ++i)
        list.push_back(
            {{"group", things.all()[i]}, {"strength", fit->strength[i]}, {"se", fit->standardError[i]}});
    return Outcome{
        {{"groups", list}, {"chi2", fit->chi2}, {"df", fit->df}, {"p", fit->p}, {"dropped", rows->dropped}},
        {},
        false};
}

Result<Outcome> adjust(const Options &options)
{
    constexpr std::string_view kValue[] = {"value"};
    const Result<CompleteRows> rows = readRows(options, kValue);
    if (!rows)
        return rows.error();
    for (std::size_t i = 0; i < rows->numbers[0].size(); ++i) {
        const double p = rows->numbers[0][i];
        if (!(p >= 0.0 && p <= 1.0))
            return inFile(options.required("data"),
                          badInput(fmt::format("{:g} is no probability; 0 to 1 is wanted", p),
                                   TextPosition{rows->lines[i], {}}));
    }
    return Outcome{{{"benjamini_hochberg", falseDiscoveryAdjusted(rows->numbers[0])},
                    {"benjamini_yekutieli", falseDiscoveryAdjusted(rows->numbers[0], true)},
                    {"dropped", rows->dropped}},
                   {},
                   false};
}

Json huberJson(const Group &group)
{
    const std::optional<HuberLocation> huber = huberLocation(group.values);
    return {{"group", group.name},
            {"n", group.values.size()},
            {"huber", huber ? Json(huber->location) : Json(nullptr)},
            {"scale", huber ? Json(huber->scale) : Json(nullptr)}};
}

Result<Outcome> robust(const Options &options)
{
    const Result<double> confidence = options.confidence();
    if (!confidence)
        return confidence.error();
    const Result<double> trim = openFraction(options, "trim", 0.2);
    if (!trim)
        return trim.error();
    if (*trim >= 0.5)
        return invalidArgument(fmt::format("--trim {:g}: less than 0.5 at either end is wanted", *trim));
    const Result<int> seed = wholeNumber(options, "seed", 0, 2147483647, 1);
    if (!seed)
        return seed.error();
    const Result<GroupedValues> values = readGroups(options);
    if (!values)
        return values.error();
    Outcome outcome;
    const Result<std::vector<Group>> pair = twoGroups(*values, outcome.messages);
    if (!pair)
        return inFile(options.required("data"), pair.error());
    const std::vector<double> &a = pair->front().values;
    const std::vector<double> &b = pair->back().values;
    const std::optional<TrimmedTest> yuen = yuenTest(a, b, *trim, *confidence);
    const Result<PermutationTest> dealt = permutationTest(a, b, static_cast<std::uint64_t>(*seed));
    if (!dealt)
        return inFile(options.required("data"), dealt.error());
    Json yuenJson = {
        {"difference", nullptr}, {"t", nullptr}, {"df", nullptr}, {"p", nullptr}, {"ci", nullptr}};
    if (yuen)
        yuenJson = {{"difference", yuen->difference},
                    {"t", yuen->test.t},
                    {"df", yuen->test.df},
                    {"p", yuen->test.p},
                    {"ci", orNull(std::optional(yuen->test.ci))}};
    outcome.result = {{"groups", Json::array({huberJson(pair->front()), huberJson(pair->back())})},
                      {"yuen", yuenJson},
                      {"permutation",
                       {{"difference", dealt->difference},
                        {"p", dealt->p},
                        {"exact", dealt->isExact},
                        {"ways", dealt->ways}}},
                      {"dropped", values->dropped}};
    return outcome;
}

Result<Outcome> looks(const Options &options)
{
    constexpr std::string_view kKinds[] = {"strict-first", "alike"};
    const Result<std::string> kind = oneOf(options, "spending", kKinds);
    if (!kind)
        return kind.error();
    const Result<double> alpha = openFraction(options, "alpha", 0.05);
    if (!alpha)
        return alpha.error();
    const Result<int> pieces = wholeNumber(options, "n", 2, 200, 2);
    if (!pieces)
        return pieces.error();
    const Spending spending = *kind == "alike" ? Spending::Pocock : Spending::OBrienFleming;
    Json list = Json::array();
    int n = 2;
    for (const double level : levelsOfEachPiece(*pieces, *alpha, spending))
        list.push_back({{"n", n++}, {"level", level}, {"z", normalQuantile(1.0 - 0.5 * level)}});
    return Outcome{{{"looks", list}}, {}, false};
}

} // namespace

std::vector<Command> beyondCommands()
{
    const OptionSpec block{"block", "COLUMN", "plate, day or person", false, true};
    return {
        {"stats",
         "bounded",
         "",
         "groups with lower bounds among their values, by maximum likelihood",
         {kDataOption, kValueOption, kByRequired, kCensoredOption, kConfidenceOption, kDistributionOption},
         0,
         bounded},
        {"stats",
         "bend",
         "",
         "two straight lines that meet: where a gain flattens",
         {kDataOption, kXOption, kYOption, kConfidenceOption},
         0,
         bend},
        {"stats",
         "blocks",
         "",
         "groups compared within plates, days or persons (restricted maximum likelihood)",
         {kDataOption, kValueOption, kByRequired, block, kConfidenceOption},
         0,
         blocks},
        {"stats",
         "ordered",
         "",
         "whether values rise over ordered levels (Jonckheere-Terpstra, Kendall)",
         {kDataOption, kXOption, kYOption},
         0,
         ordered},
        {"stats",
         "agreement",
         "",
         "whether judges put the same things in the same order (Kendall's W)",
         {kDataOption, kValueOption, kByRequired, {"judge", "COLUMN", "who graded", false, true}},
         0,
         agreement},
        {"stats",
         "choices",
         "",
         "strengths from choices between two (Bradley-Terry)",
         {kDataOption,
          {"better", "COLUMN", "what was chosen", false, true},
          {"worse", "COLUMN", "what it was held against", false, true},
          {"times", "COLUMN", "how often", false, true}},
         0,
         choices},
        {"stats",
         "adjust",
         "",
         "probabilities of many answers at once, adjusted for false discoveries",
         {kDataOption, kValueOption},
         0,
         adjust},
        {"stats",
         "robust",
         "",
         "two groups where a stray value shall not decide: Huber, Yuen, all ways to deal",
         {kDataOption,
          kValueOption,
          kByRequired,
          kConfidenceOption,
          {"trim", "FRACTION", "left out at either end, 0.2 unless given"},
          {"seed", "N", "where there are more than a million ways; 1 unless given"}},
         0,
         robust},
        {"stats",
         "looks",
         "",
         "levels at which a difference counts when results are looked at as pieces break",
         {{"n", "N", "pieces a group that are planned", false, true},
          {"alpha", "FRACTION", "0.05 unless given"},
          {"spending", "strict-first|alike", "strict-first unless given"}},
         0,
         looks},
    };
}

} // namespace inchpeg::cli
