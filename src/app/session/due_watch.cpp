// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/due_watch.h"

#include "core/base/utc_time.h"

#include <QDateTime>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr int kLook_ms = 1000;

} // namespace

DueWatch::DueWatch(ProjectSession &session, PlanState &plan, Announcer &announcer, QObject *parent)
    : QObject(parent), m_session(session), m_plan(plan), m_announcer(announcer)
{
    m_timer.setInterval(kLook_ms);
    connect(&m_timer, &QTimer::timeout, this, &DueWatch::look);
    connect(&session, &ProjectSession::studyChanged, this, &DueWatch::look);
    connect(&session, &ProjectSession::projectChanged, this, [this] {
        m_announced.clear();
        look();
    });
    m_timer.start();
}

void DueWatch::look()
{
    const std::int64_t now = secondsSinceEpoch(m_session.now()).value_or(0);
    std::vector<DueReading> all;
    const auto hasTimedTest = [](const StudyHeader &header) {
        return std::any_of(header.tests.begin(), header.tests.end(), &isTimed);
    };
    for (const Study *study : m_plan.studies(hasTimedTest)) {
        const std::vector<DueReading> due = dueReadings(*study, now);
        all.insert(all.end(), due.begin(), due.end());
    }
    std::stable_sort(all.begin(), all.end(),
                     [](const DueReading &a, const DueReading &b) { return a.due < b.due; });
    for (const DueReading &reading : all) {
        const bool isDue = reading.state == DueState::Now || reading.state == DueState::Overdue;
        const auto told = m_announced.find(reading.piece);
        if (isDue && (told == m_announced.end() || told->second != reading.due)) {
            m_announced[reading.piece] = reading.due;
            announce(reading);
        }
    }
    const bool isSame = all == m_readings;
    m_readings = std::move(all);
    if (!isSame || !m_readings.empty())
        emit changed(); // the countdown goes on
}

QString DueWatch::text(const DueReading &reading) const
{
    const std::int64_t now = secondsSinceEpoch(m_session.now()).value_or(0);
    const QDateTime when = QDateTime::fromSecsSinceEpoch(reading.due, Qt::UTC).toLocalTime();
    return tr("%1: %2, %3, %4")
        .arg(QString::fromStdString(reading.code), QString::fromStdString(reading.what),
             when.toString(QStringLiteral("ddd HH:mm")),
             QString::fromStdString(countdownText(static_cast<double>(reading.due - now))));
}

void DueWatch::announce(const DueReading &reading)
{
    // What is due at once is asked for on the bench where the load was just put on.
    if (reading.state == DueState::Now && reading.what == dueReadingName(0.0))
        return;
    m_announcer.sound(Tone::Now);
    m_announcer.notify(tr("A reading is due"), text(reading));
}

} // namespace inchpeg::app
