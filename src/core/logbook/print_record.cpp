// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/print_record.h"

#include "core/planning/calendar.h"
#include "core/planning/planned_test.h"
#include "core/text/letters.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <set>

namespace inchpeg
{

namespace
{

/// The entry of a list whose entries are all the same; nothing for anything else. "10,02" is a number with a
/// decimal comma unless both sides are the same.
std::optional<std::string> sameThroughout(std::string_view text)
{
    const std::size_t comma = text.find(',');
    if (comma == std::string_view::npos)
        return std::nullopt;
    const std::string first(trimmed(text.substr(0, comma)));
    for (std::string_view rest = text; !rest.empty();) {
        const std::size_t end = rest.find(',');
        if (trimmed(rest.substr(0, end)) != first)
            return std::nullopt;
        rest = end == std::string_view::npos ? std::string_view() : rest.substr(end + 1);
    }
    return first;
}

/// True for two texts of one setting that mean the same.
bool saySame(std::string_view a, std::string_view b)
{
    const std::optional<double> x = leadingNumber(a);
    const std::optional<double> y = leadingNumber(b);
    // "250,250" is a list, one number a tool; all the same mean that number.
    if (const std::optional<std::string> first = sameThroughout(a))
        return saySame(*first, b);
    if (const std::optional<std::string> first = sameThroughout(b))
        return saySame(a, *first);
    if (x && y)
        return std::abs(*x - *y) <= 1e-9 * std::max(std::abs(*x), std::abs(*y));
    return smallLetters(trimmed(a)) == smallLetters(trimmed(b));
}

/// What the plan wants of a setting on a plate; nothing where its pieces differ in it, or the plan is silent.
std::optional<std::string> plannedOn(const Study &study, const std::set<ConditionId> &conditions,
                                     std::string_view name)
{
    std::optional<std::string> common;
    for (const ConditionId id : conditions) {
        const std::optional<std::string> one = settingOf(study, *findCondition(study, id), name);
        if (!one || (common && *common != *one))
            return std::nullopt;
        common = one;
    }
    return common;
}

std::set<ConditionId> conditionsOn(const Study &study, const Plate &plate)
{
    std::set<ConditionId> conditions;
    for (const PlacedPiece &placed : plate.pieces) {
        if (const Piece *piece = findPiece(study, placed.piece))
            conditions.insert(piece->condition);
    }
    return conditions;
}

struct HeaderKey {
    std::string_view key;
    std::string_view setting;
};

/// Generic words that headers use for a setting of the factor library, as keys in small letters with
/// underscores (common practice).
std::string_view settingOfKey(std::string_view key)
{
    static const HeaderKey kKeys[] = {
        {"nozzle_temperature", factor::kNozzleTemperature},
        {"temperature", factor::kNozzleTemperature},
        {"extruder_temperature", factor::kNozzleTemperature},
        {"print_temperature", factor::kNozzleTemperature},
        {"bed_temperature", factor::kBedTemperature},
        {"build_plate_temperature", factor::kBedTemperature},
        {"chamber_temperature", factor::kChamberTemperature},
        {"layer_height", factor::kLayerHeight},
        {"nozzle_diameter", factor::kNozzleSize},
        {"nozzle_size", factor::kNozzleSize},
        {"walls", factor::kWalls},
        {"wall_count", factor::kWalls},
        {"perimeters", factor::kWalls},
        {"infill", factor::kInfill},
        {"infill_density", factor::kInfill},
        {"fill_density", factor::kInfill},
        {"infill_pattern", factor::kInfillPattern},
        {"fill_pattern", factor::kInfillPattern},
        {"fan_speed", factor::kPartCooling},
        {"part_fan", factor::kPartCooling},
        {"cooling_fan", factor::kPartCooling},
        {"auxiliary_fan", factor::kAuxiliaryFan},
        {"aux_fan", factor::kAuxiliaryFan},
        {"print_speed", factor::kSpeed},
        {"speed", factor::kSpeed},
        {"material", factor::kMaterial},
    };
    for (const HeaderKey &one : kKeys) {
        if (one.key == key)
            return one.setting;
    }
    return {};
}

/// "Layer Height" and "layer-height" are "layer_height"; a unit in brackets is cut off.
std::string headerKey(std::string_view text)
{
    std::string key = smallLetters(trimmed(text.substr(0, text.find_first_of("[("))));
    for (char &c : key) {
        if (c == ' ' || c == '-')
            c = '_';
    }
    while (!key.empty() && key.back() == '_')
        key.pop_back();
    return key;
}

/// What a header's line of a mass is about. A tool's own and what goes into a wipe tower are parts of the
/// whole; what a spool weighs or costs is something else.
bool isOtherMass(std::string_view key)
{
    for (const std::string_view word :
         {"spool", "cost", "price", "density", "tower", "wipe", "purge", "flush", "support", "per_",
          "remaining", "start_", "max", "diameter"}) {
        if (key.find(word) != std::string_view::npos)
            return true;
    }
    return false;
}

/// The sum of a list of numbers, one a tool; nothing where it is none.
std::optional<double> sumOf(std::string_view text)
{
    double sum = 0.0;
    bool any = false;
    while (!text.empty()) {
        const std::size_t end = text.find(',');
        const std::string_view part = trimmed(text.substr(0, end));
        const std::optional<double> number = leadingNumber(part);
        if (!number)
            return std::nullopt;
        sum += *number;
        any = true;
        text = end == std::string_view::npos ? std::string_view() : text.substr(end + 1);
    }
    return any ? std::optional(sum) : std::nullopt;
}

bool saysGrams(std::string_view rawKey, std::string_view key, std::string_view value)
{
    if (isOtherMass(key))
        return false;
    const bool amount = key.find("filament") != std::string_view::npos || key == "mass" || key == "weight" ||
                        key.find("material_used") != std::string_view::npos;
    const bool inGrams = rawKey.find("[g]") != std::string_view::npos ||
                         rawKey.find("(g)") != std::string_view::npos || value.ends_with(" g") ||
                         (value.ends_with("g") && value.size() > 1 &&
                          std::isdigit(static_cast<unsigned char>(value[value.size() - 2])) != 0);
    return amount && inGrams;
}

bool saysTime(std::string_view key)
{
    const bool isPart = key.find("first_layer") != std::string_view::npos ||
                        key.find("layer_time") != std::string_view::npos ||
                        key.find("elapsed") != std::string_view::npos ||
                        key.find("silent") != std::string_view::npos;
    return !isPart && key.find("time") != std::string_view::npos &&
           (key.find("print") != std::string_view::npos || key.find("estimated") != std::string_view::npos ||
            key == "time");
}

std::optional<double> bareNumber(std::string_view text)
{
    return numberPrefixLength(text) == text.size() ? parseTypedNumber(text) : std::nullopt;
}

} // namespace

std::optional<double> leadingNumber(std::string_view text)
{
    return parseTypedNumber(text.substr(0, numberPrefixLength(text)));
}

std::vector<ComparedSetting> comparedSettings(const Study &study, const Plate &plate)
{
    const std::set<ConditionId> conditions = conditionsOn(study, plate);
    std::vector<std::string> names;
    for (const Factor &factor : study.factors)
        names.push_back(factor.name);
    for (const LockedSetting &locked : study.plan.locked)
        names.push_back(locked.name);
    const PlateRecord *record = findPlateRecord(study.log, plate.number);
    std::vector<ComparedSetting> settings;
    for (const std::string &name : names) {
        if (const auto planned = plannedOn(study, conditions, name))
            settings.push_back({name, *planned, {}, false, {}});
    }
    if (record == nullptr)
        return settings;
    for (const RealSetting &real : record->settings) {
        auto found = std::find_if(settings.begin(), settings.end(),
                                  [&](const ComparedSetting &one) { return one.name == real.name; });
        if (found == settings.end())
            found = settings.insert(settings.end(), ComparedSetting{real.name, {}, {}, false, {}});
        found->real = real.value;
        found->answer = real.answer;
        found->differs = !found->planned.empty() && !saySame(found->planned, real.value);
    }
    return settings;
}

Status logSetting(Study &study, int plate, const std::string &name, const std::string &value)
{
    if (trimmed(name).empty())
        return invalidArgument("a setting needs a name");
    std::vector<RealSetting> &settings = plateRecord(study.log, plate).settings;
    const auto found = std::find_if(settings.begin(), settings.end(),
                                    [&](const RealSetting &one) { return one.name == name; });
    if (trimmed(value).empty()) {
        if (found != settings.end())
            settings.erase(found);
    } else if (found == settings.end()) {
        settings.push_back({name, value, {}});
    } else if (found->value != value) {
        *found = {name, value, {}};
    }
    return ok();
}

Status answerDifference(Study &study, int plate, const std::string &name, const DifferenceAnswer &answer)
{
    std::vector<RealSetting> &settings = plateRecord(study.log, plate).settings;
    const auto found = std::find_if(settings.begin(), settings.end(),
                                    [&](const RealSetting &one) { return one.name == name; });
    if (found == settings.end())
        return Error{ErrorCode::NotFound, fmt::format("{} is not logged for plate {}", name, plate), {}};
    found->answer = answer;
    return ok();
}

std::optional<double> minutesFrom(std::string_view text)
{
    text = trimmed(text);
    if (std::count(text.begin(), text.end(), ':') > 0) {
        double seconds = 0.0;
        std::size_t parts = 0;
        for (std::string_view rest = text;; ++parts) {
            const auto colon = rest.find(':');
            const std::optional<double> part = parseTypedNumber(rest.substr(0, colon));
            if (!part || *part < 0.0)
                return std::nullopt;
            seconds = 60.0 * seconds + *part;
            if (colon == std::string_view::npos)
                break;
            rest = rest.substr(colon + 1);
        }
        // "1:20" is hours and minutes, as a slicer shows it; "1:20:05" has seconds.
        return parts == 1 ? seconds : seconds / 60.0;
    }
    constexpr std::pair<std::string_view, double> kUnits[] = {
        {"min", 1.0}, {"d", 1440.0}, {"h", 60.0}, {"m", 1.0}, {"s", 1.0 / 60.0}};
    double minutes = 0.0;
    bool any = false;
    while (!text.empty()) {
        const std::size_t length = numberPrefixLength(text);
        const std::optional<double> number = parseTypedNumber(text.substr(0, length));
        if (!number || *number < 0.0)
            return std::nullopt;
        text = trimmed(text.substr(length));
        const auto unit = std::find_if(std::begin(kUnits), std::end(kUnits),
                                       [&](const auto &one) { return text.starts_with(one.first); });
        if (unit == std::end(kUnits))
            return std::nullopt;
        minutes += *number * unit->second;
        text = trimmed(text.substr(unit->first.size()));
        any = true;
    }
    return any ? std::optional(minutes) : std::nullopt;
}

Result<HeaderSettings> settingsFromHeader(std::string_view text)
{
    HeaderSettings out;
    bool anyComment = false;
    bool totalSaid = false;
    while (!text.empty()) {
        const auto end = text.find('\n');
        std::string_view line = trimmed(text.substr(0, end));
        text = end == std::string_view::npos ? std::string_view() : text.substr(end + 1);
        if (!line.starts_with(';'))
            continue;
        line = trimmed(line.substr(line.find_first_not_of("; \t") == std::string_view::npos
                                       ? line.size()
                                       : line.find_first_not_of("; \t")));
        const auto sign = line.find('=') != std::string_view::npos ? line.find('=') : line.find(':');
        if (sign == std::string_view::npos)
            continue;
        anyComment = true;
        const std::string_view rawKey = trimmed(line.substr(0, sign));
        const std::string key = headerKey(rawKey);
        // A list for several tools: the first is meant.
        std::string value(trimmed(line.substr(sign + 1)));
        value = std::string(trimmed(std::string_view(value).substr(0, value.find(';'))));
        const std::string whole = value;
        if (value.find(',') != std::string::npos && leadingNumber(value.substr(0, value.find(','))) &&
            value.find(", ") == std::string::npos && value.find('.') != std::string::npos)
            value = value.substr(0, value.find(','));
        if (value.empty())
            continue;
        if (const std::string_view name = settingOfKey(key); !name.empty()) {
            const bool there = std::any_of(out.settings.begin(), out.settings.end(),
                                           [&](const RealSetting &one) { return one.name == name; });
            if (!there)
                out.settings.push_back({std::string(name), value, {}});
        } else if (saysGrams(rawKey, key, whole)) {
            const bool isTotal = key.find("total") != std::string_view::npos;
            if (const std::optional<double> grams = sumOf(whole); grams && (isTotal || !totalSaid)) {
                // Lines for single tools without a total are added up.
                out.grams = isTotal ? *grams : out.grams.value_or(0.0) + *grams;
                totalSaid = totalSaid || isTotal;
            }
        } else if (saysTime(key) && !out.minutes) {
            // A bare number is in seconds.
            const std::optional<double> seconds = bareNumber(value);
            out.minutes = seconds ? std::optional(*seconds / 60.0) : minutesFrom(value);
        }
    }
    if (!anyComment)
        return badInput("has no comment of the form \"; key = value\"; type the settings instead");
    return out;
}

Status checkPlateRecord(const PlateRecord &record)
{
    for (const std::string *time : {&record.startedAt, &record.endedAt}) {
        if (!time->empty() && !momentFrom(*time))
            return invalidArgument(
                fmt::format("\"{}\" is no time; a day and a time are written like 2026-06-02T10:40", *time));
    }
    if (!record.startedAt.empty() && !record.endedAt.empty() &&
        *momentFrom(record.endedAt) < *momentFrom(record.startedAt))
        return invalidArgument(fmt::format("plate {} would have ended on {} before it began on {}",
                                           record.plate, record.endedAt, record.startedAt));
    return ok();
}

Status markFailed(Study &study, PieceId id, PrintFailure failure)
{
    Piece *piece = findPiece(study, id);
    require(piece != nullptr, "markFailed() of an unknown piece");
    const std::vector<int> plates = platesOf(study, id);
    if (plates.empty())
        return invalidArgument(fmt::format("piece {} is on no printed plate yet", piece->code));
    if (printState(study, *piece) != PrintState::Printed)
        return invalidArgument(
            fmt::format("piece {} failed on plate {} already", piece->code, plates.back()));
    if (piece->recording)
        return invalidArgument(fmt::format(
            "piece {} was tested: leave its result out in the Read lens, with the reason", piece->code));
    failure.plate = plates.back();
    // What was measured on the failed piece is of that piece, not of the one that is printed next.
    piece->section.reset();
    piece->log.sizes = {};
    piece->log.mass_g.reset();
    piece->log.lengths.clear();
    piece->log.confirmed.clear();
    piece->log.gauges.clear();
    piece->log.failures.push_back(std::move(failure));
    return ok();
}

Status unmarkFailed(Study &study, PieceId id)
{
    Piece *piece = findPiece(study, id);
    require(piece != nullptr, "unmarkFailed() of an unknown piece");
    const std::vector<int> plates = platesOf(study, id);
    if (piece->log.failures.empty())
        return invalidArgument(fmt::format("piece {} has not failed", piece->code));
    if (plates.empty() || piece->log.failures.back().plate != plates.back())
        return invalidArgument(fmt::format("piece {} was printed again on plate {}; its failure stays",
                                           piece->code, plates.empty() ? 0 : plates.back()));
    piece->log.failures.pop_back();
    return ok();
}

} // namespace inchpeg
