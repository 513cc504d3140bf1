// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/drawing_painter.h"

#include <QBuffer>
#include <QFontMetricsF>
#include <QImage>
#include <QPainter>
#include <QPainterPath>

namespace inchpeg
{

namespace
{

QColor colourOf(Ink ink)
{
    return QColor(QString::fromUtf8(inkColour(ink).data(), qsizetype(inkColour(ink).size())));
}

/// One shape at a time.
struct ShapePainter {
    QPainter &painter;

    void setUp(double width, Ink ink, const std::optional<Ink> &fill) const
    {
        painter.setPen(width > 0.0 ? QPen(colourOf(ink), width) : QPen(Qt::NoPen));
        painter.setBrush(fill ? QBrush(colourOf(*fill)) : QBrush(Qt::NoBrush));
    }
    void operator()(const DrawnPath &path) const
    {
        setUp(path.width, path.ink, path.fill);
        if (const std::vector<double> pattern = dashPattern(path.dash); !pattern.empty()) {
            QPen pen = painter.pen();
            QVector<qreal> dashes; // of a pen they count in its widths
            for (const double length : pattern)
                dashes << length / path.width;
            pen.setDashPattern(dashes);
            pen.setCapStyle(Qt::FlatCap);
            painter.setPen(pen);
        }
        QPolygonF points;
        for (const DrawnPoint &point : path.points)
            points << QPointF(point.x, point.y);
        if (path.isClosed)
            painter.drawPolygon(points);
        else
            painter.drawPolyline(points);
    }
    void operator()(const DrawnCircle &circle) const
    {
        setUp(circle.width, circle.ink, circle.fill);
        painter.drawEllipse(QPointF(circle.centre.x, circle.centre.y), circle.radius, circle.radius);
    }
    void operator()(const DrawnText &text) const
    {
        // Fonts count in whole picture points: set large and drawn small, letters keep their places at any
        // scale.
        constexpr double kFineness = 20.0;
        const QFont font = reportFont(static_cast<int>(text.size * kFineness), text.isBold);
        const QString shown = QString::fromStdString(text.text);
        const double width = QFontMetricsF(font).horizontalAdvance(shown) / kFineness;
        const double back = text.anchor == Anchor::Start    ? 0.0
                            : text.anchor == Anchor::Middle ? width / 2.0
                                                            : width;
        painter.save();
        painter.translate(text.at.x, text.at.y);
        if (text.isUpright)
            painter.rotate(-90.0);
        painter.translate(-back, 0.0);
        painter.scale(1.0 / kFineness, 1.0 / kFineness);
        painter.setFont(font);
        painter.setPen(colourOf(text.ink));
        painter.drawText(QPointF(0.0, 0.0), shown);
        painter.restore();
    }
};

} // namespace

QFont reportFont(int pixels, bool isBold)
{
    constexpr double kUnseen = 0.02; // letters with any space between them (from 1/64 on) are not joined
    QFont font(QStringLiteral("Noto Sans"));
    font.setPixelSize(pixels);
    font.setBold(isBold);
    font.setLetterSpacing(QFont::AbsoluteSpacing, kUnseen);
    return font;
}

void paintDrawing(QPainter &painter, const Drawing &drawing)
{
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    for (const DrawnShape &shape : drawing.shapes)
        std::visit(ShapePainter{painter}, shape);
    painter.restore();
}

QByteArray drawingPng(const Drawing &drawing, double scale)
{
    QImage image(static_cast<int>(drawing.width * scale), static_cast<int>(drawing.height * scale),
                 QImage::Format_RGB32);
    image.fill(Qt::white);
    QPainter painter(&image);
    painter.scale(scale, scale);
    paintDrawing(painter, drawing);
    painter.end();
    QBuffer buffer;
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    return buffer.data();
}

} // namespace inchpeg
