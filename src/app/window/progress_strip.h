// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>
#include <QTimer>

class QLabel;
class QProgressBar;

namespace inchpeg::app
{

/// How far a long work has come, with a button to stop it. It shows itself only where the work lasts.
class ProgressStrip : public QFrame
{
    Q_OBJECT
public:
    explicit ProgressStrip(QWidget *parent = nullptr);
    void tell(const QString &what, int done, int all);
    void finish();

signals:
    void cancelled();

private:
    QLabel *m_what = nullptr;
    QProgressBar *m_bar = nullptr;
    QTimer m_patience;
};

} // namespace inchpeg::app
