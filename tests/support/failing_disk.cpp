// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/failing_disk.h"

#include "disk/disk.h"

#include <cerrno>
#include <cstring>
#include <memory>
#include <mutex>
#include <sqlite3.h>
#include <stdexcept>
#include <string>

namespace inchpeg::test
{

namespace
{

struct Count {
    std::mutex mutex;
    std::size_t calls = 0;
    std::size_t failAt = 0;
    FailingDisk::Manner manner = FailingDisk::Manner::Once;
    bool hasFailed = false;

    bool fails()
    {
        const std::lock_guard lock(mutex);
        ++calls;
        const bool now =
            failAt != 0 && (manner == FailingDisk::Manner::Once ? calls == failAt : calls >= failAt);
        hasFailed = hasFailed || now;
        return now;
    }
};

Count &count()
{
    static Count all;
    return all;
}

/// A file of the usual system behind one of ours.
struct File {
    sqlite3_file base;
    sqlite3_file *real;
};

sqlite3_file *realOf(sqlite3_file *file)
{
    return reinterpret_cast<File *>(file)->real;
}

int closeFile(sqlite3_file *file)
{
    sqlite3_file *real = realOf(file);
    const int result = real->pMethods != nullptr ? real->pMethods->xClose(real) : SQLITE_OK;
    sqlite3_free(real);
    return result;
}
int readPart(sqlite3_file *file, void *into, int size, sqlite3_int64 at)
{
    if (count().fails())
        return SQLITE_IOERR_READ;
    return realOf(file)->pMethods->xRead(realOf(file), into, size, at);
}
int writePart(sqlite3_file *file, const void *from, int size, sqlite3_int64 at)
{
    if (count().fails()) {
        realOf(file)->pMethods->xWrite(realOf(file), from, size / 2, at); // as a full disk does
        return SQLITE_FULL;
    }
    return realOf(file)->pMethods->xWrite(realOf(file), from, size, at);
}
int truncateFile(sqlite3_file *file, sqlite3_int64 size)
{
    return count().fails() ? SQLITE_IOERR_TRUNCATE : realOf(file)->pMethods->xTruncate(realOf(file), size);
}
int syncFile(sqlite3_file *file, int flags)
{
    return count().fails() ? SQLITE_IOERR_FSYNC : realOf(file)->pMethods->xSync(realOf(file), flags);
}
int sizeOf(sqlite3_file *file, sqlite3_int64 *size)
{
    return realOf(file)->pMethods->xFileSize(realOf(file), size);
}
int lockFile(sqlite3_file *file, int lock)
{
    return realOf(file)->pMethods->xLock(realOf(file), lock);
}
int unlockFile(sqlite3_file *file, int lock)
{
    return realOf(file)->pMethods->xUnlock(realOf(file), lock);
}
int isReserved(sqlite3_file *file, int *result)
{
    return realOf(file)->pMethods->xCheckReservedLock(realOf(file), result);
}
int control(sqlite3_file *file, int what, void *argument)
{
    return realOf(file)->pMethods->xFileControl(realOf(file), what, argument);
}
int sectorSize(sqlite3_file *file)
{
    return realOf(file)->pMethods->xSectorSize(realOf(file));
}
int characteristics(sqlite3_file *file)
{
    return realOf(file)->pMethods->xDeviceCharacteristics(realOf(file));
}
int mapShared(sqlite3_file *file, int page, int size, int extend, void volatile **into)
{
    return realOf(file)->pMethods->xShmMap(realOf(file), page, size, extend, into);
}
int lockShared(sqlite3_file *file, int offset, int n, int flags)
{
    return realOf(file)->pMethods->xShmLock(realOf(file), offset, n, flags);
}
void barrier(sqlite3_file *file)
{
    realOf(file)->pMethods->xShmBarrier(realOf(file));
}
int unmapShared(sqlite3_file *file, int deleteIt)
{
    return realOf(file)->pMethods->xShmUnmap(realOf(file), deleteIt);
}

constexpr sqlite3_io_methods kMethods = {2,        closeFile,   readPart,        writePart,  truncateFile,
                                         syncFile, sizeOf,      lockFile,        unlockFile, isReserved,
                                         control,  sectorSize,  characteristics, mapShared,  lockShared,
                                         barrier,  unmapShared, nullptr,         nullptr};

sqlite3_vfs *usual = nullptr;
sqlite3_vfs ours;

int openFile(sqlite3_vfs *, const char *name, sqlite3_file *file, int flags, int *outFlags)
{
    auto *own = reinterpret_cast<File *>(file);
    own->base.pMethods = nullptr;
    if (count().fails())
        return SQLITE_CANTOPEN;
    own->real = static_cast<sqlite3_file *>(sqlite3_malloc(usual->szOsFile));
    std::memset(own->real, 0, static_cast<std::size_t>(usual->szOsFile));
    const int result = usual->xOpen(usual, name, own->real, flags, outFlags);
    if (result == SQLITE_OK)
        own->base.pMethods = &kMethods;
    else
        sqlite3_free(own->real);
    return result;
}

int removeOne(sqlite3_vfs *, const char *name, int syncFolder)
{
    return count().fails() ? SQLITE_IOERR_DELETE : usual->xDelete(usual, name, syncFolder);
}

} // namespace

FailingDisk::FailingDisk()
{
    if (usual != nullptr)
        throw std::logic_error("one failing disk at a time");
    usual = sqlite3_vfs_find(nullptr);
    ours = *usual;
    ours.zName = "failing";
    ours.szOsFile = sizeof(File);
    ours.xOpen = openFile;
    ours.xDelete = removeOne;
    ours.pNext = nullptr;
    sqlite3_vfs_register(&ours, 1);
    failAt(0, Manner::Once);
    setDiskFaults([](DiskCall, const std::string &) {
        return count().fails() ? std::optional(DiskFault{ENOSPC, true}) : std::nullopt;
    });
}

FailingDisk::~FailingDisk()
{
    setDiskFaults({});
    sqlite3_vfs_unregister(&ours);
    sqlite3_vfs_register(usual, 1);
    usual = nullptr;
}

void FailingDisk::failAt(std::size_t k, Manner manner)
{
    const std::lock_guard lock(count().mutex);
    count().calls = 0;
    count().failAt = k;
    count().manner = manner;
    count().hasFailed = false;
}

std::size_t FailingDisk::calls() const
{
    const std::lock_guard lock(count().mutex);
    return count().calls;
}

bool FailingDisk::hasFailed() const
{
    const std::lock_guard lock(count().mutex);
    return count().hasFailed;
}

} // namespace inchpeg::test
