// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <optional>
#include <string>

namespace inchpeg
{

/// Who works on a project, kept with decisions and changes.
struct Person {
    std::string name;
    std::function<std::string()> now; ///< ISO 8601, UTC
};

/// The moment by this machine's clock, in ISO 8601, UTC.
std::string momentNow();

/// The name of who uses this account: INCHPEG_PERSON where it is set, else the account's real name, else its
/// short one.
std::string accountName();

/// Who runs this program: under this name, else accountName().
Person personHere(const std::optional<std::string> &name = {});

} // namespace inchpeg
