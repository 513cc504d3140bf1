// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>
#include <QStringList>

class QWidget;

namespace inchpeg::app
{

/// Questions to the person that need a window of their own; tests answer them without one.
class Prompts
{
public:
    virtual ~Prompts() = default;
    /// The path of the project to make or to open; empty where the person thinks better of it.
    virtual QString newProjectPath(QWidget *parent) = 0;
    virtual QString openProjectPath(QWidget *parent) = 0;
    /// Where a picture goes; empty where the person thinks better of it.
    virtual QString picturePath(QWidget *parent) = 0;
};

/// The usual file windows.
class FilePrompts : public Prompts
{
public:
    QString newProjectPath(QWidget *parent) override;
    QString openProjectPath(QWidget *parent) override;
    QString picturePath(QWidget *parent) override;
};

} // namespace inchpeg::app
