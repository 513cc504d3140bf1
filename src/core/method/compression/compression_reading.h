// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace inchpeg
{

struct Reduction;
extern const Reduction kCompressionReduction;

} // namespace inchpeg
