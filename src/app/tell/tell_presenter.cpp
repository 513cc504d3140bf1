// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/tell/tell_presenter.h"

#include "core/report/decision_report.h"
#include "core/report/html_report.h"
#include "core/report/result_card.h"
#include "report/drawing_painter.h"
#include "service/open_data.h"
#include "service/project_report.h"
#include "service/safe_name.h"

#include <QCoreApplication>
#include <QPainter>

namespace inchpeg::app
{

namespace
{

constexpr double kCardPage_mm = 240.0; ///< wide, as a card is looked at

bool isOfDecision(Telling what)
{
    return what == Telling::DecisionReport || what == Telling::DecisionCard;
}

Told failure(const Error &error)
{
    Told told;
    told.failure = QString::fromStdString(errorSentence(error));
    return told;
}

Told paged(Report report, Paper paper)
{
    Told told;
    told.report = std::make_shared<const Report>(std::move(report));
    told.layout = std::make_shared<const PagedReport>(*told.report, paper);
    told.page_mm = told.layout->pageSize_mm();
    told.pages = pagePictures(*told.layout);
    return told;
}

Told carded(Drawing drawing)
{
    Told told;
    told.page_mm = QSizeF(kCardPage_mm, kCardPage_mm * kCardHeight / kCardWidth);
    QPicture picture;
    QPainter painter(&picture);
    painter.scale(kCardPage_mm / kCardWidth, kCardPage_mm / kCardWidth);
    paintDrawing(painter, drawing);
    painter.end();
    told.pages.push_back(picture);
    told.drawing = std::move(drawing);
    return told;
}

} // namespace

/// Copies: the session goes on while they are worked with.
struct TellPresenter::Asked {
    Telling what = Telling::StudyReport;
    Paper paper = Paper::A4;
    std::string path;
    StudyId study;
    std::string version;
    std::string day;
    Notation notation;
    std::string money;
    std::optional<Decision> decision;
    std::optional<Method> test;       ///< that is shown
    std::optional<Property> property; ///< that is compared
};

Told TellPresenter::make(const Asked &asked)
{
    Result<ProjectFile> project = ProjectFile::openForReading(asked.path);
    if (!project)
        return failure(project.error());
    ReportOrigin origin = reportOrigin(*project, asked.version, asked.day);
    if (asked.what == Telling::DecisionReport)
        return paged(decisionReport(*asked.decision, origin, asked.notation, asked.money), asked.paper);
    if (asked.what == Telling::DecisionCard)
        return carded(decisionCard(*asked.decision, origin));
    if (asked.what == Telling::OpenData)
        return {};
    const Result<ProjectResults> all = asked.what == Telling::StudyReport
                                           ? readResultsAround(*project, asked.study, Keeping::No)
                                           : readStudyResults(*project, asked.study, Keeping::No);
    if (!all)
        return failure(all.error());
    if (asked.what == Telling::StudyReport) {
        Result<Report> report = reportOf(*project, *all, asked.study, std::move(origin), asked.notation);
        return report ? paged(std::move(*report), asked.paper) : failure(report.error());
    }
    const Result<StudyResults> study = all->of(asked.study);
    if (!study || !asked.property)
        return failure({ErrorCode::NotFound, "there is nothing to compare in this study yet", {}});
    const StudyComparison comparison =
        compareStudy(*study->study, *study->readings, *asked.property,
                     {.test = asked.test, .detail = ComparisonDetail::Sentences});
    return carded(resultCard(*study->study, comparison, origin, asked.notation));
}

TellPresenter::TellPresenter(ProjectSession &session, std::function<std::optional<Decision>()> decision,
                             QObject *parent)
    : QObject(parent), m_session(session), m_decision(std::move(decision))
{
    connect(&session, &ProjectSession::studyChanged, this, &TellPresenter::refresh);
    connect(&session, &ProjectSession::readingsChanged, this, &TellPresenter::refresh);
    connect(&session, &ProjectSession::workshopChanged, this, &TellPresenter::refresh);
    connect(&session, &ProjectSession::notationChanged, this, &TellPresenter::refresh);
    connect(&session, &ProjectSession::comparisonChanged, this, &TellPresenter::refresh);
    connect(&session, &ProjectSession::projectChanged, this, &TellPresenter::refresh);
    m_writing.onProgress([this](int done, int all) { emit progress(done, all); });
}

bool TellPresenter::canTell(Telling what) const
{
    if (!m_session.hasProject() || m_session.study() == nullptr)
        return false;
    return !isOfDecision(what) || m_decision().has_value();
}

void TellPresenter::choose(Telling what)
{
    m_what = what;
    refresh();
}

void TellPresenter::setPaper(Paper paper)
{
    m_paper = paper;
    refresh();
}

void TellPresenter::setWatched(bool watched)
{
    m_isWatched = watched;
    if (watched)
        refresh();
}

TellPresenter::Asked TellPresenter::ask() const
{
    return {m_what,
            m_paper,
            m_session.projectPath().toStdString(),
            m_session.study()->id,
            QCoreApplication::applicationVersion().toStdString(),
            m_session.today(),
            m_session.notation(),
            m_session.workshop().moneyUnit,
            isOfDecision(m_what) ? m_decision() : std::nullopt,
            m_session.shownTest(),
            m_session.shownProperty()};
}

void TellPresenter::refresh()
{
    if (!m_isWatched)
        return;
    m_isOutOfDate = m_making.isRunning();
    if (m_making.isRunning())
        return; // asked again when it is there
    if (!canTell(m_what)) {
        m_told = {};
        m_told.failure =
            isOfDecision(m_what)
                ? tr("No decision is worked out yet: say in Decide (Ctrl+6) what the part has to do.")
                : tr("No study is open.");
        emit changed();
        return;
    }
    m_making.begin(
        "report", [asked = ask()] { return make(asked); },
        [this](Result<Told> told) {
            m_told = told ? std::move(*told) : Told{};
            if (!told)
                m_told.failure = QString::fromStdString(told.error().message);
            emit changed();
            if (m_isOutOfDate)
                refresh();
        });
    emit changed();
}

QString TellPresenter::offeredName() const
{
    std::string name = m_session.study() != nullptr ? m_session.study()->question : std::string();
    if (isOfDecision(m_what)) {
        const std::optional<Decision> decision = m_decision();
        name = decision ? decision->needs.part : std::string();
    }
    return QString::fromStdString(safeFileName(name));
}

Status TellPresenter::writeTo(const std::string &path, const Asked &asked, const Told &told,
                              const TaskControl &control)
{
    if (asked.what == Telling::OpenData) {
        Result<ProjectFile> project = ProjectFile::openForReading(asked.path);
        if (!project)
            return project.error();
        const Result<OpenDataWritten> written =
            writeOpenData(*project, asked.study, path, reportOrigin(*project, asked.version, asked.day),
                          control.stop, [&](std::size_t done, std::size_t all) {
                              control.progress(static_cast<int>(done), static_cast<int>(all));
                          });
        return written ? ok() : Status(written.error());
    }
    if (told.report != nullptr)
        return writeReport(*told.report, *told.layout, path, control.stop, control.progress);
    return told.drawing.isEmpty() ? Status(Error{ErrorCode::NotFound, "there is nothing to write yet", {}})
                                  : writeDrawing(told.drawing, "Inch Peg", path);
}

void TellPresenter::write(const QString &path)
{
    if (isWriting() || path.isEmpty() || !canTell(m_what))
        return;
    m_writing.begin(
        "writing",
        [asked = ask(), told = m_told, to = path.toStdString()](const TaskControl &control) {
            return writeTo(to, asked, told, control);
        },
        [this, path](const Status &status) {
            emit progress(1, 1);
            if (status)
                emit written(path);
            else
                emit failed(QString::fromStdString(errorSentence(status.error())));
            emit changed();
        });
    emit changed();
}

QStringList TellPresenter::tables() const
{
    QStringList titles;
    if (m_told.report == nullptr)
        return titles;
    for (const ReportTable *table : tablesOf(*m_told.report))
        titles << QString::fromStdString(table->title);
    return titles;
}

TellPresenter::CopiedTable TellPresenter::table(std::size_t place) const
{
    const ReportTable &table = *tablesOf(*m_told.report).at(place);
    return {QString::fromStdString(tableText(table, m_session.notation().decimalMark())),
            QString::fromStdString(tableHtml(table))};
}

} // namespace inchpeg::app
