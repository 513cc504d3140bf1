// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/earlier_results.h"

#include "core/compare/comparison.h"

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

void gather(Gathered &all, const StudyResults &results, Method test, const Property &property,
            const PolymerFacts *polymer, Orientation orientation)
{
    const Study &study = *results.study;
    bool used = false;
    for (const RailValues &rail : results.railValues(test, property)) {
        if (rail.n < kLeastPieces || rail.bounds > 0 || !rail.sd || rail.mean == 0.0)
            continue;
        used = true;
        const double df = static_cast<double>(rail.n) - 1.0;
        all.weightedCv2 += df * (*rail.sd / rail.mean) * (*rail.sd / rail.mean);
        all.weight += df;
        ++all.rails;
        const Condition &condition = *findCondition(study, rail.condition);
        if (condition.orientation != orientation || polymerOf(study, condition).facts != polymer ||
            !polymerOf(study, condition).isKnown)
            continue;
        all.sum += rail.mean * static_cast<double>(rail.n);
        all.pieces += static_cast<double>(rail.n);
    }
    all.studies += used ? 1 : 0;
}

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

OwnResults earlierResults(ProjectFile &project, const Study &study, UnreadRecords unread, Keeping keeping)
{
    OwnResults own;
    const std::optional<Property> property = plannedProperty(study);
    const Condition *reference = findCondition(study, study.reference);
    if (!property || reference == nullptr || !hasMean(*property))
        return own;
    const auto isWanted = [&](const StudyHeader &header) {
        return header.id != study.id && header.method == methodOf(study) && header.recorded >= kLeastPieces;
    };
    const Result<ProjectResults> others = readValues(project, isWanted, unread, keeping);
    if (!others)
        return own;
    const PolymerFacts *polymer = polymerOf(study, *reference).facts;
    Gathered all;
    for (const StudyResults &other : others->results())
        gather(all, other, methodOf(study), *property, polymer, reference->orientation);
    if (all.rails < kLeastRails)
        return own;
    own.cv = std::sqrt(all.weightedCv2 / all.weight);
    if (all.pieces > 0.0)
        own.mean = all.sum / all.pieces;
    own.source = all.studies == 1 ? fmt::format("of {} rails of an earlier study", all.rails)
                                  : fmt::format("of {} rails of {} earlier studies", all.rails, all.studies);
    return own;
}

Result<OwnResults> ownResults(ProjectFile &project, StudyId study, Keeping keeping)
{
    const Result<ProjectResults> read = readStudyResults(project, study, keeping);
    if (!read)
        return read.error();
    const OwnResults own = resultsOfStudy(read->studies.front(), read->readings.front());
    return own.cv ? own : earlierResults(project, read->studies.front(), UnreadRecords::Read, keeping);
}

} // namespace inchpeg
