// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/plan/plan_presenter.h"

#include <QComboBox>

namespace inchpeg::app
{

/// Which test of the study a page is about; hidden while there is only one.
class TestChoice : public QComboBox
{
    Q_OBJECT
public:
    explicit TestChoice(PlanPresenter &presenter, QWidget *parent = nullptr)
        : QComboBox(parent), m_presenter(presenter)
    {
        setAccessibleName(tr("Which test"));
        connect(this, &QComboBox::activated, this, &TestChoice::chosen);
    }

    /// The chosen test with what is planned of it.
    [[nodiscard]] const PlannedTest &planned() const
    {
        const std::vector<PlannedTest> &tests = m_presenter.state().tests();
        const auto index = static_cast<std::size_t>(std::max(0, currentIndex()));
        return tests[std::min(index, tests.size() - 1)];
    }

    void refresh()
    {
        const std::vector<PlannedTest> &tests = m_presenter.state().tests();
        const QString before = currentText();
        clear();
        for (const PlannedTest &test : tests)
            addItem(QString::fromUtf8(methodName(test.method)));
        setCurrentIndex(std::max(0, findText(before)));
        setVisible(tests.size() > 1);
    }

signals:
    void chosen();

private:
    PlanPresenter &m_presenter;
};

} // namespace inchpeg::app
