// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <memory>
#include <optional>
#include <string>
#include <string_view>

struct zip;

namespace inchpeg
{

/// The parts of a ZIP archive in memory, by name. The bytes must outlive it.
class Archive
{
public:
    /// Errors: BadInput where the bytes are no whole archive, or would unpack to more than half a gigabyte.
    static Result<Archive> open(std::string_view bytes);

    /// Whether there is a part of that name; case does not count.
    [[nodiscard]] bool has(const std::string &name) const;
    /// Errors: BadInput where there is no such part, or it does not unpack to the bytes of its checksum.
    [[nodiscard]] Result<std::string> read(const std::string &name) const;

private:
    struct Discard {
        void operator()(zip *archive) const;
    };
    explicit Archive(zip *archive) : m_archive(archive) {}
    std::unique_ptr<zip, Discard> m_archive;
};

} // namespace inchpeg
