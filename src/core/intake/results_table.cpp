// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intake/results_table.h"

#include "core/import/cells.h"
#include "core/import/heading_words.h"
#include "core/import/summary_rows.h"
#include "core/import/table_parts.h"
#include "core/import/text.h"
#include "core/intake/head_fields.h"
#include "core/intake/long_results.h"
#include "core/intake/name_parts.h"
#include "core/intake/property_words.h"
#include "core/intake/result_cells.h"
#include "core/intake/result_headings.h"
#include "core/model/polymer.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <set>
#include <utility>

namespace inchpeg
{

namespace
{

using Role = ResultsColumn::Role;

std::vector<RawRow> rowsOf(std::string_view text, const Layout &layout, std::size_t width,
                           std::vector<std::string> &warnings)
{
    std::vector<RawRow> rows;
    std::vector<std::string_view> cells;
    std::size_t summaries = 0;
    for (std::size_t line = 1; !text.empty(); ++line) {
        const std::string_view record = takeRecord(text, layout.delimiter);
        const std::size_t first = line;
        line += static_cast<std::size_t>(std::count(record.begin(), record.end(), '\n'));
        if (first <= layout.headerLines || trimmedIsEmpty(record) || record.front() == kSheetMark)
            continue;
        splitCells(record, layout.delimiter, cells);
        RawRow row{first, {}};
        for (const std::string_view cell : cells)
            row.cells.push_back(cellText(cell));
        row.cells.resize(std::max(width, std::size_t{1}));
        if (summaryWordOf(cells, layout.numbers) == SummaryWord::Surely) {
            ++summaries;
            continue;
        }
        rows.push_back(std::move(row));
    }
    if (summaries > 0)
        warnings.push_back(fmt::format("left out {} {} that sum{} up the others", summaries,
                                       summaries == 1 ? "row" : "rows", summaries == 1 ? "s" : ""));
    return rows;
}

constexpr std::array<std::string_view, 18> kCodeWords = {
    "code",          "piece",       "specimen",   "sample",   "id",
    "specimen id",   "sample id",   "test piece", "label",    "name",
    "specimen name", "sample name", "probe",      "prüfling", "probenbezeichnung",
    "éprouvette",    "échantillon", "proben id"};
constexpr std::array<std::string_view, 8> kCounterWords = {"no",     "nr",  "n°", "n",
                                                           "number", "run", "#",  "rep"};
constexpr std::array<std::string_view, 9> kNoteWords = {
    "note", "notes", "remark", "remarks", "comment", "comments", "bemerkung", "remarque", "kommentar"};
/// Of what was seen or thought of a piece, in whatever words: beginnings of words.
constexpr std::array<std::string_view, 18> kSeenWords = {
    "broke",  "break", "fail", "fract",  "bruch", "rupture", "location",  "valid",  "comment",
    "remark", "note",  "look", "bemerk", "ort",   "mode",    "kommentar", "observ", "outcome"};
constexpr std::array<std::string_view, 4> kMassWords = {"mass", "weight", "masse", "gewicht"};

/// A number of hours: of parts in service.
constexpr std::string_view kCountsHours = "service_hours";

bool isOneOf(std::span<const std::string_view> words, std::string_view word)
{
    return std::find(words.begin(), words.end(), word) != words.end();
}

bool beginsAnyWord(std::string_view words, std::span<const std::string_view> beginnings)
{
    return std::any_of(beginnings.begin(), beginnings.end(), [&](std::string_view beginning) {
        const std::size_t at = words.find(beginning);
        return at != std::string_view::npos && (at == 0 || words[at - 1] == ' ');
    });
}

class ResultsReader
{
public:
    ResultsReader(std::string_view text, const ResultsRequest &request)
        : m_texts(boundTextsOf(text)), m_request(request)
    {
    }

    Result<ResultsTable> read()
    {
        const Result<Layout> layout = findLayout(m_texts.plain);
        if (!layout)
            return layout.error();
        if (!layout->question.empty())
            return badInput(layout->question, TextPosition{layout->headingLine.value_or(1), std::nullopt});
        m_table.numbers = layout->numbers;
        readHeadings(*layout);
        m_raw = rowsOf(m_texts.marked, *layout, m_headings.size(), m_table.warnings);
        if (m_raw.empty())
            return badInput("the table has no rows below its heading");
        if (std::optional<WideResults> wide = wideFromLong(m_headings, m_raw))
            takeWide(std::move(*wide));
        if (areGroups())
            dealGroups();
        if (const Status status = checkSaid(); !status)
            return status.error();
        chooseTest();
        understandColumns();
        chooseCode();
        chooseFactors();
        for (RawRow &row : m_raw) {
            std::string code = m_code ? row.cells[*m_code] : std::string();
            for (std::size_t c = 0; c < row.cells.size(); ++c) {
                if (m_table.columns[c].role == Role::Property && saysNoBreak(row.cells[c]))
                    m_table.warnings.push_back(fmt::format("line {}: the piece did not break, so it gives no "
                                                           "number; \"> number\" would say at least what",
                                                           row.line));
            }
            m_table.rows.push_back({row.line, std::move(code), std::move(row.cells)});
        }
        return std::move(m_table);
    }

private:
    void readHeadings(const Layout &layout)
    {
        std::vector<std::string> units;
        std::string_view rest = m_texts.plain;
        for (std::size_t line = 1; !rest.empty() && layout.unitsLine && line <= *layout.unitsLine; ++line) {
            const std::string_view current = takeLine(rest);
            if (line != *layout.unitsLine)
                continue;
            std::vector<std::string_view> cells;
            splitCells(current, layout.delimiter, cells);
            for (const std::string_view cell : cells)
                units.push_back(cellText(cell));
        }
        const std::size_t shift = layout.hasRowNames && units.size() + 1 == layout.columns.size() ? 1 : 0;
        for (std::size_t c = 0; c < layout.columns.size(); ++c) {
            const Column &column = layout.columns[c];
            const std::string heading = column.heading.empty() ? column.name : column.heading;
            const std::string unit =
                c >= shift && c - shift < units.size() ? units[c - shift] : std::string();
            m_headings.push_back(headingOf(heading, unit.empty() ? column.cellUnit : unit));
            m_quantities.push_back(column.quantity.has_value() && !column.unitAssumed);
            m_table.columns.push_back({heading, Role::Aside, {}, m_headings.back().unit, {}, {}, {}});
        }
        m_hasRowNames = layout.hasRowNames;
    }

    void takeWide(WideResults wide)
    {
        m_headings = std::move(wide.headings);
        m_raw = std::move(wide.rows);
        m_hasRowNames = false;
        m_quantities.assign(m_headings.size(), false);
        m_table.columns.clear();
        for (const HeadingWords &heading : m_headings)
            m_table.columns.push_back({heading.shown, Role::Aside, {}, heading.unit, {}, {}, {}});
    }

    /// Whether each column holds the values of one group: numbers alone, under headings that name neither a
    /// result nor a quantity of a record, and none of them runs on as a record does.
    [[nodiscard]] bool areGroups() const
    {
        constexpr std::size_t kMostGroups = 12;
        constexpr std::size_t kMostRows = 200;
        if (m_headings.size() < 2 || m_headings.size() > kMostGroups || m_raw.size() > kMostRows ||
            m_hasRowNames || !m_request.codeColumn.empty() || !m_request.factors.empty())
            return false;
        const std::vector<Method> all = allTests();
        std::set<std::string> names;
        for (std::size_t c = 0; c < m_headings.size(); ++c) {
            const std::string &words = m_headings[c].words;
            const bool isOfResults = words.empty() || propertyInWords(words, all) || m_quantities[c] ||
                                     isOneOf(kCodeWords, words) || isOneOf(kCounterWords, words) ||
                                     !factorInWords(words).empty() ||
                                     meaningOfHead(m_headings[c].shown) != HeadMeaning::None;
            if (isOfResults || !names.insert(words).second || !holdsNumbers(c) || runsOn(c))
                return false;
        }
        return true;
    }

    /// Values that only rise or only fall, over more rows than chance would.
    [[nodiscard]] bool runsOn(std::size_t c) const
    {
        constexpr std::size_t kTelling = 7;
        std::vector<double> values;
        for (const RawRow &row : m_raw) {
            if (const std::optional<CellValue> value = readResultCell(row.cells[c], m_table.numbers))
                values.push_back(value->number);
        }
        return values.size() >= kTelling && (std::is_sorted(values.begin(), values.end()) ||
                                             std::is_sorted(values.rbegin(), values.rend()));
    }

    /// "group" and "value" in place of a column a group.
    void dealGroups()
    {
        std::vector<RawRow> dealt;
        for (std::size_t c = 0; c < m_headings.size(); ++c) {
            for (const RawRow &row : m_raw) {
                if (!isEmptyMark(row.cells[c]))
                    dealt.push_back({row.line, {m_headings[c].shown, row.cells[c]}});
            }
        }
        std::string unit; // that all of them name
        for (const HeadingWords &heading : m_headings)
            unit = &heading == &m_headings.front() || heading.unitText == unit ? heading.unitText
                                                                               : std::string();
        m_raw = std::move(dealt);
        m_headings = {headingOf("group", {}), headingOf("value", unit)};
        m_table.columns.clear();
        for (const HeadingWords &heading : m_headings)
            m_table.columns.push_back({heading.shown, Role::Aside, {}, heading.unit, {}, {}, {}});
    }

    Status checkSaid() const
    {
        std::vector<std::string> wanted;
        for (const SaidColumn &said : m_request.said)
            wanted.push_back(said.heading);
        if (!m_request.codeColumn.empty())
            wanted.push_back(m_request.codeColumn);
        for (const NamedFactor &factor : m_request.factors)
            wanted.push_back(factor.part);
        for (const std::string &heading : wanted) {
            if (!columnNamed(heading)) {
                std::vector<std::string> known;
                for (const ResultsColumn &column : m_table.columns)
                    known.push_back('"' + column.heading + '"');
                return invalidArgument(
                    fmt::format("there is no column \"{}\"; the table has {}", heading, listText(known)));
            }
        }
        return ok();
    }

    /// By its heading with or without the unit, or by its number from 1.
    [[nodiscard]] std::optional<std::size_t> columnNamed(const std::string &heading) const
    {
        for (std::size_t c = 0; c < m_table.columns.size(); ++c) {
            if (m_table.columns[c].heading == heading)
                return c;
        }
        for (std::size_t c = 0; c < m_table.columns.size(); ++c) {
            if (lowered(m_headings[c].shown) == lowered(heading) || std::to_string(c + 1) == heading)
                return c;
        }
        return std::nullopt;
    }

    [[nodiscard]] const SaidColumn *saidOf(std::size_t column) const
    {
        for (const SaidColumn &said : m_request.said) {
            if (columnNamed(said.heading) == column)
                return &said;
        }
        return nullptr;
    }

    [[nodiscard]] std::optional<PropertyMeant> meantBy(std::size_t column,
                                                       std::span<const Method> among) const
    {
        if (const SaidColumn *said = saidOf(column)) {
            const std::vector<Method> tests = testsWith(said->meaning, among);
            return tests.empty() ? std::nullopt : std::optional(PropertyMeant{said->meaning, tests});
        }
        if (isOfAnother(m_headings[column].words) || !holdsNumbers(column))
            return std::nullopt;
        std::optional<PropertyMeant> meant = propertyInWords(m_headings[column].words, among);
        // The unit may say that it is another of the properties that share the words: an energy over an area.
        if (meant && m_headings[column].unit) {
            for (const PhraseFound &found : phrasesIn(m_headings[column].words)) {
                const std::vector<Method> tests = testsWith(found.property, among);
                if (!tests.empty() && fits(tests.front(), found.property, *m_headings[column].unit))
                    return PropertyMeant{std::string(found.property), tests};
            }
            for (const std::string_view other :
                 {"impact_strength", "energy_per_thickness", "absorbed_energy"}) {
                const std::vector<Method> tests = testsWith(other, among);
                const bool isOfImpact = meant->name == "impact_strength" || meant->name == "absorbed_energy";
                if (isOfImpact && !tests.empty() && fits(tests.front(), other, *m_headings[column].unit))
                    return PropertyMeant{std::string(other), tests};
            }
        }
        return meant;
    }

    static bool fits(Method test, std::string_view property, const Unit &unit)
    {
        const Dimension dimension = findProperty(*reductionOf(test), property)->dimension;
        return unit.dimension == dimension ||
               (dimension == Dimension::Percent && unit.dimension == Dimension::Ratio) ||
               (dimension == Dimension::Number && unit.dimension == Dimension::Ratio);
    }

    [[nodiscard]] bool holdsNumbers(std::size_t column) const
    {
        std::size_t numbers = 0;
        std::size_t filled = 0;
        for (const RawRow &row : m_raw) {
            if (isEmptyMark(row.cells[column]))
                continue;
            ++filled;
            numbers += readResultCell(row.cells[column], m_table.numbers) ? 1U : 0U;
        }
        return filled > 0 && 2 * numbers > filled;
    }

    /// The test of which most columns speak; the usual order of tests decides between equals.
    void chooseTest()
    {
        if (m_request.test) {
            m_table.test = *m_request.test;
            return;
        }
        const std::vector<Method> all = allTests();
        std::map<Method, int> votes;
        bool anyProperty = false;
        for (std::size_t c = 0; c < m_headings.size(); ++c) {
            const std::optional<PropertyMeant> meant = meantBy(c, all);
            if (!meant)
                continue;
            anyProperty = true;
            for (const Method test : meant->tests)
                ++votes[test];
        }
        int most = 0;
        for (const MethodFacts &facts : allMethods()) {
            if (votes[facts.method] > most) {
                most = votes[facts.method];
                m_table.test = facts.method;
            }
        }
        const auto rivals = std::count_if(votes.begin(), votes.end(), [&](const auto &vote) {
            return vote.second == most && vote.first != m_table.test && vote.first != Method::LayerAdhesion;
        });
        m_table.isTestAssumed = !anyProperty || rivals > 0;
    }

    void understandColumns()
    {
        const std::vector<Method> own{m_table.test};
        std::set<std::string> taken;
        for (std::size_t c = 0; c < m_headings.size(); ++c) {
            ResultsColumn &column = m_table.columns[c];
            const std::string &words = m_headings[c].words;
            const SaidColumn *said = saidOf(c);
            if (said != nullptr && (said->meaning == "-" || said->meaning == "code")) {
                column.role = said->meaning == "code" ? Role::Code : Role::Aside;
                m_isSettled.insert(c);
                continue;
            }
            if (isSaidFactor(c))
                continue;
            if (takeOther(c, words))
                continue;
            const std::optional<PropertyMeant> meant = meantBy(c, own);
            if (!meant) {
                tellOtherTest(c);
                continue;
            }
            if (!taken.insert(meant->name).second) {
                column.question =
                    fmt::format("two columns may be the {}; say with --map which is", meant->name);
                column.choices = {meant->name, "-"};
                continue;
            }
            column.role = Role::Property;
            column.property = meant->name;
            m_isSettled.insert(c);
            takeUnit(c, said);
        }
    }

    /// Sizes, notes and days, which no property is called.
    bool takeOther(std::size_t c, const std::string &words)
    {
        ResultsColumn &column = m_table.columns[c];
        const HeadMeaning head = meaningOfHead(m_headings[c].shown);
        const bool isLength = !m_headings[c].unit || m_headings[c].unit->dimension == Dimension::Length;
        const bool isLong = words.size() > 1 || m_headings[c].unit;
        if (isLength && isLong && holdsNumbers(c) &&
            (head == HeadMeaning::Width || head == HeadMeaning::Thickness || head == HeadMeaning::Diameter)) {
            column.role = head == HeadMeaning::Width       ? Role::Width
                          : head == HeadMeaning::Thickness ? Role::Thickness
                                                           : Role::Diameter;
            column.unit = m_headings[c].unit.value_or(workingUnit(Dimension::Length));
        } else if (isOneOf(kMassWords, words) && holdsNumbers(c)) {
            column.role = Role::Weighed;
            column.unit = m_headings[c].unit ? m_headings[c].unit : findUnit("g");
        } else if (isOneOf(kNoteWords, words) && !holdsNumbers(c)) {
            column.role = Role::Note;
        } else if (beginsAnyWord(words, kSeenWords) && !holdsNumbers(c) && factorInWords(words).empty()) {
            column.role = Role::Break;
        } else if (head == HeadMeaning::Date || head == HeadMeaning::Operator || head == HeadMeaning::Speed ||
                   words == "time" || words == "uhrzeit") {
            column.role = Role::Dated;
        } else {
            return false;
        }
        m_isSettled.insert(c);
        return true;
    }

    void tellOtherTest(std::size_t c)
    {
        const std::optional<PropertyMeant> other = meantBy(c, allTests());
        if (!other)
            return;
        m_isSettled.insert(c);
        m_table.warnings.push_back(fmt::format("\"{}\" is left aside: it is of {}, not of {}",
                                               m_table.columns[c].heading, methodName(other->tests.front()),
                                               methodName(m_table.test)));
    }

    void takeUnit(std::size_t c, const SaidColumn *said)
    {
        ResultsColumn &column = m_table.columns[c];
        const Property property = *findProperty(*reductionOf(m_table.test), column.property);
        if (said != nullptr && !said->unit.empty())
            column.unit = findUnit(said->unit);
        const Dimension dimension = property.dimension;
        if (column.unit && column.unit->symbol == "h" && property.name == kCountsHours)
            column.unit = workingUnit(dimension);
        if (column.unit && !fits(m_table.test, column.property, *column.unit)) {
            column.question = fmt::format("{} is no unit of the {}", column.unit->symbol, property.label);
            column.choices = unitsOf(dimension);
            return;
        }
        if (column.unit) {
            if (column.unit->dimension != dimension) // a percentage of what counts percent already
                column.unit = workingUnit(dimension);
            return;
        }
        if (const std::optional<Unit> unit = unitOfCells(c); unit && unit->dimension == dimension) {
            column.unit = unit;
            return;
        }
        if (!m_headings[c].unitText.empty()) {
            column.question = fmt::format("\"{}\" is no unit that is known", m_headings[c].unitText);
            column.choices = unitsOf(dimension);
            return;
        }
        const bool isOpen = dimension == Dimension::Ratio || property.name.ends_with("modulus") ||
                            dimension == Dimension::EnergyPerArea;
        if (isOpen && dimension != Dimension::Number) {
            column.question = "its unit is not said";
            column.choices = unitsOf(dimension);
            return;
        }
        column.unit = workingUnit(dimension);
        if (dimension != Dimension::Number && dimension != Dimension::Percent)
            m_table.warnings.push_back(
                fmt::format("\"{}\" names no unit; {} was taken", column.heading, symbolInFiles(dimension)));
    }

    /// "2.1 GPa" in each of them.
    [[nodiscard]] std::optional<Unit> unitOfCells(std::size_t c) const
    {
        std::optional<Unit> unit;
        for (const RawRow &row : m_raw) {
            const std::optional<CellValue> value = readResultCell(row.cells[c], m_table.numbers);
            if (value && !value->unit)
                return std::nullopt;
            if (value && !unit)
                unit = value->unit;
        }
        return unit;
    }

    static std::vector<std::string> unitsOf(Dimension dimension)
    {
        std::vector<std::string> symbols;
        for (const Unit &unit : allUnits()) {
            if (unit.dimension == dimension)
                symbols.emplace_back(unit.symbol);
        }
        return symbols;
    }

    [[nodiscard]] std::set<std::string> distinct(std::size_t c) const
    {
        std::set<std::string> values;
        for (const RawRow &row : m_raw)
            values.insert(lowered(row.cells[c]));
        return values;
    }

    void chooseCode()
    {
        const auto isUnique = [&](std::size_t c) { return distinct(c).size() == m_raw.size(); };
        if (!m_request.codeColumn.empty())
            m_code = columnNamed(m_request.codeColumn);
        for (std::size_t c = 0; c < m_headings.size() && !m_code; ++c) {
            if (m_table.columns[c].role == Role::Code)
                m_code = c;
        }
        for (std::size_t c = 0; c < m_headings.size() && !m_code; ++c) {
            if (!m_isSettled.contains(c) && isOneOf(kCodeWords, m_headings[c].words) && isUnique(c))
                m_code = c;
        }
        for (std::size_t c = 0; c < m_headings.size() && !m_code; ++c) {
            const bool isCounter = isOneOf(kCounterWords, m_headings[c].words) || m_headings[c].words.empty();
            if (!m_isSettled.contains(c) && isCounter && isUnique(c))
                m_code = c;
        }
        if (!m_code && !m_headings.empty() && !m_isSettled.contains(0) && isUnique(0) && !holdsNumbers(0))
            m_code = 0;
        if (m_code) {
            m_table.columns[*m_code].role = Role::Code;
            m_isSettled.insert(*m_code);
        }
    }

    [[nodiscard]] bool isSaidFactor(std::size_t c) const
    {
        return std::any_of(m_request.factors.begin(), m_request.factors.end(),
                           [&](const NamedFactor &factor) { return columnNamed(factor.part) == c; });
    }

    void chooseFactors()
    {
        std::vector<std::size_t> chosen;
        for (std::size_t c = 0; c < m_headings.size(); ++c) {
            if (m_isSettled.contains(c))
                continue;
            const std::set<std::string> values = distinct(c);
            const bool isLevel =
                values.size() >= 2 && 2 * values.size() <= m_raw.size() && !values.contains("");
            const bool isMaterial =
                values.size() == 1 && factorInWords(m_headings[c].words) == factor::kMaterial;
            if (isMaterial)
                m_table.columns[c].role = Role::Material;
            else if (isSaidFactor(c) || (isLevel && !isCounterColumn(c)))
                chosen.push_back(c);
        }
        leaveTwinsOut(chosen);
        for (const std::size_t c : chosen)
            makeFactor(c);
    }

    /// 1, 2, 3 … in each group of the other columns: it counts the pieces of a rail.
    [[nodiscard]] bool isCounterColumn(std::size_t c) const
    {
        const std::string &words = m_headings[c].words;
        if (!factorInWords(words).empty() || !m_headings[c].unitText.empty())
            return false;
        if (isOneOf(kCounterWords, words) || isOneOf(kCodeWords, words))
            return true;
        int last = 0;
        std::size_t restarts = 0;
        for (const RawRow &row : m_raw) {
            const std::optional<double> number = parseTypedNumber(row.cells[c]);
            if (!number)
                return false;
            if (*number == last + 1)
                ++last;
            else if (*number == 1.0 && ++restarts > 0)
                last = 1;
            else
                return false;
        }
        return restarts > 0;
    }

    /// Of two columns that each tell the other one is enough: the one that a factor is known by, or with a
    /// unit, or the first.
    void leaveTwinsOut(std::vector<std::size_t> &chosen) const
    {
        const auto rank = [&](std::size_t c) {
            return isSaidFactor(c)                               ? 3
                   : !factorInWords(m_headings[c].words).empty() ? 2
                   : !m_headings[c].unitText.empty()             ? 1
                                                                 : 0;
        };
        for (std::size_t a = 0; a < chosen.size(); ++a) {
            for (std::size_t b = a + 1; b < chosen.size();) {
                if (!areTwins(chosen[a], chosen[b])) {
                    ++b;
                    continue;
                }
                const bool keepB = rank(chosen[b]) > rank(chosen[a]);
                if (keepB)
                    std::swap(chosen[a], chosen[b]);
                chosen.erase(chosen.begin() + static_cast<std::ptrdiff_t>(b));
            }
        }
        std::sort(chosen.begin(), chosen.end());
    }

    [[nodiscard]] bool areTwins(std::size_t a, std::size_t b) const
    {
        std::map<std::string, std::string> there;
        std::map<std::string, std::string> back;
        for (const RawRow &row : m_raw) {
            const std::string x = lowered(row.cells[a]);
            const std::string y = lowered(row.cells[b]);
            if (there.emplace(x, y).first->second != y || back.emplace(y, x).first->second != x)
                return false;
        }
        return true;
    }

    void makeFactor(std::size_t c)
    {
        ResultsColumn &column = m_table.columns[c];
        column.role = Role::Factor;
        Factor &made = column.factor;
        made.name = factorInWords(m_headings[c].words);
        made.unit = m_headings[c].unitText;
        for (const NamedFactor &said : m_request.factors) {
            if (columnNamed(said.part) == c) {
                made.name = said.name;
                made.unit = said.unit.empty() ? made.unit : said.unit;
            }
        }
        if (made.name.empty())
            made.name = lowered(m_headings[c].shown);
        bool areNumbers = true;
        for (RawRow &row : m_raw) {
            const std::vector<NamePart> parts = namePartsOf(row.cells[c] + ".x");
            const Cell cell = readCell(trimmed(row.cells[c]), m_table.numbers);
            if (cell.kind == CellKind::Number)
                row.cells[c] = levelOfNumber(cell.value);
            else if (parts.size() == 1 && parts.front().number && parts.front().word.empty() &&
                     !parts.front().unit.empty() && (made.unit.empty() || made.unit == parts.front().unit)) {
                made.unit = parts.front().unit;
                row.cells[c] = levelOfNumber(*parts.front().number);
            } else {
                areNumbers = false;
            }
        }
        if (!areNumbers)
            made.unit.clear();
        std::map<std::string, std::string> firstSpelling;
        std::vector<std::string *> levels;
        for (RawRow &row : m_raw) {
            row.cells[c] = firstSpelling.emplace(lowered(row.cells[c]), row.cells[c]).first->second;
            levels.push_back(&row.cells[c]);
        }
        recogniseLevels(made, levels);
    }

    BoundTexts m_texts;
    const ResultsRequest &m_request;
    ResultsTable m_table;
    std::vector<HeadingWords> m_headings;
    std::vector<bool> m_quantities; ///< of each: whether it names one of a record
    std::vector<RawRow> m_raw;
    std::set<std::size_t> m_isSettled; ///< columns of which it is known what they are
    std::optional<std::size_t> m_code;
    bool m_hasRowNames = false;
};

} // namespace

Result<ResultsTable> understandResults(std::string_view text, const ResultsRequest &request)
{
    return ResultsReader(text, request).read();
}

GivenRow valuesOf(const ResultsTable &table, const ResultsRow &row, std::vector<RefusedCell> &refused)
{
    GivenRow given{row.line, {}};
    const bool stillServes = std::any_of(row.cells.begin(), row.cells.end(),
                                         [](const std::string &cell) { return saysStillServes(cell); });
    for (std::size_t c = 0; c < table.columns.size(); ++c) {
        const ResultsColumn &column = table.columns[c];
        if (column.role != Role::Property || !column.question.empty() || isEmptyMark(row.cells[c]) ||
            saysNoBreak(row.cells[c]))
            continue;
        const std::optional<CellValue> value = readResultCell(row.cells[c], table.numbers);
        if (!value) {
            refused.push_back(
                {row.line, c + 1,
                 fmt::format("\"{}\" under \"{}\" is no number; write one, \"> number\" where it is "
                             "at least that, or leave the cell empty",
                             row.cells[c], column.heading)});
            continue;
        }
        if (value->isAtMost) {
            refused.push_back(
                {row.line, c + 1,
                 fmt::format("\"{}\" under \"{}\" is an upper bound; only lower ones can be compared",
                             row.cells[c], column.heading)});
            continue;
        }
        if (value->unit && value->unit->dimension != column.unit->dimension) {
            refused.push_back({row.line, c + 1,
                               fmt::format("\"{}\" under \"{}\" is in another unit than the column's {}",
                                           row.cells[c], column.heading, column.unit->symbol)});
            continue;
        }
        given.values.push_back({column.property, value->unit.value_or(*column.unit).toWorking(value->number),
                                value->isAtLeast || (stillServes && column.property == kCountsHours),
                                column.heading});
    }
    return given;
}

namespace
{

/// Whether a column tells rows of different specimens apart, as none of a running record does: by words, by a
/// unit behind each level, by a factor that is known.
bool namesSpecimens(const ResultsTable &table, const ResultsColumn &column)
{
    if (column.role != Role::Factor && column.role != Role::Code)
        return false;
    const auto c = static_cast<std::size_t>(&column - table.columns.data());
    // A row without any number is a heading that comes again: that of the next record below, of the next
    // sheet.
    const auto isNumber = [&](const std::string &cell) {
        return readCell(trimmed(cell), table.numbers).kind == CellKind::Number;
    };
    const bool anyWord = std::any_of(table.rows.begin(), table.rows.end(), [&](const ResultsRow &row) {
        return !isNumber(row.cells[c]) && std::any_of(row.cells.begin(), row.cells.end(), isNumber);
    });
    return anyWord || (column.role == Role::Factor && findFactorKind(column.factor.name) != nullptr);
}

} // namespace

bool isResultsTable(std::string_view text)
{
    const BoundTexts texts = boundTextsOf(text);
    const Result<Layout> layout = findLayout(texts.plain);
    if (!layout)
        return false;
    if (!layout->doubt.empty() || !resultsSentence(texts.plain, *layout).empty())
        return true;
    const Result<ResultsTable> table = understandResults(text, {});
    if (!table || table->rows.size() < 2)
        return false;
    if (table->columns.size() == 2 && table->columns[0].heading == "group" &&
        table->columns[1].heading == "value")
        return true;
    const bool isResult =
        std::any_of(table->columns.begin(), table->columns.end(),
                    [](const ResultsColumn &column) { return column.role == ResultsColumn::Role::Property; });
    const bool hasBounds = texts.marked != texts.plain;
    return isResult && (hasBounds || std::any_of(table->columns.begin(), table->columns.end(),
                                                 [&](const ResultsColumn &column) {
                                                     return namesSpecimens(*table, column);
                                                 }));
}

} // namespace inchpeg
