// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/plates.h"
#include "core/text/notation.h"

#include <QImage>
#include <QString>

#include <map>
#include <memory>

class QPainter;
class QTextDocument;

namespace inchpeg::app
{

/// What a run sheet is made from.
struct RunSheetContent {
    Study study;
    PlateLayout layout;
    Workshop workshop;
    Notation notation;
};

/// Its text and the pictures of its plates by their numbers: values, so that another thread can make them.
struct RunSheetParts {
    QString html;
    std::map<int, QImage> plates;
};
RunSheetParts runSheetParts(const RunSheetContent &content);

/// The run sheet for the workshop, as A4 pages: what is asked, what is held, cautions, plates with their
/// pictures, the order of testing with room to write.
std::unique_ptr<QTextDocument> runSheet(const RunSheetParts &parts);

/// Draws a page of it, from 0, on a painter that counts in millimetres; the same on screen and on paper.
void paintRunSheetPage(QPainter &painter, const QTextDocument &sheet, int page);

/// Errors: InvalidArgument without pieces; Storage, with the path.
Status writeRunSheet(const QString &path, const RunSheetContent &content);

} // namespace inchpeg::app
