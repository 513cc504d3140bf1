// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/log_tables.h"

#include "core/logbook/measuring.h"
#include "core/logbook/print_record.h"
#include "service/safe_name.h"

#include <fmt/ranges.h>

namespace inchpeg
{

namespace
{

std::string heading(const MeasuringRule &rule, const LogPlace &place)
{
    switch (place.field) {
    case LogField::Area:
        return "area_mm2";
    case LogField::Mass:
        return "mass_g";
    case LogField::Note:
        return "note";
    case LogField::Length:
        return "length_mm";
    case LogField::Width:
    case LogField::Thickness:
    case LogField::Diameter:
        break;
    }
    return rule.readings > 1 ? fmt::format("{}_{}_mm", fieldWord(place.field), place.reading + 1)
                             : fmt::format("{}_mm", fieldWord(place.field));
}

std::string optionalCell(const std::optional<double> &value)
{
    return value ? fmt::format("{:.12g}", *value) : std::string();
}

std::string failureCell(const Piece &piece)
{
    std::string text;
    for (const PrintFailure &failure : piece.log.failures)
        text += fmt::format("{}plate {}: {}{}{}{}", text.empty() ? "" : "; ", failure.plate,
                            troubleName(failure.trouble), failure.what.empty() ? "" : ", ", failure.what,
                            failure.reprint ? " (print again)" : "");
    return text;
}

std::string platesCell(const Study &study, const Piece &piece)
{
    std::string text;
    for (const int plate : platesOf(study, piece.id))
        text += fmt::format("{}{}", text.empty() ? "" : " ", plate);
    return text;
}

/// The known length along the axis that is measured now.
const LengthReading *lengthOf(const Study &study, const Piece &piece)
{
    for (const LengthReading &length : piece.log.lengths) {
        if (length.axis == study.log.measuring.lengthAxis)
            return &length;
    }
    return nullptr;
}

/// Lengths along other axes, measured earlier: "X 79.62 of 80".
std::string otherLengthsCell(const Study &study, const Piece &piece)
{
    std::string text;
    for (const LengthReading &length : piece.log.lengths) {
        if (length.axis != study.log.measuring.lengthAxis)
            text += fmt::format("{}{} {:.12g} of {:.12g}", text.empty() ? "" : "; ", axisName(length.axis),
                                length.measured_mm, length.nominal_mm);
    }
    return text;
}

/// "width, thickness: callipers (calibrated 2026-01-19)".
std::string gaugesCell(const Piece &piece)
{
    std::string text;
    for (const MeasuredWith &with : piece.log.gauges)
        text +=
            fmt::format("{}{}: {}{}", text.empty() ? "" : "; ", fmt::join(with.fields, ", "), with.gauge.name,
                        with.gauge.calibration ? fmt::format(" (calibrated {})", with.gauge.calibration->on)
                                               : std::string());
    return text;
}

std::string photosCell(const Piece &piece)
{
    std::string text;
    for (const Photo &photo : piece.log.photos)
        text += (text.empty() ? "" : "; ") + photo.caption;
    return text;
}

/// A cell with what it says, quoted where it must be.
std::string row(std::initializer_list<std::string> cells)
{
    std::string text;
    const char *comma = "";
    for (const std::string &cell : cells) {
        text += comma + csvText(cell);
        comma = ",";
    }
    return text + "\n";
}

} // namespace

std::string logTable(const Study &study)
{
    const std::vector<LogPlace> places = loggedPlaces(study);
    std::string text = "piece,rail";
    for (const LogPlace &place : places) {
        if (place.field != LogField::Note)
            text += "," + heading(study.log.measuring, place);
    }
    text += ",known_length_mm,axis,other_lengths,measured_with,plates,failures,photos,break,note\n";
    for (const Condition &condition : study.conditions) {
        for (const Piece *piece : piecesOf(study, condition.id)) {
            text += csvText(piece->code) + "," + csvText(railTitle(study, condition));
            for (const LogPlace &place : places) {
                if (place.field != LogField::Note)
                    text += "," + optionalCell(loggedValue(study, *piece, place));
            }
            const LengthReading *length = lengthOf(study, *piece);
            text +=
                "," + row({length != nullptr ? optionalCell(length->nominal_mm) : std::string(),
                           length != nullptr ? std::string(axisName(length->axis)) : std::string(),
                           otherLengthsCell(study, *piece), gaugesCell(*piece), platesCell(study, *piece),
                           failureCell(*piece), photosCell(*piece), piece->log.breakLook, piece->log.note});
        }
    }
    return text;
}

std::string plateTable(const Study &study)
{
    std::string text = "plate,about,name,value,done,by,at\n";
    for (const PlateRecord &record : study.log.plates) {
        const std::string plate = std::to_string(record.plate);
        const auto put = [&](const char *name, const std::string &value) {
            if (!value.empty())
                text += row({plate, "record", name, value, {}, {}, {}});
        };
        put("printer", record.printer);
        put("spool", record.spool);
        put("started_at", record.startedAt);
        put("ended_at", record.endedAt);
        put("chamber_C", optionalCell(record.chamber_C));
        put("slicer_grams", optionalCell(record.grams));
        put("slicer_minutes", optionalCell(record.minutes));
        put("settings_from", record.settingsFrom);
        put("note", record.note);
        for (const RealSetting &setting : record.settings) {
            const std::string meant = !setting.answer         ? std::string()
                                      : setting.answer->meant ? "was meant"
                                                              : "was not meant";
            text += row({plate, "setting", setting.name, setting.value, meant,
                         setting.answer ? setting.answer->who : std::string(),
                         setting.answer ? setting.answer->when : std::string()});
        }
        for (const PrintEvent &event : record.events)
            text += row({plate, "event", std::string(troubleName(event.trouble)), event.what, event.done,
                         event.who, event.at});
    }
    return text;
}

std::string stepTable(const Study &study)
{
    std::string text =
        "step,plates,start,end,wanted_h,temperature_C,humidity_percent,skipped,note,by,logged_at\n";
    for (const TimedStep &step : study.log.steps) {
        std::string plates;
        for (const int plate : step.plates)
            plates += fmt::format("{}{}", plates.empty() ? "" : " ", plate);
        text +=
            row({std::string(stepName(step.kind)), plates, step.start, step.end, optionalCell(step.wanted_h),
                 optionalCell(step.temperature_C), optionalCell(step.humidity_percent),
                 step.skipped ? "1" : "0", step.note, step.who, step.when});
    }
    return text;
}

} // namespace inchpeg
