// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/demo_project.h"

#include "core/logbook/change_log.h"
#include "core/logbook/print_record.h"
#include "core/planning/print_estimate.h"
#include "core/study/study_edit.h"
#include "core/units/number.h"
#include "service/workshop_setting.h"
#include "sim/random.h"
#include "sim/record_writer.h"
#include "sim/virtual_specimen.h"
#include "store/project_file.h"

#include <fmt/format.h>

#include <algorithm>
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
            fmt::format("{}_{}.csv", plan.study.method == Method::Tension ? "pull" : "layers", piece.code);
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
    plan.study.method = Method::LayerAdhesion;
    plan.study.factors.front().name = "nozzle temperature";
    plan.study.factors.front().unit = "°C";
    plan.study.piecesPerCondition = 6;
    plan.study.rules.gaugeLength = millimetres(25.0);
    plan.study.rules.capacity = newtons(2000.0);
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
    study.plan.setup.shape = *findShape("standing-mini");
    study.plan.setup.shape.key = "own";
    study.plan.setup.shape.name = "lug dog-bone";
    study.plan.setup.shape.gaugeLength_mm = 25.0;
    study.plan.setup.shape.parallel_mm = 26.0;
    study.plan.setup.shape.length_mm = 60.0;
    study.plan.setup.rig = "test frame 2 kN";
}

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
        record.spool = kHeatherLot;
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
}

/// Hotter nozzles lay down more: the masses move with the factor.
void weighLayers(Study &study, const Workshop &workshop)
{
    const std::vector<PlannedTest> tests = plannedTests(study);
    sim::Random random(411);
    for (Piece &piece : study.pieces) {
        const Condition &condition = *findCondition(study, piece.condition);
        const double nozzle_C = parseTypedNumber(condition.levels.front()).value_or(250.0);
        const double nominal_g = estimatePiece(study, tests.front(), condition, workshop).grams;
        const double more =
            condition.orientation == Orientation::Standing ? 0.0011 * (nozzle_C - 240.0) : 0.0;
        const double mass_g = nominal_g * (0.962 + more + 0.0025 * random.normal());
        piece.log.mass_g = std::round(mass_g * 1e3) / 1e3;
        piece.recording->gauge = usedGauge(*findRig(workshop, study.plan.setup.rig),
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

/// A slip of the decimal mark that was mended: what the history is for.
Status correctAMass(ProjectFile &project, Study study)
{
    Study slip = study;
    slip.pieces[3].log.mass_g = 10.0 * *study.pieces[3].log.mass_g;
    if (const Status saved =
            project.save({study, slip, loggedChanges(study, slip, kWho, "2026-05-08T12:20:00Z")});
        !saved)
        return saved;
    return project.save({slip, study, loggedChanges(slip, study, kWho, "2026-05-08T12:21:00Z")});
}

void leaveOneOut(Study &study)
{
    Piece &slipped = study.pieces[9];
    slipped.exclusion = Exclusion{"slipped in the grips: the force falls back twice on the way up",
                                  "M. Quillfeather", "2026-05-12T09:40:00Z"};
}

StudyPlan polymerStudy()
{
    StudyPlan plan;
    plan.study.question = "Which polymer for the frame rest holds most, printed flat?";
    plan.study.method = Method::Tension;
    plan.study.factors.front().name = "polymer";
    plan.study.piecesPerCondition = 5;
    plan.study.rules.gaugeLength = millimetres(50.0);
    plan.study.rules.capacity = newtons(2000.0);
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
    plan.study.method = Method::Tension;
    plan.study.factors.front().name = "lot";
    plan.study.piecesPerCondition = 3;
    plan.study.rules.gripDistance = millimetres(80.0);
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
    plan.study.method = Method::LayerAdhesion;
    plan.study.factors = {{std::string(factor::kChamberMode), "", ChangedPer::Plate}};
    plan.study.piecesPerCondition = 6;
    plan.study.smallestDifference = 0.15;
    plan.study.rules.gripDistance = millimetres(20.0);
    plan.study.rules.capacity = newtons(500.0);
    Plan &details = plan.study.plan;
    details.locked = {{std::string(factor::kAuxiliaryFan), "70 %"},
                      {std::string(factor::kNozzleTemperature), "255 °C"},
                      {std::string(factor::kWalls), "4"},
                      {std::string(factor::kInfill), "100 %"},
                      {std::string(factor::kLayerHeight), "0.2 mm"}};
    details.setup.shape = *findShape("standing-mini");
    details.setup.rig = "hand gauge 500 N";
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
    return workshop;
}

} // namespace

Status writeDemoProject(const std::string &path, const std::string &today)
{
    Result<ProjectFile> project = ProjectFile::create(path);
    if (!project)
        return project.error();
    DemoWriter writer(*project);
    const Workshop workshop = demoWorkshop(*project);
    Status photographed = ok();
    Study layers;
    const auto tellTheStory = [&](Study &study) {
        planLayers(study);
        printLayers(study, workshop);
        logLayers(study);
        weighLayers(study, workshop);
        photographed = photographBreaks(*project, study);
        leaveOneOut(study);
        layers = study;
    };
    if (const Status status = writer.write(layerStudy(), tellTheStory); !status)
        return status;
    if (!photographed)
        return photographed;
    if (const Status status = correctAMass(*project, layers); !status)
        return status;
    if (const Status status = writer.write(polymerStudy(), {}); !status)
        return status;
    if (const Status status = writer.write(lotStudy(), {}); !status)
        return status;
    if (const Status status = writer.write(chamberStudy(today), {}); !status)
        return status;
    return keepWorkshop(*project, workshop);
}

} // namespace inchpeg
