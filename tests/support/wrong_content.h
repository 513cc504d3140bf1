// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <string>

namespace inchpeg::test
{

/// Changes one to three values of a project to something that does not belong there, by chance: references,
/// words, numbers, texts of JSON cut short or with other members. The bytes of the database stay sound.
/// Yields what was done, as SQL.
std::string damageContent(const std::string &projectPath, std::uint64_t seed);

} // namespace inchpeg::test
