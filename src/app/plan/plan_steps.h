// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/step_strip.h"

namespace inchpeg::app
{

/// The parts of a plan, in the order in which one thinks of them.
enum class PlanStep { Ask, Pieces, Specimen, Rig, Plates, Calendar, Check, Paper };

/// The strip of parts above the plan.
class PlanSteps : public StepStrip
{
    Q_OBJECT
public:
    explicit PlanSteps(QWidget *parent = nullptr)
        : StepStrip({tr("Ask"), tr("Pieces"), tr("Specimen"), tr("Rig"), tr("Plates"), tr("Dates"),
                     tr("Check"), tr("Paper")},
                    QStringLiteral("step"), parent)
    {
    }
    void setState(PlanStep step, StepState state, const QString &tip)
    {
        StepStrip::setState(static_cast<int>(step), state, tip);
    }
    void choose(PlanStep step) { StepStrip::choose(static_cast<int>(step)); }
};

} // namespace inchpeg::app
