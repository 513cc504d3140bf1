// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "service/project/study_editor.h"
#include "store/project_lock.h"

#include <memory>
#include <optional>
#include <string>

namespace inchpeg
{

/// A project that a program has open, for writing under its lock or for reading alone: what the window, the
/// command line and whatever comes later speak to. Use it from the thread that opened it.
class OpenProject
{
public:
    /// Errors: those of ProjectLock::take() and ProjectFile::create().
    static Result<std::unique_ptr<OpenProject>> create(const std::string &path, Person person);
    /// Errors: those of ProjectLock::take() and ProjectFile::open().
    static Result<std::unique_ptr<OpenProject>> open(const std::string &path, Person person);
    /// Lock or no lock; edits are refused. Errors: those of ProjectFile::openForReading().
    static Result<std::unique_ptr<OpenProject>> openForReading(const std::string &path, Person person);

    OpenProject(const OpenProject &) = delete;
    OpenProject &operator=(const OpenProject &) = delete;
    ~OpenProject() = default;

    [[nodiscard]] const std::string &path() const { return m_file.path(); }
    /// Whether a path leads to this project, by whatever name.
    [[nodiscard]] bool isAt(const std::string &path) const;
    [[nodiscard]] bool isForReading() const { return m_file.isForReading(); }
    [[nodiscard]] ProjectFile &file() { return m_file; }
    [[nodiscard]] StudyEditor &editor() { return *m_editor; }
    /// What could not be read as it was kept, and has a stand-in; nothing where all is well.
    [[nodiscard]] const std::optional<Error> &trouble() const { return m_trouble; }

private:
    OpenProject(std::optional<ProjectLock> lock, ProjectFile file, Person person);
    static Result<std::unique_ptr<OpenProject>> locked(const std::string &path, Person person,
                                                       Result<ProjectFile> (*make)(const std::string &path));

    std::optional<ProjectLock> m_lock; ///< let go of last
    ProjectFile m_file;
    std::optional<Error> m_trouble;
    std::optional<StudyEditor> m_editor;
};

} // namespace inchpeg
