// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/raw_files.h"

#include <memory>
#include <string>
#include <string_view>

namespace inchpeg
{

/// A second, writing connection to a project that is open already, for keeping raw files in another thread.
class RawFileWriter
{
public:
    /// Errors: Storage where there is no project at that path.
    static Result<RawFileWriter> open(const std::string &projectPath);
    RawFileWriter(RawFileWriter &&) noexcept;
    RawFileWriter &operator=(RawFileWriter &&) noexcept;
    ~RawFileWriter();

    /// Keeps the bytes, in one transaction, under an id that the project has taken; yields the file that
    /// holds the same bytes already where there is one. Errors: Storage.
    Result<AddedRawFile> add(RawFileId id, const std::string &name, std::string_view bytes);

private:
    explicit RawFileWriter(std::unique_ptr<Database> database);
    std::unique_ptr<Database> m_database;
};

} // namespace inchpeg
