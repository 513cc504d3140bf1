// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/piece_log.h"

#include "core/base/json_fields.h"
#include "core/base/json_text.h"
#include "core/base/named.h"
#include "core/base/utc_time.h"
#include "core/model/workshop.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr std::pair<PrintAxis, std::string_view> kAxes[] = {
    {PrintAxis::X, "X"}, {PrintAxis::Y, "Y"}, {PrintAxis::Z, "Z"}};

constexpr std::pair<PrintTrouble, std::string_view> kTroubles[] = {
    {PrintTrouble::Jam, "jam"},
    {PrintTrouble::Warp, "warp"},
    {PrintTrouble::Delamination, "delamination"},
    {PrintTrouble::UnderExtrusion, "under-extrusion"},
    {PrintTrouble::Overload, "drive overload"},
    {PrintTrouble::Warning, "warning"},
    {PrintTrouble::Stopped, "stopped"},
    {PrintTrouble::Other, "other"}};

template <typename Io, typename S>
void sizeFields(Io &io, S &sizes)
{
    const std::vector<double> none;
    io.field("width_mm", sizes.width_mm, none);
    io.field("thickness_mm", sizes.thickness_mm, none);
    io.field("diameter_mm", sizes.diameter_mm, none);
}

template <typename Io, typename L>
void lengthFields(Io &io, L &length)
{
    io.field("nominal_mm", length.nominal_mm, 0.0);
    io.field("measured_mm", length.measured_mm, 0.0);
}

template <typename Io, typename F>
void failureFields(Io &io, F &failure)
{
    io.field("plate", failure.plate, 0);
    io.field("what", failure.what, std::string());
    io.field("reprint", failure.reprint, false);
    io.field("by", failure.who, std::string());
    io.field("at", failure.when, std::string());
}

template <typename Io, typename C>
void confirmedFields(Io &io, C &confirmed)
{
    io.field("field", confirmed.field, std::string());
    io.field("value", confirmed.value, 0.0);
    io.field("by", confirmed.who, std::string());
    io.field("at", confirmed.when, std::string());
}

template <typename Io, typename R>
void runFields(Io &io, R &run)
{
    io.field("loaded_at", run.loadedAt, std::string());
    io.field("taken_s", run.taken_s, std::vector<double>());
    io.field("unloaded_at", run.unloadedAt, std::string());
    io.field("over", run.isOver, false);
}

PieceLog pieceLogFrom(const OrderedJson &json)
{
    PieceLog log;
    FieldReader reader(json);
    sizeFields(reader, log.sizes);
    reader.field("mass_g", log.mass_g, std::optional<double>());
    reader.field("break_look", log.breakLook, std::string());
    if (const auto found = json.find("run"); found != json.end()) {
        FieldReader fields(*found);
        runFields(fields, log.run.emplace());
        if (!secondsSinceEpoch(log.run->loadedAt))
            throw std::invalid_argument("\"run\": \"loaded_at\" is no moment such as 2026-06-01T10:00:00Z");
    }
    for (const OrderedJson &one : listIn(json, "lengths")) {
        LengthReading length;
        FieldReader fields(one);
        lengthFields(fields, length);
        length.axis = named(one.at("axis"), "axis", axisFrom);
        log.lengths.push_back(length);
    }
    for (const OrderedJson &one : listIn(json, "failures")) {
        PrintFailure failure;
        FieldReader fields(one);
        failureFields(fields, failure);
        failure.trouble = named(one.at("trouble"), "trouble", troubleFrom);
        log.failures.push_back(std::move(failure));
    }
    for (const OrderedJson &one : listIn(json, "confirmed")) {
        ConfirmedReading confirmed;
        FieldReader fields(one);
        confirmedFields(fields, confirmed);
        log.confirmed.push_back(std::move(confirmed));
    }
    for (const OrderedJson &one : listIn(json, "measured_with")) {
        Result<UsedGauge> gauge = usedGaugeFromText(one.at("gauge").dump());
        if (!gauge)
            throw std::invalid_argument("\"measured_with\" " + gauge.error().message);
        for (const OrderedJson &field : one.at("fields"))
            keepGauge(log, field.get<std::string>(), *gauge);
    }
    return log;
}

} // namespace

std::string_view axisName(PrintAxis axis)
{
    return nameIn(kAxes, axis);
}

std::optional<PrintAxis> axisFrom(std::string_view name)
{
    return valueIn(kAxes, name);
}

bool isPhotoName(std::string_view name)
{
    const std::size_t dot = name.rfind('.');
    if (dot == std::string_view::npos)
        return false;
    std::string ending(name.substr(dot + 1));
    for (char &letter : ending)
        letter = letter >= 'A' && letter <= 'Z' ? static_cast<char>(letter - 'A' + 'a') : letter;
    return std::find(std::begin(kPhotoEndings), std::end(kPhotoEndings), ending) != std::end(kPhotoEndings);
}

std::string_view troubleName(PrintTrouble trouble)
{
    return nameIn(kTroubles, trouble);
}

std::optional<PrintTrouble> troubleFrom(std::string_view name)
{
    return valueIn(kTroubles, name);
}

std::string pieceLogText(const PieceLog &log)
{
    OrderedJson json = OrderedJson::object();
    FieldWriter writer(json);
    sizeFields(writer, log.sizes);
    writer.field("mass_g", log.mass_g, std::optional<double>());
    writer.field("break_look", log.breakLook, std::string());
    if (log.run) {
        OrderedJson run = OrderedJson::object();
        FieldWriter fields(run);
        runFields(fields, *log.run);
        json["run"] = run;
    }
    for (const LengthReading &length : log.lengths) {
        OrderedJson one = {{"axis", axisName(length.axis)}};
        FieldWriter fields(one);
        lengthFields(fields, length);
        json["lengths"].push_back(one);
    }
    for (const PrintFailure &failure : log.failures) {
        OrderedJson one = {{"trouble", troubleName(failure.trouble)}};
        FieldWriter fields(one);
        failureFields(fields, failure);
        json["failures"].push_back(one);
    }
    for (const ConfirmedReading &confirmed : log.confirmed) {
        OrderedJson one = OrderedJson::object();
        FieldWriter fields(one);
        confirmedFields(fields, confirmed);
        json["confirmed"].push_back(one);
    }
    for (const MeasuredWith &with : log.gauges)
        json["measured_with"].push_back(
            {{"fields", with.fields}, {"gauge", parsedJson(usedGaugeText(with.gauge))}});
    return jsonText(json);
}

Result<PieceLog> pieceLogFromText(std::string_view text)
{
    try {
        return pieceLogFrom(parsedJson(text));
    } catch (const std::exception &failure) {
        return badInput(fmt::format("is no log of a piece: {}", jsonTrouble(failure)));
    }
}

} // namespace inchpeg
