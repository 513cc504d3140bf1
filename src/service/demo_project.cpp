// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/demo_project.h"

#include "core/study/study_edit.h"
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
                    addCondition(study, {{}, rail.level, rail.orientation, rail.material}, ids);
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

private:
    Status breakPiece(Piece &piece, const StudyPlan &plan, const RailPlan &rail, sim::Random &random,
                      std::uint64_t seed)
    {
        const RectangularSection section{millimetres(measured_mm(plan.width_mm, random)),
                                         millimetres(measured_mm(plan.thickness_mm, random))};
        piece.section = section;
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
    plan.study.factorName = "nozzle temperature";
    plan.study.factorUnit = "°C";
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
    plan.study.factorName = "polymer";
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
    plan.study.factorName = "lot";
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

} // namespace

Status writeDemoProject(const std::string &path)
{
    Result<ProjectFile> project = ProjectFile::create(path);
    if (!project)
        return project.error();
    DemoWriter writer(*project);
    if (const Status status = writer.write(layerStudy(), leaveOneOut); !status)
        return status;
    if (const Status status = writer.write(polymerStudy(), {}); !status)
        return status;
    return writer.write(lotStudy(), {});
}

} // namespace inchpeg
