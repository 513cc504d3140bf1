// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/study_values.h"

#include <nlohmann/json.hpp>

namespace inchpeg
{

std::vector<RailValues> railValuesOf(const Study &study, const PieceReadings &readings, Method test,
                                     const Property &property)
{
    std::vector<RailValues> values;
    const StudyComparison comparison =
        compareStudy(study, readings, property, {.test = test, .detail = ComparisonDetail::Values});
    for (const RailComparison &rail : comparison.rails) {
        if (!rail.told && rail.summary.n > 0 && rail.summary.mean)
            values.push_back(
                {rail.condition, rail.summary.n, *rail.summary.mean, rail.summary.sd, rail.bounds});
    }
    return values;
}

StudyValues studyValuesOf(const Study &study, const PieceReadings &readings)
{
    StudyValues values;
    for (const StudyTest &test : study.tests) {
        const Reduction *reduction = reductionOf(test.method);
        if (reduction == nullptr)
            continue;
        for (const Property &property : reduction->properties) {
            if (!hasMean(property))
                continue;
            if (std::vector<RailValues> rails = railValuesOf(study, readings, test.method, property);
                !rails.empty())
                values.rails[{test.method, std::string(property.name)}] = std::move(rails);
        }
    }
    return values;
}

std::string studyValuesText(const StudyValues &values)
{
    nlohmann::json json = nlohmann::json::array();
    for (const auto &[of, rails] : values.rails) {
        nlohmann::json list = nlohmann::json::array();
        for (const RailValues &rail : rails)
            list.push_back({rail.condition.value, rail.n, rail.mean,
                            rail.sd ? nlohmann::json(*rail.sd) : nlohmann::json(), rail.bounds});
        json.push_back({{"test", methodName(of.first)}, {"property", of.second}, {"rails", list}});
    }
    return json.dump();
}

Result<StudyValues> studyValuesFromText(std::string_view text)
{
    StudyValues values;
    try {
        for (const nlohmann::json &one : nlohmann::json::parse(text)) {
            const std::optional<Method> test = methodFrom(one.at("test").get<std::string>());
            if (!test)
                return Error{ErrorCode::BadInput, "the kept values are of a test that is not known", {}};
            std::vector<RailValues> &rails = values.rails[{*test, one.at("property").get<std::string>()}];
            for (const nlohmann::json &rail : one.at("rails"))
                rails.push_back(
                    {ConditionId{rail.at(0).get<std::int64_t>()}, rail.at(1).get<std::size_t>(),
                     rail.at(2).get<double>(),
                     rail.at(3).is_null() ? std::nullopt : std::optional(rail.at(3).get<double>()),
                     rail.at(4).get<std::size_t>()});
        }
    } catch (const nlohmann::json::exception &) {
        return Error{ErrorCode::BadInput, "the kept values of a study are damaged", {}};
    }
    return values;
}

} // namespace inchpeg
