// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/summary.h"

#include <nlohmann/json.hpp>

#include <optional>
#include <string>

namespace inchpeg::cli
{

/// Keys keep the order in which they are set.
using Json = nlohmann::ordered_json;

/// The value, or null where there is none or it is not finite.
Json orNull(const std::optional<double> &value);
/// [low, high], or null.
Json orNull(const std::optional<Interval> &interval);

/// One JSON text, indented, numbers with 17 significant digits.
std::string jsonText(const Json &value);

/// The same for people: "key  value" lines, and an aligned table for each list of objects.
std::string plainText(const Json &value);

/// A text in lines of 80 letters; those after the first are indented. The first is taken to begin there.
std::string wrappedText(const std::string &text, std::size_t indent);

} // namespace inchpeg::cli
