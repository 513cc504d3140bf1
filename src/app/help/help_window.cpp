// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/help/help_window.h"

#include "app/parts/form_parts.h"
#include "app/theme/theme.h"

#include <QCoreApplication>
#include <QFile>
#include <QHBoxLayout>
#include <QListWidget>
#include <QTextBrowser>
#include <QTextCursor>
#include <QVBoxLayout>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

struct Page {
    const char *name;
    const char *title;
};
constexpr Page kPages[] = {
    {"first-study", QT_TRANSLATE_NOOP("Help", "Your first study")},
    {"planning", QT_TRANSLATE_NOOP("Help", "Asking and planning")},
    {"logging", QT_TRANSLATE_NOOP("Help", "Logging prints and measurements")},
    {"bench", QT_TRANSLATE_NOOP("Help", "At the bench")},
    {"rails-and-pegs", QT_TRANSLATE_NOOP("Help", "Rails, pegs and lenses")},
    {"bringing-in-files", QT_TRANSLATE_NOOP("Help", "Bringing in records")},
    {"reading-curves", QT_TRANSLATE_NOOP("Help", "Reading curves")},
    {"comparing", QT_TRANSLATE_NOOP("Help", "Comparing, and what the sentences mean")},
    {"deciding", QT_TRANSLATE_NOOP("Help", "Deciding")},
    {"telling", QT_TRANSLATE_NOOP("Help", "Telling others")},
    {"getting-data-out", QT_TRANSLATE_NOOP("Help", "Getting data out, and in again")},
    {"units-and-settings", QT_TRANSLATE_NOOP("Help", "Units and settings")},
    {"command-line", QT_TRANSLATE_NOOP("Help", "The command line")},
    {"keys", QT_TRANSLATE_NOOP("Help", "Keys")},
};

QString keysMarkdown()
{
    QString text = HelpWindow::tr("# Keys\n\n| Key | What it does |\n|---|---|\n");
    for (const KeyLine &line : keyList())
        text += QStringLiteral("| **%1** | %2 |\n").arg(line.key, line.what);
    return text;
}

QString pageMarkdown(const QString &page)
{
    if (page == QStringLiteral("keys"))
        return keysMarkdown();
    QFile file(QStringLiteral(":/user-guide/%1.md").arg(page));
    return file.open(QIODevice::ReadOnly) ? QString::fromUtf8(file.readAll())
                                          : HelpWindow::tr("This page is missing: %1").arg(page);
}

} // namespace

QList<KeyLine> keyList()
{
    const auto tr = [](const char *text) { return HelpWindow::tr(text); };
    return {
        {tr("Ctrl+1 to Ctrl+6"), tr("lenses, from any field: Ask & plan, Log, Bench, Read, Compare, Decide; "
                                    "a bare digit is a value")},
        {tr("arrows"), tr("along the pegs of a rail, and from rail to rail")},
        {tr("Enter"), tr("opens the chosen peg in the Read lens; in the grid, goes on to the next cell")},
        {tr("Space"), tr("at the bench: begins the record, or ends it; Enter goes on to the next piece")},
        {tr("A B C …"),
         tr("at the bench: what the break looks like, in the order of the drawings; in an oven, "
            "the first sag of a piece")},
        {tr("period"), tr("at the bench: takes a reading that is due")},
        {tr("H F"), tr("at the bench, under a falling weight: the piece held, or it failed")},
        {tr("/ Z"), tr("at the bench: to the field for a code or label; tells the rig to zero itself")},
        {tr("H"), tr("hides or shows the chosen rail in the Read lens")},
        {tr("+ − F"), tr("in the plot: zoom in, zoom out, show all; arrows move it")},
        {tr("M"),
         tr("in the plot: takes the next marker; then ← → move it (Ctrl: ten steps), Enter asks for the "
            "reason and keeps it, Esc lets go")},
        {tr("← → on the strip"), tr("in Ask & plan, and in Log: on to the next part, or back")},
        {tr("F8, F9"),
         tr("in the log's grid: an unlikely value is right, or what was probably meant is taken")},
        {tr("Ctrl+F"), tr("find studies, rails, pieces, notes, plates and materials in the whole project")},
        {tr("← → on the curve"), tr("under Pieces: one piece a rail less or more")},
        {tr("Ctrl+K"),
         tr("the workshop: rigs and gauges with calibrations, printers, materials, hours, labels")},
        {tr("Ctrl+I"), tr("bring in records")},
        {tr("Ctrl+Shift+I"), tr("a study from records or results that are there")},
        {tr("Ctrl+R"), tr("tell others: report, result card, open data")},
        {tr("Ctrl+E"), tr("export this study in open formats")},
        {tr("Ctrl+,"), tr("settings: units, decimal mark, theme, size of letters, folders")},
        {tr("Ctrl+P"),
         tr("save the picture of the rails, or of the curves in the Read lens, as SVG, PDF or PNG")},
        {tr("Ctrl+N, Ctrl+O"), tr("new project, open a project")},
        {tr("Ctrl+Shift+N"), tr("new study")},
        {tr("Ctrl+Shift+S"), tr("a rail that is known from a summary")},
        {tr("Ctrl+Z, Ctrl+Shift+Z"), tr("undo, redo")},
        {tr("Ctrl+C, Ctrl+V, Delete"),
         tr("in the grid: copy, paste a block, clear; Ctrl+C copies any table as text")},
        {tr("Ctrl+T"), tr("shows or hides the tests behind the sentences")},
        {tr("Ctrl+Shift+G"), tr("shows or hides the graph of the comparison")},
        {tr("Ctrl+L"), tr("light or dark")},
        {tr("F2"), tr("edit the question")},
        {tr("F6"), tr("on to the next part of the window: shelf, rails, lens")},
        {tr("Shift+F1"), tr("then click a number: what it is, by which rule and standard")},
        {tr("Ctrl+Shift+F"), tr("search the user guide")},
        {tr("F1"), tr("this list and the user guide")},
        {tr("Ctrl+Q"), tr("quit; everything is saved already")},
    };
}

HelpWindow::HelpWindow(QWidget *parent) : QDialog(parent)
{
    setObjectName(QStringLiteral("helpWindow"));
    setWindowTitle(tr("Help for Inch Peg"));
    setModal(false);
    resize(860, 640);
    m_search = lineEdit("helpSearch", tr("Search the guide"), tr("search the guide"));
    m_search->setClearButtonEnabled(true);
    m_pages = new QListWidget;
    m_pages->setObjectName(QStringLiteral("helpPages"));
    m_pages->setAccessibleName(tr("Pages"));
    m_pages->setWordWrap(true);
    m_browser = new QTextBrowser;
    m_browser->setObjectName(QStringLiteral("helpText"));
    m_browser->setAccessibleName(tr("Page"));
    m_browser->setOpenLinks(false);
    m_browser->document()->setDocumentMargin(16);
    for (const Page &page : kPages) {
        auto *item = new QListWidgetItem(QCoreApplication::translate("Help", page.title), m_pages);
        item->setData(Qt::UserRole, QLatin1String(page.name));
    }
    connect(m_pages, &QListWidget::currentItemChanged, this, &HelpWindow::showCurrent);
    connect(m_search, &QLineEdit::textChanged, this, &HelpWindow::search);
    connect(m_search, &QLineEdit::returnPressed, this, [this] {
        if (!m_browser->find(m_search->text())) {
            m_browser->moveCursor(QTextCursor::Start);
            m_browser->find(m_search->text());
        }
    });
    connect(m_browser, &QTextBrowser::anchorClicked, this,
            [this](const QUrl &url) { showPage(url.path().section(QLatin1Char('.'), 0, 0)); });
    auto *left = new QVBoxLayout;
    left->addWidget(m_search);
    left->addWidget(m_pages, 1);
    auto *layout = new QHBoxLayout(this);
    layout->addLayout(left, 2);
    layout->addWidget(m_browser, 5);
}

void HelpWindow::startSearch()
{
    m_search->setFocus();
    m_search->selectAll();
}

/// Keeps the pages that hold all the words, and marks every place in the page that is shown.
void HelpWindow::search(const QString &words)
{
    const QStringList wanted = words.simplified().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    QListWidgetItem *first = nullptr;
    for (int i = 0; i < m_pages->count(); ++i) {
        QListWidgetItem *item = m_pages->item(i);
        const QString text = item->text() + pageMarkdown(item->data(Qt::UserRole).toString());
        const bool holds = std::all_of(wanted.begin(), wanted.end(), [&](const QString &word) {
            return text.contains(word, Qt::CaseInsensitive);
        });
        item->setHidden(!holds);
        if (holds && first == nullptr)
            first = item;
    }
    if (first != nullptr && (m_pages->currentItem() == nullptr || m_pages->currentItem()->isHidden()))
        m_pages->setCurrentItem(first);
    showCurrent();
    if (first == nullptr)
        m_browser->setMarkdown(tr("Nothing in the guide holds \"%1\".").arg(words.simplified()));
}

void HelpWindow::showCurrent()
{
    const QListWidgetItem *item = m_pages->currentItem();
    if (item == nullptr)
        return;
    m_browser->setMarkdown(pageMarkdown(item->data(Qt::UserRole).toString()));
    QList<QTextEdit::ExtraSelection> marks;
    for (const QString &word : m_search->text().simplified().split(QLatin1Char(' '), Qt::SkipEmptyParts)) {
        for (QTextCursor at = m_browser->document()->find(word); !at.isNull();
             at = m_browser->document()->find(word, at)) {
            QTextEdit::ExtraSelection mark;
            mark.cursor = at;
            mark.format.setBackground(currentTheme().accent);
            mark.format.setForeground(currentTheme().onAccent);
            marks << mark;
        }
    }
    m_browser->setExtraSelections(marks);
    if (!marks.isEmpty()) {
        m_browser->setTextCursor(marks.front().cursor);
        QTextCursor plain = m_browser->textCursor();
        plain.clearSelection();
        m_browser->setTextCursor(plain);
    }
}

void HelpWindow::showPage(const QString &page)
{
    m_search->clear();
    for (int i = 0; i < m_pages->count(); ++i) {
        if (m_pages->item(i)->data(Qt::UserRole).toString() == page)
            m_pages->setCurrentRow(i);
    }
    show();
    raise();
    activateWindow();
}

} // namespace inchpeg::app
