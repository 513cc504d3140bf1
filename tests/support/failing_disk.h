// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <atomic>
#include <cstddef>

namespace inchpeg::test
{

/// Counts every call that a project's database and the program's other files make to the disk, and makes the
/// k-th of them fail as on a full disk, or all from the k-th on. The database's calls go through a file
/// system of SQLite's own (https://sqlite.org/vfs.html) that stands in front of the usual one; those of other
/// files through disk/disk.h.
class FailingDisk
{
public:
    enum class Manner { Once, FromThenOn };

    /// Stands in front of the disk until it is destroyed; one at a time, before any database is opened.
    FailingDisk();
    ~FailingDisk();
    FailingDisk(const FailingDisk &) = delete;
    FailingDisk &operator=(const FailingDisk &) = delete;

    /// Counts from 1 again. 0: nothing fails.
    void failAt(std::size_t k, Manner manner);
    [[nodiscard]] std::size_t calls() const;
    [[nodiscard]] bool hasFailed() const;
};

} // namespace inchpeg::test
