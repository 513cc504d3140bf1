// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

namespace inchpeg
{

/// Moments that are kept: ISO 8601 in UTC, to the second, "2026-06-01T10:00:00Z". No clock that is put
/// forward or back for the summer changes them.

/// Seconds since 1970; nothing for another text or a day that there is not.
std::optional<std::int64_t> secondsSinceEpoch(std::string_view utc);
std::string utcText(std::int64_t secondsSinceEpoch);

} // namespace inchpeg
