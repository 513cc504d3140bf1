// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/grades/print_outcome_reading.h"
#include "core/method/test_facts.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kOutcome[] = {{"outcome", "print outcome", Dimension::Number},
                                        {"stringing", "freedom from strings", Dimension::Number},
                                        {"overhang", "overhangs", Dimension::Number},
                                        {"surface", "surface", Dimension::Number},
                                        {"corner_lift", "corner lift", Dimension::Length}};
constexpr std::string_view kPrintOutcomeLayReady[] = {"good light, and a camera"};

} // namespace

constinit const MethodFacts kPrintOutcomeTest{
    .method = Method::PrintOutcome,
    .load = LoadKind::None,
    .name = "print outcome",
    .does = "is looked at and graded",
    .usualCv = 0.20,
    .shape = "cube-20",
    .minutesPerPiece = 2.0,
    .speed = "none",
    .properties = kOutcome,
    .reduction = &kPrintOutcomeReduction,
    .layReady = kPrintOutcomeLayReady,
    .bench = BenchMode::Typed,
};

} // namespace inchpeg
