// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/contract.h"
#include "core/base/json_fields.h"

#include <cstddef>
#include <optional>
#include <string_view>
#include <utility>

namespace inchpeg
{

/// The name of a value in a table of all values and names.
template <typename Value, std::size_t N>
std::string_view nameIn(const std::pair<Value, std::string_view> (&table)[N], Value value)
{
    for (const auto &[known, name] : table) {
        if (known == value)
            return name;
    }
    throw ContractViolation("a value without a name");
}

template <typename Value, std::size_t N>
std::optional<Value> valueIn(const std::pair<Value, std::string_view> (&table)[N], std::string_view name)
{
    for (const auto &[value, known] : table) {
        if (known == name)
            return value;
    }
    return std::nullopt;
}

/// The value that a JSON text names. Throws std::invalid_argument, with the key, for an unknown name.
template <typename From>
auto named(const OrderedJson &json, const char *key, From from)
{
    const auto name = json.get<std::string>();
    const auto value = from(name);
    if (!value)
        throw std::invalid_argument(std::string("\"") + key + "\": \"" + name + "\" is not known");
    return *value;
}

/// The list under a key, empty where there is none.
inline OrderedJson listIn(const OrderedJson &json, const char *key)
{
    return json.value(key, OrderedJson::array());
}

} // namespace inchpeg
