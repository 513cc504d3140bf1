// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/test_facts.h"
#include "core/method/warp/warp_reading.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kWarp[] = {{"warp", "warp", Dimension::Length},
                                     {"relative_warp", "warp over diagonal", Dimension::Ratio}};
constexpr std::string_view kWarpLayReady[] = {"a surface plate or a piece of glass", "a feeler gauge"};

} // namespace

constinit const MethodFacts kWarpTest{
    .method = Method::Warp,
    .load = LoadKind::None,
    .name = "warp",
    .does = "is laid on a flat plate and its corners are measured",
    .usualCv = 0.25,
    .shape = "plate-60x60x2",
    .minutesPerPiece = 2.0,
    .speed = "none",
    .properties = kWarp,
    .reduction = &kWarpReduction,
    .layReady = kWarpLayReady,
    .bench = BenchMode::Typed,
};

} // namespace inchpeg
