// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/stats_json.h"

namespace inchpeg::cli
{

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

Json termJson(const std::string &name, const FactorialTerm &term)
{
    return {{"term", name},
            {"df", term.df},
            {"ss", orNull(term.squares)},
            {"ms", orNull(term.meanSquare)},
            {"F", orNull(term.f)},
            {"p", orNull(term.p)},
            {"partial_eta2", orNull(term.partialEta2)}};
}

Json around(double value, double error, double z)
{
    return Json::array({value - z * error, value + z * error});
}

Json estimateJson(const std::optional<Estimate> &estimate)
{
    if (!estimate)
        return {{"value", nullptr}, {"ci", nullptr}};
    return {{"value", orNull(estimate->value)}, {"ci", orNull(estimate->ci)}};
}

Json bestLevelsJson(std::span<const BestLevel> levels, const std::function<Json(std::size_t)> &levelName)
{
    Json list = Json::array();
    for (const BestLevel &level : levels)
        list.push_back(
            {{"level", levelName(level.level)}, {"ci", orNull(level.ci)}, {"may_be_best", level.mayBeBest}});
    return list;
}

} // namespace inchpeg::cli
