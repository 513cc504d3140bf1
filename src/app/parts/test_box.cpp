// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/parts/test_box.h"

namespace inchpeg::app
{

void offerTests(QComboBox &box, const Study *study, const std::optional<Method> &shown,
                const QString &wording)
{
    box.setVisible(study != nullptr && !study->plan.further.empty());
    box.clear();
    if (study == nullptr)
        return;
    const auto add = [&](Method method) {
        box.addItem(wording.arg(QString::fromUtf8(methodName(method))), static_cast<int>(method));
    };
    add(study->method);
    for (const FurtherTest &further : study->plan.further)
        add(further.method);
    box.setCurrentIndex(box.findData(static_cast<int>(shown.value_or(study->method))));
}

std::optional<Method> chosenTest(const QComboBox &box)
{
    return box.currentIndex() <= 0 ? std::nullopt
                                   : std::optional(static_cast<Method>(box.currentData().toInt()));
}

} // namespace inchpeg::app
