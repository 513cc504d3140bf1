// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/decide/needs.h"

#include <QString>

#include <vector>

namespace inchpeg::app
{

/// The kinds of needs in the order in which they are offered.
std::vector<NeedKind> offeredNeeds();
/// "carries this stress", "keeps its shape when warm, under a load".
QString needWords(NeedKind kind);
/// Something to begin with; every number is to be changed (common practice).
Need usualNeed(NeedKind kind);

} // namespace inchpeg::app
