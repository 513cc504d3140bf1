// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/table.h"

#include "core/base/blocks.h"
#include "core/import/cell_forms.h"
#include "core/import/cells.h"
#include "core/import/plain_row.h"
#include "core/import/summary_rows.h"
#include "core/import/text.h"
#include "core/import/workbook.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <cstring>
#include <iterator>

namespace inchpeg
{

namespace
{

/// After this many warnings of a kind only their number is told.
constexpr std::size_t kNamedLines = 5;
/// Small enough to stay in a core's cache while it is read, large enough to be worth handing over.
constexpr std::size_t kBlockBytes = std::size_t{256} * 1024;

/// "line 7", "lines 7, 9 and 3 more".
std::string linesText(const std::vector<std::size_t> &lines)
{
    std::string out = lines.size() == 1 ? "line " : "lines ";
    for (std::size_t i = 0; i < std::min(lines.size(), kNamedLines); ++i)
        out += (i > 0 ? ", " : "") + std::to_string(lines[i]);
    if (lines.size() > kNamedLines)
        out += fmt::format(" and {} more", lines.size() - kNamedLines);
    return out;
}

std::string summariesText(const std::vector<std::size_t> &lines)
{
    return fmt::format("left out {}: {} up the rows above (mean, standard deviation or the like)",
                       linesText(lines), lines.size() == 1 ? "it sums" : "they sum");
}

/// The format in which a number would stand that was written with the wrong decimal mark.
NumberFormat withOtherMark(const NumberFormat &numbers)
{
    return {numbers.decimal == '.' ? ',' : '.', true, false};
}

Error badCell(std::string_view cell, CellKind kind, const NumberFormat &numbers, const Column &column,
              TextPosition position)
{
    const std::string shown(cell.substr(0, 40));
    std::string reason;
    const NumberFormat other = withOtherMark(numbers);
    if (const std::string otherForm = otherFormMessage(column, shown, numbers); !otherForm.empty())
        reason = otherForm;
    else if (kind == CellKind::NotFinite)
        reason =
            fmt::format("\"{}\" is not a finite number; leave the cell empty or mend the reading", shown);
    else if (readCell(cell, other).kind == CellKind::Number)
        reason = fmt::format(
            "\"{}\" has the decimal mark \"{}\" where the file uses \"{}\"; use one mark throughout", shown,
            other.decimal, numbers.decimal);
    else if (!column.isNumeric)
        reason =
            fmt::format("\"{}\" is not a number, nor are most cells of the column; choose another column, or "
                        "write its values as numbers",
                        shown);
    else
        reason = fmt::format("\"{}\" is not a number; mend or remove the row", shown);
    return badInput(fmt::format("\"{}\": {}", column.name, reason), position);
}

Error rowTooLong(std::size_t line, std::size_t cells, std::size_t columns)
{
    return badInput(fmt::format("the row has {} cells but the table has {} columns; "
                                "look for a stray delimiter or a decimal comma",
                                cells, columns),
                    TextPosition{line, columns + 1});
}

std::size_t filledLength(const std::vector<std::string_view> &cells)
{
    std::size_t length = cells.size();
    while (length > 0 && trimmed(cells[length - 1]).empty())
        --length;
    return length;
}

enum class RowOutcome { Read, Incomplete, NoNumbers, NotRead, Summary, OtherTable };

/// A line that would be an error between two rows, and is of no use below the last one.
struct OddLine {
    std::size_t line = 0;
    Error error;
};

/// Where the rows of one block of the text go: a part of every column with room for one row a line.
using ColumnParts = std::vector<double *>;

/// Reads one block of whole lines; blocks know nothing of each other.
class BlockReader
{
public:
    BlockReader(const Layout &layout, std::span<const std::size_t> wanted, ColumnParts parts)
        : m_layout(layout), m_wanted(wanted), m_plain(layout, wanted), m_parts(std::move(parts)),
          m_row(wanted.size())
    {
        for (std::size_t index : wanted)
            m_units.push_back(layout.columns[index].unit.value_or(Unit{}));
        // A plain number is another thing where a unit stands behind the others.
        m_mayBePlain = std::all_of(layout.columns.begin(), layout.columns.end(),
                                   [](const Column &column) { return column.cellUnit.empty(); });
        m_hasText = std::any_of(layout.columns.begin(), layout.columns.end(),
                                [](const Column &column) { return !column.isNumeric; });
    }

    /// firstLine: number of the block's first line in the file, from 1.
    Status read(std::string_view block, std::size_t firstLine)
    {
        std::size_t line = firstLine - 1;
        const char *const end = block.data() + block.size();
        for (const char *at = block.data(); at != end;) {
            ++line;
            const char *const start = at;
            if (m_mayBePlain && !mayBeSummary(start, end) && m_plain.read(at, end, m_row)) {
                m_afterSummary = false;
                for (std::size_t k = 0; k < m_row.size(); ++k)
                    m_row[k] = m_units[k].toWorking(m_row[k]);
                if (const Status status = keepRow(line); !status)
                    return status;
                continue;
            }
            std::string_view rest(at, static_cast<std::size_t>(end - at));
            const std::string_view current = takeLine(rest);
            at = end - rest.size();
            if (trimmedIsEmpty(current))
                continue;
            m_below = rest;
            const Result<RowOutcome> outcome = readLine(line, current);
            if (!outcome)
                return outcome.error();
            if (*outcome == RowOutcome::OtherTable) {
                m_nextTableLine = line;
                return ok();
            }
        }
        return ok();
    }

    [[nodiscard]] std::size_t rows() const { return m_rows; }
    [[nodiscard]] std::size_t lastRowLine() const { return m_lastRowLine; }
    [[nodiscard]] const std::vector<std::size_t> &incomplete() const { return m_incomplete; }
    [[nodiscard]] const std::vector<std::size_t> &noNumbers() const { return m_noNumbers; }
    [[nodiscard]] const std::vector<std::size_t> &summaries() const { return m_summaries; }
    /// Those below the block's last row; the others are errors already.
    [[nodiscard]] const std::vector<OddLine> &oddLines() const { return m_odd; }
    [[nodiscard]] std::optional<std::size_t> nextTableLine() const { return m_nextTableLine; }

private:
    /// A row after a line that is none: that line stands among the rows.
    Status keepRow(std::size_t line)
    {
        if (!m_odd.empty())
            return m_odd.front().error;
        for (std::size_t k = 0; k < m_row.size(); ++k)
            m_parts[k][m_rows] = m_row[k];
        ++m_rows;
        m_lastRowLine = line;
        return ok();
    }

    Result<RowOutcome> readLine(std::size_t line, std::string_view text)
    {
        if (text.front() == kSheetMark)
            return RowOutcome::OtherTable;
        splitCells(text, m_layout.delimiter, m_cells);
        const Result<RowOutcome> outcome = readRow(line);
        if (!outcome)
            return outcome.error();
        switch (*outcome) {
        case RowOutcome::Read:
            if (const Status status = keepRow(line); !status)
                return status.error();
            break;
        case RowOutcome::Incomplete:
            m_incomplete.push_back(line);
            break;
        case RowOutcome::NoNumbers:
            m_noNumbers.push_back(line);
            break;
        case RowOutcome::Summary:
            m_summaries.push_back(line);
            break;
        case RowOutcome::NotRead:
        case RowOutcome::OtherTable:
            break;
        }
        return *outcome;
    }

    Result<RowOutcome> readRow(std::size_t line)
    {
        if (beginsAnotherTable(m_cells, m_layout))
            return RowOutcome::OtherTable;
        if (sumsUp())
            return RowOutcome::Summary;
        const std::size_t length = filledLength(m_cells);
        std::size_t read = 0;
        std::size_t empty = 0;
        std::optional<std::size_t> firstBad;
        CellKind badKind = CellKind::Text;
        for (std::size_t k = 0; k < m_wanted.size(); ++k) {
            const std::size_t index = m_wanted[k];
            const Cell cell = index < length
                                  ? readCellOf(m_layout.columns[index], m_cells[index], m_layout.numbers)
                                  : Cell{};
            if (cell.kind == CellKind::Number) {
                m_row[k] = m_units[k].toWorking(cell.value);
                ++read;
                if (!std::isfinite(m_row[k])) {
                    firstBad = firstBad.value_or(index);
                    badKind = CellKind::NotFinite;
                }
            } else if (cell.kind == CellKind::Empty) {
                ++empty;
            } else if (!firstBad) {
                firstBad = index;
                badKind = cell.kind;
            }
        }
        const bool wholeTextLine = read == 0 && badKind != CellKind::NotFinite;
        if (wholeTextLine && !anyNumber(m_layout.numbers) && !anyNumber(withOtherMark(m_layout.numbers)))
            return RowOutcome::NoNumbers;
        if (length > m_layout.columns.size())
            return oddUnlessNumbers(line, rowTooLong(line, length, m_layout.columns.size()));
        if (!firstBad)
            firstBad = textInNumericColumn(length);
        if (firstBad)
            return oddUnlessNumbers(line, badCell(m_cells[*firstBad], badKind, m_layout.numbers,
                                                  m_layout.columns[*firstBad], {line, *firstBad + 1}));
        return empty > 0 ? RowOutcome::Incomplete : RowOutcome::Read;
    }

    /// Whether the line may hold a word that sums up others: it has text, and begins or ends otherwise than
    /// one that was looked at.
    bool mayBeSummary(const char *at, const char *end)
    {
        if (!m_hasText)
            return false;
        constexpr std::string_view kDigits = "0123456789";
        const std::string_view line(at, static_cast<std::size_t>(std::find(at, end, '\n') - at));
        const std::string_view beginning = line.substr(0, line.find_first_of(kDigits));
        const std::size_t lastDigit = line.find_last_of(kDigits);
        const std::string_view ending =
            lastDigit == std::string_view::npos ? line : line.substr(lastDigit + 1);
        if (beginning == m_beginning && ending == m_ending && !beginning.empty())
            return false;
        splitCells(line, m_layout.delimiter, m_cells);
        if (summaryWordOf(m_cells, m_layout.numbers) != SummaryWord::None)
            return true;
        m_beginning = beginning;
        m_ending = ending;
        return false;
    }

    /// A row that sums up the rows above it: its words say so, or they follow such a row, or stand in one row
    /// alone.
    bool sumsUp()
    {
        const SummaryWord word = summaryWordOf(m_cells, m_layout.numbers);
        const auto nextSaysTheSame = [this] {
            std::string_view below = m_below;
            std::string_view next;
            while (!below.empty() && trimmedIsEmpty(next))
                next = takeLine(below);
            std::vector<std::string_view> cells;
            splitCells(next, m_layout.delimiter, cells);
            return !cells.empty() && trimmed(cells.front()) == trimmed(m_cells.front());
        };
        const bool isSummary = word == SummaryWord::Surely ||
                               (word == SummaryWord::Perhaps && (m_afterSummary || !nextSaysTheSame()));
        m_afterSummary = isSummary;
        return isSummary;
    }

    /// A column that is not wanted, but holds numbers everywhere else: text there makes the line no row.
    [[nodiscard]] std::optional<std::size_t> textInNumericColumn(std::size_t length) const
    {
        for (std::size_t c = 0; c < length; ++c) {
            if (m_layout.columns[c].isNumeric &&
                readCellOf(m_layout.columns[c], m_cells[c], m_layout.numbers).kind == CellKind::Text)
                return c;
        }
        return std::nullopt;
    }

    /// A damaged row of numbers is an error wherever it stands; a line with words only among the rows.
    Result<RowOutcome> oddUnlessNumbers(std::size_t line, Error error)
    {
        const NumberFormat other = withOtherMark(m_layout.numbers);
        const bool anyWord = std::any_of(m_cells.begin(), m_cells.end(), [&](std::string_view cell) {
            return readCell(cell, m_layout.numbers).kind == CellKind::Text &&
                   readCell(cell, other).kind == CellKind::Text;
        });
        if (!anyWord)
            return error;
        m_odd.push_back({line, std::move(error)});
        return RowOutcome::NotRead;
    }

    [[nodiscard]] bool anyNumber(const NumberFormat &format) const
    {
        return std::any_of(m_cells.begin(), m_cells.end(), [&format](std::string_view cell) {
            return readCell(cell, format).kind == CellKind::Number;
        });
    }

    const Layout &m_layout;
    std::span<const std::size_t> m_wanted;
    PlainRowReader m_plain;
    ColumnParts m_parts;
    std::vector<Unit> m_units;
    bool m_mayBePlain = true;     ///< no unit stands in the cells
    bool m_hasText = false;       ///< some columns hold text
    std::string_view m_beginning; ///< of a line without such a word, up to its first digit
    std::string_view m_ending;    ///< behind its last digit
    bool m_afterSummary = false;  ///< the line before sums up
    std::string_view m_below;     ///< what follows the line
    std::vector<std::string_view> m_cells;
    std::vector<double> m_row;
    std::size_t m_rows = 0;
    std::size_t m_lastRowLine = 0;
    std::vector<std::size_t> m_incomplete;
    std::vector<std::size_t> m_noNumbers;
    std::vector<std::size_t> m_summaries;
    std::vector<OddLine> m_odd;
    std::optional<std::size_t> m_nextTableLine;
};

/// A part of the text that ends with a line, and how many lines it holds.
struct Block {
    std::string_view text;
    std::size_t lines = 0;
    std::size_t firstLine = 1;
    std::size_t firstRow = 0;
};

/// How often a character occurs; eight characters at a time.
std::size_t countOf(std::string_view text, char wanted)
{
    constexpr std::uint64_t kLow = 0x7F7F7F7F7F7F7F7FU;
    const std::uint64_t pattern = 0x0101010101010101U * static_cast<unsigned char>(wanted);
    std::size_t count = 0;
    std::size_t i = 0;
    for (; i + sizeof pattern <= text.size(); i += sizeof pattern) {
        std::uint64_t word = 0;
        std::memcpy(&word, text.data() + i, sizeof word);
        word ^= pattern;                                                     // the wanted ones are now zero
        const std::uint64_t found = ~(((word & kLow) + kLow) | word | kLow); // the high bit of each
        count += ((found >> 7U) * 0x0101010101010101U) >> 56U;
    }
    return count + static_cast<std::size_t>(
                       std::count(text.begin() + static_cast<std::ptrdiff_t>(i), text.end(), wanted));
}

/// Line ends that are a CR alone; a file may mix them with others.
std::size_t loneReturnsIn(std::string_view text)
{
    std::size_t count = 0;
    for (std::size_t at = text.find('\r'); at != std::string_view::npos; at = text.find('\r', at + 1))
        count += at + 1 < text.size() && text[at + 1] == '\n' ? 0U : 1U;
    return count;
}

/// Blocks of about kBlockBytes that end with a LF; a text with lone CRs only is one block.
std::vector<Block> blocksOf(std::string_view text, std::size_t firstLine, const TaskRunner &run)
{
    std::vector<Block> blocks;
    while (!text.empty()) {
        const std::size_t end =
            text.size() <= kBlockBytes ? std::string_view::npos : text.find('\n', kBlockBytes);
        const std::size_t length = end == std::string_view::npos ? text.size() : end + 1;
        blocks.push_back({text.substr(0, length), 0, 0, 0});
        text.remove_prefix(length);
    }
    run(blocks.size(), [&blocks](std::size_t b) {
        const std::string_view block = blocks[b].text;
        blocks[b].lines = countOf(block, '\n') + loneReturnsIn(block) + (block.back() == '\n' ? 0 : 1);
    });
    std::size_t row = 0;
    for (Block &block : blocks) {
        block.firstLine = firstLine + row;
        block.firstRow = row;
        row += block.lines;
    }
    return blocks;
}

/// Closes the gaps that skipped lines left between the rows of the blocks.
void closeGaps(Readings &readings, std::span<const Block> blocks, const std::vector<BlockReader> &readers)
{
    for (std::vector<double> &column : readings.columns) {
        std::size_t row = 0;
        for (std::size_t b = 0; b < blocks.size(); ++b) {
            if (row != blocks[b].firstRow)
                std::copy_n(column.begin() + static_cast<std::ptrdiff_t>(blocks[b].firstRow),
                            readers[b].rows(), column.begin() + static_cast<std::ptrdiff_t>(row));
            row += readers[b].rows();
        }
        column.resize(row);
        readings.rows = row;
    }
}

/// What the blocks say together: the blocks up to the one where another table begins.
struct Findings {
    std::size_t blocks = 0;
    std::size_t lastRowLine = 0;
    std::vector<std::size_t> incomplete;
    std::vector<std::size_t> noNumbers;
    std::vector<std::size_t> summaries;
    std::vector<std::size_t> notUsed; ///< below the last row
};

/// Errors: that of the first line that is damaged, or that stands among the rows and is none.
Result<Findings> findingsOf(const std::vector<BlockReader> &readers, const std::vector<Status> &statuses)
{
    Findings found;
    const OddLine *odd = nullptr;
    for (std::size_t b = 0; b < readers.size(); ++b) {
        const BlockReader &reader = readers[b];
        if (odd != nullptr && reader.rows() > 0)
            return odd->error;
        if (!statuses[b])
            return statuses[b].error();
        ++found.blocks;
        if (odd == nullptr && !reader.oddLines().empty())
            odd = &reader.oddLines().front();
        if (reader.rows() > 0)
            found.lastRowLine = reader.lastRowLine();
        for (const OddLine &line : reader.oddLines())
            found.notUsed.push_back(line.line);
        found.incomplete.insert(found.incomplete.end(), reader.incomplete().begin(),
                                reader.incomplete().end());
        found.noNumbers.insert(found.noNumbers.end(), reader.noNumbers().begin(), reader.noNumbers().end());
        found.summaries.insert(found.summaries.end(), reader.summaries().begin(), reader.summaries().end());
        if (reader.nextTableLine())
            break;
    }
    if (odd != nullptr && found.lastRowLine == 0)
        return odd->error;
    const auto isBelow = [&](std::size_t line) { return line > found.lastRowLine; };
    std::copy_if(found.noNumbers.begin(), found.noNumbers.end(), std::back_inserter(found.notUsed), isBelow);
    std::erase_if(found.noNumbers, isBelow);
    std::sort(found.notUsed.begin(), found.notUsed.end());
    return found;
}

/// How many characters the first so many lines of a text take.
std::size_t lengthOfLines(std::string_view text, std::size_t lines)
{
    std::string_view rest = text;
    for (std::size_t line = 0; line < lines && !rest.empty(); ++line)
        takeLine(rest);
    return text.size() - rest.size();
}

/// Times that count from elsewhere, from the first row: clocks, which pass midnight, and seconds since 1970.
/// Errors: BadInput where days that may be read both ways would lie weeks apart.
Status countFromFirstRow(Readings &readings, const Layout &layout, std::span<const std::size_t> wanted)
{
    constexpr double kDay_s = 86400.0;
    constexpr double kYears_s = 3e8; ///< no test counts so far from its own start
    for (std::size_t k = 0; k < wanted.size(); ++k) {
        const Column &column = layout.columns[wanted[k]];
        std::vector<double> &times = readings.columns[k];
        if (column.quantity != ColumnQuantity::Time || times.empty())
            continue;
        // The first rows may all be of one day: a wrong order shows where the next one comes.
        constexpr double kWeeks_s = 20.0 * kDay_s;
        for (std::size_t r = 1; column.clock && column.clock->hasDate && r < times.size(); ++r) {
            if (column.clock->order == DateOrder::Unknown && std::abs(times[r] - times[r - 1]) > kWeeks_s)
                return badInput(
                    fmt::format("the days of column \"{}\" may be day and month or month and day; "
                                "write them as 2026-12-31",
                                column.name),
                    TextPosition{layout.headingLine.value_or(1), wanted[k] + 1});
        }
        if (column.clock && !column.clock->hasDate) {
            double days_s = 0.0;
            double last = times.front();
            for (double &time : times) {
                if (last - time > kDay_s / 2.0)
                    days_s += kDay_s;
                last = time;
                time += days_s;
            }
        }
        if (!column.isFromFirstRow && times.front() < kYears_s)
            continue;
        // Loggers count since 1970 in milliseconds or microseconds as well, and seldom say so.
        double scale = 1.0;
        if (column.unitAssumed && times.front() > kYears_s)
            scale = times.front() > 1e14 ? 1e-6 : times.front() > 1e11 ? 1e-3 : 1.0;
        const double start = times.front();
        for (double &time : times)
            time = (time - start) * scale;
        readings.warnings.push_back(fmt::format("the times of column \"{}\" are counted from the first row{}",
                                                column.name,
                                                scale == 1e-3   ? "; they are in ms since 1970"
                                                : scale == 1e-6 ? "; they are in µs since 1970"
                                                                : ""));
    }
    return ok();
}

/// How many lines from this one on are not blank.
std::size_t filledLinesFrom(std::string_view text, std::size_t firstLine)
{
    std::size_t filled = 0;
    for (std::size_t line = 1; !text.empty(); ++line) {
        const std::string_view current = takeLine(text);
        filled += line >= firstLine && !trimmedIsEmpty(current) ? 1U : 0U;
    }
    return filled;
}

void addWarnings(Readings &readings, const Findings &found)
{
    if (!found.incomplete.empty())
        readings.warnings.push_back(
            fmt::format("left out {}: a value is missing there", linesText(found.incomplete)));
    if (!found.noNumbers.empty())
        readings.warnings.push_back(fmt::format("skipped {}: no numbers there", linesText(found.noNumbers)));
    if (!found.summaries.empty())
        readings.warnings.push_back(summariesText(found.summaries));
    if (!found.notUsed.empty())
        readings.warnings.push_back(
            fmt::format("not used, below the last row of numbers: {}", linesText(found.notUsed)));
    if (readings.nextTableLine)
        readings.warnings.push_back(fmt::format(
            "another table begins at line {}; only the first is read unless another is chosen by its number",
            *readings.nextTableLine));
}

/// Calls row(line, text) for each line after the header that is not blank.
template <typename Row>
Status forEachRow(std::string_view text, std::size_t headerLines, Row row)
{
    std::size_t line = 0;
    while (!text.empty()) {
        ++line;
        const std::string_view current = takeLine(text);
        if (line <= headerLines || trimmedIsEmpty(current))
            continue;
        const Status status = row(line, current);
        if (!status)
            return status;
    }
    return ok();
}

} // namespace

Result<Readings> readReadings(std::string_view text, const Layout &layout,
                              std::span<const std::size_t> wanted, const TaskRunner &run)
{
    for (std::size_t index : wanted)
        require(index < layout.columns.size(), "readReadings(): no such column");
    std::string_view rest = text;
    std::size_t line = 0;
    while (line < layout.headerLines && !rest.empty()) {
        takeLine(rest);
        ++line;
    }
    if (layout.specimen && layout.specimen->lastLine)
        rest = rest.substr(0, lengthOfLines(rest, *layout.specimen->lastLine - line));
    const std::vector<Block> blocks = blocksOf(rest, line + 1, run);
    const std::size_t lines = blocks.empty() ? 0 : blocks.back().firstRow + blocks.back().lines;
    Readings readings;
    readings.columns.resize(wanted.size());
    run(wanted.size(), [&](std::size_t k) { readings.columns[k] = longColumn(lines); });
    std::vector<BlockReader> readers;
    for (const Block &block : blocks) {
        ColumnParts parts;
        for (std::vector<double> &column : readings.columns)
            parts.push_back(column.data() + block.firstRow);
        readers.emplace_back(layout, wanted, std::move(parts));
    }
    std::vector<Status> statuses(blocks.size(), ok());
    run(blocks.size(),
        [&](std::size_t b) { statuses[b] = readers[b].read(blocks[b].text, blocks[b].firstLine); });
    const Result<Findings> found = findingsOf(readers, statuses);
    if (!found)
        return found.error();
    closeGaps(readings, std::span(blocks).first(found->blocks), readers);
    if (readings.rows == 0)
        return badInput("no data row: the table has a header but no complete row of numbers");
    readings.nextTableLine = readers[found->blocks - 1].nextTableLine();
    if (const Status counted = countFromFirstRow(readings, layout, wanted); !counted)
        return counted.error();
    addWarnings(readings, *found);
    readings.skippedLines = found->incomplete.size() + found->noNumbers.size() + found->notUsed.size() +
                            found->summaries.size() +
                            (readings.nextTableLine ? filledLinesFrom(text, *readings.nextTableLine) : 0);
    return readings;
}

namespace
{

/// Rows that sum up those above them: what surely does, and in the rows at the end what may, where no other
/// row says the same.
std::vector<bool> summaryRows(const std::vector<SummaryWord> &words, const TextTable &table)
{
    constexpr std::size_t kFewestAbove = 3;
    std::vector<bool> isSummary(words.size(), false);
    bool isAtEnd = true;
    for (std::size_t r = words.size(); r-- > 0;) {
        isAtEnd = isAtEnd && words[r] != SummaryWord::None;
        const auto saysTheSame = [&](const std::vector<std::string> &row) {
            return row.front() == table.rows[r].front();
        };
        isSummary[r] = words[r] == SummaryWord::Surely ||
                       (words[r] == SummaryWord::Perhaps && isAtEnd && r >= kFewestAbove &&
                        std::count_if(table.rows.begin(), table.rows.end(), saysTheSame) == 1);
    }
    return isSummary;
}

void leaveSummariesOut(TextTable &table, const std::vector<SummaryWord> &words)
{
    const std::vector<bool> isSummary = summaryRows(words, table);
    const auto count = static_cast<std::size_t>(std::count(isSummary.begin(), isSummary.end(), true));
    if (count == 0 || count == isSummary.size())
        return;
    std::vector<std::size_t> lines;
    TextTable kept{table.names, {}, {}, table.numbers, {}, table.columns};
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        if (isSummary[r]) {
            lines.push_back(table.lines[r]);
            continue;
        }
        kept.rows.push_back(std::move(table.rows[r]));
        kept.lines.push_back(table.lines[r]);
    }
    kept.warnings.push_back(summariesText(lines));
    table = std::move(kept);
}

} // namespace

Result<TextTable> readTable(std::string_view text)
{
    const Result<Layout> layout = findLayout(text);
    if (!layout)
        return layout.error();
    if (!layout->question.empty() && layout->emptyColumns.empty())
        return badInput(layout->question, TextPosition{layout->headingLine.value_or(1), std::nullopt});
    TextTable table;
    table.numbers = layout->numbers;
    // A unit row or a unit in the name is left to the reader of the table: names are compared as written.
    for (const Column &column : layout->columns)
        table.names.push_back(column.heading.empty() ? column.name : column.heading);
    table.names.insert(table.names.end(), layout->emptyColumns.begin(), layout->emptyColumns.end());
    table.columns = layout->columns;
    table.columns.resize(table.names.size());
    std::vector<std::string_view> cells;
    std::vector<SummaryWord> words;
    const Status status =
        forEachRow(text, layout->headerLines, [&](std::size_t line, std::string_view current) -> Status {
            splitCells(current, layout->delimiter, cells);
            const std::size_t length = filledLength(cells);
            if (length > table.names.size())
                return rowTooLong(line, length, table.names.size());
            if ((table.rows.size() + 1) * table.names.size() > kMostTableCells)
                return badInput(
                    fmt::format("the table has {} columns and more than {} rows, which is too much to be "
                                "held; leave the columns out that are not needed",
                                table.names.size(), table.rows.size()),
                    TextPosition{line, std::nullopt});
            std::vector<std::string> row(table.names.size());
            for (std::size_t c = 0; c < length; ++c)
                row[c] = unquoted(trimmed(cells[c]));
            words.push_back(summaryWordOf(cells, layout->numbers));
            table.rows.push_back(std::move(row));
            table.lines.push_back(line);
            return ok();
        });
    if (!status)
        return status.error();
    leaveSummariesOut(table, words);
    return table;
}

Result<std::size_t> findColumn(const TextTable &table, std::string_view name)
{
    const auto found = std::find(table.names.begin(), table.names.end(), name);
    if (found == table.names.end()) {
        std::string known;
        for (const std::string &other : table.names)
            known += (known.empty() ? "\"" : ", \"") + other + "\"";
        return invalidArgument(fmt::format("there is no column \"{}\"; the table has {}", name, known));
    }
    if (std::find(found + 1, table.names.end(), name) != table.names.end())
        return badInput(
            fmt::format("two columns are named \"{}\"; rename one so that it is clear which is meant", name));
    return static_cast<std::size_t>(found - table.names.begin());
}

Result<std::vector<std::optional<double>>> numbersOf(const TextTable &table, std::size_t column)
{
    std::vector<std::optional<double>> numbers;
    numbers.reserve(table.rows.size());
    const Column &form = table.columns[column];
    // "12.35 %" is a share; where the heading says % it is what stands there.
    const std::optional<Unit> unit = findUnit(form.cellUnit);
    const bool isShare =
        unit && unit->dimension == Dimension::Ratio && form.heading.find(form.cellUnit) == std::string::npos;
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        const Cell cell = readCellOf(form, table.rows[r][column], table.numbers);
        if (cell.kind == CellKind::Number)
            numbers.emplace_back(isShare ? unit->toWorking(cell.value) : cell.value);
        else if (cell.kind == CellKind::Empty)
            numbers.emplace_back(std::nullopt);
        else
            return badCell(table.rows[r][column], cell.kind, table.numbers, form,
                           {table.lines[r], column + 1});
    }
    return numbers;
}

} // namespace inchpeg
