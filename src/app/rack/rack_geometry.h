// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/rack/rack_model.h"
#include "core/text/axis_scale.h"

#include <QPointF>
#include <QRectF>

#include <vector>

namespace inchpeg::app
{

/// Where the rack's parts lie, in the widget's coordinates. Recomputed when the model or the size changes.
struct RackGeometry {
    struct Rail {
        QRectF row;      ///< the whole width
        QRectF label;    ///< title and subtitle
        QRectF track;    ///< where holes and pegs are
        QRectF sentence; ///< right of the track; only while comparing
        double grooveY = 0.0;
        std::vector<QPointF> holes;  ///< of each peg, in the rack
        std::vector<QPointF> places; ///< of each peg on the scale; its hole where it has no value
    };
    std::vector<Rail> rails;
    QRectF scaleBar; ///< above the rails, while comparing
    AxisScale scale;
    double pegRadius = 9.0;
    double contentHeight = 0.0;

    [[nodiscard]] double xOf(double value) const;
};

struct RackSpace {
    double width = 400.0;
    double height = 600.0;
    double scrollY = 0.0;
    bool comparing = false;
    double lineHeight = 18.0; ///< of the font
};

RackGeometry rackGeometry(const RackModel &model, const RackSpace &space);

/// The peg under a point, given where the pegs are drawn now.
struct PegHit {
    std::size_t rail = 0;
    std::size_t peg = 0;
};
std::optional<PegHit> pegAt(const RackGeometry &geometry, QPointF point, bool onScale);

} // namespace inchpeg::app
