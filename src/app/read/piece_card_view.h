// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/break_panel.h"
#include "app/read/marker_panel.h"
#include "app/read/read_presenter.h"

#include <QScrollArea>

class QGridLayout;

namespace inchpeg::app
{

/// The card of the selected piece: what was read from its record, what to look at, and what a person decided.
class PieceCardView : public QScrollArea
{
    Q_OBJECT
public:
    explicit PieceCardView(ReadPresenter &presenter, QWidget *parent = nullptr);
    void refresh();
    [[nodiscard]] MarkerPanel &markers() { return *m_markers; }

private:
    void addDecisions(QLayout &layout);
    void refreshProperties(const std::vector<PropertyLine> &lines);

    ReadPresenter &m_presenter;
    QLabel *m_title = nullptr;
    QLabel *m_origin = nullptr;
    QGridLayout *m_properties = nullptr;
    MarkerPanel *m_markers = nullptr;
    BreakPanel *m_break = nullptr;
    QLabel *m_attention = nullptr;
    QLabel *m_exclusion = nullptr;
    QLineEdit *m_reason = nullptr;
    QPushButton *m_leaveOut = nullptr;
    QPushButton *m_takeBack = nullptr;
    QPushButton *m_takeOff = nullptr;
};

} // namespace inchpeg::app
