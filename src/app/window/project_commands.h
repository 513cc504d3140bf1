// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/prompts.h"
#include "app/session/preferences.h"
#include "app/session/project_session.h"
#include "service/beside/task.h"

#include <QObject>

#include <optional>

namespace inchpeg::app
{

/// What is done to a project as a whole: made, opened, taken out and in, compacted.
class ProjectCommands : public QObject
{
    Q_OBJECT
public:
    ProjectCommands(ProjectSession &session, Preferences &preferences, Prompts &prompts, QWidget &window);

    /// Asks for a path; true where a project was made.
    bool makeNew();
    void open();
    void openPath(const QString &path);
    /// The demo that ./demo opens too; written where it is missing.
    void openDemo();
    /// Into a folder in open formats, in another thread; the whole project, or one study.
    void exportTo(std::optional<StudyId> only);
    void importFrom();
    void compact();
    void cancelExport() { m_export.stop(); }

signals:
    /// A sentence, and what can be done about it.
    void offered(const QString &sentence, const QString &doIt, const std::function<void()> &action);
    void told(const QString &sentence);
    void exportProgress(int done, int all);

private:
    void finishExport(const QString &folder, const Status &status);

    ProjectSession &m_session;
    Preferences &m_preferences;
    Prompts &m_prompts;
    QWidget &m_window;
    Task<Status> m_export;
};

} // namespace inchpeg::app
