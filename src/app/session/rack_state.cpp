// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/rack_state.h"

#include "core/base/contract.h"

#include <nlohmann/json.hpp>

namespace inchpeg::app
{

namespace
{

constexpr std::pair<Lens, const char *> kLensNames[] = {{Lens::Plan, "plan"},       {Lens::Log, "log"},
                                                        {Lens::Bench, "bench"},     {Lens::Read, "read"},
                                                        {Lens::Compare, "compare"}, {Lens::Decide, "decide"}};

const char *lensName(Lens lens)
{
    for (const auto &[known, name] : kLensNames) {
        if (known == lens)
            return name;
    }
    throw ContractViolation("unknown lens");
}

Lens lensFrom(const std::string &text)
{
    for (const auto &[lens, name] : kLensNames) {
        if (text == name)
            return lens;
    }
    return Lens::Plan;
}

} // namespace

std::string rackStateText(const RackState &view)
{
    nlohmann::json hidden = nlohmann::json::array();
    for (const ConditionId rail : view.hiddenRails)
        hidden.push_back(rail.value);
    nlohmann::json kept = {{"study", view.study.value}, {"lens", lensName(view.lens)},
                           {"piece", view.piece.value}, {"hidden_rails", hidden},
                           {"property", view.property}, {"test_table", view.isTestTableShown},
                           {"graph", view.isGraphShown}};
    if (view.isResponseTableShown)
        kept["response_table"] = *view.isResponseTableShown;
    return kept.dump();
}

RackState rackStateFrom(const std::string &text)
{
    RackState view;
    const nlohmann::json kept = nlohmann::json::parse(text, nullptr, false);
    if (!kept.is_object())
        return view;
    const auto number = [&](const char *key) {
        return kept.contains(key) && kept[key].is_number_integer() ? kept[key].get<std::int64_t>() : 0;
    };
    const auto word = [&](const char *key) {
        return kept.contains(key) && kept[key].is_string() ? kept[key].get<std::string>() : std::string();
    };
    const auto isSet = [&](const char *key) {
        return kept.contains(key) && kept[key].is_boolean() && kept[key].get<bool>();
    };
    view.study = StudyId{number("study")};
    view.lens = lensFrom(word("lens"));
    view.piece = PieceId{number("piece")};
    view.property = word("property");
    view.isTestTableShown = isSet("test_table");
    view.isGraphShown = isSet("graph");
    if (kept.contains("response_table") && kept["response_table"].is_boolean())
        view.isResponseTableShown = kept["response_table"].get<bool>();
    if (kept.contains("hidden_rails") && kept["hidden_rails"].is_array()) {
        for (const nlohmann::json &rail : kept["hidden_rails"]) {
            if (rail.is_number_integer())
                view.hiddenRails.insert(ConditionId{rail.get<std::int64_t>()});
        }
    }
    return view;
}

} // namespace inchpeg::app
