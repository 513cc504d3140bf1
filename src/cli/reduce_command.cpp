// SPDX-License-Identifier: GPL-3.0-or-later
// One subcommand a test, made from its description: see core/method/method.h.
#include "cli/command.h"
#include "cli/data_file.h"
#include "core/import/text.h"
#include "core/method/method.h"
#include "core/method/record_rows.h"
#include "core/method/value_text.h"
#include "core/text/notation.h"
#include "disk/file_bytes.h"
#include "service/on_all_cores.h"

#include <fmt/format.h>

#include <map>

namespace inchpeg::cli
{

namespace
{

/// What is asked of each file.
struct Request {
    const Reduction *reduction = nullptr;
    MethodSettings settings;
    std::optional<std::size_t> table; ///< from 1; empty: the first that holds a record
};

/// Errors: InvalidArgument that names the key: unknown, given twice, no "=", and those of setTyped().
Result<MethodSettings> settingsFrom(const std::vector<std::string> &pairs, const Reduction &reduction)
{
    MethodSettings settings;
    for (const std::string &pair : pairs) {
        const std::size_t equals = pair.find('=');
        if (equals == std::string::npos)
            return invalidArgument(fmt::format("--set {}: key=value is wanted, such as width=10mm", pair));
        const std::string name = pair.substr(0, equals);
        const Parameter *parameter = findParameter(reduction.parameters, name);
        if (parameter == nullptr) {
            std::string known;
            for (const Parameter &other : reduction.parameters)
                known += (known.empty() ? "" : ", ") + std::string(other.name);
            return invalidArgument(
                fmt::format("--set {}: there is no key \"{}\"; known are {}", pair, name, known));
        }
        if (settings.contains(name))
            return invalidArgument(fmt::format("--set {}: \"{}\" is set twice; once is wanted", pair, name));
        if (const Status set = setTyped(settings, *parameter, std::string_view(pair).substr(equals + 1));
            !set)
            return invalidArgument(fmt::format("--set {}: {}", pair, set.error().message));
    }
    return settings;
}

Json valueJson(const Property &property, const ReadValue *value)
{
    Json entry = {{"name", property.name},
                  {"value", value != nullptr ? orNull(std::optional(value->number)) : Json(nullptr)},
                  {"unit", symbolInFiles(property.dimension)},
                  {"definition", property.definition}};
    if (value != nullptr && property.scale == Scale::Word)
        entry["word"] = valueText(property, value->number, 1, {});
    if (value != nullptr && !value->label.empty())
        entry["label"] = value->label;
    if (value != nullptr && value->bound != BoundReason::None)
        entry["at_least"] = true;
    return entry;
}

/// Every property once, or once a label in the order of the file; one that the record does not give is null.
Json propertiesJson(const Reduction &reduction, const std::vector<ReadValue> &values)
{
    Json list = Json::array();
    for (const Property &property : reduction.properties) {
        bool any = false;
        for (const ReadValue &value : values) {
            if (value.property != property.name)
                continue;
            list.push_back(valueJson(property, &value));
            any = true;
        }
        if (!any)
            list.push_back(valueJson(property, nullptr));
    }
    return list;
}

Json validityJson(const std::vector<Check> &checks)
{
    const Notation notation;
    Json list = Json::array();
    for (const Check &check : checks)
        list.push_back({{"rule", check.rule}, {"ok", check.ok}, {"detail", notation.expand(check.detail)}});
    return list;
}

Json readingJson(const Reduction &reduction, const Reading &reading, std::vector<std::string> warnings,
                 Json columns)
{
    for (const std::string &warning : reading.warnings)
        warnings.push_back(Notation().expand(warning));
    return {{"properties", propertiesJson(reduction, reading.values)},
            {"validity", validityJson(reading.validity)},
            {"warnings", warnings},
            {"columns", std::move(columns)}};
}

/// A record of readings over time, travel or temperature.
Result<Json> reduceRecord(std::string_view bytes, const Request &request, const TaskRunner &run)
{
    const Reduction &reduction = *request.reduction;
    Result<ImportedRecord> imported = importRecord(bytes, reduction.columns, run, request.table);
    if (!imported)
        return imported.error();
    if (reduction.checkForFile != nullptr) {
        if (const Status status = reduction.checkForFile(imported->table, request.settings); !status)
            return status.error();
    }
    const Result<Reading> reading = reduction.read(std::move(imported->table), request.settings, {}, run);
    if (!reading)
        return reading.error();
    return readingJson(reduction, *reading, imported->warnings, columnsJson(imported->layout));
}

/// A table with a row a specimen: the values of each row, labelled by its code.
Result<Json> reduceRows(std::string_view bytes, const Request &request)
{
    const Reduction &reduction = *request.reduction;
    const Result<DecodedText> text = decodeText(bytes);
    if (!text)
        return text.error();
    const Result<RecordRows> rows = readRecordRows(text->utf8, reduction.parameters);
    if (!rows)
        return rows.error();
    Reading all;
    for (const RecordRow &row : rows->rows) {
        MethodSettings settings = request.settings;
        settings.override(row.settings);
        Result<Reading> reading = reduction.read({}, settings, {}, inOrder);
        if (!reading)
            return Error{reading.error().code, reading.error().message, TextPosition{row.line, {}}};
        for (ReadValue &value : reading->values) {
            value.label = row.label;
            all.values.push_back(std::move(value));
        }
        for (Check &check : reading->validity)
            all.validity.push_back({fmt::format("{}: {}", row.label, check.rule), check.ok, check.detail});
        for (const std::string &warning : reading->warnings)
            all.warnings.push_back(fmt::format("{}: {}", row.label, warning));
    }
    return readingJson(reduction, all, rows->warnings, columnsJson(rows->layout));
}

Result<Json> reduceFile(const std::string &path, const Request &request, const TaskRunner &run)
{
    const Result<FileContent> content = readFile(path, run);
    if (!content)
        return content.error();
    Result<Json> reduced = request.reduction->columns.empty() ? reduceRows(content->view(), request)
                                                              : reduceRecord(content->view(), request, run);
    return reduced ? std::move(reduced) : Result<Json>(inFile(path, reduced.error()));
}

Result<Outcome> reduceFiles(const std::vector<std::string> &paths, const Request &request)
{
    // Files are dealt to the cores; each is read by one.
    std::vector<std::optional<Result<Json>>> results(paths.size());
    onAllCores(paths.size(), [&](std::size_t i) { results[i] = reduceFile(paths[i], request, inOrder); });
    Outcome outcome;
    Json list = Json::array();
    for (std::size_t i = 0; i < paths.size(); ++i) {
        Json entry = {{"file", paths[i]}};
        Result<Json> &result = *results[i];
        if (result) {
            entry.update(std::move(*result));
        } else {
            entry["error"] = result.error().message;
            outcome.messages.push_back(result.error().message);
            outcome.someFailed = true;
        }
        list.push_back(std::move(entry));
    }
    outcome.result = {{"files", list}};
    return outcome;
}

/// What needs no file: all values are set.
Result<Outcome> reduceSettings(const Request &request)
{
    const Result<Reading> reading = request.reduction->read({}, request.settings, {}, inOrder);
    if (!reading)
        return invalidArgument("--set: " + reading.error().message);
    return Outcome{readingJson(*request.reduction, *reading, {}, Json::array()), {}, false};
}

Result<Outcome> reduce(const Reduction &reduction, const Options &options)
{
    Result<MethodSettings> settings = settingsFrom(options.all("set"), reduction);
    if (!settings)
        return settings.error();
    const std::vector<std::string> given = options.all("data");
    const bool rowsMaySay = reduction.columns.empty() && !given.empty();
    if (const Status status = reduction.check(*settings); !status && !rowsMaySay)
        return invalidArgument("--set: " + status.error().message);
    const Result<std::optional<std::size_t>> table = tableNumberOf(options);
    if (!table)
        return table.error();
    const Request request{&reduction, std::move(*settings), *table};
    if (given.empty())
        return reduceSettings(request);
    std::vector<std::string> paths;
    for (const std::string &path : given) {
        const Result<std::vector<std::string>> found = filesAt(path);
        if (!found)
            return found.error();
        paths.insert(paths.end(), found->begin(), found->end());
    }
    if (paths.empty())
        return invalidArgument(fmt::format("{}: the folder holds no file", given.front()));
    if (given.size() > 1 || paths.front() != given.front())
        return reduceFiles(paths, request);
    Result<Json> single = reduceFile(paths.front(), request, onAllCores);
    if (!single)
        return single.error();
    return Outcome{std::move(*single), {}, false};
}

/// "width, thickness (mm), toe=on|off".
std::string keysText(const Reduction &reduction)
{
    std::string text;
    for (const Parameter &parameter : reduction.parameters) {
        text += (text.empty() ? "" : ", ") + std::string(parameter.name);
        if (!parameter.choices.empty())
            text += fmt::format("={}", fmt::join(parameter.choices, "|"));
        else
            text += fmt::format(" ({})", parameter.unit);
    }
    return text;
}

} // namespace

std::vector<Command> reduceCommands()
{
    // Commands refer to their words; these are made once.
    static const std::map<const Reduction *, std::string> kKeys = [] {
        std::map<const Reduction *, std::string> keys;
        for (const Reduction *reduction : allReductions())
            keys[reduction] = keysText(*reduction);
        return keys;
    }();
    std::vector<Command> commands;
    for (const Reduction *reduction : allReductions()) {
        const bool needsFile = !reduction->columns.empty();
        commands.push_back(
            {"reduce",
             reduction->command,
             "",
             reduction->summary,
             {{"data", "FILE",
               needsFile ? "a record or a folder of records; may be repeated"
                         : "a table with a row a specimen; may be repeated, or left out where all is set",
               true, needsFile},
              kTableOption,
              {"set", "KEY=VALUE", kKeys.at(reduction), true, false, true}},
             0,
             [reduction](const Options &options) { return reduce(*reduction, options); }});
    }
    return commands;
}

} // namespace inchpeg::cli
