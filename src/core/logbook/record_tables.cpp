// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/record_tables.h"

#include "core/import/cells.h"
#include "core/logbook/conditioning.h"
#include "core/logbook/print_record.h"
#include "core/text/letters.h"
#include "core/units/number.h"

#include <fmt/ranges.h>

#include <algorithm>
#include <map>
#include <set>
#include <stdexcept>

namespace inchpeg
{

namespace
{

/// A row that cannot be; told with its line.
struct BadRow : std::runtime_error {
    using std::runtime_error::runtime_error;
};

/// A table with one heading line, read row by row.
class Rows
{
public:
    explicit Rows(std::string_view text) : m_rest(text)
    {
        while (!m_rest.empty() && m_columns.empty()) {
            const std::string_view heading = takeLine();
            m_delimiter = delimiterOf(heading);
            splitCells(heading, m_delimiter, m_cells);
            for (std::size_t c = 0; c < m_cells.size() && !trimmed(heading).empty(); ++c)
                m_columns[smallLetters(cellText(m_cells[c]))] = c;
        }
    }

    void demand(const std::vector<std::string> &names) const
    {
        for (const std::string &name : names) {
            if (!m_columns.contains(name))
                throw BadRow(fmt::format("there is no column \"{}\"; the first line must name {}", name,
                                         fmt::join(names, ", ")));
        }
    }

    bool next()
    {
        while (!m_rest.empty()) {
            const std::string_view line = takeLine();
            if (trimmed(line).empty())
                continue;
            splitCells(line, m_delimiter, m_cells);
            return true;
        }
        return false;
    }

    [[nodiscard]] std::size_t line() const { return m_line; }

    [[nodiscard]] std::string text(const std::string &column) const
    {
        const auto found = m_columns.find(column);
        return found == m_columns.end() || found->second >= m_cells.size() ? std::string()
                                                                           : cellText(m_cells[found->second]);
    }

private:
    std::string_view takeLine()
    {
        const std::string_view record = takeRecord(m_rest, m_delimiter);
        m_line = m_next;
        m_next += 1 + static_cast<std::size_t>(std::count(record.begin(), record.end(), '\n'));
        return record;
    }

    std::string_view m_rest;
    char m_delimiter = ',';
    std::map<std::string, std::size_t> m_columns;
    std::vector<std::string_view> m_cells;
    std::size_t m_line = 0;
    std::size_t m_next = 1;
};

std::optional<double> numberIn(const std::string &text, const char *what)
{
    if (text.empty())
        return std::nullopt;
    const std::optional<double> number = parseTypedNumber(text);
    if (!number)
        throw BadRow(fmt::format("\"{}\" is no number of {}", text, what));
    return number;
}

int plateIn(const std::string &text)
{
    const std::optional<double> number = parseTypedNumber(text);
    if (!number || *number < 1.0 || *number > 1e6 || *number != static_cast<int>(*number))
        throw BadRow(fmt::format("\"{}\" is no number of a plate", text));
    return static_cast<int>(*number);
}

std::vector<int> platesIn(std::string_view text)
{
    std::vector<int> plates;
    while (!(text = trimmed(text)).empty()) {
        const auto end = text.find_first_of(" ,;");
        plates.push_back(plateIn(std::string(text.substr(0, end))));
        text = end == std::string_view::npos ? std::string_view{} : text.substr(end + 1);
    }
    return plates;
}

void setOfRecord(PlateRecord &record, const std::string &name, const std::string &value)
{
    const std::map<std::string_view, std::string PlateRecord::*> texts = {
        {"printer", &PlateRecord::printer},
        {"spool", &PlateRecord::spool},
        {"started_at", &PlateRecord::startedAt},
        {"ended_at", &PlateRecord::endedAt},
        {"settings_from", &PlateRecord::settingsFrom},
        {"note", &PlateRecord::note}};
    const std::map<std::string_view, std::optional<double> PlateRecord::*> numbers = {
        {"chamber_C", &PlateRecord::chamber_C},
        {"slicer_grams", &PlateRecord::grams},
        {"slicer_minutes", &PlateRecord::minutes}};
    if (const auto found = texts.find(name); found != texts.end())
        record.*found->second = value;
    else if (const auto number = numbers.find(name); number != numbers.end())
        record.*number->second = numberIn(value, name.c_str());
    else
        throw BadRow(fmt::format("\"{}\" is nothing that the record of a plate has", name));
}

std::optional<DifferenceAnswer> answerIn(const Rows &rows)
{
    const std::string done = rows.text("done");
    if (done.empty())
        return std::nullopt;
    if (done != "was meant" && done != "was not meant")
        throw BadRow(fmt::format("\"{}\": of a setting that differs from the plan it is said that it \"was "
                                 "meant\" or \"was not meant\"",
                                 done));
    return DifferenceAnswer{done == "was meant", rows.text("by"), rows.text("at")};
}

void readPlateRow(const Rows &rows, std::vector<PlateRecord> &records)
{
    const int plate = plateIn(rows.text("plate"));
    auto record = std::find_if(records.begin(), records.end(),
                               [plate](const PlateRecord &one) { return one.plate == plate; });
    if (record == records.end()) {
        records.emplace_back().plate = plate;
        record = records.end() - 1;
    }
    const std::string about = rows.text("about");
    const std::string name = rows.text("name");
    if (about == "record") {
        setOfRecord(*record, name, rows.text("value"));
    } else if (about == "setting") {
        if (name.empty())
            throw BadRow("a setting without a name");
        record->settings.push_back({name, rows.text("value"), answerIn(rows)});
    } else if (about == "event") {
        const std::optional<PrintTrouble> trouble = troubleFrom(name);
        if (!trouble)
            throw BadRow(fmt::format("\"{}\" is no event of a print", name));
        record->events.push_back(
            {*trouble, rows.text("at"), rows.text("value"), rows.text("done"), rows.text("by")});
    } else {
        throw BadRow(fmt::format("\"{}\": a row is about a record, a setting or an event", about));
    }
}

TimedStep stepIn(const Rows &rows)
{
    TimedStep step;
    const std::optional<StepKind> kind = stepFrom(rows.text("step"));
    if (!kind)
        throw BadRow(
            fmt::format("\"{}\" is no step; drying, conditioning or annealing is wanted", rows.text("step")));
    step.kind = *kind;
    step.plates = platesIn(rows.text("plates"));
    step.start = rows.text("start");
    step.end = rows.text("end");
    step.wanted_h = numberIn(rows.text("wanted_h"), "hours").value_or(0.0);
    step.temperature_C = numberIn(rows.text("temperature_c"), "°C");
    step.humidity_percent = numberIn(rows.text("humidity_percent"), "percent");
    const std::string skipped = rows.text("skipped");
    if (!skipped.empty() && skipped != "0" && skipped != "1")
        throw BadRow(fmt::format("\"{}\": skipped is 0 or 1", skipped));
    step.skipped = skipped == "1";
    step.note = rows.text("note");
    step.who = rows.text("by");
    step.when = rows.text("logged_at");
    if (const Status status = checkStep(step); !status)
        throw BadRow(status.error().message);
    return step;
}

/// Reads all rows of a table by one function; a failure says its line.
template <typename Take>
Status readRows(std::string_view text, const std::vector<std::string> &columns, Take take)
{
    Rows rows(text);
    bool any = false;
    try {
        rows.demand(columns);
        while (rows.next()) {
            take(rows);
            any = true;
        }
    } catch (const BadRow &failure) {
        return badInput(fmt::format("line {}: {}", rows.line(), failure.what()));
    }
    return any ? ok() : Status(badInput("there is no row below the headings"));
}

Status checkPlates(const Study &study, const std::set<int> &plates)
{
    std::set<int> printed;
    for (const PrintedPlate &plate : study.plan.print.printed)
        printed.insert(plate.number);
    for (const int plate : plates) {
        if (!printed.contains(plate))
            return invalidArgument(
                printed.empty() ? fmt::format("plate {}: no plate of this study is printed yet", plate)
                                : fmt::format("plate {} is not printed in this study; its plates are {}",
                                              plate, fmt::join(printed, ", ")));
    }
    return ok();
}

} // namespace

Result<std::vector<PlateRecord>> readPlateTable(std::string_view text)
{
    std::vector<PlateRecord> records;
    const Status status = readRows(text, {"plate", "about", "name", "value"},
                                   [&records](const Rows &rows) { readPlateRow(rows, records); });
    if (!status)
        return status.error();
    for (const PlateRecord &record : records) {
        if (const Status good = checkPlateRecord(record); !good)
            return badInput(fmt::format("plate {}: {}", record.plate, good.error().message));
    }
    return records;
}

Result<std::vector<TimedStep>> readStepTable(std::string_view text)
{
    std::vector<TimedStep> steps;
    const Status status = readRows(text, {"step", "start", "end"},
                                   [&steps](const Rows &rows) { steps.push_back(stepIn(rows)); });
    if (!status)
        return status.error();
    return steps;
}

Status takePlateRecords(Study &study, const std::vector<PlateRecord> &records)
{
    std::set<int> plates;
    for (const PlateRecord &record : records)
        plates.insert(record.plate);
    if (const Status status = checkPlates(study, plates); !status)
        return status;
    for (const PlateRecord &record : records)
        plateRecord(study.log, record.plate) = record;
    return ok();
}

Status takeSteps(Study &study, const std::vector<TimedStep> &steps)
{
    std::set<int> plates;
    for (const TimedStep &step : steps)
        plates.insert(step.plates.begin(), step.plates.end());
    if (const Status status = checkPlates(study, plates); !status)
        return status;
    for (const TimedStep &step : steps) {
        const auto same =
            std::find_if(study.log.steps.begin(), study.log.steps.end(), [&](const TimedStep &one) {
                return one.kind == step.kind && one.plates == step.plates && one.start == step.start;
            });
        if (same != study.log.steps.end())
            *same = step;
        else
            study.log.steps.push_back(step);
    }
    return ok();
}

} // namespace inchpeg
