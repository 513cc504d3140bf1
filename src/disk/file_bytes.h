// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/base/task_runner.h"

#include <memory>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// The bytes of a file.
class FileContent
{
public:
    FileContent(std::unique_ptr<char[]> bytes, std::size_t size) : m_bytes(std::move(bytes)), m_size(size) {}
    [[nodiscard]] std::string_view view() const { return {m_bytes.get(), m_size}; }

private:
    std::unique_ptr<char[]> m_bytes;
    std::size_t m_size;
};

/// The most that is read of one file, or of standard input; what a database may keep as one value.
inline constexpr std::size_t kMostFileBytes = 1'000'000'000;

/// All bytes of a regular file, a long one read in parts that run may hand to several cores; "-" reads
/// standard input.
/// Errors: NotFound; BadInput for a folder, a device, and more than kMostFileBytes; Storage where reading
/// fails; the message names the path.
Result<FileContent> readFile(const std::string &path, const TaskRunner &run = inOrder);

/// The same as a text of its own.
Result<std::string> readFileBytes(const std::string &path);

/// Writes a file as a whole: either all of it is there afterwards, or what was there before.
/// Errors: Storage, with the path and why.
Status writeFileBytes(const std::string &path, std::string_view bytes);

/// The regular files of a folder in order of name, hidden ones left out; a path to a file yields itself.
/// Errors: NotFound, Storage.
Result<std::vector<std::string>> filesAt(const std::string &path);

/// The part of a path after the last slash.
std::string fileNameOf(const std::string &path);

} // namespace inchpeg
