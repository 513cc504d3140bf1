// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <memory>
#include <string>

class QLockFile;

namespace inchpeg
{

/// Says that this program is working on a project, by a small file beside it, so that two windows or machines
/// do not write over each other. Gone with the object; one that a crash left behind is taken over.
class ProjectLock
{
public:
    /// Errors: Storage, with who holds the project.
    static Result<ProjectLock> take(const std::string &projectPath);
    ProjectLock(ProjectLock &&) noexcept;
    ProjectLock &operator=(ProjectLock &&) noexcept;
    ~ProjectLock();

private:
    explicit ProjectLock(std::unique_ptr<QLockFile> file);
    std::unique_ptr<QLockFile> m_file;
};

} // namespace inchpeg
