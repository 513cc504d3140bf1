// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/file_identity.h"

#include <filesystem>
#include <sys/stat.h>
#include <system_error>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;

bool hasLog(const fs::path &path)
{
    std::error_code missing;
    return fs::file_size(path.string() + "-wal", missing) > 0 && !missing;
}

/// Another name of the same file in its folder, beside which a log waits.
std::optional<fs::path> nameWithLog(const fs::path &path, const FileIdentity &identity)
{
    std::error_code failure;
    for (const fs::directory_entry &entry : fs::directory_iterator(path.parent_path(), failure)) {
        if (!entry.is_symlink(failure) && hasLog(entry.path()) &&
            identityOf(entry.path().string()) == identity)
            return entry.path();
    }
    return std::nullopt;
}

} // namespace

std::optional<FileIdentity> identityOf(const std::string &path)
{
    struct stat about = {};
    if (::stat(path.c_str(), &about) != 0)
        return std::nullopt;
    return FileIdentity{about.st_dev, about.st_ino, about.st_nlink};
}

std::string truePath(const std::string &path)
{
    std::error_code failure;
    fs::path real = fs::canonical(path, failure);
    if (failure) {
        const fs::path folder = fs::canonical(fs::absolute(path).parent_path(), failure);
        return failure ? path : (folder / fs::path(path).filename()).string();
    }
    const std::optional<FileIdentity> identity = identityOf(real.string());
    if (identity && identity->names > 1 && !hasLog(real))
        real = nameWithLog(real, *identity).value_or(real);
    return real.string();
}

} // namespace inchpeg
