// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/comparison.h"

#include "core/compare/graded.h"
#include "core/method/break_look.h"
#include "core/stats/bounded_groups.h"
#include "core/stats/compared_power.h"
#include "core/stats/distributions.h"
#include "core/stats/many_groups.h"
#include "core/stats/trend.h"
#include "core/units/number.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace inchpeg
{

namespace
{

constexpr double kPower = 0.8;

std::vector<double> breakingForces(const RailComparison &rail, const PieceReadings &readings)
{
    std::vector<double> forces_N;
    for (const PieceValue &value : rail.values) {
        const PieceReading *reading = readingOf(readings, value.piece);
        const ReadValue *force = valueOf(reading->result.values, "peak_force");
        if (value.counts() && force != nullptr)
            forces_N.push_back(force->number);
    }
    return forces_N;
}

/// Pieces that broke in different ways are no one group: those of the most usual kind count, of two equally
/// usual ones the first.
void keepKindsApart(RailComparison &rail, const PieceReadings &readings)
{
    const auto kindOf = [&](const PieceValue &value) -> const std::string & {
        return readingOf(readings, value.piece)->result.kind;
    };
    std::map<std::string, std::size_t> counts;
    for (const PieceValue &value : rail.values)
        counts[kindOf(value)] += value.leftOut ? 0U : 1U;
    std::size_t most = 0;
    for (const PieceValue &value : rail.values) {
        if (const std::size_t count = counts[kindOf(value)]; count > most) {
            most = count;
            rail.kind = kindOf(value);
        }
    }
    for (PieceValue &value : rail.values) {
        value.isApart = kindOf(value) != rail.kind;
        rail.apart += value.isApart && !value.leftOut ? 1U : 0U;
    }
}

/// Why a piece's value is a lower bound: by its record, or since what held it gave way first. The latter
/// bounds what it bears, not how stiff it is.
BoundReason boundOf(const Piece &piece, const ReadValue &read, const Property &property)
{
    constexpr Dimension kBorne[] = {Dimension::Force,  Dimension::Stress,        Dimension::Torque,
                                    Dimension::Energy, Dimension::EnergyPerArea, Dimension::EnergyDensity};
    const bool isBorne =
        std::find(std::begin(kBorne), std::end(kBorne), property.dimension) != std::end(kBorne) &&
        !property.name.ends_with("modulus");
    const BreakLook *look = findBreakLook(piece.log.breakLook);
    const bool isOther = isBorne && look != nullptr && look->isOtherPart;
    return read.bound == BoundReason::None && isOther ? BoundReason::OtherPart : read.bound;
}

/// Without scatter or number of pieces the mean alone is known.
Summary summaryFrom(const RailSummary &told, double confidence)
{
    Summary summary;
    summary.n = told.pieces ? static_cast<std::size_t>(*told.pieces) : 1;
    summary.mean = told.mean;
    if (!told.canBeTested())
        return summary;
    const auto n = static_cast<double>(*told.pieces);
    const double half = studentQuantile(0.5 + confidence / 2.0, n - 1.0) * *told.sd / std::sqrt(n);
    summary.sd = told.sd;
    if (told.mean != 0.0)
        summary.cv = *told.sd / std::abs(told.mean);
    summary.se = *told.sd / std::sqrt(n);
    summary.ci = Interval{told.mean - half, told.mean + half};
    return summary;
}

RailComparison railValues(const Study &study, const PieceReadings &readings, const Property &property,
                          const Condition &condition, double confidence, Method test,
                          ComparisonBasis basis = ComparisonBasis::Value)
{
    RailComparison rail;
    rail.condition = condition.id;
    rail.isReference = condition.id == study.reference;
    for (const Piece *piece : piecesOf(study, condition.id)) {
        if (piece->test != test)
            continue; // another test's pieces answer another question
        if (!piece->recording) {
            ++rail.open;
            continue;
        }
        const PieceReading *reading = readingOf(readings, piece->id);
        const bool perGram = basis == ComparisonBasis::PerGram;
        const ReadValue *read = reading == nullptr ? nullptr : valueOf(reading->result.values, property.name);
        if (read == nullptr || (perGram && !piece->log.mass_g)) {
            ++rail.unread;
            continue;
        }
        const BoundReason bound = boundOf(*piece, *read, property);
        const bool atLeast = bound != BoundReason::None;
        const bool unbroken = atLeast && bound != BoundReason::GaugeAtEnd;
        const double value = read->number / (perGram ? *correctedMass_g(piece->log) : 1.0);
        rail.values.push_back({piece->id, value, atLeast, unbroken, piece->exclusion.has_value(), false});
    }
    keepKindsApart(rail, readings);
    std::vector<double> counted;
    for (const PieceValue &value : rail.values) {
        if (!value.counts())
            continue;
        counted.push_back(value.value);
        rail.given += isGiven(*findPiece(study, value.piece)) ? 1U : 0U;
        if (value.atLeast && rail.bounds == 0)
            rail.boundReason =
                boundOf(*findPiece(study, value.piece),
                        *valueOf(readingOf(readings, value.piece)->result.values, property.name), property);
        rail.bounds += value.atLeast ? 1U : 0U;
        rail.unbroken += value.unbroken ? 1U : 0U;
    }
    rail.summary = hasMean(property) ? summarise(counted, confidence) : summaryOfGrades(counted, property);
    rail.breakingForce = summarise(breakingForces(rail, readings), confidence);
    if (rail.summary.n == 0 && basis == ComparisonBasis::Value && hasMean(property)) {
        if (const RailSummary *told = findSummary(condition, test, property.name)) {
            rail.told = *told;
            rail.summary = summaryFrom(*told, confidence);
        }
    }
    return rail;
}

std::vector<double> countedValues(const RailComparison &rail)
{
    std::vector<double> counted;
    for (const PieceValue &value : rail.values) {
        if (value.counts())
            counted.push_back(value.value);
    }
    return counted;
}

/// For tests that look at number, mean and scatter alone: the values of a rail, or for one that is known from
/// a summary so many numbers with just its mean and scatter.
std::vector<double> valuesForMeans(const RailComparison &rail)
{
    if (!rail.told || !rail.told->canBeTested())
        return countedValues(rail);
    const auto n = rail.summary.n;
    const double step = *rail.summary.sd * (n % 2 == 0 ? std::sqrt(1.0 - 1.0 / static_cast<double>(n)) : 1.0);
    std::vector<double> values(n, *rail.summary.mean);
    for (std::size_t i = 0; i + 1 < n; i += 2) {
        values[i] -= step;
        values[i + 1] += step;
    }
    return values;
}

/// What the other schools say; the claims do not hang on it. Those that look at single values say nothing of
/// a rail that is known from a summary.
void addOtherTests(RailComparison &rail, const RailComparison &reference, double confidence)
{
    const std::vector<double> a = valuesForMeans(reference);
    const std::vector<double> b = valuesForMeans(rail);
    rail.welch = welchTTest(a, b, confidence);
    if (!rail.told && !reference.told) {
        rail.ranks = mannWhitney(a, b);
        rail.trimmed = yuenTest(a, b);
    }
    rail.hedgesG = hedgesG(a, b, confidence);
    rail.ratio = ratioOfMeans(a, b, confidence);
}

/// Whether a rail can be tested against the reference: printed like it, broken like it, no bounds, two
/// pieces.
bool isComparable(const Study &study, const RailComparison &rail, const RailComparison &reference)
{
    return findCondition(study, rail.condition)->orientation ==
               findCondition(study, reference.condition)->orientation &&
           (rail.kind == reference.kind || rail.told || reference.told) && rail.summary.n >= 2 &&
           (!rail.told || rail.told->canBeTested());
}

/// Differences that are seen 4 times in 5.
class Detectable
{
public:
    /// rails: those that are compared, with their effects. rule: that the family was made by.
    Detectable(const SimultaneousComparison &family, const ComparisonRule &rule,
               std::span<const RailComparison> rails)
        : m_family(family), m_rule(rule)
    {
        m_rails = static_cast<int>(1 + std::count_if(rails.begin(), rails.end(), [](const auto &rail) {
                                       return rail.effect.has_value();
                                   }));
        std::set<double> own;
        for (const RailComparison &rail : rails) {
            if (rail.effect)
                own.insert(rail.effect->df);
        }
        if (own.size() > OverDegreesOfFreedom::kNodes)
            m_overDf.emplace([this](double df) { return workedOut(m_family.criticalT(df), df); },
                             *own.begin(), *own.rbegin());
    }

    double share(const Effect &effect, const RailComparison &rail, const RailComparison &reference)
    {
        const double difference =
            isOfDesign() ? ofDesign(rail, reference) : noncentrality(effect) * effect.standardError;
        return m_rule.asRatio ? std::expm1(difference) : difference / std::abs(*reference.summary.mean);
    }

private:
    /// As the plan sees it: by the scatter of all rails, for what one rail's few pieces happen to scatter by
    /// says little of what could have been seen.
    [[nodiscard]] bool isOfDesign() const
    {
        return m_family.spread() == Spread::Moderated ||
               (m_family.spread() == Spread::Own && m_rails == 2 && !m_family.isOwnBySizes());
    }

    [[nodiscard]] double ofDesign(const RailComparison &rail, const RailComparison &reference) const
    {
        const auto fewest = static_cast<int>(std::min(rail.summary.n, reference.summary.n));
        const double lambda =
            ComparedPower::ofClaims(m_rule.comparison, m_rails, fewest, 1.0 - m_rule.confidence)
                ->noncentralityFor(kPower);
        return lambda * m_family.commonScatter() *
               std::sqrt(1.0 / static_cast<double>(rail.summary.n) +
                         1.0 / static_cast<double>(reference.summary.n));
    }

    double noncentrality(const Effect &effect)
    {
        return m_overDf ? m_overDf->at(effect.df) : workedOut(effect.critical, effect.df);
    }

    /// Once for all rails that share it.
    double workedOut(double critical, double df)
    {
        const auto [entry, isNew] = m_known.try_emplace({critical, df}, 0.0);
        if (isNew)
            entry->second = detectableNoncentrality(critical, df, kPower);
        return entry->second;
    }

    const SimultaneousComparison &m_family;
    ComparisonRule m_rule;
    int m_rails = 0; ///< the reference among them
    std::map<std::pair<double, double>, double> m_known;
    std::optional<OverDegreesOfFreedom> m_overDf;
};

std::vector<BoundedValue> boundedValues(const RailComparison &rail)
{
    std::vector<BoundedValue> values;
    if (rail.told) {
        for (const double value : valuesForMeans(rail))
            values.push_back({value, false});
    }
    for (const PieceValue &value : rail.values) {
        if (value.counts())
            values.push_back({value.value, value.atLeast});
    }
    return values;
}

/// places: of the compared rails. The scatter of a maximum likelihood is too small by what the means take
/// from it; that is put back as in a variance with n - k.
void countBounds(StudyComparison &comparison, const std::vector<std::size_t> &places, std::size_t reference,
                 std::span<const Group> values, const ComparisonRule &rule)
{
    std::vector<BoundedGroup> groups;
    for (const std::size_t place : places)
        groups.push_back({{}, boundedValues(comparison.rails[place])});
    const Result<BoundedFit> fit =
        fitBoundedGroups(groups, rule.asRatio ? ScatterLaw::LogNormal : ScatterLaw::Normal);
    if (!fit || !fit->location[reference])
        return;
    const auto there = static_cast<std::size_t>(std::count_if(
        fit->location.begin(), fit->location.end(), [](const auto &one) { return one.has_value(); }));
    if (fit->broken <= there)
        return;
    const double df = static_cast<double>(fit->broken - there);
    const double wider = std::sqrt(static_cast<double>(fit->broken) / df);
    for (std::size_t i = 0; i < places.size(); ++i) {
        RailComparison &rail = comparison.rails[places[i]];
        const bool hasBounds = rail.bounds > 0 || comparison.rails[places[reference]].bounds > 0;
        if (i == reference || !fit->location[i] || !hasBounds)
            continue;
        Effect effect;
        effect.df = df;
        effect.critical = simultaneousCritical(values, reference, rule, df);
        effect.standardError = wider * fit->differenceError(reference, i);
        const double difference = fit->difference(reference, i);
        const double half = effect.critical * effect.standardError;
        effect.t = difference / effect.standardError;
        effect.estimate = rule.asRatio ? std::exp(difference) : difference;
        effect.ci = rule.asRatio ? Interval{std::exp(difference - half), std::exp(difference + half)}
                                 : Interval{difference - half, difference + half};
        rail.countingBounds = effect;
    }
}

/// Pieces a rail of a test; the spares are of the first.
int plannedPieces(const Study &study, Method test)
{
    const StudyTest *planned = findTest(study, test);
    const int spares = test == methodOf(study) ? study.plan.aim.spares : 0;
    return planned == nullptr ? 0 : planned->piecesPerCondition - spares;
}

/// As if the results had been looked at after each piece a rail: so many looks may have been taken.
std::optional<Look> lookAt(const PieceAim &aim, int planned, std::span<const Group> groups)
{
    if (!aim.looks || planned < 2)
        return std::nullopt;
    std::size_t fewest = groups.front().values.size();
    for (const Group &group : groups)
        fewest = std::min(fewest, group.values.size());
    Look look{std::min(static_cast<int>(fewest), planned), planned, *aim.looks, 0.0};
    const std::span<const double> levels = levelsOfStudyLooks(planned, 1.0 - aim.confidence, *aim.looks);
    look.level = levels[static_cast<std::size_t>(look.pieces - 2)];
    return look;
}

/// The same of rails of grades: those with two or more.
std::optional<Look> lookAtGrades(const Study &study, Method test, const StudyComparison &comparison,
                                 std::size_t reference)
{
    std::vector<Group> groups;
    for (const RailComparison &rail : comparison.rails) {
        if (rail.summary.n >= 2)
            groups.push_back({{}, std::vector<double>(rail.summary.n)});
    }
    return groups.size() < 2 || comparison.rails[reference].summary.n < 2
               ? std::nullopt
               : lookAt(study.plan.aim, plannedPieces(study, test), groups);
}

/// The values of a rail by the places of their pieces among those of its test; only those that count.
std::map<std::size_t, const PieceValue *> byPlace(const Study &study, Method test, const RailComparison &rail)
{
    std::map<std::size_t, const PieceValue *> values;
    std::size_t place = 0;
    for (const Piece *piece : piecesOf(study, rail.condition)) {
        if (piece->test != test)
            continue;
        for (const PieceValue &value : rail.values) {
            if (value.piece == piece->id && value.counts())
                values[place] = &value;
        }
        ++place;
    }
    return values;
}

/// Pieces of the same place belong together, as where each was read before and after. places: of the rails
/// that are compared, the reference among them.
void compareBeforeAfter(const Study &study, Method test, StudyComparison &comparison,
                        const std::vector<std::size_t> &places, std::size_t reference)
{
    RailComparison &base = comparison.rails[reference];
    const auto before = byPlace(study, test, base);
    double squares = 0.0;
    double df = 0.0;
    for (const std::size_t place : places) {
        RailComparison &rail = comparison.rails[place];
        if (place == reference || rail.bounds > 0 || base.bounds > 0)
            continue; // a bound says nothing of its own pair
        for (const auto &[at, after] : byPlace(study, test, rail)) {
            if (const auto found = before.find(at); found != before.end())
                rail.pairs.push_back({after->piece, found->second->value, after->value});
        }
        std::vector<double> a;
        std::vector<double> b;
        for (const PiecePair &pair : rail.pairs) {
            a.push_back(pair.before);
            b.push_back(pair.after);
        }
        rail.effect = pairedEffect(a, b, comparison.asRatio, comparison.claimConfidence(), places.size() - 1);
        if (!rail.effect)
            continue;
        const auto n = static_cast<double>(a.size());
        const double se = rail.effect->standardError;
        squares += rail.effect->df * n * se * se;
        df += rail.effect->df;
        rail.familyP = std::min(1.0, static_cast<double>(places.size() - 1) *
                                         studentTwoSided(rail.effect->t, rail.effect->df));
        const double noncentrality =
            detectableNoncentrality(rail.effect->critical, rail.effect->df, kPower) * se;
        rail.detectable =
            comparison.asRatio ? std::expm1(noncentrality) : noncentrality / std::abs(*base.summary.mean);
    }
    if (df > 0.0)
        comparison.procedure = ComparisonProcedure{Comparison::BeforeAfter, Spread::Own, places.size(),
                                                   std::sqrt(squares / df), df,          {}};
}

/// Whether single rails are to be held back: a trend along levels that are numbers was asked for, none is
/// shown, and an analysis of variance at a fifth of the level shows nothing either. Where nothing differs,
/// that keeps all that is said of the property to the level of the trend and that fifth.
bool isToBeHeldBack(const Study &study, const StudyComparison &comparison,
                    const std::vector<std::size_t> &places, const std::vector<Group> &groups)
{
    if (study.plan.aim.comparison != Comparison::Trend || study.factors.size() != 1 || groups.size() < 3)
        return false;
    std::vector<double> x;
    std::vector<double> y;
    std::vector<Group> scaled(groups.size());
    for (std::size_t i = 0; i < groups.size(); ++i) {
        const Condition &condition = *findCondition(study, comparison.rails[places[i]].condition);
        const std::optional<double> level =
            condition.levels.empty() ? std::nullopt : parseTypedNumber(condition.levels.front());
        if (!level)
            return false;
        for (const double value : groups[i].values) {
            scaled[i].values.push_back(comparison.asRatio ? std::log(value) : value);
            x.push_back(*level);
            y.push_back(scaled[i].values.back());
        }
    }
    const double level = 1.0 - comparison.askedConfidence();
    const Result<Trend> line = fitTrend(x, y, 1, comparison.askedConfidence());
    const bool isTrend = line && line->coefficients[1].p && *line->coefficients[1].p < level;
    const Anova anova = oneWayAnova(scaled);
    return !isTrend && !(anova.test && anova.test->p < kShareForAnyDifference * level);
}

void compareWithReference(const Study &study, Method test, StudyComparison &comparison, std::size_t reference,
                          ComparisonDetail detail)
{
    std::vector<std::size_t> places;
    std::vector<Group> groups;
    std::vector<bool> withoutScatter;
    std::size_t referenceAmong = 0;
    for (std::size_t i = 0; i < comparison.rails.size(); ++i) {
        if (!isComparable(study, comparison.rails[i], comparison.rails[reference]))
            continue;
        if (i == reference)
            referenceAmong = groups.size();
        places.push_back(i);
        groups.push_back({{}, valuesForMeans(comparison.rails[i])});
        withoutScatter.push_back(comparison.rails[i].bounds > 0);
    }
    if (groups.size() < 2 || std::find(places.begin(), places.end(), reference) == places.end())
        return;
    const RailComparison &base = comparison.rails[reference];
    comparison.look = lookAt(study.plan.aim, plannedPieces(study, test), groups);
    ComparisonRule rule{familyOf(study), isComparedAsRatio(comparison.property), 0.0, {}};
    if (comparison.look) // each look asks anew whether the rails scatter alike
        rule.unequalBelow /= comparison.look->planned - 1;
    rule.asRatio = rule.asRatio && std::all_of(groups.begin(), groups.end(),
                                               [](const Group &group) { return meanOf(group.values) > 0.0; });
    comparison.asRatio = rule.asRatio;
    comparison.isHeldBack = isToBeHeldBack(study, comparison, places, groups);
    rule.confidence = comparison.claimConfidence();
    if (rule.comparison == Comparison::BeforeAfter) {
        compareBeforeAfter(study, test, comparison, places, reference);
        return;
    }
    if (std::find(withoutScatter.begin(), withoutScatter.end(), true) != withoutScatter.end())
        countBounds(comparison, places, referenceAmong, groups, rule);
    const std::optional<SimultaneousComparison> family =
        SimultaneousComparison::of(groups, referenceAmong, rule, withoutScatter);
    if (family)
        comparison.procedure = ComparisonProcedure{
            rule.comparison,    family->spread(),  groups.size(),         family->commonScatter(),
            family->commonDf(), family->spreadP(), family->isOwnBySizes()};
    for (std::size_t i = 0; i < places.size(); ++i) {
        if (i == referenceAmong)
            continue;
        RailComparison &rail = comparison.rails[places[i]];
        if (rail.bounds > 0 && base.bounds > 0)
            continue; // the truth may lie on either side
        rail.effectBound = rail.bounds > 0   ? EffectBound::AtLeast
                           : base.bounds > 0 ? EffectBound::AtMost
                                             : EffectBound::None;
        if (detail == ComparisonDetail::Tests && rail.effectBound == EffectBound::None)
            addOtherTests(rail, base, comparison.claimConfidence());
        rail.effect = family ? family->effect(referenceAmong, i) : std::nullopt;
        if (rail.effect && detail == ComparisonDetail::Tests)
            rail.familyP = family->familyP(*rail.effect);
    }
    if (!family || !(std::abs(*base.summary.mean) > 0.0))
        return;
    // As claims that are not held back: were there such a difference, they would not be.
    rule.confidence = comparison.askedConfidence();
    const std::optional<SimultaneousComparison> asked =
        comparison.isHeldBack ? SimultaneousComparison::of(groups, referenceAmong, rule, withoutScatter)
                              : family;
    Detectable detectable(*asked, rule, comparison.rails);
    for (RailComparison &rail : comparison.rails) {
        if (!rail.effect)
            continue;
        Effect effect = *rail.effect;
        if (comparison.isHeldBack)
            effect.critical = asked->criticalT(effect.df);
        rail.detectable = detectable.share(effect, rail, base);
    }
}

/// The same but for the orientation: material, and the levels of all factors that do not say how the piece
/// lies.
bool differsInOrientationOnly(const Study &study, const Condition &a, const Condition &b)
{
    if (a.material != b.material)
        return false;
    for (std::size_t i = 0; i < study.factors.size(); ++i) {
        const bool saysOrientation = study.factors[i].name == factor::kOrientation;
        if (!saysOrientation && i < a.levels.size() && i < b.levels.size() && a.levels[i] != b.levels[i])
            return false;
    }
    return true;
}

/// The flat rail that a standing one is held against; none where several are there and none is of the same
/// levels.
const RailComparison *flatRailFor(const Study &study, const StudyComparison &comparison,
                                  const Condition &standing)
{
    const RailComparison *onlyOne = nullptr;
    std::size_t ofMaterial = 0;
    for (const RailComparison &rail : comparison.rails) {
        const Condition &candidate = *findCondition(study, rail.condition);
        if (candidate.orientation != Orientation::Flat || candidate.material != standing.material)
            continue;
        if (differsInOrientationOnly(study, candidate, standing))
            return &rail;
        ++ofMaterial;
        onlyOne = &rail;
    }
    return ofMaterial == 1 ? onlyOne : nullptr;
}

void compareWithFlat(const Study &study, StudyComparison &comparison)
{
    for (RailComparison &rail : comparison.rails) {
        const Condition &condition = *findCondition(study, rail.condition);
        if (condition.orientation != Orientation::Standing)
            continue;
        const RailComparison *flat = flatRailFor(study, comparison, condition);
        if (flat == nullptr)
            continue;
        rail.flatRail = flat->condition;
        rail.flatRailDiffers =
            !differsInOrientationOnly(study, condition, *findCondition(study, flat->condition));
        if (rail.bounds == 0 && flat->bounds == 0)
            rail.shareOfFlat =
                ratioOfMeans(valuesForMeans(*flat), valuesForMeans(rail), comparison.confidence);
    }
}

} // namespace

bool isFullyCompared(const RailComparison &rail)
{
    if (rail.told)
        return false; // its single values are not known
    return rail.isReference ? rail.bounds == 0 : rail.effect && rail.effectBound == EffectBound::None;
}

Comparison familyOf(const Study &study)
{
    const Comparison asked = study.plan.aim.comparison;
    return asked == Comparison::TwoGroups ? Comparison::AgainstReference : asked;
}

StudyComparison compareStudy(const Study &study, const PieceReadings &readings, const Property &property,
                             const ComparisonRequest &asked)
{
    const double confidence = study.plan.aim.confidence;
    const Method test = asked.test.value_or(methodOf(study));
    StudyComparison comparison{property, confidence, {}, {}, {}, isComparedAsRatio(property)};
    for (const Condition &condition : study.conditions)
        comparison.rails.push_back(
            railValues(study, readings, property, condition, confidence, test, asked.basis));
    const auto reference = std::find_if(comparison.rails.begin(), comparison.rails.end(),
                                        [](const RailComparison &rail) { return rail.isReference; });
    comparison.matters = differenceThatMatters(
        study, test, property, reference == comparison.rails.end() ? std::nullopt : reference->summary.mean);
    if (reference == comparison.rails.end() || asked.detail == ComparisonDetail::Values)
        return comparison;
    const auto place = static_cast<std::size_t>(reference - comparison.rails.begin());
    if (!hasMean(property)) {
        comparison.look = lookAtGrades(study, test, comparison, place);
        compareGrades(study, comparison, place);
        return comparison;
    }
    compareWithReference(study, test, comparison, place, asked.detail);
    std::vector<std::optional<double>> p;
    for (const RailComparison &rail : comparison.rails)
        p.push_back(rail.welch ? std::optional(rail.welch->p) : std::nullopt);
    const std::vector<std::optional<double>> adjusted = holmAdjusted(p);
    for (std::size_t i = 0; i < adjusted.size(); ++i)
        comparison.rails[i].welchHolm = adjusted[i];
    compareWithFlat(study, comparison);
    return comparison;
}

std::optional<double> pooledCv(const Study &study, const PieceReadings &readings, const Property &property,
                               std::size_t leastPieces, std::size_t leastRails)
{
    double squares = 0.0;
    double weights = 0.0;
    std::size_t rails = 0;
    for (const Condition &condition : study.conditions) {
        const RailComparison rail =
            railValues(study, readings, property, condition, study.plan.aim.confidence, methodOf(study));
        if (rail.summary.n < leastPieces || rail.bounds > 0 || rail.told || !rail.summary.cv)
            continue;
        const double weight = static_cast<double>(rail.summary.n) - 1.0;
        squares += weight * *rail.summary.cv * *rail.summary.cv;
        weights += weight;
        ++rails;
    }
    if (rails < leastRails || !(weights > 0.0))
        return std::nullopt;
    return std::sqrt(squares / weights);
}

} // namespace inchpeg
