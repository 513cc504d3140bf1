// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/study_log.h"

#include "core/base/json_fields.h"
#include "core/base/json_text.h"
#include "core/base/named.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr std::pair<ReadingRule, std::string_view> kReadingRules[] = {{ReadingRule::Mean, "mean"},
                                                                      {ReadingRule::Smallest, "smallest"}};
constexpr std::pair<StepKind, std::string_view> kSteps[] = {{StepKind::Drying, "drying"},
                                                            {StepKind::Conditioning, "conditioning"},
                                                            {StepKind::Annealing, "annealing"}};

template <typename Io, typename M>
void measuringFields(Io &io, M &measuring)
{
    const MeasuringRule usual;
    io.field("readings", measuring.readings, usual.readings);
    io.field("calliper", measuring.calliper, usual.calliper);
    io.field("scale", measuring.scale, usual.scale);
    io.field("length_mm", measuring.length_mm, usual.length_mm);
    io.field("tolerance", measuring.tolerance, usual.tolerance);
    io.field("mass_tolerance", measuring.massTolerance, usual.massTolerance);
}

template <typename Io, typename R>
void recordFields(Io &io, R &record)
{
    const PlateRecord usual;
    io.field("plate", record.plate, usual.plate);
    io.field("printer", record.printer, usual.printer);
    io.field("spool", record.spool, usual.spool);
    io.field("started_at", record.startedAt, usual.startedAt);
    io.field("ended_at", record.endedAt, usual.endedAt);
    io.field("chamber_C", record.chamber_C, usual.chamber_C);
    io.field("grams", record.grams, usual.grams);
    io.field("minutes", record.minutes, usual.minutes);
    io.field("settings_from", record.settingsFrom, usual.settingsFrom);
    io.field("note", record.note, usual.note);
}

template <typename Io, typename E>
void eventFields(Io &io, E &event)
{
    const std::string none;
    io.field("at", event.at, none);
    io.field("what", event.what, none);
    io.field("done", event.done, none);
    io.field("by", event.who, none);
}

template <typename Io, typename S>
void stepFields(Io &io, S &step)
{
    const TimedStep usual;
    io.field("plates", step.plates, usual.plates);
    io.field("start", step.start, usual.start);
    io.field("end", step.end, usual.end);
    io.field("wanted_h", step.wanted_h, usual.wanted_h);
    io.field("temperature_C", step.temperature_C, usual.temperature_C);
    io.field("humidity_percent", step.humidity_percent, usual.humidity_percent);
    io.field("skipped", step.skipped, usual.skipped);
    io.field("note", step.note, usual.note);
    io.field("by", step.who, usual.who);
    io.field("logged_at", step.when, usual.when);
}

template <typename Io, typename R>
void roomFields(Io &io, R &room)
{
    io.field("at", room.when, std::string());
    io.field("temperature_C", room.temperature_C, 0.0);
    io.field("humidity_percent", room.humidity_percent, 0.0);
    io.field("by", room.who, std::string());
}

OrderedJson settingJson(const RealSetting &setting)
{
    OrderedJson json = {{"name", setting.name}, {"value", setting.value}};
    if (setting.answer) {
        json["meant"] = setting.answer->meant;
        json["by"] = setting.answer->who;
        json["at"] = setting.answer->when;
    }
    return json;
}

RealSetting settingFrom(const OrderedJson &json)
{
    RealSetting setting{json.at("name").get<std::string>(), json.at("value").get<std::string>(), {}};
    if (json.contains("meant"))
        setting.answer = DifferenceAnswer{json.at("meant").get<bool>(), json.at("by").get<std::string>(),
                                          json.at("at").get<std::string>()};
    return setting;
}

OrderedJson recordJson(const PlateRecord &record)
{
    OrderedJson json = OrderedJson::object();
    FieldWriter writer(json);
    recordFields(writer, record);
    for (const RealSetting &setting : record.settings)
        json["settings"].push_back(settingJson(setting));
    for (const PrintEvent &event : record.events) {
        OrderedJson one = {{"trouble", troubleName(event.trouble)}};
        FieldWriter fields(one);
        eventFields(fields, event);
        json["events"].push_back(one);
    }
    return json;
}

PlateRecord recordFrom(const OrderedJson &json)
{
    PlateRecord record;
    FieldReader reader(json);
    recordFields(reader, record);
    for (const OrderedJson &one : listIn(json, "settings"))
        record.settings.push_back(settingFrom(one));
    for (const OrderedJson &one : listIn(json, "events")) {
        PrintEvent event;
        FieldReader fields(one);
        eventFields(fields, event);
        event.trouble = named(one.at("trouble"), "trouble", troubleFrom);
        record.events.push_back(std::move(event));
    }
    return record;
}

OrderedJson measuringJson(const MeasuringRule &measuring)
{
    OrderedJson json = OrderedJson::object();
    FieldWriter writer(json);
    measuringFields(writer, measuring);
    if (measuring.rule != ReadingRule::Mean)
        json["rule"] = readingRuleName(measuring.rule);
    if (measuring.lengthAxis)
        json["length_axis"] = axisName(*measuring.lengthAxis);
    return json;
}

MeasuringRule measuringFrom(const OrderedJson &json)
{
    MeasuringRule measuring;
    FieldReader reader(json);
    measuringFields(reader, measuring);
    if (json.contains("rule"))
        measuring.rule = named(json.at("rule"), "rule", readingRuleFrom);
    if (json.contains("length_axis"))
        measuring.lengthAxis = named(json.at("length_axis"), "length_axis", axisFrom);
    if (measuring.readings < 1 || measuring.readings > kMostReadings)
        throw std::invalid_argument(fmt::format("\"readings\": 1 to {} are possible", kMostReadings));
    return measuring;
}

StudyLog studyLogFrom(const OrderedJson &json)
{
    StudyLog log;
    FieldReader reader(json);
    reader.field("note", log.note, std::string());
    if (json.contains("measuring"))
        log.measuring = measuringFrom(json.at("measuring"));
    for (const OrderedJson &one : listIn(json, "plates"))
        log.plates.push_back(recordFrom(one));
    for (const OrderedJson &one : listIn(json, "rooms")) {
        FieldReader fields(one);
        roomFields(fields, log.rooms.emplace_back());
    }
    for (const OrderedJson &one : listIn(json, "steps")) {
        TimedStep step;
        FieldReader fields(one);
        stepFields(fields, step);
        step.kind = named(one.at("step"), "step", stepFrom);
        log.steps.push_back(std::move(step));
    }
    return log;
}

} // namespace

std::string_view readingRuleName(ReadingRule rule)
{
    return nameIn(kReadingRules, rule);
}

std::optional<ReadingRule> readingRuleFrom(std::string_view name)
{
    return valueIn(kReadingRules, name);
}

std::string_view stepName(StepKind kind)
{
    return nameIn(kSteps, kind);
}

std::optional<StepKind> stepFrom(std::string_view name)
{
    return valueIn(kSteps, name);
}

const PlateRecord *findPlateRecord(const StudyLog &log, int plate)
{
    const auto found = std::find_if(log.plates.begin(), log.plates.end(),
                                    [plate](const PlateRecord &record) { return record.plate == plate; });
    return found == log.plates.end() ? nullptr : &*found;
}

PlateRecord &plateRecord(StudyLog &log, int plate)
{
    const auto place = std::find_if(log.plates.begin(), log.plates.end(),
                                    [plate](const PlateRecord &record) { return record.plate >= plate; });
    if (place != log.plates.end() && place->plate == plate)
        return *place;
    PlateRecord record;
    record.plate = plate;
    return *log.plates.insert(place, std::move(record));
}

std::string studyLogText(const StudyLog &log)
{
    OrderedJson json = OrderedJson::object();
    FieldWriter writer(json);
    writer.field("note", log.note, std::string());
    if (OrderedJson measuring = measuringJson(log.measuring); !measuring.empty())
        json["measuring"] = std::move(measuring);
    for (const PlateRecord &record : log.plates)
        json["plates"].push_back(recordJson(record));
    for (const RoomReading &room : log.rooms) {
        OrderedJson one = OrderedJson::object();
        FieldWriter fields(one);
        roomFields(fields, room);
        json["rooms"].push_back(one);
    }
    for (const TimedStep &step : log.steps) {
        OrderedJson one = {{"step", stepName(step.kind)}};
        FieldWriter fields(one);
        stepFields(fields, step);
        json["steps"].push_back(one);
    }
    return jsonText(json);
}

Result<StudyLog> studyLogFromText(std::string_view text)
{
    try {
        return studyLogFrom(parsedJson(text));
    } catch (const std::exception &failure) {
        return badInput(fmt::format("is no log of a study: {}", jsonTrouble(failure)));
    }
}

} // namespace inchpeg
