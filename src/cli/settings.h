// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/units/unit.h"

#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg::cli
{

/// A key of --set and the unit of a bare number; no unit for an on/off switch.
struct SettingKey {
    std::string_view name;
    std::string_view unitSymbol; ///< "" for a switch
};

/// The parsed --set key=value pairs of a reduction.
class Settings
{
public:
    /// Errors: InvalidArgument that names the key: unknown, given twice, no "=", a unit that does not fit, a
    /// number that is not above zero, a switch that is neither on nor off.
    static Result<Settings> parse(const std::vector<std::string> &pairs, std::span<const SettingKey> keys);

    /// In the working unit of the key's dimension.
    [[nodiscard]] std::optional<double> number(std::string_view key) const;
    [[nodiscard]] bool isOn(std::string_view key, bool fallback) const;

private:
    std::map<std::string, double, std::less<>> m_numbers;
    std::map<std::string, bool, std::less<>> m_switches;
};

} // namespace inchpeg::cli
