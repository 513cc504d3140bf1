// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>
#include <QStringList>

class QWidget;

namespace inchpeg::app
{

/// What is wrong with how a window is laid out: labels, buttons and choices whose text is wider or higher
/// than they are, and neighbours that lie over each other. Each names the widget; the list is empty where all
/// is well.
QStringList layoutFindings(const QWidget &window);

} // namespace inchpeg::app
