// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/grades/by_feel_reading.h"
#include "core/method/test_facts.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kByFeel[] = {{"grade", "grade by feel", Dimension::Number},
                                       {"repeat_gap", "steadiness of the grades", Dimension::Number}};
constexpr Hazard kByFeelHazards[] = {Hazard::Fragments};
constexpr std::string_view kByFeelLayReady[] = {"pliers or a vice", "eye protection",
                                                "somebody to mix the pieces"};

} // namespace

constinit const MethodFacts kByFeelTest{
    .method = Method::ByFeel,
    .load = LoadKind::None,
    .name = "by feel",
    .does = "is bent or pulled by hand and graded, blind and twice",
    .usualCv = 0.20,
    .shape = "standing-mini",
    .minutesPerPiece = 2.0,
    .speed = "by hand",
    .properties = kByFeel,
    .reduction = &kByFeelReduction,
    .hazards = kByFeelHazards,
    .layReady = kByFeelLayReady,
    .bench = BenchMode::Feel,
};

} // namespace inchpeg
