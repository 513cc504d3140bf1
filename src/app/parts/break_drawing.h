// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/theme/theme.h"

#include <QRectF>

#include <string_view>

class QPainter;

namespace inchpeg::app
{

/// A small drawing of what a break looks like, by the name of a BreakLook: a piece with its layers, seen from
/// the side.
void paintBreak(QPainter &painter, QRectF place, std::string_view look, const Theme &theme);

} // namespace inchpeg::app
