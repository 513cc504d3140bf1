// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/theme/theme.h"
#include "core/planning/plates.h"

#include <QWidget>

class QPainter;

namespace inchpeg::app
{

/// One plate from above, its pieces where they lie, shaded by rail and marked with their codes.
/// Yields picture points per millimetre.
double paintPlate(QPainter &painter, QRectF room, const Study &study, const PlateLayout &layout,
                  const Plate &plate, PieceId selected, const Theme &theme);

/// All plates of the plan side by side, in the order of printing.
class PlatePictures : public QWidget
{
    Q_OBJECT
public:
    explicit PlatePictures(QWidget *parent = nullptr);
    void set(const Study &study, const PlateLayout &layout, PieceId selected);
    [[nodiscard]] int chosenPlate() const { return m_chosen; } ///< its number; 0: none
    [[nodiscard]] QSize sizeHint() const override;
    [[nodiscard]] bool hasHeightForWidth() const override { return true; }
    [[nodiscard]] int heightForWidth(int width) const override;

signals:
    void plateChosen(int number);
    void pieceChosen(inchpeg::PieceId piece);

protected:
    void paintEvent(QPaintEvent *event) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    [[nodiscard]] int columns(int width) const;
    [[nodiscard]] QRectF cell(std::size_t index, int width) const;
    void choosePlate(int number);

    Study m_study;
    PlateLayout m_layout;
    PieceId m_selected;
    int m_chosen = 0;
};

} // namespace inchpeg::app
