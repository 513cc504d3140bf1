// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/reading.h"

#include "core/base/contract.h"

#include <algorithm>
#include <array>
#include <utility>

namespace inchpeg
{

namespace
{

constexpr std::array kBoundReasons = {
    std::pair{BoundReason::None, std::string_view("")},
    std::pair{BoundReason::GaugeAtEnd, std::string_view("gauge at its end")},
    std::pair{BoundReason::RecordEnds, std::string_view("record ends before")},
    std::pair{BoundReason::NoBreak, std::string_view("no break")},
    std::pair{BoundReason::NeverMoved, std::string_view("held still")},
    std::pair{BoundReason::HeldDrop, std::string_view("held the drop")},
    std::pair{BoundReason::HeldStep, std::string_view("held the step")},
    std::pair{BoundReason::InService, std::string_view("still in service")},
    std::pair{BoundReason::OtherPart, std::string_view("another part gave way")},
    std::pair{BoundReason::Given, std::string_view("given as a bound")},
};

} // namespace

bool isComparedAsRatio(const Property &property)
{
    return property.scale == Scale::Ratio;
}

bool hasMean(const Property &property)
{
    return property.scale == Scale::Ratio || property.scale == Scale::Interval;
}

std::string_view boundReasonName(BoundReason reason)
{
    for (const auto &[known, name] : kBoundReasons) {
        if (known == reason)
            return name;
    }
    throw ContractViolation("unknown reason of a bound");
}

std::optional<BoundReason> boundReasonFrom(std::string_view name)
{
    for (const auto &[reason, known] : kBoundReasons) {
        if (known == name)
            return reason;
    }
    return std::nullopt;
}

const ReadValue *valueOf(std::span<const ReadValue> values, std::string_view property)
{
    const auto found = std::find_if(values.begin(), values.end(),
                                    [&](const ReadValue &value) { return value.property == property; });
    return found == values.end() ? nullptr : &*found;
}

void ValueList::add(std::string_view property, const std::optional<double> &value, BoundReason bound,
                    std::string label)
{
    if (value)
        m_values.push_back({std::string(property), *value, std::move(label), bound, {}});
}

} // namespace inchpeg
