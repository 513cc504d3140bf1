// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/demo_log.h"

#include "core/logbook/change_log.h"
#include "core/logbook/measuring.h"
#include "core/logbook/print_record.h"
#include "core/planning/print_estimate.h"
#include "core/units/number.h"
#include "sim/random.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr const char *kWho = "M. Quillfeather";

/// The plates as they would have been laid out before anything was printed, and one piece that warped and was
/// printed again.
void printLayers(Study &study, const Workshop &workshop)
{
    Study bare = study;
    for (Piece &piece : bare.pieces) {
        piece.section.reset();
        piece.recording.reset();
        piece.log = {};
    }
    const auto printUpTo = [&](const char *when) {
        const PlateLayout layout = layOutPlates(bare, workshop);
        return markPrinted(bare, layout, layout.plates.back().number, when);
    };
    require(printUpTo("2026-05-07T16:30:00Z").has_value(), "the demo's plates are laid out");
    const PieceId warped = bare.pieces[20].id;
    require(markFailed(bare, warped,
                       {0, PrintTrouble::Warp, "a corner of its foot came off the plate", true, kWho,
                        "2026-05-08T07:10:00Z"})
                .has_value(),
            "the demo's failure");
    require(printUpTo("2026-05-08T11:45:00Z").has_value(), "the demo's reprint is laid out");
    study.plan.print.printed = bare.plan.print.printed;
    findPiece(study, warped)->log.failures = findPiece(bare, warped)->log.failures;
}

/// What was written down about the plates, and about drying and conditioning.
void logLayers(Study &study)
{
    const PlateLayout layout = layOutPlates(study, {});
    int hour = 9;
    for (const Plate &plate : layout.plates) {
        PlateRecord &record = plateRecord(study.log, plate.number);
        record.printer = "shed printer";
        record.spool = study.conditions.front().material;
        const bool second = plate.printedAt > "2026-05-08";
        record.startedAt = fmt::format("2026-05-0{}T{:02}:00", second ? 8 : 7, second ? 10 : hour);
        record.endedAt = fmt::format("2026-05-0{}T{:02}:50", second ? 8 : 7, second ? 11 : hour);
        ++hour;
        for (const ComparedSetting &setting : comparedSettings(study, plate)) {
            if (!setting.planned.empty())
                record.settings.push_back({setting.name, setting.planned, {}});
        }
        if (plate.settings == "260 °C") {
            // The hot plate was printed with more cooling, and nobody has said yet whether that was meant.
            for (RealSetting &setting : record.settings) {
                if (setting.name == factor::kPartCooling)
                    setting.value = "40 %";
            }
            record.events.push_back({PrintTrouble::Warning, record.startedAt,
                                     "the hot end's warning came on twice",
                                     "let it cool for five minutes and went on", kWho});
        }
    }
    study.log.steps.push_back({StepKind::Drying,
                               {},
                               "2026-05-06T20:00",
                               "2026-05-07T02:00",
                               6.0,
                               65.0,
                               {},
                               false,
                               {},
                               kWho,
                               "2026-05-07T06:00:00Z"});
    study.log.steps.push_back({StepKind::Conditioning,
                               {},
                               "2026-05-08T12:00",
                               "2026-05-11T08:30",
                               48.0,
                               23.0,
                               47.0,
                               false,
                               {},
                               kWho,
                               "2026-05-11T06:35:00Z"});
    TimedStep skipped;
    skipped.kind = StepKind::Annealing;
    skipped.skipped = true;
    skipped.note = "the lug is used as it is printed";
    skipped.who = kWho;
    skipped.when = "2026-05-08T11:50:00Z";
    study.log.steps.push_back(skipped);
    study.log.measuring.calliper = "callipers";
    study.log.measuring.scale = "scale 200 g";
}

/// Hotter nozzles lay down more: the masses move with the factor.
void weighLayers(Study &study, const Workshop &workshop)
{
    const std::vector<PlannedTest> tests = plannedTests(study);
    const MeasuringGauges gauges = measuringGauges(study.log.measuring, workshop, "2026-05-08");
    sim::Random random(411);
    for (Piece &piece : study.pieces) {
        const Condition &condition = *findCondition(study, piece.condition);
        const double nozzle_C = parseTypedNumber(condition.levels.front()).value_or(250.0);
        const double nominal_g = estimatePiece(study, tests.front(), condition, workshop).grams;
        const double more =
            condition.orientation == Orientation::Standing ? 0.0011 * (nozzle_C - 240.0) : 0.0;
        const double mass_g = nominal_g * (0.962 + more + 0.0025 * random.normal());
        piece.log.mass_g = std::round(mass_g * 1e3) / 1e3;
        keepGauge(piece.log, "mass", gauges.scale);
        keepGauge(piece.log, "thickness", gauges.calliper);
        keepGauge(piece.log, "width", gauges.calliper);
        piece.recording->gauge = usedGauge(*findRig(workshop, firstTest(study).setup.rig),
                                           piece.id.value % 2 == 0 ? "2026-05-12" : "2026-05-13");
    }
}

/// A made-up picture of a break along one layer: stripes of layers, the broken face lighter.
std::string breakPicture(std::uint64_t seed)
{
    constexpr int kWide = 240;
    constexpr int kHigh = 180;
    sim::Random random(seed);
    std::string picture = fmt::format("P6 {} {} 255\n", kWide, kHigh);
    for (int y = 0; y < kHigh; ++y) {
        const double layer = 0.5 + 0.5 * std::sin(y * 0.55);
        for (int x = 0; x < kWide; ++x) {
            const bool onPiece = x > 70 && x < 170;
            const double edge = 88.0 + 3.0 * std::sin(x * 0.21) + 2.0 * random.uniform();
            double grey = onPiece ? 96.0 + 38.0 * layer : 206.0;
            if (onPiece && std::abs(y - edge) < 11.0)
                grey = 226.0 - 30.0 * std::abs(std::sin(x * 0.9)); // the face that broke
            grey += 7.0 * (random.uniform() - 0.5);
            const auto channel = [&](double tint) {
                return static_cast<char>(static_cast<unsigned char>(std::clamp(grey * tint, 0.0, 255.0)));
            };
            picture += {channel(1.0), channel(0.97), channel(0.9)};
        }
    }
    return picture;
}

Status photographBreaks(ProjectFile &project, Study &study)
{
    for (const std::size_t index : {std::size_t{0}, std::size_t{9}}) {
        const std::string name = fmt::format("break_{}.ppm", study.pieces[index].code);
        const Result<AddedRawFile> added = project.addRawFile(name, breakPicture(500 + index));
        if (!added)
            return added.error();
        study.pieces[index].log.photos.push_back(
            {added->id, index == 0 ? "flat single plane at one layer" : "marks of the grips", kWho,
             "2026-05-12T09:42:00Z"});
    }
    study.pieces[9].log.note = "slipped twice before it broke; grips cleaned afterwards";
    return ok();
}

} // namespace

Status logTheLayers(ProjectFile &project, Study &study, const Workshop &workshop)
{
    printLayers(study, workshop);
    logLayers(study);
    weighLayers(study, workshop);
    return photographBreaks(project, study);
}

Status mendADecimalMark(ProjectFile &project, const Study &study)
{
    Study slip = study;
    slip.pieces[3].log.mass_g = 10.0 * *study.pieces[3].log.mass_g;
    if (const Status saved =
            project.save({study, slip, loggedChanges(study, slip, kWho, "2026-05-08T12:20:00Z")});
        !saved)
        return saved;
    return project.save({slip, study, loggedChanges(slip, study, kWho, "2026-05-08T12:21:00Z")});
}

} // namespace inchpeg
