// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/export/picture.h"

#include "app/theme/theme.h"
#include "disk/file_bytes.h"

#include <QApplication>
#include <QBuffer>
#include <QFont>
#include <QImage>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <QSvgGenerator>

#include <fmt/format.h>

namespace inchpeg::app
{

namespace
{

constexpr int kPointsPerInch = 72;
constexpr qreal kPngScale = 2.0;

using Paint = std::function<void(QPainter &)>;

QByteArray asSvg(QSize size, const Paint &paint)
{
    QBuffer buffer;
    buffer.open(QIODevice::WriteOnly);
    QSvgGenerator svg;
    svg.setOutputDevice(&buffer);
    svg.setSize(size);
    svg.setViewBox(QRect(QPoint(0, 0), size));
    svg.setTitle(QStringLiteral("Inch Peg"));
    QPainter painter(&svg);
    painter.setFont(QApplication::font());
    paint(painter);
    painter.end();
    return buffer.data();
}

QByteArray asPdf(QSize size, const Paint &paint)
{
    QBuffer buffer;
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter pdf(&buffer);
    pdf.setResolution(kPointsPerInch);
    pdf.setPageSize(QPageSize(QSizeF(size), QPageSize::Point, QString(), QPageSize::ExactMatch));
    pdf.setPageMargins(QMarginsF());
    QPainter painter(&pdf);
    QFont font = QApplication::font();
    font.setPointSizeF(QFontInfo(font).pixelSize()); // a point is a pixel here
    painter.setFont(font);
    paint(painter);
    painter.end();
    return buffer.data();
}

QByteArray asPng(QSize size, const Paint &paint)
{
    QImage image(size * kPngScale, QImage::Format_ARGB32_Premultiplied);
    image.setDevicePixelRatio(kPngScale);
    image.fill(currentTheme().sheet);
    QPainter painter(&image);
    painter.setFont(QApplication::font());
    paint(painter);
    painter.end();
    QBuffer buffer;
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    return buffer.data();
}

} // namespace

Status savePicture(const QString &path, const Picture &picture)
{
    QByteArray bytes;
    if (path.endsWith(QStringLiteral(".svg"), Qt::CaseInsensitive))
        bytes = asSvg(picture.size, picture.paint);
    else if (path.endsWith(QStringLiteral(".pdf"), Qt::CaseInsensitive))
        bytes = asPdf(picture.size, picture.paint);
    else if (path.endsWith(QStringLiteral(".png"), Qt::CaseInsensitive))
        bytes = asPng(picture.size, picture.paint);
    else if (path.endsWith(QStringLiteral(".tsv"), Qt::CaseInsensitive))
        bytes = picture.text().toUtf8();
    else
        return invalidArgument(
            fmt::format("{}: end the name with .svg, .pdf, .png or .tsv", path.toStdString()));
    return writeFileBytes(path.toStdString(),
                          std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
}

QString pictureFilter()
{
    return QCoreApplication::translate(
        "Picture", "Vector picture (*.svg);;PDF (*.pdf);;Picture (*.png);;Its data as text (*.tsv)");
}

} // namespace inchpeg::app
