// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/friction/friction_reading.h"
#include "core/method/test_facts.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kFriction[] = {{"static_friction", "static friction", Dimension::Number}};
constexpr std::string_view kFrictionLayReady[] = {"a known mass", "a clean glass plate", "the gauge"};

} // namespace

constinit const MethodFacts kFrictionTest{
    .method = Method::Friction,
    .load = LoadKind::None,
    .name = "friction",
    .does = "is towed under a known mass",
    .usualCv = 0.08,
    .shape = "cube-20",
    .minutesPerPiece = 3.0,
    .speed = "three pulls at about 100 mm/min (common practice)",
    .properties = kFriction,
    .reduction = &kFrictionReduction,
    .layReady = kFrictionLayReady,
};

} // namespace inchpeg
