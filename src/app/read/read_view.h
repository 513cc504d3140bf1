// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/read/read_presenter.h"

#include <QTimer>
#include <QWidget>

#include <map>
#include <string>
#include <string_view>
#include <vector>

class QCustomPlot;
class QPainter;
class QCPCurve;
class QComboBox;
class QLabel;

namespace inchpeg::app
{

class CurvePlottable;
class PieceCardView;

/// The read lens: curves of the shown rails over each other with the markers of the selected piece, and its
/// card.
class ReadView : public QWidget
{
    Q_OBJECT
public:
    ReadView(ProjectSession &session, ReadPresenter &presenter, QWidget *parent = nullptr);
    /// Draws the plot at this size, for a file.
    /// The curves that are drawn, a row a sample.
    [[nodiscard]] QString plotText() const;
    void paintPlot(QPainter &painter, QSize size);
    [[nodiscard]] QSize plotSize() const;
    [[nodiscard]] QCustomPlot *plot() { return m_plot; }
    void showAll();
    void zoom(double factor);
    void pan(double shareX, double shareY);
    /// Where a marker of the selected piece lies in the plot's own picture points, for tests and for keys.
    [[nodiscard]] std::optional<QPointF> markerPixel(std::string_view marker) const;

protected:
    void keyPressEvent(QKeyEvent *event) override;
    void changeEvent(QEvent *event) override;
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    QWidget *createPlot();
    void redraw();
    void offerLooks();
    void redrawDetail();
    void drawCurves();
    [[nodiscard]] Qt::Alignment sideInside(const MarkerModel &marker) const;
    void drawGuides();
    void drawMarkers();
    void dressPlot();
    void selectAt(QPointF position);
    bool markerKey(QKeyEvent &event);
    bool pressed(QPointF position);
    void dragged(QPointF position);
    void released();

    ProjectSession &m_session;
    ReadPresenter &m_presenter;
    QTimer m_replot;
    QCustomPlot *m_plot = nullptr;
    QComboBox *m_look = nullptr; ///< whose curves are shown alone
    QLabel *m_hint = nullptr;
    QLabel *m_empty = nullptr;
    PieceCardView *m_card = nullptr;
    std::map<PieceId, CurvePlottable *> m_curves; ///< of pieces that were drawn once; some may be empty
    StudyId m_curvesOf;
    bool m_anyCurve = false;
    std::string m_grabbed; ///< the marker that the mouse holds; empty: none
    std::string m_chosen;  ///< by the keys
    StudyId m_fitted;      ///< the study whose curves the axes were fitted to
    std::optional<Method> m_fittedTest;
    std::vector<QCPCurve *> m_guideCurves; ///< of the selected piece
};

} // namespace inchpeg::app
