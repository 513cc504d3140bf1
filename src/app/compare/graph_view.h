// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/compare/graph_plot.h"
#include "app/compare/graph_presenter.h"

class QComboBox;
class QLabel;
class QPushButton;

namespace inchpeg::app
{

/// Below the rails of Compare: the comparison over two axes, and what that says.
class GraphView : public QWidget
{
    Q_OBJECT
public:
    explicit GraphView(ProjectSession &session, QWidget *parent = nullptr);

    [[nodiscard]] GraphPresenter &presenter() { return m_presenter; }
    [[nodiscard]] const GraphPlot &plot() const { return *m_plot; }

private:
    void showPresented();

    GraphPresenter m_presenter;
    GraphPlot *m_plot = nullptr;
    QComboBox *m_kind = nullptr;
    QComboBox *m_third = nullptr;
    QLabel *m_sentence = nullptr;
    QPushButton *m_copy = nullptr;
};

} // namespace inchpeg::app
