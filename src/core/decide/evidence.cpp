// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/decide/evidence.h"

#include "core/decide/same_load.h"
#include "core/decide/sheet_values.h"
#include "core/decide/usual_values.h"
#include "core/logbook/rail_costs.h"
#include "core/method/creep/creep_forecast.h"
#include "core/planning/planned_test.h"
#include "core/stats/distributions.h"
#include "core/stats/tolerance_bounds.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <set>

namespace inchpeg
{

std::vector<RailValues> StudyResults::railValues(Method test, const Property &property) const
{
    if (values == nullptr)
        return railValuesOf(*study, *readings, test, property);
    const auto found = values->rails.find({test, std::string(property.name)});
    return found == values->rails.end() ? std::vector<RailValues>() : found->second;
}

namespace
{

constexpr double kConfidence = 0.95;
constexpr double kShareOfPieces = 0.9;
constexpr std::size_t kLeastForTolerance = 3;
constexpr std::size_t kMostKeptFactors = 32;

constexpr std::array<std::string_view, 5> kNamesOfMaterial = {"polymer", factor::kMaterial, factor::kLot,
                                                              factor::kColour, factor::kOrientation};

std::string nameOf(const Study &study, const Condition &condition)
{
    std::string name = condition.material;
    for (std::size_t i = 0; i < study.factors.size() && i < condition.levels.size(); ++i) {
        const Factor &factor = study.factors[i];
        const bool isMaterial = std::find(kNamesOfMaterial.begin(), kNamesOfMaterial.end(), factor.name) !=
                                kNamesOfMaterial.end();
        if (isMaterial && !condition.material.empty())
            continue;
        name += fmt::format("{}{} {}", name.empty() ? "" : " · ", factor.name,
                            levelText(factor, condition.levels[i]));
    }
    return name;
}

/// What a study held fixed, by name; the printer among it.
std::map<std::string, std::string> heldBy(const Study &study)
{
    std::map<std::string, std::string> held;
    for (const LockedSetting &setting : study.plan.locked)
        held[setting.name] = setting.value;
    if (!study.plan.print.printer.empty())
        held["printer"] = study.plan.print.printer;
    return held;
}

/// Of one name, but of studies that held something fixed at different values: these are not the same
/// candidate. Each is named by what differs; a study that does not say is one of its own.
std::vector<Candidate> toldApart(const Candidate &all, std::span<const StudyResults> results)
{
    std::map<std::string, std::set<std::string>> values;
    for (const CandidateRail &rail : all.rails) {
        for (const auto &[name, value] : heldBy(*results[rail.study].study))
            values[name].insert(value);
    }
    std::erase_if(values, [](const auto &one) { return one.second.size() < 2; });
    std::vector<Candidate> apart;
    for (const CandidateRail &rail : all.rails) {
        const std::map<std::string, std::string> held = heldBy(*results[rail.study].study);
        std::string name = all.name;
        for (const auto &[setting, unused] : values) {
            const auto said = held.find(setting);
            name += fmt::format(" · {} {}", setting, said == held.end() ? "not said" : said->second);
        }
        auto known =
            std::find_if(apart.begin(), apart.end(), [&](const Candidate &one) { return one.name == name; });
        if (known == apart.end()) {
            apart.push_back({name, all.material, {}, {}});
            known = apart.end() - 1;
        }
        known->rails.push_back(rail);
    }
    return apart;
}

/// The rails of a candidate that answer a need, with the values of all of them together.
struct Found {
    std::vector<double> values;
    std::map<std::size_t, std::vector<double>> byStudy; ///< the same, by the place of their study
    std::map<std::size_t, StudyRail> rails;             ///< of each study of this project, one
    bool isBound = false;
    bool isBeyondData = false;
    bool tooFar = false; ///< some were left out, of which nothing can be foretold
    std::string study;
    std::string note;
};

/// Whether the test of a study was made as the need asks.
bool isAsked(const Study &study, const Need &need, Method test)
{
    if (!need.load_MPa || !isReadUnderLoad(test))
        return true;
    const StudyTest *planned = findTest(study, test);
    return planned != nullptr && isSameLoad(planned->setup.stress_MPa, *need.load_MPa);
}

/// The creep strain of a piece after so many hours: by its readings where they reach the time, else by the
/// laws that they bear out. Nothing where neither says anything useful.
struct CreepAtTime {
    std::optional<double> strain;
    bool isBeyondData = false;
};

CreepAtTime creepAfter(const PieceReading &reading, double after_h)
{
    const std::size_t loaded = std::min(reading.outline.breakAt + 1, reading.outline.x.size());
    std::vector<double> time_h;
    for (std::size_t i = 0; i < loaded; ++i)
        time_h.push_back(reading.outline.x[i] / kSecondsPerHour);
    const std::span<const double> strain = std::span(reading.outline.y).first(loaded);
    const std::optional<CreepForecaster> laws = CreepForecaster::of(time_h, strain);
    if (laws) {
        const CreepForecast forecast = laws->at(after_h);
        if (forecast.halfWidth() > kWidestForecast)
            return {std::nullopt, true};
        return {forecast.strain, !forecast.isSeen};
    }
    if (loaded > 0 && time_h.back() >= after_h)
        return {strain.back(), false};
    return {};
}

void gather(Found &found, const StudyResults &results, const CandidateRail &rail, const Need &need,
            const NeedTarget &target)
{
    const Study &study = *results.study;
    if (!target.test || findTest(study, *target.test) == nullptr || !isAsked(study, need, *target.test))
        return;
    const StudyComparison comparison =
        compareStudy(study, *results.readings, target.property,
                     {.test = *target.test, .detail = ComparisonDetail::Values});
    const auto own = std::find_if(comparison.rails.begin(), comparison.rails.end(),
                                  [&](const RailComparison &one) { return one.condition == rail.condition; });
    if (own == comparison.rails.end())
        return;
    for (const PieceValue &value : own->values) {
        if (!value.counts())
            continue;
        double number = value.value;
        if (need.kind == NeedKind::Creep) {
            const PieceReading *reading = readingOf(*results.readings, value.piece);
            const CreepAtTime later = reading == nullptr ? CreepAtTime{} : creepAfter(*reading, need.after_h);
            if (!later.strain) {
                found.tooFar = found.tooFar || later.isBeyondData;
                continue;
            }
            number = *later.strain;
            found.isBeyondData = found.isBeyondData || later.isBeyondData;
        }
        found.values.push_back(number);
        found.byStudy[rail.study].push_back(number);
        if (!results.isOfLibrary)
            found.rails[rail.study] = {study.id, rail.condition};
        found.isBound = found.isBound || value.atLeast;
        if (found.study.find(study.question) == std::string::npos)
            found.study += (found.study.empty() ? "" : "; ") + study.question;
    }
    if (own->apart > 0)
        found.note = fmt::format("{} of another kind of break kept apart", own->apart);
}

/// What single pieces, or their mean, surely keep to. Pieces of several studies are no sample of one
/// population: what differed between the studies does not average out, so the weakest study is what can be
/// relied on.
void addBound(Evidence &evidence, const Found &found, const NeedTarget &target)
{
    bool isTooFew = false;
    for (const auto &[study, values] : found.byStudy) {
        const Summary summary = summarise(values);
        const PieceSample sample{summary.mean.value_or(0.0), summary.sd.value_or(0.0), summary.n};
        const std::optional<SampleBounds> bounds = boundsOfSample(sample, target);
        if (!bounds) {
            isTooFew = true;
            continue;
        }
        const bool isWeaker = !evidence.sure || (target.isAtLeast ? bounds->sure < *evidence.sure
                                                                  : bounds->sure > *evidence.sure);
        if (isWeaker) {
            evidence.sure = bounds->sure;
            evidence.atBest = bounds->atBest;
            evidence.judged = sample;
            const auto rail = found.rails.find(study);
            evidence.judgedRail = rail != found.rails.end() ? std::optional(rail->second) : std::nullopt;
        }
    }
    evidence.sureOf =
        target.isEachPiece ? "nine in ten pieces, 95 % sure, reach" : "the mean, 95 % sure, reaches";
    if (isTooFew && found.byStudy.size() == 1 && target.isEachPiece)
        evidence.note = "too few pieces to say what nine in ten bear";
    if (found.byStudy.size() > 1 && evidence.judged)
        evidence.note = fmt::format("of {} studies the weakest decides, {} pieces", found.byStudy.size(),
                                    evidence.judged->n);
}

std::optional<Evidence> measured(const Candidate &candidate, const Need &need, const NeedTarget &target,
                                 std::span<const StudyResults> results)
{
    Found found;
    for (const CandidateRail &rail : candidate.rails)
        gather(found, results[rail.study], rail, need, target);
    if (found.values.empty())
        return std::nullopt;
    const Summary summary = summarise(found.values);
    Evidence evidence;
    evidence.kind = EvidenceKind::Measured;
    evidence.value = target.property.scale == Scale::Ordinal ? summary.median : summary.mean;
    evidence.n = summary.n;
    evidence.sd = summary.sd.value_or(0.0);
    evidence.ci = summary.ci;
    evidence.isBound = found.isBound;
    evidence.isBeyondData = found.isBeyondData;
    evidence.study = found.study;
    evidence.note = found.note;
    evidence.method = methodName(*target.test);
    if (hasMean(target.property) && !found.isBound)
        addBound(evidence, found, target);
    const auto addNote = [&](std::string_view note) {
        evidence.note += fmt::format("{}{}", evidence.note.empty() ? "" : "; ", note);
    };
    if (found.tooFar)
        addNote("pieces left out of which nothing can be foretold so far out");
    if (found.isBeyondData)
        addNote("foretold beyond the readings");
    return evidence;
}

/// Mass, time or money of a piece, by what was weighed or by shape and settings.
std::optional<Evidence> costs(const Candidate &candidate, const Need &need,
                              std::span<const StudyResults> results, const Workshop &workshop)
{
    if (candidate.quote && need.kind == NeedKind::Price) {
        Evidence quoted;
        quoted.kind = EvidenceKind::Sheet;
        quoted.value = *candidate.quote;
        quoted.study = "quote";
        quoted.method = "quote";
        return quoted;
    }
    const CostKind kind = need.kind == NeedKind::Weight ? CostKind::PieceMass
                          : need.kind == NeedKind::Time ? CostKind::PrintTime
                                                        : CostKind::Price;
    const double toWorking = need.kind == NeedKind::Weight ? 1e-3 : need.kind == NeedKind::Time ? 60.0 : 1.0;
    for (const CandidateRail &rail : candidate.rails) {
        const Study &study = *results[rail.study].study;
        for (const RailCost &cost : railCosts(study, methodOf(study), kind, workshop)) {
            if (cost.condition != rail.condition)
                continue;
            Evidence evidence;
            evidence.kind = cost.isMeasured ? EvidenceKind::Measured : EvidenceKind::Usual;
            evidence.value = toWorking * cost.perPiece;
            evidence.study = study.question;
            evidence.note = fmt::format("of a {} of this study", methodName(methodOf(study)));
            evidence.method = cost.isMeasured ? "weighed" : "estimated from shape and settings";
            return evidence;
        }
    }
    return std::nullopt;
}

std::optional<Evidence> fromSheet(const Candidate &candidate, const Need &need, const NeedTarget &target,
                                  const Workshop &workshop)
{
    const SpoolCard *spool = findSpool(workshop, candidate.material);
    if (spool == nullptr || need.kind == NeedKind::Layers || need.kind == NeedKind::Creep)
        return std::nullopt; // sheets are of moulded or flat bars
    for (const SheetValue &sheet : spool->sheet) {
        const Result<double> value = parseQuantity(fmt::format("{} {}", sheet.value, sheet.unit),
                                                   workingUnit(target.property.dimension));
        if (!isSheetNameOf(sheet.property, target.property) || !value || sheet.annealed ||
            sheet.orientation == orientationName(Orientation::Standing))
            continue;
        const Result<double> load =
            parseQuantity(sheet.load.empty() ? "none" : sheet.load, workingUnit(Dimension::Stress));
        if (need.load_MPa && (!load || !isSameLoad(*load, *need.load_MPa)))
            continue;
        Evidence evidence;
        evidence.kind = EvidenceKind::Sheet;
        evidence.value = *value;
        evidence.study = "data sheet";
        evidence.method = sheet.standard;
        evidence.note = "a maker's value, without pieces or scatter";
        return evidence;
    }
    return std::nullopt;
}

std::optional<Evidence> usual(const Candidate &candidate, const Need &need)
{
    const PolymerGuess polymer = polymerIn(candidate.material.empty() ? candidate.name : candidate.material);
    if (!polymer.isKnown)
        return std::nullopt;
    const std::optional<double> value = usualFor(*polymer.facts, need);
    if (!value)
        return std::nullopt;
    Evidence evidence;
    evidence.kind = EvidenceKind::Usual;
    evidence.value = *value;
    evidence.study = fmt::format("usual for {}", polymer.facts->name);
    evidence.note = "a rough order, nothing measured";
    return evidence;
}

/// 1 where the printer can, 0 where it cannot, with what is missing.
std::optional<Evidence> printable(const Candidate &candidate, const Need &need)
{
    const PolymerGuess polymer = polymerIn(candidate.material.empty() ? candidate.name : candidate.material);
    if (!polymer.isKnown)
        return std::nullopt;
    const PrinterWants wants = printerWants(*polymer.facts);
    std::string missing;
    const auto lacks = [&](bool isMissing, const std::string &what) {
        if (isMissing)
            missing += (missing.empty() ? "" : ", ") + what;
    };
    lacks(wants.nozzle_C > need.printer.nozzle_C, fmt::format("a nozzle at {:g} °C", wants.nozzle_C));
    lacks(wants.chamber && !need.printer.hasChamber, "a heated chamber");
    lacks(wants.hardNozzle && !need.printer.hasHardNozzle, "a hardened nozzle");
    lacks(wants.drying && !need.printer.canDry, "drying before and while it prints");
    Evidence evidence;
    evidence.kind = EvidenceKind::Usual;
    evidence.value = missing.empty() ? 1.0 : 0.0;
    evidence.study = fmt::format("usual for {}", polymer.facts->name);
    evidence.note = missing.empty() ? std::string() : "wants " + missing;
    return evidence;
}

} // namespace

std::string_view evidenceName(EvidenceKind kind)
{
    switch (kind) {
    case EvidenceKind::Measured:
        return "measured";
    case EvidenceKind::Sheet:
        return "sheet";
    case EvidenceKind::Usual:
        return "usual";
    case EvidenceKind::None:
        return "none";
    }
    throw ContractViolation("unknown kind of evidence");
}

std::vector<Candidate> candidatesOf(std::span<const StudyResults> results, const Needs &needs)
{
    std::vector<Candidate> all;
    const auto named = [&](const std::string &name) {
        return std::find_if(all.begin(), all.end(), [&](const Candidate &one) { return one.name == name; });
    };
    for (std::size_t s = 0; s < results.size(); ++s) {
        for (const Condition &condition : results[s].study->conditions) {
            const std::string name = nameOf(*results[s].study, condition);
            if (name.empty())
                continue;
            auto known = named(name);
            if (known == all.end()) {
                all.push_back({name, condition.material, {}, {}});
                known = all.end() - 1;
            }
            known->rails.push_back({s, condition.id});
        }
    }
    std::vector<Candidate> apart;
    for (const Candidate &one : all) {
        for (Candidate &each : toldApart(one, results))
            apart.push_back(std::move(each));
    }
    all = std::move(apart);
    for (const std::string &material : needs.materials) {
        if (named(material) == all.end())
            all.push_back({material, material, {}, {}});
    }
    for (const BoughtPart &part : needs.bought) {
        if (named(part.name) == all.end())
            all.push_back({part.name, {}, {}, part.price});
    }
    if (!needs.candidates.empty())
        std::erase_if(all, [&](const Candidate &one) {
            return std::find(needs.candidates.begin(), needs.candidates.end(), one.name) ==
                   needs.candidates.end();
        });
    return all;
}

std::optional<SampleBounds> boundsOfSample(const PieceSample &sample, const NeedTarget &target)
{
    const std::size_t least = target.isEachPiece ? kLeastForTolerance : 2;
    if (sample.n < least || !(sample.sd > 0.0))
        return std::nullopt;
    const double side = target.isAtLeast ? -1.0 : 1.0;
    if (target.isEachPiece) {
        // The factors depend on nothing but the number of pieces, and are dear.
        static const std::array<std::pair<double, double>, kMostKeptFactors> kept = [] {
            std::array<std::pair<double, double>, kMostKeptFactors> factors;
            for (std::size_t n = kLeastForTolerance; n < kMostKeptFactors; ++n)
                factors[n] = {safeToleranceFactor(n), leastToleranceFactor(n, kShareOfPieces)};
            return factors;
        }();
        const auto [sure, atBest] =
            sample.n < kMostKeptFactors
                ? kept[sample.n]
                : std::pair(safeToleranceFactor(sample.n), leastToleranceFactor(sample.n, kShareOfPieces));
        return SampleBounds{sample.mean + side * sure * sample.sd, sample.mean + side * atBest * sample.sd};
    }
    const auto n = static_cast<double>(sample.n);
    const double half = studentQuantile(kConfidence, n - 1.0) * sample.sd / std::sqrt(n);
    return SampleBounds{sample.mean + side * half, sample.mean - side * half};
}

Evidence evidenceFor(const Candidate &candidate, const Need &need, std::span<const StudyResults> results,
                     const Workshop &workshop)
{
    const NeedTarget target = targetOf(need);
    std::optional<Evidence> found;
    switch (need.kind) {
    case NeedKind::Never:
        break;
    case NeedKind::Printer:
        found = printable(candidate, need);
        break;
    case NeedKind::Weight:
    case NeedKind::Time:
    case NeedKind::Price:
        found = costs(candidate, need, results, workshop);
        break;
    default:
        found = measured(candidate, need, target, results);
        if (!found)
            found = fromSheet(candidate, need, target, workshop);
        if (!found)
            found = usual(candidate, need);
    }
    return found.value_or(Evidence{});
}

} // namespace inchpeg
