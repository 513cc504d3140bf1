// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/curve/straight_line.h"

#include "core/base/contract.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <utility>
#include <vector>

namespace inchpeg
{

namespace
{

constexpr double kSlopeUncertainty = 0.01;
constexpr double kInitialShare = 0.6;
constexpr double kWidestShare = 0.35;
constexpr double kJoinShare = 0.01;
constexpr double kBentShare = 0.02;
constexpr double kBentSigmas = 3.0;
/// A longer start of a curve is looked at through the means of neighbouring points.
constexpr std::size_t kMostPoints = 8192;

struct Window {
    std::size_t first = 0;
    std::size_t last = 0; ///< included
    StraightLine line;
};

/// Running sums of x, y, xx, xy, yy about the first point, so that each window costs a few operations.
class WindowFitter
{
public:
    WindowFitter(std::span<const double> x, std::span<const double> y) : m_x(x), m_y(y)
    {
        m_sums.resize(x.size() + 1);
        for (std::size_t i = 0; i < x.size(); ++i) {
            const double dx = x[i] - x[0];
            const double dy = y[i] - y[0];
            const Sums &before = m_sums[i];
            m_sums[i + 1] = {before.x + dx, before.y + dy, before.xx + dx * dx, before.xy + dx * dy,
                             before.yy + dy * dy};
        }
    }

    [[nodiscard]] std::optional<StraightLine> fit(std::size_t first, std::size_t last) const
    {
        const auto n = static_cast<double>(last - first + 1);
        const Sums &a = m_sums[first];
        const Sums &b = m_sums[last + 1];
        const double meanX = (b.x - a.x) / n;
        const double meanY = (b.y - a.y) / n;
        const double sxx = (b.xx - a.xx) - n * meanX * meanX;
        const double sxy = (b.xy - a.xy) - n * meanX * meanY;
        const double syy = (b.yy - a.yy) - n * meanY * meanY;
        if (!(sxx > 1e-14 * (b.xx + 1e-300)))
            return std::nullopt;
        StraightLine line;
        line.slope = sxy / sxx;
        line.intercept = (meanY + m_y[0]) - line.slope * (meanX + m_x[0]);
        line.residualSd = std::sqrt(std::max(0.0, syy - line.slope * sxy) / n);
        return line;
    }

private:
    struct Sums {
        double x = 0.0, y = 0.0, xx = 0.0, xy = 0.0, yy = 0.0;
    };
    std::span<const double> m_x;
    std::span<const double> m_y;
    std::vector<Sums> m_sums;
};

/// Index of the last point that still belongs to the start of the curve.
std::size_t lastOfInitialPart(std::span<const double> y)
{
    const double limit = y[0] + kInitialShare * (*std::max_element(y.begin(), y.end()) - y[0]);
    for (std::size_t i = 0; i < y.size(); ++i) {
        if (y[i] > limit)
            return std::max<std::size_t>(i, 2);
    }
    return y.size() - 1;
}

/// The window must be long enough for the slope's standard error sigma / (width sqrt(n / 12)) to be below 1
/// %.
double windowWidthForNoise(std::span<const double> x, std::span<const double> y, double width, double sigma)
{
    const double range = x.back() - x.front();
    const double overallSlope = (y.back() - y.front()) / range;
    const double density = static_cast<double>(x.size()) / range;
    const double widest = std::max(width, kWidestShare * range);
    while (width < widest) {
        const double standardError = sigma / (width * std::sqrt(density * width / 12.0));
        if (standardError <= kSlopeUncertainty * std::abs(overallSlope))
            break;
        width = std::min(widest, width * 1.25);
    }
    return width;
}

std::vector<Window> slidingWindows(std::span<const double> x, const WindowFitter &fitter, std::size_t last,
                                   double width, std::size_t leastPoints)
{
    std::vector<Window> windows;
    std::size_t end = 0;
    for (std::size_t first = 0; first + leastPoints <= last + 1; ++first) {
        end = std::max(end, first + leastPoints - 1);
        while (end < last && x[end] - x[first] < width)
            ++end;
        if (!windows.empty() && x[end] - x[first] < width * (1.0 - 1e-9) && windows.back().last == end)
            break; // the window has begun to shrink at the end of the part
        if (const auto line = fitter.fit(first, end))
            windows.push_back({first, end, *line});
    }
    return windows;
}

/// The means of each `width` neighbours.
std::vector<double> blockMeans(std::span<const double> values, std::size_t width)
{
    std::vector<double> means(values.size() / width);
    for (std::size_t b = 0; b < means.size(); ++b) {
        double sum = 0.0;
        for (double value : values.subspan(b * width, width))
            sum += value;
        means[b] = sum / static_cast<double>(width);
    }
    return means;
}

} // namespace

std::optional<StraightLine> fitLine(std::span<const double> x, std::span<const double> y)
{
    require(x.size() == y.size(), "fitLine(): lengths differ");
    if (x.size() < 2)
        return std::nullopt;
    return WindowFitter(x, y).fit(0, x.size() - 1);
}

std::optional<StraightPart> steepestStraightPart(std::span<const double> x, std::span<const double> y,
                                                 double windowWidth, double sigmaOfY)
{
    require(x.size() == y.size(), "steepestStraightPart(): lengths differ");
    if (x.size() < 3 || !(x.back() > x.front()))
        return std::nullopt;
    const std::size_t last = lastOfInitialPart(y);
    const double range = x[last] - x.front();
    if (!(range > 0.0))
        return std::nullopt;
    if (last + 1 > 2 * kMostPoints) {
        const std::size_t width = (last + 1) / kMostPoints;
        auto part = steepestStraightPart(blockMeans(x, width), blockMeans(y, width), windowWidth,
                                         sigmaOfY / std::sqrt(static_cast<double>(width)));
        if (part) {
            part->first *= width;
            part->last = part->last * width + width - 1;
        }
        return part;
    }
    const std::size_t leastPoints = last >= 20 ? 5 : 3;
    const double width = windowWidthForNoise(x.first(last + 1), y.first(last + 1),
                                             std::min(windowWidth, 0.5 * range), sigmaOfY);
    const WindowFitter fitter(x.first(last + 1), y.first(last + 1));
    const std::vector<Window> windows = slidingWindows(x, fitter, last, width, leastPoints);

    const auto isStraight = [&](const Window &window) {
        const double rise = std::abs(y[window.last] - y[window.first]);
        return window.line.residualSd <= kBentShare * rise + kBentSigmas * sigmaOfY;
    };
    const bool anyStraight = std::any_of(windows.begin(), windows.end(), isStraight);
    std::optional<std::size_t> best;
    for (std::size_t i = 0; i < windows.size(); ++i) {
        if ((!anyStraight || isStraight(windows[i])) &&
            (!best || windows[i].line.slope > windows[*best].line.slope))
            best = i;
    }
    if (!best || !(windows[*best].line.slope > 0.0))
        return std::nullopt;

    const double joined = (1.0 - kJoinShare) * windows[*best].line.slope;
    std::size_t from = *best;
    std::size_t to = *best;
    while (from > 0 && windows[from - 1].line.slope >= joined)
        --from;
    while (to + 1 < windows.size() && windows[to + 1].line.slope >= joined)
        ++to;
    const auto joinedLine = fitter.fit(windows[from].first, windows[to].last);
    if (!joinedLine)
        return std::nullopt;
    return StraightPart{*joinedLine, windows[from].first, windows[to].last};
}

std::optional<double> steepestSlopeOverRise(std::span<const double> x, std::span<const double> y, double rise)
{
    require(x.size() == y.size(), "steepestSlopeOverRise(): lengths differ");
    if (x.size() < 2)
        return std::nullopt;
    const WindowFitter fitter(x, y);
    std::vector<double> highest(y.begin(), y.end()); // up to each point: it grows, and can be searched
    for (std::size_t i = 1; i < highest.size(); ++i)
        highest[i] = std::max(highest[i], highest[i - 1]);
    std::optional<double> steepest;
    for (std::size_t first = 0; first + 1 < x.size(); ++first) {
        const double wanted = y[first] + rise;
        auto end = static_cast<std::size_t>(std::lower_bound(highest.begin(), highest.end(), wanted) -
                                            highest.begin());
        end = std::max(end, first + 1); // a point before this one may have been as high
        while (end < y.size() && y[end] < wanted)
            ++end;
        if (end == y.size())
            continue;
        if (const auto line = fitter.fit(first, end); line && (!steepest || line->slope > *steepest))
            steepest = line->slope;
    }
    return steepest && *steepest > 0.0 ? steepest : std::nullopt;
}

std::size_t beforeStiffening(std::span<const double> x, std::span<const double> y)
{
    constexpr int kParts = 20;
    constexpr double kLeastShareOfY = 0.05;
    constexpr double kFallen = 0.75;
    constexpr std::size_t kLeastSamples = 3;
    if (x.size() < kParts * kLeastSamples)
        return x.size();
    const double width = (x.back() - x.front()) / kParts;
    const double least_y = kLeastShareOfY * *std::max_element(y.begin(), y.end());
    double steepest = 0.0;
    std::size_t begin = 0;
    bool isSoft = false;                // the part before
    std::optional<std::size_t> softEnd; // of the first two soft parts that follow each other
    for (int part = 1; part <= kParts && width > 0.0; ++part) {
        const double end_x = x.front() + part * width;
        std::size_t end = begin;
        while (end < x.size() && x[end] < end_x)
            ++end;
        if (end - begin < kLeastSamples)
            continue;
        const auto line = fitLine(x.subspan(begin, end - begin), y.subspan(begin, end - begin));
        const double slope = line ? line->slope : 0.0;
        begin = end;
        if (softEnd && slope > steepest)
            return *softEnd; // it stiffens again
        const bool wasSoft = std::exchange(isSoft, y[end - 1] > least_y && slope < kFallen * steepest);
        if (!softEnd && wasSoft && isSoft)
            softEnd = end;
        if (!softEnd)
            steepest = std::max(steepest, slope);
    }
    return x.size();
}

} // namespace inchpeg
