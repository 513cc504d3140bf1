// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reading/reading_text.h"

#include "core/base/json_text.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <stdexcept>

namespace inchpeg
{

namespace
{

using Json = nlohmann::json;

template <typename T>
Json orNull(const std::optional<T> &value)
{
    return value ? Json(*value) : Json();
}

std::optional<double> optionalNumber(const Json &json)
{
    return json.is_null() ? std::nullopt : std::optional(json.get<double>());
}

/// A count or an index; a kept text that was damaged may hold anything.
std::size_t countFrom(const Json &json)
{
    if (!json.is_number_unsigned())
        throw std::invalid_argument("a whole number is wanted");
    return json.get<std::size_t>();
}

Json valuesJson(const std::vector<ReadValue> &values)
{
    Json list = Json::array();
    for (const ReadValue &value : values)
        list.push_back({value.property, value.number, value.label, boundReasonName(value.bound),
                        orNull(value.uncertainty)});
    return list;
}

std::vector<ReadValue> valuesFrom(const Json &json)
{
    std::vector<ReadValue> values;
    for (const Json &one : json) {
        const std::optional<BoundReason> bound = boundReasonFrom(one.at(3).get<std::string>());
        if (!bound)
            throw std::invalid_argument("a bound for a reason that is not known");
        values.push_back({one.at(0).get<std::string>(), one.at(1).get<double>(), one.at(2).get<std::string>(),
                          *bound, optionalNumber(one.at(4))});
    }
    return values;
}

Json marksJson(const std::vector<Mark> &marks)
{
    Json list = Json::array();
    for (const Mark &mark : marks)
        list.push_back({mark.name, mark.label, mark.x, mark.y, orNull(mark.place)});
    return list;
}

std::vector<Mark> marksFrom(const Json &json)
{
    std::vector<Mark> marks;
    for (const Json &one : json)
        marks.push_back({one.at(0).get<std::string>(), one.at(1).get<std::string>(), one.at(2).get<double>(),
                         one.at(3).get<double>(), optionalNumber(one.at(4))});
    return marks;
}

Json axisJson(const PictureAxis &axis)
{
    return {axis.label, static_cast<int>(axis.dimension), axis.note};
}

PictureAxis axisFrom(const Json &json)
{
    const std::size_t dimension = countFrom(json.at(1));
    if (dimension > static_cast<std::size_t>(kLastDimension))
        throw std::invalid_argument("an axis in a dimension that is not known");
    return {json.at(0).get<std::string>(), static_cast<Dimension>(dimension), json.at(2).get<std::string>()};
}

Json readingJson(const Reading &reading)
{
    Json validity = Json::array();
    for (const Check &check : reading.validity)
        validity.push_back({check.rule, check.ok, check.detail});
    Json series = Json::array();
    for (const PictureSeries &one : reading.picture.series)
        series.push_back({one.label, one.x, one.y});
    Json guides = Json::array();
    for (const PictureGuide &guide : reading.picture.guides)
        guides.push_back({guide.label, guide.x0, guide.y0, guide.x1, guide.y1});
    Json record;
    if (const std::optional<RecordCurve> &curve = reading.picture.record)
        record = {curve->xColumn, curve->yColumn, curve->endAt, curve->isPoints};
    return {{"values", valuesJson(reading.values)},
            {"kind", reading.kind},
            {"marks", marksJson(reading.marks)},
            {"x", axisJson(reading.picture.x)},
            {"y", axisJson(reading.picture.y)},
            {"series", series},
            {"record", record},
            {"guides", guides},
            {"validity", validity},
            {"warnings", reading.warnings}};
}

Reading readingFrom(const Json &json)
{
    Reading reading;
    reading.values = valuesFrom(json.at("values"));
    reading.kind = json.at("kind").get<std::string>();
    reading.marks = marksFrom(json.at("marks"));
    reading.picture.x = axisFrom(json.at("x"));
    reading.picture.y = axisFrom(json.at("y"));
    for (const Json &one : json.at("series"))
        reading.picture.series.push_back({one.at(0).get<std::string>(), one.at(1).get<std::vector<double>>(),
                                          one.at(2).get<std::vector<double>>()});
    if (const Json &record = json.at("record"); !record.is_null())
        reading.picture.record = RecordCurve{countFrom(record.at(0)), countFrom(record.at(1)),
                                             countFrom(record.at(2)), record.at(3).get<bool>()};
    for (const Json &one : json.at("guides"))
        reading.picture.guides.push_back({one.at(0).get<std::string>(), one.at(1).get<double>(),
                                          one.at(2).get<double>(), one.at(3).get<double>(),
                                          one.at(4).get<double>()});
    for (const Json &check : json.at("validity"))
        reading.validity.push_back(
            {check.at(0).get<std::string>(), check.at(1).get<bool>(), check.at(2).get<std::string>()});
    reading.warnings = json.at("warnings").get<std::vector<std::string>>();
    return reading;
}

} // namespace

std::string readingText(const PieceReading &reading)
{
    const Json json = {{"result", readingJson(reading.result)},
                       {"automatic", reading.automatic ? readingJson(*reading.automatic) : Json()},
                       {"samples", reading.samples},
                       {"points", reading.outline.isPoints},
                       {"break_at", reading.outline.breakAt},
                       {"warnings", reading.importWarnings}};
    return json.dump(-1, ' ', false, Json::error_handler_t::replace);
}

Result<PieceReading> readingFromText(std::string_view text)
{
    try {
        const Json json = parsedJson(text);
        PieceReading reading;
        reading.result = readingFrom(json.at("result"));
        if (!json.at("automatic").is_null())
            reading.automatic = readingFrom(json.at("automatic"));
        reading.samples = countFrom(json.at("samples"));
        reading.outline.xAxis = reading.result.picture.x;
        reading.outline.yAxis = reading.result.picture.y;
        reading.outline.isPoints = json.at("points").get<bool>();
        reading.outline.breakAt = countFrom(json.at("break_at"));
        reading.importWarnings = json.at("warnings").get<std::vector<std::string>>();
        return reading;
    } catch (const std::exception &failure) { // of the JSON library, or from above
        return badInput(fmt::format("a kept reading is not readable: {}", jsonTrouble(failure)));
    }
}

} // namespace inchpeg
