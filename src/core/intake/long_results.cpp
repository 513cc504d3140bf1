// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intake/long_results.h"

#include "core/intake/property_words.h"
#include "core/intake/result_cells.h"
#include "core/method/method.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

namespace inchpeg
{

namespace
{

constexpr std::string_view kLongPropertyWords[] = {
    "property",  "quantity",       "measure",   "measurement", "variable",
    "parameter", "characteristic", "attribute", "result name", "eigenschaft",
    "kennwert",  "merkmal",        "kenngröße", "propriété",   "grandeur"};
constexpr std::string_view kLongValueWords[] = {"value",    "result", "reading", "wert",
                                                "messwert", "valeur", "mesure"};
constexpr std::string_view kLongUnitWords[] = {"unit", "units", "einheit", "unité"};

template <std::size_t N>
std::optional<std::size_t> longColumnOf(const std::vector<HeadingWords> &headings,
                                        const std::string_view (&words)[N])
{
    for (std::size_t c = 0; c < headings.size(); ++c) {
        if (std::find(std::begin(words), std::end(words), headings[c].words) != std::end(words))
            return c;
    }
    return std::nullopt;
}

/// At least half of the names mean a property of some test.
bool longNamesMeanProperties(const std::set<std::string> &names)
{
    std::vector<Method> all;
    for (const MethodFacts &facts : allMethods())
        all.push_back(facts.method);
    const auto known =
        static_cast<std::size_t>(std::count_if(names.begin(), names.end(), [&](const auto &name) {
            return propertyInWords(headingOf(name, {}).words, all).has_value();
        }));
    return known > 0 && 2 * known >= names.size();
}

} // namespace

std::optional<WideResults> wideFromLong(const std::vector<HeadingWords> &headings,
                                        const std::vector<RawRow> &rows)
{
    const std::optional<std::size_t> property = longColumnOf(headings, kLongPropertyWords);
    const std::optional<std::size_t> value = longColumnOf(headings, kLongValueWords);
    const std::optional<std::size_t> unit = longColumnOf(headings, kLongUnitWords);
    if (!property || !value || headings.size() < 3)
        return std::nullopt;
    std::vector<std::string> names; ///< in order of their first appearance
    std::map<std::string, std::set<std::string>> units;
    for (const RawRow &row : rows) {
        const std::string &name = row.cells[*property];
        if (trimmed(name).empty())
            return std::nullopt;
        if (std::find(names.begin(), names.end(), name) == names.end())
            names.push_back(name);
        if (unit && !row.cells[*unit].empty())
            units[name].insert(row.cells[*unit]);
    }
    if (!longNamesMeanProperties({names.begin(), names.end()}))
        return std::nullopt;

    WideResults wide;
    std::vector<std::size_t> kept; ///< columns that tell pieces apart
    for (std::size_t c = 0; c < headings.size(); ++c) {
        if (c == *property || c == *value || c == unit)
            continue;
        kept.push_back(c);
        wide.headings.push_back(headings[c]);
    }
    for (const std::string &name : names) {
        const std::set<std::string> &own = units[name];
        wide.headings.push_back(headingOf(name, own.size() == 1 ? *own.begin() : std::string()));
    }
    using Key =
        std::pair<std::vector<std::string>, std::size_t>; ///< what tells pieces apart, and which of them
    std::map<Key, std::size_t> places;
    std::map<std::pair<std::vector<std::string>, std::string>, std::size_t> times;
    for (const RawRow &row : rows) {
        std::vector<std::string> same;
        for (const std::size_t c : kept)
            same.push_back(row.cells[c]);
        const std::string &name = row.cells[*property];
        const auto [place, isNew] = places.try_emplace(Key{same, times[{same, name}]++}, wide.rows.size());
        if (isNew) {
            wide.rows.push_back({row.line, same});
            wide.rows.back().cells.resize(wide.headings.size());
        }
        const auto column =
            static_cast<std::size_t>(std::find(names.begin(), names.end(), name) - names.begin());
        const bool hasUnit = unit && units[name].size() > 1 && !isEmptyMark(row.cells[*value]);
        wide.rows[place->second].cells[kept.size() + column] =
            hasUnit ? fmt::format("{} {}", row.cells[*value], row.cells[*unit]) : row.cells[*value];
    }
    return wide;
}

} // namespace inchpeg
