// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/workshop_setting.h"

#include "core/planning/lab_code.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

constexpr const char *kSetting = "workshop";
constexpr const char *kDamaged = "workshop (damaged)";

/// FNV-1a, 64 bits: the same on every machine, unlike std::hash.
std::uint64_t seedOf(std::string_view text)
{
    std::uint64_t hash = 0xcbf29ce484222325ULL;
    for (const char c : text)
        hash = (hash ^ static_cast<unsigned char>(c)) * 0x100000001b3ULL;
    return hash;
}

/// Where a workshop has no prefix for labels yet, the one that follows from the day the project was made.
Status giveLabPrefix(ProjectFile &project, Workshop &workshop)
{
    if (!workshop.labPrefix.empty())
        return ok();
    const Result<ProjectInfo> info = project.info();
    if (!info)
        return info.error();
    workshop.labPrefix = labPrefix(seedOf(info->createdAt));
    return ok();
}

} // namespace

Workshop standInWorkshop(ProjectFile &project)
{
    Workshop workshop = usualWorkshop();
    if (!giveLabPrefix(project, workshop))
        workshop.labPrefix = labPrefix(0);
    return workshop;
}

Result<Workshop> workshopOf(ProjectFile &project)
{
    const Result<std::optional<std::string>> kept = project.setting(kSetting);
    if (!kept)
        return kept.error();
    Workshop workshop = usualWorkshop();
    if (kept->has_value()) {
        Result<Workshop> read = workshopFromText(**kept);
        if (!read)
            return badInput(
                fmt::format("the project's workshop (rigs, gauges, printers, spools, hours) is damaged: it "
                            "{}. The usual one is shown; what is kept stays in the project until you "
                            "change a card, and is set aside then",
                            read.error().message));
        workshop = std::move(*read);
    }
    if (const Status given = giveLabPrefix(project, workshop); !given)
        return given.error();
    return workshop;
}

Status keepWorkshop(ProjectFile &project, const Workshop &workshop)
{
    if (const Status status = checkWorkshop(workshop); !status)
        return status;
    // What could not be understood is not overwritten: it is set aside.
    const Result<std::optional<std::string>> kept = project.setting(kSetting);
    if (kept && kept->has_value() && !workshopFromText(**kept)) {
        if (const Status aside = project.setSetting(kDamaged, **kept); !aside)
            return aside;
    }
    return project.setSetting(kSetting, workshopText(workshop));
}

Workshop workshopOrStandIn(ProjectFile &project)
{
    Result<Workshop> kept = workshopOf(project);
    return kept ? std::move(*kept) : standInWorkshop(project);
}

} // namespace inchpeg
