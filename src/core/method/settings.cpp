// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/settings.h"

#include "core/text/letters.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

std::optional<double> MethodSettings::number(std::string_view name) const
{
    const auto found = numbers.find(name);
    return found == numbers.end() ? std::nullopt : std::optional(found->second);
}

double MethodSettings::number(std::string_view name, double fallback) const
{
    return number(name).value_or(fallback);
}

std::optional<Length> MethodSettings::length(std::string_view name) const
{
    const std::optional<double> value_mm = number(name);
    return value_mm ? std::optional(millimetres(*value_mm)) : std::nullopt;
}

std::string_view MethodSettings::word(std::string_view name, std::string_view fallback) const
{
    const auto found = words.find(name);
    return found == words.end() ? fallback : std::string_view(found->second);
}

bool MethodSettings::isOn(std::string_view name, bool fallback) const
{
    const auto found = words.find(name);
    return found == words.end() ? fallback : found->second == "on";
}

bool MethodSettings::contains(std::string_view name) const
{
    return numbers.contains(name) || words.contains(name);
}

void MethodSettings::override(const MethodSettings &other)
{
    for (const auto &[name, value] : other.numbers)
        numbers[name] = value;
    for (const auto &[name, value] : other.words)
        words[name] = value;
}

std::optional<std::string_view> choiceFrom(std::string_view typed, std::span<const std::string_view> choices)
{
    const std::string wanted = smallLetters(trimmed(typed));
    std::optional<std::string_view> begun;
    std::size_t beginning = 0;
    for (const std::string_view choice : choices) {
        const std::string known = smallLetters(choice);
        if (known == wanted)
            return choice;
        if (!wanted.empty() && known.starts_with(wanted)) {
            begun = choice;
            ++beginning;
        }
    }
    return beginning == 1 ? begun : std::nullopt;
}

Status setTyped(MethodSettings &settings, const Parameter &parameter, std::string_view text)
{
    const std::string name(parameter.name);
    if (!parameter.choices.empty()) {
        const std::optional<std::string_view> choice = choiceFrom(text, parameter.choices);
        if (!choice)
            return invalidArgument(fmt::format("\"{}\" is {}", name, fmt::join(parameter.choices, " or ")));
        settings.words[name] = *choice;
        return ok();
    }
    const std::optional<Unit> unit = findUnit(parameter.unit);
    require(unit.has_value(), "a parameter is a choice or has a unit");
    const Result<double> number = parseQuantity(text, *unit);
    if (!number)
        return number.error();
    const bool fits = parameter.mayBeZero ? *number >= 0.0 : *number > 0.0;
    if (!fits || !std::isfinite(*number))
        return invalidArgument(
            fmt::format("\"{}\" must be {}", name, parameter.mayBeZero ? "zero or more" : "above zero"));
    settings.numbers[name] = *number;
    return ok();
}

const Parameter *findParameter(std::span<const Parameter> parameters, std::string_view name)
{
    const auto found = std::find_if(parameters.begin(), parameters.end(),
                                    [&](const Parameter &parameter) { return parameter.name == name; });
    return found == parameters.end() ? nullptr : &*found;
}

Status checkRequired(const MethodSettings &settings, std::span<const Parameter> parameters)
{
    for (const Parameter &parameter : parameters) {
        if (parameter.isRequired && !settings.contains(parameter.name))
            return invalidArgument(fmt::format("\"{}\" is missing: {}", parameter.name, parameter.meaning));
    }
    return ok();
}

std::string settingsText(const MethodSettings &settings)
{
    std::string text;
    for (const auto &[name, value] : settings.numbers)
        text += fmt::format("{}{} {}", text.empty() ? "" : ", ", name, value);
    for (const auto &[name, value] : settings.words)
        text += fmt::format("{}{} {}", text.empty() ? "" : ", ", name, value);
    return text;
}

} // namespace inchpeg
