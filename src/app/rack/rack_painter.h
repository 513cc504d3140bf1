// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/rack/rack_geometry.h"
#include "app/rack/rack_model.h"
#include "app/theme/theme.h"

#include <set>

class QPainter;

namespace inchpeg::app
{

/// What is drawn beside model and geometry.
struct RackLook {
    bool comparing = false;
    double slid = 1.0;             ///< 0: pegs in their holes, 1: on the scale
    bool showCurveSamples = false; ///< a piece of each rail's curve beside its title
    bool dimOtherTests = false;    ///< while results of one of several tests are looked at
    PieceId selectedPiece;
    std::set<ConditionId> hiddenRails;
    std::optional<PieceId> dropTarget;
};

void paintRack(QPainter &painter, const RackModel &model, const RackGeometry &geometry, const RackLook &look,
               const Theme &theme, QRectF viewport);

/// One peg by itself, also for the key list.
void paintPeg(QPainter &painter, QPointF centre, double radius, PegState state, bool atLeast, bool selected,
              const Theme &theme);

} // namespace inchpeg::app
