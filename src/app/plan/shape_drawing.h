// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/theme/theme.h"
#include "core/method/method.h"
#include "core/specimen/shape.h"
#include "core/text/notation.h"

#include <QWidget>

class QPainter;

namespace inchpeg::app
{

/// The outline of a shape to scale, filling the rectangle; yields picture points per millimetre.
double paintShape(QPainter &painter, QRectF room, const SpecimenShape &shape, const Theme &theme,
                  double penWidth = 1.4);

/// A specimen from above and from its end, to one scale, with its dimensions.
class ShapeDrawing : public QWidget
{
    Q_OBJECT
public:
    explicit ShapeDrawing(QWidget *parent = nullptr);
    void set(const SpecimenShape &shape, const Notation &notation);
    [[nodiscard]] QSize sizeHint() const override { return {460, 190}; }
    [[nodiscard]] QSize minimumSizeHint() const override { return {220, 150}; }

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    SpecimenShape m_shape;
    Notation m_notation;
};

} // namespace inchpeg::app
