// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/grades/felt_pairs_reading.h"
#include "core/method/test_facts.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kFeltPairs[] = {{"pair_share", "share of pairs won", Dimension::Number},
                                          {"changed_share", "steadiness of the answers", Dimension::Number}};
constexpr Hazard kFeltPairsHazards[] = {Hazard::Fragments};
constexpr std::string_view kFeltPairsLayReady[] = {"pliers or a vice", "eye protection",
                                                   "somebody to mix the pieces"};

} // namespace

constinit const MethodFacts kFeltPairsTest{
    .method = Method::FeltPairs,
    .load = LoadKind::None,
    .name = "pairs by feel",
    .does = "is held against others, two at a time, blind",
    .usualCv = 0.20,
    .shape = "bar-80x10x4",
    .minutesPerPiece = 2.0,
    .speed = "by hand",
    .properties = kFeltPairs,
    .reduction = &kFeltPairsReduction,
    .hazards = kFeltPairsHazards,
    .layReady = kFeltPairsLayReady,
    .bench = BenchMode::Pairs,
};

} // namespace inchpeg
