// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/begin/begin_presenter.h"
#include "app/bench/bench_presenter.h"
#include "app/compare/compare_strip.h"
#include "app/compare/test_table_model.h"
#include "app/decide/decide_presenter.h"
#include "app/export/picture.h"
#include "app/import/import_presenter.h"
#include "app/parts/prompts.h"
#include "app/plan/plan_presenter.h"
#include "app/practice/practice_presenter.h"
#include "app/read/read_presenter.h"
#include "app/session/due_watch.h"
#include "app/session/preferences.h"
#include "app/session/project_session.h"
#include "app/tell/tell_presenter.h"
#include "app/window/project_commands.h"

#include <QMainWindow>

class QMenu;
class QLineEdit;
class QSplitter;
class QStackedWidget;
class QTableView;

namespace inchpeg::app
{

class BeginWindow;
class FindBox;
class HelpWindow;
class ImportView;
class LensBar;
class LogView;
class NoticeBar;
class ProgressStrip;
class RackView;
class ResponseTable;
class BenchView;
class DecideView;
class GraphView;
class PlanView;
class PracticeWindow;
class ReadView;
class SettingsWindow;
class SummaryWindow;
class TellWindow;
class WelcomePage;
class WorkshopWindow;

/// The one window: shelf, question, lenses, rack.
class MainWindow : public QMainWindow
{
    Q_OBJECT
public:
    /// announcer: tells a person who looks elsewhere; nobody is told without one.
    MainWindow(ProjectSession &session, Preferences &preferences, Prompts &prompts,
               Announcer *announcer = nullptr, QWidget *parent = nullptr);
    ~MainWindow() override;

    [[nodiscard]] ImportPresenter &importPresenter() { return m_import; }
    [[nodiscard]] RackView &rack() { return *m_rack; }
    [[nodiscard]] QString notice() const; ///< the sentence on the notice bar, empty where there is none
    void showImport();
    /// The page that makes a study of what is there already.
    void showBegin();
    [[nodiscard]] BeginPresenter &begin() { return m_begin; }
    void showHelp(const QString &page);
    void showSettings();
    /// What is known of a rail without its pieces.
    void showSummaries();
    void showWorkshop();
    [[nodiscard]] BenchPresenter &bench() { return m_bench; }
    [[nodiscard]] PracticePresenter &practice() { return m_practice; }
    [[nodiscard]] DecidePresenter &decide() { return m_decide; }
    [[nodiscard]] TellPresenter &tell() { return m_tell; }
    [[nodiscard]] DueWatch &dueWatch() { return m_due; }
    [[nodiscard]] PlanView &planView() { return *m_planView; }
    [[nodiscard]] LogView &logView() { return *m_logView; }
    void openPath(const QString &path) { m_commands.openPath(path); }
    [[nodiscard]] ReadView &readView() { return *m_readView; }

protected:
    void closeEvent(QCloseEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;
    void dragEnterEvent(QDragEnterEvent *event) override;
    void dropEvent(QDropEvent *event) override;

private:
    void createActions();
    void createProjectMenu();
    void createHelpMenu();
    QWidget *createCentre();
    QWidget *createQuestionBar();
    void connectSession();
    void applyLens();
    void refreshProject();
    void refreshQuestion();
    void refreshUndo();
    void showCompared();
    void refreshCompare();
    void fitTestTable();
    void refreshRecent();
    void refreshReading();
    void wearNotation();
    void newProject();
    void newPractice();
    void showPractice();
    void tellOthers(Telling what);
    [[nodiscard]] Picture pictureOfLens() const;
    void savePictureOfLens();
    void bringInto(const QStringList &paths);
    void newStudy();
    void focusNextPart();

    ProjectSession &m_session;
    Preferences &m_preferences;
    Prompts &m_prompts;
    ProjectCommands m_commands;
    PlanPresenter m_plan;
    Announcer m_silence;
    BenchPresenter m_bench;
    DueWatch m_due;
    PracticePresenter m_practice;
    ReadPresenter m_read;
    DecidePresenter m_decide;
    TellPresenter m_tell;
    ImportPresenter m_import;
    BeginPresenter m_begin;
    TestTableModel m_tests;

    QWidget *m_shelf = nullptr;
    std::optional<bool> m_narrow;      ///< the width that the parts are laid out for
    QStackedWidget *m_pages = nullptr; ///< welcome or work
    QLineEdit *m_question = nullptr;
    FindBox *m_find = nullptr;
    LogView *m_logView = nullptr;
    LensBar *m_lensBar = nullptr;
    WelcomePage *m_welcome = nullptr;
    QMenu *m_recent = nullptr;
    ProgressStrip *m_progress = nullptr;
    SettingsWindow *m_settings = nullptr;
    SummaryWindow *m_summaries = nullptr;
    NoticeBar *m_notice = nullptr;
    CompareStrip *m_strip = nullptr;
    QSplitter *m_split = nullptr;
    ResponseTable *m_responses = nullptr;
    BenchView *m_benchView = nullptr;
    DecideView *m_decideView = nullptr;
    GraphView *m_graph = nullptr;
    RackView *m_rack = nullptr;
    QStackedWidget *m_lenses = nullptr;
    PlanView *m_planView = nullptr;
    WorkshopWindow *m_workshop = nullptr;
    PracticeWindow *m_practiceWindow = nullptr;
    BeginWindow *m_beginWindow = nullptr;
    TellWindow *m_tellWindow = nullptr;
    ImportView *m_importView = nullptr;
    ReadView *m_readView = nullptr;
    QTableView *m_testTable = nullptr;
    HelpWindow *m_help = nullptr;
    QAction *m_undo = nullptr;
    QAction *m_redo = nullptr;
    QAction *m_showTests = nullptr;
    QAction *m_showGraph = nullptr;
    QList<QAction *> m_studyActions;   ///< need a study on the rack
    QList<QAction *> m_projectActions; ///< need an open project
    QList<QAction *> m_editActions;    ///< need a study that may be changed
};

} // namespace inchpeg::app
