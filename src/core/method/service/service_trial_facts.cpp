// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/service/service_trial_reading.h"
#include "core/method/test_facts.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kService[] = {{"service_hours", "hours in service", Dimension::Number},
                                        {"stiffness", "stiffness felt", Dimension::Number},
                                        {"confidence", "confidence", Dimension::Number},
                                        {"cracks", "cracks heard", Dimension::Number}};
constexpr std::string_view kServiceTrialLayReady[] = {"good light, and a camera"};

} // namespace

constinit const MethodFacts kServiceTrialTest{
    .method = Method::ServiceTrial,
    .load = LoadKind::None,
    .name = "service trial",
    .does = "is used in its place",
    .usualCv = 0.30,
    .shape = "cube-20",
    .minutesPerPiece = 5.0,
    .speed = "as the part is used",
    .properties = kService,
    .reduction = &kServiceTrialReduction,
    .layReady = kServiceTrialLayReady,
    .bench = BenchMode::Typed,
};

} // namespace inchpeg
