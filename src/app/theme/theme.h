// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QColor>
#include <QString>
#include <QVector>

class QApplication;

namespace inchpeg::app
{

enum class ThemeKind { Paper, Workshop };

/// Colours of a theme: ink on paper, or a dim workshop. One accent; states are told by shape as well.
struct Theme {
    ThemeKind kind = ThemeKind::Paper;
    QColor ground;            ///< of the window
    QColor sheet;             ///< of what is read: the rack, plots, tables
    QColor ink;               ///< text and lines
    QColor softInk;           ///< secondary text
    QColor line;              ///< hairlines and grid
    QColor rail;              ///< the wood of a rail
    QColor hole;              ///< an empty hole in it
    QColor accent;            ///< selection, the next action, the reference
    QColor onAccent;          ///< text on the accent
    QColor warning;           ///< ink for what needs attention
    QVector<QColor> railInks; ///< for the curves of rails over each other, told apart by dash as well
};

Theme paperTheme();
Theme workshopTheme();

/// The theme that the application wears; changes by wearTheme() and a palette-change event.
const Theme &currentTheme();
/// fontSize: of ordinary text, in points.
void wearTheme(QApplication &application, const Theme &theme, double fontSize = 10.0);

/// The dash pattern of a rail's curves, in pen widths; empty for a solid line.
QVector<qreal> railDashes(int railIndex);
QColor railInk(const Theme &theme, int railIndex);

} // namespace inchpeg::app
