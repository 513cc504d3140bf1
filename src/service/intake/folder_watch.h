// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <chrono>
#include <cstdint>
#include <map>
#include <string>
#include <vector>

namespace inchpeg
{

/// A folder in which a rig leaves a file a test. A file is finished once its writer has closed it, or it has
/// not changed for two seconds; the folder may come and go, as one on another machine does.
class FolderWatch
{
public:
    explicit FolderWatch(std::string folder);
    FolderWatch(const FolderWatch &) = delete;
    FolderWatch &operator=(const FolderWatch &) = delete;
    ~FolderWatch();

    /// Files that are finished and were not told before, in order of name; waits for one until then. A file
    /// that is written anew is told again.
    std::vector<std::string> finished(std::chrono::milliseconds patience);
    /// Whether there is a file that is still being written.
    [[nodiscard]] bool isAnyGrowing() const;

private:
    struct Seen {
        std::uintmax_t size = 0;
        std::int64_t changed = 0; ///< its own time, as the file system counts
        std::chrono::steady_clock::time_point since;
        bool isClosed = false;
        bool isTold = false;
    };
    void look();
    void hearOfClosing();
    void listen();

    std::string m_folder;
    std::map<std::string, Seen> m_files; ///< by name
    int m_notifier = -1;
    int m_listening = -1;
};

} // namespace inchpeg
