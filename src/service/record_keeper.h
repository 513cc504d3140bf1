// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// Where the text of a record is once it has ended.
struct KeptRecord {
    std::vector<std::string> files; ///< that hold it one after the other; more than one where a disk refused
    std::string unsaved;            ///< what no disk took, the end of the text
    std::optional<std::string> trouble; ///< what the disk said, and where the rest is
};

/// The ending of the file in the spare folder that holds the rest of a record.
inline constexpr const char *kRestEnding = ".rest";

/// Keeps the text of a record while it comes: in its file, with the system at once and on the disk a fifth of
/// a second later. Where that disk refuses, the rest goes to another folder, and where that refuses too it
/// stays in memory: a test that is under way cannot be made again.
class RecordKeeper
{
public:
    /// file: must not exist, or be empty. spareFolder: is made when it is wanted; empty: there is none.
    /// Errors: InvalidArgument where the file holds something; Storage where it cannot be made.
    static Result<RecordKeeper> begin(const std::string &file, const std::string &spareFolder);
    /// Whether a record could begin in this file; it is made, and empty. Errors: as begin().
    static Status mayBegin(const std::string &file);

    RecordKeeper(RecordKeeper &&) noexcept;
    RecordKeeper &operator=(RecordKeeper &&) noexcept;
    ~RecordKeeper();

    /// True where this time a disk refused that had not before; trouble() tells.
    bool append(std::string_view text);
    [[nodiscard]] const std::optional<std::string> &trouble() const { return m_trouble; }
    /// No disk takes what comes now.
    [[nodiscard]] bool isInMemory() const { return m_isInMemory; }
    /// Nothing may be appended after it.
    KeptRecord finish();

private:
    class GrowingFile;
    explicit RecordKeeper(std::string spareFolder);
    bool goElsewhere(std::string why);

    std::string m_spareFolder;
    std::vector<std::unique_ptr<GrowingFile>> m_files; ///< the last takes what comes
    bool m_isInMemory = false;
    std::string m_unsaved;
    std::optional<std::string> m_trouble;
};

} // namespace inchpeg
