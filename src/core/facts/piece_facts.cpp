// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/facts/piece_facts.h"

#include "core/model/print_state.h"
#include "core/text/letters.h"
#include "core/units/number.h"
#include "core/units/unit.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr std::size_t kDayLength = 10; ///< of "2026-06-01T10:00"

bool isFactor(const Study &study, std::string_view name)
{
    return std::any_of(study.factors.begin(), study.factors.end(),
                       [name](const Factor &factor) { return factor.name == name; });
}

HadSetting hadText(std::string_view text, KnownFrom from)
{
    return {std::string(trimmed(text)), settingNumber(text), from};
}

HadSetting hadNumber(double number, std::string_view unit, KnownFrom from)
{
    return {fmt::format("{:.4g}{}{}", number, unit.empty() ? "" : " ", unit), number, from};
}

/// "4 h at 65 °C"; what was skipped was not done.
std::string stepText(const TimedStep &step)
{
    if (step.skipped)
        return "none";
    std::string text = step.wanted_h > 0.0 ? fmt::format("{:g} h", step.wanted_h) : "done";
    if (step.temperature_C)
        text += fmt::format(" at {:g} °C", *step.temperature_C);
    if (step.humidity_percent)
        text += fmt::format(", {:g} % r.h.", *step.humidity_percent);
    return text;
}

class FactsOfStudy
{
public:
    FactsOfStudy(const Study &study, const PieceReadings *readings) : m_study(study), m_readings(readings)
    {
        for (const StepKind kind : kStepKinds)
            m_isStepLogged[kind] = std::any_of(study.log.steps.begin(), study.log.steps.end(),
                                               [kind](const TimedStep &step) { return step.kind == kind; });
    }

    [[nodiscard]] PieceFacts of(const Piece &piece) const
    {
        PieceFacts facts{piece.id, piece.condition, {}};
        for (const LockedSetting &setting : m_study.plan.locked)
            put(facts, setting.name, hadText(setting.value, KnownFrom::Plan));
        const std::vector<int> plates = platesOf(m_study, piece.id);
        if (!plates.empty()) {
            putPlate(facts, plates.back());
            putSteps(facts, plates);
        }
        putRecord(facts, piece);
        return facts;
    }

private:
    void put(PieceFacts &facts, std::string_view name, HadSetting had) const
    {
        if (!isFactor(m_study, name) && !had.text.empty())
            facts.settings.insert_or_assign(std::string(name), std::move(had));
    }

    void putPlate(PieceFacts &facts, int number) const
    {
        const PlateRecord *record = findPlateRecord(m_study.log, number);
        std::string day;
        for (const PrintedPlate &plate : m_study.plan.print.printed) {
            if (plate.number == number)
                day = plate.printedAt;
        }
        if (record != nullptr) {
            for (const RealSetting &setting : record->settings)
                put(facts, setting.name, hadText(setting.value, KnownFrom::Log));
            if (record->chamber_C)
                put(facts, factor::kChamberTemperature, hadNumber(*record->chamber_C, "°C", KnownFrom::Log));
            put(facts, had::kPrinter, {record->printer, {}, KnownFrom::Log});
            put(facts, had::kSpool, {record->spool, {}, KnownFrom::Log});
            if (!record->startedAt.empty())
                day = record->startedAt;
        }
        put(facts, had::kDay, {day.substr(0, kDayLength), {}, KnownFrom::Log});
    }

    void putSteps(PieceFacts &facts, const std::vector<int> &plates) const
    {
        for (const StepKind kind : kStepKinds) {
            if (!m_isStepLogged.at(kind))
                continue;
            std::string text;
            for (const TimedStep &step : m_study.log.steps) {
                const bool isOfIt = step.plates.empty() || std::find(step.plates.begin(), step.plates.end(),
                                                                     plates.back()) != step.plates.end();
                if (step.kind == kind && isOfIt)
                    text += (text.empty() ? "" : " and ") + stepText(step);
            }
            put(facts, stepName(kind), {text.empty() ? "not logged" : text, {}, KnownFrom::Log});
        }
    }

    void putRecord(PieceFacts &facts, const Piece &piece) const
    {
        if (!piece.recording)
            return;
        if (piece.recording->gauge)
            put(facts, had::kGauge, {piece.recording->gauge->name, {}, KnownFrom::Record});
        const PieceReading *reading = m_readings != nullptr ? readingOf(*m_readings, piece.id) : nullptr;
        if (reading == nullptr)
            return;
        for (const ReadValue &value : reading->result.values) {
            if (value.property == "heating_rate")
                put(facts, had::kHeatingRate, hadNumber(value.number, "K/h", KnownFrom::Record));
            if (value.property == "strain_rate")
                put(facts, had::kStrainRate, hadNumber(value.number, "%/min", KnownFrom::Record));
        }
        const CurveOutline &outline = reading->outline;
        if (factsOf(piece.test).isLeftUnderLoad && outline.breakAt < outline.x.size()) {
            constexpr double kHour_s = 3600.0;
            put(facts, had::kReadTo, hadNumber(outline.x[outline.breakAt] / kHour_s, "h", KnownFrom::Record));
        }
    }

    const Study &m_study;
    const PieceReadings *m_readings;
    std::map<StepKind, bool> m_isStepLogged;
};

} // namespace

std::optional<double> settingNumber(std::string_view text)
{
    const std::string_view plain = trimmed(text);
    const std::size_t length = numberPrefixLength(plain);
    const std::optional<double> number = parseTypedNumber(plain.substr(0, length));
    const std::string_view unit = trimmed(plain.substr(length));
    return number && (unit.empty() || unit == "%" || findUnit(unit)) ? number : std::nullopt;
}

std::vector<PieceFacts> pieceFacts(const Study &study, std::optional<Method> test,
                                   const PieceReadings *readings)
{
    const FactsOfStudy gathered(study, readings);
    std::vector<PieceFacts> all;
    for (const Piece &piece : study.pieces) {
        const bool isThere = piece.recording || !platesOf(study, piece.id).empty();
        if (isThere && !piece.exclusion && (!test || piece.test == *test))
            all.push_back(gathered.of(piece));
    }
    return all;
}

} // namespace inchpeg
