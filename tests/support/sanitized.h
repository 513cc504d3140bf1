// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace inchpeg::test
{

/// Under the sanitizers, where everything takes several times as long, long loops are short: the other half
/// of the tests runs them in full.
#ifdef __SANITIZE_ADDRESS__
inline constexpr bool kSanitized = true;
#else
inline constexpr bool kSanitized = false;
#endif

} // namespace inchpeg::test
