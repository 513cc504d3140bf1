// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/random.h"

namespace inchpeg::sim
{

using inchpeg::Random;

} // namespace inchpeg::sim
