// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/rail_summary.h"

#include "core/base/json_fields.h"
#include "core/base/json_text.h"
#include "core/method/method.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

template <typename Io, typename S>
void summaryFields(Io &io, S &summary)
{
    io.field("property", summary.property, std::string());
    io.field("mean", summary.mean, 0.0);
    io.field("sd", summary.sd, std::optional<double>());
    io.field("pieces", summary.pieces, std::optional<int>());
    io.field("source", summary.source, std::string());
    io.field("by", summary.who, std::string());
    io.field("at", summary.when, std::string());
}

Condition *railOf(Study &study, ConditionId id)
{
    const auto found = std::find_if(study.conditions.begin(), study.conditions.end(),
                                    [id](const Condition &condition) { return condition.id == id; });
    return found == study.conditions.end() ? nullptr : &*found;
}

} // namespace

std::string troubleOf(const RailSummary &summary)
{
    const Reduction *reduction = reductionOf(summary.test);
    const Result<Property> property = reduction == nullptr
                                          ? Result<Property>(Error{ErrorCode::NotFound, "", {}})
                                          : findProperty(*reduction, summary.property);
    if (!property)
        return fmt::format("\"{}\" is no property of {}", summary.property, methodName(summary.test));
    if (property->scale == Scale::Ordinal || property->scale == Scale::Word)
        return fmt::format("{} has no mean: grades and words are counted piece by piece", property->label);
    if (!std::isfinite(summary.mean))
        return "the mean is no number";
    if (summary.sd && !(std::isfinite(*summary.sd) && *summary.sd > 0.0))
        return "the standard deviation is not above zero; leave it empty where it is not known";
    if (summary.pieces && *summary.pieces < 1)
        return "the number of pieces is below one; leave it empty where it is not known";
    if (trimmed(summary.source).empty())
        return "say where it comes from: a sheet, a paper, another laboratory";
    return {};
}

Status setSummary(Study &study, ConditionId id, RailSummary summary)
{
    Condition *rail = railOf(study, id);
    if (rail == nullptr)
        return Error{ErrorCode::NotFound, "that rail is no longer there", {}};
    summary.source = singleSpaced(summary.source);
    if (const std::string trouble = troubleOf(summary); !trouble.empty())
        return invalidArgument(trouble);
    std::erase_if(rail->summaries, [&](const RailSummary &one) {
        return one.test == summary.test && one.property == summary.property;
    });
    rail->summaries.push_back(std::move(summary));
    return ok();
}

Status clearSummary(Study &study, ConditionId id, Method test, std::string_view property)
{
    Condition *rail = railOf(study, id);
    const std::size_t gone =
        rail == nullptr ? 0 : std::erase_if(rail->summaries, [&](const RailSummary &one) {
            return one.test == test && one.property == property;
        });
    return gone > 0
               ? ok()
               : Status(Error{
                     ErrorCode::NotFound, fmt::format("that rail has no summary of \"{}\"", property), {}});
}

std::string summariesText(const std::vector<RailSummary> &summaries)
{
    if (summaries.empty())
        return {};
    OrderedJson list = OrderedJson::array();
    for (const RailSummary &summary : summaries) {
        OrderedJson one = {{"test", methodName(summary.test)}};
        FieldWriter writer(one);
        summaryFields(writer, summary);
        list.push_back(std::move(one));
    }
    return jsonText(list);
}

Result<std::vector<RailSummary>> summariesFromText(std::string_view text)
{
    std::vector<RailSummary> summaries;
    if (trimmed(text).empty())
        return summaries;
    try {
        for (const OrderedJson &one : parsedJson(text)) {
            RailSummary summary;
            FieldReader reader(one);
            summaryFields(reader, summary);
            const std::string name = one.at("test").get<std::string>();
            const std::optional<Method> test = methodFrom(name);
            if (!test)
                throw std::invalid_argument(fmt::format("\"{}\" is no known test", name));
            summary.test = *test;
            summaries.push_back(std::move(summary));
        }
    } catch (const std::exception &failure) {
        return badInput(fmt::format("is no list of summaries: {}", jsonTrouble(failure)));
    }
    return summaries;
}

} // namespace inchpeg
