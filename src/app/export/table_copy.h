// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>

class QTableView;

namespace inchpeg::app
{

/// A table as tab-separated text with its headings: the chosen cells, or all where at most one is chosen.
QString tableText(const QTableView &table);

/// Lets Ctrl+C and the context menu of a table copy it.
void offerCopy(QTableView &table);

} // namespace inchpeg::app
