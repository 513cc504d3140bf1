// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/method_answers.h"

#include "core/compare/comparison.h"
#include "core/method/value_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace inchpeg
{

namespace
{

constexpr std::array kTimes_h = {1.0, 10.0, 24.0, 120.0, 1000.0};
constexpr double kSameStress = 0.01;   ///< of the smaller (ours)
constexpr double kProportional = 0.05; ///< moduli that differ by less are taken for one (ours)

struct Creeping {
    double stress_MPa = 0.0;
    const CurveOutline *outline = nullptr;
};

/// Nothing before the first reading or behind the last under load.
std::optional<double> strainAt(const CurveOutline &outline, double time_h)
{
    const double time_s = time_h * kSecondsPerHour;
    const std::size_t last = std::min(outline.breakAt, outline.x.size() - 1);
    if (outline.x.empty() || time_s < outline.x.front() || time_s > outline.x[last])
        return std::nullopt;
    const auto end = outline.x.begin() + static_cast<std::ptrdiff_t>(last) + 1;
    const auto after =
        static_cast<std::size_t>(std::lower_bound(outline.x.begin(), end, time_s) - outline.x.begin());
    if (after == 0 || outline.x[after] == time_s)
        return outline.y[after];
    const double share = (time_s - outline.x[after - 1]) / (outline.x[after] - outline.x[after - 1]);
    return std::lerp(outline.y[after - 1], outline.y[after], share);
}

std::map<std::string, std::vector<Creeping>> creepByMaterial(const Study &study,
                                                             const PieceReadings &readings)
{
    std::map<std::string, std::vector<Creeping>> found;
    for (const Piece &piece : study.pieces) {
        if (piece.test != Method::Creep || piece.exclusion)
            continue;
        const PieceReading *reading = readingOf(readings, piece.id);
        if (reading == nullptr || reading->outline.x.empty())
            continue;
        const ReadValue *modulus_MPa = valueOf(reading->result.values, "creep_modulus");
        const ReadValue *strain = valueOf(reading->result.values, "creep_strain");
        if (modulus_MPa == nullptr || strain == nullptr)
            continue;
        found[findCondition(study, piece.condition)->material].push_back(
            {modulus_MPa->number * strain->number, &reading->outline});
    }
    for (auto &[material, pieces] : found)
        std::sort(pieces.begin(), pieces.end(),
                  [](const Creeping &a, const Creeping &b) { return a.stress_MPa < b.stress_MPa; });
    return found;
}

/// Nothing where a piece was not read at that time, or all carry one stress.
std::optional<Isochrone> isochroneAt(const std::string &material, const std::vector<Creeping> &pieces,
                                     double time_h)
{
    Isochrone line{material, time_h, {}};
    for (const Creeping &piece : pieces) {
        const std::optional<double> strain = strainAt(*piece.outline, time_h);
        if (!strain)
            return std::nullopt;
        const bool isNew =
            line.points.empty() || piece.stress_MPa > (1.0 + kSameStress) * line.points.back().stress_MPa;
        if (isNew)
            line.points.push_back({piece.stress_MPa, 0.0, 0});
        Isochrone::Point &point = line.points.back();
        const auto n = static_cast<double>(++point.pieces);
        point.strain += (*strain - point.strain) / n;
    }
    return line.points.size() >= 2 ? std::optional(line) : std::nullopt;
}

std::string isochroneSentence(const Isochrone &line, const Notation &notation)
{
    std::string strains;
    for (const Isochrone::Point &point : line.points)
        strains += fmt::format("{}{} under {} ({} piece{})", strains.empty() ? "" : ", ",
                               marked(point.strain, Dimension::Ratio, 3),
                               marked(point.stress_MPa, Dimension::Stress, 3), point.pieces,
                               point.pieces == 1 ? "" : "s");
    const auto modulus = [](const Isochrone::Point &point) { return point.stress_MPa / point.strain; };
    const double lightest_MPa = modulus(line.points.front());
    const double heaviest_MPa = modulus(line.points.back());
    const std::string who = line.material.empty() ? std::string() : line.material + ", ";
    const bool isLinear = heaviest_MPa > (1.0 - kProportional) * lightest_MPa;
    return notation.expand(
        fmt::format("{}after {:g} h: {}; {}.", who, line.time_h, strains,
                    isLinear ? std::string("in proportion to the stress")
                             : fmt::format("more than in proportion: the modulus falls from {} to {}",
                                           marked(lightest_MPa, Dimension::Stress, 3),
                                           marked(heaviest_MPa, Dimension::Stress, 3))));
}

std::string upAndDownSentence(const std::string &title, const std::vector<StaircaseTrial> &drops,
                              const Notation &notation)
{
    const auto failed =
        std::count_if(drops.begin(), drops.end(), [](const StaircaseTrial &drop) { return drop.failed; });
    const std::string count = fmt::format("{} of {} failed", failed, drops.size());
    const Result<Staircase> staircase = evaluateStaircase(drops);
    if (!staircase || !staircase->mean)
        return fmt::format("{}: {}; what half of them bear cannot be told before some fail and some hold, at "
                           "equally spaced heights.",
                           title, count);
    const std::string mean = marked(*staircase->mean, Dimension::Energy, 3);
    if (!staircase->isValid)
        return notation.expand(fmt::format(
            "{}: half fail at {} ({}); the steps are too wide to tell the scatter.", title, mean, count));
    return notation.expand(
        fmt::format("{}: half fail at {}, standard error {}, scatter {} ({}, up and down).", title, mean,
                    marked(*staircase->seMean, Dimension::Energy, 2),
                    marked(*staircase->sd, Dimension::Energy, 2), count));
}

/// What a rail came to in one test; nothing where it has no value, or a bound among them.
std::optional<double> meanOfTest(const StudyComparison &comparison, ConditionId rail)
{
    for (const RailComparison &one : comparison.rails) {
        if (one.condition == rail && one.summary.n > 0 && one.bounds == 0)
            return one.summary.mean;
    }
    return std::nullopt;
}

/// Heat deflection and softening of one study beside each other: they are two loads, and answer two
/// questions.
std::string warmSentence(const Study &study, const PieceReadings &readings, const Notation &notation)
{
    const StudyTest *bent = findTest(study, Method::HeatDeflection);
    const StudyTest *pressed = findTest(study, Method::Softening);
    if (bent == nullptr || pressed == nullptr)
        return {};
    constexpr int kWarmDigits = 3;
    const auto compared = [&](Method test, std::string_view name) {
        return compareStudy(study, readings, *findProperty(*reductionOf(test), name),
                            {.test = test, .detail = ComparisonDetail::Values});
    };
    const StudyComparison deflection = compared(Method::HeatDeflection, "heat_deflection_temperature");
    const StudyComparison softening = compared(Method::Softening, "softening_temperature");
    const std::string load =
        fmt::format("under {}", notation.quantity(bent->setup.stress_MPa, Dimension::Stress, kWarmDigits));
    const std::string_view procedure = pressed->setup.settings.word("procedure");
    const std::string manner = procedure.empty() ? std::string() : fmt::format(" ({})", procedure);
    std::vector<std::string> told;
    for (const Condition &condition : study.conditions) {
        const std::optional<double> bends = meanOfTest(deflection, condition.id);
        const std::optional<double> softens = meanOfTest(softening, condition.id);
        if (bends && softens)
            told.push_back(fmt::format("{} bends {} at {} and softens{} at {}",
                                       distinctTitle(study, condition), load,
                                       valueText(deflection.property, *bends, kWarmDigits, notation), manner,
                                       valueText(softening.property, *softens, kWarmDigits, notation)));
    }
    if (told.empty())
        return {};
    return fmt::format("{}. A part that carries a load in the warm is answered by where it bends, and a "
                       "surface that is only pressed by where it softens: neither stands for the other.",
                       fmt::join(told, "; "));
}

} // namespace

std::vector<Isochrone> isochrones(const Study &study, const PieceReadings &readings)
{
    std::vector<Isochrone> lines;
    for (const auto &[material, pieces] : creepByMaterial(study, readings)) {
        for (const double time_h : kTimes_h) {
            if (std::optional<Isochrone> line = isochroneAt(material, pieces, time_h))
                lines.push_back(std::move(*line));
        }
    }
    return lines;
}

std::vector<StaircaseTrial> upAndDownOf(const Study &study, const PieceReadings &readings,
                                        ConditionId condition)
{
    std::vector<StaircaseTrial> drops;
    for (const Piece *piece : piecesOf(study, condition)) {
        const PieceReading *reading = readingOf(readings, piece->id);
        if (piece->test != Method::FallingWeight || piece->exclusion || reading == nullptr)
            continue;
        const ReadValue *last = valueOf(reading->result.values, "drop_energy");
        const ReadValue *failure = valueOf(reading->result.values, "failure_energy");
        if (failure != nullptr && failure->bound == BoundReason::None)
            return {}; // it was struck until it failed: it has its own value
        if (last != nullptr)
            drops.push_back({last->number, failure == nullptr});
    }
    return drops;
}

std::vector<std::string> methodAnswers(const Study &study, const PieceReadings &readings, Method test,
                                       const Notation &notation)
{
    std::vector<std::string> sentences;
    if (test == Method::Creep) {
        for (const Isochrone &line : isochrones(study, readings))
            sentences.push_back(isochroneSentence(line, notation));
    }
    if (test == Method::FallingWeight) {
        for (const Condition &condition : study.conditions) {
            const std::vector<StaircaseTrial> drops = upAndDownOf(study, readings, condition.id);
            if (drops.size() >= 2)
                sentences.push_back(upAndDownSentence(distinctTitle(study, condition), drops, notation));
        }
    }
    if (test == Method::HeatDeflection || test == Method::Softening) {
        if (std::string warm = warmSentence(study, readings, notation); !warm.empty())
            sentences.push_back(std::move(warm));
    }
    return sentences;
}

} // namespace inchpeg
