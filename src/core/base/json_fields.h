// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <nlohmann/json.hpp>

#include <cmath>
#include <optional>
#include <stdexcept>
#include <string>

namespace inchpeg
{

/// Keys stay in the order in which they are written, so that the text reads from the top downwards.
using OrderedJson = nlohmann::ordered_json;

/// Writes the fields of a plain struct that differ from their defaults, and reads them back; one list of
/// fields serves both ways.
class FieldWriter
{
public:
    explicit FieldWriter(OrderedJson &json) : m_json(json) {}

    template <typename T>
    void field(const char *key, const T &value, const T &usual)
    {
        if (!(value == usual))
            m_json[key] = value;
    }
    template <typename T>
    void field(const char *key, const std::optional<T> &value, const std::optional<T> &)
    {
        if (value)
            m_json[key] = *value;
    }

private:
    OrderedJson &m_json;
};

/// Failures are std::invalid_argument or nlohmann's own exceptions, each naming the key.
class FieldReader
{
public:
    explicit FieldReader(const OrderedJson &json) : m_json(json)
    {
        if (!json.is_object())
            throw std::invalid_argument("an object is wanted");
    }

    template <typename T>
    void field(const char *key, T &value, const T &)
    {
        if (const auto found = m_json.find(key); found != m_json.end())
            value = read<T>(key, *found);
    }
    template <typename T>
    void field(const char *key, std::optional<T> &value, const std::optional<T> &)
    {
        if (const auto found = m_json.find(key); found != m_json.end() && !found->is_null())
            value = read<T>(key, *found);
    }

private:
    template <typename T>
    static T read(const char *key, const OrderedJson &json)
    {
        try {
            if constexpr (std::is_integral_v<T> && !std::is_same_v<T, bool>) {
                if (!json.is_number_integer())
                    throw std::invalid_argument("a whole number is wanted");
            }
            T value = json.get<T>();
            if constexpr (std::is_floating_point_v<T>) {
                if (!std::isfinite(value))
                    throw std::invalid_argument("a finite number is wanted");
            }
            return value;
        } catch (const std::exception &failure) {
            throw std::invalid_argument(std::string("\"") + key + "\": " + failure.what());
        }
    }
    const OrderedJson &m_json;
};

} // namespace inchpeg
