// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/hardness/hardness_reading.h"
#include "core/method/test_facts.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kHardness[] = {{"hardness", "Shore hardness", Dimension::Number}};
constexpr std::string_view kHardnessLayReady[] = {"the durometer on its stand", "a clock"};

} // namespace

constinit const MethodFacts kHardnessTest{
    .method = Method::Hardness,
    .load = LoadKind::None,
    .name = "hardness",
    .does = "is pressed by a durometer",
    .usualCv = 0.03,
    .shape = "bar-80x10x4",
    .minutesPerPiece = 3.0,
    .speed = "five readings, 15 s each (ISO 868)",
    .properties = kHardness,
    .reduction = &kHardnessReduction,
    .layReady = kHardnessLayReady,
    .bench = BenchMode::Typed,
};

} // namespace inchpeg
