// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/text/number_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr std::string_view kMinus = "\xE2\x88\x92";
constexpr int kMostDecimals = 6;

std::string withTrueMinus(std::string text)
{
    // "-0.0" is no negative number once it is rounded.
    const bool zero = text.find_first_of("123456789") == std::string::npos;
    if (text.starts_with('-'))
        text.replace(0, 1, zero ? std::string_view() : kMinus);
    return text;
}

/// "1.94 × 10⁻⁶": a number far from one, as it is written on paper.
std::string powerOfTenText(double value, int digits)
{
    static constexpr std::array<std::string_view, 10> kRaised = {"⁰", "¹", "²", "³", "⁴",
                                                                 "⁵", "⁶", "⁷", "⁸", "⁹"};
    const std::string text = fmt::format("{:.{}e}", value, digits - 1);
    const std::size_t mark = text.find('e');
    const int exponent = std::stoi(text.substr(mark + 1));
    std::string raised = exponent < 0 ? "⁻" : "";
    for (const char digit : std::to_string(std::abs(exponent)))
        raised += kRaised[static_cast<std::size_t>(digit - '0')];
    return withTrueMinus(text.substr(0, mark)) + " × 10" + raised;
}

int percentDecimals(double percent)
{
    return std::abs(percent) < 9.95 ? 1 : 0;
}

} // namespace

int decimalsFor(double uncertainty)
{
    if (!(uncertainty > 0.0) || !std::isfinite(uncertainty))
        return 3;
    const int decimals = 1 - static_cast<int>(std::floor(std::log10(uncertainty)));
    return std::clamp(decimals, 0, kMostDecimals);
}

std::string fixedText(double value, int decimals)
{
    return withTrueMinus(fmt::format("{:.{}f}", value, decimals));
}

std::string significantText(double value, int digits)
{
    if (value == 0.0)
        return "0";
    const int exponent = static_cast<int>(std::floor(std::log10(std::abs(value))));
    if (exponent < -4 || exponent > 9)
        return powerOfTenText(value, digits);
    return withTrueMinus(fmt::format("{:.{}f}", value, std::max(0, digits - 1 - exponent)));
}

std::string plainText(double value, int digits)
{
    return withTrueMinus(fmt::format("{:.{}g}", value, digits));
}

std::string measuredText(double value)
{
    const bool thousandths = std::abs(std::round(value * 1e3) - 10.0 * std::round(value * 1e2)) > 0.5;
    return fixedText(value, thousandths ? 3 : 2);
}

std::string signedPercentText(double fraction)
{
    const double percent = 100.0 * fraction;
    const std::string text = fixedText(percent, percentDecimals(percent));
    const bool zero = text.find_first_of("123456789") == std::string::npos;
    return (percent > 0.0 && !zero ? "+" : "") + text + " %";
}

std::string percentRangeText(const Interval &fractions)
{
    const double low = 100.0 * fractions.low;
    const double high = 100.0 * fractions.high;
    // An end that is not 0 is not written as 0: a claim hangs on its side.
    const auto vanishes = [](double percent) { return percent != 0.0 && std::abs(percent) < 0.5; };
    const bool isFine = std::max(std::abs(low), std::abs(high)) < 9.95 || vanishes(low) || vanishes(high);
    const int decimals = isFine ? 1 : 0;
    return fmt::format("{} to {} %", fixedText(low, decimals), fixedText(high, decimals));
}

} // namespace inchpeg
