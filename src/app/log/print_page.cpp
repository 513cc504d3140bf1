// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/print_page.h"

#include "app/log/plate_settings.h"
#include "app/log/table_buttons.h"
#include "app/parts/page_parts.h"
#include "app/parts/peg_mark.h"
#include "core/units/number.h"
#include "service/log_tables.h"

#include <QCheckBox>

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

QString optionalText(const std::optional<double> &value)
{
    return value ? QString::number(*value, 'g', 6) : QString();
}

QString minutesText(const std::optional<double> &minutes)
{
    if (!minutes)
        return {};
    const int whole = static_cast<int>(std::lround(*minutes));
    return QStringLiteral("%1:%2").arg(whole / 60).arg(whole % 60, 2, 10, QLatin1Char('0'));
}

/// A typed number, or nothing for an empty field.
Status setNumber(std::optional<double> &number, const QString &text)
{
    if (text.trimmed().isEmpty()) {
        number.reset();
        return ok();
    }
    const std::string typed = text.trimmed().toStdString();
    const std::optional<double> value =
        parseTypedNumber(std::string_view(typed).substr(0, numberPrefixLength(typed)));
    if (!value)
        return invalidArgument("\"" + typed + "\" is no number");
    number = *value;
    return ok();
}

QComboBox *troubleBox(const char *name)
{
    auto *box = comboBox(name, PrintPage::tr("What went wrong"));
    for (const PrintTrouble trouble : kPrintTroubles)
        box->addItem(QString::fromUtf8(troubleName(trouble).data()), static_cast<int>(trouble));
    return box;
}

} // namespace

PrintPage::PrintPage(ProjectSession &session, PlanState &plan, Prompts &prompts, QWidget *parent)
    : QWidget(parent), m_session(session), m_plan(plan), m_prompts(prompts)
{
    setObjectName(QStringLiteral("printPage"));
    QVBoxLayout *layout = scrollingPage(this);
    m_plates = comboBox("loggedPlate", tr("Plate"));
    m_plates->setMinimumContentsLength(24);
    m_printed = button("logPrinted", tr("It is printed"), true);
    m_back = button("logNotPrinted", tr("Not printed after all"));
    m_state = softLabel({});
    m_state->setObjectName(QStringLiteral("plateState"));
    auto *top = new QHBoxLayout;
    top->addWidget(m_plates, 3);
    top->addWidget(m_printed);
    top->addWidget(m_back);
    top->addStretch(1);
    auto *below = new QHBoxLayout;
    below->addWidget(m_state, 1);
    below->addWidget(new TableButtons(session, prompts,
                                      {"Plates", tr("of plates' records"), QStringLiteral("plates.csv"),
                                       &plateRecordsPreview, &plateTable}));
    layout->addLayout(top);
    layout->addLayout(below);
    m_record = new QWidget;
    auto *record = new QVBoxLayout(m_record);
    record->setContentsMargins(0, 0, 0, 0);
    record->addWidget(createFields());
    m_settings = new PlateSettings(session, prompts);
    record->addWidget(m_settings);
    record->addWidget(heading(tr("What happened while it was printed")));
    m_events = new QVBoxLayout;
    record->addLayout(m_events);
    record->addWidget(createEventRow());
    record->addWidget(heading(tr("Pieces that failed")));
    m_failures = new QVBoxLayout;
    record->addLayout(m_failures);
    record->addWidget(createFailureRow());
    layout->addWidget(m_record);
    layout->addStretch(1);
    connect(m_plates, &QComboBox::activated, this, [this] { showPlate(m_plates->currentData().toInt()); });
    connect(m_printed, &QPushButton::clicked, this, &PrintPage::markPrintedNow);
    connect(m_back, &QPushButton::clicked, this, &PrintPage::takeBack);
}

void PrintPage::addField(QGridLayout *grid, int row, int column, const char *name, const QString &label,
                         const std::function<QString(const PlateRecord &)> &text,
                         const std::function<Status(PlateRecord &, const QString &)> &set)
{
    auto *edit = lineEdit(name, label);
    app::addField(grid, row, column, label, edit);
    m_fields.push_back({edit, text});
    onTyped(
        edit,
        [this, label, set](const QString &typed) {
            return change(label.toLower(), [&](PlateRecord &record) { return set(record, typed.trimmed()); });
        },
        [this] { refreshFields(); });
}

QWidget *PrintPage::createFields()
{
    auto *box = new QWidget;
    auto *grid = new QGridLayout(box);
    grid->setContentsMargins(0, 4, 0, 0);
    const auto text = [&](int row, int column, const char *name, const QString &label,
                          std::string PlateRecord::*of) {
        addField(
            grid, row, column, name, label,
            [of](const PlateRecord &record) { return QString::fromStdString(record.*of); },
            [of](PlateRecord &record, const QString &typed) {
                record.*of = typed.toStdString();
                return ok();
            });
    };
    const auto number = [&](int row, int column, const char *name, const QString &label,
                            std::optional<double> PlateRecord::*of) {
        addField(
            grid, row, column, name, label,
            [of](const PlateRecord &record) { return optionalText(record.*of); },
            [of](PlateRecord &record, const QString &typed) { return setNumber(record.*of, typed); });
    };
    text(0, 0, "platePrinter", tr("Printer"), &PlateRecord::printer);
    text(0, 1, "plateSpool", tr("Spool, lot"), &PlateRecord::spool);
    number(0, 2, "plateChamber", tr("Chamber °C"), &PlateRecord::chamber_C);
    const auto time = [&](int row, int column, const char *name, const QString &label,
                          std::string PlateRecord::*of) {
        addField(
            grid, row, column, name, label, [of](const PlateRecord &record) { return shownTime(record.*of); },
            [of](PlateRecord &record, const QString &typed) {
                record.*of = keptTime(typed);
                return ok();
            });
    };
    time(1, 0, "plateStarted", tr("Started"), &PlateRecord::startedAt);
    time(1, 1, "plateEnded", tr("Ended"), &PlateRecord::endedAt);
    number(1, 2, "plateGrams", tr("Slicer g"), &PlateRecord::grams);
    addField(
        grid, 2, 2, "plateMinutes", tr("Slicer h:min"),
        [](const PlateRecord &record) { return minutesText(record.minutes); },
        [](PlateRecord &record, const QString &typed) -> Status {
            record.minutes.reset();
            if (typed.isEmpty())
                return ok();
            record.minutes = minutesFrom(typed.toStdString());
            return record.minutes ? ok() : invalidArgument("a time is written like 2:05 or 1h 20m");
        });
    addField(
        grid, 2, 0, "plateNote", tr("Note"),
        [](const PlateRecord &record) { return QString::fromStdString(record.note); },
        [](PlateRecord &record, const QString &typed) {
            record.note = typed.toStdString();
            return ok();
        });
    grid->removeWidget(m_fields.back().edit);
    grid->addWidget(m_fields.back().edit, 2, 1, 1, 3);
    return box;
}

QWidget *PrintPage::createEventRow()
{
    m_trouble = troubleBox("eventTrouble");
    m_what = lineEdit("eventWhat", tr("What was seen"), tr("what was seen"));
    m_done = lineEdit("eventDone", tr("What was done"), tr("what was done"));
    auto *add = button("addEvent", tr("Add"));
    auto *box = new QWidget;
    auto *row = new QHBoxLayout(box);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(m_trouble);
    row->addWidget(m_what, 1);
    row->addWidget(m_done, 1);
    row->addWidget(add);
    connect(add, &QPushButton::clicked, this, &PrintPage::addEvent);
    return box;
}

QWidget *PrintPage::createFailureRow()
{
    m_piece = comboBox("failedPiece", tr("Piece that failed"));
    m_pieceTrouble = troubleBox("pieceTrouble");
    m_pieceWhat = lineEdit("pieceWhat", tr("What was seen on it"), tr("what was seen"));
    m_again = new QCheckBox(tr("print it again"));
    m_again->setObjectName(QStringLiteral("printAgain"));
    m_again->setChecked(true);
    auto *failed = button("pieceFailed", tr("It failed"));
    auto *box = new QWidget;
    auto *row = new QHBoxLayout(box);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(m_piece);
    row->addWidget(m_pieceTrouble);
    row->addWidget(m_pieceWhat, 1);
    row->addWidget(m_again);
    row->addWidget(failed);
    connect(failed, &QPushButton::clicked, this, &PrintPage::fail);
    return box;
}

const Plate *PrintPage::plate()
{
    const std::vector<Plate> &plates = m_plan.layout().plates;
    const auto found = std::find_if(plates.begin(), plates.end(),
                                    [this](const Plate &one) { return one.number == m_number; });
    return found == plates.end() ? nullptr : &*found;
}

PlateRecord PrintPage::recordNow() const
{
    const PlateRecord *record = findPlateRecord(m_session.study()->log, m_number);
    if (record != nullptr)
        return *record;
    PlateRecord empty;
    empty.plate = m_number;
    return empty;
}

bool PrintPage::change(const QString &what, const std::function<Status(PlateRecord &)> &edit)
{
    return m_session.tryEdit(tr("plate %1: %2").arg(m_number).arg(what), [&](Study &study) -> Status {
        PlateRecord &record = plateRecord(study.log, m_number);
        if (const Status status = edit(record); !status)
            return status;
        return checkPlateRecord(record);
    });
}

void PrintPage::showPlate(int number)
{
    m_number = number;
    refresh();
}

void PrintPage::refresh()
{
    if (m_session.study() == nullptr)
        return;
    const std::vector<Plate> &plates = m_plan.layout().plates;
    if (plate() == nullptr)
        m_number = plates.empty() ? 0 : plates.front().number;
    {
        const QSignalBlocker blocker(m_plates);
        m_plates->clear();
        for (const Plate &one : plates)
            m_plates->addItem(tr("plate %1: %2%3")
                                  .arg(one.number)
                                  .arg(QString::fromStdString(one.settings),
                                       one.printedAt.empty() ? tr(", to be printed") : QString()),
                              one.number);
        m_plates->setCurrentIndex(m_plates->findData(m_number));
    }
    const Plate *one = plate();
    const bool printed = one != nullptr && !one->printedAt.empty();
    m_plates->setVisible(one != nullptr);
    m_printed->setVisible(one != nullptr && !printed);
    m_back->setVisible(printed);
    m_record->setVisible(printed);
    m_state->setText(
        one == nullptr ? tr("No plates are laid out: every piece holds data, or there are none. Plates "
                            "are made under Ask & plan.")
        : printed      ? tr("printed, %1 pieces").arg(one->pieces.size())
                       : tr("%1 pieces; its record begins once it is printed").arg(one->pieces.size()));
    one = plate(); // a field that was hidden just now may have handed over its text, and the plan is another
    if (one == nullptr || one->printedAt.empty())
        return;
    refreshFields();
    m_settings->show(*one);
    refreshEvents();
    refreshPieces();
}

void PrintPage::refreshFields()
{
    const PlateRecord record = recordNow();
    for (const Field &field : m_fields)
        showText(field.edit, field.text(record));
}

void PrintPage::refreshEvents()
{
    clearLayout(m_events);
    const PlateRecord record = recordNow();
    for (std::size_t i = 0; i < record.events.size(); ++i) {
        const PrintEvent &event = record.events[i];
        auto *box = new QWidget;
        auto *row = new QHBoxLayout(box);
        row->setContentsMargins(0, 0, 0, 0);
        auto *words = new QLabel(
            QStringLiteral("%1%2%3%4")
                .arg(event.at.empty() ? QString() : shownTime(event.at) + QStringLiteral("  "),
                     QString::fromUtf8(troubleName(event.trouble).data()),
                     event.what.empty() ? QString()
                                        : QStringLiteral(": ") + QString::fromStdString(event.what),
                     event.done.empty() ? QString()
                                        : tr("; done: %1").arg(QString::fromStdString(event.done))));
        words->setWordWrap(true);
        auto *drop = button("", tr("Remove"));
        drop->setObjectName(QStringLiteral("removeEvent%1").arg(i));
        drop->setProperty("slim", true);
        row->addWidget(new PegMark(PegState::Doubtful));
        row->addWidget(words, 1);
        row->addWidget(drop);
        m_events->addWidget(box);
        connect(drop, &QPushButton::clicked, this, [this, i, event] {
            change(tr("remove an event"), [&](PlateRecord &changed) -> Status {
                if (const Status there = stillAt(i, changed.events, event); !there)
                    return there;
                changed.events.erase(changed.events.begin() + static_cast<std::ptrdiff_t>(i));
                return ok();
            });
        });
    }
    if (record.events.empty())
        m_events->addWidget(softLabel(tr("Nothing is logged: it went through.")));
}

void PrintPage::refreshPieces()
{
    clearLayout(m_failures);
    const Study &study = *m_session.study();
    const int chosen = m_piece->currentIndex();
    {
        const QSignalBlocker blocker(m_piece);
        m_piece->clear();
    }
    bool any = false;
    for (const PlacedPiece &placed : plate()->pieces) {
        const Piece *piece = findPiece(study, placed.piece);
        if (piece == nullptr)
            continue;
        const QString code = QString::fromStdString(piece->code);
        const auto failure = std::find_if(piece->log.failures.begin(), piece->log.failures.end(),
                                          [this](const PrintFailure &one) { return one.plate == m_number; });
        if (failure == piece->log.failures.end()) {
            if (!piece->recording && platesOf(study, piece->id).back() == m_number)
                m_piece->addItem(code, QVariant::fromValue(qlonglong{piece->id.value}));
            continue;
        }
        any = true;
        auto *box = new QWidget;
        auto *row = new QHBoxLayout(box);
        row->setContentsMargins(0, 0, 0, 0);
        row->addWidget(new PegMark(PegState::Lost));
        const std::vector<int> plates = platesOf(study, piece->id);
        const QString next = plates.back() != m_number ? tr("; printed again on plate %1").arg(plates.back())
                             : failure->reprint        ? tr("; to be printed again")
                                                       : QString();
        auto *words = new QLabel(tr("%1: %2%3%4")
                                     .arg(code, QString::fromUtf8(troubleName(failure->trouble).data()),
                                          failure->what.empty()
                                              ? QString()
                                              : QStringLiteral(", ") + QString::fromStdString(failure->what),
                                          next));
        words->setWordWrap(true);
        row->addWidget(words, 1);
        if (plates.back() == m_number) {
            auto *back = button("", tr("Take back"));
            back->setObjectName(QStringLiteral("unfail-") + code);
            back->setProperty("slim", true);
            row->addWidget(back);
            connect(back, &QPushButton::clicked, this, [this, id = piece->id] {
                m_session.tryEdit(tr("take a failure back"),
                                  [id](Study &changed) { return unmarkFailed(changed, id); });
            });
        }
        m_failures->addWidget(box);
    }
    m_piece->setCurrentIndex(std::clamp(chosen, 0, std::max(0, m_piece->count() - 1)));
    if (!any)
        m_failures->addWidget(softLabel(tr("None of this plate.")));
}

void PrintPage::markPrintedNow()
{
    m_session.tryEdit(tr("plate %1 is printed").arg(m_number), [this](Study &study) -> Status {
        const PlateLayout layout = m_plan.layout();
        if (const Status status = markPrinted(study, layout, m_number, m_session.now()); !status)
            return status;
        PlateRecord &record = plateRecord(study.log, m_number);
        const PrinterCard *printer = findPrinter(m_session.workshop(), study.plan.print.printer);
        if (printer != nullptr && record.printer.empty())
            record.printer = printer->name;
        if (record.endedAt.empty())
            record.endedAt = momentText(m_session.workshopTime());
        return ok();
    });
}

void PrintPage::takeBack()
{
    m_session.tryEdit(tr("plate %1 is not printed").arg(m_number), [this](Study &study) {
        const Status status = unmarkPrinted(study, m_number);
        if (status)
            std::erase_if(study.log.plates,
                          [this](const PlateRecord &record) { return record.plate == m_number; });
        return status;
    });
}

void PrintPage::addEvent()
{
    const bool added = change(tr("add an event"), [this](PlateRecord &record) {
        record.events.push_back({static_cast<PrintTrouble>(m_trouble->currentData().toInt()),
                                 momentText(m_session.workshopTime()), m_what->text().trimmed().toStdString(),
                                 m_done->text().trimmed().toStdString(), m_session.who().toStdString()});
        return ok();
    });
    if (added) {
        m_what->clear();
        m_done->clear();
    }
}

void PrintPage::fail()
{
    const PieceId piece{m_piece->currentData().toLongLong()};
    if (piece.value == 0)
        return;
    const bool failed =
        m_session.tryEdit(tr("piece %1 failed").arg(m_piece->currentText()), [&](Study &study) {
            return markFailed(study, piece,
                              {m_number, static_cast<PrintTrouble>(m_pieceTrouble->currentData().toInt()),
                               m_pieceWhat->text().trimmed().toStdString(), m_again->isChecked(),
                               m_session.who().toStdString(), m_session.now()});
        });
    if (failed)
        m_pieceWhat->clear();
}

} // namespace inchpeg::app
