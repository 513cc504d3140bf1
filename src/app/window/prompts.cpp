// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/window/prompts.h"

#include "app/export/picture.h"

#include <QCoreApplication>
#include <QFileDialog>
#include <QFileInfo>

namespace inchpeg::app
{

namespace
{

QString tr(const char *text)
{
    return QCoreApplication::translate("Prompts", text);
}

} // namespace

QString FilePrompts::newProjectPath(QWidget *parent)
{
    const QString path = QFileDialog::getSaveFileName(
        parent, tr("New project"), QDir::homePath() + QStringLiteral("/study.inchpeg"),
        tr("Inch Peg projects (*.inchpeg)"), nullptr, QFileDialog::DontConfirmOverwrite);
    return path.isEmpty() || path.endsWith(QStringLiteral(".inchpeg")) ? path
                                                                       : path + QStringLiteral(".inchpeg");
}

QString FilePrompts::openProjectPath(QWidget *parent)
{
    return QFileDialog::getOpenFileName(parent, tr("Open a project"), QDir::homePath(),
                                        tr("Inch Peg projects (*.inchpeg);;All files (*)"));
}

QString FilePrompts::picturePath(QWidget *parent)
{
    QString filter;
    const QString path = QFileDialog::getSaveFileName(parent, tr("Save the picture"),
                                                      QDir::homePath() + QStringLiteral("/comparison.svg"),
                                                      pictureFilter(), &filter);
    if (path.isEmpty() || !QFileInfo(path).suffix().isEmpty())
        return path;
    return path + filter.mid(filter.indexOf(QLatin1Char('.')), 4);
}

} // namespace inchpeg::app
