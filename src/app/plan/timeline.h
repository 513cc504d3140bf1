// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/calendar.h"

#include <QWidget>

#include <vector>

namespace inchpeg::app
{

/// Work in time: a row for each thing that works or is waited for, days across; what needs a person is
/// filled, what goes on alone is open.
class Timeline : public QWidget
{
    Q_OBJECT
public:
    explicit Timeline(QWidget *parent = nullptr);
    /// own: whose entries are drawn strong; others are drawn faintly.
    void set(std::vector<CalendarEntry> entries, StudyId own, Moment now);
    [[nodiscard]] QSize sizeHint() const override;
    [[nodiscard]] QSize minimumSizeHint() const override { return {240, sizeHint().height()}; }

protected:
    void paintEvent(QPaintEvent *event) override;
    bool event(QEvent *event) override;

private:
    struct Row {
        QString name;
        std::vector<std::size_t> entries;
    };
    [[nodiscard]] double xOf(Moment moment) const;
    [[nodiscard]] QRectF barOf(std::size_t row, const CalendarEntry &entry) const;

    std::vector<CalendarEntry> m_entries;
    std::vector<Row> m_rows;
    StudyId m_own;
    Moment m_from;
    Moment m_to;
    Moment m_now;
};

} // namespace inchpeg::app
