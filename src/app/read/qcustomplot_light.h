// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The plotting library's header pulls in all of QtWidgets through QtPrintSupport. Standing in for that
// umbrella header with the few it needs halves the time to compile each file.
#include <QtPrintSupport/qtprintsupport-config.h>
#ifndef QT_QTPRINTSUPPORT_MODULE_H
#define QT_QTPRINTSUPPORT_MODULE_H
#endif
#include <QLayout>
#include <QLocale>
#include <QPainter>
#include <QSharedPointer>
#include <QWidget>

#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wconversion"
#pragma GCC diagnostic ignored "-Wshadow"
#include <qcustomplot.h>
#pragma GCC diagnostic pop
