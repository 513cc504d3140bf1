// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/study/reading_text.h"

#include "core/base/json_text.h"
#include "core/plan/workshop.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <stdexcept>

namespace inchpeg
{

namespace
{

using Json = nlohmann::json;

constexpr std::optional<double> TensileResult::*kFields[] = {
    &TensileResult::tensileModulus_MPa,  &TensileResult::yieldStress_MPa,
    &TensileResult::yieldStrain,         &TensileResult::offsetYieldStress_MPa,
    &TensileResult::offsetYieldStrain,   &TensileResult::tensileStrength_MPa,
    &TensileResult::strainAtStrength,    &TensileResult::stressAtBreak_MPa,
    &TensileResult::strainAtBreak,       &TensileResult::energyToBreak_J,
    &TensileResult::toughness_MJ_per_m3, &TensileResult::toeStrain,
    &TensileResult::peakForce_N};

template <typename T>
Json orNull(const std::optional<T> &value)
{
    return value ? Json(*value) : Json();
}

/// The number of a sample; a kept text that was damaged may hold anything.
std::size_t indexFrom(const Json &json)
{
    if (!json.is_number_unsigned())
        throw std::invalid_argument("a sample's number is wanted");
    return json.get<std::size_t>();
}

std::optional<std::size_t> optionalIndex(const Json &json)
{
    return json.is_null() ? std::nullopt : std::optional(indexFrom(json));
}

std::optional<double> optionalNumber(const Json &json)
{
    return json.is_null() ? std::nullopt : std::optional(json.get<double>());
}

Json resultJson(const TensileResult &result)
{
    Json fields = Json::array();
    for (const auto field : kFields)
        fields.push_back(orNull(result.*field));
    Json validity = Json::array();
    for (const Check &check : result.validity)
        validity.push_back({check.rule, check.ok, check.detail});
    const CurveMarkers &m = result.markers;
    return {{"fields", fields},
            {"at_least", result.atLeast},
            {"markers",
             {m.peak, m.strength, orNull(m.yield), m.lastBeforeBreak, m.broke, orNull(m.modulusFirst),
              orNull(m.modulusLast)}},
            {"validity", validity},
            {"warnings", result.warnings}};
}

TensileResult resultFrom(const Json &json)
{
    TensileResult result;
    const Json &fields = json.at("fields");
    for (std::size_t i = 0; i < std::size(kFields); ++i)
        result.*kFields[i] = optionalNumber(fields.at(i));
    result.atLeast = json.at("at_least").get<bool>();
    const Json &m = json.at("markers");
    result.markers = {indexFrom(m.at(0)),  indexFrom(m.at(1)),     optionalIndex(m.at(2)), indexFrom(m.at(3)),
                      m.at(4).get<bool>(), optionalIndex(m.at(5)), optionalIndex(m.at(6))};
    for (const Json &check : json.at("validity"))
        result.validity.push_back(
            {check.at(0).get<std::string>(), check.at(1).get<bool>(), check.at(2).get<std::string>()});
    result.warnings = json.at("warnings").get<std::vector<std::string>>();
    return result;
}

std::string optionalText(const std::optional<double> &value)
{
    return value ? fmt::format("{}", *value) : "-";
}

template <typename Q>
std::string siText(const std::optional<Q> &quantity)
{
    return optionalText(quantity ? std::optional(quantity->si()) : std::nullopt);
}

} // namespace

std::string readingInputs(const Recording &recording, const TensileParameters &p)
{
    const auto index = [](const std::optional<std::size_t> &i) { return i ? std::to_string(*i) : "-"; };
    const MarkerOverrides &m = p.markers;
    const std::string inputs = fmt::format(
        "tension {} file {} columns {} area {} gauge {} grips {} toe {} capacity {} modulus {} {} "
        "offset {} drop {} placed {} {} {} {} {} {} {}",
        kTensileMethodVersion, recording.file.value, mappingText(recording.mapping), p.area.si(),
        siText(p.gaugeLength), siText(p.gripDistance), p.toeCorrection, siText(p.capacity), p.lowStrain,
        p.highStrain, p.offsetStrain, p.breakDrop, optionalText(m.toeStrain), optionalText(m.modulusFrom),
        optionalText(m.modulusTo), index(m.strength), index(m.yield), m.noYield, index(m.lastBeforeBreak));
    return recording.gauge ? inputs + " gauge " + usedGaugeText(*recording.gauge) : inputs;
}

std::string readingText(const PieceReading &reading)
{
    Json points = Json::array();
    for (const MarkerPoint &point : reading.points)
        points.push_back({markerName(point.marker), point.x, point.stress_MPa});
    const Json json = {{"result", resultJson(reading.result)},
                       {"points", points},
                       {"automatic", reading.automatic ? resultJson(*reading.automatic) : Json()},
                       {"samples", reading.samples},
                       {"axis", static_cast<int>(reading.outline.axis)},
                       {"break_at", reading.outline.breakAt},
                       {"warnings", reading.importWarnings}};
    return json.dump(-1, ' ', false, Json::error_handler_t::replace);
}

Result<PieceReading> readingFromText(std::string_view text)
{
    try {
        const Json json = parsedJson(text);
        PieceReading reading;
        reading.result = resultFrom(json.at("result"));
        if (!json.at("automatic").is_null())
            reading.automatic = resultFrom(json.at("automatic"));
        reading.samples = indexFrom(json.at("samples"));
        for (const Json &point : json.at("points")) {
            const std::optional<Marker> marker = markerFrom(point.at(0).get<std::string>());
            if (!marker)
                return badInput("a kept reading names a marker that is not known");
            reading.points.push_back({*marker, point.at(1).get<double>(), point.at(2).get<double>()});
        }
        const std::size_t axis = indexFrom(json.at("axis"));
        if (axis > static_cast<std::size_t>(CurveAxis::None))
            return badInput("a kept reading names an axis that is not known");
        reading.outline.axis = static_cast<CurveAxis>(axis);
        reading.outline.breakAt = indexFrom(json.at("break_at"));
        reading.importWarnings = json.at("warnings").get<std::vector<std::string>>();
        return reading;
    } catch (const std::exception &failure) { // of the JSON library, or from above
        return badInput(fmt::format("a kept reading is not readable: {}", jsonTrouble(failure)));
    }
}

} // namespace inchpeg
