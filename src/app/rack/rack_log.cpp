// SPDX-License-Identifier: GPL-3.0-or-later
// What was logged writes on the rails.
#include "app/rack/logged_state.h"
#include "app/rack/rack_text.h"
#include "core/logbook/conditioning.h"
#include "core/logbook/measuring.h"
#include "core/model/print_state.h"

#include <QCoreApplication>
#include <QStringList>

#include <algorithm>
#include <set>

namespace inchpeg::app
{

namespace
{

/// What a rail's line counts.
struct Tally {
    int pieces = 0;
    int printed = 0;
    int lost = 0;
    int again = 0;
    int weighed = 0;
    std::optional<Moment> ready; ///< the last of its pieces
};

/// A state by section and record, with the prints counted in.
PegState withPrints(PegState state, PrintState print)
{
    if (print == PrintState::Failed || print == PrintState::AwaitsReprint)
        return PegState::Lost;
    return state == PegState::Open && print == PrintState::Printed ? PegState::Printed : state;
}

void addPiece(PegModel &peg, Tally &tally, const Study &study, const Piece &piece,
              const Expectations &expected, Moment now)
{
    ++tally.pieces;
    const PrintState print = printState(study, piece);
    peg.state = withPrints(peg.state, print);
    tally.printed += print == PrintState::Printed ? 1 : 0;
    tally.lost += print == PrintState::Failed ? 1 : 0;
    tally.again += print == PrintState::AwaitsReprint ? 1 : 0;
    if (peg.state == PegState::Printed || peg.state == PegState::Lost)
        peg.tip = QString::fromStdString(piece.code) + QStringLiteral(": ") + pegStateText(peg.state);
    if (print == PrintState::AwaitsReprint)
        peg.tip += QLatin1Char('\n') + rackText("to be printed again");
    for (const PrintFailure &failure : piece.log.failures)
        peg.tip += QLatin1Char('\n') +
                   rackText("failed on plate %1: %2")
                       .arg(failure.plate)
                       .arg(QString::fromStdString(std::string(troubleName(failure.trouble)) +
                                                   (failure.what.empty() ? "" : ", ") + failure.what));
    if (piece.log.mass_g) {
        ++tally.weighed;
        peg.tip += QLatin1Char('\n') + rackText("%1 g").arg(*piece.log.mass_g);
    }
    peg.photos = static_cast<int>(piece.log.photos.size());
    if (peg.photos > 0)
        peg.tip += QLatin1Char('\n') +
                   (peg.photos == 1 ? rackText("1 photo") : rackText("%1 photos").arg(peg.photos));
    for (const Doubt &doubt : doubtsOf(study, piece, expected))
        peg.tip += QLatin1Char('\n') + QString::fromStdString(Notation().expand(doubt.sentence));
    const Readiness ready = readinessOf(study, piece, now);
    peg.waits = ready.from.has_value() && !piece.recording;
    if (!ready.sentence.empty() && !piece.recording)
        peg.tip += QLatin1Char('\n') + QString::fromStdString(ready.sentence);
    if (peg.waits && (!tally.ready || *tally.ready < *ready.from))
        tally.ready = ready.from;
}

QString lineOf(const Tally &tally)
{
    QStringList parts{rackText("printed %1/%2").arg(tally.printed).arg(tally.pieces)};
    if (tally.again > 0)
        parts << rackText("%1 to print again").arg(tally.again);
    if (tally.lost > 0)
        parts << rackText("%1 lost").arg(tally.lost);
    parts << rackText("weighed %1").arg(tally.weighed);
    if (tally.ready)
        parts << rackText("ready from %1 %2")
                     .arg(QString::fromStdString(dayText(*tally.ready)),
                          QString::fromStdString(clockText(*tally.ready)));
    return parts.join(QStringLiteral(" · "));
}

} // namespace

PegState loggedState(const Study &study, const Piece &piece, const PieceReadings &readings)
{
    return withPrints(pegState(piece, readings), printState(study, piece));
}

void addLog(RackModel &model, const Study &study, const Workshop &workshop, Moment now)
{
    std::map<PieceId, const Piece *> byId;
    for (const Piece &piece : study.pieces)
        byId[piece.id] = &piece;
    const Expectations expected(study, workshop);
    for (RailModel &rail : model.rails) {
        Tally tally;
        for (PegModel &peg : rail.pegs)
            addPiece(peg, tally, study, *byId.at(peg.piece), expected, now);
        rail.planLine = lineOf(tally);
    }
}

} // namespace inchpeg::app
