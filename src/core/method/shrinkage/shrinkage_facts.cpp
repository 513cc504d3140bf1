// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/shrinkage/shrinkage_reading.h"
#include "core/method/test_facts.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kShrinkage[] = {{"shrinkage_percent", "shrinkage", Dimension::Percent}};

} // namespace

constinit const MethodFacts kShrinkageTest{
    .method = Method::Shrinkage,
    .load = LoadKind::None,
    .name = "shrinkage",
    .does = "is measured along a known length",
    .usualCv = 0.10,
    .shape = "bar-80x10x4",
    .minutesPerPiece = 1.0,
    .speed = "none",
    .properties = kShrinkage,
    .reduction = &kShrinkageReduction,
    .bench = BenchMode::Typed,
};

} // namespace inchpeg
