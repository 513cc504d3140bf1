// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/workshop/workshop_window.h"

#include "app/parts/page_parts.h"
#include "app/parts/typing_helpers.h"
#include "core/planning/lab_code.h"
#include "core/planning/print_estimate.h"
#include "core/reading/frame_compliance.h"
#include "core/units/number.h"
#include "disk/file_bytes.h"

#include <QHeaderView>
#include <QListWidget>
#include <QStackedWidget>
#include <QTableView>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr int kTableHeight = 130;

QString hoursText(const WorkingDay &day)
{
    if (day.from_min == day.to_min)
        return QStringLiteral("–");
    const auto clock = [](int minutes) {
        return QStringLiteral("%1:%2").arg(minutes / 60).arg(minutes % 60, 2, 10, QLatin1Char('0'));
    };
    return clock(day.from_min) + QStringLiteral("–") + clock(day.to_min);
}

/// "9:00–17:00", "9-17", or a dash for a day off.
Result<WorkingDay> hoursFrom(const QString &typed)
{
    QString text = typed.simplified();
    text.replace(QStringLiteral("–"), QStringLiteral("-"));
    if (text.isEmpty() || text == QStringLiteral("-"))
        return WorkingDay{0, 0};
    const auto minutes = [](const QString &clock) -> int {
        const QStringList parts = clock.trimmed().split(QLatin1Char(':'));
        bool hourFine = false;
        bool minuteFine = true;
        const int hour = parts.value(0).toInt(&hourFine);
        const int minute = parts.size() > 1 ? parts.value(1).toInt(&minuteFine) : 0;
        const bool isClock = hourFine && minuteFine && parts.size() < 3 && hour >= 0 && hour <= 24 &&
                             minute >= 0 && minute < 60;
        return isClock ? 60 * hour + minute : -1;
    };
    const QStringList ends = text.split(QLatin1Char('-'));
    const WorkingDay day{minutes(ends.value(0)), minutes(ends.value(1))};
    if (ends.size() != 2 || day.from_min < 0 || day.to_min < 0)
        return invalidArgument("write working hours as 9:00-17:00, or a dash for a day off");
    return day;
}

QString numberText(double value)
{
    return QString::number(value, 'g', 8);
}

} // namespace

WorkshopWindow::WorkshopWindow(ProjectSession &session, Prompts &prompts, QWidget *parent)
    : QDialog(parent), m_session(session), m_prompts(prompts), m_rigs(rigTable(session)),
      m_rigCalibrations(rigCalibrationTable(session, m_rigRow)), m_gauges(gaugeTable(session)),
      m_gaugeCalibrations(gaugeCalibrationTable(session, m_gaugeRow)),
      m_statements(statementTable(session, m_spoolRow)), m_sheet(sheetTable(session, m_spoolRow)),
      m_printers(printerTable(session)), m_spools(spoolTable(session))
{
    setObjectName(QStringLiteral("workshopWindow"));
    setWindowTitle(tr("The workshop"));
    setModal(false);
    resize(900, 640);
    m_strip = new StepStrip({tr("Rigs"), tr("Gauges"), tr("Printers"), tr("Materials"),
                             tr("Hours, money, labels"), tr("Library")},
                            QStringLiteral("workshop"));
    m_pages = new QStackedWidget;
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 6, 0, 0);
    layout->addWidget(m_strip);
    layout->addWidget(m_pages, 1);
    addRigs();
    addGauges();
    addPrinters();
    addMaterials();
    QVBoxLayout *rest = addPage();
    addHours(rest);
    addMoneyAndLabels(rest);
    rest->addStretch(1);
    addLibrary();
    connect(m_strip, &StepStrip::chosen, m_pages, &QStackedWidget::setCurrentIndex);
    connect(&session, &ProjectSession::workshopChanged, this, &WorkshopWindow::refresh);
    connect(&session, &ProjectSession::projectChanged, this, &WorkshopWindow::refresh);
    refresh();
}

QVBoxLayout *WorkshopWindow::addPage()
{
    auto *page = new QWidget;
    m_pages->addWidget(page);
    QVBoxLayout *layout = scrollingPage(page);
    layout->addWidget(
        softLabel(tr("Shared by all studies of the project. Double-click to change; every change can "
                     "be undone.")));
    return layout;
}

QTableView *WorkshopWindow::addTable(QVBoxLayout *layout, const char *name, const QString &title,
                                     CardTableModel &model, const Change &add, const Removal &remove)
{
    auto *table = new QTableView;
    table->setObjectName(QLatin1String(name));
    table->setAccessibleName(title);
    table->setModel(&model);
    table->setSelectionBehavior(QAbstractItemView::SelectRows);
    table->setSelectionMode(QAbstractItemView::SingleSelection);
    table->verticalHeader()->hide();
    table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table->horizontalHeader()->setStretchLastSection(true);
    table->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    table->setTabKeyNavigation(false);
    new EditStarter(*table, [](const QModelIndex &) { return false; });
    table->setMinimumHeight(kTableHeight);
    auto *more = button("", tr("Add"));
    more->setObjectName(QLatin1String(name) + QStringLiteral("Add"));
    more->setAccessibleName(tr("Add to %1").arg(title));
    auto *less = button("", tr("Remove"));
    less->setObjectName(QLatin1String(name) + QStringLiteral("Remove"));
    less->setAccessibleName(tr("Remove from %1").arg(title));
    auto *top = new QHBoxLayout;
    top->addWidget(heading(title), 1);
    top->addWidget(more);
    top->addWidget(less);
    layout->addLayout(top);
    layout->addWidget(table, 1);
    connect(more, &QPushButton::clicked, this,
            [this, add] { m_session.tryEditWorkshop(tr("add to the workshop"), add); });
    connect(less, &QPushButton::clicked, this, [this, table, remove] {
        const int row = table->currentIndex().row();
        if (row < 0)
            return;
        m_session.tryEditWorkshop(tr("remove from the workshop"), [&](Workshop &workshop) {
            remove(workshop, static_cast<std::size_t>(row));
            return ok();
        });
    });
    return table;
}

void WorkshopWindow::follow(QTableView *table, const CardRow &row, std::vector<CardTableModel *> lists)
{
    connect(table->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this, row, lists = std::move(lists)](const QModelIndex &current) {
                if (!current.isValid() || *row == static_cast<std::size_t>(current.row()))
                    return;
                *row = static_cast<std::size_t>(current.row());
                for (CardTableModel *list : lists)
                    list->refresh();
                refreshNotes();
            });
}

namespace
{

template <typename T>
void eraseAt(std::vector<T> &list, std::size_t row)
{
    list.erase(list.begin() + static_cast<std::ptrdiff_t>(row));
}

/// Adds an item to a list of the chosen card.
template <typename Card, typename Item>
auto addTo(std::vector<Card> Workshop::*cards, std::vector<Item> Card::*list, const CardRow &row,
           const std::function<Item()> &make)
{
    return [=](Workshop &workshop) -> Status {
        if (*row >= (workshop.*cards).size())
            return invalidArgument("choose a card in the table above first");
        ((workshop.*cards)[*row].*list).push_back(make());
        return ok();
    };
}

template <typename Card, typename Item>
auto removeFrom(std::vector<Card> Workshop::*cards, std::vector<Item> Card::*list, const CardRow &row)
{
    return [=](Workshop &workshop, std::size_t item) { eraseAt((workshop.*cards)[*row].*list, item); };
}

} // namespace

void WorkshopWindow::addRigs()
{
    QVBoxLayout *layout = addPage();
    QTableView *table = addTable(
        layout, "rigTable", tr("Rigs"), *m_rigs,
        [](Workshop &workshop) -> Status {
            RigCard card;
            card.name = "new rig " + std::to_string(workshop.rigs.size() + 1);
            card.range = 1000.0;
            card.resolution = 0.1;
            workshop.rigs.push_back(card);
            return ok();
        },
        [](Workshop &workshop, std::size_t row) { eraseAt(workshop.rigs, row); });
    auto *dummy = button("measureCompliance", tr("How far it gives way, from a dummy's record…"));
    dummy->setToolTip(
        tr("A record of force and crosshead travel of a dummy that is far stiffer than the frame"));
    layout->addWidget(dummy, 0, Qt::AlignLeft);
    connect(dummy, &QPushButton::clicked, this, &WorkshopWindow::measureCompliance);
    m_rigNote = new QLabel;
    m_rigNote->setProperty("role", QStringLiteral("warning"));
    m_rigNote->setWordWrap(true);
    m_rigNote->setObjectName(QStringLiteral("rigNote"));
    layout->addWidget(m_rigNote);
    const std::function<Calibration()> make = [this] {
        Calibration calibration;
        calibration.on = m_session.today();
        return calibration;
    };
    addTable(layout, "rigCalibrationTable", tr("Calibrations of the chosen rig"), *m_rigCalibrations,
             addTo(&Workshop::rigs, &RigCard::calibrations, m_rigRow, make),
             removeFrom(&Workshop::rigs, &RigCard::calibrations, m_rigRow));
    follow(table, m_rigRow, {m_rigCalibrations.get()});
}

void WorkshopWindow::addGauges()
{
    QVBoxLayout *layout = addPage();
    QTableView *table = addTable(
        layout, "gaugeTable", tr("Callipers, scales, thermometers"), *m_gauges,
        [](Workshop &workshop) -> Status {
            GaugeCard card;
            card.name = "gauge " + std::to_string(workshop.gauges.size() + 1);
            workshop.gauges.push_back(card);
            return ok();
        },
        [](Workshop &workshop, std::size_t row) { eraseAt(workshop.gauges, row); });
    const std::function<Calibration()> make = [this] {
        Calibration calibration;
        calibration.on = m_session.today();
        return calibration;
    };
    addTable(layout, "gaugeCalibrationTable", tr("Calibrations of the chosen gauge"), *m_gaugeCalibrations,
             addTo(&Workshop::gauges, &GaugeCard::calibrations, m_gaugeRow, make),
             removeFrom(&Workshop::gauges, &GaugeCard::calibrations, m_gaugeRow));
    follow(table, m_gaugeRow, {m_gaugeCalibrations.get()});
}

void WorkshopWindow::addPrinters()
{
    addTable(
        addPage(), "printerTable", tr("Printers"), *m_printers,
        [](Workshop &workshop) -> Status {
            PrinterCard card;
            card.name = "printer " + std::to_string(workshop.printers.size() + 1);
            workshop.printers.push_back(card);
            return ok();
        },
        [](Workshop &workshop, std::size_t row) { eraseAt(workshop.printers, row); });
}

void WorkshopWindow::addMaterials()
{
    QVBoxLayout *layout = addPage();
    QTableView *table = addTable(
        layout, "spoolTable", tr("Materials and lots"), *m_spools,
        [this](Workshop &workshop) -> Status {
            // The next material of the study on the rack that has no card yet.
            SpoolCard card;
            if (m_session.study() != nullptr) {
                for (const Condition &condition : m_session.study()->conditions) {
                    const std::string material = materialText(*m_session.study(), condition);
                    if (card.material.empty() && findSpool(workshop, material) == nullptr)
                        card.material = material;
                }
            }
            if (card.material.empty())
                card.material = "spool " + std::to_string(workshop.spools.size() + 1);
            card.polymer =
                polymerIn(card.material).isKnown ? std::string(polymerIn(card.material).facts->name) : "";
            workshop.spools.push_back(card);
            return ok();
        },
        [](Workshop &workshop, std::size_t row) { eraseAt(workshop.spools, row); });
    m_spoolNote = new QLabel;
    m_spoolNote->setObjectName(QStringLiteral("spoolNote"));
    m_spoolNote->setProperty("role", QStringLiteral("warning"));
    m_spoolNote->setWordWrap(true);
    layout->addWidget(m_spoolNote);
    const std::function<MaterialStatement()> statement = [] {
        return MaterialStatement{"nozzle", {}, "spool", false};
    };
    addTable(layout, "statementTable", tr("What spool, box and sheet say of the chosen material"),
             *m_statements, addTo(&Workshop::spools, &SpoolCard::statements, m_spoolRow, statement),
             removeFrom(&Workshop::spools, &SpoolCard::statements, m_spoolRow));
    const std::function<SheetValue()> value = [] {
        SheetValue sheet;
        sheet.property = "tensile strength";
        sheet.unit = "MPa";
        return sheet;
    };
    addTable(layout, "sheetTable", tr("Values of its data sheet"), *m_sheet,
             addTo(&Workshop::spools, &SpoolCard::sheet, m_spoolRow, value),
             removeFrom(&Workshop::spools, &SpoolCard::sheet, m_spoolRow));
    follow(table, m_spoolRow, {m_statements.get(), m_sheet.get()});
}

/// Slope of travel over force of a dummy that is pulled, as the chosen rig's compliance.
void WorkshopWindow::measureCompliance()
{
    const QString path =
        m_prompts.filePath(this, tr("Record of a stiff dummy"), tr("Records (*.csv *.txt *.tsv *.xlsx)"));
    if (path.isEmpty())
        return;
    m_session.tryEditWorkshop(tr("how far a rig gives way"), [&](Workshop &workshop) -> Status {
        if (*m_rigRow >= workshop.rigs.size())
            return invalidArgument("choose the rig in the table first");
        const Result<std::string> bytes = readFileBytes(path.toStdString());
        if (!bytes)
            return bytes.error();
        const Result<double> compliance = complianceOfDummy(*bytes);
        if (!compliance)
            return compliance.error();
        workshop.rigs[*m_rigRow].compliance_mm_per_N = *compliance;
        return ok();
    });
}

void WorkshopWindow::refreshNotes()
{
    const Workshop &workshop = m_session.workshop();
    const std::string today = m_session.today();
    QStringList expired;
    for (const RigCard &rig : workshop.rigs) {
        if (isExpired(usedGauge(rig, today)))
            expired
                << tr("%1: its calibration held until %2. Results that are brought in now carry a warning.")
                       .arg(QString::fromStdString(rig.name),
                            QString::fromStdString(usedGauge(rig, today).calibration->due));
    }
    m_rigNote->setText(expired.join(QLatin1Char('\n')));
    m_rigNote->setVisible(!expired.isEmpty());
    m_strip->setState(0, expired.isEmpty() ? StepState::Done : StepState::Mind, expired.value(0));
    m_strip->setState(1, workshop.gauges.empty() ? StepState::Open : StepState::Done,
                      workshop.gauges.size() == 1 ? tr("1 gauge")
                                                  : tr("%1 gauges").arg(workshop.gauges.size()));
    m_strip->setState(2, workshop.printers.empty() ? StepState::Open : StepState::Done,
                      workshop.printers.size() == 1 ? tr("1 printer")
                                                    : tr("%1 printers").arg(workshop.printers.size()));
    bool disagree = false;
    QStringList chosen;
    for (std::size_t i = 0; i < workshop.spools.size(); ++i) {
        const std::vector<std::string> sentences = disagreements(workshop.spools[i]);
        disagree = disagree || !sentences.empty();
        for (const std::string &sentence : sentences) {
            if (i == *m_spoolRow)
                chosen << QString::fromStdString(sentence);
        }
    }
    m_spoolNote->setText(chosen.join(QLatin1Char('\n')));
    m_spoolNote->setVisible(!chosen.isEmpty());
    m_strip->setState(3,
                      disagree                  ? StepState::Mind
                      : workshop.spools.empty() ? StepState::Open
                                                : StepState::Done,
                      disagree ? tr("sources disagree on a material")
                               : tr("%1 materials").arg(workshop.spools.size()));
    m_strip->setState(4, StepState::Done, tr("hours, money, labels"));
    m_strip->setState(5, workshop.library.empty() ? StepState::Open : StepState::Done,
                      tr("%1 projects in the library").arg(workshop.library.size()));
}

void WorkshopWindow::addHours(QVBoxLayout *layout)
{
    layout->addWidget(heading(tr("Working hours")));
    auto *grid = new QGridLayout;
    const QString names[] = {tr("Mon"), tr("Tue"), tr("Wed"), tr("Thu"), tr("Fri"), tr("Sat"), tr("Sun")};
    for (std::size_t i = 0; i < 7; ++i) {
        auto *edit = lineEdit("", tr("Working hours on %1").arg(names[i]), QStringLiteral("–"));
        edit->setObjectName(QStringLiteral("hours%1").arg(i));
        edit->setMinimumWidth(kNarrowestField);
        grid->addWidget(new QLabel(names[i]), 0, static_cast<int>(i));
        grid->addWidget(edit, 1, static_cast<int>(i));
        m_fields.push_back({edit, [i](const Workshop &workshop) { return hoursText(workshop.hours[i]); }});
        onTyped(
            edit,
            [this, i](const QString &text) {
                return m_session.tryEditWorkshop(tr("change the hours"), [&](Workshop &workshop) -> Status {
                    const Result<WorkingDay> day = hoursFrom(text);
                    if (!day)
                        return day.error();
                    workshop.hours[i] = *day;
                    return ok();
                });
            },
            [this] { refresh(); });
    }
    layout->addLayout(grid);
}

void WorkshopWindow::addMoneyAndLabels(QVBoxLayout *layout)
{
    layout->addWidget(heading(tr("Money, codes, labels")));
    auto *grid = new QGridLayout;
    int index = 0;
    const auto field = [&](const char *name, const QString &label,
                           const std::function<QString(const Workshop &)> &text,
                           const std::function<Status(Workshop &, const std::string &)> &set) {
        auto *edit = lineEdit(name, label);
        addField(grid, index / 3, index % 3, label, edit);
        ++index;
        m_fields.push_back({edit, text});
        onTyped(
            edit,
            [this, set](const QString &typed) {
                return m_session.tryEditWorkshop(tr("change the workshop"), [&](Workshop &workshop) {
                    return set(workshop, typed.simplified().toStdString());
                });
            },
            [this] { refresh(); });
    };
    const auto number = [&](const char *name, const QString &label,
                            const std::function<double &(Workshop &)> &of) {
        field(
            name, label,
            [of](const Workshop &workshop) {
                Workshop copy = workshop;
                return numberText(of(copy));
            },
            [of](Workshop &workshop, const std::string &text) -> Status {
                const std::optional<double> value = parseTypedNumber(text);
                if (!value)
                    return invalidArgument("\"" + text + "\" is no number");
                of(workshop) = *value;
                return ok();
            });
    };
    field(
        "moneyUnit", tr("Money in"),
        [](const Workshop &workshop) { return QString::fromStdString(workshop.moneyUnit); },
        [](Workshop &workshop, const std::string &text) -> Status {
            workshop.moneyUnit = text;
            return ok();
        });
    number("printerRate", tr("Printer per hour"),
           [](Workshop &workshop) -> double & { return workshop.printerRate_per_h; });
    field(
        "labPrefix", tr("Codes begin with"),
        [](const Workshop &workshop) { return QString::fromStdString(workshop.labPrefix); },
        [](Workshop &workshop, const std::string &text) -> Status {
            if (!isLabPrefix(text))
                return invalidArgument("three of the symbols " + std::string(codeSymbols()) + " are wanted");
            workshop.labPrefix = text;
            return ok();
        });
    const std::pair<const char *, std::pair<QString, double LabelStock::*>> sizes[] = {
        {"labelWidth", {tr("Label width mm"), &LabelStock::width_mm}},
        {"labelHeight", {tr("Label height mm"), &LabelStock::height_mm}},
        {"labelPitchX", {tr("Across, label to label"), &LabelStock::pitchX_mm}},
        {"labelPitchY", {tr("Down, label to label"), &LabelStock::pitchY_mm}},
        {"labelLeft", {tr("Left edge mm"), &LabelStock::left_mm}},
        {"labelTop", {tr("Top edge mm"), &LabelStock::top_mm}}};
    for (const auto &[name, what] : sizes)
        number(name, what.first, [member = what.second](Workshop &workshop) -> double & {
            if (workshop.labels.name != "own size")
                workshop.labels.name = "own size";
            return workshop.labels.*member;
        });
    const std::pair<const char *, std::pair<QString, int LabelStock::*>> counts[] = {
        {"labelColumns", {tr("Labels across"), &LabelStock::columns}},
        {"labelRows", {tr("Labels down"), &LabelStock::rows}}};
    for (const auto &[name, what] : counts)
        field(
            name, what.first,
            [member = what.second](const Workshop &workshop) {
                return QString::number(workshop.labels.*member);
            },
            [member = what.second](Workshop &workshop, const std::string &text) -> Status {
                const std::optional<double> value = parseTypedNumber(text);
                if (!value || *value < 1.0 || *value > 100.0)
                    return invalidArgument("1 to 100 labels are possible");
                workshop.labels.name = "own size";
                workshop.labels.*member = static_cast<int>(*value);
                return ok();
            });
    layout->addLayout(grid);
}

void WorkshopWindow::addLibrary()
{
    QVBoxLayout *layout = addPage();
    layout->addWidget(heading(tr("Projects whose results count as earlier work")));
    layout->addWidget(softLabel(tr("Compare then shows where a polymer lay in all of them, as a mark on the "
                                   "rail and in a sentence. They are only read.")));
    m_library = new QListWidget;
    m_library->setObjectName(QStringLiteral("libraryList"));
    m_library->setAccessibleName(tr("Projects of the library"));
    layout->addWidget(m_library, 1);
    auto *row = new QHBoxLayout;
    auto *add = button("addToLibrary", tr("Add a project…"));
    auto *remove = button("removeFromLibrary", tr("Take it out"));
    row->addWidget(add);
    row->addWidget(remove);
    row->addStretch(1);
    layout->addLayout(row);
    connect(add, &QPushButton::clicked, this, [this] {
        const std::string path =
            m_prompts.filePath(this, tr("A project for the library"), tr("Inch Peg project (*.inchpeg)"))
                .toStdString();
        if (path.empty())
            return;
        m_session.tryEditWorkshop(tr("add to the library"), [&](Workshop &workshop) -> Status {
            if (Result<ProjectFile> project = ProjectFile::openForReading(path); !project)
                return project.error();
            if (std::find(workshop.library.begin(), workshop.library.end(), path) == workshop.library.end())
                workshop.library.push_back(path);
            return ok();
        });
    });
    connect(remove, &QPushButton::clicked, this, [this] {
        const int place = m_library->currentRow();
        if (place < 0)
            return;
        m_session.tryEditWorkshop(tr("take out of the library"), [&](Workshop &workshop) {
            eraseAt(workshop.library, static_cast<std::size_t>(place));
            return ok();
        });
    });
}

void WorkshopWindow::refresh()
{
    m_library->clear();
    for (const std::string &path : m_session.workshop().library)
        m_library->addItem(QString::fromStdString(path));
    for (CardTableModel *model :
         {m_rigs.get(), m_gauges.get(), m_printers.get(), m_spools.get(), m_rigCalibrations.get(),
          m_gaugeCalibrations.get(), m_statements.get(), m_sheet.get()})
        model->refresh();
    refreshNotes();
    for (const Field &field : m_fields)
        showText(field.edit, field.text(m_session.workshop()));
}

} // namespace inchpeg::app
