// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/window/project_commands.h"

#include "service/demo_project.h"
#include "service/project_export.h"
#include "service/safe_name.h"

#include <QDir>
#include <QFileInfo>
#include <QLocale>
#include <QStandardPaths>

namespace inchpeg::app
{

ProjectCommands::ProjectCommands(ProjectSession &session, Preferences &preferences, Prompts &prompts,
                                 QWidget &window)
    : m_session(session), m_preferences(preferences), m_prompts(prompts), m_window(window)
{
    connect(&session, &ProjectSession::projectChanged, this, [this] {
        if (m_session.hasProject())
            m_preferences.addRecentProject(m_session.projectPath());
    });
    m_export.onProgress([this](int done, int all) { emit exportProgress(done, all); });
}

bool ProjectCommands::makeNew()
{
    const QString path = m_prompts.newProjectPath(&m_window);
    return !path.isEmpty() && m_session.tell(m_session.createProject(path));
}

void ProjectCommands::open()
{
    const QString path = m_prompts.openProjectPath(&m_window);
    if (!path.isEmpty())
        openPath(path);
}

void ProjectCommands::openPath(const QString &path)
{
    const Status opened = m_session.openProject(path);
    if (opened)
        return;
    const QString sentence = QString::fromStdString(errorSentence(opened.error()));
    // Held by another, or in a folder that may not be written: it can still be looked at.
    if (ProjectFile::openForReading(path.toStdString()))
        emit offered(sentence, tr("Open for reading"),
                     [this, path] { m_session.tell(m_session.openForReading(path)); });
    else
        emit told(sentence);
}

void ProjectCommands::openDemo()
{
    const QString folder =
        QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + QStringLiteral("/inchpeg");
    const QString path = folder + QStringLiteral("/demo.inchpeg");
    QDir().mkpath(folder);
    const std::string today = m_session.today(); // the planned study of the demo starts today
    if (!QFileInfo::exists(path) && !m_session.tell(writeDemoProject(path.toStdString(), today)))
        return;
    openPath(path);
}

void ProjectCommands::exportTo(std::optional<StudyId> only)
{
    if (m_export.isRunning()) {
        emit told(tr("An export is under way; it must finish or be stopped first."));
        return;
    }
    const std::string name = only && m_session.study() != nullptr
                                 ? m_session.study()->question
                                 : QFileInfo(m_session.projectPath()).completeBaseName().toStdString();
    const QString folder =
        m_prompts.newFolderPath(&m_window, QString::fromStdString(safeFileName(name)) + tr(" export"));
    if (folder.isEmpty())
        return;
    m_export.begin(
        "export",
        [path = m_session.project().path(), target = folder.toStdString(),
         only](const TaskControl &control) -> Status {
            Result<ProjectFile> project = ProjectFile::openForReading(path);
            if (!project)
                return project.error();
            return exportProject(*project, target, only, control.stop,
                                 [&](std::size_t done, std::size_t all) {
                                     control.progress(static_cast<int>(done), static_cast<int>(all));
                                 });
        },
        [this, folder](const Status &status) { finishExport(folder, status); });
}

void ProjectCommands::finishExport(const QString &folder, const Status &status)
{
    emit exportProgress(1, 1);
    emit told(status ? tr("Everything is in %1: project.json, the raw files as they came, tables and curves.")
                           .arg(folder)
                     : QString::fromStdString(errorSentence(status.error())));
}

void ProjectCommands::importFrom()
{
    const QString folder =
        m_prompts.folderPath(&m_window, tr("The folder of an export"), m_preferences.folder());
    if (folder.isEmpty())
        return;
    const QString path = m_prompts.newProjectPath(&m_window);
    if (path.isEmpty())
        return;
    const Result<std::vector<std::string>> mended = importProject(folder.toStdString(), path.toStdString());
    if (!m_session.tell(mended ? ok() : Status(mended.error())))
        return;
    openPath(path);
    for (const std::string &sentence : *mended)
        emit told(QString::fromStdString(sentence));
}

void ProjectCommands::compact()
{
    const Result<UnusedRawFiles> unused = m_session.project().unusedRawFiles();
    if (!m_session.tell(unused ? ok() : Status(unused.error())))
        return;
    if (unused->files == 0) {
        emit told(tr("There is nothing to remove: every raw file belongs to a piece."));
        return;
    }
    const QString files = unused->files == 1 ? tr("1 raw file") : tr("%1 raw files").arg(unused->files);
    const QString question =
        tr("Belonging to no piece any more: %1 (%2). Remove for good? What was done before "
           "can then no longer be undone.")
            .arg(files, QLocale().formattedDataSize(unused->bytes));
    if (!m_prompts.confirm(&m_window, question, tr("Remove them")))
        return;
    const auto done = [this, files](const Status &status) {
        if (m_session.tell(status))
            emit told(tr("Removed: %1.").arg(files));
    };
    if (m_session.tell(m_session.compact(done)))
        emit told(tr("The project is being compacted; what is typed meanwhile is refused."));
}

} // namespace inchpeg::app
