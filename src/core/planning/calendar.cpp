// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/calendar.h"

#include "core/planning/print_estimate.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace inchpeg
{

namespace
{

using namespace std::chrono;

constexpr Minutes kCooling{30};
constexpr Minutes kLongest = hours{24 * 730};
constexpr Minutes kOvenRun{120}; ///< from room temperature at 120 K/h, and time to load
/// When a creep run is read after it was loaded (common practice).
constexpr std::array<Minutes, 7> kCreepReadings = {Minutes{1}, hours{1},  hours{24}, hours{48},
                                                   hours{72},  hours{96}, hours{120}};
constexpr std::string_view kDayNames[] = {"Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"};
constexpr std::string_view kMonthNames[] = {"Jan", "Feb", "Mar", "Apr", "May", "Jun",
                                            "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"};

local_days dayOf(Moment moment)
{
    return floor<days>(moment);
}

Minutes roundedUp(double minutes)
{
    return Minutes{static_cast<std::int64_t>(std::ceil(std::max(0.0, minutes)))};
}

std::optional<int> digits(std::string_view text, std::size_t at, std::size_t count)
{
    int value = 0;
    for (std::size_t i = at; i < at + count; ++i) {
        if (i >= text.size() || text[i] < '0' || text[i] > '9')
            return std::nullopt;
        value = 10 * value + (text[i] - '0');
    }
    return value;
}

bool isOvenMethod(Method method)
{
    return method == Method::HeatDeflection || method == Method::Softening;
}

/// When people work, and what is busy.
class Planner
{
public:
    explicit Planner(const Workshop &workshop) : m_workshop(workshop) {}

    /// The first moment from here on that lies in working hours.
    [[nodiscard]] Moment inHours(Moment from) const
    {
        while (true) {
            const auto [open, close] = hoursOf(from);
            if (open < close && from < close)
                return std::max(from, open);
            from = dayOf(from) + days{1};
        }
    }

    [[nodiscard]] Moment endOfHours(Moment within) const { return hoursOf(within).second; }

    /// The first moment from here on at which the resource is free for so long and a person is there: to
    /// begin, or all along where it is attended and fits a day.
    [[nodiscard]] Moment slot(Moment from, Minutes length, const std::string &resource, bool attended) const
    {
        Moment start = inHours(from);
        while (true) {
            const auto clash = std::find_if(m_busy.begin(), m_busy.end(), [&](const Busy &busy) {
                return !resource.empty() && busy.resource == resource && start < busy.end &&
                       busy.start < start + std::max(length, Minutes{1});
            });
            if (clash != m_busy.end())
                start = inHours(clash->end);
            else if (attended && start + length > endOfHours(start) && length <= longestDay())
                start = inHours(endOfHours(start));
            else
                return start;
        }
    }

    void hold(const std::string &resource, Moment start, Moment end)
    {
        if (!resource.empty())
            m_busy.push_back({resource, start, end});
    }

    [[nodiscard]] Minutes longestDay() const
    {
        Minutes longest{0};
        for (const WorkingDay &day : m_workshop.hours)
            longest = std::max(longest, Minutes{day.to_min - day.from_min});
        return longest;
    }

private:
    struct Busy {
        std::string resource;
        Moment start;
        Moment end;
    };

    [[nodiscard]] std::pair<Moment, Moment> hoursOf(Moment moment) const
    {
        const local_days day = dayOf(moment);
        const WorkingDay &hours = m_workshop.hours[weekday(day).iso_encoding() - 1];
        return {Moment(day) + Minutes{hours.from_min}, Moment(day) + Minutes{hours.to_min}};
    }

    const Workshop &m_workshop;
    std::vector<Busy> m_busy;
};

/// Lays out one study after those that the planner knows.
class StudyScheduler
{
public:
    StudyScheduler(const DatedStudy &dated, const Workshop &workshop, Planner &planner,
                   std::vector<CalendarEntry> &entries)
        : m_study(*dated.study), m_layout(*dated.layout), m_workshop(workshop), m_planner(planner),
          m_entries(entries), m_tests(plannedTests(m_study))
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

private:
    void add(WorkKind kind, std::string what, const std::string &resource, Moment start, Moment end,
             bool attended, int shifted_min = 0)
    {
        m_entries.push_back({m_study.id, kind, std::move(what), resource, start, end, attended, shifted_min});
        m_planner.hold(resource, start, end);
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
            const Moment begin = m_planner.slot(end, length, "dryer", false);
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
        const Moment start = m_planner.slot(from, length, name, false);
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

    [[nodiscard]] std::vector<const Piece *> piecesOfRound(int round, const PlannedTest &test) const
    {
        std::vector<std::pair<std::size_t, const Piece *>> found;
        for (const Plate &plate : m_layout.plates) {
            for (const PlacedPiece &placed : plate.pieces) {
                const Piece *piece = findPiece(m_study, placed.piece);
                if (plate.round == round && piece != nullptr && piece->test == test.test && !piece->recording)
                    found.emplace_back(m_testPlace.at(placed.piece), piece);
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
            if (isOvenMethod(test.method))
                last = std::max(last, oven(test, pieces, from));
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
        const bool creep = test.method == Method::Creep;
        std::size_t done = 0;
        Moment at = from;
        while (done < pieces.size()) {
            // At least one piece, else as many as the day still holds.
            const Minutes one = roundedUp(each);
            const Moment start = m_planner.slot(at, one, creep ? std::string() : rig, true);
            const double room = static_cast<double>((m_planner.endOfHours(start) - start).count());
            auto fit =
                std::clamp<std::size_t>(static_cast<std::size_t>(room / each), 1, pieces.size() - done);
            while (fit > 1 && m_planner.slot(start, roundedUp(each * static_cast<double>(fit)),
                                             creep ? std::string() : rig, true) != start)
                --fit;
            const Moment end = start + roundedUp(each * static_cast<double>(fit));
            const std::string range = fit == 1 ? pieces[done]->code
                                               : fmt::format("{} pieces, {} to {}", fit, pieces[done]->code,
                                                             pieces[done + fit - 1]->code);
            add(WorkKind::Testing,
                fmt::format("{} {}: {}", creep ? "load" : "test", methodName(test.method), range),
                creep ? std::string() : rig, start, end, true);
            if (creep)
                readCreep(range, end);
            done += fit;
            at = end;
        }
        return at;
    }

    void readCreep(const std::string &range, Moment loaded)
    {
        for (std::size_t i = 0; i < kCreepReadings.size(); ++i) {
            const Moment due = loaded + kCreepReadings[i];
            const Moment start = i == 0 ? due : m_planner.inHours(due);
            add(WorkKind::Reading,
                fmt::format("creep reading {} of {}: {}", i + 1, kCreepReadings.size(), range), {}, start,
                start + Minutes{5}, true, static_cast<int>((start - due).count()));
        }
    }

    Moment oven(const PlannedTest &test, const std::vector<const Piece *> &pieces, Moment from)
    {
        const std::string rig = test.setup.rig.empty() ? "oven" : test.setup.rig;
        Moment at = from;
        for (const Piece *piece : pieces) {
            const Moment start = m_planner.slot(at, kOvenRun, rig, true);
            add(WorkKind::Oven, fmt::format("oven run, {}: {}", methodName(test.method), piece->code), rig,
                start, start + kOvenRun, true);
            at = start + kOvenRun;
        }
        return at;
    }

    const Study &m_study;
    const PlateLayout &m_layout;
    const Workshop &m_workshop;
    Planner &m_planner;
    std::vector<CalendarEntry> &m_entries;
    std::vector<PlannedTest> m_tests;
    std::map<PieceId, std::size_t> m_testPlace;
};

std::string compactMoment(Moment moment)
{
    std::string text;
    for (const char c : momentText(moment)) {
        if (c != '-' && c != ':')
            text += c;
    }
    return text + "00";
}

std::string escaped(std::string_view text)
{
    std::string out;
    for (const char c : text) {
        if (c == '\\' || c == ';' || c == ',')
            out += '\\';
        if (c == '\n')
            out += "\\n";
        else
            out += c;
    }
    return out;
}

/// A content line, folded so that no line is longer than 75 octets and no UTF-8 sequence is cut.
std::string contentLine(std::string_view text)
{
    constexpr std::size_t kLongestLine = 75;
    std::string out;
    std::size_t room = kLongestLine;
    for (std::size_t i = 0; i < text.size();) {
        std::size_t length = 1;
        while (i + length < text.size() && (static_cast<unsigned char>(text[i + length]) & 0xC0U) == 0x80U)
            ++length;
        if (length > room) {
            out += "\r\n ";
            room = kLongestLine - 1;
        }
        out.append(text.substr(i, length));
        room -= length;
        i += length;
    }
    return out + "\r\n";
}

} // namespace

std::optional<Moment> momentFrom(std::string_view text)
{
    const std::optional<int> y = digits(text, 0, 4);
    const std::optional<int> m = digits(text, 5, 2);
    const std::optional<int> d = digits(text, 8, 2);
    if ((text.size() != 10 && text.size() != 16) || !y || !m || !d || text[4] != '-' || text[7] != '-')
        return std::nullopt;
    const year_month_day date{year{*y}, month{static_cast<unsigned>(*m)}, day{static_cast<unsigned>(*d)}};
    if (!date.ok())
        return std::nullopt;
    Minutes clock{0};
    if (text.size() == 16) {
        const std::optional<int> hour = digits(text, 11, 2);
        const std::optional<int> minute = digits(text, 14, 2);
        if (text[10] != 'T' || text[13] != ':' || !hour || !minute || *hour > 23 || *minute > 59)
            return std::nullopt;
        clock = Minutes{60 * *hour + *minute};
    }
    return Moment(local_days(date)) + clock;
}

std::string clockText(Moment moment)
{
    const auto minutes = (moment - Moment(dayOf(moment))).count();
    return fmt::format("{:02}:{:02}", minutes / 60, minutes % 60);
}

std::string momentText(Moment moment)
{
    const year_month_day date(dayOf(moment));
    return fmt::format("{:04}-{:02}-{:02}T{}", static_cast<int>(date.year()),
                       static_cast<unsigned>(date.month()), static_cast<unsigned>(date.day()),
                       clockText(moment));
}

std::string dayText(Moment moment)
{
    const local_days day = dayOf(moment);
    const year_month_day date(day);
    return fmt::format("{} {} {}", kDayNames[weekday(day).c_encoding()], static_cast<unsigned>(date.day()),
                       kMonthNames[static_cast<unsigned>(date.month()) - 1]);
}

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

Result<std::vector<CalendarEntry>> layOutCalendar(const std::vector<DatedStudy> &studies,
                                                  const Workshop &workshop, std::optional<Moment> now)
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
    Planner planner(workshop);
    for (const auto &[start, one] : dated)
        StudyScheduler(one, workshop, planner, entries).schedule(start);
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

std::string iCalendarText(const std::vector<CalendarEntry> &calendar,
                          const std::map<StudyId, std::string> &questions, const std::string &stamp)
{
    std::string text = contentLine("BEGIN:VCALENDAR") + contentLine("VERSION:2.0") +
                       contentLine("PRODID:-//Inch Peg//plan//EN") + contentLine("CALSCALE:GREGORIAN");
    std::map<std::string, int> sameId;
    for (const CalendarEntry &entry : calendar) {
        const std::string id =
            fmt::format("{}-{}-{}", entry.study.value, workName(entry.kind), compactMoment(entry.start));
        const auto question = questions.find(entry.study);
        text += contentLine("BEGIN:VEVENT");
        text += contentLine(fmt::format("UID:{}-{}@inch-peg", id, ++sameId[id]));
        text += contentLine("DTSTAMP:" + stamp);
        text += contentLine("DTSTART:" + compactMoment(entry.start));
        text += contentLine("DTEND:" + compactMoment(entry.end));
        text += contentLine("SUMMARY:" + escaped(entry.what));
        if (!entry.resource.empty())
            text += contentLine("LOCATION:" + escaped(entry.resource));
        if (question != questions.end())
            text += contentLine("DESCRIPTION:" + escaped(question->second));
        text += contentLine(entry.attended ? "TRANSP:OPAQUE" : "TRANSP:TRANSPARENT");
        text += contentLine("END:VEVENT");
    }
    return text + contentLine("END:VCALENDAR");
}

} // namespace inchpeg
