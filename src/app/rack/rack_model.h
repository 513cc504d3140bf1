// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/compare/verdict.h"
#include "core/decide/own_averages.h"
#include "core/model/study.h"
#include "core/planning/calendar.h"
#include "core/planning/plates.h"
#include "core/reading/piece_reading.h"

#include <QString>
#include <QStringList>

#include <map>
#include <optional>
#include <vector>

namespace inchpeg::app
{

/// How far a piece has come; drawn as shape and fill.
enum class PegState {
    Open,     ///< an empty hole
    Printed,  ///< an empty peg
    Lost,     ///< its print failed
    Measured, ///< section known
    Recorded, ///< a record, but no reading (being read, or no section)
    Read,     ///< read without trouble
    Doubtful, ///< read, but a check failed
    Failed,   ///< the record could not be read
    LeftOut,
    Given, ///< its values stand in a table of results
};

struct PegModel {
    PieceId piece;
    QString code;
    PegState state = PegState::Open;
    std::optional<double> value; ///< of the compared property, as shown
    bool atLeast = false;
    QString tip;
    QString
        note; ///< below the hole: its place in the order of testing while planning, its mass while logging
    int photos = 0;
    bool waits = false;         ///< it is being conditioned, and not ready for its test
    bool isOfOtherTest = false; ///< than the one that is shown: drawn faintly
};

struct RailModel {
    ConditionId condition;
    QString title;
    QString subtitle;
    bool isReference = false;
    std::vector<PegModel> pegs;
    std::optional<double> mean;
    std::optional<Interval> interval;
    /// Mean and scatter of the polymer in all earlier work, in the shown unit: a mark beside the rail's own.
    std::optional<double> average;
    double averageScatter = 0.0;
    QString averageText;
    Standing standing = Standing::NoResult;
    QString meanText;
    QString sentence;
    QString shareSentence;
    QString planLine; ///< below the holes, while planning or logging
};

/// Everything that the rack draws, for one study.
struct RackModel {
    std::vector<RailModel> rails;
    QString scaleTitle;   ///< "Strength in MPa"
    QString scaleMeaning; ///< how the property is defined
    QStringList words;    ///< that stand on the scale in place of 0, 1 …: of a property of words
    bool hasMean = true;  ///< else the mark on a rail is a median
    char decimalMark = '.';
    double smallestDifference = 0.0;
    QString headline;
    QString procedure;  ///< how the rails were compared
    QString confidence; ///< of the intervals: "95 %"
};

RackModel rackModel(const Study &study, const PieceReadings &readings, const Property &property,
                    const Notation &notation = {}, const std::optional<Method> &test = {},
                    ComparisonDetail detail = ComparisonDetail::Sentences);

/// Adds the own averages of earlier work as marks on the rails.
void addAverages(RackModel &model, const std::map<ConditionId, OwnAverage> &averages,
                 const Property &property, const Notation &notation);

/// Adds what the plan says to a model: plates, order of testing, load, mass, time, money.
void addPlan(RackModel &model, const Study &study, const PlateLayout &layout, const OwnResults &own,
             const Workshop &workshop, const Notation &notation);

/// Adds what was logged: prints, masses, when pieces are ready, photos, readings to be looked at.
void addLog(RackModel &model, const Study &study, const Workshop &workshop, Moment now);

PegState pegState(const Piece &piece, const PieceReadings &readings);

/// "left out", "read, but look at it": for tool tips and accessible descriptions.
QString pegStateText(PegState state);
/// The same in a word or two, for a table.
QString pegStateWord(PegState state);

} // namespace inchpeg::app
