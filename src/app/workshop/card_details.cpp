// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/workshop/card_details.h"

#include "app/workshop/workshop_text.h"
#include "core/units/number.h"

#include <QCoreApplication>

namespace inchpeg::app
{

namespace
{

using Column = CardTableModel::Column;

/// A list on the chosen card.
template <typename Card, typename Item>
struct Nested {
    std::vector<Card> Workshop::*cards;
    std::vector<Item> Card::*list;
    CardRow row;

    [[nodiscard]] std::size_t count(const Workshop &workshop) const
    {
        return *row < (workshop.*cards).size() ? ((workshop.*cards)[*row].*list).size() : 0;
    }
    [[nodiscard]] const Item &at(const Workshop &workshop, std::size_t i) const
    {
        return ((workshop.*cards)[*row].*list)[i];
    }
    [[nodiscard]] Item &at(Workshop &workshop, std::size_t i) const
    {
        return ((workshop.*cards)[*row].*list)[i];
    }
};

template <typename N, typename Item>
Column textOf(const QString &heading, const N &nested, std::string Item::*member, const QString &tip = {})
{
    return {heading, tip,
            [=](const Workshop &workshop, std::size_t row) {
                return QString::fromStdString(nested.at(workshop, row).*member);
            },
            [=](Workshop &workshop, std::size_t row, const std::string &text) -> Status {
                nested.at(workshop, row).*member = text;
                return ok();
            }};
}

template <typename N, typename Item>
Column numberOf(const QString &heading, const N &nested, double Item::*member, const QString &tip = {})
{
    return {heading, tip,
            [=](const Workshop &workshop, std::size_t row) {
                return QString::number(nested.at(workshop, row).*member, 'g', 8);
            },
            [=](Workshop &workshop, std::size_t row, const std::string &text) -> Status {
                const std::optional<double> number = parseTypedNumber(text);
                if (!number)
                    return invalidArgument("\"" + text + "\" is no number");
                nested.at(workshop, row).*member = *number;
                return ok();
            }};
}

template <typename N, typename Item>
Column yesOrNo(const QString &heading, const N &nested, bool Item::*member, const QString &tip = {})
{
    return {heading, tip,
            [=](const Workshop &workshop, std::size_t row) {
                return nested.at(workshop, row).*member ? workshopText("yes") : workshopText("no");
            },
            [=](Workshop &workshop, std::size_t row, const std::string &text) -> Status {
                if (text != "yes" && text != "no")
                    return invalidArgument("yes or no is wanted");
                nested.at(workshop, row).*member = text == "yes";
                return ok();
            }};
}

template <typename N>
std::unique_ptr<CardTableModel> calibrationTable(ProjectSession &session, const N &nested)
{
    const Column uncertainty{workshopText("± % (k = 2)"), workshopText("Expanded uncertainty of a reading"),
                             [=](const Workshop &workshop, std::size_t row) {
                                 const std::optional<double> &value =
                                     nested.at(workshop, row).uncertainty_percent;
                                 return value ? QString::number(*value, 'g', 4) : QString();
                             },
                             [=](Workshop &workshop, std::size_t row, const std::string &text) -> Status {
                                 const std::optional<double> number = parseTypedNumber(text);
                                 if (!text.empty() && !number)
                                     return invalidArgument("\"" + text + "\" is no number");
                                 nested.at(workshop, row).uncertainty_percent = number;
                                 return ok();
                             }};
    const Column points{
        workshopText("Points"),
        workshopText("Applied/shown, with semicolons between: 0/0; 500/498.2. The factor follows from them"),
        [=](const Workshop &workshop, std::size_t row) {
            return pointsText(nested.at(workshop, row).points);
        },
        [=](Workshop &workshop, std::size_t row, const std::string &text) -> Status {
            Result<std::vector<CalibrationPoint>> typed = pointsFrom(text);
            if (!typed)
                return typed.error();
            Calibration &calibration = nested.at(workshop, row);
            calibration.points = std::move(*typed);
            if (const Result<double> factor = factorOf(calibration.points))
                calibration.factor = *factor;
            return ok();
        }};
    return std::make_unique<CardTableModel>(
        session,
        std::vector<Column>{
            textOf(workshopText("On"), nested, &Calibration::on, workshopText("The day, like 2026-03-01")),
            textOf(workshopText("Due"), nested, &Calibration::due,
                   workshopText("The last day on which it holds")),
            points,
            numberOf(workshopText("Factor"), nested, &Calibration::factor,
                     workshopText("True value over the shown one")),
            yesOrNo(workshopText("Along points"), nested, &Calibration::alongPoints,
                    workshopText("Readings are corrected along the points instead of by the factor")),
            uncertainty, textOf(workshopText("By"), nested, &Calibration::by)},
        [nested](const Workshop &workshop) { return nested.count(workshop); });
}

Column gaugeKindColumn()
{
    return {workshopText("Kind"), workshopText("calliper, scale or thermometer"),
            [](const Workshop &workshop, std::size_t row) {
                return QString::fromUtf8(gaugeKindName(workshop.gauges[row].kind).data());
            },
            [](Workshop &workshop, std::size_t row, const std::string &text) -> Status {
                const std::optional<GaugeKind> kind = gaugeKindFrom(text);
                if (!kind)
                    return invalidArgument("\"" + text + "\" is none of calliper, scale, thermometer");
                workshop.gauges[row].kind = *kind;
                return ok();
            }};
}

} // namespace

QString pointsText(const std::vector<CalibrationPoint> &points)
{
    QStringList parts;
    for (const CalibrationPoint &point : points)
        parts << QStringLiteral("%1/%2").arg(point.applied, 0, 'g', 8).arg(point.shown, 0, 'g', 8);
    return parts.join(QStringLiteral("; "));
}

Result<std::vector<CalibrationPoint>> pointsFrom(const std::string &text)
{
    std::vector<CalibrationPoint> points;
    for (const QString &part : QString::fromStdString(text).split(QLatin1Char(';'), Qt::SkipEmptyParts)) {
        const QStringList pair = part.trimmed().split(QLatin1Char('/'));
        const std::optional<double> applied = parseTypedNumber(pair.value(0).trimmed().toStdString());
        const std::optional<double> shown = parseTypedNumber(pair.value(1).trimmed().toStdString());
        if (pair.size() != 2 || !applied || !shown)
            return invalidArgument("\"" + part.trimmed().toStdString() +
                                   "\": points are written as applied/shown, like 500/498.2");
        points.push_back({*applied, *shown});
    }
    std::sort(points.begin(), points.end(),
              [](const CalibrationPoint &a, const CalibrationPoint &b) { return a.shown < b.shown; });
    return points;
}

std::unique_ptr<CardTableModel> gaugeTable(ProjectSession &session)
{
    // The list of gauges itself: not nested in a card.
    struct Gauges {
        [[nodiscard]] static const GaugeCard &at(const Workshop &workshop, std::size_t i)
        {
            return workshop.gauges[i];
        }
        [[nodiscard]] static GaugeCard &at(Workshop &workshop, std::size_t i) { return workshop.gauges[i]; }
    };
    const Gauges gauges;
    return std::make_unique<CardTableModel>(
        session,
        std::vector<Column>{
            textOf(workshopText("Name"), gauges, &GaugeCard::name), gaugeKindColumn(),
            numberOf(workshopText("Range"), gauges, &GaugeCard::range, workshopText("mm, g or °C")),
            numberOf(workshopText("Step"), gauges, &GaugeCard::resolution,
                     workshopText("The smallest step it shows, in mm, g or °C")),
            numberOf(workshopText("± (k = 2)"), gauges, &GaugeCard::uncertainty,
                     workshopText("Expanded uncertainty of a reading, in mm, g or °C; it decides how well "
                                  "areas are known")),
            textOf(workshopText("Port"), gauges, &GaugeCard::port,
                   workshopText("Serial device on which it sends its readings; empty: it is read by eye"))},
        [](const Workshop &workshop) { return workshop.gauges.size(); });
}

std::unique_ptr<CardTableModel> rigCalibrationTable(ProjectSession &session, const CardRow &rig)
{
    return calibrationTable(session,
                            Nested<RigCard, Calibration>{&Workshop::rigs, &RigCard::calibrations, rig});
}

std::unique_ptr<CardTableModel> gaugeCalibrationTable(ProjectSession &session, const CardRow &gauge)
{
    return calibrationTable(
        session, Nested<GaugeCard, Calibration>{&Workshop::gauges, &GaugeCard::calibrations, gauge});
}

std::unique_ptr<CardTableModel> statementTable(ProjectSession &session, const CardRow &spool)
{
    const Nested<SpoolCard, MaterialStatement> nested{&Workshop::spools, &SpoolCard::statements, spool};
    return std::make_unique<CardTableModel>(
        session,
        std::vector<Column>{
            textOf(workshopText("About"), nested, &MaterialStatement::about,
                   workshopText("nozzle, bed, drying, fan …")),
            textOf(workshopText("Says"), nested, &MaterialStatement::says, workshopText("230–250 °C")),
            textOf(workshopText("Source"), nested, &MaterialStatement::source,
                   workshopText("spool, box, sheet …")),
            yesOrNo(workshopText("Used"), nested, &MaterialStatement::used,
                    workshopText("This is what was printed with"))},
        [nested](const Workshop &workshop) { return nested.count(workshop); });
}

std::unique_ptr<CardTableModel> sheetTable(ProjectSession &session, const CardRow &spool)
{
    const Nested<SpoolCard, SheetValue> nested{&Workshop::spools, &SpoolCard::sheet, spool};
    return std::make_unique<CardTableModel>(
        session,
        std::vector<Column>{textOf(workshopText("Property"), nested, &SheetValue::property),
                            numberOf(workshopText("Value"), nested, &SheetValue::value),
                            textOf(workshopText("Unit"), nested, &SheetValue::unit),
                            textOf(workshopText("Standard"), nested, &SheetValue::standard),
                            textOf(workshopText("Load"), nested, &SheetValue::load,
                                   workshopText("Where there is one: 0.45 MPa, 1.80 MPa")),
                            textOf(workshopText("Orientation"), nested, &SheetValue::orientation,
                                   workshopText("flat, standing, or empty")),
                            yesOrNo(workshopText("Annealed"), nested, &SheetValue::annealed)},
        [nested](const Workshop &workshop) { return nested.count(workshop); });
}

} // namespace inchpeg::app
