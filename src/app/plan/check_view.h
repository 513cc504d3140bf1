// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/plan/plan_presenter.h"

#include <QWidget>

class QLabel;
class QVBoxLayout;

namespace inchpeg::app
{

/// What moves together with the factors, and what can hurt.
class CheckView : public QWidget
{
    Q_OBJECT
public:
    explicit CheckView(PlanPresenter &presenter, QWidget *parent = nullptr);
    void refresh();

private:
    void addConfound(const Confound &confound, int number);

    PlanPresenter &m_presenter;
    QVBoxLayout *m_confounds = nullptr;
    QVBoxLayout *m_cautions = nullptr;
    QLabel *m_needed = nullptr;
};

} // namespace inchpeg::app
