// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/confounds.h"

#include "core/planning/planned_test.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

namespace inchpeg
{

namespace
{

constexpr double kHeatedFrom_C =
    40.0; ///< a chamber at this temperature is heated, not only warm from the bed

bool meansOff(const std::string &level)
{
    const std::optional<double> number =
        parseTypedNumber(std::string_view(level).substr(0, numberPrefixLength(level)));
    return (number && *number == 0.0) || level == "off" || level == "none" || level == "no";
}

bool isHeated(const Study &study, const Condition &condition)
{
    const std::optional<std::string> mode = settingOf(study, condition, factor::kChamberMode);
    if (mode && (*mode == "heated" || *mode == "hot" || *mode == "active"))
        return true;
    const std::optional<double> chamber_C = numberSetting(study, condition, factor::kChamberTemperature);
    return chamber_C && *chamber_C >= kHeatedFrom_C;
}

class ConfoundFinder
{
public:
    ConfoundFinder(const Study &study, const PlateLayout &layout) : m_study(study), m_layout(layout) {}

    std::vector<Confound> find()
    {
        if (m_study.conditions.size() > 1) {
            factorsTogether();
            materialTogether();
            orientationTogether();
            forcedFan();
            leftUnsaid();
            flatLayers();
            plates();
            rounds();
        }
        carriedAlong();
        std::stable_sort(m_found.begin(), m_found.end(),
                         [](const Confound &a, const Confound &b) { return a.weight < b.weight; });
        return std::move(m_found);
    }

private:
    using Weight = Confound::Weight;

    void tell(Weight weight, std::string sentence, std::optional<Control> control = std::nullopt)
    {
        if (!sentence.empty() && sentence[0] >= 'a' && sentence[0] <= 'z')
            sentence[0] =
                static_cast<char>(sentence[0] - 'a' + 'A'); // it may begin with the name of a factor
        m_found.push_back({weight, std::move(sentence), std::move(control)});
    }

    [[nodiscard]] const std::string &nameOf(std::size_t factor) const { return m_study.factors[factor].name; }

    /// True where each value of a belongs to one value of b and the other way round.
    template <typename A, typename B>
    [[nodiscard]] bool moveTogether(A a, B b) const
    {
        std::map<std::string, std::string> forward;
        std::map<std::string, std::string> back;
        for (const Condition &condition : m_study.conditions) {
            const std::string x = a(condition);
            const std::string y = b(condition);
            if (forward.try_emplace(x, y).first->second != y || back.try_emplace(y, x).first->second != x)
                return false;
        }
        return forward.size() > 1;
    }

    [[nodiscard]] auto levelGetter(std::size_t factor) const
    {
        return [factor](const Condition &condition) { return condition.levels[factor]; };
    }

    [[nodiscard]] const Condition &reference() const
    {
        const Condition *found = findCondition(m_study, m_study.reference);
        return found != nullptr ? *found : m_study.conditions.front();
    }

    /// A rail between the reference and the first rail that differs from it: the first factor as there, the
    /// second as in the reference.
    void factorsTogether()
    {
        for (std::size_t a = 0; a < m_study.factors.size(); ++a) {
            for (std::size_t b = a + 1; b < m_study.factors.size(); ++b) {
                if (!moveTogether(levelGetter(a), levelGetter(b)))
                    continue;
                const auto other = std::find_if(
                    m_study.conditions.begin(), m_study.conditions.end(),
                    [&](const Condition &one) { return one.levels[a] != reference().levels[a]; });
                Control control;
                control.condition = *other;
                control.condition.id = {};
                control.condition.levels[b] = reference().levels[b];
                control.label = "Add a rail: " + levelText(m_study, control.condition);
                tell(
                    Weight::Aliased,
                    fmt::format("{} and {} change together in every rail: no result can say which of the two "
                                "made a difference. A rail with {} and {} would separate them.",
                                nameOf(a), nameOf(b), levelText(m_study.factors[a], other->levels[a]),
                                levelText(m_study.factors[b], reference().levels[b])),
                    control);
            }
        }
    }

    [[nodiscard]] bool varies(std::string_view name) const
    {
        return std::any_of(m_study.factors.begin(), m_study.factors.end(),
                           [name](const Factor &factor) { return factor.name == name; });
    }

    void materialTogether()
    {
        if (varies(factor::kMaterial) || varies(factor::kLot) || varies(factor::kColour))
            return;
        std::set<std::string> materials;
        for (const Condition &condition : m_study.conditions)
            materials.insert(condition.material);
        if (materials.size() < 2)
            return;
        for (std::size_t f = 0; f < m_study.factors.size(); ++f) {
            if (moveTogether(levelGetter(f), [](const Condition &one) { return one.material; })) {
                // A factor that names polymers in its own words is the material.
                const bool isMaterial = std::all_of(
                    m_study.conditions.begin(), m_study.conditions.end(), [f](const Condition &one) {
                        return polymerIn(one.levels[f]).isKnown &&
                               polymerIn(one.levels[f]).facts == polymerIn(one.material).facts;
                    });
                if (!isMaterial)
                    tell(Weight::Aliased,
                         fmt::format(
                             "Every level of {} has a material or lot of its own: a difference may come "
                             "from the spool. Print all rails from one spool.",
                             nameOf(f)));
                return;
            }
        }
        tell(Weight::Mind,
             "The rails do not all come from one material and lot, although that is not a factor: "
             "compare only rails of the same spool.");
    }

    void orientationTogether()
    {
        if (varies(factor::kOrientation) || !mixesOrientations(m_study))
            return;
        for (std::size_t f = 0; f < m_study.factors.size(); ++f) {
            if (moveTogether(levelGetter(f), [](const Condition &one) {
                    return std::string(orientationName(one.orientation));
                }))
                tell(
                    Weight::Aliased,
                    fmt::format("{} changes together with how the pieces lie on the plate: flat and standing "
                                "pieces answer different questions.",
                                nameOf(f)));
        }
    }

    /// A heated chamber that switches the auxiliary fan off, which is locked or planned to run.
    void forcedFan()
    {
        std::vector<ConditionId> forced;
        std::optional<Condition> open;
        for (const Condition &condition : m_study.conditions) {
            const std::optional<std::string> fan = settingOf(m_study, condition, factor::kAuxiliaryFan);
            if (!fan || meansOff(*fan))
                continue;
            if (isHeated(m_study, condition))
                forced.push_back(condition.id);
            else if (!open)
                open = condition;
        }
        const bool fanVaries = varies(factor::kAuxiliaryFan);
        if (forced.empty())
            return;
        const bool allHeated = forced.size() == m_study.conditions.size();
        std::string sentence = fmt::format(
            "A heated chamber switches the auxiliary fan off on many machines: on {} it will not "
            "run as planned",
            forced.size() == 1
                ? "the rail \"" + railTitle(m_study, *findCondition(m_study, forced.front())) + "\""
                : fmt::format("{} rails", forced.size()));
        if (allHeated || !open) {
            tell(Weight::Mind, sentence + ". Lock the fan as off, or check that yours keeps it on.");
            return;
        }
        sentence +=
            ". Chamber and fan would change together; one rail with the fan off and the chamber as on "
            "the cooler rails separates them.";
        Control control;
        control.condition = *open;
        control.condition.id = {};
        control.forcedIn = forced;
        control.forcedLevel = fanVaries ? forcedText() : "0";
        control.setting = factor::kAuxiliaryFan;
        if (fanVaries) {
            control.kind = Control::Kind::AddCondition;
            const auto at = static_cast<std::size_t>(
                std::find_if(m_study.factors.begin(), m_study.factors.end(),
                             [](const Factor &one) { return one.name == factor::kAuxiliaryFan; }) -
                m_study.factors.begin());
            control.condition.levels[at] = control.forcedLevel;
            const bool present =
                std::any_of(m_study.conditions.begin(), m_study.conditions.end(),
                            [&](const Condition &one) { return one.levels == control.condition.levels; });
            if (present) {
                tell(Weight::Mind, sentence.substr(0, sentence.find(". Chamber")) +
                                       ". The rail with the fan off is planned and will separate them.");
                return;
            }
        } else {
            control.kind = Control::Kind::AddFactor;
            if (m_study.factors.size() >= kMostFactors) {
                tell(Weight::Aliased, sentence + " There are four factors already: lock one of them first.");
                return;
            }
        }
        control.label = fmt::format("Add a rail: {}, fan off", levelText(m_study, *open));
        tell(Weight::Aliased, sentence, control);
    }

    [[nodiscard]] std::string forcedText() const
    {
        for (const Factor &factor : m_study.factors) {
            if (factor.name == factor::kAuxiliaryFan && factor.unit.empty())
                return "off";
        }
        return "0";
    }

    [[nodiscard]] bool isNamed(std::string_view name) const
    {
        const auto isIt = [name](const auto &one) { return one.name == name; };
        return std::any_of(m_study.factors.begin(), m_study.factors.end(), isIt) ||
               std::any_of(m_study.plan.locked.begin(), m_study.plan.locked.end(), isIt);
    }

    /// What nobody said, though it may change along: silence is no evidence that it stays.
    void leftUnsaid()
    {
        const bool chamberVaries = varies(factor::kChamberMode) || varies(factor::kChamberTemperature);
        if (chamberVaries && !isNamed(factor::kAuxiliaryFan))
            tell(Weight::Mind,
                 "The chamber varies and nobody says what the auxiliary fan does: many printers switch it "
                 "off in a heated chamber. Hold it at one setting, or make it a factor.");
        std::set<std::string> withoutMaterial;
        for (const Condition &condition : m_study.conditions) {
            if (condition.material.empty() && !isNamed(factor::kMaterial))
                withoutMaterial.insert(levelText(m_study, condition));
        }
        if (!withoutMaterial.empty())
            tell(Weight::Mind,
                 withoutMaterial.size() == m_study.conditions.size()
                     ? std::string("No rail says its material and lot: a change of spool between them "
                                   "would go unseen.")
                     : fmt::format("Rail {} does not say its material and lot.", *withoutMaterial.begin()));
    }

    /// Layers are pulled apart where a piece stands; one that lies is pulled along them.
    void flatLayers()
    {
        if (!factsOf(methodOf(m_study)).isAcrossLayers)
            return;
        std::size_t flat = 0;
        for (const Condition &condition : m_study.conditions)
            flat += condition.orientation == Orientation::Flat ? 1U : 0U;
        if (flat == m_study.conditions.size() && flat > 0)
            tell(
                Weight::Mind,
                "All rails are printed flat: their pieces are pulled along the layers, not across. For layer "
                "adhesion print them standing.");
    }

    /// Whether every level of a factor lies on plates of its own, and on how many.
    void plates()
    {
        std::map<PieceId, const Piece *> byId;
        for (const Piece &piece : m_study.pieces)
            byId[piece.id] = &piece;
        for (std::size_t f = 0; f < m_study.factors.size(); ++f) {
            std::map<int, std::set<std::string>> levelsOnPlate;
            std::map<std::string, std::set<int>> platesOfLevel;
            for (const Plate &plate : m_layout.plates) {
                for (const PlacedPiece &placed : plate.pieces) {
                    const auto found = byId.find(placed.piece);
                    if (found == byId.end())
                        continue; // a layout of the study as it was
                    const Piece *piece = found->second;
                    const std::string &level = findCondition(m_study, piece->condition)->levels[f];
                    levelsOnPlate[plate.number].insert(level);
                    platesOfLevel[level].insert(plate.number);
                }
            }
            if (platesOfLevel.size() < 2)
                continue;
            const bool ownPlates = std::all_of(levelsOnPlate.begin(), levelsOnPlate.end(),
                                               [](const auto &entry) { return entry.second.size() == 1; });
            if (!ownPlates)
                continue;
            const bool byNature = m_study.factors[f].changedPer == ChangedPer::Plate;
            const auto single = std::count_if(platesOfLevel.begin(), platesOfLevel.end(),
                                              [](const auto &entry) { return entry.second.size() == 1; });
            if (single > 0)
                onePlateEach(f, byNature);
            else
                tell(
                    Weight::Mind,
                    fmt::format("{} is set per plate, so plates differ as well as levels; each level has two "
                                "plates or more, which shows how much plates differ by themselves.",
                                nameOf(f)));
        }
    }

    void onePlateEach(std::size_t f, bool byNature)
    {
        const int wanted = std::max(2, m_study.plan.print.rounds + 1);
        std::optional<Control> control;
        if (wanted <= firstTest(m_study).piecesPerCondition) {
            control.emplace();
            control->kind = Control::Kind::MoreRounds;
            control->rounds = wanted;
            control->label = fmt::format("Print in {} rounds", wanted);
        }
        tell(Weight::Aliased,
             fmt::format("{}{} has only one plate a level: one bad plate would look like an effect of {}.{}",
                         nameOf(f), byNature ? " is set per plate, and" : "", nameOf(f),
                         control ? " Printed in rounds, each level gets more than one plate." : ""),
             control);
    }

    /// Rails that were added late are printed and tested on other days than the rest.
    void rounds()
    {
        std::map<ConditionId, std::set<bool>> printedFirst;
        for (const Plate &plate : m_layout.plates) {
            for (const PlacedPiece &placed : plate.pieces)
                printedFirst[findPiece(m_study, placed.piece)->condition].insert(!plate.printedAt.empty());
        }
        const bool begun = !m_study.plan.print.printed.empty();
        for (const Condition &condition : m_study.conditions) {
            const auto found = printedFirst.find(condition.id);
            if (begun && found != printedFirst.end() && !found->second.contains(true) &&
                std::find(m_study.plan.addedLater.begin(), m_study.plan.addedLater.end(),
                          piecesOf(m_study, condition.id).front()->id) != m_study.plan.addedLater.end())
                tell(Weight::Mind,
                     fmt::format(
                         "{} was added after printing had begun: it is of another day than the rest. "
                         "A piece or two more of the reference, printed with it, would show whether the "
                         "day matters.",
                         railTitle(m_study, condition)));
        }
    }

    void carriedAlong()
    {
        for (const Factor &factor : m_study.factors) {
            const FactorKind *kind = findFactorKind(factor.name);
            if (kind != nullptr && !kind->remark.empty() && m_study.conditions.size() > 1 &&
                factor.name != factor::kChamberTemperature && factor.name != factor::kChamberMode)
                tell(Weight::Mind, fmt::format("{}: {}.", factor.name, kind->remark));
        }
    }

    const Study &m_study;
    const PlateLayout &m_layout;
    std::vector<Confound> m_found;
};

} // namespace

std::vector<Confound> confoundsOf(const Study &study, const PlateLayout &layout)
{
    return ConfoundFinder(study, layout).find();
}

Status applyControl(Study &study, const Control &control, const IdSource &ids)
{
    switch (control.kind) {
    case Control::Kind::MoreRounds:
        study.plan.print.rounds = control.rounds;
        return ok();
    case Control::Kind::AddCondition:
        study.plan.design = DesignKind::Chosen;
        return addCondition(study, control.condition, ids);
    case Control::Kind::AddFactor:
        break;
    }
    const auto locked = std::find_if(study.plan.locked.begin(), study.plan.locked.end(),
                                     [&](const LockedSetting &one) { return one.name == control.setting; });
    require(locked != study.plan.locked.end(), "the setting is locked");
    const FactorKind *kind = findFactorKind(control.setting);
    const std::string level = locked->value;
    const bool isNumber =
        parseTypedNumber(std::string_view(level).substr(0, numberPrefixLength(level))).has_value();
    const Factor factor{control.setting,
                        kind != nullptr && isNumber ? std::string(kind->unit) : std::string(),
                        kind != nullptr ? kind->changedPer : ChangedPer::Plate};
    const std::string off = isNumber ? control.forcedLevel : "off";
    study.plan.locked.erase(locked);
    study.plan.design = DesignKind::Chosen;
    if (const Status added = addFactor(study, factor, level); !added)
        return added;
    for (Condition &condition : study.conditions) {
        if (std::find(control.forcedIn.begin(), control.forcedIn.end(), condition.id) !=
            control.forcedIn.end())
            condition.levels.back() = off;
    }
    Condition separating = control.condition;
    separating.levels.push_back(off);
    return addCondition(study, separating, ids);
}

} // namespace inchpeg
