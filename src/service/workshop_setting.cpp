// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/workshop_setting.h"

#include "core/planning/lab_code.h"

namespace inchpeg
{

namespace
{

constexpr const char *kSetting = "workshop";

/// FNV-1a, 64 bits: the same on every machine, unlike std::hash.
std::uint64_t seedOf(std::string_view text)
{
    std::uint64_t hash = 0xcbf29ce484222325ULL;
    for (const char c : text)
        hash = (hash ^ static_cast<unsigned char>(c)) * 0x100000001b3ULL;
    return hash;
}

} // namespace

Result<Workshop> workshopOf(ProjectFile &project)
{
    const Result<std::optional<std::string>> kept = project.setting(kSetting);
    if (!kept)
        return kept.error();
    Workshop workshop = usualWorkshop();
    if (kept->has_value()) {
        Result<Workshop> read = workshopFromText(**kept);
        if (!read)
            return read.error();
        workshop = std::move(*read);
    }
    if (workshop.labPrefix.empty()) {
        const Result<ProjectInfo> info = project.info();
        if (!info)
            return info.error();
        workshop.labPrefix = labPrefix(seedOf(info->createdAt));
    }
    return workshop;
}

Status keepWorkshop(ProjectFile &project, const Workshop &workshop)
{
    if (const Status status = checkWorkshop(workshop); !status)
        return status;
    return project.setSetting(kSetting, workshopText(workshop));
}

} // namespace inchpeg
