// SPDX-License-Identifier: GPL-3.0-or-later
// What else differs between two rails that are compared than the levels of the factors.
#pragma once

#include "core/facts/piece_facts.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// One setting in which a rail differs from the reference.
struct SettingContrast {
    std::string setting;
    ConditionId rail;
    std::string here;         ///< what the rail's pieces had
    std::string there;        ///< what the reference's had
    bool isWhole = true;      ///< no piece of the one had what any of the other had; else some of them
    std::string follows{};    ///< the factor that makes it differ by its nature; empty: none does
    bool isNotLogged = false; ///< on one side it is not logged rather than another
};

/// Each rail beside the reference, setting by setting; a setting that is not known on one side is no
/// contrast. Numbers within what prints alike are one value: 1 % (temperatures 1 K, a measured chamber 5 K,
/// rates of the test 15 %, times under load 20 %; common practice); of what is measured, the means must
/// differ by three times the largest half range as well.
std::vector<SettingContrast> contrastsWithReference(const Study &study, const std::vector<PieceFacts> &facts);

/// What is known of each piece, and what of some alone: the list of what was looked at. Names, in order.
struct KnownSettings {
    std::vector<std::string> ofAll;
    std::vector<std::string> ofSome;
};
KnownSettings knownSettings(const std::vector<PieceFacts> &facts);

/// Settings whose values are not alike on all pieces, with the values: "0 %, 70 %".
struct VariedSetting {
    std::string setting;
    std::string values;
};
std::vector<VariedSetting> variedSettings(const std::vector<PieceFacts> &facts);

} // namespace inchpeg
