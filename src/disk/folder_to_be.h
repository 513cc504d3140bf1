// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <set>
#include <string>
#include <string_view>

namespace inchpeg
{

/// A folder that is filled beside its place, under a name that nothing else has, and moved there when it is
/// whole. What is not finished is gone at the end of its life.
class FolderToBe
{
public:
    /// Errors: Storage where something other than an empty folder stands in its place, or none can be made.
    static Result<FolderToBe> begin(const std::string &place);

    FolderToBe(FolderToBe &&other) noexcept;
    FolderToBe &operator=(FolderToBe &&other) noexcept;
    ~FolderToBe();

    /// A file at a path within the folder, with the folders above it. Errors: Storage.
    Status write(const std::string &within, std::string_view bytes);
    /// A folder within it, also an empty one. Errors: Storage.
    Status makeFolder(const std::string &within);
    /// Errors: Storage where it cannot be moved to its place.
    Status finish();

private:
    FolderToBe(std::string place, std::string partial)
        : m_place(std::move(place)), m_partial(std::move(partial))
    {
    }
    std::string m_place;
    std::string m_partial; ///< empty: finished
    std::set<std::string> m_made;
};

} // namespace inchpeg
