// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/flame/flame_reading.h"
#include "core/method/test_facts.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kFlame[] = {{"goes_out", "going out", Dimension::Number},
                                      {"drips", "drips", Dimension::Number},
                                      {"smoke", "smoke", Dimension::Number},
                                      {"left", "what is left", Dimension::Number}};
constexpr Hazard kFlameHazards[] = {Hazard::Flame, Hazard::Hot, Hazard::Fumes};
constexpr std::string_view kFlameLayReady[] = {
    "a tray of sand", "an extinguisher", "extraction, or the open air",
    "a clock",        "eye protection",  "heat-proof gloves"};

} // namespace

constinit const MethodFacts kFlameTest{
    .method = Method::Flame,
    .load = LoadKind::None,
    .name = "flame and hot contact",
    .does = "is held to a flame or a hot tool, and watched",
    .usualCv = 0.20,
    .shape = "bar-80x10x4",
    .minutesPerPiece = 5.0,
    .speed = "ten seconds of flame (common practice)",
    .properties = kFlame,
    .reduction = &kFlameReduction,
    .hazards = kFlameHazards,
    .layReady = kFlameLayReady,
    .bench = BenchMode::Typed,
};

} // namespace inchpeg
