// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/record_keeper.h"

#include "disk/disk.h"
#include "disk/file_bytes.h"

#include <fmt/format.h>

#include <atomic>
#include <chrono>
#include <condition_variable>
#include <filesystem>
#include <mutex>
#include <thread>

namespace inchpeg
{

namespace
{

constexpr auto kSync = std::chrono::milliseconds(200);

} // namespace

/// A file that only grows. Its bytes are with the system at once, and on the disk a fifth of a second later.
class RecordKeeper::GrowingFile
{
public:
    explicit GrowingFile(WrittenFile file) : m_file(std::move(file))
    {
        // A slow disk must not keep the line waiting: its buffer holds a tenth of a second.
        m_synchroniser = std::thread([this] {
            std::unique_lock lock(m_mutex);
            while (!m_wake.wait_for(lock, kSync, [this] { return m_isClosed; })) {
                if (!m_isChanged.exchange(false))
                    continue;
                lock.unlock();
                // What the disk refuses now it refuses at the next write too, which is told.
                [[maybe_unused]] const Status synced = m_file.sync();
                lock.lock();
            }
        });
    }
    GrowingFile(const GrowingFile &) = delete;
    GrowingFile &operator=(const GrowingFile &) = delete;
    ~GrowingFile()
    {
        {
            const std::lock_guard lock(m_mutex);
            m_isClosed = true;
        }
        m_wake.notify_one();
        m_synchroniser.join();
        [[maybe_unused]] const Status synced = m_file.sync();
    }

    /// How much of the text is in the file, and why not all of it.
    std::pair<std::size_t, Status> append(std::string_view text)
    {
        const std::size_t before = m_file.written();
        const Status written = m_file.write(text);
        m_isChanged = true;
        return {m_file.written() - before, written};
    }
    [[nodiscard]] const std::string &path() const { return m_file.path(); }

private:
    WrittenFile m_file;
    std::mutex m_mutex;
    std::condition_variable m_wake;
    bool m_isClosed = false;
    std::atomic<bool> m_isChanged = false;
    std::thread m_synchroniser;
};

RecordKeeper::RecordKeeper(std::string spareFolder) : m_spareFolder(std::move(spareFolder)) {}
RecordKeeper::RecordKeeper(RecordKeeper &&) noexcept = default;
RecordKeeper &RecordKeeper::operator=(RecordKeeper &&) noexcept = default;
RecordKeeper::~RecordKeeper() = default;

Status RecordKeeper::mayBegin(const std::string &file)
{
    const Result<WrittenFile> made = WrittenFile::open(file, WrittenFile::Begin::AtItsEnd);
    if (!made)
        return made.error();
    std::error_code unknown;
    const bool isEmpty = std::filesystem::file_size(file, unknown) == 0;
    return isEmpty && !unknown ? ok()
                               : Status(invalidArgument(fmt::format(
                                     "{}: holds something already; a record wants a file of its own", file)));
}

Result<RecordKeeper> RecordKeeper::begin(const std::string &file, const std::string &spareFolder)
{
    if (const Status possible = mayBegin(file); !possible)
        return possible.error();
    Result<WrittenFile> made = WrittenFile::open(file, WrittenFile::Begin::AtItsEnd);
    if (!made)
        return made.error();
    RecordKeeper keeper(spareFolder);
    keeper.m_files.push_back(std::make_unique<GrowingFile>(std::move(*made)));
    return keeper;
}

bool RecordKeeper::append(std::string_view text)
{
    bool isRefusedNow = false;
    while (!text.empty() && !m_isInMemory) {
        const auto [taken, status] = m_files.back()->append(text);
        text.remove_prefix(taken);
        if (!status)
            isRefusedNow = goElsewhere(status.error().message);
    }
    m_unsaved += text;
    return isRefusedNow;
}

/// Always true: something is to be told.
bool RecordKeeper::goElsewhere(std::string why)
{
    const std::string name = fileNameOf(m_files.front()->path());
    if (m_files.size() == 1 && !m_spareFolder.empty() && makeFolders(m_spareFolder)) {
        Result<WrittenFile> rest =
            WrittenFile::open(m_spareFolder + "/" + name + kRestEnding, WrittenFile::Begin::New);
        if (rest) {
            m_trouble = fmt::format("{}. The record goes on in {}", why, rest->path());
            m_files.push_back(std::make_unique<GrowingFile>(std::move(*rest)));
            return true;
        }
    }
    m_isInMemory = true;
    m_trouble =
        fmt::format("{}. What comes from now on is in this program's memory alone: free some space on "
                    "that disk before the test ends",
                    why);
    return true;
}

KeptRecord RecordKeeper::finish()
{
    // The disk may have been freed meanwhile.
    if (!m_unsaved.empty()) {
        const auto [taken, status] = m_files.back()->append(m_unsaved);
        m_unsaved.erase(0, taken);
    }
    KeptRecord kept;
    for (const std::unique_ptr<GrowingFile> &file : m_files)
        kept.files.push_back(file->path());
    m_files.clear();
    kept.unsaved = std::move(m_unsaved);
    kept.trouble = m_trouble;
    return kept;
}

} // namespace inchpeg
