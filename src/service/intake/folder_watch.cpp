// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/intake/folder_watch.h"

#include <algorithm>
#include <array>
#include <filesystem>
#include <poll.h>
#include <set>
#include <sys/inotify.h>
#include <thread>
#include <unistd.h>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;
using Clock = std::chrono::steady_clock;

constexpr std::chrono::seconds kQuiet{2};
constexpr std::chrono::milliseconds kLookEach{200};

} // namespace

FolderWatch::FolderWatch(std::string folder)
    : m_folder(std::move(folder)), m_notifier(inotify_init1(IN_NONBLOCK | IN_CLOEXEC))
{
}

FolderWatch::~FolderWatch()
{
    if (m_notifier >= 0)
        ::close(m_notifier);
}

/// Where the system tells of closed files; elsewhere (a folder of another machine) two quiet seconds decide.
void FolderWatch::listen()
{
    if (m_notifier >= 0 && m_listening < 0)
        m_listening = inotify_add_watch(m_notifier, m_folder.c_str(), IN_CLOSE_WRITE | IN_MOVED_TO);
}

void FolderWatch::hearOfClosing()
{
    alignas(inotify_event) std::array<char, 16384> buffer{};
    for (;;) {
        const ssize_t length = m_notifier >= 0 ? ::read(m_notifier, buffer.data(), buffer.size()) : -1;
        if (length <= 0)
            return;
        for (ssize_t at = 0; at < length;) {
            const auto *event = reinterpret_cast<const inotify_event *>(buffer.data() + at);
            if ((event->mask & IN_IGNORED) != 0U)
                m_listening = -1; // the folder went
            else if (event->len > 0)
                m_files[event->name].isClosed = true;
            at += static_cast<ssize_t>(sizeof(inotify_event)) + event->len;
        }
    }
}

void FolderWatch::look()
{
    hearOfClosing();
    std::error_code failure;
    if (!fs::is_directory(m_folder, failure)) {
        m_listening = -1;
        return; // what was told stays told, should the folder come back
    }
    listen();
    std::set<std::string> there;
    for (fs::directory_iterator at(m_folder, failure); !failure && at != fs::directory_iterator();
         at.increment(failure)) {
        const std::string name = at->path().filename().string();
        if (name.starts_with('.') || !at->is_regular_file(failure))
            continue;
        there.insert(name);
        const std::uintmax_t size = at->file_size(failure);
        const auto changed = at->last_write_time(failure).time_since_epoch().count();
        Seen &seen = m_files[name];
        if (seen.size == size && seen.changed == changed && seen.since != Clock::time_point())
            continue;
        const bool wasClosed = seen.isClosed && seen.since == Clock::time_point();
        seen = {size, changed, Clock::now(), wasClosed, false};
    }
    std::erase_if(m_files, [&](const auto &file) { return !there.contains(file.first); });
}

bool FolderWatch::isAnyGrowing() const
{
    return std::any_of(m_files.begin(), m_files.end(), [](const auto &file) { return !file.second.isTold; });
}

std::vector<std::string> FolderWatch::finished(std::chrono::milliseconds patience)
{
    const Clock::time_point until = Clock::now() + patience;
    std::vector<std::string> files;
    for (;;) {
        look();
        for (auto &[name, seen] : m_files) {
            const bool isQuiet = Clock::now() - seen.since >= kQuiet;
            if (seen.isTold || seen.size == 0 || (!seen.isClosed && !isQuiet))
                continue;
            seen.isTold = true;
            files.push_back((fs::path(m_folder) / name).string());
        }
        if (!files.empty() || Clock::now() >= until)
            return files;
        pollfd waiting{m_notifier, POLLIN, 0};
        if (m_notifier >= 0 && ::poll(&waiting, 1, static_cast<int>(kLookEach.count())) < 0)
            return files; // a signal: the caller knows what it means
        if (m_notifier < 0)
            std::this_thread::sleep_for(kLookEach);
    }
}

} // namespace inchpeg
