// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// A file, and its name below the folder that was given.
struct FileBelow {
    std::string path; ///< "-": standard input
    std::string name;
};

/// The files that these paths name, those of folders and of folders in them included, in natural order;
/// hidden ones are left out.
/// Errors: NotFound for a path that is not there; Storage; InvalidArgument where there is no file.
Result<std::vector<FileBelow>> filesBelow(const std::vector<std::string> &paths);

} // namespace inchpeg
