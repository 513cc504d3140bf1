// SPDX-License-Identifier: GPL-3.0-or-later
#include "disk/disk.h"

#include <fmt/format.h>

#include <atomic>
#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <filesystem>
#include <mutex>
#include <system_error>
#include <unistd.h>
#include <utility>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;

std::atomic<bool> areFaultsSet = false;

std::mutex &faultsMutex()
{
    static std::mutex mutex;
    return mutex;
}

DiskFaults &faults()
{
    static DiskFaults set;
    return set;
}

Error cannot(const std::string &path, std::string_view what, int reason)
{
    return Error{
        ErrorCode::Storage, fmt::format("{}: cannot be {}: {}", path, what, diskTrouble(reason)), {}};
}

} // namespace

void setDiskFaults(DiskFaults wanted)
{
    const std::lock_guard lock(faultsMutex());
    areFaultsSet = static_cast<bool>(wanted);
    faults() = std::move(wanted);
}

std::optional<DiskFault> diskFault(DiskCall call, const std::string &path)
{
    if (!areFaultsSet)
        return std::nullopt;
    const std::lock_guard lock(faultsMutex());
    return faults() ? faults()(call, path) : std::nullopt;
}

std::string diskTrouble(int reason)
{
    switch (reason) {
    case ENOSPC:
    case EDQUOT:
        return "the disk is full; free some space and do it again";
    case EACCES:
    case EPERM:
        return "you may not write there; choose a folder of your own";
    case EROFS:
        return "the disk is read-only; choose a folder on another one";
    case EIO:
        return "the disk refuses to read or write; was it unplugged?";
    case ENOENT:
        return "there is no such file or folder";
    case ENOTDIR:
        return "a part of its path is no folder";
    case EEXIST:
        return "it exists already";
    case EISDIR:
        return "a folder stands there";
    default:
        return std::strerror(reason);
    }
}

Result<WrittenFile> WrittenFile::open(const std::string &path, Begin begin)
{
    const int how = begin == Begin::New ? O_EXCL : begin == Begin::Empty ? O_TRUNC : O_APPEND;
    if (const auto fault = diskFault(DiskCall::Open, path))
        return cannot(path, "written", fault->reason);
    constexpr int kReadableByAll = 0666;
    const int descriptor = ::open(path.c_str(), O_WRONLY | O_CREAT | O_CLOEXEC | how, kReadableByAll);
    if (descriptor < 0)
        return cannot(path, "written", errno);
    return WrittenFile(descriptor, path);
}

WrittenFile::WrittenFile(WrittenFile &&other) noexcept
    : m_descriptor(std::exchange(other.m_descriptor, -1)), m_path(std::move(other.m_path)),
      m_written(other.m_written)
{
}

WrittenFile &WrittenFile::operator=(WrittenFile &&other) noexcept
{
    std::swap(m_descriptor, other.m_descriptor);
    std::swap(m_path, other.m_path);
    std::swap(m_written, other.m_written);
    return *this;
}

WrittenFile::~WrittenFile()
{
    if (m_descriptor >= 0)
        ::close(m_descriptor);
}

Status WrittenFile::write(std::string_view bytes)
{
    const std::optional<DiskFault> fault = diskFault(DiskCall::Write, m_path);
    if (fault)
        bytes = bytes.substr(0, fault->isHalfDone ? bytes.size() / 2 : 0);
    while (!bytes.empty()) {
        const ssize_t written = ::write(m_descriptor, bytes.data(), bytes.size());
        if (written < 0 && errno != EINTR)
            return cannot(m_path, "written", errno);
        const std::size_t taken = written > 0 ? static_cast<std::size_t>(written) : 0;
        bytes.remove_prefix(taken);
        m_written += taken;
    }
    return fault ? Status(cannot(m_path, "written", fault->reason)) : ok();
}

Status WrittenFile::sync()
{
    if (const auto fault = diskFault(DiskCall::Sync, m_path))
        return cannot(m_path, "written", fault->reason);
    if (::fdatasync(m_descriptor) != 0 && errno != EINVAL && errno != EROFS) // pipes and devices have no disk
        return cannot(m_path, "written", errno);
    return ok();
}

Status WrittenFile::close()
{
    const int descriptor = std::exchange(m_descriptor, -1);
    if (descriptor >= 0 && ::close(descriptor) != 0 && errno != EINTR)
        return cannot(m_path, "written", errno);
    return ok();
}

Status renameFile(const std::string &from, const std::string &to)
{
    if (const auto fault = diskFault(DiskCall::Rename, to))
        return cannot(to, "made", fault->reason);
    if (::rename(from.c_str(), to.c_str()) != 0)
        return cannot(to, "made", errno);
    return ok();
}

Status removeFile(const std::string &path)
{
    if (const auto fault = diskFault(DiskCall::Remove, path))
        return cannot(path, "removed", fault->reason);
    if (::unlink(path.c_str()) != 0 && errno != ENOENT)
        return cannot(path, "removed", errno);
    return ok();
}

Status removeFolder(const std::string &path)
{
    if (const auto fault = diskFault(DiskCall::Remove, path))
        return cannot(path, "removed", fault->reason);
    std::error_code failure;
    fs::remove_all(path, failure);
    return failure ? Status(cannot(path, "removed", failure.value())) : ok();
}

void removeEmptyFolder(const std::string &path)
{
    if (!diskFault(DiskCall::Remove, path))
        ::rmdir(path.c_str());
}

Status makeFolders(const std::string &path)
{
    if (const auto fault = diskFault(DiskCall::MakeFolder, path))
        return cannot(path, "made", fault->reason);
    std::error_code failure;
    fs::create_directories(path, failure);
    return failure ? Status(cannot(path, "made", failure.value())) : ok();
}

} // namespace inchpeg
