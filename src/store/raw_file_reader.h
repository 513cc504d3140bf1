// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"

#include <memory>
#include <string>

namespace inchpeg
{

class Database;

/// A second, reading connection to a project that is open already, for use in another thread.
class RawFileReader
{
public:
    static Result<RawFileReader> open(const std::string &projectPath);
    RawFileReader(RawFileReader &&) noexcept;
    RawFileReader &operator=(RawFileReader &&) noexcept;
    ~RawFileReader();

    Result<std::string> bytes(RawFileId id);

private:
    explicit RawFileReader(std::unique_ptr<Database> database);
    std::unique_ptr<Database> m_database;
};

} // namespace inchpeg
