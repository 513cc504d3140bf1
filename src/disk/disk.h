// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <cstddef>
#include <functional>
#include <optional>
#include <string>
#include <string_view>

namespace inchpeg
{

/// What the program asks of the disk. All files but the project's own, which its database writes, go through
/// this one place, so that a test can make each call of it fail.
enum class DiskCall { Open, Read, Write, Sync, Rename, Remove, MakeFolder };

/// How a call fails: half of a write may be done before.
struct DiskFault {
    int reason = 0; ///< an errno
    bool isHalfDone = false;
};
/// Asked before each call, from whatever thread; nothing lets it through.
using DiskFaults = std::function<std::optional<DiskFault>(DiskCall call, const std::string &path)>;
/// For tests: the faults from now on; an empty function ends them.
void setDiskFaults(DiskFaults faults);
/// Asks the faults that are set; for what calls the system itself.
std::optional<DiskFault> diskFault(DiskCall call, const std::string &path);

/// "the disk is full; free some space and do it again", "you may not write there" …, for an errno.
std::string diskTrouble(int reason);

/// A file that is written, by its descriptor. It closes at the end of its life.
class WrittenFile
{
public:
    /// New: it must not be there. Empty: what was there goes. AtItsEnd: what is there stays.
    enum class Begin { New, Empty, AtItsEnd };
    /// Errors: Storage, with the path and why.
    static Result<WrittenFile> open(const std::string &path, Begin begin);

    WrittenFile(WrittenFile &&other) noexcept;
    WrittenFile &operator=(WrittenFile &&other) noexcept;
    ~WrittenFile();

    /// Errors: Storage; written() tells how much of it there is.
    Status write(std::string_view bytes);
    [[nodiscard]] std::size_t written() const { return m_written; } ///< bytes, since it was opened
    /// Until what was written is on the disk. Errors: Storage.
    Status sync();
    /// Errors: Storage, where what was written cannot be kept after all.
    Status close();
    [[nodiscard]] const std::string &path() const { return m_path; }

private:
    WrittenFile(int descriptor, std::string path) : m_descriptor(descriptor), m_path(std::move(path)) {}
    int m_descriptor = -1;
    std::string m_path;
    std::size_t m_written = 0;
};

/// Errors: Storage. What stood at `to` is replaced.
Status renameFile(const std::string &from, const std::string &to);
/// A file that is not there is removed already. Errors: Storage.
Status removeFile(const std::string &path);
/// A folder and all that is in it. Errors: Storage.
Status removeFolder(const std::string &path);
/// An empty one; nothing happens to one that holds something or is not there.
void removeEmptyFolder(const std::string &path);
/// With those above it. Errors: Storage.
Status makeFolders(const std::string &path);

} // namespace inchpeg
