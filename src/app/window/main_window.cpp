// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/window/main_window.h"

#include "app/begin/begin_window.h"
#include "app/bench/bench_view.h"
#include "app/compare/graph_view.h"
#include "app/compare/response_table.h"
#include "app/decide/decide_view.h"
#include "app/export/picture.h"
#include "app/find/find_box.h"
#include "app/help/help_window.h"
#include "app/import/import_view.h"
#include "app/log/log_view.h"
#include "app/parts/form_parts.h"
#include "app/plan/plan_view.h"
#include "app/plan/summary_window.h"
#include "app/practice/practice_window.h"
#include "app/rack/rack_view.h"
#include "app/read/read_view.h"
#include "app/settings/settings_window.h"
#include "app/shelf/shelf_view.h"
#include "app/tell/tell_window.h"
#include "app/theme/plain_texts.h"
#include "app/theme/theme.h"
#include "app/window/lens_bar.h"
#include "app/window/notice_bar.h"
#include "app/window/progress_strip.h"
#include "app/window/welcome_page.h"
#include "app/workshop/workshop_window.h"
#include "core/compare/values_text.h"
#include "core/logbook/result_cautions.h"

#include <QApplication>
#include <QDialog>
#include <QDragEnterEvent>
#include <QFileInfo>
#include <QHeaderView>
#include <QMenu>
#include <QMimeData>
#include <QRandomGenerator>
#include <QScrollBar>
#include <QSplitter>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr int kShelfWidth = 196;
constexpr int kRackWidth = 380;
/// Below this width of the window, shelf and rack give way to the lens.
constexpr int kNarrow = 1150;
constexpr int kNarrowShelf = 150;
constexpr int kNarrowRack = 270;
constexpr int kTallestTestTable = 260;
constexpr int kFindWidth = 170;

void bringUp(QWidget &window)
{
    window.show();
    window.raise();
    window.activateWindow();
}

} // namespace

MainWindow::MainWindow(ProjectSession &session, Preferences &preferences, Prompts &prompts,
                       Announcer *announcer, QWidget *parent)
    : QMainWindow(parent), m_session(session), m_preferences(preferences), m_prompts(prompts),
      m_commands(session, preferences, prompts, *this), m_plan(session),
      m_bench(session, m_plan.state(), announcer != nullptr ? *announcer : m_silence),
      m_due(session, m_plan.state(), announcer != nullptr ? *announcer : m_silence),
      m_practice(session, m_plan.state()), m_read(session), m_decide(session),
      m_tell(session, [this] { return m_decide.made(); }), m_import(session), m_begin(session),
      m_tests(session)
{
    setObjectName(QStringLiteral("mainWindow"));
    setAcceptDrops(true);
    resize(1280, 800);
    setMinimumSize(900, 560);
    auto *shelf = new ShelfView(session, m_plan.state(), m_due);
    m_shelf = shelf;
    connect(shelf, &ShelfView::newStudyRequested, this, &MainWindow::newStudy);
    connect(shelf, &ShelfView::dueChosen, this, [this](StudyId study, PieceId piece) {
        if (!m_session.tell(m_session.goTo(study, piece)))
            return;
        if (const Piece *due = findPiece(*m_session.study(), piece))
            m_session.setShownTest(due->test);
        m_session.setLens(Lens::Bench);
    });
    auto *work = new QWidget;
    auto *workLayout = new QHBoxLayout(work);
    workLayout->setContentsMargins(0, 0, 0, 0);
    workLayout->setSpacing(0);
    workLayout->addWidget(m_shelf);
    workLayout->addWidget(createCentre(), 1);
    m_pages = new QStackedWidget;
    m_welcome = new WelcomePage;
    connect(m_welcome, &WelcomePage::newRequested, this, &MainWindow::newProject);
    connect(m_welcome, &WelcomePage::beginRequested, this, &MainWindow::showBegin);
    connect(m_welcome, &WelcomePage::openRequested, &m_commands, &ProjectCommands::open);
    connect(m_welcome, &WelcomePage::demoRequested, &m_commands, &ProjectCommands::openDemo);
    connect(m_welcome, &WelcomePage::recentRequested, &m_commands, &ProjectCommands::openPath);
    m_pages->addWidget(m_welcome);
    m_pages->addWidget(work);
    m_notice = new NoticeBar;
    m_progress = new ProgressStrip;
    connect(m_progress, &ProgressStrip::cancelled, this, [this] {
        m_session.cancelReading();
        m_commands.cancelExport();
    });
    auto *whole = new QWidget;
    auto *layout = new QVBoxLayout(whole);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    layout->addWidget(m_pages, 1);
    layout->addWidget(m_progress);
    layout->addWidget(m_notice);
    setCentralWidget(whole);
    createActions();
    connectSession();
    wearNotation();
    refreshRecent();
    refreshProject();
    applyLens();
}

MainWindow::~MainWindow()
{
    // A field that is being typed in hands over its text when it loses the focus; what it calls must still be
    // there. The windows that belong to this one come first: hiding this one leaves them open.
    for (QDialog *window : findChildren<QDialog *>(Qt::FindDirectChildrenOnly))
        window->hide();
    hide();
    m_session.disconnect(this);
}

QWidget *MainWindow::createCentre()
{
    m_rack = new RackView(m_session, m_plan.state());
    m_logView = new LogView(m_session, m_plan.state(), m_prompts);
    connect(m_logView, &LogView::importRequested, this, &MainWindow::showImport);
    m_readView = new ReadView(m_session, m_read);
    m_importView = new ImportView(m_session, m_import, m_prompts);
    m_lenses = new QStackedWidget;
    m_planView = new PlanView(m_plan, m_prompts);
    connect(m_planView, &PlanView::workshopRequested, this, &MainWindow::showWorkshop);
    m_lenses->addWidget(m_planView);
    m_lenses->addWidget(m_logView);
    m_benchView = new BenchView(m_session, m_bench, m_practice, m_prompts);
    m_lenses->addWidget(m_benchView);
    m_lenses->addWidget(m_readView);
    m_lenses->addWidget(m_importView);
    m_decideView = new DecideView(m_session, m_decide);
    m_lenses->addWidget(m_decideView);
    connect(m_decideView, &DecideView::tellRequested, this, [this] { tellOthers(Telling::DecisionReport); });
    connect(m_benchView, &BenchView::verdictRequested, this, &MainWindow::showPractice);
    connect(m_importView, &ImportView::closed, this, &MainWindow::applyLens);
    connect(m_rack, &RackView::opened, this, [this] { m_session.setLens(Lens::Read); });
    connect(m_rack, &RackView::fileDropped, this,
            [this](int file, PieceId piece) { m_import.assign(static_cast<std::size_t>(file), piece); });
    m_split = new QSplitter;
    m_split->setChildrenCollapsible(false);
    m_split->addWidget(m_rack);
    m_split->addWidget(m_lenses);
    m_split->setStretchFactor(0, 0);
    m_split->setStretchFactor(1, 1);
    m_rack->setMinimumWidth(230);
    m_strip = new CompareStrip(m_session);
    connect(m_strip, &CompareStrip::averagesChanged, m_rack, &RackView::setAverages);
    m_testTable = createTestTable(m_tests);
    connect(&m_tests, &QAbstractItemModel::modelReset, this, &MainWindow::fitTestTable);
    auto *centre = new QWidget;
    auto *layout = new QVBoxLayout(centre);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    layout->addWidget(createQuestionBar());
    m_lensBar = new LensBar(m_session);
    connect(m_lensBar, &LensBar::chosen, this, &MainWindow::applyLens); // also leaves the import page
    layout->addWidget(m_lensBar);
    layout->addWidget(m_strip);
    layout->addWidget(m_split, 1);
    m_responses = new ResponseTable(m_session);
    connect(m_responses, &ResponseTable::refreshed, this, &MainWindow::refreshCompare);
    layout->addWidget(m_responses, 1);
    layout->addWidget(m_testTable);
    m_graph = new GraphView(m_session);
    layout->addWidget(m_graph);
    return centre;
}

QWidget *MainWindow::createQuestionBar()
{
    m_question = lineEdit("question", tr("The question of this study"),
                          tr("What do you want to know? Write it as a question."));
    QFont font = m_question->font();
    font.setPointSizeF(font.pointSizeF() * 1.45);
    font.setWeight(QFont::DemiBold);
    m_question->setFont(font);
    // The theme's own least height is that of small text.
    m_question->setStyleSheet(
        QStringLiteral("QLineEdit { min-height: %1px; } "
                       "QLineEdit:!focus { border-color: transparent; background: transparent; }")
            .arg(QFontMetrics(font).height() + 1));
    connect(m_question, &QLineEdit::editingFinished, this, [this] {
        if (m_question->isModified() && m_session.study() != nullptr &&
            !m_plan.setQuestion(m_question->text()))
            m_question->setModified(false);
        refreshQuestion();
    });
    connect(m_question, &QLineEdit::returnPressed, this, [this] { m_planView->goOnAfterQuestion(); });
    auto *bar = new QWidget;
    auto *layout = new QHBoxLayout(bar);
    layout->setContentsMargins(12, 10, 12, 2);
    layout->addWidget(m_question, 1);
    m_find = new FindBox(m_session);
    m_find->setFixedWidth(kFindWidth);
    layout->addWidget(m_find);
    connect(m_find, &FindBox::materialChosen, this, &MainWindow::showWorkshop);
    connect(m_find, &FindBox::opened, this, [this] {
        applyLens();
        m_rack->setFocus(Qt::OtherFocusReason);
    });
    return bar;
}

void MainWindow::connectSession()
{
    connect(&m_session, &ProjectSession::projectChanged, this, &MainWindow::refreshProject);
    connect(&m_session, &ProjectSession::studyChanged, this, [this] {
        refreshQuestion();
        refreshUndo();
        refreshProject();
        showCompared();
    });
    connect(&m_session, &ProjectSession::lensChanged, this, &MainWindow::applyLens);
    connect(&m_session, &ProjectSession::readingsChanged, this, &MainWindow::refreshReading);
    connect(&m_session, &ProjectSession::notationChanged, this, &MainWindow::refreshCompare);
    connect(&m_session, &ProjectSession::readingProgress, this,
            [this](int done, int all) { m_progress->tell(tr("Reading records"), done, all); });
    connect(&m_preferences, &Preferences::notationChanged, this, &MainWindow::wearNotation);
    connect(&m_preferences, &Preferences::looksChanged, this, [this] {
        wearTheme(*qApp, m_preferences.isDark() ? workshopTheme() : paperTheme(), m_preferences.fontSize());
        update();
    });
    connect(&m_preferences, &Preferences::recentProjectsChanged, this, &MainWindow::refreshRecent);
    connect(&m_commands, &ProjectCommands::told, m_notice, &NoticeBar::tell);
    connect(&m_commands, &ProjectCommands::offered, m_notice, &NoticeBar::offer);
    connect(&m_commands, &ProjectCommands::exportProgress, this,
            [this](int done, int all) { m_progress->tell(tr("Exporting"), done, all); });
    connect(&m_session, &ProjectSession::comparisonChanged, this, &MainWindow::applyLens);
    connect(&m_session, &ProjectSession::failed, m_notice, &NoticeBar::tell);
    connect(&m_import, &ImportPresenter::givenBeside, m_notice, &NoticeBar::tell);
}

void MainWindow::applyLens()
{
    const bool hasStudy = m_session.study() != nullptr;
    const Lens lens = m_session.lens();
    const bool comparing = lens == Lens::Compare && hasStudy;
    m_lenses->setVisible(!comparing);
    m_rack->setVisible(lens != Lens::Decide || !hasStudy); // there the candidates are the rails
    if (!comparing)
        m_lenses->setCurrentIndex(static_cast<int>(lens));
    m_lensBar->refresh();
    showCompared();
}

/// One response on the rails, or all of them in a table.
void MainWindow::showCompared()
{
    const bool comparing = m_session.lens() == Lens::Compare && m_session.study() != nullptr;
    const bool all = comparing && m_session.isResponseTableShown();
    const bool hadKeyboard = m_responses->hasFocus();
    m_strip->setVisible(comparing);
    m_responses->setVisible(all);
    m_split->setVisible(!all);
    if (hadKeyboard && !all)
        m_rack->setFocus(Qt::OtherFocusReason);
    m_testTable->setVisible(comparing && !all && m_session.isTestTableShown());
    m_showTests->setChecked(m_session.isTestTableShown());
    m_showTests->setEnabled(comparing && !all);
    m_graph->setVisible(comparing && !all && m_session.isGraphShown());
    m_showGraph->setChecked(m_session.isGraphShown());
    m_showGraph->setEnabled(comparing && !all);
    refreshCompare();
}

void MainWindow::fitTestTable()
{
    int height = m_testTable->horizontalHeader()->sizeHint().height() + 4;
    for (int row = 0; row < m_tests.rowCount(); ++row)
        height += m_testTable->rowHeight(row);
    if (m_testTable->horizontalHeader()->length() > m_testTable->width())
        height += m_testTable->horizontalScrollBar()->sizeHint().height();
    m_testTable->setFixedHeight(std::min(height, kTallestTestTable));
}

void MainWindow::refreshCompare()
{
    m_strip->setHeadline(m_session.isReading()              ? tr("Reading the records…")
                         : m_session.isResponseTableShown() ? m_responses->headline()
                                                            : m_rack->model().headline);
    m_strip->setProcedure(m_rack->model().procedure);
    m_strip->askForAnswers();
    m_graph->presenter().refresh();
    QStringList cautions;
    if (m_session.study() != nullptr && m_session.lens() == Lens::Compare) {
        for (const std::string &caution :
             resultCautions(*m_session.study(), m_session.workshop(), &m_session.readings()))
            cautions << QString::fromStdString(caution);
    }
    m_strip->setCautions(cautions);
}

void MainWindow::refreshProject()
{
    const bool open = m_session.hasProject();
    const bool hasStudy = m_session.study() != nullptr;
    m_pages->setCurrentIndex(open ? 1 : 0);
    for (QAction *action : m_projectActions)
        action->setEnabled(open);
    const bool mayChange = open && !m_session.isForReading();
    for (QAction *action : m_studyActions)
        action->setEnabled(hasStudy);
    for (QAction *action : m_editActions)
        action->setEnabled(hasStudy && mayChange);
    m_lensBar->refresh();
    m_question->setEnabled(hasStudy && mayChange);
    m_split->setEnabled(hasStudy);
    const QString name = QFileInfo(m_session.projectPath()).completeBaseName();
    setWindowTitle(!open                      ? tr("Inch Peg")
                   : m_session.isForReading() ? tr("%1 (for reading) – Inch Peg").arg(name)
                                              : tr("%1 – Inch Peg").arg(name));
    refreshQuestion();
    refreshUndo();
}

void MainWindow::refreshQuestion()
{
    if (m_question->hasFocus() && m_question->isModified())
        return;
    m_question->setText(m_session.study() != nullptr ? QString::fromStdString(m_session.study()->question)
                                                     : QString());
    m_question->setCursorPosition(0);
    m_question->setPlaceholderText(m_session.study() != nullptr
                                       ? tr("What do you want to know? Write it as a question.")
                                       : tr("Make a study on the shelf to begin."));
}

void MainWindow::refreshUndo()
{
    const auto dress = [](QAction *action, const QString &verb, const QString &what) {
        action->setText(what.isEmpty() ? verb : QStringLiteral("%1: %2").arg(verb, what));
        action->setEnabled(!what.isEmpty());
    };
    dress(m_undo, tr("Undo"), m_session.undoText());
    dress(m_redo, tr("Redo"), m_session.redoText());
}

void MainWindow::newProject()
{
    if (m_commands.makeNew())
        newStudy();
}

void MainWindow::refreshRecent()
{
    m_recent->clear();
    const QStringList paths = m_preferences.recentProjects();
    for (const QString &path : paths)
        m_recent->addAction(withoutKeyMarks(path), this, [this, path] { m_commands.openPath(path); });
    m_recent->setEnabled(!paths.isEmpty());
    m_welcome->setRecent(paths);
}

/// Reading has come to an end, or was stopped.
void MainWindow::refreshReading()
{
    m_progress->finish();
    refreshCompare();
    if (const std::size_t unread = m_session.unreadCount(); unread > 0)
        m_notice->offer(tr("Reading was stopped: %1 records are not read yet.").arg(unread),
                        tr("Read the rest"), [this] { m_session.readTheRest(); });
}

void MainWindow::wearNotation()
{
    const Notation notation = m_preferences.notation();
    // The fields of numbers and the axes of the plot take their decimal mark from the window's region.
    QLocale region =
        notation.decimalMark() == ',' ? QLocale(QLocale::German, QLocale::Germany) : QLocale::c();
    region.setNumberOptions(QLocale::OmitGroupSeparator);
    setLocale(region);
    m_session.setNotation(notation);
}

void MainWindow::showSettings()
{
    if (m_settings == nullptr)
        m_settings = new SettingsWindow(m_preferences, m_prompts, this);
    bringUp(*m_settings);
}

void MainWindow::showSummaries()
{
    if (m_summaries == nullptr)
        m_summaries = new SummaryWindow(m_session, this);
    bringUp(*m_summaries);
    m_summaries->start();
}

void MainWindow::newPractice()
{
    if (m_commands.makeNew())
        m_session.tell(m_practice.begin(QRandomGenerator::global()->generate64() >> 16));
}

void MainWindow::showPractice()
{
    if (m_practiceWindow == nullptr)
        m_practiceWindow = new PracticeWindow(m_practice, this);
    bringUp(*m_practiceWindow);
}

void MainWindow::tellOthers(Telling what)
{
    if (m_tellWindow == nullptr)
        m_tellWindow = new TellWindow(m_tell, m_prompts, this);
    m_tellWindow->choose(what);
    bringUp(*m_tellWindow);
}

void MainWindow::showWorkshop()
{
    if (m_workshop == nullptr)
        m_workshop = new WorkshopWindow(m_session, m_prompts, this);
    bringUp(*m_workshop);
}

/// The values of the shown property over the rails; empty without a study or a property.
static QString railsText(const ProjectSession &session)
{
    const std::optional<Property> property = session.shownProperty();
    if (session.study() == nullptr || !property)
        return {};
    return QString::fromStdString(valuesText(
        *session.study(),
        compareStudy(*session.study(), session.readings(), *property, {.test = session.shownTest()}),
        session.notation()));
}

/// The plot in the Read lens, in Compare the graph where it is shown, else the rails.
Picture MainWindow::pictureOfLens() const
{
    if (m_session.lens() == Lens::Read)
        return {m_readView->plotSize(),
                [this](QPainter &painter) { m_readView->paintPlot(painter, m_readView->plotSize()); },
                [this] { return m_readView->plotText(); }};
    if (m_graph->isVisible())
        return {m_graph->plot().size(),
                [this](QPainter &painter) { m_graph->plot().paintGraph(painter, m_graph->plot().size()); },
                [this] { return m_graph->presenter().text(); }};
    if (m_responses->isVisible())
        return {m_responses->wholeSize(), [this](QPainter &painter) { m_responses->paintWhole(painter); },
                [this] {
                    return QString::fromStdString(
                        responsesText(*m_session.study(), m_responses->columns(), m_session.notation()));
                }};
    return {m_rack->wholeSize(), [this](QPainter &painter) { m_rack->paintWhole(painter); },
            [this] { return railsText(m_session); }};
}

void MainWindow::savePictureOfLens()
{
    const QString path = m_prompts.picturePath(this);
    if (!path.isEmpty())
        m_session.tell(savePicture(path, pictureOfLens()));
}

void MainWindow::newStudy()
{
    if (!m_session.tell(m_session.addStudy(tr("What do I want to know?"))))
        return;
    applyLens();
    m_question->setFocus();
    m_question->selectAll();
}

void MainWindow::showImport()
{
    if (m_import.entries().empty() && !m_import.isLoading())
        m_import.setTest(m_session.shownTest());
    m_session.setLens(Lens::Log);
    m_lenses->setCurrentWidget(m_importView);
    if (m_import.entries().empty() && !m_import.isLoading() && isVisible())
        m_importView->chooseFiles();
}

QString MainWindow::notice() const
{
    return m_notice->text();
}

void MainWindow::showHelp(const QString &page)
{
    if (m_help == nullptr)
        m_help = new HelpWindow(this);
    m_help->showPage(page);
}

void MainWindow::focusNextPart()
{
    const QList<QWidget *> parts{findChild<QWidget *>(QStringLiteral("studyList")),
                                 m_responses->isVisible() ? static_cast<QWidget *>(m_responses) : m_rack,
                                 m_lenses->isVisible() ? m_lenses->currentWidget()
                                                       : static_cast<QWidget *>(m_strip)};
    QWidget *focus = QApplication::focusWidget();
    for (int i = 0; i < parts.size(); ++i) {
        if (focus == parts[i] || (focus != nullptr && parts[i]->isAncestorOf(focus))) {
            QWidget *next = parts[(i + 1) % parts.size()];
            next->setFocus(Qt::ShortcutFocusReason);
            if (next->focusPolicy() == Qt::NoFocus && next->nextInFocusChain() != nullptr)
                next->nextInFocusChain()->setFocus(Qt::TabFocusReason);
            return;
        }
    }
    m_rack->setFocus(Qt::ShortcutFocusReason);
}

void MainWindow::resizeEvent(QResizeEvent *event)
{
    QMainWindow::resizeEvent(event);
    const bool narrow = width() < kNarrow;
    if (m_narrow != narrow) { // a splitter that was moved by hand stays as long as the window does
        m_narrow = narrow;
        m_shelf->setFixedWidth(narrow ? kNarrowShelf : kShelfWidth);
        const int rack = narrow ? kNarrowRack : kRackWidth;
        m_split->setSizes({rack, width() - m_shelf->maximumWidth() - rack});
    }
}

/// Files that are on their way into the project come in first; the window closes by itself after that.
void MainWindow::closeEvent(QCloseEvent *event)
{
    RawIntake &intake = m_session.rawIntake();
    if (!intake.isBusy()) {
        QMainWindow::closeEvent(event);
        return;
    }
    event->ignore();
    m_notice->tell(tr("Files are still being kept in the project; the window closes once they are."));
    connect(
        &intake, &RawIntake::busyChanged, this, [this] { close(); },
        Qt::ConnectionType(Qt::QueuedConnection | Qt::SingleShotConnection));
}

void MainWindow::dragEnterEvent(QDragEnterEvent *event)
{
    if (event->mimeData()->hasUrls())
        event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent *event)
{
    QStringList paths;
    for (const QUrl &url : event->mimeData()->urls()) {
        if (url.isLocalFile())
            paths << url.toLocalFile();
    }
    if (paths.isEmpty())
        return;
    event->acceptProposedAction();
    bringInto(paths);
}

void MainWindow::showBegin()
{
    if (m_beginWindow == nullptr) {
        m_beginWindow = new BeginWindow(
            m_begin, m_prompts, [this] { return m_session.hasProject() || m_commands.makeNew(); }, this);
        connect(m_beginWindow, &BeginWindow::made, this, &MainWindow::applyLens);
    }
    bringUp(*m_beginWindow);
}

/// Dropped files: a project is opened; records for a study that has pieces go to its import page; where there
/// is none, they make one.
void MainWindow::bringInto(const QStringList &paths)
{
    if (paths.size() == 1 && paths.front().endsWith(QStringLiteral(".inchpeg"))) {
        m_commands.openPath(paths.front());
        return;
    }
    const Study *study = m_session.study();
    if (study == nullptr || study->pieces.empty()) {
        showBegin();
        m_begin.lookAt(paths);
        return;
    }
    if (m_import.entries().empty())
        m_import.setTest(m_session.shownTest());
    m_import.addPaths(paths);
    m_session.setLens(Lens::Log);
    m_lenses->setCurrentWidget(m_importView);
}

} // namespace inchpeg::app
