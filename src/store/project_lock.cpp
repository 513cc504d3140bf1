// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project_lock.h"

#include <QFileInfo>
#include <QLockFile>

#include <fmt/format.h>

namespace inchpeg
{

ProjectLock::ProjectLock(std::unique_ptr<QLockFile> file) : m_file(std::move(file)) {}
ProjectLock::ProjectLock(ProjectLock &&) noexcept = default;
ProjectLock &ProjectLock::operator=(ProjectLock &&) noexcept = default;
ProjectLock::~ProjectLock() = default;

Result<ProjectLock> ProjectLock::take(const std::string &projectPath)
{
    const QFileInfo folder(QFileInfo(QString::fromStdString(projectPath)).absolutePath());
    if (!folder.isDir())
        return Error{ErrorCode::NotFound, fmt::format("{}: there is no such folder", projectPath), {}};
    auto file = std::make_unique<QLockFile>(QString::fromStdString(projectPath + ".lock"));
    file->setStaleLockTime(
        0); // a project may stay open for days; only a holder that is gone makes a lock stale
    if (file->tryLock(0))
        return ProjectLock(std::move(file));
    if (file->error() != QLockFile::LockFailedError)
        return Error{
            ErrorCode::Storage,
            fmt::format("{}: its folder may not be written; copy the project to a folder of your own",
                        projectPath),
            {}};
    qint64 process = 0;
    QString host;
    QString program;
    const bool known = file->getLockInfo(&process, &host, &program);
    const std::string holder =
        known ? fmt::format("by {} (process {}) on {}", program.toStdString(), process, host.toStdString())
              : std::string("by another program");
    return Error{
        ErrorCode::Storage,
        fmt::format("{}: is open already, {}; close it there and open it again", projectPath, holder),
        {}};
}

} // namespace inchpeg
