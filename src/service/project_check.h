// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/project_file.h"

namespace inchpeg
{

/// ProjectFile::verify(), and the texts that the project keeps: its workshop, and what the part has to do.
Result<ProjectCheck> verifyProject(ProjectFile &project);

} // namespace inchpeg
