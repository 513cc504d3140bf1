// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/mass_check.h"

#include "core/planning/planned_test.h"
#include "core/planning/print_estimate.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

struct Weighed {
    PieceId piece;
    double mass_g = 0.0;
};

std::vector<Weighed> weighedOf(const Study &study, ConditionId condition)
{
    std::vector<Weighed> weighed;
    for (const Piece *piece : piecesOf(study, condition)) {
        if (isOfFirstTest(study, *piece) && piece->log.mass_g && !piece->exclusion)
            weighed.push_back({piece->id, *correctedMass_g(piece->log)});
    }
    return weighed;
}

std::vector<double> massesOf(const std::vector<Weighed> &weighed)
{
    std::vector<double> masses;
    masses.reserve(weighed.size());
    for (const Weighed &one : weighed)
        masses.push_back(one.mass_g);
    return masses;
}

void findVoids(const Study &study, const Condition &condition, const Workshop &workshop, RailMass &rail)
{
    const SpoolCard *spool = findSpool(workshop, materialText(study, condition));
    const bool own = spool != nullptr && spool->density_g_per_cm3;
    const double density =
        own ? *spool->density_g_per_cm3 : polymerOf(study, condition).facts->density_g_per_cm3;
    const std::vector<PlannedTest> tests = plannedTests(study);
    std::vector<double> shares;
    for (const Piece *piece : piecesOf(study, condition.id)) {
        if (!isOfFirstTest(study, *piece) || !piece->log.mass_g || piece->exclusion)
            continue;
        if (const std::optional<double> volume = pieceVolume_mm3(tests, *piece))
            shares.push_back(voidShare(*correctedMass_g(piece->log), *volume, density));
    }
    if (shares.empty()) {
        rail.voidSource = "choose the specimen's shape in the plan to have its void share worked out";
        return;
    }
    rail.voidShare = meanOf(shares);
    rail.voidSource = fmt::format("drawn volume scaled by the measured section, density {:g} g/cm³ ({})",
                                  density, own ? "of the spool's card" : "usual for the polymer");
}

constexpr double kSaysNothing = 4.0; ///< times the tolerance: an interval that says nothing (ours)

std::string spreadSentence(const RailMass &rail, double tolerance)
{
    if (rail.mass_g.n == 0)
        return "Not weighed yet.";
    if (rail.mass_g.n == 1)
        return "One piece is weighed: nothing can be said of the spread.";
    if (rail.off.empty())
        return fmt::format("All {} within ±{:.3g} % of their median.", rail.mass_g.n, 100.0 * tolerance);
    return fmt::format(
        "{} of {} lie outside ±{:.3g} % of their median, the furthest by {:.1f} %: look at them, "
        "adjust the flow, and print this rail again.",
        rail.off.size(), rail.mass_g.n, 100.0 * tolerance, 100.0 * *rail.spread);
}

/// What makes two conditions differ in mass by itself, the flow being right: "infill", "material"; empty:
/// nothing.
std::string massFactor(const Study &study, const Condition &a, const Condition &b)
{
    for (std::size_t i = 0; i < study.factors.size(); ++i) {
        const std::string &name = study.factors[i].name;
        const bool weighs = name == factor::kInfill || name == factor::kInfillPattern ||
                            name == factor::kWalls || name == factor::kMaterial;
        if (weighs && i < a.levels.size() && i < b.levels.size() && a.levels[i] != b.levels[i])
            return name;
    }
    return polymerOf(study, a).facts != polymerOf(study, b).facts ? "material" : "";
}

std::string joined(const std::vector<std::string> &names)
{
    std::string text;
    for (const std::string &name : names)
        text += (text.empty() ? "" : ", ") + name;
    return text;
}

/// What the masses of all rails say, from what was found of each.
std::string massHeadline(const MassCheck &check, const std::vector<std::string> &differing,
                         const std::vector<std::string> &byNature, const std::vector<std::string> &unsure,
                         const std::vector<std::string> &notWeighed, bool compared)
{
    if (!compared)
        return "Weigh two pieces of each rail or more to compare their masses.";
    std::string text;
    if (!differing.empty())
        text = fmt::format(
            "Mass changed together with the factor ({}): part of a difference in strength may come from more "
            "or less material. Print again with the flow adjusted so that masses agree, and look at strength "
            "per gram beside strength.",
            joined(differing));
    else if (!byNature.empty())
        text = fmt::format(
            "Masses differ as the factor itself makes them ({}): look at strength per gram beside "
            "strength.",
            joined(byNature));
    else if (!unsure.empty())
        text = fmt::format("Masses scatter too much to say whether {} the same as the reference within "
                           "±{:.3g} %: weigh more pieces.",
                           joined(unsure) + (unsure.size() == 1 ? " weighs" : " weigh"),
                           100.0 * check.tolerance);
    else
        text = fmt::format("All rails {}weigh the same on average, within ±{:.3g} %.",
                           notWeighed.empty() ? "" : "that are weighed ", 100.0 * check.tolerance);
    std::size_t off = 0;
    for (const RailMass &rail : check.rails)
        off += rail.off.size();
    if (off > 0)
        text += fmt::format(" {} outside the tolerance of its rail: look at {}.",
                            off == 1 ? "One piece lies" : fmt::format("{} pieces lie", off),
                            off == 1 ? "it" : "them");
    if (!notWeighed.empty())
        text += fmt::format(" Not weighed, or one piece only: {}.", joined(notWeighed));
    return text;
}

void againstReference(MassCheck &check, const Study &study)
{
    const std::vector<double> reference = massesOf(weighedOf(study, study.reference));
    const Condition *base = findCondition(study, study.reference);
    std::vector<std::string> differing;
    std::vector<std::string> byNature;
    std::vector<std::string> unsure;
    std::vector<std::string> notWeighed;
    bool compared = false;
    for (RailMass &rail : check.rails) {
        if (rail.condition == study.reference || base == nullptr ||
            findCondition(study, rail.condition)->orientation != base->orientation)
            continue; // a piece that lies is built otherwise than one that stands
        rail.ratio = ratioOfMeans(reference, massesOf(weighedOf(study, rail.condition)));
        const Condition &condition = *findCondition(study, rail.condition);
        const std::string title = levelText(study, condition);
        const std::vector<const Piece *> pieces = piecesOf(study, rail.condition);
        const bool isBroken = std::any_of(pieces.begin(), pieces.end(),
                                          [](const Piece *piece) { return piece->recording.has_value(); });
        if (rail.mass_g.n < 2 && (isBroken || rail.mass_g.n > 0))
            notWeighed.push_back(title);
        if (!rail.ratio)
            continue;
        compared = true;
        const double difference = rail.ratio->value - 1.0;
        // A difference is one that its interval shows to be beyond the tolerance; scatter alone is none.
        const Interval ci = rail.ratio->ci.value_or(Interval{rail.ratio->value, rail.ratio->value});
        const bool isShown = ci.low - 1.0 > check.tolerance || ci.high - 1.0 < -check.tolerance;
        if (!isShown &&
            (ci.high - ci.low > kSaysNothing * check.tolerance || std::abs(difference) > check.tolerance))
            unsure.push_back(title);
        if (std::abs(difference) <= check.tolerance)
            continue;
        rail.sentence += fmt::format(" {:.1f} % {} than the reference", 100.0 * std::abs(difference),
                                     difference > 0.0 ? "heavier" : "lighter");
        if (rail.ratio->ci)
            rail.sentence += fmt::format(" ({:.1f} to {:.1f} %)", 100.0 * (rail.ratio->ci->low - 1.0),
                                         100.0 * (rail.ratio->ci->high - 1.0));
        rail.sentence += ".";
        if (!isShown)
            continue;
        const std::string nature = massFactor(study, condition, *base);
        if (nature.empty())
            differing.push_back(title);
        else
            byNature.push_back(fmt::format("{}: {}", nature, title));
    }
    check.isConfound = !differing.empty();
    check.headline = massHeadline(check, differing, byNature, unsure, notWeighed, compared);
}

} // namespace

double voidShare(double mass_g, double volume_mm3, double density_g_per_cm3)
{
    return 1.0 - mass_g / (density_g_per_cm3 * volume_mm3 / 1e3);
}

std::optional<double> pieceVolume_mm3(const std::vector<PlannedTest> &tests, const Piece &piece)
{
    const PlannedTest &test = testOfPiece(tests, piece);
    if (test.setup.shape.key.empty())
        return std::nullopt;
    double volume = volume_mm3(test.shape);
    const Result<Area> drawn = areaOf(nominalSection(test.shape));
    if (piece.section && drawn) {
        if (const Result<Area> measured = areaOf(*piece.section))
            volume *= in_mm2(*measured) / in_mm2(*drawn);
    }
    return volume;
}

MassCheck checkMass(const Study &study, const Workshop &workshop)
{
    MassCheck check;
    check.tolerance = study.log.measuring.massTolerance;
    for (const Condition &condition : study.conditions) {
        RailMass rail;
        rail.condition = condition.id;
        const std::vector<Weighed> weighed = weighedOf(study, condition.id);
        rail.mass_g = summarise(massesOf(weighed));
        if (rail.mass_g.median && weighed.size() > 1) {
            const double median = *rail.mass_g.median;
            rail.spread = 0.0;
            for (const Weighed &one : weighed) {
                const double departure = std::abs(one.mass_g / median - 1.0);
                rail.spread = std::max(*rail.spread, departure);
                if (departure > check.tolerance)
                    rail.off.push_back(one.piece);
            }
        }
        rail.sentence = spreadSentence(rail, check.tolerance);
        findVoids(study, condition, workshop, rail);
        check.rails.push_back(std::move(rail));
    }
    againstReference(check, study);
    return check;
}

std::optional<StudyComparison> comparePerMass(const Study &study, const PieceReadings &readings,
                                              const Property &property)
{
    StudyComparison comparison =
        compareStudy(study, readings, property,
                     {.detail = ComparisonDetail::Sentences, .basis = ComparisonBasis::PerGram});
    const bool any = comparison.procedure && comparison.asRatio;
    return any ? std::optional(std::move(comparison)) : std::nullopt;
}

std::string perMassSentence(const RailComparison &rail)
{
    if (!rail.effect || rail.effectBound != EffectBound::None)
        return {};
    const Effect &effect = *rail.effect;
    const double difference = 100.0 * (effect.estimate - 1.0);
    return fmt::format("Per gram it holds {:.1f} % {} than the reference ({:.0f} to {:.0f} %).",
                       std::abs(difference), difference < 0.0 ? "less" : "more",
                       100.0 * (effect.ci.low - 1.0), 100.0 * (effect.ci.high - 1.0));
}

} // namespace inchpeg
