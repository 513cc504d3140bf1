// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/facts/contrasts.h"

#include "core/text/letters.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace inchpeg
{

namespace
{

constexpr double kSameShare = 0.01;
constexpr double kSameTemperature_K = 1.0;
constexpr double kSameChamber_K = 5.0;
constexpr double kSameRate = 0.15;
constexpr double kSameTime = 0.20;
constexpr double kClearOverScatter = 3.0;
/// A share of pieces that differ which is told; less is chance of which plate a piece came to lie on.
constexpr double kLeastShare = 0.25;

/// Read off an instrument, piece by piece or plate by plate: it never reads twice the same.
bool isMeasured(std::string_view name)
{
    return name == factor::kChamberTemperature || name == had::kHeatingRate || name == had::kStrainRate ||
           name == had::kReadTo;
}

double alikeWithin(std::string_view name, double size)
{
    if (name == factor::kChamberTemperature)
        return kSameChamber_K;
    if (name == had::kHeatingRate || name == had::kStrainRate)
        return kSameRate * size;
    if (name == had::kReadTo)
        return kSameTime * size;
    if (name.ends_with("temperature"))
        return kSameTemperature_K;
    return kSameShare * size;
}

/// A factor that changes a setting by its own nature.
struct Nature {
    std::string_view factor;
    std::string_view setting;
};
constexpr Nature kNatures[] = {
    {factor::kChamberMode, factor::kChamberTemperature},
    {factor::kMaterial, had::kSpool},
    {factor::kLot, had::kSpool},
    {factor::kColour, had::kSpool},
    {factor::kMaterial, factor::kDrying},
    {factor::kSpeed, factor::kLayerTime},
};

/// The values of one setting on one rail, each with its share of the pieces.
struct SettingOnRail {
    std::vector<const HadSetting *> values;
    [[nodiscard]] bool isNumeric() const
    {
        return std::all_of(values.begin(), values.end(), [](const HadSetting *had) { return had->number; });
    }
};

bool isAlike(std::string_view name, const HadSetting &a, const HadSetting &b)
{
    if (a.number && b.number) {
        const double size = std::max(std::abs(*a.number), std::abs(*b.number));
        return std::abs(*a.number - *b.number) <= alikeWithin(name, size);
    }
    return smallLetters(a.text) == smallLetters(b.text);
}

/// What share of one rail's pieces had something that none of the other's had.
double shareApart(std::string_view name, const SettingOnRail &of, const SettingOnRail &from)
{
    const auto apart = std::count_if(of.values.begin(), of.values.end(), [&](const HadSetting *value) {
        return std::none_of(from.values.begin(), from.values.end(),
                            [&](const HadSetting *other) { return isAlike(name, *value, *other); });
    });
    return static_cast<double>(apart) / static_cast<double>(of.values.size());
}

struct MeasuredSpread {
    double mean = 0.0;
    double halfRange = 0.0;
};

MeasuredSpread spreadOf(const SettingOnRail &values)
{
    double sum = 0.0;
    double least = *values.values.front()->number;
    double most = least;
    for (const HadSetting *value : values.values) {
        sum += *value->number;
        least = std::min(least, *value->number);
        most = std::max(most, *value->number);
    }
    return {sum / static_cast<double>(values.values.size()), 0.5 * (most - least)};
}

bool measuredApart(std::string_view name, const SettingOnRail &a, const SettingOnRail &b)
{
    const MeasuredSpread one = spreadOf(a);
    const MeasuredSpread other = spreadOf(b);
    const double size = std::max(std::abs(one.mean), std::abs(other.mean));
    return std::abs(one.mean - other.mean) >
           std::max(alikeWithin(name, size), kClearOverScatter * std::max(one.halfRange, other.halfRange));
}

std::string textOf(std::string_view name, const SettingOnRail &values)
{
    std::vector<const HadSetting *> different;
    for (const HadSetting *value : values.values) {
        if (std::none_of(different.begin(), different.end(),
                         [&](const HadSetting *known) { return isAlike(name, *known, *value); }))
            different.push_back(value);
    }
    std::sort(different.begin(), different.end(), [](const HadSetting *a, const HadSetting *b) {
        return a->number && b->number ? *a->number < *b->number : a->text < b->text;
    });
    std::string text;
    for (const HadSetting *value : different)
        text += (text.empty() ? "" : ", ") + value->text;
    return text;
}

/// The factor whose levels differ between two rails and that changes the setting by its nature.
std::string natureOf(const Study &study, std::string_view setting, const Condition &a, const Condition &b)
{
    for (std::size_t f = 0; f < study.factors.size(); ++f) {
        if (a.levels[f] == b.levels[f])
            continue;
        const std::string &name = study.factors[f].name;
        const auto found = std::find_if(std::begin(kNatures), std::end(kNatures), [&](const Nature &nature) {
            return nature.factor == name && nature.setting == setting;
        });
        if (found != std::end(kNatures))
            return name;
    }
    return {};
}

std::set<std::string> namesIn(const std::vector<PieceFacts> &facts)
{
    std::set<std::string> names;
    for (const PieceFacts &piece : facts) {
        for (const auto &[name, had] : piece.settings)
            names.insert(name);
    }
    return names;
}

SettingOnRail valuesOn(const std::vector<PieceFacts> &facts, std::optional<ConditionId> rail,
                       const std::string &name)
{
    SettingOnRail values;
    for (const PieceFacts &piece : facts) {
        const auto found = piece.settings.find(name);
        if (found != piece.settings.end() && (!rail || piece.rail == *rail))
            values.values.push_back(&found->second);
    }
    return values;
}

bool isNotLogged(const SettingOnRail &values)
{
    return std::any_of(values.values.begin(), values.values.end(),
                       [](const HadSetting *had) { return had->text == "not logged"; });
}

} // namespace

std::vector<SettingContrast> contrastsWithReference(const Study &study, const std::vector<PieceFacts> &facts)
{
    std::vector<SettingContrast> found;
    const Condition *reference = findCondition(study, study.reference);
    if (reference == nullptr)
        return found;
    for (const std::string &name : namesIn(facts)) {
        const SettingOnRail there = valuesOn(facts, reference->id, name);
        if (there.values.empty())
            continue;
        for (const Condition &condition : study.conditions) {
            const SettingOnRail here = valuesOn(facts, condition.id, name);
            if (condition.id == reference->id || here.values.empty())
                continue;
            double share = 0.0;
            if (isMeasured(name) && here.isNumeric() && there.isNumeric())
                share = measuredApart(name, here, there) ? 1.0 : 0.0;
            else
                share = std::max(shareApart(name, here, there), shareApart(name, there, here));
            if (share < kLeastShare)
                continue;
            const bool isWhole = share >= 1.0 && (isMeasured(name) || shareApart(name, there, here) >= 1.0);
            found.push_back({name, condition.id, textOf(name, here), textOf(name, there), isWhole,
                             natureOf(study, name, condition, *reference),
                             isNotLogged(here) || isNotLogged(there)});
        }
    }
    return found;
}

KnownSettings knownSettings(const std::vector<PieceFacts> &facts)
{
    KnownSettings known;
    for (const std::string &name : namesIn(facts)) {
        const bool isOfAll = valuesOn(facts, std::nullopt, name).values.size() == facts.size();
        (isOfAll ? known.ofAll : known.ofSome).push_back(name);
    }
    return known;
}

std::vector<VariedSetting> variedSettings(const std::vector<PieceFacts> &facts)
{
    std::vector<VariedSetting> varied;
    for (const std::string &name : namesIn(facts)) {
        const SettingOnRail values = valuesOn(facts, std::nullopt, name);
        const bool differ =
            std::any_of(values.values.begin(), values.values.end(),
                        [&](const HadSetting *one) { return !isAlike(name, *values.values.front(), *one); });
        if (differ)
            varied.push_back({name, textOf(name, values)});
    }
    return varied;
}

} // namespace inchpeg
