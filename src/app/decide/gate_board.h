// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/decide/decide_presenter.h"

#include <QWidget>

namespace inchpeg::app
{

/// The candidates as rails and the needs as gates across them: a peg stands where its value lies beside the
/// gate, the good side to the right. Its shape tells what is known: full, measured; half, a data sheet;
/// hollow, usual; none, a question mark.
class GateBoard : public QWidget
{
    Q_OBJECT
public:
    explicit GateBoard(DecidePresenter &presenter, QWidget *parent = nullptr);
    void refresh();
    [[nodiscard]] QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent *event) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    bool event(QEvent *event) override;

private:
    [[nodiscard]] double columnWidth() const;
    [[nodiscard]] double headHeight() const;
    [[nodiscard]] double rowHeight() const;
    [[nodiscard]] QRectF cell(std::size_t candidate, std::size_t need) const;
    void paintHead(QPainter &painter) const;
    void paintRow(QPainter &painter, std::size_t candidate) const;
    void paintGate(QPainter &painter, std::size_t candidate, std::size_t need) const;

    DecidePresenter &m_presenter;
};

} // namespace inchpeg::app
