// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>
#include <QStringList>

class QWidget;

namespace inchpeg::app
{

class Preferences;

/// Questions to the person that need a window of their own; tests answer them without one. Every path is
/// empty where the person thinks better of it.
class Prompts
{
public:
    virtual ~Prompts() = default;
    virtual QString newProjectPath(QWidget *parent) = 0;
    virtual QString openProjectPath(QWidget *parent) = 0;
    /// Where a picture goes.
    virtual QString picturePath(QWidget *parent) = 0;
    /// Where a file of the wanted kind goes; name is offered.
    virtual QString savePath(QWidget *parent, const QString &title, const QString &name,
                             const QString &filter) = 0;
    /// A file that exists.
    virtual QString filePath(QWidget *parent, const QString &title, const QString &filter) = 0;
    /// Files that exist.
    virtual QStringList filePaths(QWidget *parent, const QString &title, const QString &filter) = 0;
    /// A folder that exists.
    virtual QString folderPath(QWidget *parent, const QString &title, const QString &start) = 0;
    /// A folder to be made; name is offered.
    virtual QString newFolderPath(QWidget *parent, const QString &name) = 0;
    /// A question before something that cannot be undone.
    virtual bool confirm(QWidget *parent, const QString &question, const QString &doIt) = 0;
};

/// The usual file windows.
class FilePrompts : public Prompts
{
public:
    explicit FilePrompts(const Preferences &preferences) : m_preferences(preferences) {}
    QString newProjectPath(QWidget *parent) override;
    QString openProjectPath(QWidget *parent) override;
    QString picturePath(QWidget *parent) override;
    QString savePath(QWidget *parent, const QString &title, const QString &name,
                     const QString &filter) override;
    QString filePath(QWidget *parent, const QString &title, const QString &filter) override;
    QStringList filePaths(QWidget *parent, const QString &title, const QString &filter) override;
    QString folderPath(QWidget *parent, const QString &title, const QString &start) override;
    QString newFolderPath(QWidget *parent, const QString &name) override;
    bool confirm(QWidget *parent, const QString &question, const QString &doIt) override;

private:
    const Preferences &m_preferences;
};

} // namespace inchpeg::app
