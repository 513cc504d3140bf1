// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <QSize>
#include <QString>

#include <functional>

class QPainter;

namespace inchpeg::app
{

/// Something that is drawn, and what it is drawn from.
struct Picture {
    QSize size;
    std::function<void(QPainter &)> paint;
    std::function<QString()> text; ///< tab-separated
};

/// Writes a picture to a file: SVG and PDF as vectors, PNG at twice the size, TSV its data as text. The
/// ending of the name decides. Errors: InvalidArgument for another ending; Storage where the file cannot be
/// written.
Status savePicture(const QString &path, const Picture &picture);

/// The filter of a file window for pictures.
QString pictureFilter();

} // namespace inchpeg::app
