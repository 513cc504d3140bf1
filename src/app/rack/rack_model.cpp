// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/rack/rack_model.h"

#include "app/rack/rack_text.h"
#include "core/compare/procedure_text.h"
#include "core/method/break_look.h"
#include "core/method/value_text.h"
#include "core/reading/reading_settings.h"

#include <QCoreApplication>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

bool isMeasured(const Piece &piece)
{
    return piece.section && areaOf(*piece.section).has_value();
}

/// A force over no area, a grade or a length wants none.
bool awaitsSection(const Piece &piece)
{
    const Reduction *reduction = reductionOf(piece.test);
    return reduction != nullptr && readsBySection(*reduction) && !isMeasured(piece) && !isGiven(piece);
}

} // namespace

PegState pegState(const Piece &piece, const PieceReadings &readings)
{
    if (piece.exclusion)
        return PegState::LeftOut;
    if (!piece.recording)
        return isMeasured(piece) ? PegState::Measured : PegState::Open;
    const auto found = readings.find(piece.id);
    if (found == readings.end() || awaitsSection(piece))
        return PegState::Recorded;
    if (!found->second->has_value())
        return PegState::Failed;
    if (isGiven(piece))
        return PegState::Given;
    const std::vector<Check> &checks = found->second->value().result.validity;
    const bool doubtful =
        std::any_of(checks.begin(), checks.end(), [](const Check &check) { return !check.ok; });
    const BreakLook *look = findBreakLook(piece.log.breakLook);
    return doubtful || (look != nullptr && look->isSuspect) ? PegState::Doubtful : PegState::Read;
}

namespace
{

QString pegTip(const Piece &piece, PegState state, const PieceReadings &readings, const QString &valueText,
               const Notation &notation)
{
    QString tip = QString::fromStdString(piece.code) + QStringLiteral(": ") + pegStateText(state);
    if (!valueText.isEmpty())
        tip += QStringLiteral("\n") + valueText;
    if (piece.exclusion)
        tip += QStringLiteral("\n") + rackText("left out by %1: %2")
                                          .arg(QString::fromStdString(piece.exclusion->who),
                                               QString::fromStdString(piece.exclusion->reason));
    const auto found = readings.find(piece.id);
    if (found != readings.end() && !found->second->has_value())
        tip += QStringLiteral("\n") + QString::fromStdString(errorSentence(found->second->error()));
    if (found != readings.end() && found->second->has_value()) {
        for (const Check &check : found->second->value().result.validity) {
            if (!check.ok)
                tip += QStringLiteral("\n") +
                       QString::fromStdString(check.rule + ": " + notation.expand(check.detail));
        }
    }
    return tip;
}

QString subtitleOf(const Study &study, const Condition &condition, const RailComparison &rail, Method test)
{
    QStringList parts;
    if (mixesOrientations(study))
        parts << QString::fromUtf8(orientationName(condition.orientation));
    const std::vector<const Piece *> all = piecesOf(study, condition.id);
    const auto pieces = static_cast<int>(
        std::count_if(all.begin(), all.end(), [&](const Piece *piece) { return piece->test == test; }));
    const auto counted = static_cast<int>(rail.summary.n);
    const auto given = static_cast<int>(rail.given);
    if (rail.told)
        parts << (rail.told->pieces ? rackText("summary of %1").arg(*rail.told->pieces)
                                    : rackText("summary"));
    parts << (rail.told                         ? rackText("%1 pieces planned").arg(pieces)
              : counted > 0 && given == counted ? rackText("%1/%2 given").arg(counted).arg(pieces)
              : given > 0   ? rackText("%1/%2 read, %3 of them given").arg(counted).arg(pieces).arg(given)
              : counted > 0 ? rackText("%1/%2 read").arg(counted).arg(pieces)
                            : rackText("%1 pieces").arg(pieces));
    QString text = parts.join(QStringLiteral(" · "));
    if (!condition.material.empty())
        text += QLatin1Char('\n') + QString::fromStdString(condition.material);
    return text;
}

} // namespace

QString pegStateText(PegState state)
{
    switch (state) {
    case PegState::Open:
        return rackText("planned");
    case PegState::Printed:
        return rackText("printed, not measured yet");
    case PegState::Lost:
        return rackText("its print failed");
    case PegState::Measured:
        return rackText("measured, not broken yet");
    case PegState::Recorded:
        return rackText("has a record, waits for its section");
    case PegState::Read:
        return rackText("read");
    case PegState::Doubtful:
        return rackText("read, but look at it");
    case PegState::Failed:
        return rackText("its record cannot be read");
    case PegState::LeftOut:
        return rackText("left out");
    case PegState::Given:
        return rackText("given without its record");
    }
    throw ContractViolation("unknown peg state");
}

QString pegStateWord(PegState state)
{
    switch (state) {
    case PegState::Open:
        return rackText("planned");
    case PegState::Printed:
        return rackText("printed");
    case PegState::Lost:
        return rackText("failed");
    case PegState::Measured:
        return rackText("measured");
    case PegState::Recorded:
        return rackText("recorded");
    case PegState::Read:
        return rackText("read");
    case PegState::Doubtful:
        return rackText("look at it");
    case PegState::Failed:
        return rackText("unreadable");
    case PegState::LeftOut:
        return rackText("left out");
    case PegState::Given:
        return rackText("given");
    }
    throw ContractViolation("unknown peg state");
}

RackModel rackModel(const Study &study, const PieceReadings &readings, const Property &property,
                    const Notation &notation, const std::optional<Method> &shownTest, ComparisonDetail detail)
{
    const Method test = shownTest.value_or(methodOf(study));
    const StudyComparison comparison =
        compareStudy(study, readings, property, {.test = test, .detail = detail});
    StudyVerdict verdict;
    if (detail == ComparisonDetail::Values)
        verdict.rails.resize(study.conditions.size());
    else
        verdict = verdictOf(study, comparison, notation);
    const Unit unit = notation.unitOf(property.dimension);
    RackModel model;
    // A share of a temperature in °C or of a grade says nothing.
    model.smallestDifference =
        isComparedAsRatio(property) || comparison.matters.absolute ? comparison.matters.share : 0.0;
    model.headline = QString::fromStdString(verdict.headline);
    model.procedure = QString::fromStdString(verdict.procedure);
    model.confidence = QString::fromStdString(confidenceText(comparison.confidence, notation));
    model.scaleTitle = QString::fromStdString(headingIn(property.label, unit));
    model.scaleMeaning = QString::fromUtf8(property.definition);
    model.decimalMark = notation.decimalMark();
    model.hasMean = hasMean(property);
    for (const std::string_view word : property.choices)
        model.words << QString::fromUtf8(word.data(), qsizetype(word.size()));
    for (std::size_t i = 0; i < study.conditions.size(); ++i) {
        const Condition &condition = study.conditions[i];
        const RailComparison &compared = comparison.rails[i];
        RailModel rail;
        rail.condition = condition.id;
        rail.title = QString::fromStdString(levelText(study, condition));
        rail.subtitle = subtitleOf(study, condition, compared, test);
        rail.isReference = compared.isReference;
        if (compared.summary.mean)
            rail.mean = unit.fromWorking(*compared.summary.mean);
        if (compared.summary.ci && compared.bounds == 0)
            rail.interval = Interval{unit.fromWorking(compared.summary.ci->low),
                                     unit.fromWorking(compared.summary.ci->high)};
        rail.standing = verdict.rails[i].standing;
        rail.meanText = QString::fromStdString(verdict.rails[i].meanText);
        rail.sentence = QString::fromStdString(verdict.rails[i].sentence);
        rail.shareSentence = QString::fromStdString(verdict.rails[i].shareSentence);
        for (const Piece *piece : piecesOf(study, condition.id)) {
            PegModel peg;
            peg.piece = piece->id;
            peg.code = QString::fromStdString(piece->code);
            peg.state = pegState(*piece, readings);
            peg.isOfOtherTest = piece->test != test;
            QString valueText;
            for (const PieceValue &value : compared.values) {
                if (value.piece != piece->id)
                    continue;
                peg.value = unit.fromWorking(value.value);
                peg.atLeast = value.atLeast;
                valueText = QString::fromStdString((value.atLeast ? "at least " : "") +
                                                   inchpeg::valueText(property, value.value, 4, notation));
            }
            // What needs no section is there without one.
            if (peg.value && peg.state == PegState::Recorded)
                peg.state = PegState::Read;
            peg.tip = pegTip(*piece, peg.state, readings, valueText, notation);
            rail.pegs.push_back(std::move(peg));
        }
        model.rails.push_back(std::move(rail));
    }
    return model;
}

void addAverages(RackModel &model, const std::map<ConditionId, OwnAverage> &averages,
                 const Property &property, const Notation &notation)
{
    const Unit unit = notation.unitOf(property.dimension);
    for (RailModel &rail : model.rails) {
        const auto found = averages.find(rail.condition);
        if (found == averages.end() || !rail.mean)
            continue;
        const OwnAverage &own = found->second;
        rail.average = unit.fromWorking(own.mean);
        rail.averageScatter = own.sd / unit.factor;
        rail.averageText =
            QCoreApplication::translate("Rack",
                                        "%1 in all earlier work: %2, scatter %3, %4 pieces of %5 studies")
                .arg(QString::fromUtf8(own.polymer.data(), qsizetype(own.polymer.size())),
                     QString::fromStdString(propertyValueText(
                         property, own.mean, propertyDecimals(property, own.sd, notation), notation)),
                     QString::fromStdString(propertyDifferenceText(
                         property, own.sd, propertyDecimals(property, own.sd, notation), notation)))
                .arg(own.pieces)
                .arg(own.studies);
    }
}

} // namespace inchpeg::app
