// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/puncture/puncture_reading.h"
#include "core/method/test_facts.h"
#include "core/method/usual_looks.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kPuncture[] = {{"peak_force", "puncture force", Dimension::Force},
                                         {"energy", "energy to break", Dimension::Energy}};
constexpr Hazard kPunctureHazards[] = {Hazard::Fragments};
constexpr BreakLook kPunctureLooks[] = {kPierced, kCrushed, kSplit, kPopped};

} // namespace

constinit const MethodFacts kPunctureTest{
    .method = Method::Puncture,
    .load = LoadKind::Force_N,
    .name = "puncture",
    .does = "is pressed through by a probe",
    .usualCv = 0.08,
    .shape = "cube-20",
    .minutesPerPiece = 4.0,
    .speed = "10 mm/min (common practice)",
    .properties = kPuncture,
    .reduction = &kPunctureReduction,
    .hazards = kPunctureHazards,
    .layReady = kRigLayReady,
    .looks = kPunctureLooks,
};

} // namespace inchpeg
