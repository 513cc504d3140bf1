// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/tell/tell_window.h"

#include "app/parts/page_parts.h"
#include "app/parts/page_preview.h"
#include "report/drawing_painter.h"

#include <QApplication>
#include <QClipboard>
#include <QListWidget>
#include <QMimeData>
#include <QPainter>
#include <QScrollArea>
#include <QScrollBar>

namespace inchpeg::app
{

namespace
{

constexpr double kClipboardScale = 1.6;
constexpr int kChoiceWidth = 270;

const std::vector<Telling> kReports{Telling::StudyReport, Telling::DecisionReport};
const std::vector<Telling> kCards{Telling::ResultCard, Telling::DecisionCard};

QString tellingName(Telling what)
{
    switch (what) {
    case Telling::StudyReport:
        return TellWindow::tr("Report of this study");
    case Telling::DecisionReport:
        return TellWindow::tr("Report of the decision");
    case Telling::ResultCard:
        return TellWindow::tr("Result card");
    case Telling::DecisionCard:
        return TellWindow::tr("Card of the decision");
    case Telling::OpenData:
        return TellWindow::tr("Open data");
    }
    return {};
}

QString tellingWords(Telling what)
{
    switch (what) {
    case Telling::StudyReport:
        return TellWindow::tr("Everything that another needs to believe this study or to doubt it: verdicts, "
                              "pictures, tables, rules, "
                              "what was left out, gauges, raw files with their checksums.");
    case Telling::DecisionReport:
        return TellWindow::tr(
            "The part's needs, the order of the candidates with its reasons, what is known of each on what "
            "evidence, and what to test next.");
    case Telling::ResultCard:
        return TellWindow::tr(
            "One result as a picture for a page or a post: the property that Compare shows.");
    case Telling::DecisionCard:
        return TellWindow::tr("Who comes first and how surely, as a picture.");
    case Telling::OpenData:
        return TellWindow::tr("A data package that any script can read: raw records as they came, tidy "
                              "tables, curves, checksums, and "
                              "scripts in R and Python that recompute the first verdict and compare it.");
    }
    return {};
}

} // namespace

TellWindow::TellWindow(TellPresenter &presenter, Prompts &prompts, QWidget *parent)
    : QDialog(parent), m_presenter(presenter), m_prompts(prompts)
{
    setObjectName(QStringLiteral("tellWindow"));
    setWindowTitle(tr("Tell others"));
    resize(980, 700);
    auto *layout = new QHBoxLayout(this);
    layout->setContentsMargins(14, 12, 14, 12);
    layout->setSpacing(16);
    layout->addWidget(createChoice());
    layout->addWidget(createPages(), 1);
    connect(&presenter, &TellPresenter::changed, this, &TellWindow::refresh);
    connect(&presenter, &TellPresenter::failed, this,
            [this](const QString &sentence) { m_state->setText(sentence); });
    connect(&presenter, &TellPresenter::written, this,
            [this](const QString &path) { m_state->setText(tr("Written: %1").arg(path)); });
    connect(&presenter, &TellPresenter::progress, this, [this](int done, int all) {
        if (done < all)
            m_state->setText(tr("%1 of %2…").arg(done).arg(all));
    });
    refresh();
}

QWidget *TellWindow::createChoice()
{
    auto *box = new QWidget;
    box->setFixedWidth(kChoiceWidth);
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(8);
    layout->addWidget(heading(tr("What to tell")));
    m_what = new QListWidget;
    m_what->setObjectName(QStringLiteral("tellWhat"));
    m_what->setAccessibleName(tr("What to tell"));
    for (const Telling what : kTellings)
        m_what->addItem(tellingName(what));
    m_what->setCurrentRow(0);
    m_what->setFixedHeight(m_what->sizeHintForRow(0) * m_what->count() + 2 * m_what->frameWidth() + 4);
    layout->addWidget(m_what);
    m_about = softLabel({});
    m_about->setWordWrap(true);
    layout->addWidget(m_about);
    auto *paper = new QHBoxLayout;
    m_paperLabel = new QLabel(tr("Paper"));
    m_paper = comboBox("tellPaper", tr("Paper"));
    m_paper->addItems({tr("A4"), tr("Letter")});
    paper->addWidget(m_paperLabel);
    paper->addWidget(m_paper, 1);
    layout->addLayout(paper);
    const auto add = [&](const char *name, const QString &text, bool isMain,
                         const std::vector<Telling> &offered, auto run) {
        auto *one = button(name, text, isMain);
        connect(one, &QPushButton::clicked, this, run);
        layout->addWidget(one);
        m_buttons.emplace_back(one, offered);
    };
    add("tellPdf", tr("Save as PDF…"), true, kReports, [this] { save("pdf", tr("PDF (*.pdf)")); });
    add("tellHtml", tr("Save as a web page…"), false, kReports,
        [this] { save("html", tr("Web page (*.html)")); });
    add("tellWorkbook", tr("Save as a workbook…"), false, kReports,
        [this] { save("xlsx", tr("Workbook (*.xlsx)")); });
    add("tellPng", tr("Save as a picture…"), true, kCards, [this] { save("png", tr("Picture (*.png)")); });
    add("tellSvg", tr("Save as vectors…"), false, kCards,
        [this] { save("svg", tr("Vector picture (*.svg)")); });
    add("tellCopyPicture", tr("Copy the picture"), false, kCards, [this] { copyPicture(); });
    add("tellZip", tr("Save as a zip file…"), true, {Telling::OpenData},
        [this] { save("zip", tr("Zip file (*.zip)")); });
    add("tellFolder", tr("Write into a folder…"), false, {Telling::OpenData}, [this] { saveFolder(); });
    m_tables = comboBox("tellTables", tr("Copy a table for a spreadsheet"));
    layout->addWidget(m_tables);
    m_stop = button("tellStop", tr("Stop writing"));
    connect(m_stop, &QPushButton::clicked, &m_presenter, &TellPresenter::cancel);
    layout->addWidget(m_stop);
    layout->addStretch(1);
    m_state = new QLabel;
    m_state->setObjectName(QStringLiteral("tellState"));
    m_state->setWordWrap(true);
    layout->addWidget(m_state);
    connect(m_what, &QListWidget::currentRowChanged, this, [this](int row) {
        m_state->clear();
        showValue(m_page, 1);
        m_presenter.choose(kTellings[static_cast<std::size_t>(std::max(0, row))]);
        refresh();
    });
    connect(m_paper, &QComboBox::activated, this,
            [this](int index) { m_presenter.setPaper(index == 1 ? Paper::Letter : Paper::A4); });
    connect(m_tables, &QComboBox::activated, this, &TellWindow::copyTable);
    return box;
}

QWidget *TellWindow::createPages()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    m_preview = new PagePreview("tellPreview");
    m_scroll = new QScrollArea;
    m_scroll->setObjectName(QStringLiteral("tellScroll"));
    m_scroll->setWidgetResizable(true);
    m_scroll->setFrameShape(QFrame::NoFrame);
    m_scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_scroll->setFocusPolicy(Qt::NoFocus);
    m_scroll->setWidget(m_preview);
    layout->addWidget(m_scroll, 1);
    m_larger = button("tellLarger", tr("Larger"));
    m_larger->setCheckable(true);
    m_larger->setToolTip(tr("The page as wide as the window"));
    connect(m_larger, &QPushButton::toggled, this, &TellWindow::fitPage);
    auto *row = new QHBoxLayout;
    m_page = spinBox("tellPage", tr("Page"), 1, 1);
    m_pages = new QLabel;
    auto *back = button("tellBack", tr("Page back"));
    auto *on = button("tellOn", tr("Next page"));
    row->addStretch(1);
    row->addWidget(back);
    row->addWidget(new QLabel(tr("Page")));
    row->addWidget(m_page);
    row->addWidget(m_pages);
    row->addWidget(on);
    row->addWidget(m_larger);
    row->addStretch(1);
    layout->addLayout(row);
    const auto turn = [this](int pages) { m_page->setValue(m_page->value() + pages); };
    connect(back, &QPushButton::clicked, this, [turn] { turn(-1); });
    connect(on, &QPushButton::clicked, this, [turn] { turn(1); });
    connect(m_preview, &PagePreview::turned, this, turn);
    connect(m_page, &QSpinBox::valueChanged, this, &TellWindow::showPage);
    return box;
}

void TellWindow::choose(Telling what)
{
    m_what->setCurrentRow(static_cast<int>(what));
}

void TellWindow::showEvent(QShowEvent *event)
{
    QDialog::showEvent(event);
    m_presenter.setWatched(true);
}

void TellWindow::hideEvent(QHideEvent *event)
{
    m_presenter.setWatched(false);
    QDialog::hideEvent(event);
}

void TellWindow::resizeEvent(QResizeEvent *event)
{
    QDialog::resizeEvent(event);
    fitPage();
}

void TellWindow::fitPage()
{
    const QSizeF page = m_presenter.told().page_mm;
    const int wide = m_scroll->viewport()->width();
    constexpr int kLeastHeight = 240;
    m_preview->setMinimumHeight(m_larger->isChecked() ? static_cast<int>(wide * page.height() / page.width())
                                                      : kLeastHeight);
    m_scroll->verticalScrollBar()->setValue(0);
}

void TellWindow::refresh()
{
    m_about->setText(tellingWords(m_presenter.what()));
    for (int row = 0; row < m_what->count(); ++row) {
        QListWidgetItem *item = m_what->item(row);
        const bool can = m_presenter.canTell(kTellings[static_cast<std::size_t>(row)]);
        item->setForeground(can ? QBrush() : palette().brush(QPalette::Disabled, QPalette::Text));
    }
    const QStringList tables = m_presenter.tables();
    m_tables->clear();
    m_tables->addItem(tr("copy a table…"));
    m_tables->addItems(tables);
    refreshButtons();
    showPage();
    fitPage();
}

void TellWindow::refreshButtons()
{
    const Telling what = m_presenter.what();
    const bool isReport = what == Telling::StudyReport || what == Telling::DecisionReport;
    const bool isReady =
        m_presenter.canTell(what) && !m_presenter.isWorking() && m_presenter.told().failure.isEmpty();
    for (const auto &[one, offered] : m_buttons) {
        one->setVisible(std::find(offered.begin(), offered.end(), what) != offered.end());
        one->setEnabled(isReady);
    }
    m_stop->setVisible(m_presenter.isWriting());
    m_paper->setVisible(isReport);
    m_paperLabel->setVisible(isReport);
    m_tables->setVisible(isReport);
    m_tables->setEnabled(isReady && m_tables->count() > 1);
}

void TellWindow::showPage()
{
    const Told &told = m_presenter.told();
    const int pages = static_cast<int>(told.pages.size());
    {
        const QSignalBlocker blocker(m_page);
        m_page->setRange(1, std::max(1, pages));
    }
    m_pages->setText(tr("of %1").arg(std::max(1, pages)));
    for (QWidget *widget : {static_cast<QWidget *>(m_page), static_cast<QWidget *>(m_pages)})
        widget->setEnabled(pages > 1);
    for (const char *name : {"tellBack", "tellOn"})
        findChild<QPushButton *>(QLatin1String(name))->setEnabled(pages > 1);
    if (pages == 0) {
        const QString words = !told.failure.isEmpty() ? told.failure
                              : m_presenter.what() == Telling::OpenData
                                  ? tr("pieces.csv, values.csv, verdicts.csv, curves, raw records, "
                                       "datapackage.json, recompute.R, recompute.py, README.md")
                                  : tr("being made…");
        m_preview->set([words](QPainter &painter) {
            QFont font = painter.font();
            font.setPixelSize(6);
            painter.setFont(font);
            painter.setPen(Qt::black);
            painter.drawText(QRectF(30.0, 60.0, 150.0, 120.0), Qt::AlignCenter | Qt::TextWordWrap, words);
        });
        return;
    }
    const QPicture page = told.pages[static_cast<std::size_t>(m_page->value() - 1)];
    m_preview->set([page](QPainter &painter) { painter.drawPicture(QPointF(0.0, 0.0), page); }, told.page_mm);
}

void TellWindow::save(const char *ending, const QString &filter)
{
    const QString path =
        m_prompts.savePath(this, tellingName(m_presenter.what()),
                           m_presenter.offeredName() + QLatin1Char('.') + QLatin1String(ending), filter);
    m_presenter.write(path);
}

void TellWindow::saveFolder()
{
    m_presenter.write(m_prompts.newFolderPath(this, m_presenter.offeredName() + tr(" open data")));
}

void TellWindow::copyTable(int place)
{
    if (place > 0) {
        const TellPresenter::CopiedTable table = m_presenter.table(static_cast<std::size_t>(place - 1));
        auto *copied = new QMimeData;
        copied->setText(table.text);
        copied->setHtml(table.html);
        QApplication::clipboard()->setMimeData(copied);
        m_state->setText(tr("Copied: %1").arg(m_tables->itemText(place)));
    }
    m_tables->setCurrentIndex(0);
}

void TellWindow::copyPicture()
{
    QImage image;
    image.loadFromData(drawingPng(m_presenter.told().drawing, kClipboardScale), "PNG");
    QApplication::clipboard()->setImage(image);
    m_state->setText(tr("The picture is copied."));
}

} // namespace inchpeg::app
