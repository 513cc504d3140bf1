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
    /// Those of the project's studies whose header says so, that on the rack as it is now. The others are not
    /// even read.
    [[nodiscard]] std::vector<const Study *>
    studies(const std::function<bool(const StudyHeader &header)> &isWanted);
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
    struct Followed {
        std::optional<std::vector<PlannedTest>> tests;
        std::optional<PlateLayout> layout;
        std::optional<OwnResults> own;
        std::optional<std::vector<Confound>> confounds;
        std::optional<std::vector<CalendarEntry>> calendar;
    };
    Followed m_now;
    /// What was worked out before the last changes, until the event loop is back: a view that is being
    /// refreshed may still look at it when a field that it hides hands over its text.
    std::vector<Followed> m_before;
    std::optional<OwnResults> m_earlier; ///< of the project's other studies
    std::string m_earlierKey;
    StudyId m_earlierOf; ///< the study for which they were looked through
    QString m_calendarTrouble;
    std::map<StudyId, Study> m_others; ///< studies that are not on the rack, as last loaded
};

} // namespace inchpeg::app
