// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/command.h"
#include "core/units/unit.h"
#include "service/serial_recorder.h"

#include <fmt/format.h>

#include <csignal>
#include <filesystem>

namespace inchpeg::cli
{

namespace
{

volatile std::sig_atomic_t isStopped = 0;

void stop(int)
{
    isStopped = 1;
}

Result<RigDefault> usualOf(const Options &options)
{
    RigDefault usual;
    if (const std::optional<std::string> name = options.value("quantity")) {
        const std::optional<ColumnQuantity> quantity = quantityFromName(*name);
        if (!quantity || *quantity == ColumnQuantity::Time)
            return invalidArgument(
                fmt::format("--quantity {}: force, extension, strain, temperature, torque, "
                            "angle or length is wanted",
                            *name));
        usual.quantity = *quantity;
    }
    const std::optional<std::string> text = options.value("unit");
    usual.unit = understandColumn(quantityName(usual.quantity), {}).unit.value_or(usual.unit);
    if (!text)
        return usual;
    const Column column = understandColumn(quantityName(usual.quantity), *text);
    if (!column.unknownUnitText.empty() || !column.unit || column.unitAssumed)
        return invalidArgument(fmt::format("--unit {}: no unit of {}", *text, quantityName(usual.quantity)));
    usual.unit = *column.unit;
    return usual;
}

struct Asked {
    ListenSetup setup;
    RecordRule rule;
};

Result<Asked> askedOf(const Options &options)
{
    Asked asked;
    ListenSetup &setup = asked.setup;
    setup.port = options.required("port");
    const Result<RigDefault> usual = usualOf(options);
    if (!usual)
        return usual.error();
    setup.usual = *usual;
    std::error_code none;
    setup.spareFolder = (std::filesystem::temp_directory_path(none) / "inchpeg").string();
    struct Number {
        const char *name;
        double least;
        double most;
        std::function<void(double)> take;
    };
    const Number numbers[] = {
        {"baud", 50, 4e6, [&](double v) { setup.baud = static_cast<int>(v); }},
        {"seconds", 0.001, 1e9, [&](double v) { asked.rule.seconds = v; }},
        {"rows", 1, 1e12, [&](double v) { asked.rule.rows = static_cast<std::size_t>(v); }},
        {"start-at", 0, 1e12, [&](double v) { asked.rule.startAt = v; }},
        {"stop-after-drop", 0, 1, [&](double v) { asked.rule.stopAfterDrop = v; }},
        {"patience", 0, 1e6, [&](double v) { setup.patience_s = v; }},
    };
    for (const Number &number : numbers) {
        const Result<std::optional<double>> value = options.number(number.name, number.least, number.most);
        if (!value)
            return value.error();
        if (*value)
            number.take(**value);
    }
    return asked;
}

Json resultJson(const LiveRecord &record, const std::string &file)
{
    Json gaps = Json::array();
    for (const RecordGap &gap : record.gaps())
        gaps.push_back({{"from_s", gap.from_s}, {"to_s", gap.to_s}});
    Json faults = Json::array();
    for (const RecordedFault &fault : record.faults())
        faults.push_back({{"at_s", fault.at_s}, {"text", fault.text}});
    Json columns = Json::array();
    for (const Column &column : record.columns())
        columns.push_back({{"name", column.name},
                           {"quantity", column.quantity ? Json(quantityName(*column.quantity)) : Json()},
                           {"unit", column.unit ? Json(column.unit->symbol) : Json()}});
    return {{"rows", record.rows()},
            {"damaged", record.damaged()},
            {"gaps", gaps},
            {"faults", faults},
            {"seconds", record.seconds()},
            {"columns", columns},
            {"facts", record.facts()},
            {"file", file}};
}

Result<Outcome> listen(const Options &options)
{
    const Result<Asked> asked = askedOf(options);
    if (!asked)
        return asked.error();
    const std::string file = options.required("to");
    isStopped = 0;
    std::signal(SIGINT, stop);
    std::signal(SIGTERM, stop);
    const Result<Listened> heard = listenToRig(asked->setup, asked->rule, file,
                                               {.isStopped = [] { return isStopped != 0; },
                                                .heard = {},
                                                .portChanged = {},
                                                .nextCommand = {},
                                                .diskRefused = {}});
    if (!heard)
        return heard.error();
    Outcome outcome{resultJson(heard->record, file), {}, false};
    if (heard->kept.trouble) {
        outcome.result["rest"] = heard->kept.files.size() > 1 ? Json(heard->kept.files.back()) : Json();
        outcome.messages.push_back(*heard->kept.trouble);
        outcome.isBrokenOff = true;
    }
    if (heard->brokenBy && heard->brokenBy->message != heard->kept.trouble) {
        outcome.messages.push_back(heard->brokenBy->message);
        outcome.isBrokenOff = true;
    }
    return outcome;
}

} // namespace

std::vector<Command> benchCommands()
{
    return {{"bench",
             "listen",
             "",
             "records what a rig sends on a serial line",
             {{"port", "PATH", "the serial port", false, true},
              {"baud", "N", "115200 unless given"},
              {"quantity", "NAME", "of a rig that sends numbers alone; force unless given"},
              {"unit", "UNIT", "of the same; N unless given"},
              {"seconds", "S", "ends after so long"},
              {"rows", "N", "ends after so many rows"},
              {"start-at", "VALUE", "begins when the main reading reaches it, in its own unit"},
              {"stop-after-drop", "FRACTION", "ends when it fell by this share of its largest"},
              {"patience", "S", "how long a port that went away is waited for; 10 unless given"},
              {"to", "FILE", "the record; a new file", false, true}},
             0,
             listen}};
}

} // namespace inchpeg::cli
