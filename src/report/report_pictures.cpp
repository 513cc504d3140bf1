// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/report_pictures.h"

#include "report/drawing_painter.h"

#include <QPainter>

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr int kPictureNumber = QTextFormat::UserProperty + 1;

} // namespace

QTextCharFormat ReportPictures::add(const Drawing &drawing)
{
    m_drawings.push_back(&drawing);
    QTextCharFormat format;
    format.setObjectType(kObject);
    format.setProperty(kPictureNumber, static_cast<int>(m_drawings.size()) - 1);
    return format;
}

QSizeF ReportPictures::intrinsicSize(QTextDocument *, int, const QTextFormat &format)
{
    const Drawing &drawing = drawingOf(format);
    return QSizeF(drawing.width, drawing.height) * scaleOf(drawing);
}

void ReportPictures::drawObject(QPainter *painter, const QRectF &place, QTextDocument *, int,
                                const QTextFormat &format)
{
    const Drawing &drawing = drawingOf(format);
    painter->save();
    painter->translate(place.topLeft());
    painter->scale(scaleOf(drawing), scaleOf(drawing));
    paintDrawing(*painter, drawing);
    painter->restore();
}

const Drawing &ReportPictures::drawingOf(const QTextFormat &format) const
{
    return *m_drawings[static_cast<std::size_t>(format.intProperty(kPictureNumber))];
}

double ReportPictures::scaleOf(const Drawing &drawing) const
{
    return std::min(1.0, m_textWidth / drawing.width);
}

} // namespace inchpeg
