// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/command.h"
#include "core/stats/bounded_likelihood.h"
#include "core/stats/long_table.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace inchpeg::cli
{

/// What the calls of "stats" read: a table with a row a specimen, named by --data.

inline constexpr OptionSpec kValueOption{"value", "COLUMN", "the response", false, true};
inline constexpr OptionSpec kByOption{"by", "COLUMN", "the group"};
inline constexpr OptionSpec kByRequired{"by", "COLUMN", "the group", false, true};
inline constexpr OptionSpec kXOption{"x", "COLUMN", "the level, a number", false, true};
inline constexpr OptionSpec kYOption{"y", "COLUMN", "the response", false, true};
inline constexpr OptionSpec kCensoredOption{"censored", "COLUMN",
                                            "1 where the value is a lower bound, else 0"};

inline constexpr OptionSpec kDistributionOption{"distribution", "lognormal|normal|weibull",
                                                "how values scatter; lognormal unless given"};

/// --distribution.
Result<ScatterLaw> scatterLaw(const Options &options);
/// --value by --by. Errors name the file.
Result<GroupedValues> readGroups(const Options &options);
/// --value, --censored and --by.
Result<GroupedBounds> readBounds(const Options &options);
/// The columns that these options name, in rows where none of them is empty.
Result<CompleteRows> readRows(const Options &options, std::span<const std::string_view> numberOptions,
                              std::span<const std::string_view> textOptions = {});

/// The groups that hold a value; what is left out is told.
std::vector<Group> filledGroups(const GroupedValues &values, std::vector<std::string> &messages);
/// The two groups that a call compares. Errors: InvalidArgument for another number of groups.
Result<std::vector<Group>> twoGroups(const GroupedValues &values, std::vector<std::string> &messages);

/// Errors: InvalidArgument for a number that is not whole or out of range.
Result<int> wholeNumber(const Options &options, std::string_view name, int least, int most, int usual);
/// "yes" or "no". Errors: InvalidArgument for anything else.
Result<bool> yesOrNo(const Options &options, std::string_view name, bool usual);
/// A fraction between 0 and 1, neither included.
Result<double> openFraction(const Options &options, std::string_view name, double usual);
/// One of several words; the first is usual. Errors: InvalidArgument that lists them.
Result<std::string> oneOf(const Options &options, std::string_view name,
                          std::span<const std::string_view> words);

/// The group's name, or null where the call has no --by.
Json groupName(const Options &options, const std::string &name);

} // namespace inchpeg::cli
