// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/change_log.h"

#include "core/logbook/measuring.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

using Values = std::map<std::string, std::string>;

void putReadings(Values &values, std::string_view name, const std::vector<double> &readings)
{
    for (std::size_t i = 0; i < readings.size(); ++i) {
        if (readings[i] > 0.0)
            values[readings.size() > 1 ? fmt::format("{} {}", name, i + 1) : std::string(name)] =
                fmt::format("{:.12g} mm", readings[i]);
    }
}

std::string sentenceOf(const TimedStep &step)
{
    if (step.skipped)
        return fmt::format("skipped: {}", step.note);
    std::string text = fmt::format("from {}", step.start);
    text +=
        step.end.empty() ? fmt::format(", {:.12g} h wanted", step.wanted_h) : fmt::format(" to {}", step.end);
    if (step.temperature_C)
        text += fmt::format(", {:.12g} °C", *step.temperature_C);
    if (step.humidity_percent)
        text += fmt::format(", {:.12g} %", *step.humidity_percent);
    return step.note.empty() ? text : text + ", " + step.note;
}

void putPlate(Values &values, const PlateRecord &record)
{
    const std::string plate = fmt::format("plate {}: ", record.plate);
    const auto put = [&](const char *name, const std::string &text) {
        if (!text.empty())
            values[plate + name] = text;
    };
    put("printer", record.printer);
    put("spool", record.spool);
    put("started", record.startedAt);
    put("ended", record.endedAt);
    put("chamber reached", record.chamber_C ? fmt::format("{:.12g} °C", *record.chamber_C) : std::string());
    put("slicer's mass", record.grams ? fmt::format("{:.12g} g", *record.grams) : std::string());
    put("slicer's time", record.minutes ? fmt::format("{:.12g} min", *record.minutes) : std::string());
    put("note", record.note);
    for (const RealSetting &setting : record.settings) {
        values[plate + setting.name] = setting.value;
        if (setting.answer)
            values[plate + setting.name + " differs"] = setting.answer->meant ? "was meant" : "was not meant";
    }
    for (std::size_t i = 0; i < record.events.size(); ++i) {
        const PrintEvent &event = record.events[i];
        values[fmt::format("{}event {}", plate, i + 1)] =
            fmt::format("{} {}{}{}", troubleName(event.trouble), event.what,
                        event.done.empty() ? "" : "; done: ", event.done);
    }
}

Values studyValues(const Study &study)
{
    Values values;
    if (!study.log.note.empty())
        values["note"] = study.log.note;
    const MeasuringRule &rule = study.log.measuring;
    values["measuring"] = fmt::format("{} readings, {}", rule.readings, readingRuleName(rule.rule));
    for (const PlateRecord &record : study.log.plates)
        putPlate(values, record);
    for (const Condition &condition : study.conditions) {
        for (const RailSummary &summary : condition.summaries)
            values[fmt::format("summary of {}, {}", distinctTitle(study, condition), summary.property)] =
                fmt::format("{:.12g}{}{} from {}", summary.mean,
                            summary.sd ? fmt::format(" ± {:.12g}", *summary.sd) : "",
                            summary.pieces ? fmt::format(" of {} pieces", *summary.pieces) : "",
                            summary.source);
    }
    std::map<StepKind, int> counts;
    for (const TimedStep &step : study.log.steps)
        values[fmt::format("{} {}", stepName(step.kind), ++counts[step.kind])] = sentenceOf(step);
    for (const PrintedPlate &plate : study.plan.print.printed)
        values[fmt::format("plate {}", plate.number)] =
            fmt::format("printed with {} pieces", plate.pieces.size());
    return values;
}

void addDifferences(std::vector<LoggedChange> &changes, PieceId piece, const Values &before,
                    const Values &after, const std::string &who, const std::string &when)
{
    for (const auto &[name, value] : before) {
        const auto found = after.find(name);
        const std::string now = found == after.end() ? std::string() : found->second;
        if (now != value)
            changes.push_back({piece, name, value, now, who, when});
    }
    for (const auto &[name, value] : after) {
        if (!before.contains(name))
            changes.push_back({piece, name, {}, value, who, when});
    }
}

} // namespace

std::map<std::string, std::string> loggedValuesOf(const Study &study, const Piece &piece)
{
    Values values;
    const SizeReadings sizes = sizeReadings(piece);
    putReadings(values, "width", sizes.width_mm);
    putReadings(values, "thickness", sizes.thickness_mm);
    putReadings(values, "diameter", sizes.diameter_mm);
    if (const auto area = loggedValue(study, piece, {LogField::Area, 0}))
        values["area"] = fmt::format("{:.12g} mm²", *area);
    if (piece.log.mass_g)
        values["mass"] = fmt::format("{:.12g} g", *piece.log.mass_g);
    for (const LengthReading &length : piece.log.lengths)
        values[fmt::format("length {}", axisName(length.axis))] =
            fmt::format("{:.12g} of {:.12g} mm", length.measured_mm, length.nominal_mm);
    if (!piece.log.breakLook.empty())
        values["break"] = piece.log.breakLook;
    if (!piece.log.note.empty())
        values["note"] = piece.log.note;
    for (const PrintFailure &failure : piece.log.failures)
        values[fmt::format("failed on plate {}", failure.plate)] =
            fmt::format("{}{}{}{}", troubleName(failure.trouble), failure.what.empty() ? "" : ": ",
                        failure.what, failure.reprint ? " (print again)" : "");
    for (std::size_t i = 0; i < piece.log.photos.size(); ++i)
        values[fmt::format("photo {}", i + 1)] = piece.log.photos[i].caption.empty()
                                                     ? fmt::format("file {}", piece.log.photos[i].file.value)
                                                     : piece.log.photos[i].caption;
    for (const ConfirmedReading &confirmed : piece.log.confirmed)
        values[fmt::format("{} looked at", confirmed.field)] =
            fmt::format("{:.12g} is right", confirmed.value);
    if (piece.recording)
        values["record"] = fmt::format("file {}", piece.recording->file.value);
    if (piece.exclusion)
        values["left out"] = piece.exclusion->reason;
    for (const auto &[marker, placed] : piece.markers)
        values[fmt::format("marker {}", marker)] =
            fmt::format("{}: {}", placed.at ? fmt::format("{:.12g}", *placed.at) : "none", placed.reason);
    return values;
}

std::vector<LoggedChange> loggedChanges(const Study &before, const Study &after, const std::string &who,
                                        const std::string &when)
{
    std::vector<LoggedChange> changes;
    std::map<PieceId, const Piece *> old;
    for (const Piece &piece : before.pieces)
        old[piece.id] = &piece;
    for (const Piece &piece : after.pieces) {
        const auto found = old.find(piece.id);
        if (found != old.end() && *found->second == piece)
            continue;
        addDifferences(changes, piece.id,
                       found == old.end() ? Values{} : loggedValuesOf(before, *found->second),
                       loggedValuesOf(after, piece), who, when);
    }
    if (!(before.log == after.log) || !(before.plan.print.printed == after.plan.print.printed))
        addDifferences(changes, {}, studyValues(before), studyValues(after), who, when);
    return changes;
}

} // namespace inchpeg
