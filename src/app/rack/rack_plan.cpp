// SPDX-License-Identifier: GPL-3.0-or-later
// What the plan writes on the rails.
#include "app/rack/rack_model.h"
#include "app/rack/rack_text.h"
#include "core/planning/plates.h"
#include "core/planning/print_estimate.h"
#include "core/planning/rig_check.h"

#include <QCoreApplication>
#include <QStringList>

#include <map>
#include <set>

namespace inchpeg::app
{

namespace
{

QString planLine(const Study &study, const Condition &condition, const Workshop &workshop,
                 const PlannedTest &test, const OwnResults &own, const Notation &notation)
{
    const PrintCost cost = costOf(study, condition, workshop);
    const auto minutes = static_cast<int>(cost.minutes + 0.5);
    QStringList parts;
    const std::optional<ExpectedLoad> load = expectedLoad(study, test, condition, own);
    const RigCard *rig = findRig(workshop, test.setup.rig);
    if (load && rig != nullptr && rig->range > 0.0)
        parts << rackText("load %1 %").arg(100.0 * load->value / rig->range, 0, 'f', 0);
    parts << rackText("%1 g").arg(
                 QString::fromStdString(notation.fixed(cost.grams, cost.grams < 99.5 ? 1 : 0)))
          << rackText("%1:%2 h").arg(minutes / 60).arg(minutes % 60, 2, 10, QLatin1Char('0'))
          << QString::fromStdString(notation.fixed(cost.money, 2) + " " + workshop.moneyUnit);
    return parts.join(QStringLiteral(" · "));
}

} // namespace

void addPlan(RackModel &model, const Study &study, const PlateLayout &layout, const OwnResults &own,
             const Workshop &workshop, const Notation &notation)
{
    struct Place {
        int plate = 0;
        int test = 0;
        bool printed = false;
    };
    std::map<PieceId, Place> places;
    for (const Plate &plate : layout.plates) {
        for (const PlacedPiece &placed : plate.pieces)
            places[placed.piece] = {plate.number, placed.testPlace, !plate.printedAt.empty()};
    }
    const std::set<PieceId> later(study.plan.addedLater.begin(), study.plan.addedLater.end());
    const PlannedTest test = plannedTests(study).front();
    for (std::size_t r = 0; r < model.rails.size(); ++r) {
        RailModel &rail = model.rails[r];
        std::set<int> plates;
        for (PegModel &peg : rail.pegs) {
            const auto found = places.find(peg.piece);
            if (found == places.end()) {
                if (peg.state == PegState::Open)
                    peg.tip += QLatin1Char('\n') + rackText("does not fit the printer");
                continue;
            }
            const Place &place = found->second;
            plates.insert(place.plate);
            peg.note = QString::number(place.test);
            peg.tip += QLatin1Char('\n') +
                       rackText("plate %1, tested as number %2").arg(place.plate).arg(place.test);
            if (place.printed)
                peg.tip += rackText(", printed");
            if (later.contains(peg.piece))
                peg.tip += QLatin1Char('\n') + rackText("added after printing had begun");
            if (const Piece *piece = findPiece(study, peg.piece); !isOfFirstTest(study, *piece))
                peg.tip += QLatin1Char('\n') +
                           rackText("for %1").arg(QString::fromUtf8(methodName(piece->test).data()));
        }
        QStringList numbers;
        for (const int plate : plates)
            numbers << QString::number(plate);
        const QString onPlates = plates.empty()
                                     ? QString()
                                     : (plates.size() == 1 ? rackText("plate %1") : rackText("plates %1"))
                                               .arg(numbers.mid(0, 4).join(QStringLiteral(", ")) +
                                                    (numbers.size() > 4 ? QStringLiteral("…") : QString())) +
                                           QStringLiteral(" · ");
        rail.planLine = onPlates + planLine(study, study.conditions[r], workshop, test, own, notation);
    }
}

} // namespace inchpeg::app
