// SPDX-License-Identifier: GPL-3.0-or-later
#include "disk/file_bytes.h"

#include "core/base/blocks.h"
#include "disk/disk.h"

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

/// Handed to one core at a time; fewer bytes are not worth it.
constexpr std::size_t kPartBytes = std::size_t{4} << 20U;

/// Reads up to size bytes from an offset, fewer where the file ends before. Errors: errno, negated.
ssize_t readPart(int file, char *into, std::size_t size, std::size_t offset)
{
    std::size_t done = 0;
    while (done < size) {
        const ssize_t got = ::pread(file, into + done, size - done, static_cast<off_t>(offset + done));
        if (got == 0)
            break;
        if (got < 0 && errno != EINTR)
            return -errno;
        done += got > 0 ? static_cast<std::size_t>(got) : 0;
    }
    return static_cast<ssize_t>(done);
}

Error cannotRead(const std::string &path, int reason)
{
    const ErrorCode code = reason == ENOENT ? ErrorCode::NotFound : ErrorCode::Storage;
    const std::string why = reason == ENOENT   ? "there is no such file"
                            : reason == EACCES ? "you may not read it"
                                               : diskTrouble(reason);
    return Error{code, fmt::format("{}: cannot be read: {}", path, why), {}};
}

Error isTooLarge(const std::string &path)
{
    return badInput(fmt::format("{}: holds more than {} MB, the most that is read; a record has some "
                                "megabytes. Cut it into parts",
                                path, kMostFileBytes / 1'000'000));
}

/// A file that another program cuts short meanwhile gives what is left of it; what it grows is not read.
Result<FileContent> regularFile(int file, std::size_t size, const std::string &path, const TaskRunner &run)
{
    auto bytes = std::make_unique_for_overwrite<char[]>(size);
    adviseLargePages(bytes.get(), size);
    std::vector<ssize_t> got((size + kPartBytes - 1) / kPartBytes);
    run(got.size(), [&](std::size_t p) {
        const std::size_t offset = p * kPartBytes;
        got[p] = readPart(file, bytes.get() + offset, std::min(kPartBytes, size - offset), offset);
    });
    std::size_t whole = 0;
    for (std::size_t p = 0; p < got.size() && whole == p * kPartBytes; ++p) {
        if (got[p] < 0)
            return cannotRead(path, static_cast<int>(-got[p]));
        whole += static_cast<std::size_t>(got[p]);
    }
    return FileContent(std::move(bytes), whole);
}

/// Of a pipe nobody knows how much will come; no more is taken than of a file.
Result<FileContent> stream(int file, const std::string &path)
{
    std::string bytes;
    std::array<char, 1 << 17> block; // NOLINT(cppcoreguidelines-pro-type-member-init): filled by read()
    while (true) {
        const ssize_t got = ::read(file, block.data(), block.size());
        if (got < 0 && errno != EINTR)
            return cannotRead(path, errno);
        if (got > 0)
            bytes.append(block.data(), static_cast<std::size_t>(got));
        if (bytes.size() > kMostFileBytes)
            return isTooLarge(path);
        if (got == 0)
            break;
    }
    auto copy = std::make_unique_for_overwrite<char[]>(bytes.size());
    std::copy(bytes.begin(), bytes.end(), copy.get());
    return FileContent(std::move(copy), bytes.size());
}

/// Written and on the disk.
Status writeInPlace(const std::string &path, std::string_view bytes)
{
    Result<WrittenFile> file = WrittenFile::open(path, WrittenFile::Begin::Empty);
    if (!file)
        return file.error();
    if (const Status written = file->write(bytes); !written)
        return written;
    if (const Status synced = file->sync(); !synced)
        return synced;
    return file->close();
}

/// A sentence about the part is one about the file that was wanted.
std::string named(std::string sentence, const std::string &partial, const std::string &path)
{
    if (sentence.starts_with(partial))
        sentence.replace(0, partial.size(), path);
    return sentence;
}

} // namespace

// Read, not mapped: a mapped file that another program cuts short, or whose network folder goes away, kills
// the process that looks into it, and the bytes are wanted whole for their SHA-256 anyway.
Result<FileContent> readFile(const std::string &path, const TaskRunner &run)
{
    std::error_code ignored;
    if (path != "-" && fs::is_directory(path, ignored))
        return badInput(fmt::format("{}: is a folder; a file is wanted", path));
    for (const DiskCall call : {DiskCall::Open, DiskCall::Read}) {
        if (const auto fault = diskFault(call, path))
            return cannotRead(path, fault->reason);
    }
    const Descriptor file(path == "-" ? STDIN_FILENO : ::open(path.c_str(), O_RDONLY | O_CLOEXEC),
                          path != "-");
    if (file.get() < 0)
        return cannotRead(path, errno);
    struct stat about = {};
    const bool isKnown = ::fstat(file.get(), &about) == 0;
    if (isKnown && S_ISREG(about.st_mode)) {
        const auto size = static_cast<std::size_t>(about.st_size);
        return size > kMostFileBytes ? Result<FileContent>(isTooLarge(path))
                                     : regularFile(file.get(), size, path, run);
    }
    if (isKnown && (S_ISCHR(about.st_mode) || S_ISBLK(about.st_mode)) && ::isatty(file.get()) == 0)
        return badInput(fmt::format("{}: is a device, which may have no end; a file is wanted", path));
    return stream(file.get(), path);
}

Result<std::string> readFileBytes(const std::string &path)
{
    const Result<FileContent> content = readFile(path);
    return content ? Result<std::string>(std::string(content->view())) : content.error();
}

Status writeFileBytes(const std::string &path, std::string_view bytes)
{
    std::error_code ignored;
    const fs::file_status there = fs::status(path, ignored);
    if (fs::exists(there) &&
        !fs::is_regular_file(there)) // a pipe, /dev/stdout: nothing stands there to be kept
        return writeInPlace(path, bytes);
    // Where a link stands, what it leads to is replaced.
    const fs::path real = fs::exists(there) ? fs::canonical(path, ignored) : fs::path(path);
    const std::string target = real.empty() ? path : real.string();
    const std::string partial = fmt::format("{}.{}.part", target, ::getpid());
    Status status = writeInPlace(partial, bytes);
    if (status && fs::exists(there))
        fs::permissions(partial, there.permissions(), ignored);
    if (status)
        status = renameFile(partial, target);
    if (!status) {
        [[maybe_unused]] const Status removed = removeFile(partial);
        return Error{ErrorCode::Storage, named(status.error().message, partial, path), {}};
    }
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
