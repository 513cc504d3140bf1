// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/open_project.h"

namespace inchpeg::cli
{

Result<ProjectFile> openToRead(const std::string &path)
{
    Result<ProjectFile> project = ProjectFile::openForReading(path);
    if (!project)
        project = ProjectFile::open(path);
    return project;
}

} // namespace inchpeg::cli
