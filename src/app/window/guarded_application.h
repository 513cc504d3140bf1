// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QApplication>

#include <functional>

namespace inchpeg::app
{

/// The application with a net under its event loop: a failure inside the program that reaches it does not end
/// the program. A report is kept in a file, and the handler tells the person; edits so far are on the disk
/// already.
class GuardedApplication : public QApplication
{
    Q_OBJECT
public:
    using Handler = std::function<void(const QString &what, const QString &reportPath)>;

    GuardedApplication(int &argc, char **argv) : QApplication(argc, argv) {}

    /// What becomes of a failure, called after the report was kept; not again while it runs.
    void setHandler(Handler handler) { m_handler = std::move(handler); }
    /// Where reports are kept; the person's data folder unless set.
    void setReportFolder(const QString &folder) { m_folder = folder; }
    [[nodiscard]] int failureCount() const { return m_failures; }

    bool notify(QObject *receiver, QEvent *event) override;

private:
    void take(const QString &what, const QString &receiver, int eventType);
    [[nodiscard]] QString keepReport(const QString &what, const QString &receiver, int eventType) const;

    Handler m_handler;
    QString m_folder;
    int m_failures = 0;
    bool m_isTelling = false;
};

/// Asks whether to go on or to close, and closes the windows where that is wanted.
void askWhetherToGoOn(const QString &what, const QString &reportPath);

} // namespace inchpeg::app
