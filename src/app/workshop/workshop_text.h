// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QCoreApplication>

namespace inchpeg::app
{

/// A text of the workshop in the person's language.
inline QString workshopText(const char *text)
{
    return QCoreApplication::translate("Workshop", text);
}

} // namespace inchpeg::app
