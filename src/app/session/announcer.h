// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>

namespace inchpeg::app
{

enum class Tone {
    Soon,    ///< a reading is due in a few seconds
    Now,     ///< it is due
    Warning, ///< the gauge comes near its end, the rig reports a fault
    End,     ///< a record has ended
};

/// Tells a person who looks elsewhere: by a tone, and by a notification of the desktop. Silent by itself.
class Announcer
{
public:
    Announcer() = default;
    virtual ~Announcer() = default;
    Announcer(const Announcer &) = delete;
    Announcer &operator=(const Announcer &) = delete;

    virtual void sound(Tone) {}
    virtual void notify(const QString & /*title*/, const QString & /*text*/) {}
};

} // namespace inchpeg::app
