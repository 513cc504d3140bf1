// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/report/study_tables.h"

#include "core/compare/comparison_graphs.h"
#include "core/compare/graded.h"
#include "core/compare/procedure_text.h"
#include "core/method/break_look.h"
#include "core/method/value_text.h"
#include "core/model/measured_with.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace inchpeg
{

namespace
{

constexpr double kWide = 2.4; ///< shares of a table's width
constexpr double kNarrow = 0.7;
constexpr std::size_t kNamedPieces = 6; ///< in a row, before it says how many more

std::string railTitleOf(const Study &study, ConditionId rail)
{
    return distinctTitle(study, *findCondition(study, rail));
}

/// "2026-06-02" of a moment.
std::string dayOf(const std::string &moment)
{
    return moment.substr(0, 10);
}

std::string piecesNamed(const std::vector<std::string> &codes)
{
    std::vector<std::string> shown(
        codes.begin(), codes.begin() + static_cast<std::ptrdiff_t>(std::min(codes.size(), kNamedPieces)));
    if (codes.size() > kNamedPieces)
        shown.push_back(fmt::format("{} more", codes.size() - kNamedPieces));
    return listText(shown);
}

/// Writes numbers of a property's values, in the person's unit.
class ValueCells
{
public:
    ValueCells(const Property &property, const Notation &notation)
        : m_property(property), m_notation(notation), m_unit(notation.unitOf(property.dimension))
    {
    }
    [[nodiscard]] ReportCell value(const std::optional<double> &working, int decimals,
                                   std::string_view before = {}) const
    {
        if (!working)
            return {};
        if (m_property.scale == Scale::Word)
            return valueText(m_property, *working, 3, m_notation);
        const double shown = m_unit.fromWorking(*working);
        return {std::string(before) + m_notation.fixed(shown, decimals), shown, decimals};
    }
    [[nodiscard]] ReportCell spread(const std::optional<double> &working, int decimals) const
    {
        if (!working)
            return {};
        const double shown = *working / m_unit.factor; // an offset is none of a difference
        return {m_notation.fixed(shown, decimals), shown, decimals};
    }
    [[nodiscard]] std::string heading() const { return axisLabel(m_property, m_notation); }

private:
    const Property &m_property;
    const Notation &m_notation;
    Unit m_unit;
};

/// Grades and shares are counted, not measured: as many decimals as write each of them out, up to three.
int decimalsToWriteOut(std::span<const double> values)
{
    constexpr int kMost = 3;
    const auto isWritten = [](double value, double scale) {
        return std::abs(value * scale - std::round(value * scale)) < 1e-6;
    };
    double scale = 1.0;
    for (int decimals = 0; decimals < kMost; ++decimals, scale *= 10.0) {
        if (std::all_of(values.begin(), values.end(), [&](double value) { return isWritten(value, scale); }))
            return decimals;
    }
    return kMost;
}

/// Of all rails alike, so that the grades of a table stand below each other.
int decimalsOfGrades(const StudyComparison &comparison)
{
    std::vector<double> values;
    for (const RailComparison &rail : comparison.rails) {
        for (const std::optional<double> &value : {rail.summary.median, rail.summary.min, rail.summary.max}) {
            if (value)
                values.push_back(*value);
        }
    }
    return decimalsToWriteOut(values);
}

int decimalsOf(const Property &property, const Summary &summary, const Notation &notation)
{
    const double uncertainty = summary.se && *summary.se > 0.0 ? *summary.se
                               : summary.mean                  ? 0.01 * std::abs(*summary.mean)
                                                               : 0.0;
    return propertyDecimals(property, uncertainty, notation);
}

ReportTable wordsTable(const Study &study, const StudyComparison &comparison)
{
    ReportTable table{"What was seen, rail by rail",
                      {{"Rail", false, kWide}, {"Pieces", true, kNarrow}, {"Seen", false, kWide}},
                      {}};
    for (const RailComparison &rail : comparison.rails)
        table.rows.push_back(
            {railTitleOf(study, rail.condition),
             ReportCell(std::to_string(rail.summary.n), static_cast<double>(rail.summary.n), 0),
             wordCounts(rail, comparison.property)});
    return table;
}

std::string sectionText(const std::optional<Section> &section, const Notation &notation)
{
    if (!section)
        return {};
    if (const auto *rectangle = std::get_if<RectangularSection>(&*section))
        return notation.measuredLength(in_mm(rectangle->width)) + " × " +
               notation.measuredLength(in_mm(rectangle->thickness));
    if (const auto *round = std::get_if<RoundSection>(&*section))
        return "⌀ " + notation.measuredLength(in_mm(round->diameter));
    const Unit unit = notation.unitOf(Dimension::Area);
    return withUnit(notation.significant(unit.fromWorking(in_mm2(std::get<PlainArea>(*section).area)), 4),
                    unit);
}

std::string remarkOf(const Piece &piece, const PieceReadings &readings)
{
    if (piece.exclusion)
        return "left out: " + piece.exclusion->reason;
    const auto found = readings.find(piece.id);
    if (found != readings.end() && !found->second->has_value())
        return "not read: " + found->second->error().message;
    if (!piece.recording)
        return "not tested";
    return piece.log.note;
}

std::string breakOf(const Piece &piece, const PieceReading *reading)
{
    if (const BreakLook *look = findBreakLook(piece.log.breakLook))
        return std::string(look->label);
    return reading != nullptr ? reading->result.kind : std::string();
}

struct GaugeUse {
    UsedGauge gauge;
    std::set<std::string> uses;
    std::string first;
    std::string last;
};

} // namespace

ReportTable railsTable(const Study &study, const StudyComparison &comparison, const StudyVerdict &verdict,
                       const Notation &notation)
{
    const Property &property = comparison.property;
    if (property.scale == Scale::Word)
        return wordsTable(study, comparison);
    const bool isMean = hasMean(property);
    const ValueCells cells(property, notation);
    ReportTable table{cells.heading() + " by rail", {{"Rail", false, kWide}, {"n", true, 0.4}}, {}};
    if (isMean) {
        table.columns.push_back({"Mean", true});
        table.columns.push_back({"Scatter (sd)", true});
        if (isComparedAsRatio(property))
            table.columns.push_back({"Scatter in %", true});
        table.columns.push_back(
            {"Mean, from (" + confidenceText(comparison.confidence, notation) + ")", true});
        table.columns.push_back({"to", true, kNarrow});
    } else {
        table.columns.push_back({"Median", true});
    }
    table.columns.push_back({"Least", true, kNarrow});
    table.columns.push_back({"Most", true, kNarrow});
    table.columns.push_back({"Beside the reference", false, 1.2});
    for (std::size_t i = 0; i < comparison.rails.size(); ++i) {
        const RailComparison &rail = comparison.rails[i];
        const Summary &summary = rail.summary;
        const int decimals = property.scale == Scale::Ordinal ? decimalsOfGrades(comparison)
                                                              : decimalsOf(property, summary, notation);
        const ReportCell count =
            rail.told
                ? ReportCell(rail.told->pieces ? fmt::format("summary of {}", *rail.told->pieces) : "summary")
                : ReportCell(std::to_string(summary.n), static_cast<double>(summary.n), 0);
        std::vector<ReportCell> row{railTitleOf(study, rail.condition), count};
        if (isMean) {
            row.push_back(cells.value(summary.mean, decimals, rail.bounds > 0 ? "≥ " : ""));
            row.push_back(cells.spread(summary.sd, decimals));
            if (isComparedAsRatio(property))
                row.push_back(summary.cv
                                  ? ReportCell(notation.fixed(100.0 * *summary.cv, 1), 100.0 * *summary.cv, 1)
                                  : ReportCell());
            // Bounds among the values: their mean has no interval.
            const bool hasInterval = summary.ci && rail.bounds == 0;
            row.push_back(hasInterval ? cells.value(summary.ci->low, decimals) : ReportCell());
            row.push_back(hasInterval ? cells.value(summary.ci->high, decimals) : ReportCell());
        } else {
            row.push_back(cells.value(summary.median, decimals));
        }
        row.push_back(cells.value(summary.min, decimals));
        row.push_back(cells.value(summary.max, decimals));
        row.emplace_back(rail.isReference ? "reference" : verdict.rails[i].difference);
        table.rows.push_back(std::move(row));
    }
    return table;
}

ReportTable piecesTable(const Study &study, const PieceReadings &readings, Method test,
                        std::span<const Response> responses, const Notation &notation)
{
    const Unit length = notation.unitOf(Dimension::Length);
    ReportTable table{fmt::format("Pieces: {}", methodName(test)),
                      {{"Piece", false, 0.8},
                       {"Rail", false, kWide},
                       {fmt::format("Section in {}", length.symbol), false, 1.1},
                       {"Mass in g", true, kNarrow}},
                      {}};
    std::vector<Property> properties;
    std::vector<int> decimals;
    for (const Response &response : responses) {
        if (response.test != test)
            continue;
        properties.push_back(response.property);
        table.columns.push_back(
            {axisLabel(response.property, notation), response.property.scale != Scale::Word});
        std::vector<double> values;
        for (const Piece &piece : study.pieces) {
            const PieceReading *reading = readingOf(readings, piece.id);
            if (const ReadValue *value = reading != nullptr && piece.test == test
                                             ? valueOf(reading->result.values, response.property.name)
                                             : nullptr)
                values.push_back(value->number);
        }
        decimals.push_back(response.property.scale == Scale::Ordinal
                               ? decimalsToWriteOut(values)
                               : decimalsOf(response.property, summarise(values), notation));
    }
    table.columns.push_back({"Break", false, 1.2});
    table.columns.push_back({"Remark", false, 1.6});
    for (const Condition &condition : study.conditions) {
        for (const Piece *piece : piecesOf(study, condition.id)) {
            if (piece->test != test)
                continue;
            const PieceReading *reading = readingOf(readings, piece->id);
            std::vector<ReportCell> row{piece->code, distinctTitle(study, condition),
                                        sectionText(piece->section, notation)};
            const std::optional<double> mass = correctedMass_g(piece->log);
            row.push_back(mass ? ReportCell(notation.fixed(*mass, 2), *mass, 2) : ReportCell());
            for (std::size_t i = 0; i < properties.size(); ++i) {
                const ReadValue *value =
                    reading != nullptr ? valueOf(reading->result.values, properties[i].name) : nullptr;
                row.push_back(value == nullptr ? ReportCell()
                                               : ValueCells(properties[i], notation)
                                                     .value(value->number, decimals[i],
                                                            value->bound == BoundReason::None ? "" : "≥ "));
            }
            row.emplace_back(breakOf(*piece, reading));
            row.emplace_back(remarkOf(*piece, readings));
            table.rows.push_back(std::move(row));
        }
    }
    return table;
}

ReportTable decisionsTable(const Study &study)
{
    ReportTable table{"Decisions on single pieces",
                      {{"Piece", false, 0.7},
                       {"Rail", false, 1.8},
                       {"What", false, 1.6},
                       {"Why", false, kWide},
                       {"Who", false, 0.8},
                       {"When", false, 0.9}},
                      {}};
    const auto add = [&](const Piece &piece, std::string what, std::string why, std::string who,
                         const std::string &when) {
        table.rows.push_back({piece.code, railTitleOf(study, piece.condition), std::move(what),
                              std::move(why), std::move(who), dayOf(when)});
    };
    for (const Piece &piece : study.pieces) {
        for (const PrintFailure &failure : piece.log.failures)
            add(piece,
                fmt::format("print failed: {}{}", troubleName(failure.trouble),
                            failure.reprint ? ", printed again" : ""),
                failure.what, failure.who, failure.when);
        for (const auto &[name, marker] : handMarkersOf(piece)) {
            const MarkerKind *kind = findMarker(piece.test, name);
            add(piece, fmt::format("marker by hand: {}", kind != nullptr ? kind->label : name),
                marker->reason, marker->who, marker->when);
        }
        if (piece.exclusion)
            add(piece, "left out", piece.exclusion->reason, piece.exclusion->who, piece.exclusion->when);
    }
    return table;
}

ReportTable gaugesTable(const Study &study)
{
    std::map<std::string, GaugeUse> used; // by name and the calibration that was in force
    const auto note = [&used](const UsedGauge &gauge, const std::string &use) {
        GaugeUse &entry =
            used[gauge.name + '\n' + (gauge.calibration ? gauge.calibration->on : std::string())];
        entry.gauge = gauge;
        entry.uses.insert(use);
        if (entry.first.empty() || gauge.usedAt < entry.first)
            entry.first = gauge.usedAt;
        entry.last = std::max(entry.last, gauge.usedAt);
    };
    for (const Piece &piece : study.pieces) {
        if (piece.recording && piece.recording->gauge)
            note(*piece.recording->gauge, "records");
        for (const MeasuredWith &with : piece.log.gauges) {
            for (const std::string &field : with.fields)
                note(with.gauge, field);
        }
    }
    ReportTable table{"Gauges and their calibration",
                      {{"Gauge", false, 1.8},
                       {"Read with it", false, 1.4},
                       {"From, to", false, 1.6},
                       {"Calibrated", false, 1.2},
                       {"Holds to", false, 1.1},
                       {"Factor", true, kNarrow},
                       {"Uncertainty (k = 2)", true, 1.0}},
                      {}};
    for (const auto &[key, entry] : used) {
        const std::optional<Calibration> &calibration = entry.gauge.calibration;
        const std::vector<std::string> uses(entry.uses.begin(), entry.uses.end());
        std::vector<ReportCell> row{entry.gauge.name, listText(uses),
                                    entry.first == entry.last ? entry.first
                                                              : entry.first + " to " + entry.last,
                                    calibration ? calibration->on : std::string("not known"),
                                    calibration ? calibration->due : std::string()};
        if (calibration && calibration->alongPoints)
            row.emplace_back("along points");
        else if (calibration)
            row.push_back({fmt::format("{:.4f}", calibration->factor), calibration->factor, 4});
        else
            row.emplace_back();
        row.push_back(calibration && calibration->uncertainty_percent
                          ? ReportCell(fmt::format("{:g} %", *calibration->uncertainty_percent),
                                       *calibration->uncertainty_percent, 2)
                          : ReportCell());
        table.rows.push_back(std::move(row));
    }
    return table;
}

ReportTable platesTable(const Study &study)
{
    ReportTable table{"Plates as they were printed",
                      {{"Plate", true, 0.5},
                       {"Printer", false, 1.2},
                       {"Spool", false, 1.8},
                       {"Started", false, 1.2},
                       {"Settings as logged", false, kWide},
                       {"What happened", false, kWide}},
                      {}};
    for (const PlateRecord &plate : study.log.plates) {
        std::string settings;
        for (const RealSetting &setting : plate.settings)
            settings += fmt::format("{}{} {}", settings.empty() ? "" : "; ", setting.name, setting.value);
        if (plate.chamber_C)
            settings +=
                fmt::format("{}chamber reached {:g} °C", settings.empty() ? "" : "; ", *plate.chamber_C);
        std::string events;
        for (const PrintEvent &event : plate.events)
            events += fmt::format("{}{}{}{}{}", events.empty() ? "" : "; ", troubleName(event.trouble),
                                  event.what.empty() ? "" : ": " + event.what, event.done.empty() ? "" : ", ",
                                  event.done);
        if (!plate.note.empty())
            events += (events.empty() ? "" : "; ") + plate.note;
        std::string started = plate.startedAt;
        std::replace(started.begin(), started.end(), 'T', ' ');
        table.rows.push_back({ReportCell(std::to_string(plate.plate), plate.plate, 0), plate.printer,
                              plate.spool, started, settings, events});
    }
    return table;
}

ReportTable brokenRulesTable(const Study &study, const PieceReadings &readings, const Notation &notation)
{
    struct Broken {
        std::vector<std::string> pieces;
        std::string detail;
    };
    std::map<std::string, Broken> broken;
    for (const Piece &piece : study.pieces) {
        const PieceReading *reading = readingOf(readings, piece.id);
        if (reading == nullptr)
            continue;
        for (const Check &check : reading->result.validity) {
            if (check.ok)
                continue;
            Broken &rule = broken[check.rule];
            rule.pieces.push_back(piece.code);
            if (rule.detail.empty())
                rule.detail = notation.expand(check.detail);
        }
    }
    ReportTable table{"Rules that records do not keep",
                      {{"Rule", false, 1.6},
                       {"Pieces", true, 0.6},
                       {"Which", false, 1.8},
                       {"The first of them", false, kWide}},
                      {}};
    for (const auto &[rule, found] : broken)
        table.rows.push_back(
            {rule,
             ReportCell(std::to_string(found.pieces.size()), static_cast<double>(found.pieces.size()), 0),
             piecesNamed(found.pieces), found.detail});
    return table;
}

ReportTable definitionsTable(std::span<const Response> responses)
{
    ReportTable table{
        "What was read", {{"Test", false, 1.0}, {"Property", false, 1.3}, {"Definition", false, 4.0}}, {}};
    for (const Response &response : responses)
        table.rows.push_back({std::string(methodName(response.test)), std::string(response.property.label),
                              std::string(response.property.definition)});
    return table;
}

ReportTable rawFilesTable(const Study &study, std::span<const ReportedFile> files)
{
    ReportTable table{
        "Raw files", {{"Piece", false, 0.7}, {"File", false, 2.2}, {"SHA-256", false, 4.2}}, {}};
    for (const ReportedFile &file : files) {
        if (const Piece *piece = findPiece(study, file.piece))
            table.rows.push_back({piece->code, file.name, file.sha256});
    }
    return table;
}

} // namespace inchpeg
