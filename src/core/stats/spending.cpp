// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/spending.h"

#include "core/base/contract.h"
#include "core/stats/distributions.h"
#include "core/stats/panels.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <mutex>
#include <numbers>
#include <tuple>

namespace inchpeg
{

namespace
{

/// A standardised value beyond this has a chance below 1e-18: such a look cannot claim anything.
constexpr double kBeyondReach = 9.0;
/// As far out as critical values of t can be told; next to nothing beside what is spent.
constexpr double kLeastLevel = 1e-8;
/// A panel of 20 points may be this many standard deviations of the next step wide.
constexpr double kPanelPerStep = 4.0;

double spentUpTo(double information, double alpha, Spending spending)
{
    if (information >= 1.0)
        return alpha;
    if (spending == Spending::Pocock)
        return alpha * std::log1p((std::numbers::e - 1.0) * information);
    return 4.0 * normalUpper(normalQuantile(1.0 - 0.25 * alpha) / std::sqrt(information));
}

double density(double z)
{
    return std::exp(-0.5 * z * z) / std::sqrt(2.0 * std::numbers::pi);
}

/// What is left between the bounds after some looks: the density of the score (its variance is the
/// information) at points with their weights.
struct Unclaimed {
    std::vector<double> score;
    std::vector<double> mass; ///< density times weight
};

/// Chance to pass a bound, one of either sides, at the next look.
double chanceBeyond(const Unclaimed &unclaimed, double bound, double step_sd)
{
    double chance = 0.0;
    for (std::size_t i = 0; i < unclaimed.score.size(); ++i)
        chance += unclaimed.mass[i] * (normalUpper((bound - unclaimed.score[i]) / step_sd) +
                                       normalUpper((bound + unclaimed.score[i]) / step_sd));
    return chance;
}

Unclaimed between(const Unclaimed &before, double bound, double step_sd, double nextStep_sd)
{
    Unclaimed now;
    const double width = kPanelPerStep * std::min(step_sd, nextStep_sd);
    const int panels = std::max(2, static_cast<int>(std::ceil(2.0 * bound / width)));
    forPanelPoints(-bound, bound, panels, [&](double score, double weight) {
        double here = 0.0;
        for (std::size_t i = 0; i < before.score.size(); ++i) {
            const double away = (score - before.score[i]) / step_sd;
            if (std::abs(away) < kBeyondReach)
                here += before.mass[i] * density(away);
        }
        now.score.push_back(score);
        now.mass.push_back(weight * here / step_sd);
    });
    return now;
}

/// The bound that is passed with a chance; beyond reach where the chance is next to nothing.
double boundFor(const Unclaimed &unclaimed, double chance, double step_sd, double information)
{
    const double far = kBeyondReach * std::sqrt(information);
    if (chance <= chanceBeyond(unclaimed, far, step_sd))
        return far;
    std::uintmax_t steps = 200;
    const auto bracket = boost::math::tools::toms748_solve(
        [&](double bound) {
            return std::log(std::max(chanceBeyond(unclaimed, bound, step_sd), 1e-300) / chance);
        },
        0.0, far, boost::math::tools::eps_tolerance<double>(40), steps);
    return 0.5 * (bracket.first + bracket.second);
}

} // namespace

std::string_view spendingName(Spending spending)
{
    return spending == Spending::OBrienFleming ? "strict first" : "alike";
}

std::optional<Spending> spendingFrom(std::string_view name)
{
    for (const Spending spending : {Spending::OBrienFleming, Spending::Pocock}) {
        if (spendingName(spending) == name)
            return spending;
    }
    return std::nullopt;
}

std::vector<double> levelsOfLooks(std::span<const double> information, double alpha, Spending spending)
{
    require(alpha > 0.0 && alpha < 1.0, "a chance between 0 and 1 is spent");
    std::vector<double> levels;
    Unclaimed unclaimed{{0.0}, {1.0}};
    double before = 0.0;
    double spent = 0.0;
    for (std::size_t k = 0; k < information.size(); ++k) {
        const double now = information[k];
        require(now > before && now <= 1.0 + 1e-12, "the information of looks grows up to 1");
        const double step_sd = std::sqrt(now - before);
        const double wanted = spentUpTo(now, alpha, spending);
        const double bound = boundFor(unclaimed, wanted - spent, step_sd, now);
        levels.push_back(2.0 * normalUpper(bound / std::sqrt(now)));
        if (k + 1 < information.size())
            unclaimed = between(unclaimed, bound, step_sd, std::sqrt(information[k + 1] - now));
        spent = wanted;
        before = now;
    }
    return levels;
}

std::span<const double> levelsOfEachPiece(int pieces, double alpha, Spending spending)
{
    require(pieces >= 2, "a comparison needs two pieces a rail");
    static std::mutex mutex;
    static std::map<std::tuple<int, double, Spending>, std::vector<double>> known;
    const std::lock_guard lock(mutex);
    std::vector<double> &levels = known[{pieces, alpha, spending}];
    if (levels.empty()) {
        std::vector<double> information;
        for (int n = 2; n <= pieces; ++n)
            information.push_back(static_cast<double>(n) / pieces);
        levels = levelsOfLooks(information, alpha, spending);
        for (double &level : levels)
            level = std::max(level, kLeastLevel);
    }
    return levels;
}

std::span<const double> levelsOfStudyLooks(int pieces, double alpha, Spending spending)
{
    constexpr double kKeptBack = 0.2;
    return pieces == 2 ? levelsOfEachPiece(pieces, alpha, spending) // one look
                       : levelsOfEachPiece(pieces, (1.0 - kKeptBack) * alpha, spending);
}

} // namespace inchpeg
