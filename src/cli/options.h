// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg::cli
{

/// An option of a subcommand, as the parser and --help need it.
struct OptionSpec {
    std::string_view name;      ///< without the dashes
    std::string_view valueName; ///< shown in the help; empty: the option is said or not, without a value
    std::string_view help;
    bool repeatable = false;
    bool required = false;
    bool takesList = false; ///< also takes the following arguments that hold a '=' ("--set a=1 b=2")
};

/// Parsed GNU-style arguments: "--name value" and "--name=value".
class Options
{
public:
    /// Errors: InvalidArgument for an unknown, incomplete, repeated or missing option.
    static Result<Options> parse(std::span<const std::string> arguments, std::span<const OptionSpec> specs);

    [[nodiscard]] std::optional<std::string> value(std::string_view name) const;
    /// Whether an option without a value was given.
    [[nodiscard]] bool isGiven(std::string_view name) const { return value(name).has_value(); }
    [[nodiscard]] std::string required(std::string_view name) const;
    [[nodiscard]] std::vector<std::string> all(std::string_view name) const;
    [[nodiscard]] const std::vector<std::string> &positional() const { return m_positional; }

    /// A number between two limits, both included; nothing where the option is not given.
    /// Errors: InvalidArgument that names the option and the limits.
    [[nodiscard]] Result<std::optional<double>> number(std::string_view name, double least,
                                                       double most) const;

    /// --confidence as a fraction between 0 and 1, 0.95 unless given.
    [[nodiscard]] Result<double> confidence() const;

private:
    std::map<std::string, std::vector<std::string>, std::less<>> m_values;
    std::vector<std::string> m_positional;
};

} // namespace inchpeg::cli
