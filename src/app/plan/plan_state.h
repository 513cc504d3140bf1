// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "core/planning/calendar.h"
#include "core/planning/confounds.h"
#include "core/planning/plates.h"

#include <QObject>

namespace inchpeg::app
{

/// What follows from the plan of the study on the rack and its workshop: worked out once after a change, when
/// it is first asked for.
class PlanState : public QObject
{
    Q_OBJECT
public:
    explicit PlanState(ProjectSession &session, QObject *parent = nullptr);

    /// Precondition of all but calendar(): a study is on the rack.
    [[nodiscard]] const Study &study() const;
    [[nodiscard]] const std::vector<PlannedTest> &tests();
    [[nodiscard]] const PlateLayout &layout();
    [[nodiscard]] const OwnResults &own();
    [[nodiscard]] const std::vector<Confound> &confounds();
    /// The work of all dated studies of the project. Empty, with a sentence in calendarTrouble(), where it
    /// cannot be laid out.
    [[nodiscard]] const std::vector<CalendarEntry> &calendar();
    [[nodiscard]] QString calendarTrouble();
    [[nodiscard]] QString questionOf(StudyId study); ///< for calendar entries
    [[nodiscard]] Moment today() const;              ///< in the workshop's own time

signals:
    /// Something of it may be different now.
    void changed();

private:
    void forget();
    void layOutTime();

    ProjectSession &m_session;
    std::optional<std::vector<PlannedTest>> m_tests;
    std::optional<PlateLayout> m_layout;
    std::optional<OwnResults> m_own;
    std::optional<OwnResults> m_earlier; ///< of the project's other studies
    std::string m_earlierKey;
    std::optional<std::vector<Confound>> m_confounds;
    std::optional<std::vector<CalendarEntry>> m_calendar;
    QString m_calendarTrouble;
    std::map<StudyId, Study> m_others; ///< studies that are not on the rack, as last loaded
};

} // namespace inchpeg::app
