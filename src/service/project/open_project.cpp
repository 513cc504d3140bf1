// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project/open_project.h"

#include "service/workshop_setting.h"
#include "store/file_identity.h"

namespace inchpeg
{

OpenProject::OpenProject(std::optional<ProjectLock> lock, ProjectFile file, Person person)
    : m_lock(std::move(lock)), m_file(std::move(file))
{
    Result<Workshop> workshop = workshopOf(m_file);
    if (!workshop)
        m_trouble = workshop.error();
    m_editor.emplace(m_file, std::move(person), workshop ? std::move(*workshop) : standInWorkshop(m_file));
}

Result<std::unique_ptr<OpenProject>> OpenProject::locked(const std::string &path, Person person,
                                                         Result<ProjectFile> (*make)(const std::string &path))
{
    Result<ProjectLock> lock = ProjectLock::take(path);
    if (!lock)
        return lock.error();
    Result<ProjectFile> file = make(path);
    if (!file)
        return file.error();
    lock->holdFile(path); // it is there by now
    return std::unique_ptr<OpenProject>(
        new OpenProject(std::move(*lock), std::move(*file), std::move(person)));
}

Result<std::unique_ptr<OpenProject>> OpenProject::create(const std::string &path, Person person)
{
    return locked(path, std::move(person), &ProjectFile::create);
}

Result<std::unique_ptr<OpenProject>> OpenProject::open(const std::string &path, Person person)
{
    return locked(path, std::move(person), &ProjectFile::open);
}

Result<std::unique_ptr<OpenProject>> OpenProject::openForReading(const std::string &path, Person person)
{
    Result<ProjectFile> file = ProjectFile::openForReading(path);
    if (!file)
        return file.error();
    return std::unique_ptr<OpenProject>(new OpenProject(std::nullopt, std::move(*file), std::move(person)));
}

bool OpenProject::isAt(const std::string &path) const
{
    const std::optional<FileIdentity> wanted = identityOf(path);
    return wanted && wanted == identityOf(m_file.path());
}

} // namespace inchpeg
