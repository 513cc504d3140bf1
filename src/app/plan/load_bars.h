// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/rig_check.h"

#include <QWidget>

#include <vector>

namespace inchpeg::app
{

/// How the expected loads of the rails lie in a rig's range, one bar a rail on one scale.
class LoadBars : public QWidget
{
    Q_OBJECT
public:
    struct Bar {
        QString rail;
        QString load;
        double share = 0.0; ///< of the range
        RigFit fit = RigFit::Unknown;
    };
    explicit LoadBars(QWidget *parent = nullptr);
    /// pendulum: a tenth is marked as well as four fifths.
    void set(std::vector<Bar> bars, bool pendulum);
    [[nodiscard]] QSize sizeHint() const override;
    [[nodiscard]] QSize minimumSizeHint() const override { return {200, sizeHint().height()}; }

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    std::vector<Bar> m_bars;
    bool m_pendulum = false;
};

} // namespace inchpeg::app
