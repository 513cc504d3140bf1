// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/rack_state.h"
#include "core/compare/comparison.h"
#include "core/logbook/measuring.h"
#include "core/model/study_edit.h"
#include "core/planning/calendar.h"
#include "core/reading/piece_reading.h"
#include "core/text/notation.h"
#include "service/beside/task.h"
#include "service/project/open_project.h"
#include "service/project/raw_intake.h"
#include "service/project/reading_schedule.h"

#include <QObject>
#include <QString>
#include <QTimer>

#include <functional>
#include <memory>
#include <optional>
#include <set>

namespace inchpeg
{
struct FoundStudy;
}

namespace inchpeg::app
{

/// What the program knows while it runs: the open project, the study on the rack, its readings, and what is
/// selected. Views and presenters look at it and ask it for changes; it tells them by signals.
class ProjectSession : public QObject
{
    Q_OBJECT
public:
    /// who: the name kept with decisions. now: the time in ISO 8601, UTC.
    ProjectSession(QString who, std::function<std::string()> now);
    ~ProjectSession() override;

    Status createProject(const QString &path);
    Status openProject(const QString &path);
    /// Opens a project that another holds, or that may not be written: everything is shown, edits are
    /// refused.
    Status openForReading(const QString &path);
    void closeProject();
    [[nodiscard]] bool isForReading() const { return m_open && m_open->isForReading(); }
    /// Removes raw data that no piece refers to, in another thread; edits are refused until it is done. The
    /// steps that could be taken back are gone after that. done: called in this thread, unless the project is
    /// closed before. Errors: Storage where it cannot begin.
    Status compact(std::function<void(const Status &)> done);
    [[nodiscard]] bool isCompacting() const { return m_compacting.isRunning(); }
    [[nodiscard]] bool hasProject() const { return m_open != nullptr; }
    [[nodiscard]] QString projectPath() const;
    [[nodiscard]] ProjectFile &project();

    [[nodiscard]] const std::vector<StudyHeader> &studies() const { return m_studies; }
    [[nodiscard]] const Study *study() const { return m_study.get(); }
    Status selectStudy(StudyId id);
    /// Adds an empty study and puts it on the rack.
    Status addStudy(const QString &question);

    /// Makes a study of what was found, with its records or given values, and puts it on the rack, in
    /// Compare. Errors: those of makeFoundStudy().
    Status addFound(const FoundStudy &found, const QString &question);

    /// Changes the study, saves it, and keeps the step for undo. Nothing changes where change or saving
    /// fails.
    Status edit(const QString &what, const std::function<Status(Study &)> &change);
    /// The same of any study of the project; the one on the rack stays there.
    Status editStudy(StudyId id, const QString &what, const std::function<Status(Study &)> &change);
    /// The same as edit(); a refusal is told by failed().
    bool tryEdit(const QString &what, const std::function<Status(Study &)> &change);
    /// Rigs, printers, spools, hours: shared by all studies of the project.
    [[nodiscard]] const Workshop &workshop() const;
    /// Changes the workshop, keeps it in the project, and keeps the step for undo.
    bool tryEditWorkshop(const QString &what, const std::function<Status(Workshop &)> &change);
    /// A text that the project keeps under a name; empty where it keeps none.
    [[nodiscard]] std::string keptText(const std::string &name);
    /// Keeps another text in its place, and the step for undo; a refusal is told by failed().
    bool tryKeepText(const QString &what, const std::string &name, const std::string &text);
    /// Tells a refusal by failed(); true where there is none.
    bool tell(const Status &status);
    [[nodiscard]] QString undoText() const;
    [[nodiscard]] QString redoText() const;
    Status undo();
    Status redo();
    [[nodiscard]] IdSource ids();
    [[nodiscard]] const QString &who() const { return m_who; }
    [[nodiscard]] std::string now() const { return m_now(); } ///< ISO 8601, UTC
    [[nodiscard]] Exclusion exclusion(const QString &reason) const;
    /// The rig of a test as it is today, to be kept with its records; nothing where none is chosen.
    [[nodiscard]] std::optional<UsedGauge> rigToday(const Study &study, Method test) const;
    /// The study's callipers and scale as they are today, to be kept with readings.
    [[nodiscard]] MeasuringGauges measuringGauges() const;
    [[nodiscard]] Moment workshopTime() const; ///< now(), in the workshop's own time
    [[nodiscard]] std::string today() const;   ///< the workshop's own day, "2026-06-01"
    /// Puts a study on the rack and selects one of its pieces, where it has it.
    Status goTo(StudyId study, PieceId piece);
    /// Keeps files as raw data in another thread, then calls done in this one, while the same project is
    /// open. name and bytes or path of each are to be set. Errors: Storage where the project is open for
    /// reading.
    Status keepRawFiles(std::vector<RawFileToKeep> files, RawIntake::Done done);
    [[nodiscard]] RawIntake &rawIntake() { return m_intake; }
    [[nodiscard]] HandMarker handMarker(std::optional<double> at, const QString &reason) const;

    [[nodiscard]] const PieceReadings &readings() const { return m_schedule.readings(); }
    [[nodiscard]] bool isReading() const { return m_schedule.isReading(); }
    /// Stops reading; what was read stays, the rest waits for readTheRest().
    void cancelReading() { m_schedule.cancel(); }
    [[nodiscard]] std::size_t unreadCount() const; ///< records that wait, while nothing is being read
    void readTheRest() { readStale(); }
    /// What it takes to read a piece's whole record; nothing without one.
    [[nodiscard]] std::optional<OrderedReading> readingOrder(PieceId piece) const;

    /// How values are shown to this person.
    [[nodiscard]] const Notation &notation() const { return m_notation; }
    void setNotation(const Notation &notation);

    [[nodiscard]] Lens lens() const { return m_view.lens; }
    void setLens(Lens lens);
    [[nodiscard]] PieceId selectedPiece() const { return m_view.piece; }
    [[nodiscard]] ConditionId selectedRail() const;
    void selectPiece(PieceId piece);
    [[nodiscard]] bool isRailShown(ConditionId rail) const { return !m_view.hiddenRails.contains(rail); }
    void setRailShown(ConditionId rail, bool shown);
    /// The test whose results are shown, the study's first until another is chosen; nothing without a study.
    [[nodiscard]] std::optional<Method> shownTest() const;
    void setShownTest(Method test);
    /// The property of the shown test that is compared: the chosen one, or the usual one of the test. Nothing
    /// without a study.
    [[nodiscard]] std::optional<Property> shownProperty() const;
    [[nodiscard]] QString comparedProperty() const; ///< its name
    void setComparedProperty(const QString &name);
    [[nodiscard]] bool isTestTableShown() const { return m_view.isTestTableShown; }
    void setTestTableShown(bool shown);
    /// Whether all responses are compared at once: what a study of several tests opens with.
    [[nodiscard]] bool isGraphShown() const { return m_view.isGraphShown; }
    void setGraphShown(bool shown);
    [[nodiscard]] bool isResponseTableShown() const;
    void setResponseTableShown(bool shown);

signals:
    void projectChanged();
    void studiesChanged();
    void studyChanged();
    /// A study that is not on the rack.
    void otherStudyChanged(inchpeg::StudyId id);
    void workshopChanged();
    void keptTextChanged(const QString &name);
    void readingsChanged();
    void readingProgress(int done, int all);
    void notationChanged();
    void selectionChanged();
    void shownRailsChanged();
    void lensChanged();
    void comparisonChanged();
    /// A sentence about something that failed outside an edit.
    void failed(const QString &sentence);

private:
    using Opening = Result<std::unique_ptr<OpenProject>> (*)(const std::string &path, Person person);
    Status takeOver(const QString &path, Opening make);
    Status takeOther(const QString &path, Opening make);
    [[nodiscard]] Status mayChange() const { return m_open->editor().mayChange(); }
    Status showOpened();
    void announceClosed();
    Status putOnRack(StudyId id);
    void takeHeld();
    void selectFirstPiece();
    bool tellOfEdit(const Result<Edited> &edited);
    Status replayed(const Result<Edited> &edited);
    void announceStudy();
    Status listStudies();
    void listChangedStudy();
    void readStale();
    bool startReading();
    void keepView();
    void writeView();
    void restoreView();

    QString m_who;
    std::function<std::string()> m_now;
    std::unique_ptr<OpenProject> m_open;
    std::vector<StudyHeader> m_studies;
    std::shared_ptr<const Study> m_study; ///< on the rack: the editor's at hand
    /// The study before the last changes, until the event loop is back: a view that is being refreshed may
    /// still look at a piece of it when a field that it hides hands over its text.
    std::vector<std::shared_ptr<const Study>> m_studiesBefore;
    Workshop m_usualWorkshop = usualWorkshop(); ///< while no project is open
    RawIntake m_intake;
    ReadingSchedule m_schedule;
    Task<Status> m_compacting;

    Notation m_notation;
    RackState m_view; ///< its study is that on the rack
    std::optional<Method> m_shownTest;
    bool m_restoring = false;
    QTimer m_viewTimer;
};

} // namespace inchpeg::app
