// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/window/prompts.h"

#include <QCoreApplication>
#include <QFileDialog>

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

} // namespace inchpeg::app
