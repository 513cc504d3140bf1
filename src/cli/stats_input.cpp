// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/stats_input.h"

#include "cli/data_file.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

namespace inchpeg::cli
{

namespace
{

/// Reads --data as a table and hands it on; what goes wrong there names the file.
template <typename Read>
auto fromTable(const Options &options, Read read) -> decltype(read(std::declval<const TextTable &>()))
{
    const std::string path = options.required("data");
    const Result<DecodedText> text = readDataText(path);
    if (!text)
        return text.error();
    const Result<TextTable> table = readTable(text->utf8);
    if (!table)
        return inFile(path, inSheet(*text, table.error()));
    auto out = read(*table);
    if (!out)
        return inFile(path, inSheet(*text, out.error()));
    for (const std::string &warning : table->warnings)
        fmt::print(stderr, "{}: {}\n", path, warning);
    return out;
}

} // namespace

Result<ScatterLaw> scatterLaw(const Options &options)
{
    constexpr std::string_view kLaws[] = {"lognormal", "normal", "weibull"};
    const Result<std::string> law = oneOf(options, "distribution", kLaws);
    if (!law)
        return law.error();
    return *law == "normal"    ? ScatterLaw::Normal
           : *law == "weibull" ? ScatterLaw::Weibull
                               : ScatterLaw::LogNormal;
}

Result<GroupedValues> readGroups(const Options &options)
{
    return fromTable(options, [&](const TextTable &table) {
        return groupValues(table, options.required("value"), options.value("by"));
    });
}

Result<GroupedBounds> readBounds(const Options &options)
{
    return fromTable(options, [&](const TextTable &table) {
        return groupBounds(table, options.required("value"), options.value("censored"), options.value("by"));
    });
}

Result<CompleteRows> readRows(const Options &options, std::span<const std::string_view> numberOptions,
                              std::span<const std::string_view> textOptions)
{
    const auto columns = [&](std::span<const std::string_view> names) {
        std::vector<std::string> out;
        for (std::string_view name : names)
            out.push_back(options.required(name));
        return out;
    };
    return fromTable(options, [&](const TextTable &table) {
        return completeRows(table, columns(numberOptions), columns(textOptions));
    });
}

std::vector<Group> filledGroups(const GroupedValues &values, std::vector<std::string> &messages)
{
    std::vector<Group> filled;
    for (const Group &group : values.groups) {
        if (group.values.empty())
            messages.push_back(
                fmt::format("group \"{}\" has no value and is left out of the comparison", group.name));
        else
            filled.push_back(group);
    }
    return filled;
}

Result<std::vector<Group>> twoGroups(const GroupedValues &values, std::vector<std::string> &messages)
{
    std::vector<Group> filled = filledGroups(values, messages);
    if (filled.size() != 2)
        return invalidArgument(fmt::format("{} group{} with values; two are wanted", filled.size(),
                                           filled.size() == 1 ? "" : "s"));
    return filled;
}

Result<int> wholeNumber(const Options &options, std::string_view name, int least, int most, int usual)
{
    const Result<std::optional<double>> value = options.number(name, least, most);
    if (!value)
        return value.error();
    if (!*value)
        return usual;
    if (**value != std::floor(**value))
        return invalidArgument(fmt::format("--{} is {:g}; a whole number is wanted", name, **value));
    return static_cast<int>(**value);
}

Result<bool> yesOrNo(const Options &options, std::string_view name, bool usual)
{
    const std::string word = options.value(name).value_or(usual ? "yes" : "no");
    if (word != "yes" && word != "no")
        return invalidArgument(fmt::format("--{} is \"{}\"; yes or no is wanted", name, word));
    return word == "yes";
}

Result<double> openFraction(const Options &options, std::string_view name, double usual)
{
    const Result<std::optional<double>> value = options.number(name, 0.0, 1.0);
    if (!value)
        return value.error();
    if (*value && (**value == 0.0 || **value == 1.0))
        return invalidArgument(
            fmt::format("--{} is {:g}; a fraction between 0 and 1 is wanted", name, **value));
    return value->value_or(usual);
}

Result<std::string> oneOf(const Options &options, std::string_view name,
                          std::span<const std::string_view> words)
{
    const std::string word = options.value(name).value_or(std::string(words.front()));
    if (std::find(words.begin(), words.end(), word) == words.end())
        return invalidArgument(
            fmt::format("--{} is \"{}\"; one of {} is wanted", name, word, fmt::join(words, ", ")));
    return word;
}

Json groupName(const Options &options, const std::string &name)
{
    return options.value("by") ? Json(name) : Json(nullptr);
}

} // namespace inchpeg::cli
