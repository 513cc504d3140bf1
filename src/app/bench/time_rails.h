// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/timed_presenter.h"

#include <QWidget>

namespace inchpeg::app
{

/// Loads, or pieces under load, as rails of time: a hole where a reading is due, a peg where it was taken.
/// Time runs evenly from one reading to the next. A click on a rail chooses its piece.
class TimeRails : public QWidget
{
    Q_OBJECT
public:
    explicit TimeRails(QWidget *parent = nullptr);
    void show(std::vector<TimeRail> rails);
    [[nodiscard]] QSize sizeHint() const override;
    [[nodiscard]] QSize minimumSizeHint() const override;

signals:
    void chosen(inchpeg::PieceId piece);

protected:
    void paintEvent(QPaintEvent *event) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    [[nodiscard]] double placeOf(double time_s) const; ///< x of a time after the load was put on

    std::vector<TimeRail> m_rails;
    std::vector<double> m_due_s; ///< that the places follow from
};

} // namespace inchpeg::app
