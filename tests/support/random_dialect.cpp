// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/random_dialect.h"

#include "core/base/random.h"
#include "core/units/unit.h"

#include <fmt/format.h>

#include <algorithm>
#include <span>
#include <string_view>

namespace inchpeg::test
{

namespace
{

using namespace std::string_view_literals;

enum class UnitStyle { Square, Round, Underscore, Slash, Blank, OwnRow, OwnRowBracketed };
enum class Coding { Utf8, Utf8Marked, Utf16Little, Utf16Big, Utf16LittleUnmarked, Latin1 };

struct Kind {
    std::span<const std::string_view> names;
    std::span<const std::string_view> units;
};
constexpr std::array kForceNames = {"Force"sv,
                                    "Load"sv,
                                    "Load cell force"sv,
                                    "Standard force"sv,
                                    "Kraft"sv,
                                    "Prüfkraft"sv,
                                    "Force de traction"sv,
                                    "Charge"sv,
                                    "Fuerza"sv,
                                    "Carga aplicada"sv,
                                    "Forza"sv,
                                    "Kracht"sv};
constexpr std::array kForceUnits = {"N"sv, "kN"sv, "lbf"sv, "kgf"sv, "gf"sv, "mN"sv};
constexpr std::array kExtensionNames = {
    "Extension"sv,   "Extension (gauge)"sv, "Displacement"sv, "Weg"sv,          "Verlängerung"sv,
    "Allongement"sv, "Desplazamiento"sv,    "Spostamento"sv,  "Verplaatsing"sv, "Extension of the gauge"sv};
constexpr std::array kExtensionUnits = {"mm"sv, "in"sv, "µm"sv, "um"sv, "cm"sv};
constexpr std::array kTimeNames = {"Time"sv,   "Elapsed time"sv, "Zeit"sv, "Prüfzeit"sv, "Temps"sv,
                                   "Tiempo"sv, "Tempo"sv,        "Tijd"sv, "t"sv};
constexpr std::array kTimeUnits = {"s"sv, "min"sv, "ms"sv};
constexpr std::array kOtherNames = {"Cycle"sv, "Channel 3"sv, "Point"sv, "Status word"sv, "Nr"sv};

/// Draws a file; every choice goes through one generator, so that a seed repeats it.
class Drawer
{
public:
    explicit Drawer(std::uint64_t seed) : m_random(seed) {}

    DialectFile draw()
    {
        drawDialect();
        drawColumns();
        drawRecord();
        std::vector<std::string> lines;
        addMetadata(lines);
        addHeading(lines);
        for (std::size_t i = 0; i < m_file.curve.force_N.size(); ++i)
            lines.push_back(joined(row(i)));
        addBelow(lines);
        std::string text;
        const std::string_view end = std::array{"\n"sv, "\r\n"sv, "\r"sv}[below(3)];
        for (const std::string &line : lines)
            text.append(line).append(end);
        if (chance(0.2))
            text.resize(text.size() - end.size());
        m_file.bytes = encoded(text);
        return std::move(m_file);
    }

private:
    struct DrawnColumn {
        char kind = 'F'; ///< F, E, T, or C a counter, S a state, X stress, H temperature
        std::string name;
        std::string unit; ///< as written
        int decimals = 3;
    };

    std::size_t below(std::size_t count) { return m_random.below(count); }
    bool chance(double share) { return m_random.uniform() < share; }
    std::string one(std::span<const std::string_view> choice)
    {
        return std::string(choice[below(choice.size())]);
    }
    void tell(const std::string &what)
    {
        m_file.description += (m_file.description.empty() ? "" : ", ") + what;
    }

    void drawDialect()
    {
        m_delimiter = std::array{'\t', ';', ',', ' '}[below(4)];
        m_decimal = m_delimiter == ',' ? '.' : std::array{'.', ','}[below(2)];
        m_quoteAll = m_delimiter != ' ' && chance(0.1);
        if (m_delimiter == ',' && chance(0.1)) {
            m_quoteAll = true;
            m_decimal = ',';
        }
        m_grouped = m_delimiter != ' ' && (m_delimiter != ',' || m_quoteAll) && chance(0.15);
        m_style = static_cast<UnitStyle>(below(7));
        m_trailing = m_delimiter != ' ' && chance(0.15);
        m_coding = static_cast<Coding>(below(6));
        tell(fmt::format("delimiter {}, mark {}, units {}, coding {}{}{}{}", static_cast<int>(m_delimiter),
                         m_decimal, static_cast<int>(m_style), static_cast<int>(m_coding),
                         m_trailing ? ", trailing" : "", m_grouped ? ", grouped" : "",
                         m_quoteAll ? ", quoted" : ""));
    }

    void drawColumns()
    {
        m_columns.push_back({'F', one(kForceNames), m_grouped ? "mN" : one(kForceUnits), m_grouped ? 0 : 3});
        m_columns.push_back({'E', one(kExtensionNames), one(kExtensionUnits), 4});
        if (chance(0.7))
            m_columns.push_back({'T', one(kTimeNames), one(kTimeUnits), 3});
        if (chance(0.35))
            m_columns.push_back({'C', one(kOtherNames), chance(0.5) ? "-" : "", 0});
        if (m_delimiter != ' ' && chance(0.15))
            m_columns.push_back({'S', "State", "", 0});
        if (chance(0.15))
            m_columns.push_back({'X', "Stress", "MPa", 2});
        if (chance(0.15))
            m_columns.push_back({'H', "Temperature", "°C", 1});
        m_random.shuffle(m_columns);
        for (const DrawnColumn &column : m_columns)
            tell(fmt::format("{} [{}]", column.name, column.unit));
    }

    void drawRecord()
    {
        const std::size_t rows = 12 + below(90);
        const double step_mm = 0.002 + 0.05 * m_random.uniform();
        const double peak_N = 150.0 + 2500.0 * m_random.uniform();
        for (std::size_t i = 0; i < rows; ++i) {
            const double share = static_cast<double>(i) / static_cast<double>(rows - 1);
            m_file.curve.force_N.push_back(peak_N * share * (2.0 - share) + 0.2 * m_random.normal());
            m_file.curve.extension_mm.push_back(step_mm * static_cast<double>(i));
            if (has('T'))
                m_file.curve.time_s.push_back(0.1 * static_cast<double>(i));
        }
        const auto step = [&](char kind) {
            for (const DrawnColumn &column : m_columns) {
                if (column.kind == kind)
                    return findUnit(column.unit)->toWorking(std::pow(10.0, -column.decimals));
            }
            return 0.0;
        };
        m_file.forceStep_N = step('F');
        m_file.extensionStep_mm = step('E');
        m_file.timeStep_s = has('T') ? step('T') : 0.0;
    }

    [[nodiscard]] bool has(char kind) const
    {
        return std::any_of(m_columns.begin(), m_columns.end(),
                           [kind](const DrawnColumn &column) { return column.kind == kind; });
    }

    [[nodiscard]] std::string number(double value, int decimals) const
    {
        std::string text = fmt::format("{:.{}f}", value, decimals);
        if (text.starts_with('-') && text.find_first_not_of("-0.") == std::string::npos)
            text.erase(0, 1);
        std::replace(text.begin(), text.end(), '.', m_decimal);
        if (m_grouped) {
            const std::size_t whole = std::min(text.find(m_decimal), text.size());
            const std::size_t sign = text.starts_with('-') ? 1 : 0;
            const std::string mark = m_decimal == '.' ? "," : ".";
            for (std::size_t at = whole; at > sign + 3;)
                text.insert(at -= 3, mark);
        }
        return text;
    }

    std::vector<std::string> row(std::size_t i)
    {
        std::vector<std::string> cells;
        for (const DrawnColumn &column : m_columns) {
            const auto written = [&](double working) {
                return number(findUnit(column.unit)->fromWorking(working), column.decimals);
            };
            switch (column.kind) {
            case 'F':
                cells.push_back(written(m_file.curve.force_N[i]));
                break;
            case 'E':
                cells.push_back(written(m_file.curve.extension_mm[i]));
                break;
            case 'T':
                cells.push_back(written(m_file.curve.time_s[i]));
                break;
            case 'C':
                cells.push_back(std::to_string(i % 60 + 1));
                break;
            case 'S':
                cells.emplace_back(i % 9 == 0 ? "ramp" : "hold");
                break;
            default:
                cells.push_back(number(20.0 + 0.1 * static_cast<double>(i % 50), column.decimals));
            }
        }
        return cells;
    }

    [[nodiscard]] std::string joined(const std::vector<std::string> &cells, bool isHeading = false) const
    {
        std::string line;
        for (std::size_t c = 0; c < cells.size(); ++c) {
            const bool needsQuotes = cells[c].find(m_delimiter) != std::string::npos && m_delimiter != ' ';
            const std::string cell = m_quoteAll || needsQuotes ? "\"" + cells[c] + "\"" : cells[c];
            if (c > 0)
                line +=
                    m_delimiter == ' ' ? std::string(isHeading ? "   " : "  ") : std::string(1, m_delimiter);
            line += cell;
        }
        return m_trailing ? line + m_delimiter : line;
    }

    void addMetadata(std::vector<std::string> &lines)
    {
        constexpr std::array kLines = {
            "Test report"sv,           "Specimen: A 12"sv,       "Test speed 5 mm/min"sv,
            "Operator: n. n."sv,       "Width 10.02 mm"sv,       "Date: 2026-05-04 10:20"sv,
            "Gauge length (mm): 50"sv, "Prüfung Nr. 7 von 20"sv, "Temperature 23 °C"sv};
        constexpr std::array kKeys = {"Specimen"sv, "Operator"sv,       "Speed"sv,
                                      "Width"sv,    "Machine serial"sv, "Rate"sv};
        constexpr std::array kValues = {"A12"sv, "nobody"sv, "5 mm/min"sv, "10.02"sv, "0815"sv, "50 Hz"sv};
        const std::size_t count = chance(0.4) ? 0 : 1 + below(6);
        for (std::size_t i = 0; i < count; ++i) {
            const std::size_t k = below(kKeys.size());
            if (chance(0.5))
                lines.push_back(one(kLines));
            else
                lines.push_back(joined({std::string(kKeys[k]), std::string(kValues[k])}));
        }
        if (count > 0 && chance(0.4))
            lines.emplace_back();
        if (count > 0)
            tell(fmt::format("{} lines above", count));
    }

    void addHeading(std::vector<std::string> &lines)
    {
        std::vector<std::string> names;
        std::vector<std::string> units;
        const bool ownRow = m_style == UnitStyle::OwnRow || m_style == UnitStyle::OwnRowBracketed;
        for (const DrawnColumn &column : m_columns) {
            std::string name = column.name;
            if (!column.unit.empty() && !ownRow) {
                name += m_style == UnitStyle::Square       ? " [" + column.unit + "]"
                        : m_style == UnitStyle::Round      ? " (" + column.unit + ")"
                        : m_style == UnitStyle::Underscore ? "_" + column.unit
                        : m_style == UnitStyle::Slash      ? " / " + column.unit
                                                           : " " + column.unit;
            }
            if (m_delimiter == ' ' && m_style == UnitStyle::Blank)
                std::replace(name.begin(), name.end(), ' ', '_');
            names.push_back(name);
            const std::string unit = column.unit.empty() ? "-" : column.unit;
            units.push_back(m_style == UnitStyle::OwnRowBracketed ? "[" + unit + "]" : unit);
        }
        lines.push_back(joined(names, true));
        if (ownRow)
            lines.push_back(joined(units));
    }

    void addBelow(std::vector<std::string> &lines)
    {
        switch (below(6)) {
        case 0:
            lines.push_back(joined({"Max force", number(512.3, 1)}));
            lines.push_back(joined({"broken", "yes"}));
            tell("summary below");
            break;
        case 1:
            lines.emplace_back();
            lines.emplace_back("end of test");
            tell("end below");
            break;
        case 2: { // another table, as wide or wider
            lines.emplace_back();
            std::vector<std::string> names{"Specimen", "Max force", "Modulus"};
            std::vector<std::string> values{"1", number(512.3, 1), number(2100.0, 1)};
            names.resize(m_delimiter == ' ' ? 3 : std::max<std::size_t>(3, m_columns.size()), "Remark");
            values.resize(names.size(), "3");
            lines.push_back(joined(names, true));
            lines.push_back(joined(values));
            tell("table below");
            break;
        }
        default:
            break;
        }
    }

    [[nodiscard]] std::string encoded(const std::string &text) const
    {
        switch (m_coding) {
        case Coding::Utf8:
            return text;
        case Coding::Utf8Marked:
            return "\xEF\xBB\xBF" + text;
        default:
            break;
        }
        std::string out = m_coding == Coding::Utf16Little ? "\xFF\xFE"
                          : m_coding == Coding::Utf16Big  ? "\xFE\xFF"
                                                          : "";
        for (std::size_t i = 0; i < text.size(); ++i) {
            unsigned code = static_cast<unsigned char>(text[i]);
            if (code >= 0xC0U && i + 1 < text.size()) // all letters used here lie in two bytes
                code = ((code & 0x1FU) << 6U) | (static_cast<unsigned char>(text[++i]) & 0x3FU);
            const char high = static_cast<char>(code >> 8U);
            const char low = static_cast<char>(code & 0xFFU);
            if (m_coding == Coding::Latin1)
                out += low;
            else if (m_coding == Coding::Utf16Big)
                out += {high, low};
            else
                out += {low, high};
        }
        return out;
    }

    Random m_random;
    DialectFile m_file;
    char m_delimiter = ',';
    char m_decimal = '.';
    bool m_quoteAll = false;
    bool m_grouped = false;
    bool m_trailing = false;
    UnitStyle m_style = UnitStyle::Square;
    Coding m_coding = Coding::Utf8;
    std::vector<DrawnColumn> m_columns;
};

} // namespace

DialectFile randomDialect(std::uint64_t seed)
{
    return Drawer(seed).draw();
}

} // namespace inchpeg::test
