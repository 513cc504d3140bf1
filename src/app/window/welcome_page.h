// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStringList>
#include <QWidget>

class QVBoxLayout;

namespace inchpeg::app
{

/// What is shown while no project is open: the ways to begin.
class WelcomePage : public QWidget
{
    Q_OBJECT
public:
    explicit WelcomePage(QWidget *parent = nullptr);
    /// Paths, newest first.
    void setRecent(const QStringList &paths);

signals:
    void recentRequested(const QString &path);
    void newRequested();
    void beginRequested();
    void openRequested();
    void demoRequested();

private:
    QVBoxLayout *m_recent = nullptr;
};

} // namespace inchpeg::app
