// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/unit.h"

#include <optional>
#include <span>
#include <string_view>

namespace inchpeg
{

/// A kind of test. All can be planned; records are read where readsRecords() says so.
enum class Method {
    Tension,
    LayerAdhesion,
    Bending,
    BendSteps,
    Impact,
    Creep,
    HeatDeflection,
    Softening,
    DoubleShear,
    Torsion,
    PullOut,
    Puncture,
    Friction,
    Shrinkage,
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

/// What is fixed about a test; numbers are defaults to offer, each can be changed in the plan.
struct MethodFacts {
    Method method = Method::Tension;
    std::string_view name; ///< as kept in files and shown
    std::string_view does; ///< "is pulled apart": for sentences
    double usualCv = 0.0;  ///< scatter between printed pieces (common practice)
    LoadKind load = LoadKind::Force_N;
    std::string_view shape;                      ///< key of the usual specimen shape
    double minutesPerPiece = 0.0;                ///< at the rig, attended (common practice)
    std::string_view speed;                      ///< usual test speed, with the standard it comes from
    std::span<const PlannedProperty> properties; ///< the usual one first
};

std::span<const MethodFacts> allMethods();
const MethodFacts &factsOf(Method method);
std::string_view methodName(Method method); ///< "tension", "layer adhesion"
std::optional<Method> methodFrom(std::string_view name);

/// True for a test whose force records are read: tension and layer adhesion.
bool readsRecords(Method method);

/// How the piece lies on the print plate: loaded in the plane of the layers or across them.
enum class Orientation { Flat, Standing };
std::string_view orientationName(Orientation orientation); ///< "flat", "standing"
std::optional<Orientation> orientationFrom(std::string_view name);
/// How the pieces of a test are printed unless said otherwise: standing where it pulls the layers apart.
Orientation usualOrientation(Method method);

} // namespace inchpeg
