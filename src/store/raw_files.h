// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"
#include "store/database.h"

#include <string>
#include <vector>

namespace inchpeg
{

struct RawFileInfo {
    RawFileId id;
    std::string name; ///< as it was called when it was brought in
    std::string sha256;
    std::int64_t sizeBytes = 0;
    std::string addedAt; ///< ISO 8601, UTC
    bool operator==(const RawFileInfo &) const = default;
};

struct AddedRawFile {
    RawFileId id;
    bool wasThere = false; ///< the same bytes were brought in before
};

enum class RawFileState { Whole, Changed, OtherSize };

std::string sha256Of(std::string_view bytes);

/// What is known of a file that comes in now.
RawFileInfo newRawFile(RawFileId id, const std::string &name, std::string_view bytes);

/// The raw files of a project: written once, never changed, and removed only when a person compacts the
/// project. All members throw StorageFailure.
class RawFiles
{
public:
    explicit RawFiles(Database &database) : m_database(database) {}

    void add(const RawFileInfo &info, std::string_view bytes);
    [[nodiscard]] std::optional<RawFileInfo> findBySha256(const std::string &sha256);
    [[nodiscard]] std::optional<RawFileInfo> find(RawFileId id);
    /// Checked against their SHA-256: bytes that are not those that came in are a failure.
    [[nodiscard]] std::string bytes(RawFileId id);
    /// Whether the bytes are still those that came in.
    [[nodiscard]] RawFileState stateOf(const RawFileInfo &file);
    [[nodiscard]] std::vector<RawFileInfo> list();
    /// Those that no piece refers to.
    [[nodiscard]] std::vector<RawFileInfo> unused();
    void removeUnused();

private:
    std::vector<RawFileInfo> listed(const char *sql);
    Database &m_database;
};

} // namespace inchpeg
