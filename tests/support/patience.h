// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace inchpeg::test
{

/// How long a test waits for what must happen: no test judges time, and a machine may be slow and busy.
/// Speed is judged in bench/, as a ratio to something run beside it.
inline constexpr int kPatience_ms = 600'000;

} // namespace inchpeg::test
