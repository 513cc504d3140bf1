// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/paper_view.h"

#include "app/paper/run_sheet.h"
#include "app/parts/page_parts.h"
#include "app/parts/page_preview.h"

#include <QPainter>
#include <QTextDocument>

namespace inchpeg::app
{

namespace
{

/// Indices of the kinds of paper.
constexpr int kRunSheet = 0;
constexpr int kBlindLabels = 2;

} // namespace

PaperView::PaperView(PlanPresenter &presenter, Prompts &prompts, QWidget *parent)
    : QWidget(parent), m_presenter(presenter), m_prompts(prompts)
{
    setObjectName(QStringLiteral("paperView"));
    m_preview = new PagePreview("sheetPreview");
    connect(m_preview, &PagePreview::turned, this,
            [this](int pages) { m_page->setValue(m_page->value() + pages); });
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(18, 8, 18, 10);
    layout->addWidget(createFields());
    layout->addWidget(m_preview, 1);
}

QWidget *PaperView::createFields()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(heading(tr("Paper for the workshop")));
    m_kind = comboBox("paperKind", tr("Which paper"));
    m_kind->addItems({tr("run sheet"), tr("labels"), tr("blind labels")});
    m_stock = comboBox("labelStock", tr("Label stock"));
    for (const LabelStock &stock : usualLabelStock())
        m_stock->addItem(QString::fromStdString(stock.name));
    m_stock->addItem(tr("own size…"));
    m_page = spinBox("paperPage", tr("Page"), 1, 1);
    m_pages = new QLabel;
    auto *pdf = button("savePaper", tr("Save as PDF…"), true);
    auto *row = new QHBoxLayout;
    row->addWidget(m_kind, 1);
    row->addWidget(m_stock, 2);
    row->addWidget(new QLabel(tr("Page")));
    row->addWidget(m_page);
    row->addWidget(m_pages);
    row->addStretch(1);
    row->addWidget(pdf);
    layout->addLayout(row);
    connect(m_kind, &QComboBox::activated, this, [this] {
        showValue(m_page, 1);
        refresh();
    });
    connect(m_stock, &QComboBox::activated, this, [this](int index) {
        const std::vector<LabelStock> usual = usualLabelStock();
        if (index >= static_cast<int>(usual.size())) {
            refresh();
            emit workshopRequested();
            return;
        }
        const LabelStock stock = usual[static_cast<std::size_t>(index)];
        m_presenter.session().tryEditWorkshop(tr("change the label stock"), [&](Workshop &workshop) {
            workshop.labels = stock;
            return ok();
        });
    });
    connect(m_page, &QSpinBox::valueChanged, this, &PaperView::showPage);
    connect(pdf, &QPushButton::clicked, this, &PaperView::save);
    return box;
}

void PaperView::save()
{
    const bool labels = m_kind->currentIndex() != kRunSheet;
    const QString path = m_prompts.savePath(
        this, labels ? tr("Save the labels") : tr("Save the run sheet"),
        labels ? QStringLiteral("labels.pdf") : QStringLiteral("run-sheet.pdf"), tr("PDF (*.pdf)"));
    if (path.isEmpty())
        return;
    ProjectSession &session = m_presenter.session();
    if (labels)
        session.tell(writeLabelSheets(path, m_presenter.state().study(), session.workshop(), labelKind()));
    else
        session.tell(writeRunSheet(path, content()));
}

LabelKind PaperView::labelKind() const
{
    return m_kind->currentIndex() == kBlindLabels ? LabelKind::Blind : LabelKind::Named;
}

RunSheetContent PaperView::content() const
{
    return {m_presenter.state().study(), m_presenter.state().layout(), m_presenter.session().workshop(),
            m_presenter.session().notation()};
}

/// Many plates take a second to lay out: that goes on beside the window, and the last sheet is seen
/// meanwhile.
void PaperView::layOutSheet()
{
    if (m_layingOut.isRunning()) {
        m_outOfDate = true;
        return;
    }
    m_outOfDate = false;
    m_layingOut.begin(
        "run sheet", [content = content()] { return runSheetParts(content); },
        [this](const Result<RunSheetParts> &parts) {
            if (m_presenter.session().tell(parts ? ok() : Status(parts.error())))
                m_sheet = runSheet(*parts);
            showPage();
            if (m_outOfDate && m_presenter.session().study() != nullptr)
                layOutSheet();
        });
}

void PaperView::showPage()
{
    if (m_presenter.session().study() == nullptr)
        return;
    const Workshop &workshop = m_presenter.session().workshop();
    const bool labels = m_kind->currentIndex() != kRunSheet;
    int pages = 1;
    const int page = m_page->value() - 1;
    if (labels) {
        const Study &study = m_presenter.state().study();
        const auto all = std::make_shared<std::vector<PieceLabel>>(labelsOf(study, workshop, labelKind()));
        const int sheets = std::max(1, sheetCount(all->size(), workshop.labels));
        const auto key = std::make_shared<BlindKey>(study, workshop);
        pages = sheets + (labelKind() == LabelKind::Blind ? key->pageCount() : 0);
        m_preview->set([all, key, sheets, stock = workshop.labels, page](QPainter &painter) {
            if (page < sheets)
                paintLabelSheet(painter, *all, stock, page, true);
            else
                key->paintPage(painter, page - sheets);
        });
    } else if (m_sheet) {
        pages = std::max(1, m_sheet->pageCount());
        m_preview->set(
            [sheet = m_sheet, page](QPainter &painter) { paintRunSheetPage(painter, *sheet, page); });
    }
    const QSignalBlocker blocker(m_page);
    m_page->setRange(1, pages);
    m_pages->setText(tr("of %1").arg(pages));
}

void PaperView::refresh()
{
    const LabelStock &stock = m_presenter.session().workshop().labels;
    const std::vector<LabelStock> usual = usualLabelStock();
    const auto known = std::find(usual.begin(), usual.end(), stock);
    {
        const QSignalBlocker blocker(m_stock);
        m_stock->setCurrentIndex(static_cast<int>(known - usual.begin()));
    }
    m_stock->setVisible(m_kind->currentIndex() != kRunSheet);
    if (m_kind->currentIndex() == kRunSheet)
        layOutSheet();
    showPage();
}

} // namespace inchpeg::app
