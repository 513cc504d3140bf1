// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/bend.h"

#include "core/base/contract.h"
#include "core/stats/distributions.h"

#include <Eigen/Dense>
#include <boost/math/tools/roots.hpp>

#include <algorithm>
#include <limits>
#include <set>
#include <vector>

namespace inchpeg
{

namespace
{

constexpr int kScanned = 2000; ///< places at which the interval is looked for, before its ends are refined

struct Joined {
    Eigen::Vector3d coefficients; ///< at the bend, slope before, change of the slope
    double squares = 0.0;
};

class BendSearch
{
public:
    BendSearch(std::span<const double> x, std::span<const double> y) : m_x(x), m_y(y)
    {
        const std::set<double> levels(x.begin(), x.end());
        m_levels.assign(levels.begin(), levels.end());
    }

    [[nodiscard]] const std::vector<double> &levels() const { return m_levels; }

    /// Least squares with the bend at a place.
    [[nodiscard]] Joined at(double place) const
    {
        const auto n = static_cast<Eigen::Index>(m_x.size());
        Eigen::MatrixXd design(n, 3);
        Eigen::VectorXd y(n);
        for (Eigen::Index i = 0; i < n; ++i) {
            const double from = m_x[static_cast<std::size_t>(i)] - place;
            design.row(i) << 1.0, from, std::max(0.0, from);
            y[i] = m_y[static_cast<std::size_t>(i)];
        }
        Joined joined;
        joined.coefficients = design.colPivHouseholderQr().solve(y);
        joined.squares = (y - design * joined.coefficients).squaredNorm();
        return joined;
    }

    /// Where the lines of either side of a gap meet, if they do within it: there is the least of the gap.
    [[nodiscard]] std::optional<double> meetingIn(std::size_t gap) const
    {
        const Eigen::Vector2d before = side(m_levels[gap], true);
        const Eigen::Vector2d after = side(m_levels[gap + 1], false);
        const double turn = after[1] - before[1];
        if (turn == 0.0)
            return std::nullopt;
        const double place = (before[0] - after[0]) / turn;
        return place > m_levels[gap] && place < m_levels[gap + 1] ? std::optional(place) : std::nullopt;
    }

private:
    /// Intercept and slope through the values up to a level, or from it on.
    [[nodiscard]] Eigen::Vector2d side(double level, bool upTo) const
    {
        double n = 0.0, sx = 0.0, sy = 0.0;
        const auto counts = [&](double x) { return upTo ? x <= level : x >= level; };
        for (std::size_t i = 0; i < m_x.size(); ++i) {
            if (!counts(m_x[i]))
                continue;
            n += 1.0;
            sx += m_x[i];
            sy += m_y[i];
        }
        double sxx = 0.0, sxy = 0.0;
        for (std::size_t i = 0; i < m_x.size(); ++i) {
            if (!counts(m_x[i]))
                continue;
            sxx += (m_x[i] - sx / n) * (m_x[i] - sx / n);
            sxy += (m_x[i] - sx / n) * (m_y[i] - sy / n);
        }
        const double slope = sxy / sxx;
        return {sy / n - slope * sx / n, slope};
    }

    std::span<const double> m_x;
    std::span<const double> m_y;
    std::vector<double> m_levels;
};

/// The furthest place in a direction whose squares stay below a limit; nothing where the end itself does.
std::optional<double> furthest(const BendSearch &search, double best, double end, double limit)
{
    const auto over = [&](double place) { return search.at(place).squares - limit; };
    if (over(end) <= 0.0)
        return std::nullopt;
    double inside = best;
    double outside = end;
    for (int i = 1; i < kScanned; ++i) {
        const double place = best + (end - best) * i / kScanned;
        if (over(place) <= 0.0) {
            inside = place;
            outside = best + (end - best) * (i + 1) / kScanned;
        } else if (i == 1) {
            outside = place;
        }
    }
    std::uintmax_t steps = 100;
    const double low = std::min(inside, outside);
    const double high = std::max(inside, outside);
    if (over(low) == 0.0 || over(high) == 0.0 || (over(low) > 0.0) == (over(high) > 0.0))
        return inside;
    const auto bracket = boost::math::tools::toms748_solve(
        over, low, high, boost::math::tools::eps_tolerance<double>(45), steps);
    return 0.5 * (bracket.first + bracket.second);
}

double lineSquares(std::span<const double> x, std::span<const double> y)
{
    const auto n = static_cast<Eigen::Index>(x.size());
    Eigen::MatrixXd design(n, 2);
    design.col(0).setOnes();
    design.col(1) = Eigen::Map<const Eigen::VectorXd>(x.data(), n);
    const Eigen::VectorXd values = Eigen::Map<const Eigen::VectorXd>(y.data(), n);
    return (values - design * design.colPivHouseholderQr().solve(values)).squaredNorm();
}

} // namespace

Result<Bend> fitBend(std::span<const double> x, std::span<const double> y, double confidence)
{
    require(x.size() == y.size(), "fitBend(): columns of different lengths");
    const BendSearch search(x, y);
    const std::vector<double> &levels = search.levels();
    if (levels.size() < 4 || x.size() < 5)
        return Error{ErrorCode::TooFewPoints,
                     "a bend is looked for among four levels or more, with five values or more",
                     {}};
    Bend bend;
    bend.residualSquares = std::numeric_limits<double>::infinity();
    const auto consider = [&](double place) {
        const Joined joined = search.at(place);
        if (joined.squares < bend.residualSquares) {
            bend.at = place;
            bend.residualSquares = joined.squares;
            bend.slopeBefore = joined.coefficients[1];
            bend.slopeAfter = joined.coefficients[1] + joined.coefficients[2];
        }
    };
    for (std::size_t i = 1; i + 1 < levels.size(); ++i) {
        consider(levels[i]);
        if (i + 2 < levels.size()) {
            if (const std::optional<double> meeting = search.meetingIn(i))
                consider(*meeting);
        }
    }
    bend.lineSquares = lineSquares(x, y);
    bend.df = static_cast<double>(x.size()) - 4.0;
    double squares = 0.0;
    for (const double value : y)
        squares += value * value;
    if (!(bend.residualSquares > 1e-24 * squares))
        return badInput(
            "the values lie on straight lines without any scatter: nothing can be said of a bend");
    bend.F = 0.5 * (bend.lineSquares - bend.residualSquares) / (bend.residualSquares / bend.df);
    const auto gaps = static_cast<double>(levels.size() - 3);
    bend.pAtMost = std::min(1.0, gaps * fisherUpper(bend.F, 2.0, bend.df));
    const double t = studentQuantile(0.5 + 0.5 * confidence, bend.df);
    const double limit = bend.residualSquares * (1.0 + t * t / bend.df); // F(1, df) is t²
    bend.low = furthest(search, bend.at, levels[1], limit);
    bend.high = furthest(search, bend.at, levels[levels.size() - 2], limit);
    return bend;
}

} // namespace inchpeg
