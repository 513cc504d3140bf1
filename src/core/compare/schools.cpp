// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/schools.h"

#include "core/text/list_text.h"

#include <fmt/format.h>

#include <array>
#include <cmath>
#include <optional>
#include <vector>

namespace inchpeg
{

namespace
{

/// 1 for higher, -1 for lower, 0 for not told apart; nothing where the school says nothing.
using Claim = std::optional<int>;

int signIf(bool isClaimed, double direction)
{
    return !isClaimed ? 0 : direction > 0.0 ? 1 : -1;
}

/// The least p that ranks of two groups without ties can give: both tails of one of all ways.
double leastRankP(std::size_t a, std::size_t b)
{
    double ways = 1.0;
    for (std::size_t i = 1; i <= a; ++i)
        ways *= static_cast<double>(b + i) / static_cast<double>(i);
    return 2.0 / ways;
}

struct School {
    std::string_view name;
    Claim (*claim)(const RailComparison &rail, double alpha, bool asRatio);
};

constexpr std::array kSchools = {
    School{"Welch with Holm",
           [](const RailComparison &rail, double alpha, bool) -> Claim {
               return rail.welch && rail.welchHolm ? Claim(signIf(*rail.welchHolm < alpha, rail.welch->t))
                                                   : std::nullopt;
           }},
    School{"ranks",
           [](const RailComparison &rail, double alpha, bool) -> Claim {
               return rail.ranks && rail.effect ? Claim(signIf(rail.ranks->p < alpha, rail.effect->t))
                                                : std::nullopt;
           }},
    School{"trimmed means",
           [](const RailComparison &rail, double alpha, bool) -> Claim {
               return rail.trimmed ? Claim(signIf(rail.trimmed->test.p < alpha, rail.trimmed->difference))
                                   : std::nullopt;
           }},
    School{"Fieller's ratio",
           [](const RailComparison &rail, double, bool asRatio) -> Claim {
               if (!asRatio || !rail.ratio || !rail.ratio->ci)
                   return std::nullopt;
               const Interval &ci = *rail.ratio->ci;
               return signIf(ci.low > 1.0 || ci.high < 1.0, rail.ratio->value - 1.0);
           }},
};

std::string_view claimWords(int claim)
{
    return claim == 0 ? "is not told apart" : claim > 0 ? "is above" : "is below";
}

} // namespace

std::string otherSchools(const Study &study, const StudyComparison &comparison)
{
    const double alpha = 1.0 - comparison.claimConfidence();
    std::vector<std::string> agreeing;
    std::vector<std::string> otherwise;
    bool ranksCannot = false;
    std::size_t reference = 0;
    for (const RailComparison &rail : comparison.rails)
        reference = rail.isReference ? rail.summary.n : reference;
    for (const School &school : kSchools) {
        bool saysAny = false;
        std::vector<std::string> different;
        for (const RailComparison &rail : comparison.rails) {
            if (!rail.effect || rail.effectBound != EffectBound::None)
                continue;
            if (school.name == "ranks" && !rail.told && leastRankP(rail.summary.n, reference) >= alpha) {
                ranksCannot = true;
                continue;
            }
            const Claim claim = school.claim(rail, alpha, comparison.asRatio);
            if (!claim)
                continue;
            saysAny = true;
            if (*claim != signIf(rail.effect->isClear(), rail.effect->t))
                different.push_back(fmt::format("{} {}",
                                                distinctTitle(study, *findCondition(study, rail.condition)),
                                                claimWords(*claim)));
        }
        if (!different.empty())
            otherwise.push_back(fmt::format("by {} {}", school.name, listText(different)));
        else if (saysAny)
            agreeing.emplace_back(school.name);
    }
    std::vector<std::string> parts;
    if (!otherwise.empty())
        parts.push_back(fmt::format("said otherwise {}", fmt::join(otherwise, "; ")));
    if (!agreeing.empty())
        parts.push_back(fmt::format("{} {} the same of every rail", listText(agreeing),
                                    agreeing.size() == 1 && agreeing.front() != "ranks" &&
                                            agreeing.front() != "trimmed means"
                                        ? "says"
                                        : "say"));
    if (ranksCannot)
        parts.emplace_back("so few pieces can show nothing by ranks alone");
    return parts.empty() ? std::string() : fmt::format("Other schools: {}.", fmt::join(parts, "; "));
}

} // namespace inchpeg
