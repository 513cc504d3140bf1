// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/logged_confounds.h"

#include "core/logbook/mass_check.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace inchpeg
{

namespace
{

std::string begun(std::string name)
{
    if (!name.empty() && name[0] >= 'a' && name[0] <= 'z')
        name[0] = static_cast<char>(name[0] - 'a' + 'A');
    return name;
}

/// "walls" are several.
std::string_view wasOrWere(std::string_view setting)
{
    return setting.ends_with('s') ? "were" : "was";
}

/// The contrasts of one setting that say the same: rails with the same values, beside the same.
struct Alike {
    SettingContrast contrast;
    std::vector<std::string> rails;
};

std::vector<Alike> grouped(const Study &study, const std::vector<SettingContrast> &contrasts)
{
    std::vector<Alike> groups;
    for (const SettingContrast &one : contrasts) {
        const std::string title = distinctTitle(study, *findCondition(study, one.rail));
        const auto known = std::find_if(groups.begin(), groups.end(), [&](const Alike &group) {
            const SettingContrast &other = group.contrast;
            return other.setting == one.setting && other.here == one.here && other.there == one.there &&
                   other.isWhole == one.isWhole && other.follows == one.follows;
        });
        if (known != groups.end())
            known->rails.push_back(title);
        else
            groups.push_back({one, {title}});
    }
    return groups;
}

std::string whatWas(const SettingContrast &one, const std::string &rails, const std::string &reference)
{
    if (one.setting == had::kReadTo)
        return fmt::format("The records of {} end after {}, those of {} after {}", rails, one.here, reference,
                           one.there);
    if (one.setting == had::kDay)
        return fmt::format("{} was printed on {}, {} on {}", rails, one.here, reference, one.there);
    return fmt::format("{} {} {} on {} and {} on {}", begun(one.setting), wasOrWere(one.setting), one.here,
                       rails, one.there, reference);
}

/// How the two could be told apart.
std::string control(const SettingContrast &one, const std::string &rails, const std::string &reference)
{
    if (one.setting == had::kReadTo)
        return "Compare them at a time that both have.";
    if (one.setting == had::kDay)
        return fmt::format("A piece or two of {}, printed again with the other rail, would show whether the "
                           "day matters.",
                           reference);
    if (one.setting == had::kGauge || one.setting == had::kHeatingRate || one.setting == had::kStrainRate)
        return fmt::format("Test some pieces of {} as those of {} were.", rails, reference);
    if (one.isNotLogged)
        return "Log it for the others, or treat all alike.";
    return fmt::format("Print {} once more with {} as on {}, or {} as on {}, to tell the two apart.", rails,
                       one.setting, reference, reference, rails);
}

Confound confoundOf(const Study &study, const Alike &group)
{
    const SettingContrast &one = group.contrast;
    const std::string rails = listText(group.rails);
    const std::string reference = distinctTitle(study, *findCondition(study, study.reference));
    const std::string was = whatWas(one, rails, reference);
    if (!one.follows.empty())
        return {Confound::Weight::Mind,
                fmt::format("{}. That follows from {}, and is part of what is compared.", was, one.follows),
                {}};
    if (!one.isWhole)
        return {Confound::Weight::Aliased,
                fmt::format("{}: part of what sets {} apart may come from it. {}", was,
                            group.rails.size() == 1 ? "them" : "these", control(one, rails, reference)),
                {}};
    return {Confound::Weight::Aliased,
            fmt::format("{}: a difference between them may come from either. {}", was,
                        control(one, rails, reference)),
            {}};
}

std::vector<PieceFacts> factsOfFirstTest(const Study &study, const PieceReadings *readings)
{
    return pieceFacts(study, methodOf(study), readings);
}

} // namespace

std::vector<Confound> settingConfounds(const Study &study, const PieceReadings *readings)
{
    const std::vector<PieceFacts> facts = factsOfFirstTest(study, readings);
    const std::vector<SettingContrast> contrasts = contrastsWithReference(study, facts);
    std::vector<Confound> found;
    for (const Alike &group : grouped(study, contrasts))
        found.push_back(confoundOf(study, group));
    for (const VariedSetting &varied : variedSettings(facts)) {
        const bool isTold = varied.setting == had::kDay || // each plate has a moment of its own
                            std::any_of(contrasts.begin(), contrasts.end(), [&](const SettingContrast &one) {
                                return one.setting == varied.setting;
                            });
        if (!isTold && study.conditions.size() > 1)
            found.push_back({Confound::Weight::Mind,
                             fmt::format("{} {} not the same throughout ({}), on the rails alike: it adds to "
                                         "the scatter.",
                                         begun(varied.setting), wasOrWere(varied.setting), varied.values),
                             {}});
    }
    std::stable_sort(found.begin(), found.end(),
                     [](const Confound &a, const Confound &b) { return a.weight < b.weight; });
    return found;
}

std::vector<Confound> loggedConfounds(const Study &study, const Workshop &workshop,
                                      const PieceReadings *readings)
{
    std::vector<Confound> found = settingConfounds(study, readings);
    if (const MassCheck mass = checkMass(study, workshop); mass.isConfound)
        found.insert(found.begin(), {Confound::Weight::Aliased, mass.headline, {}});
    return found;
}

std::string lookedAtSentence(const Study &study, const PieceReadings *readings)
{
    const KnownSettings known = knownSettings(factsOfFirstTest(study, readings));
    std::string text;
    if (!known.ofAll.empty())
        text = fmt::format("Looked at: {}.", listText(known.ofAll));
    if (!known.ofSome.empty())
        text +=
            fmt::format("{}Known of some pieces alone: {}.", text.empty() ? "" : " ", listText(known.ofSome));
    return text.empty() ? "Nothing is known of how the pieces were printed, so other causes could not be "
                          "looked for."
                        : text + " What is not listed could not be looked at.";
}

std::vector<std::string> heldSentences(const Study &study)
{
    const std::vector<PieceFacts> facts = pieceFacts(study);
    const std::vector<VariedSetting> varied = variedSettings(facts);
    std::vector<std::string> held;
    std::vector<std::string> sentences;
    for (const LockedSetting &setting : study.plan.locked) {
        const auto found = std::find_if(varied.begin(), varied.end(), [&](const VariedSetting &one) {
            return one.setting == setting.name;
        });
        if (found != varied.end()) {
            sentences.push_back(fmt::format("{} was meant to be held at {} and was not: {}.",
                                            begun(setting.name), setting.value, found->values));
            continue;
        }
        // All alike, and otherwise than planned: what was is what was held.
        std::string value = setting.value;
        for (const PieceFacts &piece : facts) {
            if (const auto had = piece.settings.find(setting.name); had != piece.settings.end())
                value = had->second.text;
        }
        held.push_back(setting.name + ' ' + value);
    }
    sentences.insert(sentences.begin(), held.empty()
                                            ? "Which settings were held on all rails is not written down."
                                            : "Held on all rails: " + listText(held) + '.');
    return sentences;
}

} // namespace inchpeg
