// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/announcer.h"
#include "app/session/plan_state.h"
#include "core/planning/timed_readings.h"

#include <QObject>
#include <QTimer>

#include <map>

namespace inchpeg::app
{

/// Readings of pieces under load in all studies of the project: what is due, told once when it is, in
/// whatever lens the person is.
class DueWatch : public QObject
{
    Q_OBJECT
public:
    DueWatch(ProjectSession &session, PlanState &plan, Announcer &announcer, QObject *parent = nullptr);

    [[nodiscard]] const std::vector<DueReading> &readings() const { return m_readings; }
    /// "A3: creep reading after 24 h, Tue 09:12, in 3 h 12 min".
    [[nodiscard]] QString text(const DueReading &reading) const;
    /// Looks again; a test with a clock of its own asks for it.
    void look();

signals:
    void changed();

private:
    void announce(const DueReading &reading);

    ProjectSession &m_session;
    PlanState &m_plan;
    Announcer &m_announcer;
    QTimer m_timer;
    std::vector<DueReading> m_readings;
    std::map<PieceId, std::int64_t> m_announced; ///< due times that were told
};

} // namespace inchpeg::app
