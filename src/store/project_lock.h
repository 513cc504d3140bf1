// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <memory>
#include <string>

class QLockFile;

namespace inchpeg
{

/// Held by the one program that may write a project: beside it as NAME.lock, where another machine sees it
/// too, and on the file itself, whatever name it was opened by. Let go of when it is destroyed, or by the
/// system when the program dies.
class ProjectLock
{
public:
    /// projectPath: any name of the project; it need not be there yet.
    /// Errors: NotFound where there is no such folder; Busy where another holds it, with who; Storage where
    /// its folder may not be written.
    static Result<ProjectLock> take(const std::string &projectPath);

    /// The lock on the file itself, of a project that was made after its lock was taken.
    void holdFile(const std::string &projectPath);

    ProjectLock(ProjectLock &&) noexcept;
    ProjectLock &operator=(ProjectLock &&) noexcept;
    ~ProjectLock();

private:
    ProjectLock(std::unique_ptr<QLockFile> file, int descriptor);
    std::unique_ptr<QLockFile> m_file;
    int m_descriptor = -1; ///< of the project, under the system's own lock
};

} // namespace inchpeg
