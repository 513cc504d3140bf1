// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/task_runner.h"

namespace inchpeg
{

/// A TaskRunner that keeps every core busy; the calling thread helps.
void onAllCores(std::size_t count, const std::function<void(std::size_t)> &task);

} // namespace inchpeg
