// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/work_planner.h"

#include <algorithm>

namespace inchpeg
{

namespace
{

using namespace std::chrono;

const std::string kPerson = "\x01person"; ///< no resource that a card can name

} // namespace

Moment WorkPlanner::inHours(Moment from) const
{
    while (true) {
        const auto [open, close] = hoursOf(from);
        if (open < close && from < close)
            return std::max(from, open);
        from = dayOf(from) + days{1};
    }
}

Moment WorkPlanner::slot(Moment from, const WorkNeed &need) const
{
    Moment start = inHours(from);
    while (true) {
        const Minutes length = std::max(need.length, Minutes{1});
        std::optional<Moment> next = freeAgain(need.resource, start, start + length, need.amount);
        if (!next && need.attended.count() > 0)
            next = freeAgain(kPerson, start, start + need.attended, 1.0);
        if (next)
            start = inHours(*next);
        else if (need.attended.count() > 0 && start + need.attended > endOfHours(start) &&
                 need.attended <= longestDay())
            start = inHours(endOfHours(start));
        else
            return start;
    }
}

void WorkPlanner::hold(Moment start, const WorkNeed &need)
{
    if (!need.resource.empty())
        m_busy[need.resource].push_back({start, start + need.length, need.amount});
    if (need.attended.count() > 0)
        m_busy[kPerson].push_back({start, start + need.attended, 1.0});
}

std::optional<Moment> WorkPlanner::freeAgain(const std::string &resource, Moment start, Moment end,
                                             double amount) const
{
    const auto busy = m_busy.find(resource);
    if (resource.empty() || busy == m_busy.end())
        return std::nullopt;
    const auto known = m_capacity.find(resource);
    const double capacity = known == m_capacity.end() ? 1.0 : known->second;
    double held = 0.0;
    std::optional<Moment> firstEnd;
    for (const Busy &one : busy->second) {
        if (start < one.end && one.start < end) {
            held += one.amount; // all that overlap are counted together: on the safe side
            firstEnd = firstEnd ? std::min(*firstEnd, one.end) : one.end;
        }
    }
    const bool fits = held + std::min(amount, capacity) <= capacity * (1.0 + 1e-9);
    return fits ? std::nullopt : firstEnd;
}

Minutes WorkPlanner::longestDay() const
{
    Minutes longest{0};
    for (const WorkingDay &day : m_workshop.hours)
        longest = std::max(longest, Minutes{day.to_min - day.from_min});
    return longest;
}

std::pair<Moment, Moment> WorkPlanner::hoursOf(Moment moment) const
{
    const local_days day = dayOf(moment);
    const WorkingDay &hours = m_workshop.hours[weekday(day).iso_encoding() - 1];
    return {Moment(day) + Minutes{hours.from_min}, Moment(day) + Minutes{hours.to_min}};
}

} // namespace inchpeg
