// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/compression/compression_reading.h"
#include "core/method/test_facts.h"
#include "core/method/usual_looks.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kCompression[] = {
    {"compressive_strength", "compressive strength", Dimension::Stress},
    {"compressive_modulus", "compressive modulus", Dimension::Stress},
    {"stress_at_given_strain", "stress at the given strain", Dimension::Stress}};
constexpr Hazard kCompressionHazards[] = {Hazard::Fragments};

void plates(BreakSketch &sketch)
{
    sketch.box(SketchInk::Tool, 8.0, 1.0, 24.0, 4.0);
    sketch.box(SketchInk::Tool, 8.0, kSketchSide - 5.0, 24.0, 4.0);
}

void bowedOut(BreakSketch &sketch)
{
    plates(sketch);
    std::vector<SketchPoint> column = bent({15.0, 5.0}, {27.0, 20.0}, {15.0, 35.0});
    const std::vector<SketchPoint> other = bent({22.0, 35.0}, {34.0, 20.0}, {22.0, 5.0});
    column.insert(column.end(), other.begin(), other.end());
    sketch.outline(SketchInk::Piece, std::move(column));
}

void barrelled(BreakSketch &sketch)
{
    plates(sketch);
    std::vector<SketchPoint> barrel = bent({14.0, 5.0}, {4.0, 20.0}, {14.0, 35.0});
    const std::vector<SketchPoint> other = bent({26.0, 35.0}, {36.0, 20.0}, {26.0, 5.0});
    barrel.insert(barrel.end(), other.begin(), other.end());
    sketch.outline(SketchInk::Piece, std::move(barrel));
}

void slidAlongLayers(BreakSketch &sketch)
{
    plates(sketch);
    sketch.outline(SketchInk::Piece, {{12.0, 5.0}, {24.0, 5.0}, {24.0, 17.0}, {12.0, 23.0}});
    sketch.outline(SketchInk::Piece, {{16.0, 24.0}, {28.0, 18.0}, {28.0, 35.0}, {16.0, 35.0}});
}

constexpr BreakLook kBuckled{"buckled", "bowed out",
                             "bent sideways as a column does: the load tells of its length", bowedOut, true};
constexpr BreakLook kBarrelled{"barrelled", "barrelled", "pressed wider in the middle and did not break",
                               barrelled};
constexpr BreakLook kSlid{"slid", "slid apart", "gave way along a slope across the layers", slidAlongLayers};
constexpr BreakLook kCompressionLooks[] = {kBarrelled, kSlid, kSplit, kCrushed, kBuckled, kFlaw};

} // namespace

constinit const MethodFacts kCompressionTest{
    .method = Method::Compression,
    .load = LoadKind::Force_N,
    .name = "compression",
    .does = "is pressed together between plates",
    .usualCv = 0.05,
    .shape = "block-10x10x4",
    .minutesPerPiece = 4.0,
    .speed = "1 mm/min for the modulus and brittle pieces, 5 mm/min for those that yield (ISO 604)",
    .properties = kCompression,
    .reduction = &kCompressionReduction,
    .hazards = kCompressionHazards,
    .layReady = kRigLayReady,
    .looks = kCompressionLooks,
    .usualReadings = 3,
    .loadAtStrength = forceOverArea,
    .isStrengthOverArea = true,
};

} // namespace inchpeg
