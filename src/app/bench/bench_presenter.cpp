// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/bench_presenter.h"

#include "app/bench/live_words.h"
#include "core/logbook/typed_record.h"
#include "disk/disk.h"

#include <fmt/format.h>

#include <algorithm>
#include <limits>

namespace inchpeg::app
{

namespace
{

constexpr int kBaud = 115200;
constexpr int kWatch_ms = 250;

/// Where a record that has just ended is.
CutOffRecord cutOffFrom(const BenchRecord &record)
{
    const std::vector<std::string> &files = record.kept.files;
    CutOffRecord kept;
    if (!files.empty())
        kept.file = QString::fromStdString(files.front());
    if (files.size() > 1)
        kept.rest = QString::fromStdString(files.back());
    kept.piece = record.owner.piece;
    kept.unsaved = record.kept.unsaved;
    return kept;
}

} // namespace

BenchPresenter::BenchPresenter(ProjectSession &session, PlanState &plan, Announcer &announcer,
                               QObject *parent)
    : QObject(parent), m_session(session), m_plan(plan), m_announcer(announcer), m_keeper(session),
      m_timed(session, plan, m_keeper), m_steps(session, m_keeper), m_oven(session, m_keeper),
      m_feel(session, m_keeper), m_pairs(session, m_keeper), m_swings(session, m_keeper)
{
    connect(&m_keeper, &BenchKeeper::kept, this, &BenchPresenter::takeKept);
    connect(&m_keeper, &BenchKeeper::told, this, &BenchPresenter::told);
    connect(&m_keeper, &BenchKeeper::notKept, this, [this](CutOffRecord record) {
        record.isWhole = true;
        m_cutOff.push_back(std::move(record));
        emit changed();
    });
    m_watch.setInterval(kWatch_ms);
    connect(&m_watch, &QTimer::timeout, this, &BenchPresenter::watchRigs);
    m_watch.start();
    const auto follow = [this](auto &mode) {
        using Mode = std::remove_reference_t<decltype(mode)>;
        connect(&mode, &Mode::changed, this, &BenchPresenter::changed);
        if constexpr (requires { &Mode::told; })
            connect(&mode, &Mode::told, this, &BenchPresenter::told);
    };
    follow(m_timed);
    follow(m_steps);
    follow(m_oven);
    follow(m_feel);
    follow(m_pairs);
    follow(m_swings);
    connect(&session, &ProjectSession::studyChanged, this, &BenchPresenter::refresh);
    connect(&session, &ProjectSession::projectChanged, this, &BenchPresenter::refresh);
    connect(&session, &ProjectSession::readingsChanged, this, &BenchPresenter::changed);
    connect(&session, &ProjectSession::comparisonChanged, this, &BenchPresenter::refresh);
    connect(&session, &ProjectSession::selectionChanged, this, &BenchPresenter::refresh);
}

BenchPresenter::~BenchPresenter() = default;

std::optional<Method> BenchPresenter::test() const
{
    return m_session.shownTest();
}

BenchKind BenchPresenter::kind() const
{
    return test() ? factsOf(*test()).bench : BenchKind::Pull;
}

/// That of the shown test, made where there is none yet.
BenchRig &BenchPresenter::rigLine()
{
    const Method method = test().value_or(Method::Tension);
    std::unique_ptr<BenchRig> &rig = m_rigs[method];
    if (!rig) {
        rig = std::make_unique<BenchRig>();
        listenTo(method, *rig);
    }
    return *rig;
}

const BenchRig *BenchPresenter::rigLine() const
{
    const auto found = m_rigs.find(test().value_or(Method::Tension));
    return found == m_rigs.end() ? nullptr : found->second.get();
}

void BenchPresenter::listenTo(Method method, BenchRig &rig)
{
    // By its test: what was said from the other thread may arrive when the rig of that project is gone.
    connect(&rig.recorder, &BenchRecorder::ended, this, [this, method](const BenchRecord &record) {
        if (const auto line = m_rigs.find(method); line != m_rigs.end())
            takeRecord(*line->second, record);
    });
    connect(&rig.recorder, &BenchRecorder::connectionChanged, this, &BenchPresenter::refresh);
    connect(&rig.recorder, &BenchRecorder::failed, this, &BenchPresenter::told);
}

const RigCard *BenchPresenter::rig() const
{
    if (m_session.study() == nullptr || !test())
        return nullptr;
    const PlannedTest &planned = testOfMethod(m_plan.tests(), *test());
    return findRig(m_session.workshop(), planned.setup.rig);
}

bool BenchPresenter::isUnderWay(PieceId id) const
{
    return m_timed.isUnderWay(id) || m_steps.isUnderWay(id);
}

/// Those that wait, what was put back behind the others.
void BenchPresenter::orderPieces()
{
    const Study *study = m_session.study();
    m_order = study != nullptr && test() ? benchOrder(*study, *test()) : std::vector<PieceId>();
    std::stable_sort(m_order.begin(), m_order.end(), [this](PieceId a, PieceId b) {
        return !m_putBack.contains(a) && m_putBack.contains(b);
    });
    if (kind() == BenchKind::Oven)
        m_oven.setWaiting(m_order);
    if (kind() == BenchKind::Feel)
        m_feel.setWaiting(m_order);
    if (kind() == BenchKind::Pairs)
        m_pairs.setWaiting(m_order);
}

void BenchPresenter::refresh()
{
    if (!isPendulum())
        m_swings.drop();
    if (m_session.projectPath() != m_shownProject) {
        m_shownProject = m_session.projectPath();
        m_rigs.clear();
        m_traces.clear();
        m_piece = {};
        m_isDone = false;
        m_putBack.clear();
        findCutOff();
    }
    // What the rig does right now, not what it did when somebody last looked.
    if (const auto line = m_rigs.find(test().value_or(Method::Tension));
        line != m_rigs.end() && line->second->recorder.isRecording())
        line->second->poll();
    const bool isBusy = live().isRecording || m_keeper.isBusy();
    // In the other lenses nobody looks; a large study is not gone through at each of its edits.
    if (m_session.lens() != Lens::Bench && !isBusy)
        return;
    orderPieces();
    const Study *study = m_session.study();
    const auto isOpen = [this](PieceId id) {
        return std::find(m_order.begin(), m_order.end(), id) != m_order.end() || isUnderWay(id);
    };
    const Piece *here = study == nullptr ? nullptr : findPiece(*study, m_piece);
    const bool isHere = here != nullptr && here->test == test();
    const bool isLed = kind() == BenchKind::Timed || kind() == BenchKind::Steps;
    if (m_isDone && isHere && (!here->recording || (isLed && !isThrough())))
        m_isDone = false; // its record was taken back
    if (!isHere || (!isOpen(m_piece) && !m_keeper.isBusy() && !m_isDone)) {
        m_piece = m_order.empty() ? PieceId{} : m_order.front();
        const std::vector<DueReading> due =
            study != nullptr && kind() == BenchKind::Timed ? m_timed.arms() : std::vector<DueReading>();
        if (m_piece == PieceId{} && !due.empty())
            m_piece = due.front().piece;
        m_isDone = false;
        rigLine().isArmed = false;
    }
    // Who chooses a peg has that piece at the rig.
    const PieceId chosen = m_session.selectedPiece();
    const bool canChoose = m_lit == m_piece && !isBusy && m_session.lens() == Lens::Bench;
    if (canChoose && chosen != m_piece && isOpen(chosen) && findPiece(*study, chosen)->test == test()) {
        m_piece = chosen;
        m_isDone = false;
        rigLine().isArmed = false;
    }
    if (isBlind(kind())) {
        m_piece = {}; // which one lies at hand is not told
        m_lit = {};
    }
    m_timed.setPiece(m_piece);
    m_steps.setPiece(m_piece);
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

/// A mode that leads the person itself is through with its piece.
bool BenchPresenter::isThrough() const
{
    if (kind() == BenchKind::Timed)
        return m_timed.step() == TimedStep::Over;
    return kind() == BenchKind::Steps && !m_steps.nextStep();
}

BenchPhase BenchPresenter::phase() const
{
    if (m_session.study() == nullptr || !test())
        return BenchPhase::NoStudy;
    const bool isByRig = kind() == BenchKind::Pull || kind() == BenchKind::Swing;
    if (isByRig && m_keeper.isBusy())
        return BenchPhase::Keeping;
    if (live().isRecording)
        return BenchPhase::Recording;
    if (m_isDone)
        return BenchPhase::Done;
    const bool hasWork = kind() == BenchKind::Oven    ? !m_oven.places().empty()
                         : kind() == BenchKind::Feel  ? m_feel.hasWork()
                         : kind() == BenchKind::Pairs ? m_pairs.hasWork()
                                                      : piece() != nullptr;
    if (!hasWork)
        return BenchPhase::NoPiece;
    if (!openCautions().empty())
        return BenchPhase::Cautions;
    if (!isByRig)
        return BenchPhase::Ready;
    const BenchRig *line = rigLine();
    return line != nullptr && line->isArmed ? BenchPhase::Ready : BenchPhase::NoRig;
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

std::optional<ExpectedLoad> BenchPresenter::expected() const
{
    if (piece() == nullptr)
        return std::nullopt;
    const Study &study = *m_session.study();
    const PlannedTest &planned = testOfMethod(m_plan.tests(), piece()->test);
    return expectedLoad(study, planned, *findCondition(study, piece()->condition), m_plan.own());
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
    return test() ? QString::fromUtf8(factsOf(*test()).virtualRig) : QStringLiteral("frame");
}

void BenchPresenter::connectTo(const QString &port)
{
    const LoadKind load = test() ? factsOf(*test()).load : LoadKind::Force_N;
    RigDefault usual;
    if (load == LoadKind::Torque_Nm)
        usual = {ColumnQuantity::Torque, *findUnit("N·m")};
    else if (kind() == BenchKind::Timed)
        usual = {ColumnQuantity::Extension, *findUnit("mm")};
    else if (kind() == BenchKind::Oven)
        usual = {ColumnQuantity::Temperature, *findUnit("°C")};
    rigLine().isArmed = false;
    m_lastRow_s = m_timed.steady_s();
    m_lastRowOfRecord_s.reset();
    recorder().connectTo(port, kBaud, usual, benchSpareFolder());
    arm();
    emit changed();
}

void BenchPresenter::disconnectNow()
{
    recorder().disconnectNow();
    rigLine().isArmed = false;
    rigLine().poll();
    emit changed();
}

void BenchPresenter::zeroGauge()
{
    const LiveState &now = live();
    if (now.main < now.columns.size() && !now.isRecording)
        recorder().send("zero " + now.columns[now.main].name);
}

/// Makes ready for the piece at hand, once there is a rig and nothing else is to be done first.
void BenchPresenter::arm()
{
    BenchRig &line = rigLine();
    const bool isByRig = kind() == BenchKind::Pull || kind() == BenchKind::Swing;
    const bool canRecord = isByRig && piece() != nullptr && line.recorder.isConnected() &&
                           openCautions().empty() && !m_keeper.isBusy() && !m_isDone &&
                           !line.live.isRecording && !m_session.isForReading() && !waitsToBeKept(m_piece);
    if (canRecord == line.isArmed)
        return;
    line.isArmed = canRecord;
    if (!canRecord) {
        line.recorder.disarm();
        return;
    }
    const RecordRule rule = benchRule(piece()->test, expected(), rig())
                                .value_or(RecordRule{.startAt = std::numeric_limits<double>::infinity()});
    if (const Status made = makeFolders(folder().toStdString()); !made) {
        emit told(tr("%1. Nothing would be kept.").arg(QString::fromStdString(made.error().message)));
        line.isArmed = false;
        return;
    }
    const RecordOwner owner{m_session.study()->id, m_piece, QString::fromStdString(piece()->code)};
    // A record may have begun this moment: it is its own piece's, and this one is armed after it.
    line.isArmed =
        line.recorder.arm(rule, (folder() + QLatin1Char('/') + benchFileName(m_piece)).toStdString(), owner);
    if (!line.isArmed)
        return;
    line.owner = owner;
    line.trace.clear();
}

/// It was tested, and its record is still beside the project: a second load would be of a broken piece.
bool BenchPresenter::waitsToBeKept(PieceId id) const
{
    return std::any_of(m_cutOff.begin(), m_cutOff.end(),
                       [id](const CutOffRecord &record) { return record.piece == id; });
}

void BenchPresenter::startOrStop()
{
    if (kind() == BenchKind::Timed && openCautions().empty())
        m_timed.loadIsSet();
    else if (phase() == BenchPhase::Recording)
        recorder().endNow();
    else if (phase() == BenchPhase::Ready && kind() == BenchKind::Pull)
        recorder().beginNow();
}

void BenchPresenter::next()
{
    if (phase() != BenchPhase::Done)
        return;
    m_isDone = false;
    rigLine().trace.clear();
    rigLine().peak = 0.0;
    refresh();
    if (piece() != nullptr)
        m_session.selectPiece(m_piece);
}

void BenchPresenter::putBack()
{
    if (m_order.size() < 2 || live().isRecording || m_isDone)
        return;
    m_putBack.insert(m_piece);
    if (m_putBack.size() == m_order.size())
        m_putBack.clear();
    m_piece = {};
    rigLine().isArmed = false;
    recorder().disarm();
    // Not what is chosen on the rack, which is the one that was put back.
    const auto first = std::find_if(m_order.begin(), m_order.end(),
                                    [this](PieceId one) { return !m_putBack.contains(one); });
    m_session.selectPiece(first == m_order.end() ? m_order.front() : *first);
    refresh();
}

bool BenchPresenter::takesTypedPeak() const
{
    if (piece() == nullptr || m_session.isForReading() || waitsToBeKept(m_piece))
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
    if (!takesTypedPeak() || m_keeper.isBusy() || !openCautions().empty())
        return false;
    const TypedRow row{{text.trimmed().toStdString()}, m_session.now()};
    const bool isTaken = m_keeper.keepTyped(m_piece, {row}, "largest reading", tr("largest reading"));
    emit changed();
    return isTaken;
}

std::optional<double> BenchPresenter::hammerAngle() const
{
    return isPendulum() && live().isConnected ? mainReading(live()) : std::nullopt;
}

bool BenchPresenter::keepSwing(const QString &letter)
{
    return piece() != nullptr && phase() == BenchPhase::Ready && m_swings.keep(m_piece, letter);
}

bool BenchPresenter::takeFreeSwing()
{
    return test() && m_swings.takeFreeSwing(*test());
}

void BenchPresenter::takeRecord(BenchRig &line, const BenchRecord &record)
{
    poll();
    line.isArmed = false;
    m_announcer.sound(record.trouble.isEmpty() ? Tone::End : Tone::Warning);
    if (!record.trouble.isEmpty())
        emit told(record.trouble);
    const CutOffRecord kept = cutOffFrom(record);
    if (record.rows < 2) {
        emit told(tr("The record of %1 holds %2 readings and was left aside: %3")
                      .arg(record.owner.code)
                      .arg(record.rows)
                      .arg(kept.file));
        findCutOff();
        refresh();
        return;
    }
    m_traces[record.owner.piece] = line.trace;
    m_keeper.keepRecord(
        record.owner.study, kept,
        QStringLiteral("bench %1 %2.txt").arg(record.owner.code, QString::fromStdString(m_session.today())));
    emit changed();
}

/// What is in the project by now: the piece is done, or its next reading may come.
void BenchPresenter::takeKept(PieceId id, bool isLinked)
{
    const bool isHere = id == m_piece;
    if (isLinked && isHere) {
        const bool isByRig = kind() == BenchKind::Pull || kind() == BenchKind::Swing;
        m_isDone = isByRig || isThrough();
        if (kind() == BenchKind::Timed && m_timed.mayLeave())
            m_piece = {}; // the next one is loaded while this one waits
    }
    if (isLinked && isHere && m_isDone)
        m_session.selectPiece(id);
    refresh();
}

/// What came in since the last time, for the modes that do not record.
void BenchPresenter::hear(BenchRig &line)
{
    constexpr double kSilence_s =
        1.5; ///< a gauge that says nothing for so long speaks when its button is pressed
    for (const RecordedRow &row : line.heard) {
        const std::optional<double> reading = row.values[line.live.main];
        // Both clocks: a window that was busy for two seconds heard nothing either, but the line did.
        const double now_s = m_timed.steady_s();
        const bool wasLineSilent =
            !m_lastRowOfRecord_s || std::abs(row.t_s - *m_lastRowOfRecord_s) > kSilence_s;
        const bool isByButton = wasLineSilent && now_s - m_lastRow_s > kSilence_s;
        m_lastRow_s = now_s;
        m_lastRowOfRecord_s = row.t_s;
        if (!reading)
            continue;
        if (isPendulum() && m_swings.hear(row.t_s, *reading) && phase() == BenchPhase::Ready)
            emit changed();
        else if (isPendulum() && phase() != BenchPhase::Ready)
            m_swings.drop();
        if (kind() == BenchKind::Oven)
            m_oven.show(row.t_s, *reading);
        if (kind() == BenchKind::Timed && isByButton && !shownReading().isEmpty())
            m_timed.take(shownReading());
    }
}

/// What a person who looks at the piece must hear.
void BenchPresenter::sayWhatHappened(const BenchRig &line, RangeState before)
{
    if (line.live.isRecording && range() != before && range() != RangeState::Inside)
        m_announcer.sound(Tone::Warning);
    if (kind() == BenchKind::Timed) {
        if (const std::optional<Tone> tone = m_timed.toneDue())
            m_announcer.sound(*tone);
    }
}

/// The arm whose reading is due comes to the fore, unless the one at hand is being read.
void BenchPresenter::followDueArms()
{
    const std::optional<PieceId> pressing =
        kind() == BenchKind::Timed && m_session.lens() == Lens::Bench ? m_timed.pressingArm() : std::nullopt;
    if (pressing && *pressing != m_piece)
        m_session.selectPiece(*pressing);
}

/// The bench itself asks more often; a record goes on while the person is elsewhere.
void BenchPresenter::watchRigs()
{
    const bool isListening = std::any_of(m_rigs.begin(), m_rigs.end(),
                                         [](const auto &rig) { return rig.second->recorder.isConnected(); });
    if (isListening && m_session.lens() != Lens::Bench)
        poll();
}

const BenchRig *BenchPresenter::troubledRig() const
{
    const auto found = std::find_if(m_rigs.begin(), m_rigs.end(),
                                    [](const auto &rig) { return !rig.second->live.diskTrouble.empty(); });
    return found == m_rigs.end() ? nullptr : found->second.get();
}

QString BenchPresenter::diskTrouble() const
{
    const BenchRig *rig = troubledRig();
    if (rig == nullptr)
        return {};
    return rig->live.isInMemory ? tr("The disk refuses the record of %1. It is in memory alone: free some "
                                     "space before the test ends.")
                                      .arg(rig->owner.code)
                                : tr("The disk refuses the record of %1. It goes on in another folder and "
                                     "nothing is lost: finish "
                                     "the test, then free some space.")
                                      .arg(rig->owner.code);
}

QString BenchPresenter::diskTroubleDetail() const
{
    const BenchRig *rig = troubledRig();
    return rig == nullptr ? QString() : QString::fromStdString(rig->live.diskTrouble);
}

void BenchPresenter::poll()
{
    BenchRig &line = rigLine();
    const RangeState before = range();
    const bool wasFaulty = !line.live.fault.empty();
    const QString troubleBefore = diskTrouble();
    bool isChanged = false;
    for (auto &[method, rig] : m_rigs)
        isChanged |= rig->poll();
    const bool diskRefused = diskTrouble() != troubleBefore && !diskTrouble().isEmpty();
    if ((!wasFaulty && !line.live.fault.empty()) || diskRefused)
        m_announcer.sound(Tone::Warning);
    isChanged |= diskRefused;
    hear(line);
    sayWhatHappened(line, before);
    followDueArms();
    if (isChanged)
        emit changed();
}

const LiveState &BenchPresenter::live() const
{
    static const LiveState kNothing;
    const BenchRig *line = rigLine();
    return line == nullptr ? kNothing : line->live;
}

const LiveTrace &BenchPresenter::trace() const
{
    static const LiveTrace kNothing;
    const BenchRig *line = rigLine();
    return line == nullptr ? kNothing : line->trace;
}

std::vector<const LiveTrace *> BenchPresenter::otherTraces() const
{
    std::vector<const LiveTrace *> others;
    for (const auto &[id, trace] : m_traces) {
        const Piece *of = piece() == nullptr ? nullptr : findPiece(*m_session.study(), id);
        if (of != nullptr && id != m_piece && of->condition == piece()->condition &&
            of->test == piece()->test)
            others.push_back(&trace);
    }
    return others;
}

RangeState BenchPresenter::range() const
{
    const std::optional<double> reading = mainReading(live());
    if (!reading || !readsItsLoad())
        return RangeState::Inside;
    return rangeState(live().columns[live().main].unit->toWorking(*reading), rangeOfRig());
}

/// Where a load rises until the piece gives way; a bar that is warmed is told by hand.
bool BenchPresenter::beginsByItself() const
{
    return piece() != nullptr && benchRule(piece()->test, expected(), rig()).has_value();
}

/// A pendulum's angle is none of its joules.
bool BenchPresenter::readsItsLoad() const
{
    const LiveState &now = live();
    const bool hasUnit = now.main < now.columns.size() && now.columns[now.main].unit;
    return hasUnit && test() && now.columns[now.main].unit->dimension == dimensionOf(factsOf(*test()).load);
}

/// By the rig's card, else by what the rig says of itself; 0 where neither does.
double BenchPresenter::rangeOfRig() const
{
    if (const RigCard *card = rig(); card != nullptr && card->range > 0.0)
        return card->range;
    return rangeFromFacts(live().facts).value_or(0.0);
}

double BenchPresenter::shownLimit() const
{
    return readsItsLoad() ? live().columns[live().main].unit->fromWorking(rangeOfRig()) : 0.0;
}

} // namespace inchpeg::app
