// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <sys/types.h>

namespace inchpeg
{

/// Which file a path leads to, by whatever name: links of both kinds lead to the same.
struct FileIdentity {
    dev_t device = 0;
    ino_t number = 0;
    nlink_t names = 1; ///< how many the file has in all folders
    bool operator==(const FileIdentity &other) const
    {
        return device == other.device && number == other.number;
    }
};

/// Nothing where the path leads nowhere.
std::optional<FileIdentity> identityOf(const std::string &path);

/// The one path by which a project is opened, locked and read, so that all of the program sees the same log
/// beside it: symbolic links are followed; of a file that has other names in its folder, the name whose log
/// waits to be read. A path that leads nowhere has its folder's links followed.
std::string truePath(const std::string &path);

} // namespace inchpeg
