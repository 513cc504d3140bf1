// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/intake/files_below.h"

#include "core/logbook/file_matching.h"
#include "disk/file_bytes.h"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;

Status addFolder(const fs::path &folder, std::vector<FileBelow> &files)
{
    std::error_code failure;
    fs::recursive_directory_iterator at(folder, fs::directory_options::skip_permission_denied, failure);
    for (; !failure && at != fs::recursive_directory_iterator(); at.increment(failure)) {
        std::error_code unknown; // of a file that went meanwhile
        if (at->path().filename().string().starts_with('.')) {
            if (at->is_directory(unknown))
                at.disable_recursion_pending();
            continue;
        }
        if (at->is_regular_file(unknown))
            files.push_back({at->path().string(), at->path().lexically_relative(folder).generic_string()});
    }
    if (failure)
        return Error{ErrorCode::Storage, fmt::format("{}: {}", folder.string(), failure.message()), {}};
    return ok();
}

} // namespace

Result<std::vector<FileBelow>> filesBelow(const std::vector<std::string> &paths)
{
    std::vector<FileBelow> files;
    for (const std::string &path : paths) {
        std::error_code failure;
        if (path == "-") {
            files.push_back({path, "standard input"});
        } else if (fs::is_directory(path, failure)) {
            if (const Status added = addFolder(path, files); !added)
                return added.error();
        } else if (fs::exists(path, failure)) {
            files.push_back({path, fileNameOf(path)});
        } else {
            return Error{ErrorCode::NotFound, fmt::format("{}: there is no such file or folder", path), {}};
        }
    }
    std::stable_sort(files.begin(), files.end(),
                     [](const FileBelow &a, const FileBelow &b) { return naturallyBefore(a.name, b.name); });
    if (files.empty())
        return invalidArgument(fmt::format("{}: the folder holds no file", paths.front()));
    return files;
}

} // namespace inchpeg
