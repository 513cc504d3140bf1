// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/database.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// Rows that refer to something that is not there, and studies that miss a part without which they would not
/// even be listed; a sentence each. Throws StorageFailure.
std::vector<std::string> danglingReferences(Database &database);

} // namespace inchpeg
