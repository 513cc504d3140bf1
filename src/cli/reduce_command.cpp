// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/command.h"
#include "cli/data_file.h"
#include "cli/settings.h"
#include "core/curve/force_curve.h"
#include "core/method/tension/tensile.h"
#include "core/specimen/section.h"
#include "core/text/notation.h"
#include "service/file_bytes.h"
#include "service/on_all_cores.h"

#include <fmt/format.h>

#include <array>

namespace inchpeg::cli
{

namespace
{

constexpr std::array kTensileKeys = {
    SettingKey{"width", "mm"},
    SettingKey{"thickness", "mm"},
    SettingKey{"area", "mm²"},
    SettingKey{"diameter", "mm"},
    SettingKey{"gauge_length", "mm"},
    SettingKey{"grip_distance", "mm"},
    SettingKey{"toe", ""},
    SettingKey{"capacity", "N"},
    SettingKey{"modulus_from", "mm/mm"},
    SettingKey{"modulus_to", "mm/mm"},
    SettingKey{"offset", "mm/mm"},
    SettingKey{"break_drop", "mm/mm"},
};

Result<Section> sectionFrom(const Settings &settings)
{
    const auto width = settings.number("width");
    const auto thickness = settings.number("thickness");
    const auto area = settings.number("area");
    const auto diameter = settings.number("diameter");
    const int ways = (width || thickness ? 1 : 0) + (area ? 1 : 0) + (diameter ? 1 : 0);
    if (ways > 1)
        return invalidArgument("--set: the cross-section is given in more than one way; give width and "
                               "thickness, or area, or diameter");
    if (area)
        return Section(PlainArea{squareMillimetres(*area)});
    if (diameter)
        return Section(RoundSection{millimetres(*diameter)});
    if (!width)
        return invalidArgument("--set: \"width\" is missing; give width and thickness, or area, or diameter");
    if (!thickness)
        return invalidArgument("--set: \"thickness\" is missing; the cross-section is width × thickness");
    return Section(RectangularSection{millimetres(*width), millimetres(*thickness)});
}

Result<TensileParameters> tensileParameters(const std::vector<std::string> &pairs)
{
    const Result<Settings> settings = Settings::parse(pairs, kTensileKeys);
    if (!settings)
        return settings.error();
    const Result<Section> section = sectionFrom(*settings);
    if (!section)
        return section.error();
    const Result<Area> area = areaOf(*section);
    if (!area)
        return area.error();
    TensileParameters parameters;
    parameters.area = *area;
    if (const auto length = settings->number("gauge_length"))
        parameters.gaugeLength = millimetres(*length);
    if (const auto length = settings->number("grip_distance"))
        parameters.gripDistance = millimetres(*length);
    if (const auto capacity = settings->number("capacity"))
        parameters.capacity = newtons(*capacity);
    parameters.toeCorrection = settings->isOn("toe", true);
    parameters.lowStrain = settings->number("modulus_from").value_or(parameters.lowStrain);
    parameters.highStrain = settings->number("modulus_to").value_or(parameters.highStrain);
    parameters.offsetStrain = settings->number("offset").value_or(parameters.offsetStrain);
    parameters.breakDrop = settings->number("break_drop").value_or(parameters.breakDrop);
    return parameters;
}

/// What is asked of each file.
struct Request {
    TensileParameters parameters;
    std::optional<std::size_t> table; ///< from 1; empty: the first that holds a record
};

Json resultJson(const TensileResult &result, const ImportedCurve &imported)
{
    Json properties = Json::array();
    for (const TensileProperty &property : tensileProperties()) {
        Json entry = {{"name", property.name},
                      {"value", orNull(result.*property.value)},
                      {"unit", symbolInFiles(property.dimension)},
                      {"definition", property.definition}};
        if (isLowerBound(property, result))
            entry["at_least"] = true;
        properties.push_back(std::move(entry));
    }
    const Notation notation;
    Json validity = Json::array();
    for (const Check &check : result.validity)
        validity.push_back(
            {{"rule", check.rule}, {"ok", check.ok}, {"detail", notation.expand(check.detail)}});
    std::vector<std::string> warnings = imported.warnings;
    for (const std::string &warning : result.warnings)
        warnings.push_back(notation.expand(warning));
    return {{"properties", properties},
            {"validity", validity},
            {"warnings", warnings},
            {"columns", columnsJson(imported.layout)}};
}

Result<Json> reduceTensileFile(const std::string &path, const Request &request, const TaskRunner &run)
{
    const Result<FileContent> content = readFile(path, run);
    if (!content)
        return content.error();
    const Result<ImportedCurve> imported = importForceCurve(content->view(), run, request.table);
    if (!imported)
        return inFile(path, imported.error());
    const bool needsLength = imported->curve.strain.empty() && !imported->curve.extension_mm.empty();
    if (needsLength && !request.parameters.gaugeLength && !request.parameters.gripDistance)
        return inFile(path,
                      invalidArgument("\"gauge_length\" is missing: the file has an extension and no strain; "
                                      "give gauge_length, or grip_distance for a crosshead travel"));
    const Result<TensileResult> result = reduceTensile(imported->curve, request.parameters, run);
    if (!result)
        return inFile(path, result.error());
    return resultJson(*result, *imported);
}

Result<Outcome> reduceFiles(const std::vector<std::string> &paths, const Request &request)
{
    // Files are dealt to the cores; each is read by one.
    std::vector<std::optional<Result<Json>>> results(paths.size());
    onAllCores(paths.size(),
               [&](std::size_t i) { results[i] = reduceTensileFile(paths[i], request, inOrder); });
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

Result<Outcome> tensile(const Options &options)
{
    const Result<TensileParameters> parameters = tensileParameters(options.all("set"));
    if (!parameters)
        return parameters.error();
    const Result<std::optional<std::size_t>> table = tableNumberOf(options);
    if (!table)
        return table.error();
    const Request request{*parameters, *table};
    const std::vector<std::string> given = options.all("data");
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
    Result<Json> single = reduceTensileFile(paths.front(), request, onAllCores);
    if (!single)
        return single.error();
    return Outcome{std::move(*single), {}, false};
}

} // namespace

std::vector<Command> reduceCommands()
{
    return {{"reduce",
             "tensile",
             "",
             "read tension and layer-adhesion records",
             {{"data", "FILE", "a record or a folder of records; may be repeated", true, true},
              kTableOption,
              {"set", "KEY=VALUE",
               "width, thickness, area, diameter, gauge_length, grip_distance, capacity (with or without "
               "unit), toe=on|off, modulus_from, modulus_to, offset, break_drop (0.5 or 50%)",
               true, false, true}},
             0,
             tensile}};
}

} // namespace inchpeg::cli
