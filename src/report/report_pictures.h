// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/report/drawing.h"

#include <QObject>
#include <QTextCharFormat>
#include <QTextObjectInterface>

#include <vector>

namespace inchpeg
{

/// Draws the pictures of a report as lines and letters where its text has them, none wider than the text.
class ReportPictures : public QObject, public QTextObjectInterface
{
    Q_OBJECT
    Q_INTERFACES(QTextObjectInterface)
public:
    static constexpr int kObject = QTextFormat::UserObject + 1;

    explicit ReportPictures(double textWidth) : m_textWidth(textWidth) {}

    /// The format of the letter that stands for the drawing, which must outlive this.
    QTextCharFormat add(const Drawing &drawing);
    QSizeF intrinsicSize(QTextDocument *document, int position, const QTextFormat &format) override;
    void drawObject(QPainter *painter, const QRectF &place, QTextDocument *document, int position,
                    const QTextFormat &format) override;

private:
    [[nodiscard]] const Drawing &drawingOf(const QTextFormat &format) const;
    [[nodiscard]] double scaleOf(const Drawing &drawing) const;

    double m_textWidth;
    std::vector<const Drawing *> m_drawings;
};

} // namespace inchpeg
