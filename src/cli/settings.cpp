// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/settings.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg::cli
{

Result<Settings> Settings::parse(const std::vector<std::string> &pairs, std::span<const SettingKey> keys)
{
    Settings settings;
    for (const std::string &pair : pairs) {
        const std::size_t equals = pair.find('=');
        if (equals == std::string::npos)
            return invalidArgument(fmt::format("--set {}: key=value is wanted, such as width=10mm", pair));
        const std::string name = pair.substr(0, equals);
        const std::string value = pair.substr(equals + 1);
        const auto key =
            std::find_if(keys.begin(), keys.end(), [&](const SettingKey &k) { return k.name == name; });
        if (key == keys.end()) {
            std::string known;
            for (const SettingKey &other : keys)
                known += (known.empty() ? "" : ", ") + std::string(other.name);
            return invalidArgument(
                fmt::format("--set {}: there is no key \"{}\"; known are {}", pair, name, known));
        }
        if (settings.m_numbers.contains(name) || settings.m_switches.contains(name))
            return invalidArgument(fmt::format("--set {}: \"{}\" is set twice; once is wanted", pair, name));
        if (key->unitSymbol.empty()) {
            if (value != "on" && value != "off")
                return invalidArgument(fmt::format("--set {}: \"{}\" is on or off", pair, name));
            settings.m_switches[name] = value == "on";
            continue;
        }
        const Result<double> number = parseQuantity(value, *findUnit(key->unitSymbol));
        if (!number)
            return invalidArgument(fmt::format("--set {}: {}", pair, number.error().message));
        if (!(*number > 0.0) || !std::isfinite(*number))
            return invalidArgument(fmt::format("--set {}: \"{}\" must be above zero", pair, name));
        settings.m_numbers[name] = *number;
    }
    return settings;
}

std::optional<double> Settings::number(std::string_view key) const
{
    const auto found = m_numbers.find(key);
    return found == m_numbers.end() ? std::nullopt : std::optional(found->second);
}

bool Settings::isOn(std::string_view key, bool fallback) const
{
    const auto found = m_switches.find(key);
    return found == m_switches.end() ? fallback : found->second;
}

} // namespace inchpeg::cli
