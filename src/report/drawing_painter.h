// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/report/drawing.h"

#include <QByteArray>
#include <QFont>

class QPainter;

namespace inchpeg
{

/// Paints a drawing with its corner at the painter's origin, one unit of it to one of the painter's.
void paintDrawing(QPainter &painter, const Drawing &drawing);

/// A font of reports. Without ligatures: in a PDF they are letters of their own that no search finds.
QFont reportFont(int pixels, bool isBold = false);

/// As a PNG, so many picture points to a unit.
QByteArray drawingPng(const Drawing &drawing, double scale);

} // namespace inchpeg
