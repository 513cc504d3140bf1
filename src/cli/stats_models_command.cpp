// SPDX-License-Identifier: GPL-3.0-or-later
// Linear models: several factors with what was measured beside them, where the scatter of readings comes
// from, studies together, and a line through values with bounds.
#include "cli/data_file.h"
#include "cli/numbered_names.h"
#include "cli/stats_command.h"
#include "cli/stats_input.h"
#include "cli/stats_json.h"
#include "core/stats/bounded_line.h"
#include "core/stats/distributions.h"
#include "core/stats/factorial.h"
#include "core/stats/gauge_study.h"
#include "core/stats/pooling.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg::cli
{

namespace
{

constexpr std::string_view kFactorOptions[] = {"a", "b", "c"};

/// The names of the columns that stand for the factors, and of the covariate.
struct FactorColumns {
    std::vector<std::string_view> numbers{"value"};
    std::vector<std::string_view> texts{"a"};
    std::vector<std::string> names;
    std::optional<std::string> covariate;
};

Result<FactorColumns> factorColumns(const Options &options)
{
    FactorColumns columns;
    columns.names.push_back(options.required("a"));
    if (options.value("c") && !options.value("b"))
        return invalidArgument("--c is a third factor; --b is wanted too");
    for (const std::string_view option : {kFactorOptions[1], kFactorOptions[2]}) {
        if (const std::optional<std::string> name = options.value(option)) {
            columns.texts.push_back(option);
            columns.names.push_back(*name);
        }
    }
    columns.covariate = options.value("covariate");
    if (columns.covariate)
        columns.numbers.push_back("covariate");
    return columns;
}

std::string termName(const FactorialTerm &term, const FactorColumns &columns)
{
    if (term.covariate)
        return *columns.covariate;
    std::string name;
    for (const std::size_t f : term.factors)
        name += (name.empty() ? "" : ":") + columns.names[f];
    return name;
}

Result<Outcome> severalFactors(const Options &options)
{
    const Result<int> type = wholeNumber(options, "type", 2, 3, 2);
    if (!type)
        return type.error();
    const Result<double> confidence = options.confidence();
    if (!confidence)
        return confidence.error();
    const Result<FactorColumns> columns = factorColumns(options);
    if (!columns)
        return columns.error();
    const Result<CompleteRows> rows = readRows(options, columns->numbers, columns->texts);
    if (!rows)
        return rows.error();
    std::vector<NumberedNames> levels(columns->names.size());
    std::vector<FactorialValue> values;
    for (std::size_t i = 0; i < rows->lines.size(); ++i) {
        FactorialValue value{rows->numbers[0][i], {}, {}};
        for (std::size_t f = 0; f < levels.size(); ++f)
            value.levels.push_back(levels[f].place(rows->texts[f][i]));
        if (columns->covariate)
            value.covariates.push_back(rows->numbers[1][i]);
        values.push_back(std::move(value));
    }
    const Result<FactorialAnova> anova =
        factorialAnova(values, *type == 3 ? SquaresType::Third : SquaresType::Second, *confidence);
    if (!anova)
        return inFile(options.required("data"), anova.error());
    Json table = Json::array();
    for (const FactorialTerm &term : anova->terms)
        table.push_back(termJson(termName(term, *columns), term));
    table.push_back(termJson("residual", anova->residual));
    const auto levelName = [&](std::size_t factor, std::size_t level) { return levels[factor].all()[level]; };
    Json means = Json::array();
    for (const AdjustedMean &mean : anova->means)
        means.push_back({{"factor", columns->names[mean.factor]},
                         {"level", levelName(mean.factor, mean.level)},
                         {"mean", mean.mean},
                         {"se", orNull(mean.se)},
                         {"ci", orNull(mean.ci)}});
    Json differences = Json::array();
    for (const LevelDifference &difference : anova->differences)
        differences.push_back({{"factor", columns->names[difference.factor]},
                               {"a", levelName(difference.factor, 0)},
                               {"b", levelName(difference.factor, difference.level)},
                               {"difference", difference.value},
                               {"se", orNull(difference.se)},
                               {"ci", orNull(difference.ci)}});
    Json slope = nullptr;
    if (!anova->slopes.empty())
        slope = {{"value", anova->slopes[0].value},
                 {"se", orNull(anova->slopes[0].se)},
                 {"ci", orNull(anova->slopes[0].ci)}};
    return Outcome{{{"table", table},
                    {"type", *type},
                    {"means", means},
                    {"differences", differences},
                    {"slope", slope},
                    {"dropped", rows->dropped}},
                   {},
                   false};
}

Result<Outcome> gauge(const Options &options)
{
    constexpr std::string_view kValue[] = {"value"};
    constexpr std::string_view kTexts[] = {"part", "person"};
    const Result<CompleteRows> rows = readRows(options, kValue, kTexts);
    if (!rows)
        return rows.error();
    NumberedNames parts;
    NumberedNames persons;
    std::vector<GaugeStudyValue> readings;
    for (std::size_t i = 0; i < rows->lines.size(); ++i)
        readings.push_back(
            {rows->numbers[0][i], parts.place(rows->texts[0][i]), persons.place(rows->texts[1][i])});
    const Result<GaugeStudy> study = gaugeStudy(readings);
    if (!study)
        return inFile(options.required("data"), study.error());
    return Outcome{{{"parts", parts.all().size()},
                    {"persons", persons.all().size()},
                    {"repeatability", study->repeatability},
                    {"person", study->person},
                    {"interaction", study->interaction},
                    {"reproducibility", study->reproducibility},
                    {"gauge", study->gauge},
                    {"part", study->part},
                    {"total", study->total},
                    {"share_of_total", orNull(study->shareOfTotal)},
                    {"categories", study->categories ? Json(*study->categories) : Json(nullptr)},
                    {"interaction_p", orNull(study->interactionP)},
                    {"interaction_left_out", study->interactionLeftOut},
                    {"dropped", rows->dropped}},
                   {},
                   false};
}

Result<Outcome> pool(const Options &options)
{
    constexpr std::string_view kNumbers[] = {"value", "se"};
    const Result<double> confidence = options.confidence();
    if (!confidence)
        return confidence.error();
    const Result<CompleteRows> rows = readRows(options, kNumbers);
    if (!rows)
        return rows.error();
    std::vector<StudyEstimate> studies;
    for (std::size_t i = 0; i < rows->lines.size(); ++i) {
        if (!(rows->numbers[1][i] > 0.0))
            return inFile(
                options.required("data"),
                badInput(fmt::format("the standard error {:g}; above 0 is wanted", rows->numbers[1][i]),
                         TextPosition{rows->lines[i], {}}));
        studies.push_back({rows->numbers[0][i], rows->numbers[1][i]});
    }
    const Result<PooledEstimate> pooled = poolStudies(studies, *confidence);
    if (!pooled)
        return inFile(options.required("data"), pooled.error());
    return Outcome{{{"n", pooled->studies},
                    {"value", pooled->value},
                    {"se", pooled->standardError},
                    {"ci", orNull(std::optional(pooled->ci))},
                    {"between_sd", pooled->between},
                    {"Q", pooled->q},
                    {"p", pooled->qP},
                    {"next", orNull(pooled->next)},
                    {"dropped", rows->dropped}},
                   {},
                   false};
}

Result<Outcome> boundedTrend(const Options &options)
{
    const Result<ScatterLaw> law = scatterLaw(options);
    if (!law)
        return law.error();
    const Result<double> confidence = options.confidence();
    if (!confidence)
        return confidence.error();
    const bool hasBounds = options.value("censored").has_value();
    std::vector<std::string_view> columns{"x", "y"};
    if (hasBounds)
        columns.push_back("censored");
    const Result<CompleteRows> rows = readRows(options, columns);
    if (!rows)
        return rows.error();
    std::vector<BoundedValue> values;
    std::size_t bounds = 0;
    for (std::size_t i = 0; i < rows->lines.size(); ++i) {
        bool isBound = false;
        if (hasBounds) {
            const Result<bool> flag =
                flagOf(rows->numbers[2][i], options.required("censored"), rows->lines[i]);
            if (!flag)
                return inFile(options.required("data"), flag.error());
            isBound = *flag;
        }
        bounds += isBound ? 1U : 0U;
        values.push_back({rows->numbers[1][i], isBound});
    }
    const Result<BoundedLine> line = fitBoundedLine(rows->numbers[0], values, *law);
    if (!line)
        return inFile(options.required("data"), line.error());
    const double z = normalQuantile(0.5 + 0.5 * *confidence);
    return Outcome{{{"n", values.size()},
                    {"censored", bounds},
                    {"intercept", line->intercept},
                    {"intercept_se", line->interceptError},
                    {"slope", line->slope},
                    {"slope_se", line->slopeError},
                    {"slope_ci", around(line->slope, line->slopeError, z)},
                    {"p", 2.0 * normalUpper(std::abs(line->slope / line->slopeError))},
                    {"scale", line->scale},
                    {"log_likelihood", line->logLikelihood},
                    {"dropped", rows->dropped}},
                   {},
                   false};
}

} // namespace

std::vector<Command> modelCommands()
{
    return {
        {"stats",
         "factors",
         "",
         "one to three factors with their interactions, and what was measured beside them",
         {kDataOption,
          kValueOption,
          {"a", "COLUMN", "the first factor", false, true},
          {"b", "COLUMN", "the second"},
          {"c", "COLUMN", "the third"},
          {"covariate", "COLUMN", "a number measured beside the value, as a mass"},
          {"type", "2|3", "of the sums of squares; 2 unless given"},
          kConfidenceOption},
         0,
         severalFactors},
        {"stats",
         "gauge",
         "",
         "repeatability and reproducibility: how much of the scatter is the gauge's and the persons'",
         {kDataOption,
          kValueOption,
          {"part", "COLUMN", "what was measured", false, true},
          {"person", "COLUMN", "who measured it", false, true}},
         0,
         gauge},
        {"stats",
         "pool",
         "",
         "the same difference found by several studies, together",
         {kDataOption, kValueOption, {"se", "COLUMN", "its standard error", false, true}, kConfidenceOption},
         0,
         pool},
        {"stats",
         "bounded-trend",
         "",
         "a straight line through values with lower bounds among them, by maximum likelihood",
         {kDataOption, kXOption, kYOption, kCensoredOption, kDistributionOption, kConfidenceOption},
         0,
         boundedTrend},
    };
}

} // namespace inchpeg::cli
