// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>

namespace inchpeg::app
{

/// A label to be read from across the room: so many times the ordinary size.
inline QLabel *largeLabel(const char *name, double times)
{
    auto *label = new QLabel;
    label->setObjectName(QLatin1String(name));
    QFont font = label->font();
    font.setPointSizeF(font.pointSizeF() * times);
    font.setWeight(QFont::DemiBold);
    label->setFont(font);
    return label;
}

} // namespace inchpeg::app
