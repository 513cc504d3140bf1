// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/bench_presenter.h"

#include "app/bench/live_words.h"
#include "core/logbook/break_looks.h"
#include "core/logbook/typed_record.h"
#include "core/model/study_edit.h"
#include "core/planning/plan_edit.h"
#include "core/reading/reading_settings.h"
#include "core/stats/summary.h"
#include "core/units/number.h"

#include <QDir>
#include <QFile>
#include <QPointer>

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

constexpr int kBaud = 115200;

} // namespace

BenchPresenter::BenchPresenter(ProjectSession &session, PlanState &plan, QObject *parent)
    : QObject(parent), m_session(session), m_plan(plan)
{
    connect(&m_recorder, &BenchRecorder::ended, this, &BenchPresenter::takeRecord);
    connect(&m_recorder, &BenchRecorder::connectionChanged, this, &BenchPresenter::refresh);
    connect(&m_recorder, &BenchRecorder::failed, this, &BenchPresenter::told);
    connect(&session, &ProjectSession::studyChanged, this, &BenchPresenter::refresh);
    connect(&session, &ProjectSession::projectChanged, this, &BenchPresenter::refresh);
    connect(&session, &ProjectSession::readingsChanged, this, &BenchPresenter::changed);
    connect(&session, &ProjectSession::comparisonChanged, this, &BenchPresenter::refresh);
    connect(&session, &ProjectSession::selectionChanged, this, &BenchPresenter::refresh);
}

std::optional<Method> BenchPresenter::test() const
{
    return m_session.shownTest();
}

const RigCard *BenchPresenter::rig() const
{
    if (m_session.study() == nullptr || !test())
        return nullptr;
    const PlannedTest &planned = testOfMethod(m_plan.tests(), *test());
    return findRig(m_session.workshop(), planned.setup.rig);
}

void BenchPresenter::refresh()
{
    if (!isPendulum())
        m_swing.reset();
    if (m_session.projectPath() != m_shownProject) {
        m_shownProject = m_session.projectPath();
        m_recorder.disconnectNow();
        m_piece = m_recorded = {};
        m_isKeeping = m_isDone = m_isArmed = false;
        m_putBack.clear();
        findCutOff();
    }
    // In the other lenses nobody looks; a large study is not gone through at each of its edits.
    if (m_session.lens() != Lens::Bench && !m_live.isRecording && !m_isKeeping)
        return;
    const Study *study = m_session.study();
    m_order = study != nullptr && test() ? benchOrder(*study, *test()) : std::vector<PieceId>();
    std::stable_sort(m_order.begin(), m_order.end(), [this](PieceId a, PieceId b) {
        return !m_putBack.contains(a) && m_putBack.contains(b);
    });
    const bool isHere = study != nullptr && findPiece(*study, m_piece) != nullptr &&
                        findPiece(*study, m_piece)->test == test();
    const bool waits = std::find(m_order.begin(), m_order.end(), m_piece) != m_order.end();
    if (!isHere || (!waits && !m_isKeeping && !m_isDone)) {
        m_piece = m_order.empty() ? PieceId{} : m_order.front();
        m_isDone = false;
        m_isArmed = false;
    }
    // Who chooses a peg has that piece at the rig.
    const PieceId chosen = m_session.selectedPiece();
    const bool canChoose =
        m_lit == m_piece && !m_isKeeping && !m_live.isRecording && m_session.lens() == Lens::Bench;
    if (canChoose && chosen != m_piece &&
        std::find(m_order.begin(), m_order.end(), chosen) != m_order.end()) {
        m_piece = chosen;
        m_isDone = false;
        m_isArmed = false;
    }
    arm();
    emit changed();
    // Lit on its rail, once the others are through with what called us.
    if (m_piece != m_lit && m_session.lens() == Lens::Bench && piece() != nullptr) {
        m_lit = m_piece;
        QMetaObject::invokeMethod(
            this,
            [this] {
                if (piece() != nullptr && m_session.lens() == Lens::Bench)
                    m_session.selectPiece(m_piece);
            },
            Qt::QueuedConnection);
    }
}

BenchPhase BenchPresenter::phase() const
{
    if (m_session.study() == nullptr || !test())
        return BenchPhase::NoStudy;
    if (m_isKeeping)
        return BenchPhase::Keeping;
    if (m_live.isRecording)
        return BenchPhase::Recording;
    if (m_isDone)
        return BenchPhase::Done;
    if (m_order.empty())
        return BenchPhase::NoPiece;
    if (!openCautions().empty())
        return BenchPhase::Cautions;
    return m_isArmed ? BenchPhase::Ready : BenchPhase::NoRig;
}

std::vector<Caution> BenchPresenter::openCautions() const
{
    std::vector<Caution> open;
    if (m_session.study() == nullptr)
        return open;
    for (const Caution &caution : cautionsOf(*m_session.study())) {
        if (!isConfirmed(m_session.study()->plan, caution.key))
            open.push_back(caution);
    }
    return open;
}

void BenchPresenter::confirmCautions()
{
    m_session.tryEdit(tr("confirm the cautions"), [this](Study &study) -> Status {
        for (const Caution &caution : cautionsOf(study)) {
            if (isConfirmed(study.plan, caution.key))
                continue;
            study.plan.confirmed.push_back(
                {std::string(caution.key), m_session.who().toStdString(), m_session.now()});
        }
        return ok();
    });
}

const Piece *BenchPresenter::piece() const
{
    return m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), m_piece);
}

QString BenchPresenter::pieceTitle() const
{
    return piece() == nullptr ? QString() : QString::fromStdString(piece()->code);
}

QString BenchPresenter::railTitle() const
{
    if (piece() == nullptr)
        return {};
    const Study &study = *m_session.study();
    return QString::fromStdString(inchpeg::railTitle(study, *findCondition(study, piece()->condition)));
}

std::optional<ExpectedLoad> BenchPresenter::expected() const
{
    if (piece() == nullptr)
        return std::nullopt;
    const Study &study = *m_session.study();
    const PlannedTest &planned = testOfMethod(m_plan.tests(), piece()->test);
    return expectedLoad(study, planned, *findCondition(study, piece()->condition), m_plan.own());
}

QString BenchPresenter::expectedText() const
{
    if (piece() == nullptr)
        return {};
    const std::optional<ExpectedLoad> load = expected();
    const RigCard *card = rig();
    if (!load)
        return card == nullptr ? tr("no rig is chosen in the plan") : QString::fromStdString(card->name);
    const Notation &notation = m_session.notation();
    const QString about =
        tr("about %1")
            .arg(QString::fromStdString(notation.quantity(load->value, dimensionOf(load->kind), 2)));
    if (card == nullptr || !(card->range > 0.0))
        return about;
    return tr("%1 · %2 of %3")
        .arg(about, QString::fromStdString(notation.percent(load->value / card->range)),
             QString::fromStdString(card->name));
}

QString BenchPresenter::beforeItBreaks() const
{
    const bool waits = phase() == BenchPhase::Ready || phase() == BenchPhase::NoRig;
    const Reduction *reduction = piece() == nullptr ? nullptr : reductionOf(piece()->test);
    if (!waits || reduction == nullptr || piece()->section || !readsBySection(*reduction))
        return {};
    return tr("▲ Its section is not measured: measure it before it breaks (Log lens, key 2).");
}

QString BenchPresenter::nextAction() const
{
    switch (phase()) {
    case BenchPhase::NoStudy:
        return tr("Choose a study on the shelf.");
    case BenchPhase::Cautions:
        return tr("Read the cautions and confirm them.");
    case BenchPhase::NoPiece:
        return tr("Every piece of this test has its record.");
    case BenchPhase::NoRig:
        return takesTypedPeak()
                   ? tr("Connect the rig, or type the largest reading of a gauge without a cable.")
                   : tr("Connect the rig.");
    case BenchPhase::Ready:
        if (m_swing)
            return tr("Swing-through %1°. What was it?").arg(m_swing->through_deg, 0, 'f', 1);
        if (isPendulum())
            return tr("Let the hammer go, first three times without a piece: a swing is found by itself.");
        return tr("Put the piece in and load it: the record begins by itself, or with Space.");
    case BenchPhase::Recording:
        return tr("Recording. It ends at the break, or with Space.");
    case BenchPhase::Keeping:
        return tr("The record is being kept…");
    case BenchPhase::Done:
        return looks().empty()
                   ? tr("Enter: the next piece.")
                   : tr("What does the break look like (keys A to %1)? Then Enter: the next piece.")
                         .arg(QChar(u'A' + static_cast<char16_t>(looks().size() - 1)));
    }
    return {};
}

QString BenchPresenter::resultText() const
{
    const Piece *done = m_isDone ? piece() : nullptr;
    if (done == nullptr || !done->recording)
        return {};
    const auto found = m_session.readings().find(done->id);
    if (found == m_session.readings().end())
        return tr("Reading the record…");
    if (!found->second->has_value())
        return QString::fromStdString(found->second->error().message);
    const Reduction *reduction = reductionOf(done->test);
    const Reading &reading = (*found->second)->result;
    QStringList words;
    for (const Property &property : reduction->properties) {
        const ReadValue *value = valueOf(reading.values, property.name);
        const bool isMain = property.name == usualProperty(done->test).name || property.name == "peak_force";
        if (value == nullptr || !isMain)
            continue;
        words << QStringLiteral("%1 %2%3").arg(
            QString::fromUtf8(property.label.data(), qsizetype(property.label.size())),
            value->bound == BoundReason::None ? QString() : tr("at least "),
            QString::fromStdString(m_session.notation().quantity(value->number, property.dimension, 3)));
    }
    for (const std::string &warning : reading.warnings)
        words << QString::fromStdString(m_session.notation().expand(warning));
    return words.join(QStringLiteral(" · "));
}

std::span<const BreakLook> BenchPresenter::looks() const
{
    return piece() == nullptr ? std::span<const BreakLook>() : breakLooksOf(piece()->test);
}

QString BenchPresenter::look() const
{
    return piece() == nullptr ? QString() : QString::fromStdString(piece()->log.breakLook);
}

QString BenchPresenter::folder() const
{
    return benchFolder(m_session.projectPath());
}

void BenchPresenter::findCutOff()
{
    m_cutOff = m_shownProject.isEmpty() ? std::vector<CutOffRecord>() : cutOffRecords(folder());
}

QString BenchPresenter::simulatedKind() const
{
    if (!test())
        return QStringLiteral("frame");
    switch (factsOf(*test()).load) {
    case LoadKind::Torque_Nm:
        return QStringLiteral("torque");
    case LoadKind::Energy_J:
        return QStringLiteral("pendulum");
    case LoadKind::DeadMass_kg:
        return QStringLiteral("weights");
    default:
        return QStringLiteral("frame");
    }
}

void BenchPresenter::connectTo(const QString &port)
{
    const bool isTorque = test() && factsOf(*test()).load == LoadKind::Torque_Nm;
    RigDefault usual;
    if (isTorque)
        usual = {ColumnQuantity::Torque, *findUnit("N·m")};
    m_isArmed = false;
    m_recorder.connectTo(port, kBaud, usual);
    arm();
    emit changed();
}

/// Makes ready for the piece at hand, once there is a rig and nothing else is to be done first.
void BenchPresenter::arm()
{
    const bool canRecord = piece() != nullptr && m_recorder.isConnected() && openCautions().empty() &&
                           !m_isKeeping && !m_isDone && !m_live.isRecording && !m_session.isForReading();
    if (canRecord == m_isArmed)
        return;
    m_isArmed = canRecord;
    if (!canRecord) {
        m_recorder.disarm();
        return;
    }
    const RecordRule rule = benchRule(piece()->test, expected(), rig())
                                .value_or(RecordRule{.startAt = std::numeric_limits<double>::infinity()});
    if (!QDir().mkpath(folder())) {
        emit told(tr("%1 cannot be made: nothing would be kept").arg(folder()));
        m_isArmed = false;
        return;
    }
    m_recorded = m_piece;
    m_trace.clear();
    m_recorder.arm(rule, (folder() + QLatin1Char('/') + benchFileName(m_piece)).toStdString());
}

void BenchPresenter::startOrStop()
{
    if (phase() == BenchPhase::Recording)
        m_recorder.endNow();
    else if (phase() == BenchPhase::Ready)
        m_recorder.beginNow();
}

void BenchPresenter::next()
{
    if (phase() != BenchPhase::Done)
        return;
    m_isDone = false;
    m_trace.clear();
    m_peak = 0.0;
    refresh();
    if (piece() != nullptr)
        m_session.selectPiece(m_piece);
}

void BenchPresenter::putBack()
{
    if (m_order.size() < 2 || m_live.isRecording)
        return;
    m_putBack.insert(m_piece);
    if (m_putBack.size() == m_order.size())
        m_putBack.clear();
    m_piece = {};
    m_isArmed = false;
    m_recorder.disarm();
    // Not what is chosen on the rack, which is the one that was put back.
    const auto first = std::find_if(m_order.begin(), m_order.end(),
                                    [this](PieceId one) { return !m_putBack.contains(one); });
    m_session.selectPiece(first == m_order.end() ? m_order.front() : *first);
    refresh();
}

void BenchPresenter::sayBreak(const QString &look)
{
    m_session.tryEdit(tr("look of a break"), [&](Study &study) -> Status {
        Piece *changed = findPiece(study, m_piece);
        return changed == nullptr ? Status(invalidArgument("the piece is no longer there"))
                                  : setBreakLook(*changed, look.toStdString());
    });
}

bool BenchPresenter::voidPiece(const QString &reason)
{
    if (m_live.isRecording)
        return false;
    const bool isDone = m_session.tryEdit(tr("void a piece"), [&](Study &study) -> Status {
        Piece *changed = findPiece(study, m_piece);
        if (changed == nullptr)
            return invalidArgument("the piece is no longer there");
        if (reason.simplified().isEmpty())
            return invalidArgument(
                "say why the piece is void: meant solid, was hollow; the reason is kept with it");
        changed->exclusion = m_session.exclusion(reason.simplified());
        return ok();
    });
    if (isDone) {
        m_isDone = false;
        refresh();
    }
    return isDone;
}

bool BenchPresenter::takesTypedPeak() const
{
    if (piece() == nullptr || m_session.isForReading())
        return false;
    const LoadKind kind = factsOf(piece()->test).load;
    const Reduction *reduction = reductionOf(piece()->test);
    if (reduction == nullptr || kind != LoadKind::Force_N || isUnderDeadLoad(piece()->test))
        return false;
    const std::vector<TypedColumn> columns = typedColumns(*reduction);
    const auto needed = std::count_if(columns.begin(), columns.end(),
                                      [](const TypedColumn &column) { return column.isRequired; });
    return needed == 1 && !columns.empty() && columns.front().isRequired &&
           columns.front().dimension == Dimension::Force;
}

bool BenchPresenter::keepTypedPeak(const QString &text)
{
    return takesTypedPeak() && keepTypedRow({text.trimmed().toStdString()}, "largest reading");
}

bool BenchPresenter::keepTypedRow(const std::vector<std::string> &cells, const std::string &gauge)
{
    if (m_isKeeping || !openCautions().empty())
        return false;
    const Reduction &reduction = *reductionOf(piece()->test);
    std::vector<Unit> units;
    for (const TypedColumn &column : typedColumns(reduction))
        units.push_back(m_session.notation().unitOf(column.dimension.value_or(Dimension::Number)));
    const TypedRecord record{piece()->code, m_session.who().toStdString(), gauge, {{cells, m_session.now()}}};
    const Result<std::string> bytes = typedRecordText(record, reduction, units);
    if (!m_session.tell(bytes ? ok() : Status(bytes.error())))
        return false;
    m_isKeeping = true;
    m_recorded = m_piece;
    const std::string name = fmt::format("typed {} {}.csv", piece()->code, m_session.now().substr(0, 10));
    std::vector<RawFileToKeep> files{{{}, name, {}, std::make_shared<const std::string>(*bytes)}};
    m_isKeeping = m_session.tell(m_session.keepRawFiles(
        std::move(files), [self = QPointer(this), id = m_piece](const KeptRawFiles &kept) {
            if (self != nullptr)
                self->link(id, {}, kept);
        }));
    emit changed();
    return m_isKeeping;
}

bool BenchPresenter::isPendulum() const
{
    return test() && factsOf(*test()).load == LoadKind::Energy_J && reductionOf(*test()) != nullptr &&
           *test() == Method::Impact;
}

std::optional<double> BenchPresenter::hammerAngle() const
{
    return isPendulum() && m_live.isConnected ? mainReading(m_live) : std::nullopt;
}

std::optional<double> BenchPresenter::throughAngle() const
{
    if (!m_swing)
        return std::nullopt;
    return m_swing->isLetGoRight ? -m_swing->through_deg : m_swing->through_deg;
}

std::vector<BenchPresenter::BreakKind> BenchPresenter::breakKinds()
{
    return {{QStringLiteral("C"), tr("complete")},
            {QStringLiteral("H"), tr("hinge")},
            {QStringLiteral("P"), tr("partial")},
            {QStringLiteral("N"), tr("none: it bent")}};
}

bool BenchPresenter::keepSwing(const QString &letter)
{
    if (!m_swing || piece() == nullptr || m_isDone)
        return false;
    std::vector<std::string> cells;
    for (const TypedColumn &column : typedColumns(*reductionOf(piece()->test))) {
        if (column.name == "swing")
            cells.push_back(fmt::format("{:.2f} deg", m_swing->through_deg));
        else
            cells.push_back(column.name == "break" ? letter.toStdString() : std::string());
    }
    if (!keepTypedRow(cells, "swing found in what the rig sent"))
        return false;
    m_swing.reset();
    return true;
}

bool BenchPresenter::takeFreeSwing()
{
    constexpr std::size_t kWanted = 3;
    constexpr double kMoved_deg = 1.0;
    constexpr std::string_view kName = "free_swing";
    if (!m_swing || !test())
        return false;
    m_freeSwings_deg.push_back(m_swing->through_deg);
    if (m_freeSwings_deg.size() > kWanted)
        m_freeSwings_deg.erase(m_freeSwings_deg.begin());
    const double mean = meanOf(m_freeSwings_deg);
    const std::optional<double> before = testSettings(*m_session.study(), *test()).number(kName);
    m_swing.reset();
    const bool isKept = m_session.tryEdit(tr("free swing"), [&](Study &study) {
        return setTestParameter(study, *test(), kName, fmt::format("{:.2f} deg", mean));
    });
    if (isKept && before && std::abs(*before - mean) > kMoved_deg)
        emit told(
            tr("The free swing moved from %1° to %2°: look at the bearing and at the zero before the next "
               "piece.")
                .arg(*before, 0, 'f', 1)
                .arg(mean, 0, 'f', 1));
    emit changed();
    return isKept;
}

void BenchPresenter::takeRecord(const BenchRecord &record)
{
    poll();
    m_isArmed = false;
    if (!record.trouble.isEmpty())
        emit told(record.trouble);
    const Piece *done = m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), m_recorded);
    if (done == nullptr || record.rows < 2) {
        emit told(tr("The record holds %1 readings and was left aside: %2")
                      .arg(record.rows)
                      .arg(QString::fromStdString(record.file)));
        findCutOff();
        refresh();
        return;
    }
    keep(QString::fromStdString(record.file), m_recorded,
         QStringLiteral("bench %1 %2.txt")
             .arg(QString::fromStdString(done->code), QString::fromStdString(m_session.now().substr(0, 10))));
}

/// The file on the bench goes once its bytes are in the project.
void BenchPresenter::keep(const QString &file, PieceId id, const QString &name)
{
    QFile kept(file);
    if (!kept.open(QIODevice::ReadOnly)) {
        emit told(tr("%1 cannot be read: %2").arg(file, kept.errorString()));
        return;
    }
    m_piece = m_recorded = id;
    std::vector<RawFileToKeep> files{
        {{}, name.toStdString(), {}, std::make_shared<const std::string>(kept.readAll().toStdString())}};
    m_isKeeping = m_session.tell(m_session.keepRawFiles(
        std::move(files), [self = QPointer(this), id, file](const KeptRawFiles &stored) {
            if (self != nullptr)
                self->link(id, file, stored);
        }));
    emit changed();
}

void BenchPresenter::link(PieceId id, const QString &file, const KeptRawFiles &kept)
{
    // Still at hand while the study is changed: what follows from that must not take the next piece.
    const bool isLinked =
        m_session.tell(kept.status) && !kept.ids.empty() &&
        m_session.tryEdit(tr("record on the bench"), [&](Study &study) -> Status {
            Piece *recorded = findPiece(study, id);
            if (recorded == nullptr)
                return invalidArgument("the piece is no longer there");
            setRecording(*recorded, Recording{kept.ids.front(), {}, m_session.rigToday(recorded->test)});
            return ok();
        });
    m_isDone = isLinked;
    m_isKeeping = false;
    if (isLinked) {
        if (!file.isEmpty())
            QFile::remove(file);
        QDir().rmdir(folder()); // while there is nothing in it
        m_session.selectPiece(id);
    }
    refresh();
}

void BenchPresenter::poll()
{
    const bool wasRecording = m_live.isRecording;
    const bool wasThere = m_live.isThere;
    m_live = m_recorder.takeState();
    if (m_live.isRecording && !wasRecording)
        m_trace.clear();
    if (m_live.isRecording)
        m_peak = m_live.peak;
    if (isPendulum()) {
        for (const RecordedRow &row : m_live.idleRows) {
            const std::optional<double> angle = row.values[m_live.main];
            const std::optional<FoundSwing> found = angle ? m_swings.add(row.t_s, *angle) : std::nullopt;
            if (found && phase() == BenchPhase::Ready) {
                m_swing = found;
                emit changed();
            }
        }
    }
    const std::optional<std::size_t> way = wayColumn(m_live);
    for (const RecordedRow &row : m_live.newRows) {
        const std::optional<double> reading = row.values[m_live.main];
        const std::optional<double> at = way ? row.values[*way] : std::optional(row.t_s);
        if (reading && at)
            m_trace.add(*at, *reading);
    }
    if (m_live.isRecording != wasRecording || m_live.isThere != wasThere)
        emit changed();
}

QString BenchPresenter::peakText() const
{
    if (!(m_peak > 0.0))
        return {};
    return tr("peak %1 %2")
        .arg(QString::fromStdString(m_session.notation().significant(m_peak, 4)), liveUnitText(m_live));
}

RangeState BenchPresenter::range() const
{
    const std::optional<double> reading = mainReading(m_live);
    if (!reading || !readsItsLoad())
        return RangeState::Inside;
    return rangeState(m_live.columns[m_live.main].unit->toWorking(*reading), rangeOfRig());
}

/// A pendulum's angle is none of its joules.
bool BenchPresenter::readsItsLoad() const
{
    const bool hasUnit = m_live.main < m_live.columns.size() && m_live.columns[m_live.main].unit;
    return hasUnit && test() &&
           m_live.columns[m_live.main].unit->dimension == dimensionOf(factsOf(*test()).load);
}

/// By the rig's card, else by what the rig says of itself; 0 where neither does.
double BenchPresenter::rangeOfRig() const
{
    if (const RigCard *card = rig(); card != nullptr && card->range > 0.0)
        return card->range;
    return rangeFromFacts(m_live.facts).value_or(0.0);
}

double BenchPresenter::shownLimit() const
{
    if (!readsItsLoad())
        return 0.0;
    return m_live.columns[m_live.main].unit->fromWorking(rangeOfRig());
}

QString BenchPresenter::rangeText() const
{
    switch (range()) {
    case RangeState::Inside:
        return {};
    case RangeState::NearEnd:
        return tr("▲ above four fifths of the gauge's range");
    case RangeState::AtEnd:
        return tr("■ at the end of the gauge's range: what it reads now is a bound");
    }
    return {};
}

void BenchPresenter::takeCutOff()
{
    if (m_cutOff.empty() || m_isKeeping || m_session.study() == nullptr)
        return;
    const CutOffRecord record = m_cutOff.front();
    const Piece *cut = findPiece(*m_session.study(), record.piece);
    if (cut == nullptr) {
        emit told(tr("The record is of a piece of another study: put that study on the rack first."));
        return;
    }
    if (cut->recording) {
        emit told(
            tr("%1 has a record already; this one was left aside.").arg(QString::fromStdString(cut->code)));
        leaveCutOffAside();
        return;
    }
    m_cutOff.erase(m_cutOff.begin());
    m_session.setShownTest(cut->test);
    keep(record.file, record.piece,
         QStringLiteral("bench %1 cut off.txt").arg(QString::fromStdString(cut->code)));
}

void BenchPresenter::leaveCutOffAside()
{
    if (m_cutOff.empty())
        return;
    const CutOffRecord record = m_cutOff.front();
    m_cutOff.erase(m_cutOff.begin());
    leaveAside(record);
    emit changed();
}

} // namespace inchpeg::app
