// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/theme/theme.h"
#include "core/compare/responses.h"
#include "core/text/axis_scale.h"

#include <QFont>
#include <QRectF>
#include <QString>

class QPainter;

namespace inchpeg::app
{

/// A rail as it is named at the left.
struct ResponseRail {
    QString title;
    bool isReference = false;
};

/// What is drawn beside the responses themselves.
struct ResponseLook {
    const Notation &notation;
    const Theme &theme;
    QFont font;
    PieceId selectedPiece;
    QString confidence;    ///< of the sentences: "95 %"
    bool isChosen = false; ///< the cell that is drawn is the one that the keyboard is on
};

inline constexpr double kResponseMargin = 12.0;
inline constexpr double kResponseTitleScale = 1.08; ///< of a rail's title over the font

/// The test, the property, and the ends of the column's scale.
void paintResponseHead(QPainter &painter, QRectF place, const QString &test, const ResponseColumn &column,
                       const AxisScale &scale, const ResponseLook &look);
void paintResponseLabel(QPainter &painter, QRectF place, const ResponseRail &rail, const ResponseLook &look);
/// A rail's pegs on the column's scale, the mean, and the difference from the reference.
void paintResponseCell(QPainter &painter, QRectF place, const ResponseColumn &column, std::size_t rail,
                       const AxisScale &scale, const ResponseLook &look);
/// What the signs mean, at the foot of an area.
void paintResponseKey(QPainter &painter, QRectF area, const ResponseLook &look);

} // namespace inchpeg::app
