// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/project_session.h"

#include "core/planning/planned_test.h"
#include "service/intake/intake_list.h"
#include "service/intake/study_from_files.h"
#include "service/local_day.h"

#include <QDateTime>
#include <QFileInfo>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr const char *kViewSetting = "view";
constexpr int kViewDelay_ms = 400;

} // namespace

ProjectSession::ProjectSession(QString who, std::function<std::string()> now)
    : m_who(std::move(who)), m_now(std::move(now))
{
    m_view.property = kUsualProperty;
    m_viewTimer.setSingleShot(true);
    m_viewTimer.setInterval(kViewDelay_ms);
    connect(&m_viewTimer, &QTimer::timeout, this, &ProjectSession::writeView);
    connect(&m_schedule, &ReadingSchedule::readingsChanged, this, &ProjectSession::readingsChanged);
    connect(&m_schedule, &ReadingSchedule::progressed, this, &ProjectSession::readingProgress);
    connect(&m_schedule, &ReadingSchedule::failed, this, [this](const Error &error) { tell(error); });
}

ProjectSession::~ProjectSession()
{
    try {
        closeProject();
    } catch (const std::exception &) {
        // Nobody is left to be told; every finished edit is on the disk already.
    }
}

/// Closes the project that was open once another is open. The same file again has to be closed first; where
/// it cannot be opened any more, everybody hears that it is gone.
Status ProjectSession::takeOver(const QString &path, Opening make)
{
    if (m_intake.isBusy())
        return Error{
            ErrorCode::Storage, "files are being brought in; open another project once they are", {}};
    if (isCompacting())
        return Error{ErrorCode::Storage, "the project is being compacted; open another once it is", {}};
    const bool isSame = m_open && m_open->isAt(path.toStdString());
    if (isSame)
        closeProject();
    const Status status = takeOther(path, make);
    if (!status && isSame)
        announceClosed();
    return status;
}

Status ProjectSession::takeOther(const QString &path, Opening make)
{
    Result<std::unique_ptr<OpenProject>> opened = make(path.toStdString(), {m_who.toStdString(), m_now});
    if (!opened)
        return opened.error();
    closeProject();
    m_open = std::move(*opened);
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
    if (const Status status = takeOver(path, &OpenProject::create); !status)
        return status;
    emit projectChanged();
    emit studiesChanged();
    emit studyChanged();
    return ok();
}

Status ProjectSession::openProject(const QString &path)
{
    const Status status = takeOver(path, &OpenProject::open);
    return status ? showOpened() : status;
}

Status ProjectSession::openForReading(const QString &path)
{
    const Status status = takeOver(path, &OpenProject::openForReading);
    return status ? showOpened() : status;
}

Status ProjectSession::showOpened()
{
    if (const Status status = listStudies(); !status) {
        closeProject();
        announceClosed();
        return status;
    }
    restoreView();
    emit projectChanged();
    if (m_open->trouble())
        emit failed(QString::fromStdString(m_open->trouble()->message));
    return ok();
}

void ProjectSession::closeProject()
{
    if (!m_open)
        return;
    m_schedule.stop();
    m_intake.stop();
    m_compacting.forget(); // it is told to nobody any more, and the file is wanted
    writeView();
    m_open.reset();
    m_studies.clear();
    m_study.reset();
    m_schedule.beginAnew();
    m_view.hiddenRails.clear();
    m_view.piece = {};
}

Status ProjectSession::compact(std::function<void(const Status &)> done)
{
    if (const Status status = mayChange(); !status)
        return status;
    if (m_intake.isBusy())
        return Error{ErrorCode::Storage, "files are being brought in; compact the project once they are", {}};
    m_schedule.stop();
    m_open->editor().refuse(
        Error{ErrorCode::Storage,
              "the project is being compacted: nothing was changed; do it again in a moment",
              {}});
    m_compacting.begin(
        "compacting",
        [path = project().path()] {
            Result<ProjectFile> project = ProjectFile::open(path);
            return project ? project->compact() : Status(project.error());
        },
        [this, done = std::move(done)](const Status &status) {
            m_open->editor().refuse(std::nullopt);
            if (status)
                m_open->editor().forgetSteps(); // a step back might want what is gone
            emit studyChanged();
            readStale();
            done(status);
        });
    return ok();
}

QString ProjectSession::projectPath() const
{
    return m_open ? QString::fromStdString(m_open->path()) : QString();
}

ProjectFile &ProjectSession::project()
{
    require(m_open != nullptr, "no project is open");
    return m_open->file();
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
    const Result<StudyEditor::Brought> brought = m_open->editor().hold(id);
    if (!brought)
        return brought.error();
    if (!brought->mended.empty()) {
        QStringList sentences;
        for (const std::string &sentence : brought->mended)
            sentences << QString::fromStdString(sentence);
        emit failed(tr("The study \"%1\" did not fit together and was put right: %2.")
                        .arg(QString::fromStdString(m_open->editor().held()->question),
                             sentences.join(QStringLiteral("; "))));
    }
    tell(brought->kept);
    m_schedule.beginAnew();
    takeHeld();
    m_view.hiddenRails.clear();
    selectFirstPiece();
    return ok();
}

void ProjectSession::selectFirstPiece()
{
    m_view.piece = m_study->pieces.empty() ? PieceId{} : m_study->pieces.front().id;
}

/// Puts the study that the editor has at hand in place of the one on the rack.
void ProjectSession::takeHeld()
{
    if (m_study) {
        if (m_studiesBefore.empty())
            QTimer::singleShot(0, this, [this] { m_studiesBefore.clear(); });
        m_studiesBefore.push_back(std::move(m_study));
    }
    m_study = m_open->editor().held();
    m_view.study = m_study->id;
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
    Study study;
    study.question = question.toStdString();
    study.factors.front().name = "material";
    if (const Status status = mayChange(); !status)
        return status;
    study.id = StudyId{project().takeId()};
    if (const Status status = m_open->editor().add(study); !status)
        return status;
    if (const Status status = listStudies(); !status)
        return status;
    setLens(Lens::Plan);
    return selectStudy(study.id);
}

Status ProjectSession::addFound(const FoundStudy &found, const QString &question)
{
    if (const Status status = mayChange(); !status)
        return status.error();
    const Result<MadeStudy> made = makeFoundStudy(*m_open, found, question.toStdString());
    if (!made)
        return made.error();
    if (const Status status = listStudies(); !status)
        return status;
    setLens(Lens::Compare);
    if (const Status status = selectStudy(made->study); !status)
        return status;
    if (const std::string &property = firstTest(*m_study).setup.property; !property.empty())
        setComparedProperty(QString::fromStdString(property));
    return ok();
}

/// After a step was taken or taken back and the history is in order.
void ProjectSession::announceStudy()
{
    takeHeld();
    if (findPiece(*m_study, m_view.piece) == nullptr)
        selectFirstPiece();
    listChangedStudy();
    // Begun before the views hear of the change: they need not work out what the next readings change again.
    const bool readingsWent = startReading();
    emit studyChanged();
    if (readingsWent)
        emit readingsChanged();
}

Status ProjectSession::edit(const QString &what, const std::function<Status(Study &)> &change)
{
    require(m_study != nullptr, "no study is on the rack");
    return editStudy(m_study->id, what, change);
}

Status ProjectSession::editStudy(StudyId id, const QString &what,
                                 const std::function<Status(Study &)> &change)
{
    const Result<Edited> edited = m_open->editor().edit(id, what.toStdString(), change);
    if (!edited || edited->isNothing())
        return edited ? ok() : Status(edited.error());
    if (m_study && m_study->id == id) {
        announceStudy();
        return ok();
    }
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

const Workshop &ProjectSession::workshop() const
{
    return m_open ? m_open->editor().workshop() : m_usualWorkshop;
}

/// Tells of a change of the workshop or of a kept text; true where it was not refused.
bool ProjectSession::tellOfEdit(const Result<Edited> &edited)
{
    if (!edited)
        return tell(edited.error());
    if (edited->isNothing())
        return true;
    if (edited->isWorkshop)
        emit workshopChanged();
    else
        emit keptTextChanged(QString::fromStdString(edited->text));
    emit studyChanged(); // what is planned hangs on the workshop; and what can be taken back is another
    if (edited->isWorkshop)
        readStale(); // how surely sizes are known
    return true;
}

bool ProjectSession::tryEditWorkshop(const QString &what, const std::function<Status(Workshop &)> &change)
{
    return tellOfEdit(m_open->editor().editWorkshop(what.toStdString(), change));
}

std::string ProjectSession::keptText(const std::string &name)
{
    return m_open ? m_open->editor().keptText(name) : std::string();
}

bool ProjectSession::tryKeepText(const QString &what, const std::string &name, const std::string &text)
{
    return tellOfEdit(m_open->editor().keepText(what.toStdString(), name, text));
}

QString ProjectSession::undoText() const
{
    return m_open ? QString::fromStdString(m_open->editor().undoText()) : QString();
}

QString ProjectSession::redoText() const
{
    return m_open ? QString::fromStdString(m_open->editor().redoText()) : QString();
}

Status ProjectSession::undo()
{
    return replayed(m_open->editor().undo());
}

Status ProjectSession::redo()
{
    return replayed(m_open->editor().redo());
}

/// After a step was taken back or forth: the person is led to what it changed.
Status ProjectSession::replayed(const Result<Edited> &edited)
{
    if (!edited)
        return edited.error();
    if (edited->study == StudyId{}) {
        tellOfEdit(edited);
        return ok();
    }
    if (m_study && m_study->id == edited->study) {
        announceStudy();
        return ok();
    }
    if (const Status status = listStudies(); !status)
        return status;
    return selectStudy(edited->study);
}

IdSource ProjectSession::ids()
{
    return [this] { return project().takeId(); };
}

Exclusion ProjectSession::exclusion(const QString &reason) const
{
    return {reason.toStdString(), m_who.toStdString(), m_now()};
}

Status ProjectSession::keepRawFiles(std::vector<RawFileToKeep> files, RawIntake::Done done)
{
    if (const Status status = mayChange(); !status)
        return status;
    if (const Status status = project().checkInPlace(); !status)
        return status;
    for (RawFileToKeep &file : files)
        file.id = RawFileId{project().takeId()};
    m_intake.keep(project().path(), std::move(files), std::move(done));
    return ok();
}

MeasuringGauges ProjectSession::measuringGauges() const
{
    return inchpeg::measuringGauges(m_study->log.measuring, workshop(), today());
}

std::optional<UsedGauge> ProjectSession::rigToday(const Study &study, Method test) const
{
    return rigOnDay(study, test, workshop(), today());
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
    return piece == nullptr ? std::nullopt : orderReading(*m_study, *piece, workshop());
}

void ProjectSession::readStale()
{
    if (startReading())
        emit readingsChanged();
}

bool ProjectSession::startReading()
{
    return m_study && m_schedule.update(project().path(), *m_study, workshop(), mayChange().has_value());
}

std::size_t ProjectSession::unreadCount() const
{
    return m_study ? m_schedule.unreadCount(*m_study) : 0;
}

void ProjectSession::setLens(Lens lens)
{
    if (m_view.lens == lens)
        return;
    m_view.lens = lens;
    emit lensChanged();
    keepView();
}

ConditionId ProjectSession::selectedRail() const
{
    const Piece *piece = m_study ? findPiece(*m_study, m_view.piece) : nullptr;
    return piece != nullptr ? piece->condition : ConditionId{};
}

void ProjectSession::selectPiece(PieceId piece)
{
    if (m_view.piece == piece)
        return;
    m_view.piece = piece;
    if (const Piece *selected = m_study && m_view.lens == Lens::Read ? findPiece(*m_study, piece) : nullptr)
        setShownTest(selected->test); // its curve is among those of its own test
    emit selectionChanged();
    keepView();
}

void ProjectSession::setRailShown(ConditionId rail, bool shown)
{
    if (isRailShown(rail) == shown)
        return;
    if (shown)
        m_view.hiddenRails.erase(rail);
    else
        m_view.hiddenRails.insert(rail);
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
        if (const Result<Property> chosen = findProperty(*reduction, m_view.property))
            return *chosen;
    }
    return usualProperty(*test);
}

QString ProjectSession::comparedProperty() const
{
    const std::optional<Property> property = shownProperty();
    return property ? QString::fromUtf8(property->name) : QString::fromStdString(m_view.property);
}

void ProjectSession::setComparedProperty(const QString &name)
{
    if (m_view.property == name.toStdString())
        return;
    m_view.property = name.toStdString();
    emit comparisonChanged();
    keepView();
}

void ProjectSession::setTestTableShown(bool shown)
{
    if (m_view.isTestTableShown == shown)
        return;
    m_view.isTestTableShown = shown;
    emit comparisonChanged();
    keepView();
}

void ProjectSession::setGraphShown(bool shown)
{
    if (m_view.isGraphShown == shown)
        return;
    m_view.isGraphShown = shown;
    emit comparisonChanged();
    keepView();
}

bool ProjectSession::isResponseTableShown() const
{
    return m_study && m_view.isResponseTableShown.value_or(m_study->tests.size() > 1);
}

void ProjectSession::setResponseTableShown(bool shown)
{
    if (isResponseTableShown() == shown)
        return;
    m_view.isResponseTableShown = shown;
    emit comparisonChanged();
    keepView();
}

/// Where the person is will be written down once the keys have come to rest: arrows along the pegs must not
/// wait for the disk at each step.
void ProjectSession::keepView()
{
    if (m_open && !m_restoring)
        m_viewTimer.start();
}

/// Writes down where the person is, so that the project opens there again.
void ProjectSession::writeView()
{
    m_viewTimer.stop();
    if (!mayChange())
        return;
    if (const Status status = project().setSetting(kViewSetting, rackStateText(m_view)); !status)
        emit failed(QString::fromStdString(status.error().message));
}

void ProjectSession::restoreView()
{
    m_restoring = true;
    RackState kept = rackStateFrom(keptText(kViewSetting));
    if (!m_studies.empty()) {
        const bool isKnown = std::any_of(m_studies.begin(), m_studies.end(),
                                         [&](const StudyHeader &header) { return header.id == kept.study; });
        if (const Status status = putOnRack(isKnown ? kept.study : m_studies.front().id); !status)
            emit failed(QString::fromStdString(status.error().message));
    }
    kept.study = m_study ? m_study->id : StudyId{};
    if (m_study == nullptr || findPiece(*m_study, kept.piece) == nullptr)
        kept.piece = m_view.piece;
    if (kept.property.empty())
        kept.property = m_view.property;
    m_view = std::move(kept);
    // First of all: what was worked out of the project before is looked at by nobody.
    emit studyChanged();
    emit lensChanged();
    emit selectionChanged();
    emit shownRailsChanged();
    emit comparisonChanged();
    m_restoring = false;
    readStale();
}

} // namespace inchpeg::app
