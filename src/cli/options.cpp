// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/options.h"

#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::cli
{

Result<Options> Options::parse(std::span<const std::string> arguments, std::span<const OptionSpec> specs)
{
    Options options;
    for (std::size_t i = 0; i < arguments.size(); ++i) {
        const std::string &argument = arguments[i];
        if (!argument.starts_with("--") || argument == "--") {
            if (argument.size() > 1 && argument.front() == '-' && argument != "--")
                return invalidArgument(
                    fmt::format("option {} is not known; options begin with two dashes", argument));
            options.m_positional.push_back(argument);
            continue;
        }
        const std::size_t equals = argument.find('=');
        const std::string name = argument.substr(2, equals == std::string::npos ? equals : equals - 2);
        const auto spec = std::find_if(specs.begin(), specs.end(),
                                       [&](const OptionSpec &known) { return known.name == name; });
        if (spec == specs.end())
            return invalidArgument(
                fmt::format("option --{} is not known here; --help lists the options", name));
        std::vector<std::string> &values = options.m_values[name];
        if (spec->valueName.empty()) {
            if (equals != std::string::npos)
                return invalidArgument(fmt::format("option --{} takes no value", name));
            values.emplace_back();
        } else if (equals != std::string::npos) {
            values.push_back(argument.substr(equals + 1));
        } else if (i + 1 < arguments.size()) {
            values.push_back(arguments[++i]);
        } else {
            return invalidArgument(
                fmt::format("option --{} wants a value: --{} {}", name, name, spec->valueName));
        }
        while (spec->takesList && i + 1 < arguments.size() && !arguments[i + 1].starts_with('-') &&
               arguments[i + 1].find('=') != std::string::npos)
            values.push_back(arguments[++i]);
        if (values.size() > 1 && !spec->repeatable)
            return invalidArgument(fmt::format("option --{} is given twice; once is wanted", name));
    }
    for (const OptionSpec &spec : specs) {
        if (spec.required && !options.value(spec.name))
            return invalidArgument(
                fmt::format("option --{} is missing: --{} {}", spec.name, spec.name, spec.valueName));
    }
    return options;
}

std::optional<std::string> Options::value(std::string_view name) const
{
    const auto found = m_values.find(name);
    return found == m_values.end() ? std::nullopt : std::optional(found->second.back());
}

std::string Options::required(std::string_view name) const
{
    const std::optional<std::string> found = value(name);
    require(found.has_value(), "Options::required(): the option is not marked as required");
    return *found;
}

std::vector<std::string> Options::all(std::string_view name) const
{
    const auto found = m_values.find(name);
    return found == m_values.end() ? std::vector<std::string>{} : found->second;
}

Result<std::optional<double>> Options::number(std::string_view name, double least, double most) const
{
    const std::optional<std::string> text = value(name);
    if (!text)
        return std::optional<double>();
    const std::optional<double> number = parseTypedNumber(*text);
    if (!number || *number < least || *number > most)
        return invalidArgument(
            fmt::format("--{} is \"{}\"; a number from {:g} to {:g} is wanted", name, *text, least, most));
    return number;
}

Result<double> Options::confidence() const
{
    const std::optional<std::string> text = value("confidence");
    if (!text)
        return 0.95;
    const std::optional<double> number = parseTypedNumber(*text);
    if (!number || !(*number > 0.0 && *number < 1.0))
        return invalidArgument(
            fmt::format("--confidence is \"{}\"; a fraction between 0 and 1 is wanted, such as 0.95", *text));
    return *number;
}

} // namespace inchpeg::cli
