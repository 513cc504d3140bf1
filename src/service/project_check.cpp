// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project_check.h"

#include "core/decide/needs.h"
#include "service/project_results.h"
#include "service/workshop_setting.h"

#include <fmt/format.h>

namespace inchpeg
{

Result<ProjectCheck> verifyProject(ProjectFile &project)
{
    Result<ProjectCheck> check = project.verify();
    if (!check)
        return check;
    if (const Result<Workshop> workshop = workshopOf(project); !workshop)
        check->findings.push_back(workshop.error().message);
    const Result<std::optional<std::string>> needs = project.setting(kNeedsSetting);
    if (needs && needs->has_value() && !(*needs)->empty()) {
        if (const Result<Needs> read = needsFromText(**needs); !read)
            check->findings.push_back(
                fmt::format("what the part has to do cannot be read: {}", read.error().message));
    }
    return check;
}

} // namespace inchpeg
