// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/demo_project.h"

#include "core/model/study_edit.h"
#include "service/demo_battery.h"
#include "service/demo_log.h"
#include "service/demo_parts.h"
#include "service/workshop_setting.h"
#include "sim/random.h"
#include "sim/record_writer.h"
#include "sim/virtual_specimen.h"
#include "store/project_file.h"

#include <fmt/format.h>

#include <cmath>

namespace inchpeg
{

namespace
{

using sim::Dialect;

/// What the demo does to one rail.
struct RailPlan {
    std::string level;
    Orientation orientation = Orientation::Flat;
    std::string material;
    const sim::Polymer *polymer = nullptr;
    sim::PrintCondition print;
    Dialect dialect = Dialect::CommaUtf8;
    int broken = 0; ///< how many of the pieces have been tested
};

struct StudyPlan {
    Study study; ///< without conditions
    double width_mm = 0.0;
    double thickness_mm = 0.0;
    sim::Rig rig;
    std::vector<RailPlan> rails;
    std::uint64_t seed = 0;
};

/// A calliper reading near the nominal size, to a hundredth.
double measured_mm(double nominal_mm, sim::Random &random)
{
    return std::round((nominal_mm + 0.03 * random.normal()) * 100.0) / 100.0;
}

class DemoWriter
{
public:
    explicit DemoWriter(ProjectFile &project) : m_project(project) {}

    Status write(const StudyPlan &plan, const std::function<void(Study &)> &afterwards)
    {
        Study study = plan.study;
        study.id = StudyId{m_project.takeId()};
        const IdSource ids = [this] { return m_project.takeId(); };
        sim::Random random(plan.seed);
        std::uint64_t pieceSeed = plan.seed * 1000;
        for (const RailPlan &rail : plan.rails) {
            if (const Status status =
                    addCondition(study, {{}, {rail.level}, rail.orientation, rail.material}, ids);
                !status)
                return status;
            const ConditionId condition = study.conditions.back().id;
            int number = 0;
            for (Piece &piece : study.pieces) {
                if (piece.condition != condition || number++ >= rail.broken)
                    continue;
                if (const Status status = breakPiece(piece, plan, rail, random, ++pieceSeed); !status)
                    return status;
            }
        }
        if (afterwards)
            afterwards(study);
        return m_project.save({std::nullopt, study});
    }

    [[nodiscard]] ProjectFile &project() { return m_project; }

private:
    Status breakPiece(Piece &piece, const StudyPlan &plan, const RailPlan &rail, sim::Random &random,
                      std::uint64_t seed)
    {
        const RectangularSection section{millimetres(measured_mm(plan.width_mm, random)),
                                         millimetres(measured_mm(plan.thickness_mm, random))};
        piece.section = section;
        piece.log.sizes.width_mm = {in_mm(section.width)};
        piece.log.sizes.thickness_mm = {in_mm(section.thickness)};
        const ForceCurve curve =
            sim::pull(*rail.polymer, rail.print, section.width * section.thickness, plan.rig, seed);
        const std::string name =
            fmt::format("{}_{}.csv", methodOf(plan.study) == Method::Tension ? "pull" : "layers", piece.code);
        const Result<AddedRawFile> added =
            m_project.addRawFile(name, sim::recordBytes(curve, rail.dialect, piece.code));
        if (!added)
            return added.error();
        piece.recording = Recording{added->id, {}};
        return ok();
    }

    ProjectFile &m_project;
};

constexpr const char *kHeatherLot = "glycol-modified polyester, lot Heather 7";

StudyPlan layerStudy()
{
    StudyPlan plan;
    plan.study.question = "Do hotter layers of the frame-rest lug hold better?";
    firstTest(plan.study).method = Method::LayerAdhesion;
    plan.study.factors.front().name = "nozzle temperature";
    plan.study.factors.front().unit = "°C";
    firstTest(plan.study).piecesPerCondition = 6;
    firstTest(plan.study).setup.settings.numbers["gauge_length"] = 25.0;
    firstTest(plan.study).setup.settings.numbers["capacity"] = 2000.0;
    plan.width_mm = 5.0;
    plan.thickness_mm = 4.0;
    plan.rig = {.gaugeLength_mm = 25.0,
                .slack_mm = 0.03,
                .forceNoise_N = 0.4,
                .resolution_N = 0.1,
                .capacity_N = 2000.0,
                .speed_mm_per_s = 1.0 / 60.0,
                .rate_Hz = 20.0};
    const sim::Polymer &polymer = sim::glycolPolyester();
    for (const double nozzle_C : {230.0, 240.0, 250.0, 260.0}) {
        plan.rails.push_back({fmt::format("{:g}", nozzle_C),
                              Orientation::Standing,
                              kHeatherLot,
                              &polymer,
                              {true, nozzle_C, 0.3},
                              nozzle_C < 245.0 ? Dialect::CommaUtf8 : Dialect::SemicolonComma,
                              6});
    }
    plan.rails.push_back(
        {"250", Orientation::Flat, kHeatherLot, &polymer, {false, 250.0, 0.3}, Dialect::TabUtf16, 6});
    plan.seed = 41;
    return plan;
}

/// What was planned for it, all of it printed long ago.
void planLayers(Study &study)
{
    study.plan.locked = {{std::string(factor::kPartCooling), "30 %"},
                         {std::string(factor::kWalls), "4"},
                         {std::string(factor::kInfill), "100 %"}};
    TestSetup &setup = firstTest(study).setup;
    setup.shape = *findShape("standing-mini");
    setup.shape.key = "own";
    setup.shape.name = "lug dog-bone";
    setup.shape.gaugeLength_mm = 25.0;
    setup.shape.parallel_mm = 26.0;
    setup.shape.length_mm = 60.0;
    setup.rig = "test frame 2 kN";
}

void leaveOneOut(Study &study)
{
    Piece &slipped = study.pieces[9];
    slipped.exclusion = Exclusion{"slipped in the grips: the force falls back twice on the way up",
                                  "M. Quillfeather", "2026-05-12T09:40:00Z"};
    slipped.log.breakLook = "slipped";
}

/// What the breaks looked like: the hotter, the less a single weld lets go.
void lookAtBreaks(Study &study)
{
    constexpr const char *kLooks[][2] = {{"one-plane", "one-plane"},
                                         {"one-plane", "two-layers"},
                                         {"two-layers", "torn"},
                                         {"torn", "two-layers"},
                                         {"torn", "torn"}};
    for (std::size_t i = 0; i < study.pieces.size(); ++i) {
        Piece &piece = study.pieces[i];
        if (piece.recording && piece.log.breakLook.empty())
            piece.log.breakLook = kLooks[i / 6 % std::size(kLooks)][i % 3 == 0 ? 1 : 0];
    }
}

StudyPlan polymerStudy()
{
    StudyPlan plan;
    plan.study.question = "Which polymer for the frame rest holds most, printed flat?";
    firstTest(plan.study).method = Method::Tension;
    plan.study.factors.front().name = "polymer";
    firstTest(plan.study).piecesPerCondition = 5;
    firstTest(plan.study).setup.settings.numbers["gauge_length"] = 50.0;
    firstTest(plan.study).setup.settings.numbers["capacity"] = 2000.0;
    plan.width_mm = 10.0;
    plan.thickness_mm = 3.8;
    plan.rig = {.gaugeLength_mm = 50.0,
                .slack_mm = 0.05,
                .forceNoise_N = 0.6,
                .resolution_N = 0.2,
                .capacity_N = 2000.0,
                .speed_mm_per_s = 5.0 / 60.0,
                .rate_Hz = 20.0};
    const auto rail = [](std::string level, const sim::Polymer &polymer, Dialect dialect, int broken) {
        return RailPlan{std::move(level),
                        Orientation::Flat,
                        std::string(polymer.name),
                        &polymer,
                        {false, 0.0, 0.5},
                        dialect,
                        broken};
    };
    plan.rails = {rail("glycol polyester", sim::glycolPolyester(), Dialect::PoundsInches, 5),
                  rail("low-heat polyester", sim::lowHeatPolyester(), Dialect::TabUtf16, 5),
                  rail("styrenic", sim::styrenic(), Dialect::GroupedThousands, 5),
                  rail("polyamide", sim::polyamide(), Dialect::SemicolonComma, 5)};
    plan.seed = 57;
    return plan;
}

StudyPlan lotStudy()
{
    StudyPlan plan;
    plan.study.question = "Is the cheaper heather lot as strong as the meadow lot?";
    firstTest(plan.study).method = Method::Tension;
    plan.study.factors.front().name = "lot";
    firstTest(plan.study).piecesPerCondition = 3;
    firstTest(plan.study).setup.settings.numbers["grip_distance"] = 80.0;
    plan.width_mm = 6.0;
    plan.thickness_mm = 3.0;
    plan.rig = {.gaugeLength_mm = 80.0,
                .slack_mm = 0.1,
                .forceNoise_N = 1.0,
                .resolution_N = 1.0,
                .capacity_N = 0.0,
                .speed_mm_per_s = 5.0 / 60.0,
                .rate_Hz = 10.0};
    const sim::Polymer &polymer = sim::lowHeatPolyester();
    plan.rails = {
        {"Meadow 3", Orientation::Flat, "low-heat polyester", &polymer, {}, Dialect::KilogramForceSpaces, 2},
        {"Heather 9",
         Orientation::Flat,
         "low-heat polyester",
         &polymer,
         {},
         Dialect::KilogramForceSpaces,
         2}};
    plan.seed = 73;
    return plan;
}

constexpr const char *kBrambleLot = "styrenic, lot Bramble 12";

/// Planned, not printed yet: with a confound that the plan shows.
StudyPlan chamberStudy(const std::string &today)
{
    StudyPlan plan;
    plan.study.question = "Does a warm chamber make the layers of the lid latch hold better?";
    firstTest(plan.study).method = Method::LayerAdhesion;
    plan.study.factors = {{std::string(factor::kChamberMode), "", ChangedPer::Plate}};
    firstTest(plan.study).piecesPerCondition = 6;
    plan.study.smallestDifference = 0.15;
    firstTest(plan.study).setup.settings.numbers["grip_distance"] = 20.0;
    firstTest(plan.study).setup.settings.numbers["capacity"] = 500.0;
    Plan &details = plan.study.plan;
    details.locked = {{std::string(factor::kAuxiliaryFan), "70 %"},
                      {std::string(factor::kNozzleTemperature), "255 °C"},
                      {std::string(factor::kWalls), "4"},
                      {std::string(factor::kInfill), "100 %"},
                      {std::string(factor::kLayerHeight), "0.2 mm"}};
    firstTest(plan.study).setup.shape = *findShape("standing-mini");
    firstTest(plan.study).setup.rig = "hand gauge 500 N";
    details.aim.spares = 1;
    details.dates.start = today;
    for (const char *level : {"open", "closed", "heated"})
        plan.rails.push_back({level, Orientation::Standing, kBrambleLot, &sim::styrenic(), {}, {}, 0});
    plan.seed = 89;
    return plan;
}

/// What the demo's own workshop holds beside the usual rigs.
Workshop demoWorkshop(ProjectFile &project)
{
    Workshop workshop = workshopOf(project).value();
    workshop.printers = {{"shed printer", 220.0, 220.0, 250.0, false, 8.0, 10.0},
                         {"closed printer", 180.0, 180.0, 180.0, true, 10.0, 12.0}};
    SpoolCard heather{kHeatherLot, 1.27, 24.0, 905.0, 212.0, 65.0, 6.0, 70.0};
    heather.polymer = "glycol-modified polyester";
    heather.colour = "straw";
    heather.lot = "Heather 7";
    heather.statements = {{"nozzle", "230–250 °C", "spool", false}, {"nozzle", "220–240 °C", "box", false},
                          {"nozzle", "235–255 °C", "sheet", true},  {"bed", "75–85 °C", "spool", true},
                          {"drying", "65 °C, 6 h", "sheet", true},  {"drying", "55 °C, 8 h", "box", false}};
    heather.sheet = {{"tensile strength", 47.0, "MPa", "ISO 527", {}, "flat", false},
                     {"heat deflection", 70.0, "°C", "ISO 75", "0.45 MPa", "flat", false},
                     {"heat deflection", 64.0, "°C", "ISO 75", "1.80 MPa", "flat", false},
                     {"heat deflection", 78.0, "°C", "ISO 75", "0.45 MPa", "flat", true}};
    SpoolCard bramble{kBrambleLot, 1.04, 27.5, 412.0, 198.0, 80.0, 4.0, 75.0};
    bramble.polymer = "styrenic";
    bramble.colour = "hazel";
    bramble.lot = "Bramble 12";
    bramble.cautions = "fumes: extraction while it prints";
    workshop.spools = {heather, bramble};
    Calibration expired;
    expired.on = "2025-04-10";
    expired.due = "2026-04-10";
    expired.points = {{0.0, 0.0}, {500.0, 500.4}, {1000.0, 1000.9}, {2000.0, 2001.6}};
    expired.uncertainty_percent = 0.5;
    expired.by = "certificate 25-118";
    Calibration handGauge = expired;
    handGauge.on = "2026-02-03";
    handGauge.due = "2027-02-03";
    handGauge.points = {{0.0, 0.0}, {250.0, 249.6}, {500.0, 499.1}};
    handGauge.by = "certificate 26-031";
    for (RigCard &rig : workshop.rigs) {
        if (rig.kind == RigKind::Frame)
            rig.calibrations = {expired};
        if (rig.kind == RigKind::HandGauge)
            rig.calibrations = {handGauge};
    }
    for (GaugeCard &gauge : workshop.gauges) {
        Calibration checked;
        checked.on = "2026-01-19";
        checked.due = "2027-01-19";
        checked.points =
            gauge.kind == GaugeKind::Calliper
                ? std::vector<CalibrationPoint>{{0.0, 0.0}, {5.0, 5.0}, {25.0, 25.01}, {100.0, 100.01}}
                : std::vector<CalibrationPoint>{{0.0, 0.0}, {10.0, 10.0}, {100.0, 100.01}};
        checked.by =
            gauge.kind == GaugeKind::Calliper ? "gauge blocks, own check" : "check masses, own check";
        gauge.calibrations = {checked};
    }
    return workshop;
}

Status fillWithDemo(ProjectFile &project, const std::string &today)
{
    DemoWriter writer(project);
    const Workshop workshop = demoWorkshop(project);
    Status logged = ok();
    Study layers;
    const auto tellTheStory = [&](Study &study) {
        planLayers(study);
        logged = logTheLayers(project, study, workshop);
        leaveOneOut(study);
        lookAtBreaks(study);
        layers = study;
    };
    if (const Status status = writer.write(layerStudy(), tellTheStory); !status)
        return status;
    if (!logged)
        return logged;
    if (const Status status = mendADecimalMark(project, layers); !status)
        return status;
    if (const Status status = writer.write(polymerStudy(), {}); !status)
        return status;
    if (const Status status = writer.write(lotStudy(), {}); !status)
        return status;
    if (const Status status = writer.write(chamberStudy(today), {}); !status)
        return status;
    if (const Status status = writeDemoBattery(project, today); !status)
        return status;
    if (const Status status = writeDemoParts(project); !status)
        return status;
    return keepWorkshop(project, workshop);
}

} // namespace

Status writeDemoProject(const std::string &path, const std::string &today)
{
    Result<ProjectFile> project = ProjectFile::create(path);
    if (!project)
        return project.error();
    const Status filled = fillWithDemo(*project, today);
    if (!filled)
        ProjectFile::discard(std::move(*project));
    return filled;
}

} // namespace inchpeg
