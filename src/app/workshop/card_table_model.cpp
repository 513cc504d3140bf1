// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/workshop/card_table_model.h"

#include "app/workshop/workshop_text.h"
#include "core/units/number.h"

#include <QCoreApplication>

namespace inchpeg::app
{

namespace
{

using Column = CardTableModel::Column;

Result<double> typedNumber(const std::string &text)
{
    const std::optional<double> number = parseTypedNumber(text);
    if (!number)
        return invalidArgument("\"" + text + "\" is no number");
    return *number;
}

template <typename Card>
Column textColumn(const QString &heading, std::vector<Card> Workshop::*cards, std::string Card::*member)
{
    return {heading,
            {},
            [=](const Workshop &workshop, std::size_t row) {
                return QString::fromStdString((workshop.*cards)[row].*member);
            },
            [=](Workshop &workshop, std::size_t row, const std::string &text) -> Status {
                (workshop.*cards)[row].*member = text;
                return ok();
            }};
}

template <typename Card>
Column numberColumn(const QString &heading, std::vector<Card> Workshop::*cards, double Card::*member,
                    const QString &tip = {})
{
    return {heading, tip,
            [=](const Workshop &workshop, std::size_t row) {
                return QString::number((workshop.*cards)[row].*member, 'g', 8);
            },
            [=](Workshop &workshop, std::size_t row, const std::string &text) -> Status {
                const Result<double> number = typedNumber(text);
                if (!number)
                    return number.error();
                (workshop.*cards)[row].*member = *number;
                return ok();
            }};
}

template <typename Card>
Column optionalColumn(const QString &heading, std::vector<Card> Workshop::*cards,
                      std::optional<double> Card::*member, const QString &tip = {})
{
    return {heading, tip,
            [=](const Workshop &workshop, std::size_t row) {
                const std::optional<double> &value = (workshop.*cards)[row].*member;
                return value ? QString::number(*value, 'g', 8) : QString();
            },
            [=](Workshop &workshop, std::size_t row, const std::string &text) -> Status {
                std::optional<double> &value = (workshop.*cards)[row].*member;
                if (text.empty()) {
                    value.reset();
                    return ok();
                }
                const Result<double> number = typedNumber(text);
                if (!number)
                    return number.error();
                value = *number;
                return ok();
            }};
}

Column kindColumn()
{
    QString known;
    for (const RigKind kind : {RigKind::Frame, RigKind::HandGauge, RigKind::Pendulum, RigKind::TorqueGauge,
                               RigKind::DeadWeights, RigKind::Oven})
        known += (known.isEmpty() ? QString() : QStringLiteral(", ")) +
                 QString::fromUtf8(rigKindName(kind).data());
    return {workshopText("Kind"), workshopText("One of: %1").arg(known),
            [](const Workshop &workshop, std::size_t row) {
                return QString::fromUtf8(rigKindName(workshop.rigs[row].kind).data());
            },
            [known](Workshop &workshop, std::size_t row, const std::string &text) -> Status {
                const std::optional<RigKind> kind = rigKindFrom(text);
                if (!kind)
                    return invalidArgument("\"" + text + "\" is none of " + known.toStdString());
                workshop.rigs[row].kind = *kind;
                return ok();
            }};
}

Column heatedColumn()
{
    return {workshopText("Heated chamber"), workshopText("yes or no"),
            [](const Workshop &workshop, std::size_t row) {
                return workshop.printers[row].heatedChamber ? workshopText("yes") : workshopText("no");
            },
            [](Workshop &workshop, std::size_t row, const std::string &text) -> Status {
                if (text != "yes" && text != "no")
                    return invalidArgument("yes or no is wanted");
                workshop.printers[row].heatedChamber = text == "yes";
                return ok();
            }};
}

} // namespace

CardTableModel::CardTableModel(ProjectSession &session, std::vector<Column> columns,
                               std::function<std::size_t(const Workshop &)> count, QObject *parent)
    : QAbstractTableModel(parent), m_session(session), m_columns(std::move(columns)),
      m_count(std::move(count))
{
}

void CardTableModel::refresh()
{
    beginResetModel();
    endResetModel();
}

int CardTableModel::rowCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(m_count(m_session.workshop()));
}

int CardTableModel::columnCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(m_columns.size());
}

QVariant CardTableModel::data(const QModelIndex &index, int role) const
{
    if (!index.isValid())
        return {};
    const Column &column = m_columns[static_cast<std::size_t>(index.column())];
    if (role == Qt::ToolTipRole)
        return column.tip;
    if (role != Qt::DisplayRole && role != Qt::EditRole)
        return {};
    return column.text(m_session.workshop(), static_cast<std::size_t>(index.row()));
}

QVariant CardTableModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal)
        return {};
    const Column &column = m_columns[static_cast<std::size_t>(section)];
    return role == Qt::DisplayRole ? column.heading : role == Qt::ToolTipRole ? column.tip : QVariant();
}

Qt::ItemFlags CardTableModel::flags(const QModelIndex &) const
{
    return Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable;
}

bool CardTableModel::setData(const QModelIndex &index, const QVariant &value, int role)
{
    if (role != Qt::EditRole || !index.isValid())
        return false;
    const std::string text = value.toString().simplified().toStdString();
    return m_session.tryEditWorkshop(workshopText("change the workshop"), [&](Workshop &workshop) {
        return m_columns[static_cast<std::size_t>(index.column())].set(
            workshop, static_cast<std::size_t>(index.row()), text);
    });
}

std::unique_ptr<CardTableModel> rigTable(ProjectSession &session)
{
    const auto rigs = &Workshop::rigs;
    return std::make_unique<CardTableModel>(
        session,
        std::vector<Column>{
            textColumn(workshopText("Name"), rigs, &RigCard::name), kindColumn(),
            numberColumn(
                workshopText("Range"), rigs, &RigCard::range,
                workshopText("N; of a pendulum J, of a torque gauge N·m, of dead weights kg in all")),
            numberColumn(workshopText("Resolution"), rigs, &RigCard::resolution,
                         workshopText("The smallest step, in the unit of the range")),
            numberColumn(workshopText("Readings/s"), rigs, &RigCard::rate_Hz),
            numberColumn(
                workshopText("Gives way mm/N"), rigs, &RigCard::compliance_mm_per_N,
                workshopText(
                    "Of a frame, measured by pulling a stiff dummy; taken off the travel of the crosshead in "
                    "records that are brought in from now on")),
            optionalColumn(workshopText("Arm m"), rigs, &RigCard::arm_m,
                           workshopText("Of a pendulum: pivot to centre of mass")),
            optionalColumn(workshopText("Hammer kg"), rigs, &RigCard::hammer_kg,
                           workshopText("Of a pendulum")),
            optionalColumn(workshopText("Free swing °"), rigs, &RigCard::freeSwing_deg,
                           workshopText("Of a pendulum, without a specimen")),
            optionalColumn(workshopText("Probe lag s"), rigs, &RigCard::probeLag_s,
                           workshopText("Of an oven's thermometer"))},
        [](const Workshop &workshop) { return workshop.rigs.size(); });
}

std::unique_ptr<CardTableModel> printerTable(ProjectSession &session)
{
    const auto printers = &Workshop::printers;
    return std::make_unique<CardTableModel>(
        session,
        std::vector<Column>{
            textColumn(workshopText("Name"), printers, &PrinterCard::name),
            numberColumn(workshopText("Width mm"), printers, &PrinterCard::bedWidth_mm),
            numberColumn(workshopText("Depth mm"), printers, &PrinterCard::bedDepth_mm),
            numberColumn(workshopText("Height mm"), printers, &PrinterCard::height_mm), heatedColumn(),
            numberColumn(workshopText("Flow mm³/s"), printers, &PrinterCard::flow_mm3_per_s,
                         workshopText("What it keeps up on average, for the time of a print")),
            numberColumn(workshopText("Setup min"), printers, &PrinterCard::setup_min,
                         workshopText("To clear and start a plate"))},
        [](const Workshop &workshop) { return workshop.printers.size(); });
}

std::unique_ptr<CardTableModel> spoolTable(ProjectSession &session)
{
    const auto spools = &Workshop::spools;
    const QString usual = workshopText("Empty: usual for the polymer");
    return std::make_unique<CardTableModel>(
        session,
        std::vector<Column>{
            textColumn(workshopText("Material, lot"), spools, &SpoolCard::material),
            textColumn(workshopText("Polymer"), spools, &SpoolCard::polymer),
            textColumn(workshopText("Fill"), spools, &SpoolCard::fill),
            textColumn(workshopText("Colour"), spools, &SpoolCard::colour),
            textColumn(workshopText("Lot"), spools, &SpoolCard::lot),
            optionalColumn(workshopText("g/cm³"), spools, &SpoolCard::density_g_per_cm3, usual),
            numberColumn(workshopText("Price/kg"), spools, &SpoolCard::price_per_kg),
            optionalColumn(workshopText("Gross g"), spools, &SpoolCard::gross_g,
                           workshopText("Weighed with its spool")),
            optionalColumn(workshopText("Empty g"), spools, &SpoolCard::empty_g,
                           workshopText("The spool without filament")),
            optionalColumn(workshopText("Dry °C"), spools, &SpoolCard::dry_C, usual),
            optionalColumn(workshopText("Dry h"), spools, &SpoolCard::dry_h, usual),
            optionalColumn(workshopText("Spool's limit °C"), spools, &SpoolCard::spoolLimit_C,
                           workshopText("What the spool itself stands; drying stays 5 K below")),
            textColumn(workshopText("Cautions"), spools, &SpoolCard::cautions)},
        [](const Workshop &workshop) { return workshop.spools.size(); });
}

} // namespace inchpeg::app
