// SPDX-License-Identifier: GPL-3.0-or-later
// The menus of the main window, with the keys that do the same.
#include "app/find/find_box.h"
#include "app/help/help_window.h"
#include "app/window/lens_bar.h"
#include "app/window/main_window.h"

#include <QLineEdit>
#include <QMenuBar>
#include <QWhatsThis>

namespace inchpeg::app
{

namespace
{

/// An entry of a menu with its key and what it runs.
template <typename Run>
QAction *addTo(QWidget *window, QMenu *menu, const QString &text, const QKeySequence &key, Run run)
{
    QAction *action = menu->addAction(text);
    action->setShortcut(key);
    QObject::connect(action, &QAction::triggered, window, run);
    return action;
}

} // namespace

void MainWindow::createProjectMenu()
{
    QMenu *menu = menuBar()->addMenu(tr("&Project"));
    const auto add = [this, menu](const QString &text, const QKeySequence &key, auto run) {
        return addTo(this, menu, text, key, run);
    };
    add(tr("New project…"), QKeySequence::New, [this] { newProject(); });
    add(tr("Open a project…"), QKeySequence::Open, [this] { m_commands.open(); });
    add(tr("New practice project…"), {}, [this] { newPractice(); });
    m_recent = menu->addMenu(tr("Recent projects"));
    menu->addSeparator();
    m_projectActions << add(tr("New study"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_N),
                            [this] { newStudy(); });
    add(tr("Study from what is there…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_I),
        [this] { showBegin(); });
    m_editActions << add(tr("Bring in records…"), QKeySequence(Qt::CTRL | Qt::Key_I),
                         [this] { showImport(); });
    m_studyActions << add(tr("Save the picture…"), QKeySequence(Qt::CTRL | Qt::Key_P),
                          [this] { savePictureOfLens(); });
    m_studyActions << add(tr("Report, card, open data…"), QKeySequence(Qt::CTRL | Qt::Key_R), [this] {
        tellOthers(m_session.lens() == Lens::Decide ? Telling::DecisionReport : Telling::StudyReport);
    });
    menu->addSeparator();
    m_studyActions << add(tr("Export this study…"), QKeySequence(Qt::CTRL | Qt::Key_E),
                          [this] { m_commands.exportTo(m_session.study()->id); });
    m_projectActions << add(tr("Export the project…"), {}, [this] { m_commands.exportTo(std::nullopt); });
    add(tr("Make a project of an export…"), {}, [this] { m_commands.importFrom(); });
    m_projectActions << add(tr("Compact the project…"), {}, [this] { m_commands.compact(); });
    m_studyActions << add(tr("Practice: verdict and truth…"), {}, [this] { showPractice(); });
    menu->addSeparator();
    m_projectActions << add(tr("The workshop…"), QKeySequence(Qt::CTRL | Qt::Key_K),
                            [this] { showWorkshop(); });
    add(tr("Settings…"), QKeySequence(Qt::CTRL | Qt::Key_Comma), [this] { showSettings(); });
    add(tr("Quit"), QKeySequence::Quit, [this] { close(); });
}

void MainWindow::createHelpMenu()
{
    QMenu *menu = menuBar()->addMenu(tr("&Help"));
    addTo(this, menu, tr("Keys"), QKeySequence(Qt::Key_F1), [this] { showHelp(QStringLiteral("keys")); });
    addTo(this, menu, tr("User guide"), {}, [this] { showHelp(QStringLiteral("first-study")); });
    addTo(this, menu, tr("Search the guide"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_F), [this] {
        showHelp(QStringLiteral("first-study"));
        m_help->startSearch();
    });
    addTo(this, menu, tr("What is this?"), QKeySequence(Qt::SHIFT | Qt::Key_F1),
          [] { QWhatsThis::enterWhatsThisMode(); });
}

void MainWindow::createActions()
{
    createProjectMenu();
    QMenu *edit = menuBar()->addMenu(tr("&Edit"));
    m_undo = addTo(this, edit, tr("Undo"), QKeySequence::Undo, [this] { m_session.tell(m_session.undo()); });
    m_redo = addTo(this, edit, tr("Redo"), QKeySequence::Redo, [this] { m_session.tell(m_session.redo()); });
    m_editActions << addTo(this, edit, tr("Edit the question"), QKeySequence(Qt::Key_F2), [this] {
        m_question->setFocus();
        m_question->selectAll();
    });

    m_editActions << addTo(this, edit, tr("Summary of a rail…"),
                           QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_S), [this] { showSummaries(); });

    m_projectActions << addTo(this, edit, tr("Find"), QKeySequence::Find, [this] {
        m_find->setFocus();
        m_find->selectAll();
    });

    QMenu *view = menuBar()->addMenu(tr("&Lens"));
    for (const Lens lens : kLenses) {
        m_studyActions << addTo(
            this, view, lensTitle(lens),
            QKeySequence(static_cast<int>(Qt::CTRL) | (Qt::Key_1 + static_cast<int>(lens))), [this, lens] {
                m_session.setLens(lens);
                applyLens();
            });
    }
    view->addSeparator();
    m_showTests = addTo(this, view, tr("Tests behind the sentences"), QKeySequence(Qt::CTRL | Qt::Key_T),
                        [this] { m_session.setTestTableShown(!m_session.isTestTableShown()); });
    m_showTests->setCheckable(true);
    m_showGraph =
        addTo(this, view, tr("Graph of the comparison"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_G),
              [this] { m_session.setGraphShown(!m_session.isGraphShown()); });
    m_showGraph->setCheckable(true);
    addTo(this, view, tr("Light or dark"), QKeySequence(Qt::CTRL | Qt::Key_L),
          [this] { m_preferences.setDark(!m_preferences.isDark()); });
    addTo(this, view, tr("Next part of the window"), QKeySequence(Qt::Key_F6), [this] { focusNextPart(); });
    createHelpMenu();
}

} // namespace inchpeg::app
