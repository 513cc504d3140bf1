// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/task_runner.h"
#include "core/import/record_table.h"
#include "core/method/break_look.h"
#include "core/method/reading.h"
#include "core/method/settings.h"
#include "core/specimen/shape.h"
#include "core/units/unit.h"

#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace inchpeg
{

/// A kind of test. All can be planned; records are read of those that have a reduction.
enum class Method {
#define INCHPEG_TEST(name) name,
#include "core/method/all_tests.def"
#undef INCHPEG_TEST
};

/// What a rig reads in a test, and so what its range is compared with.
enum class LoadKind {
    Force_N,
    Energy_J,
    Torque_Nm,
    DeadMass_kg, ///< a load that is put on, not read
    None,
};

/// A property that a test answers with.
struct PlannedProperty {
    std::string_view name; ///< as in reductions
    std::string_view label;
    Dimension dimension = Dimension::Ratio;
};

/// Markers that a person placed, by name: see MarkerPlace; nothing for one that the person says is none.
using PlacedMarkers = std::map<std::string, std::optional<double>, std::less<>>;

/// Where a person placed a marker whose place is a sample; nothing where none was placed.
std::optional<std::size_t> placedSample(const PlacedMarkers &placed, std::string_view name);

/// How the records of a test are read. The arithmetic stands in a typed function of its own; read() hands it
/// what the description names, and puts what it yields into a Reading.
struct Reduction {
    std::string_view command; ///< reduce COMMAND
    std::string_view summary; ///< "read tension and layer-adhesion records"
    /// Rises whenever the same record and settings would give other numbers than before, so that readings
    /// which were kept from an earlier version are made again.
    int version = 1;
    std::span<const Property> properties;
    std::span<const Parameter> parameters;
    /// Of its record. Empty: a record is a row, or several, of values of the parameters.
    std::span<const RecordColumn> columns;
    std::span<const MarkerKind> markers;
    /// Whether the settings alone can be read by: read() asks it too.
    /// Errors: InvalidArgument that names what is missing or makes no sense.
    Status (*check)(const MethodSettings &settings) = nullptr;
    /// table: of the columns; settings: checked by setTyped(). Errors: those of check() and of the reduction.
    Result<Reading> (*read)(RecordTable table, const MethodSettings &settings, const PlacedMarkers &placed,
                            const TaskRunner &run) = nullptr;
    /// What must be said for a file on the command line beyond what is required anyhow; may be nullptr.
    Status (*checkForFile)(const RecordTable &table, const MethodSettings &settings) = nullptr;
};

/// Errors: NotFound with the names there are.
Result<Property> findProperty(const Reduction &reduction, std::string_view name);

/// The property by which a test is judged unless a person chooses another; of a test whose records are not
/// read, what it is planned for.
Property usualProperty(Method method);

/// What can hurt somebody in a test.
enum class Hazard { Fragments, Pendulum, Weights, Hot, Fumes, Torque, Flame };

/// How a person is led through a test at the bench.
enum class BenchMode {
    Pull,  ///< a load that a rig reads, until the piece gives way
    Swing, ///< a pendulum
    Timed, ///< readings at set times under a load that rests
    Steps, ///< a load put on step by step
    Oven,  ///< several pieces in one oven
    Feel,  ///< graded by hand, blind
    Pairs, ///< held against each other two at a time, blind
    Typed, ///< read without a rig: its card in the log takes the readings
};

/// A piece as it is held in a test.
struct HeldPiece {
    const SpecimenShape &shape;
    double bentLength_mm = 0.0; ///< between supports, or from the clamp to the load
};

/// What is fixed about a test, told in its own folder; numbers are defaults to offer, each can be changed in
/// the plan.
struct MethodFacts {
    Method method = Method::Tension;
    LoadKind load = LoadKind::Force_N;
    std::string_view name;                       ///< as kept in files and shown
    std::string_view does;                       ///< "is pulled apart": for sentences
    double usualCv = 0.0;                        ///< scatter between printed pieces (common practice)
    std::string_view shape;                      ///< key of the usual specimen shape
    double minutesPerPiece = 0.0;                ///< at the rig, attended (common practice)
    std::string_view speed;                      ///< usual test speed, with the standard it comes from
    std::span<const PlannedProperty> properties; ///< the usual one first
    const Reduction *reduction = nullptr;        ///< nullptr: its records cannot be read yet
    std::span<const Hazard> hazards{};
    std::span<const std::string_view> layReady{}; ///< beside callipers, scale and labels
    /// Of its breaks, the usual ones first; empty where none is asked for (impact tells its kinds of break
    /// with the swing).
    std::span<const BreakLook> looks{};
    BenchMode bench = BenchMode::Pull;
    std::string_view virtualRig = "frame"; ///< that stands in for the real one
    /// When it is read, in seconds after the load was put on; empty where that is not by the clock.
    std::span<const double> due_s{};
    int usualReadings = 1;        ///< of each size of a piece
    double usualStress_MPa = 0.0; ///< of a dead load; 0 where none is usual
    /// The load at which a piece of this strength gives way, by the strength's own definition, in the unit of
    /// load; nullptr where it does not follow.
    double (*loadAtStrength)(const HeldPiece &piece, double strength) = nullptr;
    bool isStrengthOverArea = false; ///< a smaller section takes less load in proportion
    bool isAcrossLayers = false;     ///< pulls the layers apart where the piece stands
    bool isBeam = false;             ///< bent over a span
    bool mayBeCantilever = false;
    bool isLeftUnderLoad = false; ///< for days, while others are tested
    bool isWarmed = false;
};

std::span<const MethodFacts> allMethods();
const MethodFacts &factsOf(Method method);
std::string_view methodName(Method method); ///< "tension", "layer adhesion"
std::optional<Method> methodFrom(std::string_view name);

/// True for a test whose records are read.
bool readsRecords(Method method);
/// How its records are read; nullptr where they are not.
const Reduction *reductionOf(Method method);
/// A marker of a test; nullptr where it has none of that name.
const MarkerKind *findMarker(Method method, std::string_view name);
/// Each once, in the order of the command line.
std::span<const Reduction *const> allReductions();

/// How the piece lies on the print plate: loaded in the plane of the layers or across them.
enum class Orientation { Flat, Standing };
std::string_view orientationName(Orientation orientation); ///< "flat", "standing"
std::optional<Orientation> orientationFrom(std::string_view name);
/// How the pieces of a test are printed unless said otherwise: standing where it pulls the layers apart.
Orientation usualOrientation(Method method);

} // namespace inchpeg
