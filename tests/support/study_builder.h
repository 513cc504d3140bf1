// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/method/tension/tension_reading.h"
#include "core/model/study_edit.h"
#include "core/reading/piece_reading.h"

#include <gtest/gtest.h>

namespace inchpeg::test
{

/// A study with readings whose strengths are given, for tests of what stands on top of readings.
struct StudyBuilder {
    Study study;
    PieceReadings readings;
    std::int64_t lastId = 0;

    StudyBuilder()
    {
        study.id = StudyId{next()};
        study.factors.front().name = "nozzle temperature";
        study.factors.front().unit = "°C";
        firstTest(study).piecesPerCondition = 1;
    }

    std::int64_t next() { return ++lastId; }
    IdSource ids()
    {
        return [this] { return next(); };
    }

    /// Adds a rail whose pieces have these strengths; more pieces stay open.
    StudyBuilder &rail(const std::string &level, const std::vector<double> &strength_MPa,
                       Orientation orientation = Orientation::Standing, int open = 0, bool atLeast = false)
    {
        firstTest(study).piecesPerCondition = static_cast<int>(strength_MPa.size()) + open;
        EXPECT_TRUE(addCondition(study, {{}, {level}, orientation, "polyester"}, ids()));
        std::size_t i = 0;
        for (Piece &piece : study.pieces) {
            if (piece.condition != study.conditions.back().id || i >= strength_MPa.size())
                continue;
            piece.recording = Recording{RawFileId{next()}, {}};
            piece.section = PlainArea{squareMillimetres(20.0)};
            PieceReading reading;
            reading.result.values = {{"tensile_strength", strength_MPa[i++], "",
                                      atLeast ? BoundReason::GaugeAtEnd : BoundReason::None}};
            readings[piece.id] = std::make_shared<const Result<PieceReading>>(reading);
        }
        return *this;
    }
};

inline StudyComparison strengthCompared(const StudyBuilder &builder)
{
    return compareStudy(builder.study, builder.readings, *findProperty(kTensileReduction, kUsualProperty),
                        {.detail = ComparisonDetail::Sentences});
}

} // namespace inchpeg::test
