// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/table_parts.h"

#include "core/import/cell_forms.h"
#include "core/import/cells.h"
#include "core/import/heading_words.h"
#include "core/import/summary_rows.h"
#include "core/import/text.h"
#include "core/import/workbook.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace inchpeg
{

namespace
{

bool mentions(std::string_view text, std::string_view word)
{
    return text.find(word) != std::string_view::npos;
}

/// A column that may tell the specimens: its heading says so, or it holds text and no quantity.
bool maySeparate(const Column &column)
{
    if (column.quantity)
        return false;
    if (!column.isNumeric)
        return true;
    constexpr std::array<std::string_view, 14> kSeparating = {
        "specimen", "sample", "probe", "prüfling", "piece", "test",       "run",
        "id",       "no",     "nr",    "set",      "part",  "éprouvette", "number"};
    const std::string name = lowered(column.name);
    return std::any_of(kSeparating.begin(), kSeparating.end(), [&](std::string_view word) {
        return word.size() > 3 ? mentions(name, word) : name == word || name == std::string(word) + ".";
    });
}

/// One run of rows in which a column does not change.
struct Stretch {
    std::string name;
    std::size_t firstLine = 0;
    std::size_t lastLine = 0;
    std::size_t rows = 0;
};

/// Tells where a time, or an extension, falls back in one step to the first tenth of what it had reached. A
/// cycle goes back in many.
class StartsAgain
{
public:
    bool take(double value)
    {
        constexpr double kBackTo = 0.1;
        constexpr double kOneStep = 0.5;
        const double reached = m_most - m_start;
        const bool isAgain = m_any && reached > 0.0 && value - m_start <= kBackTo * reached &&
                             m_last - value > kOneStep * reached;
        if (!m_any || isAgain) {
            m_start = value;
            m_most = value;
        }
        m_any = true;
        m_most = std::max(m_most, value);
        m_last = value;
        return isAgain;
    }

private:
    bool m_any = false;
    double m_start = 0.0;
    double m_most = 0.0;
    double m_last = 0.0;
};

/// What jumps back where another specimen begins: the time, else an extension or a strain.
std::optional<std::size_t> clockColumn(const Layout &layout)
{
    for (const ColumnQuantity quantity :
         {ColumnQuantity::Time, ColumnQuantity::Extension, ColumnQuantity::Strain}) {
        for (std::size_t c = 0; c < layout.columns.size(); ++c) {
            if (layout.columns[c].quantity == quantity)
                return c;
        }
    }
    return std::nullopt;
}

/// Walks once through the rows and parts them by each column that may tell the specimens, and by the clock.
class Parting
{
public:
    explicit Parting(const Layout &layout) : m_layout(layout), m_clock(clockColumn(layout))
    {
        for (std::size_t c = 0; c < layout.columns.size(); ++c) {
            if (maySeparate(layout.columns[c]))
                m_byColumn[c] = {};
        }
    }

    [[nodiscard]] bool canTell() const { return m_clock.has_value() || !m_byColumn.empty(); }

    void readRows(std::string_view text)
    {
        std::size_t line = 0;
        while (!text.empty()) {
            const std::string_view current = takeLine(text);
            ++line;
            if (line <= m_layout.headerLines || trimmedIsEmpty(current))
                continue;
            if (current.front() == kSheetMark)
                return;
            splitCells(current, m_layout.delimiter, m_cells);
            if (m_rows > 0 && beginsAnotherTable(m_cells, m_layout))
                return;
            takeRow(line);
        }
    }

    /// The stretches of the column that parts the rows where the clock starts again, else the clock's own.
    [[nodiscard]] std::pair<std::string, std::vector<Stretch>> found() const
    {
        for (const auto &[column, stretches] : m_byColumn) {
            const bool isLong = std::all_of(stretches.begin(), stretches.end(), [](const Stretch &stretch) {
                return stretch.rows >= kFewestRows;
            });
            if (stretches.size() < 2 || !isLong)
                continue;
            if (!m_clock || std::all_of(stretches.begin() + 1, stretches.end(), [&](const Stretch &stretch) {
                    return std::find(m_startsAgain.begin(), m_startsAgain.end(), stretch.firstLine) !=
                           m_startsAgain.end();
                }))
                return {m_layout.columns[column].name, stretches};
        }
        const bool isLong = std::all_of(m_byClock.begin(), m_byClock.end(),
                                        [](const Stretch &stretch) { return stretch.rows >= kFewestRows; });
        if (m_byClock.size() > 1 && isLong)
            return {"", m_byClock};
        return {};
    }

private:
    static constexpr std::size_t kFewestRows = 5;

    void takeRow(std::size_t line)
    {
        const auto cell = [&](std::size_t c) { return c < m_cells.size() ? m_cells[c] : std::string_view(); };
        if (std::any_of(m_cells.begin(), m_cells.end(),
                        [](std::string_view c) { return summaryWord(c) == SummaryWord::Surely; }))
            return;
        if (m_clock) {
            const Cell value = readCellOf(m_layout.columns[*m_clock], cell(*m_clock), m_layout.numbers);
            if (value.kind != CellKind::Number)
                return;
            takeClock(value.value, line);
        }
        ++m_rows;
        for (auto &[column, stretches] : m_byColumn)
            extend(stretches, std::string(trimmed(cell(column))), line);
    }

    void takeClock(double value, std::size_t line)
    {
        const bool startsAgain = m_watch.take(value);
        if (m_rows == 0 || startsAgain)
            m_byClock.push_back({"", line, line, 0});
        if (startsAgain)
            m_startsAgain.push_back(line);
        m_byClock.back().lastLine = line;
        ++m_byClock.back().rows;
    }

    static void extend(std::vector<Stretch> &stretches, std::string name, std::size_t line)
    {
        constexpr std::size_t kMost = 2000; // a column of remarks is no name of specimens
        if (stretches.size() > kMost)
            return;
        if (stretches.empty() || stretches.back().name != name)
            stretches.push_back({std::move(name), line, line, 0});
        stretches.back().lastLine = line;
        ++stretches.back().rows;
    }

    const Layout &m_layout;
    std::optional<std::size_t> m_clock;
    std::map<std::size_t, std::vector<Stretch>> m_byColumn;
    std::vector<Stretch> m_byClock;
    std::vector<std::size_t> m_startsAgain; ///< lines
    std::vector<std::string_view> m_cells;
    std::size_t m_rows = 0;
    StartsAgain m_watch;
};

bool hasMoreLines(std::string_view text, std::size_t lines)
{
    for (; lines > 0 && !text.empty(); --lines)
        takeLine(text);
    return !trimmedIsEmpty(text);
}

/// A heading without the number that keeps equal ones apart: "Force.1" is a second "Force".
std::string_view withoutCount(std::string_view name)
{
    const std::size_t last = name.find_last_not_of("0123456789");
    const bool isCounted =
        last != std::string_view::npos && last + 1 < name.size() && last > 0 && name[last] == '.';
    return isCounted ? name.substr(0, last) : name;
}

/// How many columns repeat side by side; 0 where they do not.
std::size_t periodOf(const Layout &layout)
{
    const std::size_t columns = layout.columns.size();
    for (std::size_t period = 2; period * 2 <= columns; ++period) {
        bool repeats = columns % period == 0;
        for (std::size_t c = period; c < columns && repeats; ++c)
            repeats =
                !layout.columns[c].heading.empty() &&
                withoutCount(layout.columns[c].heading) == withoutCount(layout.columns[c - period].heading);
        if (repeats &&
            std::any_of(layout.columns.begin(), layout.columns.begin() + static_cast<std::ptrdiff_t>(period),
                        [](const Column &column) { return column.quantity.has_value(); }))
            return period;
    }
    return 0;
}

std::vector<Layout> sideBySide(const Layout &layout, std::size_t period)
{
    std::vector<Layout> parts;
    for (std::size_t first = 0; first < layout.columns.size(); first += period) {
        Layout part = layout;
        part.specimen = {fmt::format("columns {} to {}", first + 1, first + period), "side by side", {}};
        for (std::size_t c = 0; c < part.columns.size(); ++c) {
            if (c >= first && c < first + period)
                continue;
            part.columns[c].quantity.reset(); // another specimen's
            part.columns[c].unit.reset();
            part.columns[c].unitAssumed = false;
            part.columns[c].unknownUnitText.clear();
            part.columns[c].question.clear();
        }
        parts.push_back(std::move(part));
    }
    return parts;
}

} // namespace

std::vector<Layout> specimensOf(std::string_view text, const Layout &layout)
{
    if (layout.specimen)
        return {layout};
    if (const std::size_t period = periodOf(layout); period > 0)
        return sideBySide(layout, period);
    Parting parting(layout);
    if (!parting.canTell())
        return {layout};
    parting.readRows(text);
    const auto [column, stretches] = parting.found();
    if (stretches.size() < 2)
        return {layout};
    std::vector<Layout> parts;
    for (const Stretch &stretch : stretches) {
        Layout part = layout;
        part.headerLines = stretch.firstLine - 1;
        part.specimen = {stretch.name.empty() ? fmt::format("from line {}", stretch.firstLine) : stretch.name,
                         column, stretch.lastLine};
        parts.push_back(std::move(part));
    }
    return parts;
}

bool standSideBySide(const Layout &layout)
{
    return !layout.specimen && periodOf(layout) > 0;
}

bool mayHoldSpecimens(const Layout &layout, std::span<const std::size_t> columns, const Readings &readings)
{
    if (layout.specimen)
        return false;
    const std::optional<std::size_t> clock = clockColumn(layout);
    const auto read = clock ? std::find(columns.begin(), columns.end(), *clock) : columns.end();
    if (read == columns.end())
        return true;
    StartsAgain watch;
    const std::vector<double> &values = readings.columns[static_cast<std::size_t>(read - columns.begin())];
    return std::any_of(values.begin(), values.end(), [&](double value) { return watch.take(value); });
}

std::string specimensSentence(const std::vector<Layout> &specimens)
{
    constexpr std::size_t kNamed = 3;
    std::string names;
    for (std::size_t i = 0; i < std::min(specimens.size(), kNamed); ++i)
        names += (i > 0 ? ", " : "") + specimens[i].specimen->name;
    if (specimens.size() > kNamed)
        names += fmt::format(" and {} more", specimens.size() - kNamed);
    const bool isBeside = !specimens.front().specimen->lastLine.has_value();
    const std::string by = isBeside || specimens.front().specimen->column.empty()
                               ? ""
                               : fmt::format("column \"{}\": ", specimens.front().specimen->column);
    return fmt::format("{} specimens {} ({}{})", specimens.size(),
                       isBeside ? "side by side" : "below each other", by, names);
}

std::string resultsSentence(std::string_view text, const Layout &layout)
{
    constexpr std::size_t kMostSpecimens = 1000;
    constexpr std::array<std::string_view, 22> kResults = {
        "modulus",     "modul",      "module",   "strength", "festigkeit", "résistance",
        "resistencia", "resistenza", "at break", "at yield", "at max",     "at peak",
        "at strength", "bruch",      "rupture",  "streck",   "yield",      "toughness",
        "charpy",      "izod",       "fmax",     "f max"};
    constexpr std::array<std::string_view, 4> kWhole = {"rm", "fm", "et", "σm"};
    std::string found;
    for (const Column &column : layout.columns) {
        const std::string name = lowered(column.heading.empty() ? column.name : column.heading);
        const std::string bare = lowered(column.name);
        if (column.quantity == ColumnQuantity::Time)
            return {};
        const bool isResult = std::any_of(kResults.begin(), kResults.end(),
                                          [&](std::string_view word) { return mentions(name, word); }) ||
                              std::find(kWhole.begin(), kWhole.end(), bare) != kWhole.end();
        if (isResult)
            found += (found.empty() ? "\"" : ", \"") + column.name + "\"";
    }
    if (found.empty() || hasMoreLines(text, layout.headerLines + kMostSpecimens))
        return {};
    return fmt::format(
        "the table seems to hold results, one row a specimen ({}), not the readings of one test; compare "
        "them as they are (stats), type them into a study, or choose the columns of a record by hand",
        found);
}

} // namespace inchpeg
