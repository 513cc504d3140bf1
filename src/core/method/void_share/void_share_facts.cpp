// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/test_facts.h"
#include "core/method/void_share/void_share_reading.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kVoidShare[] = {{"void_share", "void share", Dimension::Ratio},
                                          {"density", "apparent density", Dimension::Density}};

} // namespace

constinit const MethodFacts kVoidShareTest{
    .method = Method::VoidShare,
    .load = LoadKind::None,
    .name = "mass and void share",
    .does = "is weighed and measured",
    .usualCv = 0.05,
    .shape = "cube-20",
    .minutesPerPiece = 1.0,
    .speed = "none",
    .properties = kVoidShare,
    .reduction = &kVoidShareReduction,
    .bench = BenchMode::Typed,
};

} // namespace inchpeg
