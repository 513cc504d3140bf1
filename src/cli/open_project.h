// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/project_file.h"

#include <string>

namespace inchpeg::cli
{

/// Opens a project for reading alone, also where another holds it; one of an older format is brought up to
/// date first. Errors: those of ProjectFile::open().
Result<ProjectFile> openToRead(const std::string &path);

} // namespace inchpeg::cli
