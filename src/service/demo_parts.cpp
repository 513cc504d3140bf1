// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/demo_parts.h"

#include "core/model/study_edit.h"
#include "core/specimen/shape.h"
#include "service/demo_typing.h"
#include "sim/record_writer.h"
#include "sim/virtual_judgement.h"
#include "sim/virtual_load.h"

#include <fmt/format.h>

#include <array>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kGaugeEnd_N = 500.0;
constexpr sim::Rig kHandGauge{.slack_mm = 0.1,
                              .forceNoise_N = 0.4,
                              .resolution_N = 0.2,
                              .capacity_N = kGaugeEnd_N,
                              .speed_mm_per_s = 0.1,
                              .rate_Hz = 10.0};

/// Fills the pieces of a study with records, rail by rail.
class PartsWriter
{
public:
    explicit PartsWriter(ProjectFile &project) : m_project(project) {}

    Status addRail(Study &study, std::vector<std::string> levels, const std::string &material,
                   Orientation orientation = Orientation::Flat)
    {
        return addCondition(study, {{}, std::move(levels), orientation, material},
                            [this] { return m_project.takeId(); });
    }

    Status keep(Piece &piece, const std::string &name, const std::string &bytes)
    {
        const Result<AddedRawFile> added = m_project.addRawFile(name, bytes);
        if (!added)
            return added.error();
        piece.recording = Recording{added->id, {}};
        return ok();
    }

    StudyId takeStudyId() { return StudyId{m_project.takeId()}; }
    Status save(const Study &study) { return m_project.save({std::nullopt, study}); }

private:
    ProjectFile &m_project;
};

std::string curveBytes(const sim::LoadedPiece &piece, std::uint64_t seed)
{
    return sim::recordBytes(sim::loadUntilItLetsGo(piece, kHandGauge, seed), sim::Dialect::CommaUtf8, "");
}

// ---- Inserts of the lid latch

struct Setting {
    const char *temperature;
    const char *load;
    double share; ///< of the best
    const char *looks[3];
};

/// Cool and pressed hard the insert shears its way in and holds little; hot and light it sinks into molten
/// walls.
constexpr Setting kSettings[] = {
    {"220", "10", 0.80, {"insert-out", "insert-out", "insert-with-boss"}},
    {"220", "40", 0.62, {"insert-out", "insert-out", "split"}},
    {"260", "10", 1.00, {"insert-with-boss", "insert-with-boss", "insert-with-boss"}},
    {"260", "40", 0.91, {"insert-with-boss", "insert-out", "insert-with-boss"}},
};

Status writeInserts(PartsWriter &writer)
{
    Study study;
    study.id = writer.takeStudyId();
    study.question = "Which way of setting the insert of the lid latch holds most?";
    study.factors = {{std::string(factor::kSettingTemperature), "°C", ChangedPer::Piece},
                     {std::string(factor::kSettingLoad), "N", ChangedPer::Piece},
                     {std::string(factor::kMaterial), "", ChangedPer::Plate}};
    StudyTest &test = firstTest(study);
    test.method = Method::PullOut;
    test.piecesPerCondition = 3;
    test.setup.rig = "hand gauge 500 N";
    test.setup.settings.numbers = {{"diameter", 4.6}, {"depth", 6.0}, {"capacity", kGaugeEnd_N}};
    struct Latch {
        const char *name;
        const char *material;
        double best_N;
    };
    constexpr Latch kLatches[] = {{"glycol polyester", "glycol-modified polyester, lot Heather 7", 395.0},
                                  {"styrenic", "styrenic, lot Bramble 12", 310.0}};
    sim::Random random(151);
    std::uint64_t seed = 151000;
    for (const Latch &latch : kLatches) {
        for (const Setting &setting : kSettings) {
            if (const Status added =
                    writer.addRail(study, {setting.temperature, setting.load, latch.name}, latch.material);
                !added)
                return added;
            std::size_t place = 0;
            for (Piece &piece : study.pieces) {
                if (piece.condition != study.conditions.back().id)
                    continue;
                const double peak_N = sim::drawnStrength(latch.best_N * setting.share, 0.07, random);
                const Status kept = writer.keep(piece, fmt::format("insert_{}.csv", piece.code),
                                                curveBytes({peak_N, 520.0, false}, ++seed));
                if (!kept)
                    return kept;
                piece.log.breakLook = setting.looks[place++ % 3];
            }
        }
    }
    return writer.save(study);
}

// ---- Infill of the reducer block

Status writeInfill(PartsWriter &writer)
{
    Study study;
    study.id = writer.takeStudyId();
    study.question = "How much infill does the reducer block need against the hive tool?";
    study.factors = {{std::string(factor::kInfill), "%", ChangedPer::Plate}};
    study.plan.aim.comparison = Comparison::Trend;
    study.plan.locked = {{std::string(factor::kWalls), "2"}, {std::string(factor::kInfillPattern), "grid"}};
    StudyTest &test = firstTest(study);
    test.method = Method::Puncture;
    test.piecesPerCondition = 3;
    test.setup.rig = "hand gauge 500 N";
    test.setup.settings.numbers = {{"probe_diameter", 4.0}, {"capacity", kGaugeEnd_N}};
    sim::Random random(163);
    std::uint64_t seed = 163000;
    constexpr double kSolid_g = 10.2;
    for (int infill = 10; infill <= 90; infill += 10) {
        if (const Status added =
                writer.addRail(study, {std::to_string(infill)}, "glycol-modified polyester, lot Heather 7");
            !added)
            return added;
        for (Piece &piece : study.pieces) {
            if (piece.condition != study.conditions.back().id)
                continue;
            // The gain flattens: the outer walls carry the probe once the infill holds them.
            const double mean_N = 120.0 + 430.0 * (1.0 - std::exp(-infill / 32.0));
            const double peak_N = sim::drawnStrength(mean_N, 0.06, random);
            const Status kept = writer.keep(piece, fmt::format("block_{}.csv", piece.code),
                                            curveBytes({peak_N, 260.0, false}, ++seed));
            if (!kept)
                return kept;
            const double mass_g = kSolid_g * (0.28 + 0.72 * infill / 100.0) * (1.0 + 0.006 * random.normal());
            piece.log.mass_g = std::round(mass_g * 100.0) / 100.0;
            piece.log.breakLook = peak_N >= kGaugeEnd_N ? "" : infill < 40 ? "pierced" : "crushed";
        }
    }
    return writer.save(study);
}

// ---- A temperature tower of the latch's lug

struct TowerLevel {
    const char *nozzle_C;
    double feel;
    sim::PrintQuality quality;
};

constexpr TowerLevel kTower[] = {
    {"225", 1.4, {4.8, 4.6, 4.6, 4.2, 4.4, 0.15}}, {"235", 2.6, {4.7, 4.5, 4.4, 4.6, 4.6, 0.10}},
    {"245", 4.1, {4.8, 4.7, 4.6, 4.8, 4.8, 0.10}}, {"255", 4.4, {3.1, 3.4, 3.3, 4.2, 4.7, 0.10}},
    {"265", 4.3, {1.8, 2.2, 2.3, 3.1, 4.6, 0.15}},
};

Status writeTower(PartsWriter &writer)
{
    Study study;
    study.id = writer.takeStudyId();
    study.question = "How cool may the lug of the latch be printed, by feel and by eye?";
    study.factors = {{std::string(factor::kNozzleTemperature), "°C", ChangedPer::Plate}};
    TestSetup feel;
    feel.shape = *findShape("standing-mini");
    feel.settings.words = {{"manner", "pliers"}};
    study.tests = {{Method::ByFeel, 6, feel}, {Method::PrintOutcome, 4, {}}};
    std::uint64_t seed = 177000;
    for (const TowerLevel &level : kTower) {
        if (const Status added = writer.addRail(
                study, {level.nozzle_C}, "glycol-modified polyester, lot Heather 7", Orientation::Standing);
            !added)
            return added;
        for (Piece &piece : study.pieces) {
            if (piece.condition != study.conditions.back().id)
                continue;
            const bool isFelt = piece.test == Method::ByFeel;
            const std::string table =
                isFelt ? sim::feelTable(level.feel, ++seed) : sim::outcomeTable(level.quality, ++seed);
            const Status kept = writer.keep(
                piece, fmt::format("{}_{}.txt", isFelt ? "felt" : "seen", piece.code),
                demoTypedRecord(piece.test, piece.code, table, ',', isFelt ? "by feel, blind" : "looked at"));
            if (!kept)
                return kept;
        }
    }
    return writer.save(study);
}

} // namespace

Status writeDemoParts(ProjectFile &project)
{
    PartsWriter writer(project);
    for (Status (*write)(PartsWriter &) : {writeInserts, writeInfill, writeTower}) {
        if (const Status written = write(writer); !written)
            return written;
    }
    return ok();
}

} // namespace inchpeg
