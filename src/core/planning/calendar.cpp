// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/calendar.h"

#include "core/base/utc_time.h"
#include "core/model/print_state.h"
#include "core/planning/print_estimate.h"
#include "core/planning/rig_check.h"
#include "core/planning/timed_readings.h"
#include "core/planning/work_planner.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

using namespace std::chrono;

constexpr Minutes kCooling{30};
constexpr Minutes kLongest = hours{24 * 730};
constexpr Minutes kShortReading{1};
constexpr Minutes kOvenRun{120}; ///< from room temperature at 120 K/h, and time to load
/// When a piece that is left under load is read after it was loaded and read at once.
std::vector<Minutes> readingsUnderLoad(Method method)
{
    std::vector<Minutes> readings;
    for (const double due_s : dueTimes_s(method)) {
        if (due_s > 0.0)
            readings.push_back(duration_cast<Minutes>(duration<double>(due_s)));
    }
    return readings;
}

Minutes roundedUp(double minutes)
{
    return Minutes{static_cast<std::int64_t>(std::ceil(std::max(0.0, minutes)))};
}

/// Lays out one study after those that the planner knows.
class StudyScheduler
{
public:
    StudyScheduler(const DatedStudy &dated, const Workshop &workshop, WorkPlanner &planner,
                   std::vector<CalendarEntry> &entries, const ZoneOffset &offset)
        : m_offset(offset), m_study(*dated.study), m_layout(*dated.layout), m_workshop(workshop),
          m_planner(planner), m_entries(entries), m_tests(plannedTests(m_study))
    {
        for (std::size_t i = 0; i < m_layout.testOrder.size(); ++i)
            m_testPlace[m_layout.testOrder[i]] = i;
    }

    void schedule(Moment start)
    {
        Moment free = dry(start);
        std::map<int, Moment> ready; // of each round
        for (const Plate &plate : m_layout.plates) {
            const Moment cold = plate.printedAt.empty() ? print(plate, free) : start;
            ready[plate.round] = std::max(ready[plate.round], condition(plate, cold));
        }
        Moment after = start;
        for (const auto &[round, moment] : ready)
            after = test(round, std::max(moment, after));
    }

    /// Readings of pieces that are under load by now stand where they are really due.
    void runs(Moment now)
    {
        for (const Piece &piece : m_study.pieces) {
            const std::optional<LoadedRun> &run = piece.log.run;
            if (!run || run->isOver || !run->unloadedAt.empty() || piece.exclusion)
                continue;
            const std::int64_t loaded = *secondsSinceEpoch(run->loadedAt);
            const Minutes since =
                now - momentOf(loaded, m_offset) - (m_offset(now) - m_offset(momentOf(loaded, m_offset)));
            for (const TimedReading &reading :
                 timedReadings(dueTimes_s(piece.test), run->taken_s, duration<double>(since).count())) {
                if (reading.taken_s || reading.state == DueState::Missed)
                    continue;
                const Moment due = momentOf(loaded + static_cast<std::int64_t>(reading.due_s), m_offset);
                addReading(fmt::format("{}: {}", dueReadingName(reading.due_s), piece.code), due, due,
                           kShortReading);
            }
        }
    }

private:
    /// Work that holds its resource, and where it is attended the person, all along.
    void add(WorkKind kind, std::string what, const std::string &resource, Moment start, Moment end,
             bool attended)
    {
        m_entries.push_back({m_study.id, kind, std::move(what), resource, start, end, attended, 0});
        m_planner.hold(start, {end - start, resource, 1.0, attended ? end - start : Minutes{0}});
    }

    /// All spools one after the other, unless everything is printed.
    Moment dry(Moment start)
    {
        const bool open = std::any_of(m_layout.plates.begin(), m_layout.plates.end(),
                                      [](const Plate &plate) { return plate.printedAt.empty(); });
        if (!open)
            return start;
        Moment end = start;
        for (const MaterialCare &care : materialCare(m_study, m_workshop)) {
            if (care.dry_h <= 0.0)
                continue;
            const Minutes length = roundedUp(60.0 * care.dry_h);
            const Moment begin = m_planner.slot(end, {length, "dryer"});
            end = begin + length;
            add(WorkKind::Drying,
                fmt::format("dry {} at {:.0f} °C", care.material.empty() ? "the spool" : care.material,
                            care.dry_C),
                "dryer", begin, end, false);
        }
        return end;
    }

    /// Yields when the plate is cold.
    Moment print(const Plate &plate, Moment from)
    {
        const PrinterCard *printer = findPrinter(m_workshop, m_study.plan.print.printer);
        const std::string name = printer != nullptr ? printer->name : "printer";
        const Minutes length = roundedUp(plate.minutes);
        const Moment start = m_planner.slot(from, {length, name});
        add(WorkKind::Printing,
            fmt::format("print plate {}{}", plate.number,
                        plate.settings.empty() ? "" : ": " + plate.settings),
            name, start, start + length, false);
        const Moment cold = start + length + kCooling;
        add(WorkKind::Cooling, fmt::format("plate {} cools", plate.number), {}, start + length, cold, false);
        return cold;
    }

    Moment condition(const Plate &plate, Moment from)
    {
        double longest_h = 0.0;
        for (const PlacedPiece &placed : plate.pieces) {
            const Piece *piece = findPiece(m_study, placed.piece);
            longest_h = std::max(
                longest_h,
                careOf(m_study, *findCondition(m_study, piece->condition), m_workshop).conditioning_h);
        }
        if (longest_h <= 0.0)
            return from;
        const Moment start = m_planner.inHours(from); // someone takes the pieces off
        const Moment end = start + roundedUp(60.0 * longest_h);
        add(WorkKind::Conditioning, fmt::format("plate {} conditions at 23 °C and 50 %", plate.number), {},
            start, end, false);
        return end;
    }

    /// The pieces of a test that come off the plates of a round, in the drawn order of testing. One whose
    /// print failed comes from the plate that it is printed on again, if it is.
    [[nodiscard]] std::vector<const Piece *> piecesOfRound(int round, const PlannedTest &test) const
    {
        std::vector<std::pair<std::size_t, const Piece *>> found;
        for (const Plate &plate : m_layout.plates) {
            for (const PlacedPiece &placed : plate.pieces) {
                const Piece *piece = findPiece(m_study, placed.piece);
                if (plate.round != round || piece == nullptr || piece->test != test.method ||
                    piece->recording || piece->log.run || hasFailedOn(*piece, plate.number))
                    continue;
                const auto place = m_testPlace.find(placed.piece);
                if (place != m_testPlace.end())
                    found.emplace_back(place->second, piece);
            }
        }
        std::sort(found.begin(), found.end());
        std::vector<const Piece *> pieces;
        for (const auto &entry : found)
            pieces.push_back(entry.second);
        return pieces;
    }

    Moment test(int round, Moment from)
    {
        Moment last = from;
        for (const PlannedTest &test : m_tests) {
            const std::vector<const Piece *> pieces = piecesOfRound(round, test);
            if (pieces.empty())
                continue;
            if (factsOf(test.method).isWarmed)
                last = std::max(last, oven(test, pieces, from));
            else if (factsOf(test.method).isLeftUnderLoad)
                last = std::max(last, creep(test, pieces, from));
            else
                last = std::max(last, atTheRig(test, pieces, from));
        }
        return last;
    }

    /// Attended: split over days where a day does not hold all pieces.
    Moment atTheRig(const PlannedTest &test, const std::vector<const Piece *> &pieces, Moment from)
    {
        const double each = factsOf(test.method).minutesPerPiece;
        const std::string rig =
            test.setup.rig.empty() ? std::string(methodName(test.method)) : test.setup.rig;
        const auto need = [&](std::size_t count) {
            const Minutes length = roundedUp(each * static_cast<double>(count));
            return WorkNeed{length, rig, 1.0, length};
        };
        std::size_t done = 0;
        Moment at = from;
        while (done < pieces.size()) {
            // At least one piece, else as many as the day still holds.
            const Moment start = m_planner.slot(at, need(1));
            const double room = static_cast<double>((m_planner.endOfHours(start) - start).count());
            auto fit =
                std::clamp<std::size_t>(static_cast<std::size_t>(room / each), 1, pieces.size() - done);
            while (fit > 1 && m_planner.slot(start, need(fit)) != start)
                --fit;
            const Moment end = start + need(fit).length;
            add(WorkKind::Testing,
                fmt::format("test {}: {}", methodName(test.method), rangeText(pieces, done, fit)), rig, start,
                end, true);
            done += fit;
            at = end;
        }
        return at;
    }

    static std::string rangeText(const std::vector<const Piece *> &pieces, std::size_t first,
                                 std::size_t count)
    {
        return count == 1 ? pieces[first]->code
                          : fmt::format("{} pieces, {} to {}", count, pieces[first]->code,
                                        pieces[first + count - 1]->code);
    }

    /// Each piece is loaded by itself and read after a minute before the next one is; it keeps its place on
    /// the stand until the last reading. Pieces that were loaded on one day are read in one round on each
    /// later day.
    Moment creep(const PlannedTest &test, const std::vector<const Piece *> &pieces, Moment from)
    {
        const RigCard *stand = findRig(m_workshop, test.setup.rig);
        if (stand != nullptr && stand->kind == RigKind::DeadWeights && stand->range > 0.0)
            m_planner.setCapacity(stand->name, stand->range);
        const Minutes loading = roundedUp(factsOf(test.method).minutesPerPiece);
        const std::vector<Minutes> readings = readingsUnderLoad(test.method);
        std::vector<Moment> loaded;
        Moment at = from;
        for (const Piece *piece : pieces) {
            const WorkNeed need{loading + readings.back() + kShortReading, test.setup.rig,
                                loadOf(test, *piece), loading + readings.front() + kShortReading};
            const Moment start = m_planner.slot(at, need);
            m_planner.hold(start, need);
            const Moment ready = start + loading;
            m_entries.push_back({m_study.id, WorkKind::Testing, "load creep: " + piece->code, test.setup.rig,
                                 start, ready, true, 0});
            const Moment first = ready + readings.front();
            addReading(readingText({1}, readings.size(), piece->code), first, first, kShortReading);
            loaded.push_back(ready);
            at = start + need.attended;
        }
        for (std::size_t i = 0; i < pieces.size(); ++i)
            readOnce(1, readings, pieces[i]->code, loaded[i], kShortReading);
        for (std::size_t first = 0; first < pieces.size();) {
            std::size_t count = 1;
            while (first + count < pieces.size() && dayOf(loaded[first + count]) == dayOf(loaded[first]))
                ++count;
            readDaily(readings, rangeText(pieces, first, count), loaded[first], static_cast<int>(count));
            first += count;
        }
        return at;
    }

    /// In the unit of the stand's capacity; the whole of it where the load is not known.
    [[nodiscard]] double loadOf(const PlannedTest &test, const Piece &piece) const
    {
        const RigCard *stand = findRig(m_workshop, test.setup.rig);
        if (stand == nullptr || stand->kind != RigKind::DeadWeights)
            return 1.0;
        const std::optional<ExpectedLoad> load =
            expectedLoad(m_study, test, *findCondition(m_study, piece.condition), {});
        return load && load->value > 0.0 ? std::min(load->value, stand->range) : stand->range;
    }

    static std::string readingText(const std::vector<std::size_t> &numbers, std::size_t of,
                                   const std::string &range)
    {
        std::string list;
        for (std::size_t i = 0; i < numbers.size(); ++i)
            list += fmt::format("{}{}", i == 0 ? "" : i + 1 == numbers.size() ? " and " : ", ", numbers[i]);
        return fmt::format("creep reading{} {} of {}: {}", numbers.size() == 1 ? "" : "s", list, of, range);
    }

    void addReading(std::string what, Moment due, Moment start, Minutes length)
    {
        m_entries.push_back({m_study.id,
                             WorkKind::Reading,
                             std::move(what),
                             {},
                             start,
                             start + length,
                             true,
                             static_cast<int>((start - due).count())});
    }

    void readOnce(std::size_t index, const std::vector<Minutes> &readings, const std::string &range,
                  Moment loaded, Minutes length)
    {
        const Moment due = later(loaded, readings[index], m_offset);
        const WorkNeed need{length, {}, 1.0, length};
        const Moment start = m_planner.slot(due, need);
        m_planner.hold(start, need);
        addReading(readingText({index + 1}, readings.size(), range), due, start, length);
    }

    /// The readings from the second day on. Those that fall into the same time off are one.
    void readDaily(const std::vector<Minutes> &readings, const std::string &range, Moment loaded, int pieces)
    {
        const Minutes length{std::max(5, pieces)};
        for (std::size_t i = 2; i < readings.size(); ++i) {
            const Moment due = later(loaded, readings[i], m_offset);
            std::vector<std::size_t> together{i + 1};
            const Moment open = m_planner.inHours(due);
            while (i + 1 < readings.size() && open != due &&
                   m_planner.inHours(later(loaded, readings[i + 1], m_offset)) == open)
                together.push_back(++i + 1);
            const WorkNeed need{length, {}, 1.0, length};
            const Moment start = m_planner.slot(due, need);
            m_planner.hold(start, need);
            addReading(readingText(together, readings.size(), range), due, start, length);
        }
    }

    Moment oven(const PlannedTest &test, const std::vector<const Piece *> &pieces, Moment from)
    {
        const std::string rig = test.setup.rig.empty() ? "oven" : test.setup.rig;
        Moment at = from;
        for (const Piece *piece : pieces) {
            const Moment start = m_planner.slot(at, {kOvenRun, rig, 1.0, kOvenRun});
            add(WorkKind::Oven, fmt::format("oven run, {}: {}", methodName(test.method), piece->code), rig,
                start, start + kOvenRun, true);
            at = start + kOvenRun;
        }
        return at;
    }

    const ZoneOffset &m_offset;
    const Study &m_study;
    const PlateLayout &m_layout;
    const Workshop &m_workshop;
    WorkPlanner &m_planner;
    std::vector<CalendarEntry> &m_entries;
    std::vector<PlannedTest> m_tests;
    std::map<PieceId, std::size_t> m_testPlace;
};

} // namespace

std::string_view workName(WorkKind kind)
{
    switch (kind) {
    case WorkKind::Drying:
        return "drying";
    case WorkKind::Printing:
        return "printing";
    case WorkKind::Cooling:
        return "cooling";
    case WorkKind::Conditioning:
        return "conditioning";
    case WorkKind::Testing:
        return "testing";
    case WorkKind::Reading:
        return "reading";
    case WorkKind::Oven:
        return "oven";
    }
    throw ContractViolation("unknown kind of work");
}

std::string movedText(const CalendarEntry &entry)
{
    if (entry.shifted_min <= 0)
        return {};
    const Moment due = entry.start - Minutes{entry.shifted_min};
    const int h = entry.shifted_min / 60;
    const int min = entry.shifted_min % 60;
    const std::string earlier = (h > 0 ? fmt::format("{} h", h) : std::string()) +
                                (h > 0 && min > 0 ? " " : "") +
                                (min > 0 ? fmt::format("{} min", min) : std::string());
    return fmt::format("due {} {}, {} earlier: outside working hours, or something else is to be done then",
                       dayText(due), clockText(due), earlier);
}

Result<std::vector<CalendarEntry>> layOutCalendar(const std::vector<DatedStudy> &studies,
                                                  const Workshop &workshop, std::optional<Moment> now,
                                                  const ZoneOffset &offset)
{
    if (const Status status = checkWorkshop(workshop); !status)
        return status.error();
    std::vector<std::pair<Moment, DatedStudy>> dated;
    for (const DatedStudy &one : studies) {
        const std::string &start = one.study->plan.dates.start;
        if (start.empty())
            continue;
        const std::optional<Moment> moment = momentFrom(start);
        if (!moment)
            return invalidArgument(
                fmt::format("\"{}\" is no date; write it as year-month-day, such as 2026-11-30", start));
        // What is under way is not laid out anew before today.
        const bool begun = hasBegun(*one.study);
        dated.emplace_back(now && begun ? std::max(*moment, *now) : *moment, one);
    }
    std::stable_sort(dated.begin(), dated.end(), [](const auto &a, const auto &b) {
        return std::pair(a.first, a.second.study->id) < std::pair(b.first, b.second.study->id);
    });
    std::vector<CalendarEntry> entries;
    WorkPlanner planner(workshop);
    for (const auto &[start, one] : dated) {
        StudyScheduler scheduler(one, workshop, planner, entries, offset);
        scheduler.schedule(start);
        if (now)
            scheduler.runs(*now);
    }
    std::stable_sort(entries.begin(), entries.end(), [](const CalendarEntry &a, const CalendarEntry &b) {
        return std::pair(a.start, a.end) < std::pair(b.start, b.end);
    });
    if (!entries.empty() && entries.back().end - dated.front().first > kLongest)
        return invalidArgument(
            "the plan would take more than two years; fewer pieces or more hours are needed");
    return entries;
}

std::vector<CalendarEntry> workOf(const std::vector<CalendarEntry> &calendar, Moment day)
{
    std::vector<CalendarEntry> work;
    for (const CalendarEntry &entry : calendar) {
        const bool begins = dayOf(entry.start) == dayOf(day);
        const bool endsAlone = !entry.attended && dayOf(entry.end) == dayOf(day) &&
                               (entry.kind == WorkKind::Printing || entry.kind == WorkKind::Conditioning ||
                                entry.kind == WorkKind::Drying);
        if ((begins && entry.kind != WorkKind::Cooling) || endsAlone)
            work.push_back(entry);
    }
    return work;
}

} // namespace inchpeg
