// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/open_project.h"

#include "store/project_lock.h"

namespace inchpeg::cli
{

Result<ProjectFile> openToRead(const std::string &path)
{
    Result<ProjectFile> project = ProjectFile::openForReading(path);
    if (project || project.error().code == ErrorCode::NotFound)
        return project;
    // One of an older format is brought up to date, which only one program at a time may do.
    const Result<ProjectLock> lock = ProjectLock::take(path);
    if (lock)
        project = ProjectFile::open(path);
    return project;
}

} // namespace inchpeg::cli
