// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/measure_page.h"

#include "app/log/table_buttons.h"
#include "app/parts/page_parts.h"
#include "core/logbook/log_summary.h"
#include "core/units/number.h"
#include "service/log_tables.h"

#include <QFrame>
#include <QHeaderView>
#include <QItemSelectionModel>
#include <QShortcut>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr int kNoAxis = -1;

struct Labelled {
    QString label;
    QWidget *field = nullptr;
    int stretch = 0;
};

/// Fields beside each other, each behind its label.
QHBoxLayout *labelledRow(const std::vector<Labelled> &fields)
{
    auto *row = new QHBoxLayout;
    for (const Labelled &one : fields) {
        if (!one.label.isEmpty()) {
            auto *label = new QLabel(one.label);
            label->setBuddy(one.field);
            row->addWidget(label);
        }
        if (one.stretch > 0)
            one.field->setMinimumWidth(kNarrowestField); // gives way in a narrow window
        row->addWidget(one.field, one.stretch);
    }
    return row;
}

} // namespace

MeasurePage::MeasurePage(ProjectSession &session, Prompts &prompts, QWidget *parent)
    : QWidget(parent), m_session(session), m_prompts(prompts), m_model(session)
{
    setObjectName(QStringLiteral("measurePage"));
    m_table = new MeasureTable(m_model);
    m_summary = new QLabel;
    m_summary->setObjectName(QStringLiteral("logSummary"));
    m_summary->setWordWrap(true);
    auto *import = button("bringIn", tr("Bring in records…"), true);
    m_tables = new TableButtons(
        session, prompts,
        {"Table", tr("of measurements"), QStringLiteral("log.csv"), &measurementsPreview, &logTable});
    auto *top = new QHBoxLayout;
    top->addWidget(m_summary, 1);
    top->addWidget(m_tables);
    top->addWidget(import);
    m_gauge = new GaugeBar;
    m_doubtBar = createDoubtBar();
    m_shrinkage = softLabel({});
    m_shrinkage->setObjectName(QStringLiteral("shrinkage"));
    m_expired = new QLabel;
    m_expired->setObjectName(QStringLiteral("gaugeWarning"));
    m_expired->setProperty("role", QStringLiteral("warning"));
    m_expired->setWordWrap(true);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(18, 10, 18, 12);
    layout->addLayout(top);
    layout->addWidget(createRule());
    layout->addWidget(m_table, 1);
    layout->addWidget(m_doubtBar);
    layout->addWidget(m_shrinkage);
    layout->addWidget(m_expired);
    layout->addWidget(m_gauge);
    layout->addWidget(
        softLabel(tr("Type a number and press Enter: the next cell waits. 402 is 4.02 where 4 mm are "
                     "drawn; units may be typed (0.4 in). A scanned label goes to its piece. Ctrl+V "
                     "pastes cells, or a whole table with its headings.")));

    connect(import, &QPushButton::clicked, this, &MeasurePage::importRequested);
    connect(m_table, &MeasureTable::tablePasted, m_tables, &TableButtons::preview);
    connect(m_tables, &TableButtons::taken, this, &MeasurePage::lookAt);
    connect(m_table->selectionModel(), &QItemSelectionModel::currentChanged, this,
            [this](const QModelIndex &current) {
                if (current.isValid())
                    m_session.selectPiece(m_model.pieceAt(current.row()));
            });
    connect(&m_model, &QAbstractItemModel::modelReset, this, &MeasurePage::showSelection);
    connect(&m_model, &PieceTableModel::labelScanned, this, &MeasurePage::goToLabel, Qt::QueuedConnection);
    connect(&m_model, &PieceTableModel::taken, this, &MeasurePage::lookAt);
    connect(&m_gauge->gauge(), &SerialGauge::reading, this, &MeasurePage::takeGaugeReading);
    connect(&m_gauge->gauge(), &SerialGauge::fault, this,
            [this](const QString &sentence) { emit m_session.failed(sentence); });
    connect(&session, &ProjectSession::selectionChanged, this, &MeasurePage::showSelection);
    connect(&session, &ProjectSession::projectChanged, this, [this] { m_toLookAt.clear(); });
    m_looking.setSingleShot(true);
    m_looking.setInterval(0);
    connect(&m_looking, &QTimer::timeout, this, &MeasurePage::showDoubt);
    showSelection();
    refresh();
}

QWidget *MeasurePage::createRule()
{
    m_readings = spinBox("readings", tr("Readings of each size"), 1, kMostReadings);
    m_rule = comboBox("readingRule", tr("How they are taken together"));
    m_rule->addItem(tr("mean"), static_cast<int>(ReadingRule::Mean));
    m_rule->addItem(tr("smallest"), static_cast<int>(ReadingRule::Smallest));
    m_order = comboBox("benchOrder", tr("Order of the pieces"));
    for (const BenchOrder order : {BenchOrder::Rails, BenchOrder::Plates, BenchOrder::Testing})
        m_order->addItem(benchOrderName(order), static_cast<int>(order));
    m_walk = comboBox("walk", tr("Which cell comes next"));
    m_walk->addItem(tr("all along"), static_cast<int>(Walk::Piece));
    m_walk->addItem(tr("sizes only"), static_cast<int>(Walk::Sizes));
    m_walk->addItem(tr("downwards"), static_cast<int>(Walk::Column));
    m_calliper = comboBox("calliper", tr("Callipers: their calibration is kept with each reading"));
    m_scale = comboBox("scale", tr("Scale: its calibration is kept with each mass"));
    m_axis = comboBox("lengthAxis", tr("Known length along"));
    m_axis->addItem(tr("none"), kNoAxis);
    for (const PrintAxis axis : kPrintAxes)
        m_axis->addItem(tr("along %1").arg(QString::fromUtf8(axisName(axis).data())), static_cast<int>(axis));
    m_length = lineEdit("knownLength", tr("The length as drawn"), tr("e.g. 80 mm"));
    m_readings->setFixedWidth(44);
    auto *box = new QWidget;
    auto *rows = new QVBoxLayout(box);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->addLayout(labelledRow({{tr("Order"), m_order, 3},
                                 {tr("next"), m_walk, 2},
                                 {tr("Readings"), m_readings, 0},
                                 {{}, m_rule, 2}}));
    rows->addLayout(labelledRow({{tr("Callipers"), m_calliper, 5},
                                 {tr("Scale"), m_scale, 6},
                                 {tr("Shrinkage"), m_axis, 4},
                                 {tr("drawn"), m_length, 4}}));
    connect(m_readings, &QSpinBox::valueChanged, this, [this](int count) {
        changeRule(tr("readings of each size"), [count](MeasuringRule &rule) {
            rule.readings = count;
            return ok();
        });
    });
    connect(m_rule, &QComboBox::activated, this, [this] {
        changeRule(tr("how readings count"), [this](MeasuringRule &rule) {
            rule.rule = static_cast<ReadingRule>(m_rule->currentData().toInt());
            return ok();
        });
    });
    connect(m_order, &QComboBox::activated, this,
            [this] { m_model.setOrder(static_cast<BenchOrder>(m_order->currentData().toInt())); });
    connect(m_walk, &QComboBox::activated, this,
            [this] { m_model.setWalk(static_cast<Walk>(m_walk->currentData().toInt())); });
    const auto offer = [this](QComboBox *choice, const QString &what, std::string MeasuringRule::*gauge) {
        connect(choice, &QComboBox::activated, this, [this, choice, what, gauge] {
            changeRule(what, [choice, gauge](MeasuringRule &rule) {
                rule.*gauge = choice->currentData().toString().toStdString();
                return ok();
            });
        });
    };
    offer(m_calliper, tr("the callipers"), &MeasuringRule::calliper);
    offer(m_scale, tr("the scale"), &MeasuringRule::scale);
    connect(m_axis, &QComboBox::activated, this, [this] {
        changeRule(tr("the known length"), [this](MeasuringRule &rule) {
            const int axis = m_axis->currentData().toInt();
            rule.lengthAxis = axis == kNoAxis ? std::nullopt : std::optional(static_cast<PrintAxis>(axis));
            return ok();
        });
    });
    onTyped(
        m_length,
        [this](const QString &text) {
            return m_session.tryEdit(tr("the known length"), [&](Study &study) -> Status {
                if (text.trimmed().isEmpty()) {
                    study.log.measuring.length_mm.reset();
                    return ok();
                }
                const Result<double> length = parseQuantity(text.trimmed().toStdString(),
                                                            m_session.notation().unitOf(Dimension::Length));
                if (!length)
                    return length.error();
                if (!(*length > 0.0))
                    return invalidArgument("a drawn length above zero is wanted");
                study.log.measuring.length_mm = *length;
                return ok();
            });
        },
        [this] { refreshRule(); });
    return box;
}

QFrame *MeasurePage::createDoubtBar()
{
    auto *bar = new QFrame;
    bar->setObjectName(QStringLiteral("doubtBar"));
    bar->setProperty("notice", true);
    m_doubtText = new QLabel;
    m_doubtText->setObjectName(QStringLiteral("doubtText"));
    m_doubtText->setWordWrap(true);
    m_take = button("takeProposed", {});
    auto *keep = button("keepValue", tr("It is right (F8)"));
    auto *row = new QHBoxLayout(bar);
    row->setContentsMargins(10, 4, 10, 4);
    row->addWidget(m_doubtText, 1);
    row->addWidget(m_take);
    row->addWidget(keep);
    connect(keep, &QPushButton::clicked, this, &MeasurePage::keepValue);
    connect(m_take, &QPushButton::clicked, this, &MeasurePage::takeProposed);
    connect(new QShortcut(QKeySequence(Qt::Key_F8), this), &QShortcut::activated, this,
            &MeasurePage::keepValue);
    connect(new QShortcut(QKeySequence(Qt::Key_F9), this), &QShortcut::activated, this,
            &MeasurePage::takeProposed);
    bar->hide();
    return bar;
}

void MeasurePage::changeRule(const QString &what, const std::function<Status(MeasuringRule &)> &change)
{
    const bool done = m_session.tryEdit(what, [&](Study &study) -> Status {
        if (const Status status = change(study.log.measuring); !status)
            return status;
        applyMeasuringRule(study);
        return ok();
    });
    if (!done)
        refreshRule();
}

void MeasurePage::refresh()
{
    if (m_session.study() == nullptr) {
        m_summary->clear();
        return;
    }
    refreshRule();
    refreshSummary();
    showDoubt();
}

void MeasurePage::refreshRule()
{
    const MeasuringRule &rule = m_session.study()->log.measuring;
    showValue(m_readings, rule.readings);
    const Method method = methodOf(*m_session.study());
    const MeasuringRule usual = usualMeasuring(method);
    m_readings->setToolTip(tr("Readings of each size. Usual for %1: %2, and their %3")
                               .arg(QString::fromUtf8(methodName(method).data()))
                               .arg(usual.readings)
                               .arg(QString::fromUtf8(readingRuleName(usual.rule).data())));
    choose(m_rule, static_cast<int>(rule.rule));
    m_rule->setEnabled(rule.readings > 1);
    choose(m_axis, rule.lengthAxis ? static_cast<int>(*rule.lengthAxis) : kNoAxis);
    m_length->setEnabled(rule.lengthAxis.has_value());
    showText(m_length, rule.length_mm ? QString::fromStdString(m_session.notation().quantity(
                                            *rule.length_mm, Dimension::Length, 6))
                                      : QString());
    offerGauges(m_calliper, GaugeKind::Calliper, rule.calliper);
    offerGauges(m_scale, GaugeKind::Scale, rule.scale);
    QStringList ports;
    for (const GaugeCard &gauge : m_session.workshop().gauges) {
        if (!gauge.port.empty())
            ports << QString::fromStdString(gauge.port);
    }
    m_gauge->offerPorts(ports);
}

void MeasurePage::offerGauges(QComboBox *box, GaugeKind kind, const std::string &chosen)
{
    const QSignalBlocker blocker(box);
    box->clear();
    box->addItem(tr("not said"), QString());
    for (const GaugeCard &gauge : m_session.workshop().gauges) {
        if (gauge.kind == kind)
            box->addItem(QString::fromStdString(gauge.name), QString::fromStdString(gauge.name));
    }
    box->setCurrentIndex(std::max(0, box->findData(QString::fromStdString(chosen))));
}

void MeasurePage::refreshSummary()
{
    const Study &study = *m_session.study();
    const LogCounts counts = logCounts(study);
    m_summary->setText(study.pieces.empty()
                           ? tr("There are no pieces yet: make the rails under Ask & plan (Ctrl+1).")
                           : tr("%1 pieces: %2 measured, %3 weighed, %4 with a record")
                                 .arg(study.pieces.size())
                                 .arg(counts.measured)
                                 .arg(counts.weighed)
                                 .arg(counts.recorded));
    m_expired->setText(gaugeWarning());
    m_expired->setVisible(!m_expired->text().isEmpty());
    const Summary summary = shrinkageSummary_percent(study);
    m_shrinkage->setVisible(summary.mean.has_value());
    if (!summary.mean)
        return;
    const Notation &notation = m_session.notation();
    QString text = tr("Shrunk along %1 by %2 %, %3 pieces")
                       .arg(QString::fromUtf8(axisName(*study.log.measuring.lengthAxis).data()),
                            QString::fromStdString(notation.fixed(*summary.mean, 2)))
                       .arg(summary.n);
    if (summary.sd)
        text += tr(", standard deviation %1 %").arg(QString::fromStdString(notation.fixed(*summary.sd, 2)));
    m_shrinkage->setText(text + QLatin1Char('.'));
}

/// What must be known of the chosen callipers and scale; empty where nothing must.
QString MeasurePage::gaugeWarning() const
{
    const MeasuringGauges gauges = m_session.measuringGauges();
    QStringList sentences;
    for (const std::optional<UsedGauge> &gauge : {gauges.calliper, gauges.scale}) {
        if (gauge && isExpired(*gauge))
            sentences << tr("The calibration of %1 held only until %2.")
                             .arg(QString::fromStdString(gauge->name),
                                  QString::fromStdString(gauge->calibration->due));
    }
    return sentences.join(QLatin1Char(' '));
}

void MeasurePage::showSelection()
{
    m_table->fitColumns();
    const int row = m_model.rowOf(m_session.selectedPiece());
    if (row < 0 || m_table->currentIndex().row() == row)
        return;
    const QModelIndex present = m_table->currentIndex();
    m_table->setCurrentIndex(present.isValid() && m_model.isEntry(present.column())
                                 ? m_model.index(row, present.column())
                                 : m_model.firstOpen(row));
}

/// A label was scanned: its piece's first empty cell waits, in whatever study it is.
void MeasurePage::goToLabel(PieceId piece)
{
    if (m_model.rowOf(piece) < 0) {
        const Result<StudyId> study = m_session.project().studyOf(piece);
        if (!study) {
            m_session.tell(study.error());
            return;
        }
        if (!m_session.tell(m_session.goTo(*study, piece)))
            return;
    }
    const int row = m_model.rowOf(piece);
    if (row < 0)
        return;
    m_table->setFocus();
    m_table->setCurrentIndex(m_model.firstOpen(row));
}

void MeasurePage::takeGaugeReading(const GaugeReading &reading)
{
    m_gauge->showReading(QString::fromStdString(reading.text).simplified());
    if (m_session.study() != nullptr && isVisible())
        m_table->takeReading(reading);
}

void MeasurePage::lookAt(PieceId piece)
{
    std::erase(m_toLookAt, piece);
    m_toLookAt.insert(m_toLookAt.begin(), piece);
    m_looking.start(); // once for all pieces of a paste
}

/// The newest unlikely value; those that are answered or were changed go.
void MeasurePage::showDoubt()
{
    m_doubt.reset();
    std::erase_if(m_toLookAt, [this](PieceId piece) { return m_model.doubtsAbout(piece).empty(); });
    if (!m_toLookAt.empty())
        m_doubt = m_model.doubtsAbout(m_toLookAt.front()).front();
    m_doubtBar->setVisible(m_doubt.has_value());
    if (!m_doubt)
        return;
    const Notation &notation = m_session.notation();
    QString text = QString::fromStdString(notation.expand(m_doubt->sentence)) + QLatin1Char('.');
    if (m_toLookAt.size() == 2)
        text += tr(" One more piece is to be looked at.");
    else if (m_toLookAt.size() > 2)
        text += tr(" %1 more pieces are to be looked at.").arg(m_toLookAt.size() - 1);
    m_doubtText->setText(text);
    m_take->setVisible(m_doubt->proposed || m_doubt->swapped);
    if (m_doubt->swapped)
        m_take->setText(tr("Swap them (F9)"));
    else if (m_doubt->proposed)
        m_take->setText(tr("Take %1 (F9)").arg(QString::fromStdString(notation.plain(*m_doubt->proposed))));
}

void MeasurePage::keepValue()
{
    if (!m_doubt)
        return;
    m_session.tryEdit(tr("confirm a reading"), [this](Study &study) {
        confirmReading(study, *findPiece(study, m_doubt->piece), *m_doubt, m_session.who().toStdString(),
                       m_session.now());
        return ok();
    });
    showDoubt();
}

void MeasurePage::takeProposed()
{
    if (!m_doubt || (!m_doubt->proposed && !m_doubt->swapped))
        return;
    m_session.tryEdit(tr("mend a reading"), [this](Study &study) {
        return takeProposal(study, *findPiece(study, m_doubt->piece), *m_doubt);
    });
    showDoubt();
}

} // namespace inchpeg::app
