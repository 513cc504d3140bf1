// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/announcer.h"

#include <QProcess>

#include <functional>

namespace inchpeg::app
{

/// Tones through inchpeg-tone, a small program of its own, so that a sound system that hangs holds up no
/// record; notifications through the desktop's own service. Both are silent where there is none.
class DesktopAnnouncer : public Announcer
{
public:
    /// isOn: whether tones are wanted, asked at each.
    explicit DesktopAnnouncer(std::function<bool()> isOn);
    ~DesktopAnnouncer() override;

    void sound(Tone tone) override;
    void notify(const QString &title, const QString &text) override;

private:
    std::function<bool()> m_isOn;
    QProcess m_tones;
    bool m_isTried = false; ///< a program that is not there is not looked for at each tone
};

} // namespace inchpeg::app
