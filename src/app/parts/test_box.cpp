// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/parts/test_box.h"

namespace inchpeg::app
{

void offerTests(QComboBox &box, const Study *study, const std::optional<Method> &shown,
                const QString &wording)
{
    box.setVisible(study != nullptr && study->tests.size() > 1);
    box.clear();
    if (study == nullptr)
        return;
    for (const StudyTest &test : study->tests)
        box.addItem(wording.arg(QString::fromUtf8(methodName(test.method))), static_cast<int>(test.method));
    if (shown)
        box.setCurrentIndex(box.findData(static_cast<int>(*shown)));
}

Method chosenTest(const QComboBox &box)
{
    return static_cast<Method>(box.currentData().toInt());
}

} // namespace inchpeg::app
