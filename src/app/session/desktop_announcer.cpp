// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/desktop_announcer.h"

#include <QCoreApplication>
#include <QDBusConnection>
#include <QDBusMessage>
#include <QFileInfo>
#include <QVariantMap>

#include <array>

namespace inchpeg::app
{

namespace
{

constexpr std::array<const char *, 4> kTones = {"soon\n", "now\n", "warning\n", "end\n"};
constexpr int kShown_ms = 15000;

QString toneProgram()
{
    const QString here = QCoreApplication::applicationDirPath();
    const QString installed = here + QStringLiteral("/../libexec/inchpeg/inchpeg-tone");
    const QString built = here + QStringLiteral("/../tone/inchpeg-tone");
    for (const QString &path : {installed, built}) {
        if (QFileInfo(path).isExecutable())
            return path;
    }
    return {};
}

} // namespace

DesktopAnnouncer::DesktopAnnouncer(std::function<bool()> isOn) : m_isOn(std::move(isOn)) {}

DesktopAnnouncer::~DesktopAnnouncer()
{
    if (m_tones.state() == QProcess::NotRunning)
        return;
    m_tones.closeWriteChannel();
    if (!m_tones.waitForFinished(500))
        m_tones.kill();
    m_tones.waitForFinished(500);
}

void DesktopAnnouncer::sound(Tone tone)
{
    if (!m_isOn())
        return;
    if (m_tones.state() == QProcess::NotRunning) {
        const QString program = m_isTried ? QString() : toneProgram();
        m_isTried = true;
        if (program.isEmpty())
            return;
        m_tones.setStandardOutputFile(QProcess::nullDevice());
        m_tones.setStandardErrorFile(QProcess::nullDevice());
        m_tones.start(program, QStringList());
    }
    m_tones.write(kTones.at(static_cast<std::size_t>(tone)));
}

void DesktopAnnouncer::notify(const QString &title, const QString &text)
{
    const QDBusConnection bus = QDBusConnection::sessionBus();
    if (!bus.isConnected())
        return;
    // Desktop Notifications Specification 1.2, "Notify".
    QDBusMessage message = QDBusMessage::createMethodCall(
        QStringLiteral("org.freedesktop.Notifications"), QStringLiteral("/org/freedesktop/Notifications"),
        QStringLiteral("org.freedesktop.Notifications"), QStringLiteral("Notify"));
    message << QCoreApplication::applicationName() << 0U << QStringLiteral("inchpeg") << title << text
            << QStringList() << QVariantMap() << kShown_ms;
    bus.send(message); // nobody waits for an answer
}

} // namespace inchpeg::app
