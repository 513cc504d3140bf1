// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/timed_presenter.h"

#include "core/base/utc_time.h"
#include "core/planning/dead_load.h"
#include "core/planning/rig_check.h"
#include "core/units/number.h"

#include <QDateTime>
#include <QStringList>

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace inchpeg::app
{

namespace
{

constexpr std::array kSoon_s = {3.0, 2.0, 1.0};
constexpr double kNextPieceAfter_s =
    90.0; ///< where the next reading is further away, the next piece is loaded

/// The load, the time and what was read, in the order of a test's columns.
std::size_t columnOf(std::span<const TypedColumn> columns, std::string_view name)
{
    const auto found = std::find_if(columns.begin(), columns.end(),
                                    [name](const TypedColumn &column) { return column.name == name; });
    require(found != columns.end(), "a timed test has a load, a time and a deflection");
    return static_cast<std::size_t>(found - columns.begin());
}

/// The number that a cell begins with.
std::optional<double> leading(const std::string &cell)
{
    return parseTypedNumber(std::string_view(cell).substr(0, numberPrefixLength(cell)));
}

/// In kg, from a cell of loads: the mass that was put on, or the weight that a record says.
double massIn(const std::string &cell)
{
    const Result<double> weight_N = parseQuantity(cell, *findUnit("N"));
    return weight_N ? deadMass(newtons(*weight_N)).si() : leading(cell).value_or(0.0);
}

} // namespace

TimedPresenter::TimedPresenter(ProjectSession &session, PlanState &plan, BenchKeeper &keeper, QObject *parent)
    : QObject(parent), m_session(session), m_plan(plan), m_keeper(keeper)
{
    connect(&session, &ProjectSession::projectChanged, this, [this] {
        m_runs.clear();
        m_piece = {};
    });
    connect(&keeper, &BenchKeeper::kept, this, [this](PieceId id, bool isLinked) {
        const auto run = m_runs.find(id);
        const Piece *of = m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), id);
        if (isLinked && run != m_runs.end() && of != nullptr && of->recording)
            run->second.file = of->recording->file;
    });
    connect(&session, &ProjectSession::studyChanged, this, [this] { followProject(m_piece); });
}

const Piece *TimedPresenter::piece() const
{
    return m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), m_piece);
}

const TimedPresenter::Run *TimedPresenter::run() const
{
    const auto found = m_runs.find(m_piece);
    return found == m_runs.end() ? nullptr : &found->second;
}

bool TimedPresenter::isCreep() const
{
    return piece() != nullptr && factsOf(piece()->test).isLeftUnderLoad;
}

std::int64_t TimedPresenter::now() const
{
    return secondsSinceEpoch(m_session.now()).value_or(0);
}

void TimedPresenter::setPiece(PieceId id)
{
    if (id == m_piece)
        return;
    m_piece = id;
    m_stamp.reset();
    m_toNext_s.reset();
    m_last.clear();
    if (piece() != nullptr && isTimed(piece()->test))
        takeUp(id);
}

/// What the project holds of a piece, so that a run goes on after the program was away.
void TimedPresenter::takeUp(PieceId id)
{
    if (m_runs.contains(id))
        return;
    m_runs[id] = {};
    followProject(id);
    // A beam is read in one go, and what came from a file cannot be gone on with.
    const Piece &piece = *findPiece(*m_session.study(), id);
    Run &run = m_runs[id];
    run.isEnded = piece.recording && (!piece.log.run || run.rows.empty());
}

/// The rows of the record that the piece has now: a step that was taken back takes its reading along.
void TimedPresenter::followProject(PieceId id)
{
    const Piece *piece = m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), id);
    const auto found = m_runs.find(id);
    if (m_keeper.isBusy() || piece == nullptr || found == m_runs.end() || reductionOf(piece->test) == nullptr)
        return;
    Run &run = found->second;
    const std::optional<RawFileId> file =
        piece->recording ? std::optional(piece->recording->file) : std::nullopt;
    if (file == run.file)
        return;
    run.file = file;
    run.rows.clear();
    run.taken_s.clear();
    if (file) {
        const Result<std::string> bytes = m_session.project().rawBytes(*file);
        std::optional<TypedRecord> typed =
            bytes ? typedRecordWithUnits(*bytes, *reductionOf(piece->test)) : std::nullopt;
        if (typed)
            run.rows = std::move(typed->rows);
    }
    if (factsOf(piece->test).isLeftUnderLoad)
        return;
    // A beam goes on with the load that its last row is of.
    const std::vector<TypedColumn> columns = typedColumns(*reductionOf(piece->test));
    const std::vector<double> loads = loads_kg();
    run.load = 0;
    run.isEnded = false;
    for (const TypedRow &row : run.rows) {
        const double load_kg = massIn(row.cells[columnOf(columns, "load")]);
        const auto nearest = std::min_element(loads.begin(), loads.end(), [&](double one, double other) {
            return std::abs(one - load_kg) < std::abs(other - load_kg);
        });
        const auto index = static_cast<std::size_t>(nearest - loads.begin());
        if (index != run.load)
            run.taken_s.clear();
        run.load = index;
        run.taken_s.push_back(leading(row.cells[columnOf(columns, "time")]).value_or(0.0));
    }
    passOn(run, loads.size(), dueTimes_s(piece->test));
}

/// All readings of a load are taken: the next one comes, or the beam is through.
void TimedPresenter::passOn(Run &run, std::size_t loads, std::span<const double> due_s)
{
    const std::vector<double> &taken = run.taken_s;
    if (taken.empty() || nextReading(timedReadings(due_s, taken, taken.back())))
        return;
    run.since_s.reset();
    run.taken_s.clear();
    run.isEnded = ++run.load >= loads;
}

std::vector<double> TimedPresenter::loads_kg() const
{
    static const std::vector<double> kUsual{2.5, 5.0, 10.0}; // common practice on a span of 50 mm
    const StudyTest *test = piece() == nullptr ? nullptr : findTest(*m_session.study(), piece()->test);
    return test == nullptr || test->setup.loads_kg.empty() ? kUsual : test->setup.loads_kg;
}

/// That was said for the test, else what its stress asks for.
std::optional<double> TimedPresenter::creepLoad_kg() const
{
    if (piece() == nullptr)
        return std::nullopt;
    const Study &study = *m_session.study();
    const StudyTest *test = findTest(study, piece()->test);
    if (test != nullptr && test->setup.settings.numbers.contains("load"))
        return deadMass(newtons(test->setup.settings.numbers.at("load"))).si();
    const std::optional<ExpectedLoad> load =
        expectedLoad(study, testOfMethod(m_plan.tests(), piece()->test),
                     *findCondition(study, piece()->condition), m_plan.own());
    return load && load->value > 0.0 ? std::optional(load->value) : std::nullopt;
}

QString TimedPresenter::loadsText() const
{
    QStringList words;
    for (const double load : loads_kg())
        words << QString::fromStdString(m_session.notation().plain(load));
    return words.join(QStringLiteral("; ")) + QStringLiteral(" kg");
}

bool TimedPresenter::setLoads(const QString &text)
{
    if (piece() == nullptr)
        return false;
    const Unit kilograms = *findUnit("kg");
    std::vector<double> loads;
    QString rest = text;
    const QStringList parts = rest.remove(QStringLiteral("kg")).split(QLatin1Char(';'), Qt::SkipEmptyParts);
    for (const QString &part : parts.size() > 1 ? parts : rest.split(QStringLiteral(", "))) {
        const Result<double> load = parseQuantity(part.simplified().toStdString(), kilograms);
        if (!m_session.tell(load ? ok() : Status(load.error())))
            return false;
        loads.push_back(*load);
    }
    const Method method = piece()->test;
    return m_session.tryEdit(tr("loads"), [&](Study &study) -> Status {
        if (loads.empty() || !std::is_sorted(loads.begin(), loads.end()) || !(loads.front() > 0.0))
            return invalidArgument("loads are put on one after the other: say them rising, as in "
                                   "\"2.5; 5; 10 kg\"");
        findTest(study, method)->setup.loads_kg = loads;
        return ok();
    });
}

double TimedPresenter::elapsed_s(const Run &run, PieceId id, double at_s) const
{
    if (run.since_s)
        return at_s - *run.since_s;
    const Piece *of = findPiece(*m_session.study(), id);
    if (of == nullptr || !of->log.run)
        return 0.0;
    const LoadedRun &kept = *of->log.run;
    const std::string &from = kept.unloadedAt.empty() ? kept.loadedAt : kept.unloadedAt;
    const double byClock_s =
        static_cast<double>(now() - secondsSinceEpoch(from).value_or(now())) - (m_clock() - at_s);
    // No reading was taken before the one that is there, whatever the machine's clock was set to meanwhile.
    const bool isLoaded = kept.unloadedAt.empty() && !kept.taken_s.empty();
    return std::max(byClock_s, isLoaded ? kept.taken_s.back() : 0.0);
}

std::optional<double> TimedPresenter::clockWentBack_s() const
{
    constexpr double kTolerance_s = 2.0; // moments are kept to the second
    const Run *at = run();
    if (at == nullptr || at->since_s || piece() == nullptr || !piece()->log.run)
        return std::nullopt;
    const LoadedRun &kept = *piece()->log.run;
    const std::int64_t loaded = secondsSinceEpoch(kept.loadedAt).value_or(now());
    double latest = static_cast<double>(loaded) + (kept.taken_s.empty() ? 0.0 : kept.taken_s.back());
    if (!kept.unloadedAt.empty())
        latest = std::max(latest, static_cast<double>(secondsSinceEpoch(kept.unloadedAt).value_or(loaded)));
    const double back_s = latest - static_cast<double>(now());
    return back_s > kTolerance_s ? std::optional(back_s) : std::nullopt;
}

/// "26 h: 0.45 mm": how long it has been, where the machine's clock cannot tell. The rest is the reading; the
/// steady clock counts on from there.
Result<QString> TimedPresenter::withoutTime(const QString &text)
{
    const std::optional<double> back_s = clockWentBack_s();
    if (!back_s)
        return text;
    const qsizetype colon = text.indexOf(QLatin1Char(':'));
    const Result<double> said_s =
        colon < 0 ? Result<double>(invalidArgument(""))
                  : parseQuantity(text.left(colon).simplified().toStdString(), *findUnit("h"));
    const LoadedRun &kept = *piece()->log.run;
    const double least_s = kept.unloadedAt.empty() && !kept.taken_s.empty() ? kept.taken_s.back() : 0.0;
    if (!said_s || !(*said_s > least_s))
        return invalidArgument(fmt::format(
            "the clock of this machine was put back: it shows {} before the last that is kept of {}. Put it "
            "right, or type before the reading how long it is since the load was put {}, as in \"26 h: 0.45 "
            "mm\"",
            durationText(*back_s), piece()->code, kept.unloadedAt.empty() ? "on" : "off"));
    m_runs[m_piece].since_s = m_clock() - *said_s;
    return text.mid(colon + 1);
}

std::vector<TimedReading> TimedPresenter::readingsOf(const Run &run, PieceId id) const
{
    const Piece *of = findPiece(*m_session.study(), id);
    const std::vector<double> &taken = of->log.run ? of->log.run->taken_s : run.taken_s;
    return timedReadings(dueTimes_s(of->test), taken, elapsed_s(run, id, m_clock()));
}

TimedStep TimedPresenter::step() const
{
    const Run *at = run();
    if (at == nullptr || piece() == nullptr || at->isEnded)
        return TimedStep::Over;
    if (isCreep()) {
        const std::optional<LoadedRun> &kept = piece()->log.run;
        if (!kept)
            return TimedStep::PlaceLoad;
        if (kept->isOver)
            return TimedStep::Over;
        if (!kept->unloadedAt.empty())
            return TimedStep::Set;
        return nextReading(readingsOf(*at, m_piece)) ? TimedStep::Reading : TimedStep::TakeOff;
    }
    if (!at->since_s)
        return TimedStep::PlaceLoad;
    return nextReading(readingsOf(*at, m_piece)) ? TimedStep::Reading : TimedStep::PlaceLoad;
}

bool TimedPresenter::isUnderWay(PieceId id) const
{
    const Piece *of = m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), id);
    if (of == nullptr || !isTimed(of->test))
        return false;
    if (factsOf(of->test).isLeftUnderLoad)
        return of->log.run && !of->log.run->isOver;
    const auto found = m_runs.find(id);
    return found != m_runs.end() && !found->second.isEnded &&
           (found->second.since_s || !found->second.rows.empty());
}

QString TimedPresenter::loadText() const
{
    const Run *at = run();
    const std::vector<double> loads = loads_kg();
    const std::optional<double> load = isCreep() ? creepLoad_kg()
                                       : at != nullptr && at->load < loads.size()
                                           ? std::optional(loads[at->load])
                                           : std::nullopt;
    return load ? QString::fromStdString(m_session.notation().plain(*load, 3)) + QStringLiteral(" kg")
                : tr("the load");
}

QString TimedPresenter::nextAction() const
{
    switch (step()) {
    case TimedStep::PlaceLoad:
        return tr("Put %1 on, and press Space when it rests.").arg(loadText());
    case TimedStep::Reading:
        if (clockWentBack_s())
            return tr(
                "This machine's clock was put back. Put it right, or type how long the load has been on "
                "before the reading: 26 h: 0.45 mm.");
        return secondsToNext().value_or(1.0) > 0.0
                   ? tr("Wait for the reading; a period takes it, or type it then.")
                   : tr("Read it now: a period takes the moment, then the value and Enter.");
    case TimedStep::TakeOff:
        return tr("All readings are taken. Take the load off, and press Space.");
    case TimedStep::Set:
        return tr("Five minutes after the load came off: read the set that is left.");
    case TimedStep::Over:
        return tr("Enter: the next piece.");
    }
    return {};
}

std::optional<double> TimedPresenter::secondsToNext() const
{
    const Run *at = run();
    if (at == nullptr)
        return std::nullopt;
    const double elapsed = elapsed_s(*at, m_piece, m_clock());
    if (step() == TimedStep::Set)
        return kSetAfter_s - elapsed;
    if (step() != TimedStep::Reading)
        return std::nullopt;
    const std::vector<TimedReading> readings = readingsOf(*at, m_piece);
    return readings[*nextReading(readings)].due_s - elapsed;
}

QString TimedPresenter::lastText() const
{
    return m_last;
}

void TimedPresenter::loadIsSet()
{
    if (piece() == nullptr)
        return;
    const TimedStep at = step();
    Run &run = m_runs[m_piece];
    m_toNext_s.reset();
    if (at == TimedStep::PlaceLoad && !isCreep()) {
        if (run.load < loads_kg().size()) {
            run.since_s = m_clock();
            run.taken_s.clear();
        }
    } else if (at == TimedStep::PlaceLoad) {
        const bool isKept = m_session.tryEdit(tr("load on a piece"), [&](Study &study) {
            findPiece(study, m_piece)->log.run = LoadedRun{m_session.now(), {}, {}, false};
            return ok();
        });
        if (isKept)
            run.since_s = m_clock();
    } else if (at == TimedStep::TakeOff) {
        const bool isKept = m_session.tryEdit(tr("load off a piece"), [&](Study &study) {
            findPiece(study, m_piece)->log.run->unloadedAt = m_session.now();
            return ok();
        });
        if (isKept)
            run.since_s = m_clock();
    }
    emit changed();
}

void TimedPresenter::stamp()
{
    if (!m_stamp && (step() == TimedStep::Reading || step() == TimedStep::Set))
        m_stamp = m_clock();
}

TypedRow TimedPresenter::row(const QString &text, double elapsed_s, double at_s) const
{
    const std::vector<TypedColumn> columns = typedColumns(*reductionOf(piece()->test));
    const bool isUnloaded = step() == TimedStep::Set;
    const std::optional<double> load = isUnloaded  ? 0.0
                                       : isCreep() ? creepLoad_kg()
                                                   : std::optional(loads_kg()[m_runs.at(m_piece).load]);
    TypedRow row;
    row.cells.resize(columns.size());
    if (load)
        row.cells[columnOf(columns, "load")] = fmt::format("{:g} kg", *load);
    row.cells[columnOf(columns, "time")] = fmt::format("{:.1f} s", elapsed_s);
    // With its unit: the row is written again with each later reading, whatever units are shown then.
    std::string value = text.trimmed().toStdString();
    if (numberPrefixLength(value) == value.size())
        value += " " + std::string(m_session.notation().unitOf(Dimension::Length).symbol);
    row.cells[columnOf(columns, "deflection")] = value;
    const auto ago = static_cast<std::int64_t>(std::llround(m_clock() - at_s));
    row.takenAt = utcText(now() - ago);
    return row;
}

bool TimedPresenter::take(const QString &typed)
{
    const TimedStep at = step();
    if (at != TimedStep::Reading && at != TimedStep::Set)
        return false;
    const Result<QString> reading = withoutTime(typed);
    if (!reading)
        return m_session.tell(reading.error());
    const QString &text = *reading;
    if (text.trimmed().isEmpty())
        return m_session.tell(invalidArgument("type what the gauge reads, as in 0.42 mm"));
    const double at_s = m_stamp.value_or(m_clock());
    Run &run = m_runs[m_piece];
    const double elapsed = std::max(0.0, elapsed_s(run, m_piece, at_s));
    // A set counts from the loading as the readings before it do.
    const std::optional<std::int64_t> loaded =
        piece()->log.run ? secondsSinceEpoch(piece()->log.run->loadedAt) : std::nullopt;
    const double loadedFor_s = static_cast<double>(now() - loaded.value_or(now())) - (m_clock() - at_s);
    const double lastTaken_s =
        piece()->log.run && !piece()->log.run->taken_s.empty() ? piece()->log.run->taken_s.back() : 0.0;
    const double sinceLoaded = at == TimedStep::Set ? std::max(loadedFor_s, lastTaken_s + elapsed) : elapsed;
    std::vector<TypedRow> rows = run.rows;
    rows.push_back(row(text, sinceLoaded, at_s));
    BenchKeeper::Change change;
    if (isCreep())
        change = [elapsed, isSet = at == TimedStep::Set](Piece &of) {
            if (isSet)
                of.log.run->isOver = true;
            else
                of.log.run->taken_s.push_back(elapsed);
        };
    if (!m_keeper.keepTyped(m_piece, rows, "dial",
                            tr("reading at %1").arg(QString::fromStdString(durationText(elapsed))),
                            std::move(change)))
        return false;
    run.rows = std::move(rows);
    m_stamp.reset();
    const double due = at == TimedStep::Set ? kSetAfter_s : elapsed + *secondsToNext() + (m_clock() - at_s);
    const auto lasting = [](double seconds) { return QString::fromStdString(durationText(seconds)); };
    const std::size_t read = columnOf(typedColumns(*reductionOf(piece()->test)), "deflection");
    m_last = tr("%1 at %2").arg(QString::fromStdString(run.rows.back().cells[read]), lasting(elapsed));
    if (const double late = elapsed - due; std::abs(late) > tolerance_s(due))
        m_last += (late > 0.0 ? tr(": %1 late, kept as it was") : tr(": %1 early, kept as it was"))
                      .arg(lasting(late));
    if (!isCreep()) {
        run.taken_s.push_back(elapsed);
        passOn(run, loads_kg().size(), dueTimes_s(piece()->test));
    }
    m_toNext_s.reset();
    emit changed();
    return true;
}

void TimedPresenter::endHere()
{
    if (piece() == nullptr || !isUnderWay(m_piece))
        return;
    if (isCreep())
        m_session.tryEdit(tr("end of a run"), [&](Study &study) {
            findPiece(study, m_piece)->log.run->isOver = true;
            return ok();
        });
    m_runs[m_piece].isEnded = true;
    emit changed();
}

std::vector<DueReading> TimedPresenter::arms() const
{
    return m_session.study() == nullptr ? std::vector<DueReading>() : dueReadings(*m_session.study(), now());
}

std::optional<PieceId> TimedPresenter::pressingArm() const
{
    const bool isHandUsed = m_stamp || secondsToNext().value_or(1e9) < kNextPieceAfter_s;
    if (isHandUsed)
        return std::nullopt;
    std::optional<PieceId> patient;
    for (const DueReading &arm : arms()) {
        const bool isDue = arm.state == DueState::Now || arm.state == DueState::Overdue;
        if (isDue && !arm.canWait)
            return arm.piece;
        if (isDue && (!patient || arm.piece == m_piece))
            patient = arm.piece;
    }
    return patient;
}

bool TimedPresenter::mayLeave() const
{
    return isCreep() && step() == TimedStep::Reading && secondsToNext().value_or(0.0) > kNextPieceAfter_s;
}

std::optional<Tone> TimedPresenter::toneDue()
{
    const std::optional<double> toNext = secondsToNext();
    const std::optional<double> before = std::exchange(m_toNext_s, toNext);
    if (!toNext || !before || *toNext > *before)
        return std::nullopt;
    if (*before > 0.0 && *toNext <= 0.0)
        return Tone::Now;
    const bool isSoon = std::any_of(kSoon_s.begin(), kSoon_s.end(),
                                    [&](double soon) { return *before > soon && *toNext <= soon; });
    if (isSoon)
        return Tone::Soon;
    return std::nullopt;
}

std::vector<TimeRail> TimedPresenter::rows() const
{
    if (piece() == nullptr || !isTimed(piece()->test))
        return {};
    return isCreep() ? armRows() : loadRows();
}

std::vector<TimeRail> TimedPresenter::loadRows() const
{
    const std::vector<double> loads = loads_kg();
    const Run empty;
    const Run &at = run() == nullptr ? empty : *run();
    const std::vector<TypedColumn> columns = typedColumns(*reductionOf(piece()->test));
    std::vector<TimeRail> rails;
    for (std::size_t i = 0; i < loads.size(); ++i) {
        TimeRail rail;
        rail.label = QString::fromStdString(m_session.notation().plain(loads[i])) + QStringLiteral(" kg");
        rail.isCurrent = i == at.load && !at.isEnded;
        std::vector<double> taken;
        QStringList values;
        for (const TypedRow &row : at.rows) {
            const double load = massIn(row.cells[columnOf(columns, "load")]);
            if (std::abs(load - loads[i]) > 1e-4 * loads[i])
                continue;
            taken.push_back(leading(row.cells[columnOf(columns, "time")]).value_or(0.0));
            values << QString::fromStdString(row.cells[columnOf(columns, "deflection")]);
        }
        const bool rests = rail.isCurrent && at.since_s;
        const double now_s = rests ? m_clock() - *at.since_s : i < at.load || at.isEnded ? 1e9 : -1.0;
        rail.readings = timedReadings(dueTimes_s(piece()->test), taken, now_s);
        if (rests)
            rail.now_s = now_s;
        rail.note = values.join(QStringLiteral("   "));
        rails.push_back(std::move(rail));
    }
    return rails;
}

std::vector<TimeRail> TimedPresenter::armRows() const
{
    std::vector<TimeRail> rails;
    const std::vector<DueReading> due = dueReadings(*m_session.study(), now());
    for (const Piece &one : m_session.study()->pieces) {
        const bool isHere = one.id == m_piece;
        if (!factsOf(one.test).isLeftUnderLoad || (!isHere && (!one.log.run || one.log.run->isOver)))
            continue;
        TimeRail rail;
        rail.label = QString::fromStdString(one.code);
        rail.piece = one.id;
        rail.isCurrent = isHere;
        const auto kept = m_runs.find(one.id);
        const Run run = kept == m_runs.end() ? Run{} : kept->second;
        if (one.log.run) {
            rail.now_s = one.log.run->unloadedAt.empty() ? std::optional(elapsed_s(run, one.id, m_clock()))
                                                         : std::nullopt;
            rail.readings =
                timedReadings(dueTimes_s(one.test), one.log.run->taken_s, rail.now_s.value_or(1e9));
        } else {
            rail.readings = timedReadings(dueTimes_s(one.test), {}, -1.0);
        }
        const auto next = std::find_if(due.begin(), due.end(),
                                       [&](const DueReading &reading) { return reading.piece == one.id; });
        if (next != due.end()) {
            const QDateTime when = QDateTime::fromSecsSinceEpoch(next->due, Qt::UTC).toLocalTime();
            rail.note =
                tr("%1: %2, %3")
                    .arg(QString::fromStdString(next->what).remove(QStringLiteral("creep reading ")),
                         when.toString(QStringLiteral("ddd HH:mm")),
                         QString::fromStdString(countdownText(static_cast<double>(next->due - now()))));
        } else {
            rail.note = one.log.run ? tr("over") : tr("not loaded yet");
        }
        rails.push_back(std::move(rail));
    }
    return rails;
}

} // namespace inchpeg::app
