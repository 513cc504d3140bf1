// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/earlier_results.h"

#include "core/compare/comparison.h"
#include "core/reading/reading_text.h"
#include "service/ordered_reading.h"
#include "service/workshop_setting.h"

#include <fmt/format.h>

#include <cmath>

namespace inchpeg
{

namespace
{

constexpr std::size_t kLeastPieces = 3;
constexpr std::size_t kLeastRails = 2;

/// Of rails of several studies: squares of cv weighted by n − 1, and the mean of the piece values.
struct Gathered {
    double weightedCv2 = 0.0;
    double weight = 0.0;
    double sum = 0.0;
    double pieces = 0.0;
    std::size_t rails = 0;
    std::size_t studies = 0;
};

void gather(Gathered &all, const Study &study, const PieceReadings &readings, const Property &property,
            const PolymerFacts *polymer, Orientation orientation)
{
    const StudyComparison comparison =
        compareStudy(study, readings, property, {.detail = ComparisonDetail::Values});
    bool used = false;
    for (const RailComparison &rail : comparison.rails) {
        if (rail.summary.n < kLeastPieces || rail.told || rail.bounds > 0 || !rail.summary.cv)
            continue;
        used = true;
        const double df = static_cast<double>(rail.summary.n) - 1.0;
        all.weightedCv2 += df * *rail.summary.cv * *rail.summary.cv;
        all.weight += df;
        ++all.rails;
        const Condition &condition = *findCondition(study, rail.condition);
        if (condition.orientation != orientation || polymerOf(study, condition).facts != polymer ||
            !polymerOf(study, condition).isKnown)
            continue;
        all.sum += *rail.summary.mean * static_cast<double>(rail.summary.n);
        all.pieces += static_cast<double>(rail.summary.n);
    }
    all.studies += used ? 1 : 0;
}

} // namespace

namespace
{

/// The property that a study is planned by; nothing where its records are not read.
std::optional<Property> plannedProperty(const Study &study)
{
    const Reduction *reduction = reductionOf(methodOf(study));
    if (reduction == nullptr)
        return std::nullopt;
    const Result<Property> property = findProperty(*reduction, plannedTests(study).front().property.name);
    return property ? std::optional(*property) : std::nullopt;
}

} // namespace

OwnResults resultsOfStudy(const Study &study, const PieceReadings &readings)
{
    OwnResults own;
    const std::optional<Property> property = plannedProperty(study);
    if (!property || readings.empty())
        return own;
    own.cv = pooledCv(study, readings, *property, kLeastPieces, kLeastRails);
    if (!own.cv)
        return own;
    const StudyComparison comparison =
        compareStudy(study, readings, *property, {.detail = ComparisonDetail::Values});
    for (const RailComparison &rail : comparison.rails) {
        if (rail.isReference)
            own.mean = rail.summary.mean;
    }
    own.source = "of the pieces in this study";
    return own;
}

std::string earlierResultsKey(const Study &study)
{
    const Condition *reference = findCondition(study, study.reference);
    return fmt::format("{} {} {} {} {}", study.id.value, methodName(methodOf(study)),
                       plannedTests(study).front().property.name,
                       reference != nullptr ? polymerOf(study, *reference).facts->name : "",
                       reference != nullptr ? orientationName(reference->orientation) : "");
}

OwnResults earlierResults(ProjectFile &project, const Study &study)
{
    OwnResults own;
    const std::optional<Property> property = plannedProperty(study);
    const Condition *reference = findCondition(study, study.reference);
    const Result<std::vector<StudyHeader>> headers = project.studies();
    if (!property || reference == nullptr || !headers)
        return own;
    const PolymerFacts *polymer = polymerOf(study, *reference).facts;
    const Workshop workshop = workshopOrStandIn(project);
    Gathered all;
    for (const StudyHeader &header : *headers) {
        if (header.id == study.id || header.method != methodOf(study) || header.recorded < kLeastPieces)
            continue;
        const Result<Study> other = project.loadStudy(header.id);
        if (other)
            gather(all, *other, freshReadings(project.path(), *other, workshop), *property, polymer,
                   reference->orientation);
    }
    if (all.rails < kLeastRails)
        return own;
    own.cv = std::sqrt(all.weightedCv2 / all.weight);
    if (all.pieces > 0.0)
        own.mean = all.sum / all.pieces;
    own.source = all.studies == 1 ? fmt::format("of {} rails of an earlier study", all.rails)
                                  : fmt::format("of {} rails of {} earlier studies", all.rails, all.studies);
    return own;
}

OwnResults ownResults(ProjectFile &project, const Study &study, const PieceReadings &readings)
{
    const OwnResults own = resultsOfStudy(study, readings);
    return own.cv ? own : earlierResults(project, study);
}

} // namespace inchpeg
