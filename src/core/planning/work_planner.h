// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/workshop.h"
#include "core/planning/moment.h"

#include <map>
#include <string>
#include <vector>

namespace inchpeg
{

/// What a piece of work asks for.
struct WorkNeed {
    Minutes length{0};
    std::string resource; ///< a printer, rig or stand; empty: none
    double amount = 1.0;  ///< of the resource's capacity, for the whole length
    Minutes attended{0};  ///< for so long, from the beginning, a person does nothing else
};

/// When people work, and what is busy: resources up to their capacity, and the one person who does the work.
class WorkPlanner
{
public:
    explicit WorkPlanner(const Workshop &workshop) : m_workshop(workshop) {}

    /// How much of a resource can be held at once; 1 unless said otherwise.
    void setCapacity(const std::string &resource, double capacity) { m_capacity[resource] = capacity; }

    /// The first moment from here on that lies in working hours.
    [[nodiscard]] Moment inHours(Moment from) const;
    [[nodiscard]] Moment endOfHours(Moment within) const { return hoursOf(within).second; }

    /// The first moment from here on, in working hours, at which the resource is free for the whole length
    /// and the person for as long as it is attended; attended work that fits a day stays within its hours.
    [[nodiscard]] Moment slot(Moment from, const WorkNeed &need) const;

    /// From a start on the resource is taken for the length, and the person for as long as it is attended.
    void hold(Moment start, const WorkNeed &need);

    [[nodiscard]] Minutes longestDay() const;

private:
    struct Busy {
        Moment start;
        Moment end;
        double amount = 1.0;
    };

    [[nodiscard]] std::pair<Moment, Moment> hoursOf(Moment moment) const;
    /// When the resource has room next, where it has none from start to end; nothing where it has.
    [[nodiscard]] std::optional<Moment> freeAgain(const std::string &resource, Moment start, Moment end,
                                                  double amount) const;

    const Workshop &m_workshop;
    std::map<std::string, double> m_capacity;
    std::map<std::string, std::vector<Busy>> m_busy;
};

} // namespace inchpeg
