// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/preferences.h"

#include <QDialog>

class QFormLayout;
class QLabel;

namespace inchpeg::app
{

class Prompts;

/// What a person may set, in a window that does not block the program; everything is in force at once.
class SettingsWindow : public QDialog
{
    Q_OBJECT
public:
    SettingsWindow(Preferences &preferences, Prompts &prompts, QWidget *parent = nullptr);

private:
    void addUnits(QFormLayout *form);
    void addLooks(QFormLayout *form);
    void addFiles(QFormLayout *form);
    void refreshExample();

    Preferences &m_preferences;
    Prompts &m_prompts;
    QLabel *m_example = nullptr;
};

} // namespace inchpeg::app
