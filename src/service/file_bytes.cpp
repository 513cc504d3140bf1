// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/file_bytes.h"

#include <QSaveFile>

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <filesystem>
#include <sys/stat.h>
#include <system_error>
#include <unistd.h>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;

/// Closes a file descriptor at the end of its scope.
class Descriptor
{
public:
    explicit Descriptor(int fd, bool owned = true) : m_fd(fd), m_owned(owned) {}
    ~Descriptor()
    {
        if (m_owned && m_fd >= 0)
            ::close(m_fd);
    }
    Descriptor(const Descriptor &) = delete;
    Descriptor &operator=(const Descriptor &) = delete;
    [[nodiscard]] int get() const { return m_fd; }

private:
    int m_fd;
    bool m_owned;
};

Error cannotRead(const std::string &path, int reason)
{
    const ErrorCode code = reason == ENOENT ? ErrorCode::NotFound : ErrorCode::Storage;
    const std::string why = reason == ENOENT ? "there is no such file" : std::string(std::strerror(reason));
    return Error{code, fmt::format("{}: cannot be read: {}", path, why), {}};
}

} // namespace

// Read, not mapped: a mapped file that another program cuts short, or whose network folder goes away, kills
// the process that looks into it, and the bytes are wanted whole for their SHA-256 anyway.
Result<std::string> readFileBytes(const std::string &path)
{
    std::error_code ignored;
    if (path != "-" && fs::is_directory(path, ignored))
        return badInput(fmt::format("{}: is a folder; a file is wanted", path));
    const Descriptor file(path == "-" ? STDIN_FILENO : ::open(path.c_str(), O_RDONLY | O_CLOEXEC),
                          path != "-");
    if (file.get() < 0)
        return cannotRead(path, errno);
    std::string bytes;
    struct stat about = {};
    if (::fstat(file.get(), &about) == 0 && S_ISREG(about.st_mode)) // a hint: the file may grow meanwhile
        bytes.reserve(static_cast<std::size_t>(about.st_size) + 1);
    std::array<char, 1 << 17> block; // NOLINT(cppcoreguidelines-pro-type-member-init): filled by read()
    while (true) {
        const ssize_t got = ::read(file.get(), block.data(), block.size());
        if (got == 0)
            return bytes;
        if (got > 0)
            bytes.append(block.data(), static_cast<std::size_t>(got));
        else if (errno != EINTR)
            return cannotRead(path, errno);
    }
}

Status writeFileBytes(const std::string &path, const std::string &bytes)
{
    QSaveFile file(QString::fromStdString(path));
    const bool written =
        file.open(QIODevice::WriteOnly) &&
        file.write(bytes.data(), static_cast<qint64>(bytes.size())) == static_cast<qint64>(bytes.size()) &&
        file.commit();
    if (!written)
        return Error{
            ErrorCode::Storage, path + ": cannot be written: " + file.errorString().toStdString(), {}};
    return ok();
}

Result<std::vector<std::string>> filesAt(const std::string &path)
{
    std::error_code failure;
    if (!fs::is_directory(path, failure))
        return std::vector<std::string>{path};
    std::vector<std::string> found;
    for (const fs::directory_entry &entry : fs::directory_iterator(path, failure)) {
        std::error_code ignored;
        if (entry.is_regular_file(ignored) && !entry.path().filename().string().starts_with('.'))
            found.push_back(entry.path().string());
    }
    if (failure)
        return cannotRead(path, failure.value());
    std::sort(found.begin(), found.end());
    return found;
}

std::string fileNameOf(const std::string &path)
{
    return path.substr(path.rfind('/') + 1);
}

} // namespace inchpeg
