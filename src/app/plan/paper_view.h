// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/paper/label_sheet.h"
#include "app/paper/run_sheet.h"
#include "app/parts/prompts.h"
#include "app/plan/plan_presenter.h"
#include "service/beside/task.h"

#include <QWidget>

#include <memory>

class QComboBox;
class QLabel;
class QSpinBox;
class QTextDocument;

namespace inchpeg::app
{

class PagePreview;

/// Paper for the workshop: run sheet and labels, looked at and saved as PDF.
class PaperView : public QWidget
{
    Q_OBJECT
public:
    PaperView(PlanPresenter &presenter, Prompts &prompts, QWidget *parent = nullptr);
    void refresh();

signals:
    void workshopRequested();

private:
    QWidget *createFields();
    void save();
    void layOutSheet();
    void showPage();
    [[nodiscard]] RunSheetContent content() const;
    [[nodiscard]] LabelKind labelKind() const;

    PlanPresenter &m_presenter;
    Prompts &m_prompts;
    QComboBox *m_kind = nullptr;
    QComboBox *m_stock = nullptr;
    QSpinBox *m_page = nullptr;
    QLabel *m_pages = nullptr;
    PagePreview *m_preview = nullptr;
    std::shared_ptr<QTextDocument> m_sheet; ///< the run sheet as last laid out
    Task<RunSheetParts> m_layingOut;
    bool m_outOfDate = false; ///< the plan changed while the sheet was being laid out
};

} // namespace inchpeg::app
