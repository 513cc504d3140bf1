// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/parts/prompts.h"

#include "app/export/picture.h"
#include "app/session/preferences.h"

#include <QCoreApplication>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>

namespace inchpeg::app
{

namespace
{

QString promptText(const char *text)
{
    return QCoreApplication::translate("Prompts", text);
}

} // namespace

QString FilePrompts::newProjectPath(QWidget *parent)
{
    const QString path = QFileDialog::getSaveFileName(
        parent, promptText("New project"), m_preferences.folder() + QStringLiteral("/study.inchpeg"),
        promptText("Inch Peg projects (*.inchpeg)"), nullptr, QFileDialog::DontConfirmOverwrite);
    return path.isEmpty() || path.endsWith(QStringLiteral(".inchpeg")) ? path
                                                                       : path + QStringLiteral(".inchpeg");
}

QString FilePrompts::openProjectPath(QWidget *parent)
{
    return QFileDialog::getOpenFileName(parent, promptText("Open a project"), m_preferences.folder(),
                                        promptText("Inch Peg projects (*.inchpeg);;All files (*)"));
}

QString FilePrompts::picturePath(QWidget *parent)
{
    QString filter;
    const QString path = QFileDialog::getSaveFileName(
        parent, promptText("Save the picture"), m_preferences.folder() + QStringLiteral("/comparison.svg"),
        pictureFilter(), &filter);
    if (path.isEmpty() || !QFileInfo(path).suffix().isEmpty())
        return path;
    return path + filter.mid(filter.indexOf(QLatin1Char('.')), 4);
}

QString FilePrompts::savePath(QWidget *parent, const QString &title, const QString &name,
                              const QString &filter)
{
    const QString path =
        QFileDialog::getSaveFileName(parent, title, m_preferences.folder() + QLatin1Char('/') + name, filter);
    const QString suffix = QLatin1Char('.') + QFileInfo(name).suffix();
    return path.isEmpty() || path.endsWith(suffix) ? path : path + suffix;
}

QString FilePrompts::filePath(QWidget *parent, const QString &title, const QString &filter)
{
    return QFileDialog::getOpenFileName(parent, title, m_preferences.folder(), filter);
}

QStringList FilePrompts::filePaths(QWidget *parent, const QString &title, const QString &filter)
{
    return QFileDialog::getOpenFileNames(parent, title, m_preferences.folder(), filter);
}

QString FilePrompts::folderPath(QWidget *parent, const QString &title, const QString &start)
{
    return QFileDialog::getExistingDirectory(parent, title, start);
}

QString FilePrompts::newFolderPath(QWidget *parent, const QString &name)
{
    return QFileDialog::getSaveFileName(parent, promptText("Name of the new folder"),
                                        m_preferences.folder() + QLatin1Char('/') + name, {}, nullptr,
                                        QFileDialog::DontConfirmOverwrite);
}

bool FilePrompts::confirm(QWidget *parent, const QString &question, const QString &doIt)
{
    QMessageBox box(QMessageBox::Question, promptText("Inch Peg"), question, QMessageBox::Cancel, parent);
    box.setTextFormat(Qt::PlainText);
    const QPushButton *yes = box.addButton(doIt, QMessageBox::AcceptRole);
    box.setDefaultButton(QMessageBox::Cancel);
    box.exec();
    return box.clickedButton() == yes;
}

} // namespace inchpeg::app
