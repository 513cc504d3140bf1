// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project_lock.h"

#include "store/file_identity.h"

#include <QFileInfo>
#include <QLockFile>
#include <QSysInfo>

#include <fmt/format.h>

#include <cerrno>
#include <csignal>
#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>
#include <utility>

namespace inchpeg
{

namespace
{

Error notTaken(const std::string &path, const std::string &why, ErrorCode code = ErrorCode::Busy)
{
    return Error{code, fmt::format("{}: {}", path, why), {}};
}

/// The lock beside the project stays where a program died and its folder may no longer be written.
bool isOfADeadProgram(qint64 process, const QString &host)
{
    return host == QSysInfo::machineHostName() && ::kill(static_cast<pid_t>(process), 0) != 0 &&
           errno == ESRCH;
}

Error whyNotLocked(const QLockFile &file, const std::string &path)
{
    const std::string notWritable = "its folder may not be written; copy the project to a folder of your own";
    if (file.error() != QLockFile::LockFailedError)
        return notTaken(path, notWritable, ErrorCode::Storage);
    qint64 process = 0;
    QString host;
    QString program;
    if (!file.getLockInfo(&process, &host, &program))
        return notTaken(path, "is open already, by another program; close it there and open it again");
    if (isOfADeadProgram(process, host))
        return notTaken(path,
                        notWritable + " (a program that died here left its mark, which cannot be removed)",
                        ErrorCode::Storage);
    return notTaken(path, fmt::format("is open already, by {} (process {}) on {}; close it there and open it "
                                      "again",
                                      program.toStdString(), process, host.toStdString()));
}

} // namespace

ProjectLock::ProjectLock(std::unique_ptr<QLockFile> file, int descriptor)
    : m_file(std::move(file)), m_descriptor(descriptor)
{
}

ProjectLock::ProjectLock(ProjectLock &&other) noexcept
    : m_file(std::move(other.m_file)), m_descriptor(std::exchange(other.m_descriptor, -1))
{
}

ProjectLock &ProjectLock::operator=(ProjectLock &&other) noexcept
{
    std::swap(m_file, other.m_file);
    std::swap(m_descriptor, other.m_descriptor);
    return *this;
}

ProjectLock::~ProjectLock()
{
    if (m_descriptor >= 0)
        ::close(m_descriptor);
}

Result<ProjectLock> ProjectLock::take(const std::string &projectPath)
{
    const std::string path = truePath(projectPath);
    const QFileInfo folder(QFileInfo(QString::fromStdString(path)).absolutePath());
    if (!folder.isDir())
        return Error{ErrorCode::NotFound, fmt::format("{}: there is no such folder", projectPath), {}};
    auto file = std::make_unique<QLockFile>(QString::fromStdString(path + ".lock"));
    file->setStaleLockTime(
        0); // a project may stay open for days; only a holder that is gone makes a lock stale
    if (!file->tryLock(0))
        return whyNotLocked(*file, projectPath);
    // A file with several names may have a mark beside each. The system's lock is on the file itself; it is
    // not the kind that the database takes, and where a network file system has none, the mark must do.
    if (!identityOf(path)) // it is to be made
        return ProjectLock(std::move(file), -1);
    const int descriptor = ::open(path.c_str(), O_RDONLY | O_CLOEXEC);
    if (descriptor >= 0 && ::flock(descriptor, LOCK_EX | LOCK_NB) != 0 && errno == EWOULDBLOCK) {
        ::close(descriptor);
        return notTaken(projectPath,
                        "is open already by another of its names; close it there and open it again");
    }
    return ProjectLock(std::move(file), descriptor);
}

void ProjectLock::holdFile(const std::string &projectPath)
{
    if (m_descriptor >= 0)
        return;
    m_descriptor = ::open(truePath(projectPath).c_str(), O_RDONLY | O_CLOEXEC);
    // Where another has it already the mark must do; the descriptor stays, for to close it would let go of
    // what the database holds.
    if (m_descriptor >= 0)
        static_cast<void>(::flock(m_descriptor, LOCK_EX | LOCK_NB));
}

} // namespace inchpeg
