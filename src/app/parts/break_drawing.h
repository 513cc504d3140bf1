// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/theme/theme.h"
#include "core/method/break_look.h"

#include <QRectF>

class QPainter;

namespace inchpeg::app
{

/// The small drawing of a look: a piece with its layers, seen from the side.
void paintBreak(QPainter &painter, QRectF place, const BreakLook &look, const Theme &theme);

} // namespace inchpeg::app
