// SPDX-License-Identifier: GPL-3.0-or-later
#include "disk/folder_to_be.h"

#include "disk/disk.h"

#include <fmt/format.h>

#include <filesystem>
#include <system_error>
#include <unistd.h>
#include <utility>

namespace inchpeg
{

namespace fs = std::filesystem;

Result<FolderToBe> FolderToBe::begin(const std::string &place)
{
    std::error_code failure;
    fs::path target = fs::path(place).lexically_normal();
    if (!target.has_filename())
        target = target.parent_path();
    if (fs::exists(target, failure) && (!fs::is_directory(target, failure) || !fs::is_empty(target, failure)))
        return Error{ErrorCode::Storage,
                     fmt::format("{}: exists already and is not an empty folder; choose another name", place),
                     {}};
    std::string partial;
    for (int attempt = 0; partial.empty() || fs::exists(partial, failure); ++attempt)
        partial = fmt::format("{}.part-{}-{}", target.string(), ::getpid(), attempt);
    if (const Status made = makeFolders(partial); !made)
        return made.error();
    return FolderToBe(target.string(), partial);
}

FolderToBe::FolderToBe(FolderToBe &&other) noexcept
    : m_place(std::move(other.m_place)), m_partial(std::exchange(other.m_partial, {})),
      m_made(std::move(other.m_made))
{
}

FolderToBe &FolderToBe::operator=(FolderToBe &&other) noexcept
{
    std::swap(m_place, other.m_place);
    std::swap(m_partial, other.m_partial);
    std::swap(m_made, other.m_made);
    return *this;
}

FolderToBe::~FolderToBe()
{
    if (!m_partial.empty()) [[maybe_unused]]
        const Status removed = removeFolder(m_partial);
}

Status FolderToBe::write(const std::string &within, std::string_view bytes)
{
    const fs::path path = fs::path(m_partial) / within;
    if (const Status made = makeFolder(fs::path(within).parent_path().string()); !made)
        return made;
    Result<WrittenFile> file = WrittenFile::open(path.string(), WrittenFile::Begin::New);
    if (!file)
        return file.error();
    if (const Status written = file->write(bytes); !written)
        return written;
    return file->close();
}

Status FolderToBe::makeFolder(const std::string &within)
{
    if (within.empty() || m_made.contains(within))
        return ok();
    const Status made = makeFolders((fs::path(m_partial) / within).string());
    if (made)
        m_made.insert(within);
    return made;
}

Status FolderToBe::finish()
{
    removeEmptyFolder(m_place);
    const Status moved = renameFile(m_partial, m_place);
    if (moved)
        m_partial.clear();
    return moved;
}

} // namespace inchpeg
