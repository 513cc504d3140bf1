// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/plan_state.h"

#include "service/earlier_results.h"
#include "service/local_zone.h"

#include <QTimer>

#include <utility>

namespace inchpeg::app
{

PlanState::PlanState(ProjectSession &session, QObject *parent) : QObject(parent), m_session(session)
{
    const auto onChange = [this] {
        forget();
        emit changed();
    };
    connect(&session, &ProjectSession::studyChanged, this, onChange);
    connect(&session, &ProjectSession::workshopChanged, this, [this, onChange] {
        m_earlier.reset();
        onChange();
    });
    connect(&session, &ProjectSession::otherStudyChanged, this, [this](StudyId id) {
        m_others.erase(id);
        m_earlier.reset();
    });
    connect(&session, &ProjectSession::readingsChanged, this, onChange);
    connect(&session, &ProjectSession::notationChanged, this, &PlanState::changed);
    connect(&session, &ProjectSession::projectChanged, this, [this, onChange] {
        m_others.clear();
        m_earlier.reset();
        onChange();
    });
}

void PlanState::forget()
{
    if (m_before.empty())
        QTimer::singleShot(0, this, [this] { m_before.clear(); });
    m_before.push_back(std::exchange(m_now, {}));
    if (m_session.study() == nullptr)
        return;
    m_others.erase(m_session.study()->id); // it may be left with other contents than were loaded once
    if (m_earlierOf != m_session.study()->id)
        m_earlier.reset(); // and what the others yielded for one of them with it
}

const Study &PlanState::study() const
{
    require(m_session.study() != nullptr, "no study is on the rack");
    return *m_session.study();
}

const std::vector<PlannedTest> &PlanState::tests()
{
    if (!m_now.tests)
        m_now.tests = plannedTests(study());
    return *m_now.tests;
}

const PlateLayout &PlanState::layout()
{
    if (!m_now.layout)
        m_now.layout = layOutPlates(study(), m_session.workshop());
    return *m_now.layout;
}

const OwnResults &PlanState::own()
{
    if (!m_now.own)
        m_now.own = resultsOfStudy(study(), m_session.readings());
    if (m_now.own->cv)
        return *m_now.own;
    // Looking through the other studies takes its time: only where another answer may come of it.
    const std::string key = earlierResultsKey(study());
    if (!m_earlier || m_earlierKey != key) {
        m_earlier = earlierResults(m_session.project(), study(), UnreadRecords::PassOver,
                                   m_session.isForReading() ? Keeping::No : Keeping::Held);
        m_earlierKey = key;
        m_earlierOf = study().id;
    }
    return *m_earlier;
}

const std::vector<Confound> &PlanState::confounds()
{
    if (!m_now.confounds)
        m_now.confounds = confoundsOf(study(), layout());
    return *m_now.confounds;
}

std::vector<const Study *> PlanState::studies(const std::function<bool(const StudyHeader &header)> &isWanted)
{
    std::vector<const Study *> all;
    for (const StudyHeader &header : m_session.studies()) {
        if (!isWanted(header))
            continue;
        const Study *study = m_session.study();
        if (study == nullptr || study->id != header.id) {
            auto known = m_others.find(header.id);
            if (known == m_others.end()) {
                Result<Study> loaded = m_session.project().loadStudy(header.id);
                if (!loaded)
                    continue;
                known = m_others.emplace(header.id, std::move(*loaded)).first;
            }
            study = &known->second;
        }
        all.push_back(study);
    }
    return all;
}

void PlanState::layOutTime()
{
    m_now.calendar.emplace();
    m_calendarTrouble.clear();
    if (!m_session.hasProject())
        return;
    std::vector<DatedStudy> dated;
    std::vector<std::unique_ptr<PlateLayout>> layouts;
    for (const Study *study : studies([](const StudyHeader &header) { return header.isDated; })) {
        if (study->plan.dates.start.empty())
            continue;
        layouts.push_back(std::make_unique<PlateLayout>(layOutPlates(*study, m_session.workshop())));
        dated.push_back({study, layouts.back().get()});
    }
    Result<std::vector<CalendarEntry>> calendar =
        layOutCalendar(dated, m_session.workshop(), today(), localZone());
    if (calendar)
        m_now.calendar = std::move(*calendar);
    else
        m_calendarTrouble = QString::fromStdString(calendar.error().message);
}

const std::vector<CalendarEntry> &PlanState::calendar()
{
    if (!m_now.calendar)
        layOutTime();
    return *m_now.calendar;
}

QString PlanState::calendarTrouble()
{
    if (!m_now.calendar)
        layOutTime();
    return m_calendarTrouble;
}

QString PlanState::questionOf(StudyId study)
{
    for (const StudyHeader &header : m_session.studies()) {
        if (header.id == study)
            return QString::fromStdString(header.question);
    }
    return {};
}

Moment PlanState::today() const
{
    return m_session.workshopTime();
}

} // namespace inchpeg::app
