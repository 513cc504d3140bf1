// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/logged_confounds.h"

#include "core/logbook/mass_check.h"
#include "core/logbook/print_record.h"
#include "core/planning/print_state.h"
#include "core/stats/summary.h"
#include "core/text/letters.h"
#include "core/units/number.h"
#include "core/units/unit.h"

#include <fmt/format.h>

#include <algorithm>
#include <limits>
#include <map>
#include <set>

namespace inchpeg
{

namespace
{

/// Read off a thermometer, plate by plate: it never reads twice the same.
constexpr std::string_view kMeasuredChamber = factor::kChamberTemperature;
/// Chambers that differ by less print alike, and thermometers and their places differ by as much (common
/// practice).
constexpr double kSameChamber_K = 5.0;
/// A difference between levels stands out where it is so many times the scatter within them.
constexpr double kClearOverScatter = 3.0;

/// "60 °C" and "60" are one setting: a number without its unit where the text is one, else the text.
std::string plainSetting(std::string_view value)
{
    const std::string_view text = trimmed(value);
    const std::size_t length = numberPrefixLength(text);
    const std::optional<double> number = parseTypedNumber(text.substr(0, length));
    const std::string_view unit = trimmed(text.substr(length));
    if (!number || (!unit.empty() && unit != "%" && !findUnit(unit)))
        return smallLetters(text);
    return fmt::format("{:g}{}", *number, unit == "%" ? " %" : "");
}

/// Each rail's values of one logged setting, over the plates that its pieces were last printed on.
using SettingByRail = std::map<ConditionId, std::set<std::string>>;

std::map<std::string, SettingByRail> loggedSettings(const Study &study)
{
    std::map<int, std::set<ConditionId>> railsOn;
    std::map<PieceId, int> lastPlate;
    for (const PrintedPlate &plate : study.plan.print.printed) {
        for (const PlacedPiece &placed : plate.pieces)
            lastPlate[placed.piece] = plate.number;
    }
    for (const Piece &piece : study.pieces) {
        if (const auto found = lastPlate.find(piece.id); found != lastPlate.end())
            railsOn[found->second].insert(piece.condition);
    }
    std::map<std::string, SettingByRail> logged;
    for (const PlateRecord &record : study.log.plates) {
        const auto put = [&](const std::string &name, const std::string &value) {
            for (const ConditionId rail : railsOn[record.plate])
                logged[name][rail].insert(value);
        };
        for (const RealSetting &setting : record.settings)
            put(setting.name, plainSetting(setting.value));
        if (record.chamber_C)
            put(std::string(kMeasuredChamber), fmt::format("{:g} °C", *record.chamber_C));
        if (!record.printer.empty())
            put("printer", record.printer);
        if (!record.spool.empty())
            put("spool", record.spool);
    }
    return logged;
}

bool isFactor(const Study &study, std::string_view name)
{
    return std::any_of(study.factors.begin(), study.factors.end(),
                       [name](const Factor &factor) { return factor.name == name; });
}

/// True where rails of one level share their values, and different levels have none in common.
bool movesWith(const Study &study, std::size_t factor, const SettingByRail &values)
{
    std::map<std::string, std::set<std::string>> byLevel;
    for (const Condition &condition : study.conditions) {
        if (const auto found = values.find(condition.id); found != values.end())
            byLevel[condition.levels[factor]].insert(found->second.begin(), found->second.end());
    }
    std::set<std::string> seen;
    for (const auto &[level, set] : byLevel) {
        for (const std::string &value : set) {
            if (!seen.insert(value).second)
                return false;
        }
    }
    return byLevel.size() > 1;
}

/// Numbers of a measured setting at each level of a factor.
std::map<std::string, std::vector<double>> numbersByLevel(const Study &study, std::size_t factor,
                                                          const SettingByRail &values)
{
    std::map<std::string, std::vector<double>> numbers;
    for (const Condition &condition : study.conditions) {
        const auto found = values.find(condition.id);
        if (found == values.end())
            continue;
        for (const std::string &value : found->second) {
            if (const auto number = leadingNumber(value))
                numbers[condition.levels[factor]].push_back(*number);
        }
    }
    return numbers;
}

/// A measured setting changed with a factor where the means of its levels differ by more than what prints
/// alike, and by clearly more than its scatter within the levels.
bool measuredMovesWith(const Study &study, std::size_t factor, const SettingByRail &values)
{
    double least = std::numeric_limits<double>::infinity();
    double most = -least;
    double scatter = 0.0;
    for (const auto &[level, numbers] : numbersByLevel(study, factor, values)) {
        const double mean = meanOf(numbers);
        least = std::min(least, mean);
        most = std::max(most, mean);
        const auto [low, high] = std::minmax_element(numbers.begin(), numbers.end());
        scatter = std::max(scatter, 0.5 * (*high - *low));
    }
    return most - least > std::max(kSameChamber_K, kClearOverScatter * scatter);
}

/// The whole range of a measured setting is within what prints alike.
bool measuredAlike(const SettingByRail &values)
{
    double least = std::numeric_limits<double>::infinity();
    double most = -least;
    for (const auto &entry : values) {
        for (const std::string &value : entry.second) {
            if (const auto number = leadingNumber(value)) {
                least = std::min(least, *number);
                most = std::max(most, *number);
            }
        }
    }
    return !(most - least > kSameChamber_K);
}

std::string valuesText(const SettingByRail &values)
{
    std::set<std::string> all;
    for (const auto &entry : values)
        all.insert(entry.second.begin(), entry.second.end());
    std::string text;
    for (const std::string &value : all)
        text += (text.empty() ? "" : ", ") + value;
    return text;
}

bool changes(const SettingByRail &values)
{
    std::set<std::string> all;
    for (const auto &entry : values)
        all.insert(entry.second.begin(), entry.second.end());
    return all.size() > 1;
}

std::string begun(std::string name)
{
    if (!name.empty() && name[0] >= 'a' && name[0] <= 'z')
        name[0] = static_cast<char>(name[0] - 'a' + 'A');
    return name;
}

} // namespace

std::vector<Confound> settingConfounds(const Study &study)
{
    std::vector<Confound> found;
    for (const auto &[name, values] : loggedSettings(study)) {
        const bool isMeasured = name == kMeasuredChamber;
        if (isFactor(study, name) || !changes(values) || (isMeasured && measuredAlike(values)))
            continue;
        std::string together;
        for (std::size_t f = 0; f < study.factors.size() && together.empty(); ++f) {
            if (isMeasured ? measuredMovesWith(study, f, values) : movesWith(study, f, values))
                together = study.factors[f].name;
        }
        if (together.empty())
            found.push_back({Confound::Weight::Mind,
                             fmt::format("{} was not the same throughout ({}), though not in step with a "
                                         "factor: it adds to the scatter.",
                                         begun(name), valuesText(values)),
                             {}});
        else
            found.push_back(
                {Confound::Weight::Aliased,
                 fmt::format(
                     "{} moved together with {} ({}): what is found may come from either. Print one more "
                     "rail with {} as in the reference and {} as in another rail.",
                     begun(name), together, valuesText(values), together, name),
                 {}});
    }
    std::stable_sort(found.begin(), found.end(),
                     [](const Confound &a, const Confound &b) { return a.weight < b.weight; });
    return found;
}

std::vector<Confound> loggedConfounds(const Study &study, const Workshop &workshop)
{
    std::vector<Confound> found = settingConfounds(study);
    if (const MassCheck mass = checkMass(study, workshop); mass.isConfound)
        found.insert(found.begin(), {Confound::Weight::Aliased, mass.headline, {}});
    return found;
}

} // namespace inchpeg
