// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/rig/live_trace.h"
#include "core/text/notation.h"

#include <QWidget>

#include <vector>

namespace inchpeg::app
{

/// The curve of the piece at the rig as it grows.
class LivePlot : public QWidget
{
    Q_OBJECT
public:
    explicit LivePlot(QWidget *parent = nullptr);
    /// limit: of the gauge, in the unit of the curve; 0: none is drawn. others: drawn faintly behind.
    void show(const LiveTrace &trace, const QString &xLabel, const QString &yLabel, double limit,
              const Notation &notation, const std::vector<const LiveTrace *> &others);
    [[nodiscard]] QSize sizeHint() const override { return {400, 260}; }

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    LiveTrace m_trace;
    std::vector<LiveTrace> m_others;
    QString m_xLabel;
    QString m_yLabel;
    double m_limit = 0.0;
    Notation m_notation;
};

} // namespace inchpeg::app
