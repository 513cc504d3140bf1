// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/piece_count.h"

#include <QWidget>

namespace inchpeg::app
{

/// What difference n pieces a rail can show: a falling curve with the plan as a peg on it, which can be
/// dragged along, and the difference that matters as a line across.
class PowerCurve : public QWidget
{
    Q_OBJECT
public:
    explicit PowerCurve(QWidget *parent = nullptr);

    /// curve: as worked out; pieces: of the plan, spares left out; matters: a fraction.
    void set(std::vector<VisibleDifference> curve, int pieces, double matters);
    [[nodiscard]] QPointF pegPoint() const; ///< where the peg is drawn; for tests
    [[nodiscard]] QSize sizeHint() const override { return {480, 190}; }
    [[nodiscard]] QSize minimumSizeHint() const override { return {220, 150}; }

signals:
    /// The peg was let go at another number of pieces.
    void piecesChosen(int pieces);

protected:
    void paintEvent(QPaintEvent *event) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    [[nodiscard]] QRectF plot() const;
    [[nodiscard]] double xOf(double pieces) const;
    [[nodiscard]] double yOf(double difference) const;
    [[nodiscard]] int piecesAt(double x) const;
    [[nodiscard]] std::optional<double> differenceWith(double pieces) const;
    [[nodiscard]] int shownPieces() const { return m_dragged.value_or(m_pieces); }
    [[nodiscard]] double top() const;
    void describe();

    std::vector<VisibleDifference> m_curve;
    int m_pieces = 0;
    double m_matters = 0.1;
    std::optional<int> m_dragged; ///< while the peg is held
};

} // namespace inchpeg::app
