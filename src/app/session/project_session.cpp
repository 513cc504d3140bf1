// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/project_session.h"

#include "app/session/local_day.h"
#include "app/session/task.h"
#include "core/logbook/change_log.h"
#include "core/planning/planned_test.h"
#include "core/planning/plates.h"
#include "core/reading/reading_text.h"
#include "service/workshop_setting.h"
#include "store/file_identity.h"

#include <QDateTime>
#include <QFileInfo>
#include <QtConcurrentRun>

#include <nlohmann/json.hpp>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr const char *kViewSetting = "view";
constexpr int kViewDelay_ms = 400;
constexpr std::pair<Lens, const char *> kLensNames[] = {{Lens::Plan, "plan"},       {Lens::Log, "log"},
                                                        {Lens::Bench, "bench"},     {Lens::Read, "read"},
                                                        {Lens::Compare, "compare"}, {Lens::Decide, "decide"}};

const char *lensName(Lens lens)
{
    for (const auto &[known, name] : kLensNames) {
        if (known == lens)
            return name;
    }
    throw ContractViolation("unknown lens");
}

Lens lensFrom(const std::string &text)
{
    for (const auto &[lens, name] : kLensNames) {
        if (text == name)
            return lens;
    }
    return Lens::Plan;
}

} // namespace

ProjectSession::ProjectSession(QString who, std::function<std::string()> now)
    : m_who(std::move(who)), m_now(std::move(now)),
      m_comparedProperty(QString::fromUtf8(kUsualProperty.data()))
{
    m_viewTimer.setSingleShot(true);
    m_viewTimer.setInterval(kViewDelay_ms);
    connect(&m_viewTimer, &QTimer::timeout, this, &ProjectSession::writeView);
}

ProjectSession::~ProjectSession()
{
    try {
        closeProject();
    } catch (const std::exception &) {
        // Nobody is left to be told; every finished edit is on the disk already.
    }
}

/// Opens or makes a project under its lock, and closes the one that was open once that has gone well. The
/// same file again has to be closed first; where it cannot be opened any more, everybody hears that it is
/// gone.
Status ProjectSession::takeOver(const QString &path, Hold hold,
                                Result<ProjectFile> (*make)(const std::string &path))
{
    if (m_keeper.isBusy())
        return Error{
            ErrorCode::Storage, "files are being brought in; open another project once they are", {}};
    if (m_compacting)
        return Error{ErrorCode::Storage, "the project is being compacted; open another once it is", {}};
    const std::optional<FileIdentity> wanted = identityOf(path.toStdString());
    const bool isSame = m_project && wanted && wanted == identityOf(projectPath().toStdString());
    if (isSame)
        closeProject();
    const Status status = takeOther(path, hold, make);
    if (!status && isSame)
        announceClosed();
    return status;
}

Status ProjectSession::takeOther(const QString &path, Hold hold,
                                 Result<ProjectFile> (*make)(const std::string &path))
{
    std::optional<ProjectLock> lock;
    if (hold == Hold::Locked) {
        Result<ProjectLock> taken = ProjectLock::take(path.toStdString());
        if (!taken)
            return taken.error();
        lock.emplace(std::move(*taken));
    }
    Result<ProjectFile> project = make(path.toStdString());
    if (!project)
        return project.error();
    closeProject();
    m_lock = std::move(lock);
    if (m_lock)
        m_lock->holdFile(path.toStdString()); // it is there by now
    m_project.emplace(std::move(*project));
    return ok();
}

void ProjectSession::announceClosed()
{
    emit projectChanged();
    emit studiesChanged();
    emit studyChanged();
    emit selectionChanged();
}

Status ProjectSession::createProject(const QString &path)
{
    if (QFileInfo::exists(path)) // before the one that is open, which it may be, is closed
        return ProjectFile::create(path.toStdString()).error();
    if (const Status status = takeOver(path, Hold::Locked, &ProjectFile::create); !status)
        return status;
    m_workshop = workshopOf(*m_project).value();
    emit projectChanged();
    emit studiesChanged();
    emit studyChanged();
    return ok();
}

Status ProjectSession::openProject(const QString &path)
{
    const Status status = takeOver(path, Hold::Locked, &ProjectFile::open);
    return status ? showOpened() : status;
}

Status ProjectSession::openForReading(const QString &path)
{
    const Status status = takeOver(path, Hold::Unlocked, &ProjectFile::openForReading);
    return status ? showOpened() : status;
}

Status ProjectSession::showOpened()
{
    if (const Status status = listStudies(); !status) {
        closeProject();
        announceClosed();
        return status;
    }
    Result<Workshop> workshop = workshopOf(*m_project);
    m_workshop = workshop ? *workshop : standInWorkshop(*m_project);
    restoreView();
    emit projectChanged();
    if (!workshop)
        emit failed(QString::fromStdString(workshop.error().message));
    return ok();
}

void ProjectSession::closeProject()
{
    if (!m_project)
        return;
    stopReading();
    m_keeper.stop();
    if (m_compacting) { // it is told to nobody any more, and the file is wanted
        m_compacting->disconnect(this);
        m_compacting->waitForFinished();
        m_compacting.reset();
    }
    writeView();
    m_project.reset();
    m_lock.reset();
    m_studies.clear();
    m_study.reset();
    m_workshop = usualWorkshop();
    m_history.clear();
    m_readings.clear();
    m_readFrom.clear();
    m_hiddenRails.clear();
    m_selectedPiece = {};
}

Status ProjectSession::mayChange() const
{
    if (isForReading())
        return Error{
            ErrorCode::Storage,
            "the project is open for reading: nothing was changed. Close it where it is being worked "
            "on, and open it again",
            {}};
    if (m_compacting)
        return Error{ErrorCode::Storage,
                     "the project is being compacted: nothing was changed; do it again in a moment",
                     {}};
    return ok();
}

Status ProjectSession::compact(std::function<void(const Status &)> done)
{
    if (const Status status = mayChange(); !status)
        return status;
    if (m_keeper.isBusy())
        return Error{ErrorCode::Storage, "files are being brought in; compact the project once they are", {}};
    stopReading();
    m_compacting = std::make_unique<QFutureWatcher<std::shared_ptr<const Status>>>();
    connect(m_compacting.get(), &QFutureWatcherBase::finished, this, [this, done = std::move(done)] {
        const Result<std::shared_ptr<const Status>> result = taskResult(m_compacting);
        const Status status = result ? **result : Status(result.error());
        if (status)
            m_history.clear(); // a step back might want what is gone
        emit studyChanged();
        readStale();
        done(status);
    });
    m_compacting->setFuture(beginTask("compacting", [path = project().path()] {
        Result<ProjectFile> project = ProjectFile::open(path);
        return std::make_shared<const Status>(project ? project->compact() : Status(project.error()));
    }));
    return ok();
}

QString ProjectSession::projectPath() const
{
    return m_project ? QString::fromStdString(m_project->path()) : QString();
}

ProjectFile &ProjectSession::project()
{
    require(m_project.has_value(), "no project is open");
    return *m_project;
}

Status ProjectSession::listStudies()
{
    Result<std::vector<StudyHeader>> studies = project().studies();
    if (!studies)
        return studies.error();
    m_studies = std::move(*studies);
    emit studiesChanged();
    return ok();
}

/// The study on the rack has changed; the others are as they were listed.
void ProjectSession::listChangedStudy()
{
    const auto listed = std::find_if(m_studies.begin(), m_studies.end(),
                                     [this](const StudyHeader &header) { return header.id == m_study->id; });
    require(listed != m_studies.end(), "the study on the rack is listed");
    *listed = headerOf(*m_study);
    emit studiesChanged();
}

Status ProjectSession::putOnRack(StudyId id)
{
    Result<MendedStudy> loaded = project().loadMended(id);
    if (!loaded)
        return loaded.error();
    keepMended(*loaded);
    retireReading();
    takeStudy(std::move(loaded->study));
    m_readings.clear();
    m_readFrom.clear();
    m_hiddenRails.clear();
    m_selectedPiece = m_study->pieces.empty() ? PieceId{} : m_study->pieces.front().id;
    return ok();
}

/// What was put right when a study was opened is told, noted in its plan, and kept.
void ProjectSession::keepMended(MendedStudy &loaded)
{
    if (loaded.mended.empty())
        return;
    QStringList sentences;
    for (const std::string &sentence : loaded.mended) {
        sentences << QString::fromStdString(sentence);
        loaded.study.plan.record.push_back({m_now(), "Inch Peg", sentence});
    }
    emit failed(
        tr("The study \"%1\" did not fit together and was put right: %2.")
            .arg(QString::fromStdString(loaded.study.question), sentences.join(QStringLiteral("; "))));
    if (!isForReading())
        tell(project().save({std::nullopt, loaded.study}));
}

Status ProjectSession::selectStudy(StudyId id)
{
    if (m_study && m_study->id == id)
        return ok();
    if (const Status status = putOnRack(id); !status)
        return status;
    emit studyChanged();
    emit selectionChanged();
    readStale();
    keepView();
    return ok();
}

Status ProjectSession::addStudy(const QString &question)
{
    if (const Status status = mayChange(); !status)
        return status;
    Study study;
    study.id = StudyId{project().takeId()};
    study.question = question.toStdString();
    study.factors.front().name = "material";
    if (const Status status = project().save({std::nullopt, study}); !status)
        return status;
    if (const Status status = listStudies(); !status)
        return status;
    setLens(Lens::Plan);
    return selectStudy(study.id);
}

/// Saves a study and puts it in place of the one on the rack.
void ProjectSession::takeStudy(Study study)
{
    if (m_study) {
        if (m_studiesBefore.empty())
            QTimer::singleShot(0, this, [this] { m_studiesBefore.clear(); });
        m_studiesBefore.push_back(std::move(*m_study));
    }
    m_study = std::move(study);
}

Status ProjectSession::replaceStudy(const Study &before, const Study &after)
{
    std::vector<LoggedChange> changes = loggedChanges(before, after, m_who.toStdString(), m_now());
    if (const Status status = project().save({before, after, std::move(changes)}); !status)
        return status;
    if (!m_study || m_study->id != after.id)
        return ok();
    takeStudy(after);
    if (findPiece(*m_study, m_selectedPiece) == nullptr)
        m_selectedPiece = m_study->pieces.empty() ? PieceId{} : m_study->pieces.front().id;
    return ok();
}

/// After a step was taken or taken back and the history is in order.
Status ProjectSession::announceStudy()
{
    if (m_study)
        listChangedStudy();
    // Begun before the views hear of the change: they need not work out what the next readings change again.
    const bool readingsWent = startReading();
    emit studyChanged();
    if (readingsWent)
        emit readingsChanged();
    return ok();
}

Status ProjectSession::edit(const QString &what, const std::function<Status(Study &)> &change)
{
    require(m_study.has_value(), "no study is on the rack");
    return editStudy(m_study->id, what, change);
}

Status ProjectSession::editStudy(StudyId id, const QString &what,
                                 const std::function<Status(Study &)> &change)
{
    if (const Status status = mayChange(); !status)
        return status;
    const bool isOnRack = m_study && m_study->id == id;
    const Result<Study> before = isOnRack ? Result<Study>(*m_study) : project().loadStudy(id);
    if (!before)
        return before.error();
    Study changed = *before;
    if (const Status status = change(changed); !status)
        return status;
    if (changed == *before)
        return ok();
    recordLateChange(*before, changed, m_who.toStdString(), m_now());
    EditHistory::Step step{what, id, StudyDifference(*before, changed), {}, {}};
    if (const Status status = replaceStudy(*before, changed); !status)
        return status;
    m_history.add(std::move(step));
    if (isOnRack)
        return announceStudy();
    emit otherStudyChanged(id);
    emit studyChanged(); // what can be taken back is another
    return listStudies();
}

bool ProjectSession::tryEdit(const QString &what, const std::function<Status(Study &)> &change)
{
    return tell(edit(what, change));
}

bool ProjectSession::tell(const Status &status)
{
    if (!status)
        emit failed(QString::fromStdString(errorSentence(status.error())));
    return status.has_value();
}

Status ProjectSession::replaceWorkshop(const Workshop &workshop)
{
    if (const Status status = keepWorkshop(project(), workshop); !status)
        return status;
    m_workshop = workshop;
    emit workshopChanged();
    return ok();
}

bool ProjectSession::tryEditWorkshop(const QString &what, const std::function<Status(Workshop &)> &change)
{
    if (const Status status = mayChange(); !status)
        return tell(status);
    Workshop changed = m_workshop;
    if (const Status status = change(changed); !status)
        return tell(status);
    if (changed == m_workshop)
        return true;
    const Workshop before = m_workshop;
    if (const Status status = replaceWorkshop(changed); !status)
        return tell(status);
    m_history.add({what, {}, {}, before, changed});
    emit studyChanged(); // what is planned hangs on it
    readStale();         // and how surely sizes are known
    return true;
}

Status ProjectSession::replaceText(const std::string &name, const std::string &text)
{
    if (const Status status = project().setSetting(name, text); !status)
        return status;
    emit keptTextChanged(QString::fromStdString(name));
    return ok();
}

std::string ProjectSession::keptText(const std::string &name)
{
    if (!hasProject())
        return {};
    const Result<std::optional<std::string>> kept = project().setting(name);
    return kept ? kept->value_or(std::string()) : std::string();
}

bool ProjectSession::tryKeepText(const QString &what, const std::string &name, const std::string &text)
{
    if (const Status status = mayChange(); !status)
        return tell(status);
    const std::string before = keptText(name);
    if (text == before)
        return true;
    if (const Status status = replaceText(name, text); !status)
        return tell(status);
    m_history.add({what, {}, {}, {}, {}, KeptText{name, before, text}});
    emit studyChanged(); // what can be taken back is another
    return true;
}

Status ProjectSession::replay(const EditHistory::Step &step, bool backward)
{
    if (step.text)
        return replaceText(step.text->name, backward ? step.text->before : step.text->after);
    if (step.study) {
        // The person is led to what changes.
        if (const Status status = selectStudy(step.studyId); !status)
            return status;
        return replaceStudy(*m_study,
                            backward ? step.study->backward(*m_study) : step.study->forward(*m_study));
    }
    return replaceWorkshop(backward ? *step.workshopBefore : *step.workshopAfter);
}

Status ProjectSession::undo()
{
    const EditHistory::Step *step = m_history.undoStep();
    require(step != nullptr, "nothing to undo");
    if (const Status status = replay(*step, true); !status)
        return status;
    m_history.stepBack();
    return announceStudy();
}

Status ProjectSession::redo()
{
    const EditHistory::Step *step = m_history.redoStep();
    require(step != nullptr, "nothing to redo");
    if (const Status status = replay(*step, false); !status)
        return status;
    m_history.stepForward();
    return announceStudy();
}

IdSource ProjectSession::ids()
{
    return [this] { return project().takeId(); };
}

Exclusion ProjectSession::exclusion(const QString &reason) const
{
    return {reason.toStdString(), m_who.toStdString(), m_now()};
}

Status ProjectSession::keepRawFiles(std::vector<RawFileToKeep> files, RawFileKeeper::Done done)
{
    if (const Status status = mayChange(); !status)
        return status;
    if (const Status status = project().checkInPlace(); !status)
        return status;
    for (RawFileToKeep &file : files)
        file.id = RawFileId{project().takeId()};
    m_keeper.keep(project().path(), std::move(files), std::move(done));
    return ok();
}

MeasuringGauges ProjectSession::measuringGauges() const
{
    return inchpeg::measuringGauges(m_study->log.measuring, m_workshop, today());
}

std::optional<UsedGauge> ProjectSession::rigToday(const Study &study, Method test) const
{
    const StudyTest *planned = findTest(study, test);
    const RigCard *rig = planned != nullptr ? findRig(m_workshop, planned->setup.rig) : nullptr;
    if (rig == nullptr)
        return std::nullopt;
    return usedGauge(*rig, today());
}

Moment ProjectSession::workshopTime() const
{
    const QDateTime local = localTime(m_now());
    return momentFrom(local.toString(QStringLiteral("yyyy-MM-ddThh:mm")).toStdString()).value_or(Moment{});
}

std::string ProjectSession::today() const
{
    return localDay(m_now()).toStdString();
}

Status ProjectSession::goTo(StudyId study, PieceId piece)
{
    if (const Status status = selectStudy(study); !status)
        return status;
    if (m_study && findPiece(*m_study, piece) != nullptr)
        selectPiece(piece);
    return ok();
}

HandMarker ProjectSession::handMarker(std::optional<double> at, const QString &reason) const
{
    return {at, reason.toStdString(), m_who.toStdString(), m_now()};
}

void ProjectSession::setNotation(const Notation &notation)
{
    if (m_notation == notation)
        return;
    m_notation = notation;
    emit notationChanged();
}

std::optional<OrderedReading> ProjectSession::readingOrder(PieceId id) const
{
    const Piece *piece = m_study ? findPiece(*m_study, id) : nullptr;
    return piece == nullptr ? std::nullopt : orderReading(*m_study, *piece, m_workshop);
}

void ProjectSession::readStale()
{
    if (startReading())
        emit readingsChanged();
}

/// Reads in other threads every record that is new or whose section, mapping, markers or rules changed. True
/// where readings went and none are on their way.
bool ProjectSession::startReading()
{
    if (!m_study)
        return false;
    const bool wasReading = m_watcher != nullptr;
    retireReading();
    ReadingTask task{project().path(), m_study->id, !isForReading() && !m_compacting, {}};
    std::set<PieceId> recorded;
    for (const Piece &piece : m_study->pieces) {
        std::optional<OrderedReading> order = orderReading(*m_study, piece, m_workshop);
        if (!order)
            continue;
        recorded.insert(piece.id);
        const auto known = m_readFrom.find(piece.id);
        if (known != m_readFrom.end() && known->second == order->inputs && m_readings.contains(piece.id))
            continue;
        m_readFrom[piece.id] = order->inputs;
        m_readings.erase(piece.id);
        task.stale.push_back(std::move(*order));
    }
    const std::size_t gone =
        std::erase_if(m_readings, [&](const auto &entry) { return !recorded.contains(entry.first); });
    if (task.stale.empty())
        return wasReading || gone > 0;
    m_watcher = std::make_unique<QFutureWatcher<ReadResult>>();
    connect(m_watcher.get(), &QFutureWatcherBase::resultReadyAt, this, &ProjectSession::takeReading);
    connect(m_watcher.get(), &QFutureWatcherBase::finished, this, &ProjectSession::finishReading);
    const auto all = static_cast<int>(task.stale.size());
    connect(m_watcher.get(), &QFutureWatcherBase::progressValueChanged, this,
            [this, all](int done) { emit readingProgress(done, all); });
    handOver();
    m_watcher->setFuture(QtConcurrent::run(&readAll, std::move(task)));
    return false;
}

void ProjectSession::takeReading(int index)
{
    takeHandedOver();
    const ReadResult result = m_watcher->resultAt(index);
    m_readings[result.piece] = result.reading;
}

void ProjectSession::finishReading()
{
    QFuture<ReadResult> future = m_watcher->future();
    m_watcher.release()->deleteLater(); // it is the sender of the signal that brought us here
    try {
        future.waitForFinished();
    } catch (...) { // what was read is there; the rest can be asked for again
        tell(detail::taskFailure(std::current_exception()));
    }
    emit readingsChanged();
}

/// Readers that are no longer wanted are told to stop, and go when they have; nobody waits for them.
void ProjectSession::retireReading()
{
    if (!m_watcher)
        return;
    m_watcher->disconnect(this);
    m_watcher->cancel();
    std::erase_if(m_retired, [](const auto &watcher) { return watcher->isFinished(); });
    m_retired.push_back(std::move(m_watcher));
}

/// Waits until no reader holds the project's file: before it is closed or rewritten.
void ProjectSession::stopReading()
{
    retireReading();
    for (const auto &watcher : m_retired)
        watcher->waitForFinished();
    m_retired.clear();
}

void ProjectSession::cancelReading()
{
    if (!m_watcher)
        return;
    retireReading();
    emit readingsChanged();
}

std::size_t ProjectSession::unreadCount() const
{
    if (!m_study || isReading())
        return 0;
    return static_cast<std::size_t>(
        std::count_if(m_study->pieces.begin(), m_study->pieces.end(), [this](const Piece &piece) {
            return piece.recording && !m_readings.contains(piece.id);
        }));
}

void ProjectSession::setLens(Lens lens)
{
    if (m_lens == lens)
        return;
    m_lens = lens;
    emit lensChanged();
    keepView();
}

ConditionId ProjectSession::selectedRail() const
{
    const Piece *piece = m_study ? findPiece(*m_study, m_selectedPiece) : nullptr;
    return piece != nullptr ? piece->condition : ConditionId{};
}

void ProjectSession::selectPiece(PieceId piece)
{
    if (m_selectedPiece == piece)
        return;
    m_selectedPiece = piece;
    if (const Piece *selected = m_study && m_lens == Lens::Read ? findPiece(*m_study, piece) : nullptr)
        setShownTest(selected->test); // its curve is among those of its own test
    emit selectionChanged();
    keepView();
}

void ProjectSession::setRailShown(ConditionId rail, bool shown)
{
    if (isRailShown(rail) == shown)
        return;
    if (shown)
        m_hiddenRails.erase(rail);
    else
        m_hiddenRails.insert(rail);
    emit shownRailsChanged();
    keepView();
}

std::optional<Method> ProjectSession::shownTest() const
{
    if (!m_study)
        return std::nullopt;
    return m_shownTest && findTest(*m_study, *m_shownTest) != nullptr ? *m_shownTest : methodOf(*m_study);
}

void ProjectSession::setShownTest(Method test)
{
    if (shownTest() == test)
        return;
    m_shownTest = test;
    emit comparisonChanged();
    emit shownRailsChanged();
}

std::optional<Property> ProjectSession::shownProperty() const
{
    const std::optional<Method> test = shownTest();
    if (!test)
        return std::nullopt;
    if (const Reduction *reduction = reductionOf(*test)) {
        if (const Result<Property> chosen = findProperty(*reduction, m_comparedProperty.toStdString()))
            return *chosen;
    }
    return usualProperty(*test);
}

QString ProjectSession::comparedProperty() const
{
    const std::optional<Property> property = shownProperty();
    return property ? QString::fromUtf8(property->name) : m_comparedProperty;
}

void ProjectSession::setComparedProperty(const QString &name)
{
    if (m_comparedProperty == name)
        return;
    m_comparedProperty = name;
    emit comparisonChanged();
    keepView();
}

void ProjectSession::setTestTableShown(bool shown)
{
    if (m_testTableShown == shown)
        return;
    m_testTableShown = shown;
    emit comparisonChanged();
    keepView();
}

void ProjectSession::setGraphShown(bool shown)
{
    if (m_graphShown == shown)
        return;
    m_graphShown = shown;
    emit comparisonChanged();
    keepView();
}

bool ProjectSession::isResponseTableShown() const
{
    return m_study && m_responseTableShown.value_or(m_study->tests.size() > 1);
}

void ProjectSession::setResponseTableShown(bool shown)
{
    if (isResponseTableShown() == shown)
        return;
    m_responseTableShown = shown;
    emit comparisonChanged();
    keepView();
}

/// Where the person is will be written down once the keys have come to rest: arrows along the pegs must not
/// wait for the disk at each step.
void ProjectSession::keepView()
{
    if (m_project && !m_restoring)
        m_viewTimer.start();
}

/// Writes down where the person is, so that the project opens there again.
void ProjectSession::writeView()
{
    m_viewTimer.stop();
    if (!mayChange())
        return;
    nlohmann::json hidden = nlohmann::json::array();
    for (const ConditionId rail : m_hiddenRails)
        hidden.push_back(rail.value);
    nlohmann::json view = {{"study", m_study ? m_study->id.value : 0},
                           {"lens", lensName(m_lens)},
                           {"piece", m_selectedPiece.value},
                           {"hidden_rails", hidden},
                           {"property", m_comparedProperty.toStdString()},
                           {"test_table", m_testTableShown},
                           {"graph", m_graphShown}};
    if (m_responseTableShown)
        view["response_table"] = *m_responseTableShown;
    if (const Status status = m_project->setSetting(kViewSetting, view.dump()); !status)
        emit failed(QString::fromStdString(status.error().message));
}

void ProjectSession::restoreView()
{
    m_restoring = true;
    const Result<std::optional<std::string>> kept = m_project->setting(kViewSetting);
    const nlohmann::json view =
        kept && kept->has_value() ? nlohmann::json::parse(**kept, nullptr, false) : nlohmann::json();
    const auto number = [&](const char *key) {
        return view.is_object() && view.contains(key) && view[key].is_number_integer()
                   ? view[key].get<std::int64_t>()
                   : 0;
    };
    const auto text = [&](const char *key) {
        return view.is_object() && view.contains(key) && view[key].is_string() ? view[key].get<std::string>()
                                                                               : std::string();
    };
    const bool known = std::any_of(m_studies.begin(), m_studies.end(), [&](const StudyHeader &header) {
        return header.id.value == number("study");
    });
    if (known || !m_studies.empty()) {
        if (const Status status = putOnRack(known ? StudyId{number("study")} : m_studies.front().id); !status)
            emit failed(QString::fromStdString(status.error().message));
    }
    m_lens = lensFrom(text("lens"));
    if (m_study && findPiece(*m_study, PieceId{number("piece")}) != nullptr)
        m_selectedPiece = PieceId{number("piece")};
    if (!text("property").empty())
        m_comparedProperty = QString::fromStdString(text("property"));
    m_testTableShown = view.is_object() && view.value("test_table", nlohmann::json(false)) == true;
    m_graphShown = view.is_object() && view.value("graph", nlohmann::json(false)) == true;
    m_responseTableShown.reset();
    if (view.is_object() && view.contains("response_table") && view["response_table"].is_boolean())
        m_responseTableShown = view["response_table"].get<bool>();
    if (view.is_object() && view.contains("hidden_rails") && view["hidden_rails"].is_array()) {
        for (const nlohmann::json &rail : view["hidden_rails"]) {
            if (rail.is_number_integer())
                m_hiddenRails.insert(ConditionId{rail.get<std::int64_t>()});
        }
    }
    emit lensChanged();
    emit studyChanged();
    emit selectionChanged();
    emit shownRailsChanged();
    emit comparisonChanged();
    m_restoring = false;
    readStale();
}

} // namespace inchpeg::app
