// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/project_file.h"

#include <functional>
#include <optional>
#include <stop_token>
#include <string>

namespace inchpeg
{

/// Called with how many of how many steps are done.
using ExportProgress = std::function<void(std::size_t done, std::size_t all)>;

/// Writes a project, or one study of it, into a new folder in open formats: project.json with everything that
/// was entered, raw/ with the bytes that were brought in, and for each study its table of pieces and its
/// curves as comma-separated text. docs/export_format.md tells the layout.
///
/// Errors: Storage where the folder exists and is not empty, or cannot be written; Cancelled.
Status exportProject(ProjectFile &project, const std::string &folder, std::optional<StudyId> only = {},
                     const std::stop_token &stop = {}, const ExportProgress &progress = {});

/// Makes a project of what exportProject() wrote. Yields what had to be put right, a sentence each.
/// Errors: NotFound, Storage; BadInput where project.json is not readable, it or a raw file is no plain file
/// within the folder, or the bytes of a raw file are not those that were exported.
Result<std::vector<std::string>> importProject(const std::string &folder, const std::string &path);

} // namespace inchpeg
