// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/piece_life.h"

#include "core/logbook/measuring.h"
#include "core/method/break_look.h"
#include "core/model/print_state.h"
#include "core/text/notation.h"

#include <fmt/ranges.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

std::string listed(const std::vector<double> &values)
{
    std::string text;
    for (const double value : values)
        text += (text.empty() ? "" : ", ") + (value > 0.0 ? sizeText(value) : std::string("–"));
    return text;
}

void append(std::string &text, const std::string &part)
{
    if (!part.empty())
        text += (text.empty() ? "" : "; ") + part;
}

std::string gaugeText(const UsedGauge &gauge)
{
    return gauge.name + (gauge.calibration ? "; calibrated on " + gauge.calibration->on
                                           : std::string("; no calibration known"));
}

class LifeTeller
{
public:
    LifeTeller(const Study &study, const Piece &piece, const Workshop &workshop)
        : m_study(study), m_piece(piece), m_workshop(workshop)
    {
    }

    std::vector<LifeLine> m_lines;

    void tell(std::string station, std::string when, std::string text, bool isWarning = false)
    {
        if (!text.empty())
            m_lines.push_back({std::move(station), std::move(when), std::move(text), isWarning});
    }

    void planned(const PlateLayout &layout)
    {
        std::string text = railTitle(m_study, *findCondition(m_study, m_piece.condition));
        append(text, std::string(methodName(m_piece.test)));
        for (const Plate &plate : layout.plates) {
            for (const PlacedPiece &placed : plate.pieces) {
                if (placed.piece == m_piece.id && plate.printedAt.empty())
                    append(text,
                           fmt::format("plate {}, tested as number {}", plate.number, placed.testPlace));
            }
        }
        tell("Planned", {}, text);
    }

    void printed()
    {
        for (const PrintedPlate &plate : m_study.plan.print.printed) {
            const bool holds =
                std::any_of(plate.pieces.begin(), plate.pieces.end(),
                            [&](const PlacedPiece &placed) { return placed.piece == m_piece.id; });
            if (!holds)
                continue;
            const PlateRecord *record = findPlateRecord(m_study.log, plate.number);
            std::string text = fmt::format("plate {}", plate.number);
            std::string when = plate.printedAt;
            if (record != nullptr) {
                append(text, record->printer);
                append(text, record->spool);
                for (const RealSetting &setting : record->settings)
                    append(text, setting.name + " " + setting.value);
                if (record->chamber_C)
                    append(text, fmt::format("chamber reached {:g} °C", *record->chamber_C));
                if (!record->endedAt.empty())
                    when = record->endedAt;
            }
            tell("Printed", when, text);
            if (record != nullptr) {
                for (const PrintEvent &event : record->events)
                    tell("Event", event.at,
                         fmt::format("{}{}{}", troubleName(event.trouble),
                                     event.what.empty() ? "" : ": " + event.what,
                                     event.done.empty() ? "" : "; done: " + event.done),
                         true);
            }
            for (const PrintFailure &failure : m_piece.log.failures) {
                if (failure.plate == plate.number)
                    tell("Failed", failure.when,
                         fmt::format("{}{}{}", troubleName(failure.trouble),
                                     failure.what.empty() ? "" : ": " + failure.what,
                                     failure.reprint ? "; printed again" : ""),
                         true);
            }
        }
    }

    void measured()
    {
        const SizeReadings sizes = sizeReadings(m_piece);
        std::string text;
        if (!sizes.width_mm.empty())
            append(text, "width " + listed(sizes.width_mm));
        if (!sizes.thickness_mm.empty())
            append(text, "thickness " + listed(sizes.thickness_mm));
        if (!sizes.diameter_mm.empty())
            append(text, "diameter " + listed(sizes.diameter_mm));
        if (m_piece.section) {
            if (const Result<Area> area = areaOf(*m_piece.section)) {
                append(text, "area " + marked(in_mm2(*area), Dimension::Area, 4));
                const GaugeCard *calliper = calliperOf(m_study, m_piece, m_workshop);
                if (const auto uncertain = areaUncertainty(m_piece, calliper))
                    text += fmt::format(" ± {:.2g} % (k = 2)", 100.0 * uncertain->expandedShare());
            }
        }
        tell("Measured", {}, text);
        if (m_piece.log.mass_g)
            tell("Weighed", {}, fmt::format("{:g} g", *m_piece.log.mass_g));
        for (const LengthReading &length : m_piece.log.lengths)
            tell("Length", {},
                 fmt::format("along {}: {} of {}, shrunk by {:.2f} %", axisName(length.axis),
                             sizeText(length.measured_mm), sizeText(length.nominal_mm),
                             100.0 * shrinkage(length)));
        for (const MeasuredWith &with : m_piece.log.gauges) {
            tell("Measured with", with.gauge.usedAt,
                 fmt::format("{}: {}", fmt::join(with.fields, ", "), gaugeText(with.gauge)));
            tell("Calibration", {}, calibrationWarning(with.gauge), true);
        }
        for (const Doubt &doubt : doubtsOf(m_study, m_piece, Expectations(m_study, m_workshop)))
            tell("Look at it", {}, doubt.sentence, true);
        for (const ConfirmedReading &confirmed : m_piece.log.confirmed)
            tell("Looked at", confirmed.when,
                 fmt::format("{} {:g} is right", confirmed.field, confirmed.value));
    }

    void conditioned(Moment now)
    {
        const std::vector<int> plates = platesOf(m_study, m_piece.id);
        for (const TimedStep &step : m_study.log.steps) {
            if (!covers(step, plates))
                continue;
            std::string station(stepName(step.kind));
            station[0] = static_cast<char>(station[0] - 'a' + 'A');
            tell(station, step.start, stepSentence(m_study.log, step, now), step.skipped);
        }
    }

    void tested(const PieceReading *reading)
    {
        if (m_piece.recording) {
            const std::optional<UsedGauge> &gauge = m_piece.recording->gauge;
            std::string text = "has a record";
            if (gauge)
                append(text, gaugeText(*gauge));
            tell("Tested", gauge ? gauge->usedAt : std::string(), text);
            if (gauge)
                tell("Calibration", {}, calibrationWarning(*gauge), true);
        }
        if (reading != nullptr) {
            std::string text;
            bool atEnd = false;
            for (const PlannedProperty &property : factsOf(m_piece.test).properties) {
                const ReadValue *value = valueOf(reading->result.values, property.name);
                const bool isTold =
                    &property == &factsOf(m_piece.test).properties.front() || property.name == "peak_force";
                if (value == nullptr || !isTold)
                    continue;
                append(text,
                       fmt::format("{} {}", property.label, marked(value->number, property.dimension, 4)));
                atEnd = atEnd || value->bound == BoundReason::GaugeAtEnd;
            }
            if (!reading->result.kind.empty())
                append(text, reading->result.kind);
            if (atEnd)
                append(text, "the gauge was at its end");
            tell("Read", {}, text);
            const std::string told = m_piece.recording && m_piece.recording->gauge
                                         ? calibrationWarning(*m_piece.recording->gauge)
                                         : std::string();
            for (const std::string &warning : reading->result.warnings) {
                if (warning != told)
                    tell("Mind", {}, warning, true);
            }
        }
        for (const auto &[marker, placed] : handMarkersOf(m_piece))
            tell("Marker by hand", placed->when, fmt::format("{}: {}", marker, placed->reason));
        if (m_piece.exclusion)
            tell("Left out", m_piece.exclusion->when,
                 m_piece.exclusion->reason + " (" + m_piece.exclusion->who + ")", true);
    }

private:
    const Study &m_study;
    const Piece &m_piece;
    const Workshop &m_workshop;
};

} // namespace

std::vector<LifeLine> pieceLife(const Study &study, const Piece &piece, const PlateLayout &layout,
                                const Workshop &workshop, const PieceReading *reading,
                                const std::string &verdict, Moment now)
{
    LifeTeller teller(study, piece, workshop);
    teller.planned(layout);
    teller.printed();
    teller.measured();
    teller.conditioned(now);
    teller.tested(reading);
    if (const BreakLook *look = findBreakLook(piece.log.breakLook))
        teller.tell("Break", {}, std::string(look->label));
    teller.tell("Note", {}, piece.log.note);
    teller.tell("Verdict", {}, verdict);
    return std::move(teller.m_lines);
}

} // namespace inchpeg
