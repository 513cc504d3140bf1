// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

namespace inchpeg::app
{

/// What is shown while no project is open: the ways to begin.
class WelcomePage : public QWidget
{
    Q_OBJECT
public:
    explicit WelcomePage(QWidget *parent = nullptr);

signals:
    void newRequested();
    void openRequested();
    void demoRequested();
};

} // namespace inchpeg::app
