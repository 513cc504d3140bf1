// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/help/help_window.h"

#include <QCoreApplication>
#include <QFile>
#include <QHBoxLayout>
#include <QListWidget>
#include <QTextBrowser>

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
    {"rails-and-pegs", QT_TRANSLATE_NOOP("Help", "Rails, pegs and lenses")},
    {"bringing-in-files", QT_TRANSLATE_NOOP("Help", "Bringing in force files")},
    {"reading-curves", QT_TRANSLATE_NOOP("Help", "Reading curves")},
    {"comparing", QT_TRANSLATE_NOOP("Help", "Comparing, and what the sentences mean")},
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
        {tr("1 2 3 4"),
         tr("lenses: Ask & plan, Log, Read, Compare (also Ctrl with the digit, from any field)")},
        {tr("arrows"), tr("along the pegs of a rail, and from rail to rail")},
        {tr("Enter"), tr("opens the chosen peg in the Read lens; in the grid, goes on to the next cell")},
        {tr("H"), tr("hides or shows the chosen rail in the Read lens")},
        {tr("+ − F"), tr("in the plot: zoom in, zoom out, show all; arrows move it")},
        {tr("Ctrl+I"), tr("bring in force files")},
        {tr("Ctrl+P"),
         tr("save the picture of the rails, or of the curves in the Read lens, as SVG, PDF or PNG")},
        {tr("Ctrl+N, Ctrl+O"), tr("new project, open a project")},
        {tr("Ctrl+Shift+N"), tr("new study")},
        {tr("Ctrl+Z, Ctrl+Shift+Z"), tr("undo, redo")},
        {tr("Ctrl+C, Ctrl+V, Delete"),
         tr("in the grid: copy, paste a block, clear; Ctrl+C copies any table as text")},
        {tr("Ctrl+T"), tr("shows or hides the tests behind the sentences")},
        {tr("Ctrl+L"), tr("light or dark")},
        {tr("F2"), tr("edit the question")},
        {tr("F6"), tr("on to the next part of the window: shelf, rails, lens")},
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
    auto *pages = new QListWidget;
    pages->setObjectName(QStringLiteral("helpPages"));
    pages->setAccessibleName(tr("Pages"));
    pages->setMaximumWidth(250);
    pages->setWordWrap(true);
    m_browser = new QTextBrowser;
    m_browser->setObjectName(QStringLiteral("helpText"));
    m_browser->setAccessibleName(tr("Page"));
    m_browser->setOpenLinks(false);
    m_browser->document()->setDocumentMargin(16);
    for (const Page &page : kPages) {
        auto *item = new QListWidgetItem(QCoreApplication::translate("Help", page.title), pages);
        item->setData(Qt::UserRole, QLatin1String(page.name));
    }
    connect(pages, &QListWidget::currentItemChanged, this, [this](const QListWidgetItem *item) {
        if (item != nullptr)
            m_browser->setMarkdown(pageMarkdown(item->data(Qt::UserRole).toString()));
    });
    connect(m_browser, &QTextBrowser::anchorClicked, this,
            [this](const QUrl &url) { showPage(url.path().section(QLatin1Char('.'), 0, 0)); });
    auto *layout = new QHBoxLayout(this);
    layout->addWidget(pages);
    layout->addWidget(m_browser, 1);
}

void HelpWindow::showPage(const QString &page)
{
    auto *pages = findChild<QListWidget *>(QStringLiteral("helpPages"));
    for (int i = 0; i < pages->count(); ++i) {
        if (pages->item(i)->data(Qt::UserRole).toString() == page)
            pages->setCurrentRow(i);
    }
    show();
    raise();
    activateWindow();
}

} // namespace inchpeg::app
