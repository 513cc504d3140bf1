// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/database.h"

namespace inchpeg
{

/// The version that this program writes. docs/project_format.md describes it table by table.
inline constexpr int kSchemaVersion = 7;
inline constexpr const char *kProjectFormat = "inch-peg project";

/// The version of a database, 0 for an empty one.
/// Throws StorageFailure where the database is no project, or of a newer version.
int schemaVersion(Database &database);

/// Brings a database from its version up to kSchemaVersion, one transaction a step. Throws StorageFailure.
void migrate(Database &database);

} // namespace inchpeg
