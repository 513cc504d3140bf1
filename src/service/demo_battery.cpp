// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/demo_battery.h"

#include "core/base/utc_time.h"
#include "core/model/study_edit.h"
#include "service/demo_typing.h"
#include "sim/record_writer.h"
#include "sim/virtual_bars.h"

#include <fmt/format.h>

#include <array>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kCreepStress_MPa = 10.0;
constexpr double kWarmStress_MPa = 0.45;
constexpr double kNotch_mm = 2.0;
constexpr double kDrawnLength_mm = 80.0;
constexpr std::array kDays_h = {1.0 / 60.0, 1.0, 24.0, 48.0, 72.0, 96.0, 120.0};
constexpr std::size_t kReadSoFar = 5; ///< of the run that still goes on

const PendulumRig kHammer{0.2, 0.225, 150.0, 149.0};

struct Rail {
    const char *level;
    const sim::Polymer *polymer;
};

Study plannedBattery()
{
    Study study;
    study.question = "Which polymer for the frame rest when it is bent, struck, loaded and warm?";
    study.factors.front().name = "polymer";
    TestSetup bending;
    bending.rig = "hand gauge 500 N";
    bending.settings.numbers = {{"capacity", 500.0}};
    TestSetup impact;
    impact.rig = "pendulum 2 J";
    impact.settings.numbers = {{"mass", kHammer.mass_kg},
                               {"arm", 1e3 * kHammer.arm_m},
                               {"release", kHammer.release_deg},
                               {"free_swing", kHammer.freeSwing_deg}};
    TestSetup creep;
    creep.rig = "dead weights 10 kg";
    creep.stress_MPa = kCreepStress_MPa;
    TestSetup heat;
    heat.rig = "oven";
    heat.stress_MPa = kWarmStress_MPa;
    TestSetup shrinkage;
    shrinkage.settings.numbers = {{"nominal", kDrawnLength_mm}};
    study.tests = {{Method::Bending, 3, bending},
                   {Method::Impact, 5, impact},
                   {Method::Creep, 2, creep},
                   {Method::HeatDeflection, 2, heat},
                   {Method::Shrinkage, 2, shrinkage}};
    return study;
}

/// What one piece's test writes down.
std::string recordOf(Method method, const std::string &code, const sim::Polymer &polymer, const sim::Bar &bar,
                     bool isOver, std::uint64_t seed)
{
    switch (method) {
    case Method::Impact:
        return demoTypedRecord(method, code,
                               sim::swingTable(polymer, bar, bar.width_mm - kNotch_mm, kHammer, seed), ',',
                               "pointer");
    case Method::Creep:
        return demoTypedRecord(method, code,
                               sim::creepTable(polymer, bar, kCreepStress_MPa,
                                               std::span(kDays_h).first(isOver ? kDays_h.size() : kReadSoFar),
                                               seed),
                               ';', "dial gauge");
    case Method::Shrinkage:
        return demoTypedRecord(method, code, sim::lengthTable(polymer, kDrawnLength_mm, seed), ',',
                               "callipers");
    case Method::HeatDeflection:
        return sim::warmingTable(sim::warm(polymer, bar, kWarmStress_MPa, 160.0, seed));
    default:
        return sim::recordBytes(sim::bend(polymer, bar,
                                          {.slack_mm = 0.05,
                                           .forceNoise_N = 0.15,
                                           .resolution_N = 0.05,
                                           .capacity_N = 500.0,
                                           .speed_mm_per_s = 2.0 / 60.0,
                                           .rate_Hz = 5.0},
                                          seed),
                                sim::Dialect::CommaUtf8, "");
    }
}

/// Loaded so long ago that the reading after the last one is due this morning.
LoadedRun runSince(const std::string &today)
{
    constexpr std::int64_t kMorning_s = 9 * 3600 + 30 * 60;
    const std::int64_t morning = secondsSinceEpoch(today + "T00:00:00Z").value_or(0) + kMorning_s;
    LoadedRun run;
    run.loadedAt = utcText(morning - static_cast<std::int64_t>(3600.0 * kDays_h[kReadSoFar]));
    for (std::size_t i = 0; i < kReadSoFar; ++i)
        run.taken_s.push_back(3600.0 * kDays_h[i]);
    return run;
}

double nearly(double nominal_mm, sim::Random &random)
{
    return std::round((nominal_mm + 0.03 * random.normal()) * 100.0) / 100.0;
}

Status breakBar(ProjectFile &project, Piece &piece, const Rail &rail, sim::Random &random, bool isOver,
                std::uint64_t seed)
{
    const sim::Bar bar{nearly(10.0, random), nearly(4.0, random), 64.0};
    const RectangularSection section{millimetres(bar.width_mm), millimetres(bar.thickness_mm)};
    piece.section = section;
    piece.log.sizes.width_mm = {bar.width_mm};
    piece.log.sizes.thickness_mm = {bar.thickness_mm};
    const Method method = piece.test;
    const Result<AddedRawFile> added =
        project.addRawFile(fmt::format("{}_{}.csv", methodName(method), piece.code),
                           recordOf(method, piece.code, *rail.polymer, bar, isOver, seed));
    if (!added)
        return added.error();
    piece.recording = Recording{added->id, {}};
    return ok();
}

} // namespace

Status writeDemoBattery(ProjectFile &project, const std::string &today)
{
    Study study = plannedBattery();
    study.id = StudyId{project.takeId()};
    const IdSource ids = [&project] { return project.takeId(); };
    const Rail rails[] = {{"glycol polyester", &sim::glycolPolyester()},
                          {"low-heat polyester", &sim::lowHeatPolyester()},
                          {"styrenic", &sim::styrenic()},
                          {"polyamide", &sim::polyamide()}};
    sim::Random random(97);
    std::uint64_t seed = 97000;
    sim::Random lengths(98); // of their own: the others' numbers stay as they were
    std::uint64_t lengthSeed = 98000;
    for (const Rail &rail : rails) {
        const Status added =
            addCondition(study, {{}, {rail.level}, Orientation::Flat, std::string(rail.polymer->name)}, ids);
        if (!added)
            return added;
        const ConditionId condition = study.conditions.back().id;
        for (Piece &piece : study.pieces) {
            if (piece.condition != condition)
                continue;
            const bool isOver = &rail != std::end(rails) - 1;
            const bool isMeasured = piece.test == Method::Shrinkage;
            const Status done = breakBar(project, piece, rail, isMeasured ? lengths : random, isOver,
                                         isMeasured ? ++lengthSeed : ++seed);
            if (!done)
                return done;
            if (piece.test == Method::Creep && !isOver)
                piece.log.run = runSince(today);
        }
    }
    return project.save({std::nullopt, study});
}

} // namespace inchpeg
