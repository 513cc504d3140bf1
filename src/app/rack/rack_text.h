// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QCoreApplication>

namespace inchpeg::app
{

/// A text of the rack in the person's language.
inline QString rackText(const char *text)
{
    return QCoreApplication::translate("Rack", text);
}

} // namespace inchpeg::app
