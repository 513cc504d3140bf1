// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"

#include <QComboBox>

namespace inchpeg::app
{

/// Fills a choice with the tests of a study in their order; it is hidden where there is none to choose.
/// wording: "records of %1".
void offerTests(QComboBox &box, const Study *study, const std::optional<Method> &shown,
                const QString &wording = QStringLiteral("%1"));
/// Precondition: the box offers a test.
Method chosenTest(const QComboBox &box);

} // namespace inchpeg::app
