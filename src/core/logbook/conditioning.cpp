// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/conditioning.h"

#include "core/model/print_state.h"
#include "core/planning/print_estimate.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kLateFrom_h = 4.0; ///< a conditioning that begins so long after the print is called late
constexpr double kAnnealing_h = 1.0;
constexpr double kAnnealing_C = 80.0;
constexpr double kRoom_C = 23.0; ///< ISO 291:2008, standard atmosphere 23/50
constexpr double kRoomHumidity_percent = 50.0;

double hoursBetween(Moment from, Moment to)
{
    return static_cast<double>((to - from).count()) / 60.0;
}

Moment plannedEnd(const TimedStep &step)
{
    return *momentFrom(step.start) + Minutes(static_cast<long>(std::lround(60.0 * step.wanted_h)));
}

std::string whenText(Moment moment)
{
    return dayText(moment) + " " + clockText(moment);
}

/// The latest end of the plates that a step is about, as far as it is logged.
std::optional<Moment> printEnd(const StudyLog &log, const TimedStep &step)
{
    std::optional<Moment> latest;
    for (const PlateRecord &record : log.plates) {
        const bool ofStep = step.plates.empty() || std::find(step.plates.begin(), step.plates.end(),
                                                             record.plate) != step.plates.end();
        const std::optional<Moment> end = momentFrom(record.endedAt);
        if (ofStep && end && (!latest || *latest < *end))
            latest = end;
    }
    return latest;
}

} // namespace

bool covers(const TimedStep &step, const std::vector<int> &plates)
{
    return step.plates.empty() || (!plates.empty() && std::find(step.plates.begin(), step.plates.end(),
                                                                plates.back()) != step.plates.end());
}

Status checkStep(const TimedStep &step)
{
    if (step.skipped)
        return step.note.empty() ? invalidArgument("say why the step was skipped; the reason is kept with it")
                                 : ok();
    if (!momentFrom(step.start))
        return invalidArgument(
            fmt::format("\"{}\" is no time; a start is written like 2026-06-02T10:40", step.start));
    if (!step.end.empty() && !momentFrom(step.end))
        return invalidArgument(
            fmt::format("\"{}\" is no time; an end is written like 2026-06-02T10:40", step.end));
    if (!step.end.empty() && *momentFrom(step.end) < *momentFrom(step.start))
        return invalidArgument(
            fmt::format("the step would end on {} before it begins on {}", step.end, step.start));
    if (!(step.wanted_h >= 0.0) || step.wanted_h > 24.0 * 365.0)
        return invalidArgument("a duration between zero and a year is wanted");
    if (step.humidity_percent && !(*step.humidity_percent >= 0.0 && *step.humidity_percent <= 100.0))
        return invalidArgument("a humidity lies between 0 and 100 %");
    return ok();
}

Readiness readinessOf(const Study &study, const Piece &piece, Moment now)
{
    const std::vector<int> plates = platesOf(study, piece.id);
    Readiness ready;
    for (const TimedStep &step : study.log.steps) {
        if (step.kind == StepKind::Drying || step.skipped || !covers(step, plates) || !momentFrom(step.start))
            continue;
        ready.known = true;
        const Moment end = step.end.empty() ? plannedEnd(step) : *momentFrom(step.end);
        if (end > now && (!ready.from || *ready.from < end)) {
            ready.from = end;
            ready.sentence = fmt::format("{}, ready from {}", stepName(step.kind), whenText(end));
        }
    }
    if (ready.known && !ready.from)
        ready.sentence = "conditioned, ready";
    return ready;
}

std::string stepSentence(const StudyLog &log, const TimedStep &step, Moment now)
{
    if (step.skipped)
        return fmt::format("Skipped: {}.", step.note);
    const std::optional<Moment> start = momentFrom(step.start);
    if (!start)
        return "Its start is not logged.";
    std::string sentence;
    if (step.end.empty()) {
        const Moment end = plannedEnd(step);
        sentence = now < end
                       ? fmt::format("Running for {:.1f} of {:g} h, until {}.",
                                     std::max(0.0, hoursBetween(*start, now)), step.wanted_h, whenText(end))
                       : fmt::format("Done since {}: {:g} h were wanted.", whenText(end), step.wanted_h);
    } else {
        const double lasted = hoursBetween(*start, *momentFrom(step.end));
        sentence = lasted + 0.02 < step.wanted_h
                       ? fmt::format("Lasted {:.1f} h, {:.1f} h less than the {:g} h that were wanted.",
                                     lasted, step.wanted_h - lasted, step.wanted_h)
                       : fmt::format("Lasted {:.1f} h.", lasted);
    }
    if (step.kind == StepKind::Conditioning) {
        const std::optional<Moment> printed = printEnd(log, step);
        if (printed && hoursBetween(*printed, *start) > kLateFrom_h)
            sentence +=
                fmt::format(" It began {:.0f} h after the print was done.", hoursBetween(*printed, *start));
    }
    return sentence;
}

TimedStep wantedStep(const Study &study, const Workshop &workshop, StepKind kind, Moment now)
{
    TimedStep step;
    step.kind = kind;
    step.start = momentText(now);
    for (const MaterialCare &care : materialCare(study, workshop)) {
        if (kind == StepKind::Drying) {
            step.wanted_h = std::max(step.wanted_h, care.dry_h);
            step.temperature_C = std::max(step.temperature_C.value_or(0.0), care.dry_C);
        } else if (kind == StepKind::Conditioning) {
            step.wanted_h = std::max(step.wanted_h, care.conditioning_h);
        }
    }
    if (kind == StepKind::Conditioning) {
        step.temperature_C = kRoom_C;
        step.humidity_percent = kRoomHumidity_percent;
    } else if (kind == StepKind::Annealing) {
        step.wanted_h = kAnnealing_h;
        step.temperature_C = kAnnealing_C;
    }
    return step;
}

} // namespace inchpeg
