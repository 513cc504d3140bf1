// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/prompts.h"
#include "app/session/preferences.h"
#include "app/session/project_session.h"

#include <QFutureWatcher>
#include <QObject>

#include <memory>
#include <optional>
#include <stop_token>

namespace inchpeg::app
{

/// What is done to a project as a whole: made, opened, taken out and in, compacted.
class ProjectCommands : public QObject
{
    Q_OBJECT
public:
    ProjectCommands(ProjectSession &session, Preferences &preferences, Prompts &prompts, QWidget &window);
    ~ProjectCommands() override;

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
    void cancelExport() { m_stop.request_stop(); }

signals:
    /// A sentence, and what can be done about it.
    void offered(const QString &sentence, const QString &doIt, const std::function<void()> &action);
    void told(const QString &sentence);
    void exportProgress(int done, int all);

private:
    void finishExport(const QString &folder);

    ProjectSession &m_session;
    Preferences &m_preferences;
    Prompts &m_prompts;
    QWidget &m_window;
    std::stop_source m_stop;
    std::unique_ptr<QFutureWatcher<std::shared_ptr<const Status>>> m_export;
};

} // namespace inchpeg::app
