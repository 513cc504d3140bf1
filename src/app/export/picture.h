// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <QSize>
#include <QString>

#include <functional>

class QPainter;

namespace inchpeg::app
{

/// Writes what paint draws to a file: SVG and PDF as vectors, PNG at twice the size. The ending of the name
/// decides. Errors: InvalidArgument for another ending; Storage where the file cannot be written.
Status savePicture(const QString &path, QSize size, const std::function<void(QPainter &)> &paint);

/// The filter of a file window for pictures.
QString pictureFilter();

} // namespace inchpeg::app
