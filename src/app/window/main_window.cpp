// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/window/main_window.h"

#include "app/export/picture.h"
#include "app/help/help_window.h"
#include "app/import/import_view.h"
#include "app/log/log_view.h"
#include "app/plan/plan_view.h"
#include "app/rack/rack_view.h"
#include "app/read/read_view.h"
#include "app/shelf/shelf_view.h"
#include "app/theme/theme.h"
#include "app/window/form_parts.h"
#include "app/window/notice_bar.h"
#include "app/window/welcome_page.h"
#include "service/demo_project.h"

#include <QApplication>
#include <QButtonGroup>
#include <QDir>
#include <QDragEnterEvent>
#include <QFileInfo>
#include <QHeaderView>
#include <QKeyEvent>
#include <QMenuBar>
#include <QMimeData>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QStandardPaths>
#include <QTableView>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr Lens kLenses[] = {Lens::Plan, Lens::Log, Lens::Read, Lens::Compare};
constexpr int kShelfWidth = 196;
constexpr int kRackWidth = 395;
/// Below this width of the window, shelf and rack give way to the lens.
constexpr int kNarrow = 1150;
constexpr int kNarrowShelf = 150;
constexpr int kNarrowRack = 270;
constexpr int kTabPadding = 34;
constexpr int kTallestTestTable = 260;

QString lensTitle(Lens lens)
{
    switch (lens) {
    case Lens::Plan:
        return MainWindow::tr("Ask && plan");
    case Lens::Log:
        return MainWindow::tr("Log");
    case Lens::Read:
        return MainWindow::tr("Read");
    case Lens::Compare:
        return MainWindow::tr("Compare");
    }
    throw ContractViolation("unknown lens");
}

} // namespace

MainWindow::MainWindow(ProjectSession &session, Prompts &prompts, QWidget *parent)
    : QMainWindow(parent), m_session(session), m_prompts(prompts), m_plan(session), m_read(session),
      m_import(session), m_tests(session)
{
    setObjectName(QStringLiteral("mainWindow"));
    setAcceptDrops(true);
    resize(1280, 800);
    setMinimumSize(900, 560);
    auto *shelf = new ShelfView(session);
    m_shelf = shelf;
    connect(shelf, &ShelfView::newStudyRequested, this, &MainWindow::newStudy);
    auto *work = new QWidget;
    auto *workLayout = new QHBoxLayout(work);
    workLayout->setContentsMargins(0, 0, 0, 0);
    workLayout->setSpacing(0);
    workLayout->addWidget(m_shelf);
    workLayout->addWidget(createCentre(), 1);
    m_pages = new QStackedWidget;
    auto *welcome = new WelcomePage;
    connect(welcome, &WelcomePage::newRequested, this, &MainWindow::newProject);
    connect(welcome, &WelcomePage::openRequested, this, &MainWindow::openProject);
    connect(welcome, &WelcomePage::demoRequested, this, &MainWindow::openDemo);
    m_pages->addWidget(welcome);
    m_pages->addWidget(work);
    m_notice = new NoticeBar;
    auto *whole = new QWidget;
    auto *layout = new QVBoxLayout(whole);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    layout->addWidget(m_pages, 1);
    layout->addWidget(m_notice);
    setCentralWidget(whole);
    createActions();
    connectSession();
    refreshProject();
    applyLens();
}

MainWindow::~MainWindow()
{
    // A field that is being typed in hands over its text when it loses the focus; what it calls must still be
    // there.
    hide();
    m_session.disconnect(this);
}

QWidget *MainWindow::createCentre()
{
    m_rack = new RackView(m_session);
    auto *log = new LogView(m_session);
    connect(log, &LogView::importRequested, this, &MainWindow::showImport);
    m_readView = new ReadView(m_session, m_read);
    m_importView = new ImportView(m_session, m_import);
    m_lenses = new QStackedWidget;
    m_lenses->addWidget(new PlanView(m_session, m_plan));
    m_lenses->addWidget(log);
    m_lenses->addWidget(m_readView);
    m_lenses->addWidget(m_importView);
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
    m_testTable = createTestTable(m_tests);
    connect(&m_tests, &QAbstractItemModel::modelReset, this, &MainWindow::fitTestTable);
    auto *centre = new QWidget;
    auto *layout = new QVBoxLayout(centre);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    layout->addWidget(createQuestionBar());
    layout->addWidget(createLensBar());
    layout->addWidget(m_strip);
    layout->addWidget(m_split, 1);
    layout->addWidget(m_testTable);
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
    m_question->setStyleSheet(
        QStringLiteral("QLineEdit:!focus { border-color: transparent; background: transparent; }"));
    connect(m_question, &QLineEdit::editingFinished, this, [this] {
        if (m_question->isModified() && m_session.study() != nullptr &&
            !m_plan.setQuestion(m_question->text()))
            m_question->setModified(false);
        refreshQuestion();
    });
    auto *bar = new QWidget;
    auto *layout = new QHBoxLayout(bar);
    layout->setContentsMargins(12, 10, 12, 2);
    layout->addWidget(m_question);
    return bar;
}

QWidget *MainWindow::createLensBar()
{
    m_lensButtons = new QButtonGroup(this);
    auto *bar = new QWidget;
    auto *layout = new QHBoxLayout(bar);
    layout->setContentsMargins(12, 0, 12, 0);
    layout->setSpacing(2);
    for (const Lens lens : kLenses) {
        const int digit = static_cast<int>(lens) + 1;
        auto *tab = button("lens", QStringLiteral("%1  %2").arg(digit).arg(lensTitle(lens)));
        tab->setObjectName(QStringLiteral("lens%1").arg(digit));
        tab->setAccessibleName(lensTitle(lens).replace(QStringLiteral("&&"), QStringLiteral("&")));
        tab->setProperty("lens", true);
        tab->setCheckable(true);
        QFont chosen = font();
        chosen.setWeight(QFont::DemiBold);
        tab->setMinimumWidth(QFontMetrics(chosen).horizontalAdvance(tab->text()) + kTabPadding);
        m_lensButtons->addButton(tab, static_cast<int>(lens));
        layout->addWidget(tab);
    }
    layout->addStretch();
    connect(m_lensButtons, &QButtonGroup::idClicked, this, [this](int id) {
        m_session.setLens(static_cast<Lens>(id));
        applyLens(); // also leaves the import page when the lens stays the same
    });
    return bar;
}

void MainWindow::createActions()
{
    const auto add = [this](QMenu *menu, const QString &text, const QKeySequence &key, auto run) {
        QAction *action = menu->addAction(text);
        action->setShortcut(key);
        connect(action, &QAction::triggered, this, run);
        return action;
    };
    QMenu *project = menuBar()->addMenu(tr("&Project"));
    add(project, tr("New project…"), QKeySequence::New, [this] { newProject(); });
    add(project, tr("Open a project…"), QKeySequence::Open, [this] { openProject(); });
    project->addSeparator();
    m_projectActions << add(project, tr("New study"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_N),
                            [this] { newStudy(); });
    m_studyActions << add(project, tr("Bring in force files…"), QKeySequence(Qt::CTRL | Qt::Key_I),
                          [this] { showImport(); });
    m_studyActions << add(project, tr("Save the picture…"), QKeySequence(Qt::CTRL | Qt::Key_P),
                          [this] { savePictureOfLens(); });
    project->addSeparator();
    add(project, tr("Quit"), QKeySequence::Quit, [this] { close(); });

    QMenu *edit = menuBar()->addMenu(tr("&Edit"));
    m_undo = add(edit, tr("Undo"), QKeySequence::Undo, [this] { m_session.tell(m_session.undo()); });
    m_redo = add(edit, tr("Redo"), QKeySequence::Redo, [this] { m_session.tell(m_session.redo()); });
    m_studyActions << add(edit, tr("Edit the question"), QKeySequence(Qt::Key_F2), [this] {
        m_question->setFocus();
        m_question->selectAll();
    });

    QMenu *view = menuBar()->addMenu(tr("&Lens"));
    for (const Lens lens : kLenses) {
        m_studyActions << add(view, lensTitle(lens),
                              QKeySequence(static_cast<int>(Qt::CTRL) | (Qt::Key_1 + static_cast<int>(lens))),
                              [this, lens] {
                                  m_session.setLens(lens);
                                  applyLens();
                              });
    }
    view->addSeparator();
    m_showTests = add(view, tr("Tests behind the sentences"), QKeySequence(Qt::CTRL | Qt::Key_T),
                      [this] { m_session.setTestTableShown(!m_session.isTestTableShown()); });
    m_showTests->setCheckable(true);
    add(view, tr("Light or dark"), QKeySequence(Qt::CTRL | Qt::Key_L), [this] { toggleTheme(); });
    add(view, tr("Next part of the window"), QKeySequence(Qt::Key_F6), [this] { focusNextPart(); });

    QMenu *help = menuBar()->addMenu(tr("&Help"));
    add(help, tr("Keys"), QKeySequence(Qt::Key_F1), [this] { showHelp(QStringLiteral("keys")); });
    add(help, tr("User guide"), {}, [this] { showHelp(QStringLiteral("first-study")); });
}

void MainWindow::connectSession()
{
    connect(&m_session, &ProjectSession::projectChanged, this, &MainWindow::refreshProject);
    connect(&m_session, &ProjectSession::studyChanged, this, [this] {
        refreshQuestion();
        refreshUndo();
        refreshProject();
    });
    connect(&m_session, &ProjectSession::lensChanged, this, &MainWindow::applyLens);
    connect(&m_session, &ProjectSession::readingsChanged, this, &MainWindow::refreshCompare);
    connect(&m_session, &ProjectSession::comparisonChanged, this, &MainWindow::applyLens);
    connect(&m_session, &ProjectSession::failed, m_notice, &NoticeBar::tell);
}

void MainWindow::applyLens()
{
    const bool hasStudy = m_session.study() != nullptr;
    const Lens lens = m_session.lens();
    const bool comparing = lens == Lens::Compare && hasStudy;
    m_strip->setVisible(comparing);
    m_testTable->setVisible(comparing && m_session.isTestTableShown());
    m_showTests->setChecked(m_session.isTestTableShown());
    m_showTests->setEnabled(comparing);
    m_lenses->setVisible(!comparing);
    if (!comparing)
        m_lenses->setCurrentIndex(static_cast<int>(lens));
    if (QAbstractButton *tab = m_lensButtons->button(static_cast<int>(lens)))
        tab->setChecked(true);
    refreshCompare();
}

void MainWindow::fitTestTable()
{
    int height = m_testTable->horizontalHeader()->sizeHint().height() + 4;
    for (int row = 0; row < m_tests.rowCount(); ++row)
        height += m_testTable->rowHeight(row);
    m_testTable->setFixedHeight(std::min(height, kTallestTestTable));
}

void MainWindow::refreshCompare()
{
    m_strip->setHeadline(m_session.isReading() ? tr("Reading the records…") : m_rack->model().headline);
}

void MainWindow::refreshProject()
{
    const bool open = m_session.hasProject();
    const bool hasStudy = m_session.study() != nullptr;
    m_pages->setCurrentIndex(open ? 1 : 0);
    for (QAction *action : m_projectActions)
        action->setEnabled(open);
    for (QAction *action : m_studyActions)
        action->setEnabled(hasStudy);
    for (QAbstractButton *tab : m_lensButtons->buttons())
        tab->setEnabled(hasStudy);
    m_question->setEnabled(hasStudy);
    m_split->setVisible(true);
    m_split->setEnabled(hasStudy);
    setWindowTitle(open ? tr("%1 – Inch Peg").arg(QFileInfo(m_session.projectPath()).completeBaseName())
                        : tr("Inch Peg"));
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
    const QString path = m_prompts.newProjectPath(this);
    if (!path.isEmpty() && m_session.tell(m_session.createProject(path)))
        newStudy();
}

void MainWindow::openProject()
{
    const QString path = m_prompts.openProjectPath(this);
    if (!path.isEmpty())
        m_session.tell(m_session.openProject(path));
}

/// The demo that ./demo opens too; written where it is missing.
void MainWindow::openDemo()
{
    const QString folder =
        QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + QStringLiteral("/inchpeg");
    const QString path = folder + QStringLiteral("/demo.inchpeg");
    QDir().mkpath(folder);
    if (!QFileInfo::exists(path) && !m_session.tell(writeDemoProject(path.toStdString())))
        return;
    m_session.tell(m_session.openProject(path));
}

/// The plot in the Read lens, the rails in any other.
void MainWindow::savePictureOfLens()
{
    const QString path = m_prompts.picturePath(this);
    if (path.isEmpty())
        return;
    if (m_session.lens() == Lens::Read)
        m_session.tell(savePicture(path, m_readView->plotSize(), [this](QPainter &painter) {
            m_readView->paintPlot(painter, m_readView->plotSize());
        }));
    else
        m_session.tell(savePicture(path, m_rack->wholeSize(),
                                   [this](QPainter &painter) { m_rack->paintWhole(painter); }));
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
    m_session.setLens(Lens::Log);
    m_lenses->setCurrentWidget(m_importView);
    if (m_import.entries().empty() && !m_import.isLoading() && isVisible() &&
        qApp->property("noFileDialogs").isNull())
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

void MainWindow::toggleTheme()
{
    const bool paper = currentTheme().kind == ThemeKind::Paper;
    wearTheme(*qApp, paper ? workshopTheme() : paperTheme());
    QSettings().setValue(QStringLiteral("theme"),
                         paper ? QStringLiteral("workshop") : QStringLiteral("paper"));
    update();
}

void MainWindow::focusNextPart()
{
    const QList<QWidget *> parts{findChild<QWidget *>(QStringLiteral("studyList")), m_rack,
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

/// Digits choose a lens wherever they are not typed into something.
void MainWindow::keyPressEvent(QKeyEvent *event)
{
    const int lens = event->key() - Qt::Key_1;
    if (m_session.study() != nullptr && event->modifiers() == Qt::NoModifier && lens >= 0 &&
        lens < static_cast<int>(std::size(kLenses))) {
        m_session.setLens(kLenses[lens]);
        applyLens();
        return;
    }
    QMainWindow::keyPressEvent(event);
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

/// Dropped files: a project is opened; others go to the import page of the study, which is made where there
/// is none.
void MainWindow::bringInto(const QStringList &paths)
{
    if (paths.size() == 1 && paths.front().endsWith(QStringLiteral(".inchpeg"))) {
        m_session.tell(m_session.openProject(paths.front()));
        return;
    }
    if (!m_session.hasProject())
        newProject();
    else if (m_session.study() == nullptr)
        newStudy();
    if (m_session.study() == nullptr)
        return;
    m_import.addPaths(paths);
    m_session.setLens(Lens::Log);
    m_lenses->setCurrentWidget(m_importView);
}

} // namespace inchpeg::app
