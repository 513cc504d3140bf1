// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"

#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// Something that can hurt, and what to do about it. Local codes, the rig's manual and qualified people go
/// before anything said here.
struct Caution {
    std::string_view key; ///< as kept in Plan::confirmed
    std::string_view text;
};

/// Of the planned tests, materials and settings, each once.
std::vector<Caution> cautionsOf(const Study &study);

/// What must be at hand before the first piece is tested.
std::vector<std::string_view> neededFor(const Study &study);

bool isConfirmed(const Plan &plan, std::string_view caution);
/// True once every caution is confirmed: the bench may start.
bool allConfirmed(const Study &study);

} // namespace inchpeg
