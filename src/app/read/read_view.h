// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/read/read_presenter.h"

#include <QWidget>

#include <map>

class QCustomPlot;
class QPainter;
class QCPAbstractPlottable;
class QGridLayout;
class QLabel;
class QLineEdit;
class QPushButton;

namespace inchpeg::app
{

/// The read lens: curves of the shown rails over each other, and the card of the selected piece.
class ReadView : public QWidget
{
    Q_OBJECT
public:
    ReadView(ProjectSession &session, ReadPresenter &presenter, QWidget *parent = nullptr);
    /// Draws the plot at this size, for a file.
    void paintPlot(QPainter &painter, QSize size);
    [[nodiscard]] QSize plotSize() const;
    void showAll();
    void zoom(double factor);
    void pan(double shareX, double shareY);

protected:
    void keyPressEvent(QKeyEvent *event) override;
    void changeEvent(QEvent *event) override;
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    QWidget *createPlot();
    QWidget *createCard();
    void redraw();
    void drawCurves();
    void drawTail(const CurveModel &model);
    void drawMarkers();
    void dressPlot();
    void refreshCard();
    void selectAt(QPointF position);

    ProjectSession &m_session;
    ReadPresenter &m_presenter;
    QCustomPlot *m_plot = nullptr;
    QLabel *m_empty = nullptr;
    QLabel *m_title = nullptr;
    QLabel *m_origin = nullptr;
    QGridLayout *m_properties = nullptr;
    QLabel *m_attention = nullptr;
    QLabel *m_exclusion = nullptr;
    QLineEdit *m_reason = nullptr;
    QPushButton *m_leaveOut = nullptr;
    QPushButton *m_takeBack = nullptr;
    QPushButton *m_takeOff = nullptr;
    std::map<const QCPAbstractPlottable *, PieceId> m_drawn;
    StudyId m_fitted; ///< the study whose curves the axes were fitted to
};

} // namespace inchpeg::app
