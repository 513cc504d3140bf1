// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/rack/rack_geometry.h"

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

constexpr double kMargin = 12.0;
constexpr double kScaleBarHeight = 40.0;
constexpr double kPegPitch = 25.0;
constexpr double kLeastPitch = 12.0;
constexpr double kWidestLabel = 220.0;
constexpr double kLabelShare = 0.46;
constexpr double kSentenceShare = 0.36;
constexpr double kWidestSentence = 470.0;
constexpr double kLeastTrack = 100.0;
constexpr double kPegAboveGroove = 6.0;
/// While comparing, the rail lies low in its row: pegs are stacked on it.
constexpr double kGrooveWhileComparing = 0.74;
constexpr double kPegRadiusOnScale = 7.0;

std::vector<double> allValues(const RackModel &model)
{
    std::vector<double> values;
    for (const RailModel &rail : model.rails) {
        for (const PegModel &peg : rail.pegs) {
            if (peg.value)
                values.push_back(*peg.value);
        }
        if (rail.interval && rail.pegs.size() > 2) {
            values.push_back(rail.interval->low);
            values.push_back(rail.interval->high);
        }
        if (rail.average)
            values.push_back(*rail.average);
    }
    return values;
}

struct HoleGrid {
    double pitch = kPegPitch;
    std::size_t perLine = 1;
    std::size_t lines = 1;
};

HoleGrid holeGrid(std::size_t pegs, double trackWidth)
{
    HoleGrid grid;
    const double wanted = trackWidth / std::max<double>(1.0, static_cast<double>(pegs));
    grid.pitch = std::clamp(wanted, kLeastPitch, kPegPitch);
    grid.perLine = std::max<std::size_t>(1, static_cast<std::size_t>(trackWidth / grid.pitch));
    grid.lines = std::max<std::size_t>(1, (pegs + grid.perLine - 1) / grid.perLine);
    return grid;
}

/// Pegs sit on the rail; those that would cover each other are stacked upwards.
std::vector<QPointF> placesOnScale(const RailModel &rail, const RackGeometry &geometry,
                                   const RackGeometry::Rail &lines)
{
    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < rail.pegs.size(); ++i) {
        if (rail.pegs[i].value)
            order.push_back(i);
    }
    std::sort(order.begin(), order.end(),
              [&](std::size_t a, std::size_t b) { return *rail.pegs[a].value < *rail.pegs[b].value; });
    std::vector<QPointF> places = lines.holes;
    const double radius = geometry.pegRadius;
    const double level = 2.0 * radius + 1.0;
    const double base = lines.grooveY - radius - kPegAboveGroove;
    const int levels = std::max(1, static_cast<int>((base - radius - lines.row.top()) / level) + 1);
    std::vector<double> lastX(static_cast<std::size_t>(levels), -1e9);
    for (const std::size_t i : order) {
        const double x = geometry.xOf(*rail.pegs[i].value);
        std::size_t chosen = 0;
        for (std::size_t k = 0; k < lastX.size(); ++k) {
            if (x - lastX[k] >= level) {
                chosen = k;
                break;
            }
            if (lastX[k] < lastX[chosen])
                chosen = k;
        }
        lastX[chosen] = x;
        places[i] = QPointF(x, base - static_cast<double>(chosen) * level);
    }
    return places;
}

} // namespace

double RackGeometry::xOf(double value) const
{
    return scaleBar.left() + scale.share(value) * scaleBar.width();
}

RackGeometry rackGeometry(const RackModel &model, const RackSpace &space)
{
    RackGeometry geometry;
    if (space.comparing)
        geometry.pegRadius = kPegRadiusOnScale;
    const double labelWidth = std::min(kWidestLabel, kLabelShare * space.width);
    const double sentenceWidth =
        space.comparing ? std::min(kWidestSentence, kSentenceShare * space.width) : 0.0;
    const double trackLeft = kMargin + labelWidth;
    const double trackWidth = std::max(kLeastTrack, space.width - trackLeft - sentenceWidth - 2.0 * kMargin);
    const double top = space.comparing ? kScaleBarHeight : kMargin * 0.5;
    geometry.scaleBar = QRectF(trackLeft, 0.0, trackWidth, kScaleBarHeight);
    if (space.comparing)
        geometry.scale =
            !model.words.isEmpty()
                ? AxisScale{0.0, static_cast<double>(model.words.size()) - 1.0, 1.0, 0}
                : scaleAround(allValues(model), std::max(3, static_cast<int>(trackWidth / 80.0)));

    const auto count = static_cast<double>(std::max<std::size_t>(1, model.rails.size()));
    const double least = (space.comparing ? 4.3 : 3.2) * space.lineHeight;
    const double most = 5.4 * space.lineHeight;
    const double rowHeight = std::clamp((space.height - top - kMargin) / count, least, most);
    double y = top - space.scrollY;
    for (const RailModel &model_ : model.rails) {
        const HoleGrid grid = holeGrid(model_.pegs.size(), trackWidth);
        const double height = std::max(rowHeight, static_cast<double>(grid.lines) * grid.pitch + kMargin);
        RackGeometry::Rail rail;
        rail.row = QRectF(0.0, y, space.width, height);
        rail.label = QRectF(kMargin, y, labelWidth - kMargin, height);
        rail.track = QRectF(trackLeft, y, trackWidth, height);
        rail.sentence =
            QRectF(trackLeft + trackWidth + kMargin, y, std::max(0.0, sentenceWidth - kMargin), height);
        rail.grooveY = y + (space.comparing ? kGrooveWhileComparing : 0.5) * height;
        geometry.pegRadius = std::min(geometry.pegRadius, 0.46 * grid.pitch);
        for (std::size_t i = 0; i < model_.pegs.size(); ++i) {
            const auto column = static_cast<double>(i % grid.perLine);
            const auto line = static_cast<double>(i / grid.perLine);
            const double firstLine =
                y + 0.5 * height - 0.5 * static_cast<double>(grid.lines - 1) * grid.pitch;
            rail.holes.emplace_back(trackLeft + (column + 0.5) * grid.pitch, firstLine + line * grid.pitch);
        }
        geometry.rails.push_back(std::move(rail));
        y += height;
    }
    geometry.contentHeight = y + space.scrollY + kMargin;
    for (std::size_t i = 0; i < model.rails.size(); ++i)
        geometry.rails[i].places = space.comparing
                                       ? placesOnScale(model.rails[i], geometry, geometry.rails[i])
                                       : geometry.rails[i].holes;
    return geometry;
}

std::optional<PegHit> pegAt(const RackGeometry &geometry, QPointF point, bool onScale)
{
    std::optional<PegHit> nearest;
    double nearestDistance = geometry.pegRadius + 4.0;
    for (std::size_t r = 0; r < geometry.rails.size(); ++r) {
        const std::vector<QPointF> &points = onScale ? geometry.rails[r].places : geometry.rails[r].holes;
        for (std::size_t p = 0; p < points.size(); ++p) {
            const double distance = std::hypot(points[p].x() - point.x(), points[p].y() - point.y());
            if (distance < nearestDistance) {
                nearestDistance = distance;
                nearest = PegHit{r, p};
            }
        }
    }
    return nearest;
}

} // namespace inchpeg::app
