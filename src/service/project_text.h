// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/project_file.h"

#include <string>
#include <string_view>

namespace inchpeg
{

/// The version of the format that this program writes.
inline constexpr int kExportVersion = 5;

/// A project as JSON, docs/export_format.md; every number comes back bit for bit. rawPath yields where the
/// bytes of a raw file are, relative to the folder that the JSON is in.
std::string projectText(const ProjectContents &contents,
                        const std::function<std::string(const RawFileInfo &)> &rawPath);

/// What projectText() wrote.
struct ParsedProject {
    ProjectContents contents;
    std::map<RawFileId, std::string> rawPaths;
    std::vector<std::string> mended{}; ///< what had to be put right, a sentence each
};

/// Errors: BadInput, with what is missing or wrong, for anything but the text of a project of this or an
/// earlier version of the format.
Result<ParsedProject> projectFromText(std::string_view text);

/// One study as it stands in the project's text, and back. New things may come without an id or with one that
/// is not taken: takeId gives them theirs, and what refers to them follows.
/// Errors: BadInput for anything else, and for a study that does not fit together.
std::string studyText(const Study &study);
Result<Study> studyFromText(std::string_view text, const Study &before,
                            const std::function<std::int64_t()> &takeId);

} // namespace inchpeg
