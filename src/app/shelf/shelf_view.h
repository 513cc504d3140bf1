// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"

#include <QWidget>

class QLabel;
class QListWidget;

namespace inchpeg::app
{

/// The studies of the project, at the far left.
class ShelfView : public QWidget
{
    Q_OBJECT
public:
    explicit ShelfView(ProjectSession &session, QWidget *parent = nullptr);

signals:
    void newStudyRequested();

private:
    void refresh();

    ProjectSession &m_session;
    QLabel *m_project = nullptr;
    QListWidget *m_list = nullptr;
};

} // namespace inchpeg::app
