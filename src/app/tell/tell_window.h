// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/prompts.h"
#include "app/tell/tell_presenter.h"

#include <QDialog>

class QComboBox;
class QHBoxLayout;
class QLabel;
class QListWidget;
class QPushButton;
class QScrollArea;
class QSpinBox;

namespace inchpeg::app
{

class PagePreview;

/// Telling others: report, result card or open data, looked at page by page before it is saved. Stays beside
/// the main window.
class TellWindow : public QDialog
{
    Q_OBJECT
public:
    TellWindow(TellPresenter &presenter, Prompts &prompts, QWidget *parent = nullptr);
    void choose(Telling what);

protected:
    void showEvent(QShowEvent *event) override;
    void hideEvent(QHideEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;

private:
    QWidget *createChoice();
    QWidget *createPages();
    void refresh();
    void refreshButtons();
    void showPage();
    void fitPage();
    void save(const char *ending, const QString &filter);
    void saveFolder();
    void copyTable(int place);
    void copyPicture();

    TellPresenter &m_presenter;
    Prompts &m_prompts;
    QListWidget *m_what = nullptr;
    QLabel *m_about = nullptr;
    QComboBox *m_paper = nullptr;
    QLabel *m_paperLabel = nullptr;
    QHBoxLayout *m_saves = nullptr;
    std::vector<std::pair<QPushButton *, std::vector<Telling>>> m_buttons; ///< and for what each is offered
    QComboBox *m_tables = nullptr;
    QPushButton *m_stop = nullptr;
    PagePreview *m_preview = nullptr;
    QScrollArea *m_scroll = nullptr;
    QPushButton *m_larger = nullptr;
    QSpinBox *m_page = nullptr;
    QLabel *m_pages = nullptr;
    QLabel *m_state = nullptr;
};

} // namespace inchpeg::app
