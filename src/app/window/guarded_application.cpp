// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/window/guarded_application.h"

#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QMessageBox>
#include <QPushButton>
#include <QStandardPaths>
#include <QTextStream>

namespace inchpeg::app
{

namespace
{

constexpr int kMostReports = 50; ///< a window that fails at each painting would fill the disk

} // namespace

bool GuardedApplication::notify(QObject *receiver, QEvent *event)
{
    const int type = event->type();
    const QString name = receiver == nullptr ? QString()
                                             : QStringLiteral("%1 \"%2\"")
                                                   .arg(QLatin1String(receiver->metaObject()->className()),
                                                        receiver->objectName());
    try {
        return QApplication::notify(receiver, event);
    } catch (const std::exception &failure) {
        take(QString::fromUtf8(failure.what()), name, type);
    } catch (...) {
        take(tr("a failure without a description"), name, type);
    }
    return true;
}

void GuardedApplication::take(const QString &what, const QString &receiver, int eventType)
{
    ++m_failures;
    const QString path = m_failures <= kMostReports ? keepReport(what, receiver, eventType) : QString();
    if (m_isTelling || !m_handler)
        return;
    m_isTelling = true;
    m_handler(what, path);
    m_isTelling = false;
}

QString GuardedApplication::keepReport(const QString &what, const QString &receiver, int eventType) const
{
    const QString folder =
        m_folder.isEmpty()
            ? QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/reports")
            : m_folder;
    const QDateTime now = QDateTime::currentDateTimeUtc();
    const QString path = QStringLiteral("%1/failure-%2-%3.txt")
                             .arg(folder, now.toString(QStringLiteral("yyyyMMdd-hhmmss")))
                             .arg(m_failures);
    QFile file(path);
    if (!QDir().mkpath(folder) || !file.open(QIODevice::WriteOnly))
        return {};
    QTextStream text(&file);
    text << "Inch Peg " << applicationVersion() << ", Qt " << qVersion() << "\n"
         << now.toString(Qt::ISODate) << "\n"
         << "what: " << what << "\n"
         << "where: " << receiver << ", event " << eventType << "\n";
    return path;
}

void askWhetherToGoOn(const QString &what, const QString &reportPath)
{
    QMessageBox box(QMessageBox::Warning, GuardedApplication::tr("Something failed inside Inch Peg"),
                    GuardedApplication::tr(
                        "The last action was not finished. Every edit before it is saved, and raw data are "
                        "untouched."),
                    QMessageBox::NoButton, QApplication::activeWindow());
    box.setTextFormat(Qt::PlainText);
    box.setInformativeText(
        reportPath.isEmpty()
            ? GuardedApplication::tr("What happened: %1").arg(what)
            : GuardedApplication::tr("What happened: %1\n\nA report is kept in %2").arg(what, reportPath));
    box.addButton(GuardedApplication::tr("Go on"), QMessageBox::AcceptRole);
    const QPushButton *close =
        box.addButton(GuardedApplication::tr("Close Inch Peg"), QMessageBox::RejectRole);
    box.exec();
    if (box.clickedButton() == close)
        QApplication::closeAllWindows();
}

} // namespace inchpeg::app
