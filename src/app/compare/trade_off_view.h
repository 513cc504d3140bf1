// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/compare/trade_off_presenter.h"
#include "app/rack/scale.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace inchpeg::app
{

/// The rails over what they cost, the front through those that are worth it.
class TradeOffPlot : public QWidget
{
    Q_OBJECT
public:
    TradeOffPlot(ProjectSession &session, TradeOffPresenter &presenter, QWidget *parent = nullptr);
    [[nodiscard]] QPointF placeOf(std::size_t point) const;
    [[nodiscard]] QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent *event) override;
    void mousePressEvent(QMouseEvent *event) override;
    bool event(QEvent *event) override;

private:
    [[nodiscard]] QRectF sheet() const;
    [[nodiscard]] std::optional<std::size_t> pointAt(QPointF place) const;
    void layOut();
    void paintAxes(QPainter &painter) const;
    void paintPoint(QPainter &painter, std::size_t point) const;
    /// Beside its point, inside of the sheet, and clear of the titles that stand there already.
    [[nodiscard]] QRectF titlePlace(const QFontMetrics &font, std::size_t point,
                                    const std::vector<QRectF> &taken) const;

    ProjectSession &m_session;
    TradeOffPresenter &m_presenter;
    Scale m_x;
    Scale m_y;
};

/// Below the rails of Compare: a response against grams, minutes or money, and what that says.
class TradeOffView : public QWidget
{
    Q_OBJECT
public:
    explicit TradeOffView(ProjectSession &session, QWidget *parent = nullptr);

    [[nodiscard]] TradeOffPresenter &presenter() { return m_presenter; }

private:
    void showPresented();

    TradeOffPresenter m_presenter;
    TradeOffPlot *m_plot = nullptr;
    QComboBox *m_kind = nullptr;
    QLabel *m_sentence = nullptr;
};

} // namespace inchpeg::app
