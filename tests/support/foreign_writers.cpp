// SPDX-License-Identifier: GPL-3.0-or-later
// How the writers lay out their files was taken from what they write: R 4.2 (write.table, write.csv, print),
// pandas 1.5 (to_csv, to_string, to_markdown), NumPy 1.24 (savetxt), Python 3.11 (csv), psql 15; the parts of
// workbooks from ECMA-376 and ISO/IEC 26300 (from memory where no such writer was at hand).
#include "support/foreign_writers.h"

#include "sim/random.h"
#include "support/zip_bytes.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>

namespace inchpeg::test
{

namespace
{

struct UnitChoice {
    std::string symbol;
    double perBase = 1.0; ///< how many of it are one N, mm or s
};

const std::vector<UnitChoice> kUnitsOfForce = {
    {"N", 1.0}, {"kN", 1e-3}, {"lbf", 1.0 / 4.4482216152605}, {"kgf", 1.0 / 9.80665}, {"daN", 0.1}};
const std::vector<UnitChoice> kUnitsOfLength = {{"mm", 1.0}, {"in", 1.0 / 25.4}, {"cm", 0.1}};
const std::vector<UnitChoice> kUnitsOfTime = {{"s", 1.0}, {"ms", 1e3}, {"min", 1.0 / 60.0}};

struct Pull {
    std::vector<double> time_s;
    std::vector<double> extension_mm;
    std::vector<double> force_N;
};

Pull pull(sim::Random &random)
{
    Pull out;
    const int n = 14 + static_cast<int>(random.uniform() * 30.0);
    const double peak_N = std::floor(200.0 + 1800.0 * random.uniform());
    for (int i = 0; i < n; ++i) {
        const double share = (i + 1.0) / (n - 2.0);
        out.time_s.push_back(0.5 * i);
        out.extension_mm.push_back(0.02 * i);
        out.force_N.push_back(share <= 1.0 ? std::round(1000.0 * peak_N * share * (2.0 - share)) / 1000.0
                                           : 1.25);
    }
    return out;
}

/// What a table shows of a pull: names, units, cells as text.
struct Cells {
    std::vector<std::string> names; ///< time, extension, force
    std::vector<std::string> units;
    std::vector<std::vector<std::string>> rows;
};

std::string number(double value, char decimal)
{
    std::string text = fmt::format("{:.9g}", value);
    std::replace(text.begin(), text.end(), '.', decimal);
    return text;
}

class Making
{
public:
    Making(unsigned seed, std::vector<ForeignFile> &files) : m_random(seed), m_files(files) {}

    struct Made {
        Pull pull;
        Cells cells;
    };

    Made make(char decimal)
    {
        Made made{pull(m_random), {}};
        const UnitChoice &force = pick(kUnitsOfForce);
        const UnitChoice &length = pick(kUnitsOfLength);
        const UnitChoice &time = pick(kUnitsOfTime);
        m_mayBeWords = length.symbol == "in" || time.symbol == "min";
        made.cells.names = {"Time", "Extension", "Force"};
        made.cells.units = {time.symbol, length.symbol, force.symbol};
        for (std::size_t i = 0; i < made.pull.time_s.size(); ++i)
            made.cells.rows.push_back({number(made.pull.time_s[i] * time.perBase, decimal),
                                       number(made.pull.extension_mm[i] * length.perBase, decimal),
                                       number(made.pull.force_N[i] * force.perBase, decimal)});
        return made;
    }

    void add(std::string writer, std::string what, const Pull &truth, std::string bytes,
             std::string refusedWith = {}, std::optional<std::size_t> table = {})
    {
        // "in" and "min" in front of a name may be words.
        if (refusedWith.empty() && what.starts_with("UNIT NAME") && m_mayBeWords)
            refusedWith = "may be its unit or a word";
        m_files.push_back({std::move(writer), std::move(what), std::move(bytes), truth.time_s.size(),
                           *std::max_element(truth.force_N.begin(), truth.force_N.end()),
                           truth.time_s.back() - truth.time_s.front(), truth.extension_mm.back(), table,
                           std::move(refusedWith)});
    }

    sim::Random &random() { return m_random; }

private:
    const UnitChoice &pick(const std::vector<UnitChoice> &units)
    {
        const auto at = static_cast<std::size_t>(m_random.uniform() * static_cast<double>(units.size()));
        return units[std::min(at, units.size() - 1)];
    }
    sim::Random m_random;
    std::vector<ForeignFile> &m_files;
    bool m_mayBeWords = false; ///< units of the pull that was made last
};

std::string joined(const std::vector<std::string> &cells, std::string_view delimiter)
{
    std::string out;
    for (std::size_t i = 0; i < cells.size(); ++i)
        out += (i > 0 ? std::string(delimiter) : "") + cells[i];
    return out;
}

std::string inQuotes(const std::string &text)
{
    return "\"" + text + "\"";
}

std::vector<std::string> withUnits(const Cells &cells, std::string_view form)
{
    std::vector<std::string> names;
    for (std::size_t c = 0; c < cells.names.size(); ++c) {
        std::string name(form);
        for (const auto &[mark, text] :
             {std::pair<std::string, std::string>{"NAME", cells.names[c]}, {"UNIT", cells.units[c]}})
            if (const std::size_t at = name.find(mark); at != std::string::npos)
                name.replace(at, mark.size(), text);
        names.push_back(name);
    }
    return names;
}

/// How headings hold a unit in the files of others.
constexpr std::string_view kHeadingForms[] = {
    "NAME (UNIT)", "NAME [UNIT]", "NAME_UNIT",  "NAME..UNIT.", "NAME_UNIT_filtered", "NAME:UNIT",
    "NAME<UNIT>",  "UNIT NAME",   "NAME, UNIT", "NAME / UNIT", "NAME {UNIT}",        "NAME.UNIT"};

void textFiles(Making &making)
{
    for (const std::string_view form : kHeadingForms) {
        const auto heads = [&](const Cells &cells) { return withUnits(cells, form); };
        const auto quotedHeads = [&](const Cells &cells) {
            std::vector<std::string> names = heads(cells);
            for (std::string &name : names)
                name = inQuotes(name);
            return names;
        };
        const std::string what(form);
        { // R: write.table has a name fewer than cells
            const auto [truth, cells] = making.make('.');
            std::string text = joined(quotedHeads(cells), " ") + "\n";
            for (std::size_t i = 0; i < cells.rows.size(); ++i)
                text += fmt::format("\"{}\" {}\n", i + 1, joined(cells.rows[i], " "));
            making.add("R write.table", what, truth, text);
        }
        { // R: write.csv names the row names ""
            const auto [truth, cells] = making.make('.');
            std::string text = "\"\"," + joined(quotedHeads(cells), ",") + "\n";
            for (std::size_t i = 0; i < cells.rows.size(); ++i)
                text += fmt::format("\"{}\",{}\n", i + 1, joined(cells.rows[i], ","));
            making.add("R write.csv", what, truth, text);
        }
        { // R: write.csv2, semicolons and decimal commas, and row names without a heading
            const auto [truth, cells] = making.make(',');
            std::string text = joined(quotedHeads(cells), ";") + "\n";
            for (std::size_t i = 0; i < cells.rows.size(); ++i)
                text += fmt::format("\"{}\";{}\n", i + 1, joined(cells.rows[i], ";"));
            making.add("R write.table sep", what, truth, text);
        }
        { // R: print, right aligned
            const auto [truth, cells] = making.make('.');
            std::string text = "   ";
            for (const std::string &name : heads(cells))
                text += fmt::format(" {:>22}", name);
            text += "\n";
            for (std::size_t i = 0; i < cells.rows.size(); ++i) {
                text += fmt::format("{:<3}", i + 1);
                for (const std::string &cell : cells.rows[i])
                    text += fmt::format(" {:>22}", cell);
                text += "\n";
            }
            making.add("R print", what, truth, text);
        }
        { // pandas: the index has no name
            const auto [truth, cells] = making.make('.');
            const std::vector<std::string> names = heads(cells);
            std::string text;
            for (const std::string &name : names)
                text += "," + (name.find(',') == std::string::npos ? name : inQuotes(name));
            text += "\n";
            for (std::size_t i = 0; i < cells.rows.size(); ++i)
                text += fmt::format("{},{}\n", i, joined(cells.rows[i], ","));
            making.add("pandas to_csv", what, truth, text);
        }
        { // pandas: to_string
            const auto [truth, cells] = making.make('.');
            std::string text = "  ";
            for (const std::string &name : heads(cells))
                text += fmt::format("  {:>22}", name);
            text += "\n";
            for (std::size_t i = 0; i < cells.rows.size(); ++i) {
                text += fmt::format("{:<2}", i);
                for (const std::string &cell : cells.rows[i])
                    text += fmt::format("  {:>22}", cell);
                text += "\n";
            }
            making.add("pandas to_string", what, truth, text);
        }
        { // pandas: to_markdown
            const auto [truth, cells] = making.make('.');
            std::string text = "|    |";
            std::string ruler = "|---:|";
            for (const std::string &name : heads(cells)) {
                text += fmt::format(" {:>22} |", name);
                ruler += "-----------------------:|";
            }
            text += "\n" + ruler + "\n";
            for (std::size_t i = 0; i < cells.rows.size(); ++i) {
                text += fmt::format("| {:>2} |", i);
                for (const std::string &cell : cells.rows[i])
                    text += fmt::format(" {:>22} |", cell);
                text += "\n";
            }
            making.add("pandas to_markdown", what, truth, text);
        }
        { // NumPy: savetxt makes the heading a comment; comma or blank
            for (const std::string_view delimiter : {",", " "}) {
                if (delimiter == " " && form.find(' ') != std::string_view::npos)
                    continue; // no reader could tell the names apart
                if (delimiter == "," && form.find(',') != std::string_view::npos)
                    continue;
                const auto [truth, cells] = making.make('.');
                std::string text = "# " + joined(heads(cells), delimiter) + "\n";
                for (const auto &row : cells.rows)
                    text += joined(row, delimiter) + "\n";
                making.add("NumPy savetxt", what, truth, text);
            }
        }
        { // Python: csv with everything in quotes
            const auto [truth, cells] = making.make('.');
            std::string text = joined(quotedHeads(cells), ",") + "\r\n";
            for (const auto &row : cells.rows)
                text += fmt::format("\"{}\",\"{}\",\"{}\"\r\n", row[0], row[1], row[2]);
            making.add("Python csv", what, truth, text);
        }
        { // a spreadsheet's text export: names break their line
            const auto [truth, cells] = making.make(',');
            std::vector<std::string> names = heads(cells);
            for (std::string &name : names) {
                if (const std::size_t blank = name.find(' '); blank != std::string::npos)
                    name[blank] = '\n';
                name = inQuotes(name);
            }
            std::string text = joined(names, ";") + "\r\n";
            for (const auto &row : cells.rows)
                text += joined(row, ";") + "\r\n";
            making.add("spreadsheet text", what, truth, text);
        }
        { // psql
            const auto [truth, cells] = making.make('.');
            std::string text = " " + joined(heads(cells), " | ") + " \n---------+----------+---------\n";
            for (const auto &row : cells.rows)
                text += " " + joined(row, " | ") + "\n";
            text += fmt::format("({} rows)\n", cells.rows.size());
            making.add("psql", what, truth, text);
        }
        { // a frame: head, names, row of units, summary below
            const auto [truth, cells] = making.make(',');
            std::string text = "Prüfprotokoll;12\r\nProbe;A 7\r\nBreite;10,02\r\n\r\n" +
                               joined(cells.names, ";") + "\r\n" + joined(cells.units, ";") + "\r\n";
            for (const auto &row : cells.rows)
                text += joined(row, ";") + "\r\n";
            text += "\r\nMittelwert;0,5;0,25\r\n";
            making.add("frame with units row", "row of units for " + what, truth, text);
        }
    }
}

/// What loggers write, and what befalls tables on the way.
void oddText(Making &making)
{
    for (int k = 0; k < 12; ++k) {
        const auto plain = [&](const Making::Made &made, std::string_view delimiter) {
            std::string text = joined(withUnits(made.cells, "NAME (UNIT)"), delimiter) + "\n";
            for (const auto &row : made.cells.rows)
                text += joined(row, delimiter) + "\n";
            return text;
        };
        {
            const Making::Made made = making.make('.');
            making.add("logger", "zero bytes behind", made.pull, plain(made, ",") + std::string(512, '\0'));
        }
        {
            const Making::Made made = making.make('.');
            making.add("logger", "bars", made.pull, plain(made, "|"));
        }
        {
            const Making::Made made = making.make('.');
            std::string text = "time;extension;force\n"; // semicolons over commas
            for (std::size_t i = 0; i < made.pull.time_s.size(); ++i)
                text += fmt::format("{},{},{}\n", made.pull.time_s[i], made.pull.extension_mm[i],
                                    made.pull.force_N[i]);
            making.add("logger", "another delimiter in the heading", made.pull, text);
        }
        for (const std::string_view heading : {"time,extension,force", "time s extension mm force N"}) {
            const Making::Made made = making.make('.');
            std::string text = std::string(heading) + "\n";
            for (std::size_t i = 0; i < made.pull.time_s.size(); ++i)
                text += fmt::format("{} {} {}\n", made.pull.time_s[i], made.pull.extension_mm[i],
                                    made.pull.force_N[i]);
            making.add("logger", "over blanks: " + std::string(heading), made.pull, text);
        }
        { // Windows text: thousands parted by a mark that Latin-1 does not have
            const Making::Made made = making.make('.');
            std::string text = "time (s);extension (mm);force (N)\n";
            for (std::size_t i = 0; i < made.pull.time_s.size(); ++i) {
                const auto whole = static_cast<int>(made.pull.force_N[i]);
                const std::string rest = fmt::format("{:.3f}", made.pull.force_N[i] - whole).substr(1);
                text += fmt::format("{};{};", made.pull.time_s[i], made.pull.extension_mm[i]);
                text += whole < 1000 ? fmt::format("{}{}\n", whole, rest)
                                     : fmt::format("{}\x92{:03}{}\n", whole / 1000, whole % 1000, rest);
            }
            making.add("logger", "thousands of Windows", made.pull, text);
        }
        const auto withTimes = [&](std::string_view heading, auto timeText, std::string_view what) {
            const Making::Made made = making.make('.');
            std::string text = fmt::format("{};Extension (mm);Force (N)\n", heading);
            for (std::size_t i = 0; i < made.pull.time_s.size(); ++i)
                text += fmt::format("{};{};{}\n", timeText(made.pull.time_s[i]), made.pull.extension_mm[i],
                                    made.pull.force_N[i]);
            making.add("logger", std::string(what), made.pull, text);
        };
        const auto clock = [](double s) {
            const auto whole = static_cast<int>(s);
            return fmt::format("{:02}:{:02}:{:02}.{:01}", whole / 3600 % 24, whole / 60 % 60, whole % 60,
                               static_cast<int>(std::round((s - whole) * 10.0)));
        };
        withTimes("Time", clock, "clock");
        withTimes(
            "Zeit [hh:mm:ss]", [&](double s) { return clock(s + 86395.0); }, "clock over midnight");
        withTimes(
            "timestamp", [&](double s) { return "2026-03-04T" + clock(s + 36000.0) + "Z"; }, "ISO");
        withTimes(
            "Datum", [&](double s) { return "04.03.2026 " + clock(s + 36000.0); }, "day first");
        withTimes(
            "Time", [&](double s) { return "3/14/2026 " + clock(s + 36000.0).substr(1); }, "month first");
        withTimes(
            "millis", [&](double s) { return fmt::format("{}", 123456.0 + 1000.0 * s); }, "millis");
        withTimes(
            "unix", [&](double s) { return fmt::format("{:.1f}", 1772582400.0 + s); }, "unix seconds");
        withTimes(
            "Time (us)", [&](double s) { return fmt::format("{:.0f}", 1e6 * s); }, "microseconds");
        withTimes(
            "TIME SEC", [&](double s) { return fmt::format("{}", s); }, "SEC");
        withTimes(
            "Time", [&](double s) { return fmt::format("{} s", s); }, "unit in the cells");
        {
            const Making::Made made = making.make('.');
            std::string text = "Time,Force,Extension\n";
            for (std::size_t i = 0; i < made.pull.time_s.size(); ++i)
                text += fmt::format("{} s,{} kN,{} mm\n", made.pull.time_s[i], made.pull.force_N[i] / 1000.0,
                                    made.pull.extension_mm[i]);
            making.add("logger", "units in all cells", made.pull, text);
        }
        {
            const Making::Made made = making.make('.');
            std::string text = "время (с);перемещение (мм);сила (Н);note\n";
            for (std::size_t i = 0; i < made.pull.time_s.size(); ++i)
                text += fmt::format("{};{};{};{}\n", made.pull.time_s[i], made.pull.extension_mm[i],
                                    made.pull.force_N[i],
                                    i % 3 == 0   ? "ok"
                                    : i % 3 == 1 ? "7"
                                                 : "");
            making.add("frame", "Russian, and a remark that is sometimes a number", made.pull, text);
        }
        {
            const Making::Made made = making.make('.');
            std::string text = "time,value,unit,extension\n";
            for (std::size_t i = 0; i < made.pull.time_s.size(); ++i)
                text += fmt::format("{},{},kN,{}\n", made.pull.time_s[i], made.pull.force_N[i] / 1000.0,
                                    made.pull.extension_mm[i]);
            std::string named = text;
            named.replace(named.find("value"), 5, "force");
            making.add("logger", "a column of units", made.pull, named);
        }
        { // several specimens below each other, by name and by the time alone
            for (const bool isNamed : {true, false}) {
                std::string text = isNamed ? "specimen,time,extension,force\n" : "time,extension,force\n";
                std::vector<Pull> pulls;
                for (int s = 0; s < 3; ++s) {
                    pulls.push_back(making.make('.').pull);
                    for (std::size_t i = 0; i < pulls.back().time_s.size(); ++i)
                        text += fmt::format("{}{},{},{}\n", isNamed ? fmt::format("S{},", s + 1) : "",
                                            pulls.back().time_s[i], pulls.back().extension_mm[i],
                                            pulls.back().force_N[i]);
                }
                const std::string what = isNamed ? "specimens by name" : "specimens by time";
                making.add("tidy table", what, pulls[0], text, "3 specimens below each other");
                making.add("tidy table", what, pulls[1], text, {}, 2);
            }
        }
        { // side by side
            std::string text = "time,extension,force,time,extension,force\n";
            const Pull first = making.make('.').pull;
            Pull second = first;
            for (double &force : second.force_N)
                force *= 0.75;
            for (std::size_t i = 0; i < first.time_s.size(); ++i)
                text += fmt::format("{0},{1},{2},{0},{1},{3}\n", first.time_s[i], first.extension_mm[i],
                                    first.force_N[i], second.force_N[i]);
            making.add("spreadsheet text", "side by side", first, text, "2 specimens side by side");
            making.add("spreadsheet text", "side by side", second, text, {}, 2);
        }
        const auto refused = [&](std::string_view what, const std::string &heading, const std::string &row,
                                 const std::string &sentence) {
            std::string text = heading + "\n";
            for (int i = 0; i < 12 + k; ++i)
                text += fmt::format(fmt::runtime(row), 0.5 * i, 10.0 * i) + "\n";
            making.add("damaged", std::string(what), making.make('.').pull, text, sentence);
        };
        refused("two units", "time (s),force (N) [kN]", "{},{}", "two units");
        refused("a comma missing in the heading", "time (s) force (N),extension (mm)", "{},{},3.1",
                "2 names");
        refused("a name too many", "time (s),force (N),extension (mm),strain (%)", "{},{},3.1", "4 names");
        refused("a lost unit", "time (s),force (N),Strain....", "{},{},0.1", "lost");
        refused("a mass for a force", "time (s),force (kg)", "{},{}", "a mass is no force");
        refused("two units, one below", "time,force (N)\ns,kN", "{},{}", "two units");
        {
            std::string days = "time,force (N)\n";
            for (int i = 0; i < 12 + k; ++i)
                days += fmt::format("{:02}/05/2026 {:02}:00:00,{}\n", 3 + i / 3, 8 * (i % 3), 10.0 * i);
            making.add("damaged", "day or month", making.make('.').pull, days, "day and month");
        }
    }
}

std::string cellName(std::size_t row, std::size_t column)
{
    return std::string(1, static_cast<char>('A' + column)) + std::to_string(row + 1);
}

/// How a writer of workbooks goes about it.
struct BookWriter {
    std::string name;
    bool absoluteTargets = false;
    bool hasReferences = true;  ///< cells and rows tell their place
    std::string textType = "s"; ///< shared; "inlineStr", "str"
    std::string prefix;         ///< of the elements: "x:"
    bool hiddenFirst = false;
};

std::string escaped(std::string text)
{
    for (std::size_t at = 0; (at = text.find_first_of("<>&", at)) != std::string::npos;) {
        const std::string entity = text[at] == '<' ? "&lt;" : text[at] == '>' ? "&gt;" : "&amp;";
        text.replace(at, 1, entity);
        at += entity.size();
    }
    return text;
}

using Grid = std::vector<std::vector<std::string>>; ///< text begins with '\''; "" is empty

std::string workbookOf(const BookWriter &writer, const Grid &grid, const std::string &numberFormat = {})
{
    const std::string p = writer.prefix;
    const std::string ns = p.empty() ? "xmlns" : "xmlns:" + p.substr(0, p.size() - 1);
    const std::string main = ns + "=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"";
    std::vector<std::string> shared;
    std::string rows;
    for (std::size_t r = 0; r < grid.size(); ++r) {
        rows += fmt::format("<{}row{}>", p, writer.hasReferences ? fmt::format(" r=\"{}\"", r + 1) : "");
        for (std::size_t c = 0; c < grid[r].size(); ++c) {
            const std::string &cell = grid[r][c];
            const std::string at = writer.hasReferences ? fmt::format(" r=\"{}\"", cellName(r, c)) : "";
            if (cell.empty()) {
                rows += writer.hasReferences ? "" : fmt::format("<{}c/>", p);
            } else if (cell.front() != '\'') {
                const bool isStyled = !numberFormat.empty() && c == 2;
                rows += fmt::format("<{0}c{1}{2}><{0}v>{3}</{0}v></{0}c>", p, at, isStyled ? " s=\"1\"" : "",
                                    cell);
            } else if (writer.textType == "s") {
                shared.push_back(cell.substr(1));
                rows += fmt::format("<{0}c{1} t=\"s\"><{0}v>{2}</{0}v></{0}c>", p, at, shared.size() - 1);
            } else if (writer.textType == "str") {
                rows +=
                    fmt::format("<{0}c{1} t=\"str\"><{0}v>{2}</{0}v></{0}c>", p, at, escaped(cell.substr(1)));
            } else {
                rows += fmt::format("<{0}c{1} t=\"inlineStr\"><{0}is><{0}t>{2}</{0}t></{0}is></{0}c>", p, at,
                                    escaped(cell.substr(1)));
            }
        }
        rows += fmt::format("</{}row>", p);
    }
    std::string texts;
    for (const std::string &text : shared)
        texts += fmt::format("<{0}si><{0}t>{1}</{0}t></{0}si>", p, escaped(text));
    const std::string head = "<?xml version=\"1.0\" encoding=\"UTF-8\" standalone=\"yes\"?>\n";
    const std::string kind = "http://schemas.openxmlformats.org/officeDocument/2006/relationships/";
    const std::string target = writer.absoluteTargets ? "/xl/" : "";
    const auto sheetXml = [&](const std::string &data) {
        return head + fmt::format("<{0}worksheet {1}><{0}sheetData>{2}</{0}sheetData></{0}worksheet>", p,
                                  main, data);
    };
    std::vector<ZipPart> parts = {
        {"[Content_Types].xml",
         head + "<Types xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\"/>"},
        {"_rels/.rels", head + fmt::format("<Relationships><Relationship Id=\"rId1\" "
                                           "Type=\"{}officeDocument\" Target=\"{}xl/workbook.xml\"/>"
                                           "</Relationships>",
                                           kind, writer.absoluteTargets ? "/" : "")},
        {"xl/workbook.xml",
         head +
             fmt::format(
                 "<{0}workbook {1} xmlns:r=\"{2}\"><{0}sheets>{3}<{0}sheet name=\"Data\" sheetId=\"1\" "
                 "r:id=\"rId1\"/></{0}sheets></{0}workbook>",
                 p, main, kind.substr(0, kind.size() - 1),
                 writer.hiddenFirst
                     ? fmt::format("<{}sheet name=\"Old\" sheetId=\"2\" state=\"hidden\" r:id=\"rId4\"/>", p)
                     : "")},
        {"xl/_rels/workbook.xml.rels",
         head +
             fmt::format(
                 "<Relationships><Relationship Id=\"rId1\" Type=\"{0}worksheet\" "
                 "Target=\"{1}worksheets/sheet1.xml\"/><Relationship Id=\"rId2\" Type=\"{0}sharedStrings\" "
                 "Target=\"{1}sharedStrings.xml\"/><Relationship Id=\"rId3\" Type=\"{0}styles\" "
                 "Target=\"{1}styles.xml\"/><Relationship Id=\"rId4\" Type=\"{0}worksheet\" "
                 "Target=\"{1}worksheets/sheet2.xml\"/></Relationships>",
                 kind, target)},
        {"xl/styles.xml",
         head + fmt::format("<{0}styleSheet {1}><{0}numFmts><{0}numFmt numFmtId=\"170\" "
                            "formatCode=\"{2}\"/></{0}numFmts>"
                            "<{0}cellStyleXfs><{0}xf numFmtId=\"9\"/></{0}cellStyleXfs><{0}cellXfs><{0}xf "
                            "numFmtId=\"0\"/>"
                            "<{0}xf numFmtId=\"170\"/></{0}cellXfs></{0}styleSheet>",
                            p, main, numberFormat.empty() ? "0.00" : numberFormat)},
        {"xl/worksheets/sheet1.xml", sheetXml(rows)},
        {"xl/worksheets/sheet2.xml",
         sheetXml(fmt::format(
             "<{0}row><{0}c t=\"str\"><{0}v>Force (N)</{0}v></{0}c></{0}row><{0}row><{0}c><{0}v>99999</{0}v>"
             "</{0}c></{0}row>",
             p))}};
    if (writer.textType == "s")
        parts.push_back(
            {"xl/sharedStrings.xml", head + fmt::format("<{0}sst {1}>{2}</{0}sst>", p, main, texts)});
    return zipBytes(parts);
}

std::string openDocumentOf(const Grid &grid, bool isSpread)
{
    std::string rows;
    for (const auto &row : grid) {
        rows += "<table:table-row>";
        for (const std::string &cell : row) {
            if (cell.empty())
                rows += "<table:table-cell/>";
            else if (cell.front() == '\'')
                rows += "<table:table-cell office:value-type=\"string\"><text:p>" + escaped(cell.substr(1)) +
                        "</text:p></table:table-cell>";
            else
                rows += fmt::format("<table:table-cell office:value-type=\"float\" "
                                    "office:value=\"{0}\"{1}><text:p>{0}</text:p>"
                                    "</table:table-cell>",
                                    cell, isSpread ? " calcext:value-type=\"float\"" : "");
        }
        if (isSpread)
            rows += "<table:table-cell table:number-columns-repeated=\"16000\"/>";
        rows += "</table:table-row>";
    }
    if (isSpread)
        rows += "<table:table-row table:number-rows-repeated=\"1048000\"><table:table-cell "
                "table:number-columns-repeated=\"16384\"/></table:table-row>";
    return zipBytes(
        {{"mimetype", "application/vnd.oasis.opendocument.spreadsheet"},
         {"content.xml",
          "<?xml version=\"1.0\" encoding=\"UTF-8\"?><office:document-content xmlns:office=\"o\" "
          "xmlns:table=\"t\" xmlns:text=\"x\" xmlns:calcext=\"c\"><office:body><office:spreadsheet>"
          "<table:table table:name=\"Data\">" +
              rows + "</table:table></office:spreadsheet></office:body></office:document-content>"}});
}

Grid gridOf(const Cells &cells, std::string_view headingForm, bool withHead)
{
    Grid grid;
    if (withHead)
        grid = {{"'Specimen", "'A 12"}, {"'Width in mm", "10.02"}, {}};
    std::vector<std::string> names = withUnits(cells, headingForm);
    for (std::string &name : names)
        name = "'" + name;
    grid.push_back(std::move(names));
    grid.insert(grid.end(), cells.rows.begin(), cells.rows.end());
    return grid;
}

void workbooks(Making &making)
{
    const std::vector<BookWriter> writers = {{"absolute targets", true, true, "s", "", false},
                                             {"inline strings", false, true, "inlineStr", "", false},
                                             {"plain strings", false, true, "str", "", false},
                                             {"no references", false, false, "inlineStr", "", false},
                                             {"prefixed elements", true, true, "s", "x:", false},
                                             {"hidden first sheet", false, true, "s", "", true}};
    for (int k = 0; k < 8; ++k) {
        const std::string_view form = kHeadingForms[static_cast<std::size_t>(k) % std::size(kHeadingForms)];
        for (const BookWriter &writer : writers) {
            for (const bool withHead : {false, true}) {
                const auto [truth, cells] = making.make('.');
                making.add("workbook, " + writer.name, std::string(form) + (withHead ? ", head" : ""), truth,
                           workbookOf(writer, gridOf(cells, form, withHead)));
            }
            { // notes beside the table, and a summary below
                const auto [truth, cells] = making.make('.');
                Grid grid = gridOf(cells, form, false);
                grid[2].insert(grid[2].end(), {"", "'broke at the jaw", "23.5"});
                grid.push_back({});
                grid.push_back({"'Mean", "1", "99999"});
                making.add("workbook, " + writer.name, std::string(form) + ", notes and summary", truth,
                           workbookOf(writer, grid));
            }
        }
        for (const bool isSpread : {false, true}) {
            const auto [truth, cells] = making.make('.');
            making.add("OpenDocument", std::string(form) + (isSpread ? ", repeated cells" : ""), truth,
                       openDocumentOf(gridOf(cells, form, k % 2 == 0), isSpread));
        }
        { // a format that shows the unit, and one that contradicts the heading
            const Making::Made made = making.make('.');
            Grid grid = {{"'Time (s)", "'Extension (mm)", "'Force"}};
            for (std::size_t i = 0; i < made.pull.time_s.size(); ++i)
                grid.push_back({number(made.pull.time_s[i], '.'), number(made.pull.extension_mm[i], '.'),
                                number(made.pull.force_N[i] / 1000.0, '.')});
            making.add("workbook, formats", "0.00 \"kN\"", made.pull,
                       workbookOf(writers[0], grid, "0.00 &quot;kN&quot;"));
            grid[0][2] = "'Force (N)";
            making.add("workbook, formats", "kN under N", made.pull,
                       workbookOf(writers[1], grid, "0.00 &quot;kN&quot;"), "two units");
        }
        { // a clock as a fraction of a day
            const Making::Made made = making.make('.');
            Grid grid = {{"'Extension (mm)", "'Force (N)", "'Time"}};
            for (std::size_t i = 0; i < made.pull.time_s.size(); ++i)
                grid.push_back({number(made.pull.extension_mm[i], '.'), number(made.pull.force_N[i], '.'),
                                fmt::format("{:.15g}", 46000.0 + (30000.0 + made.pull.time_s[i]) / 86400.0)});
            making.add("workbook, formats", "day and time", made.pull,
                       workbookOf(writers[2], grid, "yyyy\\-mm\\-dd hh:mm:ss.0"));
        }
    }
}

struct BrokenPiece {
    std::string name;
    std::string group;
    double strength = 0.0;
    double strain = 0.0;
};

std::vector<BrokenPiece> broken(sim::Random &random)
{
    std::vector<BrokenPiece> all;
    const int n = 4 + static_cast<int>(random.uniform() * 8.0);
    for (int i = 0; i < n; ++i)
        all.push_back({fmt::format("P{:02}", i + 1), i % 2 == 0 ? "low" : "high",
                       std::round(100.0 * (40.0 + 20.0 * random.uniform())) / 100.0,
                       std::round(100.0 * (2.0 + 3.0 * random.uniform())) / 100.0});
    return all;
}

double meanStrength(const std::vector<BrokenPiece> &all)
{
    double sum = 0.0;
    for (const BrokenPiece &one : all)
        sum += one.strength;
    return sum / static_cast<double>(all.size());
}

void resultTables(sim::Random &random, std::vector<ForeignTable> &tables)
{
    for (int k = 0; k < 10; ++k) {
        std::vector<BrokenPiece> all;
        const auto begin = [&] { all = broken(random); };
        const auto add = [&](std::string writer, std::string what, std::string bytes,
                             std::string column = "strength", std::string refusedWith = {}) {
            tables.push_back({std::move(writer), std::move(what), std::move(bytes), std::move(column),
                              meanStrength(all), all.size(), std::move(refusedWith)});
        };
        begin();
        std::string text = "\"group\" \"strength\" \"strain\"\n";
        for (std::size_t i = 0; i < all.size(); ++i)
            text += fmt::format("\"{}\" \"{}\" {} {}\n", i + 1, all[i].group, all[i].strength, all[i].strain);
        add("R write.table", "row names", text);
        begin();
        text = "group,strength,strain\n";
        for (const BrokenPiece &one : all)
            text += fmt::format("{},{},{},{}\n", one.name, one.group, one.strength, one.strain);
        add("R write.table sep", "row names that are text", text);
        begin();
        text = ",group,strength\n";
        for (std::size_t i = 0; i < all.size(); ++i)
            text += fmt::format("{},{},{}\n", i, all[i].group, all[i].strength);
        add("pandas to_csv", "index", text);
        begin();
        text = "  group  strength\n";
        for (std::size_t i = 0; i < all.size(); ++i)
            text += fmt::format("{}  {:>5}  {:>8}\n", i, all[i].group, all[i].strength);
        add("pandas to_string", "index", text);
        begin();
        text = "# strength,strain\n";
        for (const BrokenPiece &one : all)
            text += fmt::format("{},{}\n", one.strength, one.strain);
        add("NumPy savetxt", "comment heading", text);
        begin();
        text = "\"specimen\",\"strength\",\"remark\"\r\n";
        for (const BrokenPiece &one : all)
            text += fmt::format("\"{}\",\"{}\",\"broke\nat the \"\"jaw\"\"\"\r\n", one.name, one.strength);
        add("Python csv", "line ends in cells", text);
        const auto german = [&](std::string below) {
            begin();
            std::string table = "Probe;strength;strain\r\n";
            for (const BrokenPiece &one : all)
                table +=
                    fmt::format("{};{};{}\r\n", one.name, number(one.strength, ','), number(one.strain, ','));
            return table + below;
        };
        add("frame", "Mean and SD", german("Mean;999,5;9\r\nSD;99;9\r\n"));
        add("frame", "Mittelwert after a blank line",
            german("\r\nMittelwert;999,5;9\r\nStandardabweichung;88;1\r\n"));
        add("frame", "all there is",
            german("n;8;8\r\nMax;999;9\r\nMin;1;1\r\nMean;500;5\r\nCV (%);12,5;3\r\n"));
        add("frame", "s and x", german("Mean;999;9\r\ns;88;8\r\nmax;999;9\r\nmin;1;1\r\n"));
        begin();
        text = "specimen | strength\n----------+---------\n";
        for (const BrokenPiece &one : all)
            text += fmt::format("{:8} | {}\n", one.name, one.strength);
        add("psql", "bars", text);
        for (const std::string type : {"inlineStr", "str", "s"}) {
            begin();
            Grid grid = {{"'specimen", "'strength", "'strain"}};
            for (const BrokenPiece &one : all)
                grid.push_back({"'" + one.name, number(one.strength, '.'), number(one.strain / 100.0, '.')});
            grid.push_back({});
            grid.push_back({"'Mean", "999", "9"});
            grid.push_back({"'Std. Dev.", "99", "9"});
            add("workbook", "summary, " + type,
                workbookOf({type, type == "s", true, type, "", false}, grid, "0.00%"));
        }
        begin();
        Grid grid = {{"'specimen", "'group", "'strength"}};
        for (const BrokenPiece &one : all)
            grid.push_back({"'" + one.name, "'" + one.group, number(one.strength, '.')});
        add("OpenDocument", "spread", openDocumentOf(grid, true));
        add("damaged", "a name too few, and no row names", "a,strength\n7,1,2\n7,2,3\n9,3,4\n", "strength",
            "2 names");
    }
}

} // namespace

std::vector<ForeignTable> foreignTables(unsigned seed)
{
    std::vector<ForeignTable> tables;
    sim::Random random(seed);
    resultTables(random, tables);
    return tables;
}

std::vector<ForeignFile> foreignRecords(unsigned seed)
{
    std::vector<ForeignFile> files;
    Making making(seed, files);
    textFiles(making);
    oddText(making);
    workbooks(making);
    return files;
}

} // namespace inchpeg::test
