// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/cautions.h"

#include "core/planning/planned_test.h"

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr Caution kFragments{"fragments",
                             "Breaking pieces throw splinters and let stored energy go: wear eye "
                             "protection, put a shield or tape around brittle pieces, hold no "
                             "piece by hand."};
constexpr Caution kPendulum{"pendulum", "The pendulum strikes whatever is in its path: stand clear, lock it "
                                        "before you reach in, keep others away."};
constexpr Caution kWeights{"weights",
                           "Weights fall when a piece breaks or creeps: a catch box under them, foot "
                           "protection, no hand under the load."};
constexpr Caution kHot{"hot", "Hot tools, nozzles, beds and ovens burn: gloves; never an oven used for food; "
                              "never unattended."};
constexpr Caution kFumes{"fumes",
                         "Styrenics, polyamides, high-temperature polymers and resins give off fumes: "
                         "extraction or outdoor exhaust, and wait before you open the chamber."};
constexpr Caution kDust{"dust", "Fibre-filled polymers make dust and splinters: gloves, and a mask when you "
                                "grind or break them."};
constexpr Caution kResin{"resin", "Uncured resin harms the skin: gloves, and cure the pieces before they are "
                                  "handled."};
constexpr Caution kTorque{"torque",
                          "Twisted pieces let go suddenly: keep hands and face out of the line of the "
                          "bar, and a shield around the piece."};
constexpr Caution kFlame{
    "flame", "Flame and hot contact: outdoors or under extraction, a tray of sand under the piece, an "
             "extinguisher at hand, nothing else that burns nearby, never alone. What is seen is no "
             "rating: how a material burns is for an accredited laboratory to say."};
constexpr Caution kService{"service", "Never release a printed part that people depend on from these results "
                                      "alone: licensed practice and local codes decide."};

void add(std::vector<Caution> &cautions, const Caution &caution)
{
    if (std::none_of(cautions.begin(), cautions.end(),
                     [&](const Caution &known) { return known.key == caution.key; }))
        cautions.push_back(caution);
}

void addNeeded(std::vector<std::string_view> &needed, std::initializer_list<std::string_view> things)
{
    for (const std::string_view thing : things) {
        if (std::find(needed.begin(), needed.end(), thing) == needed.end())
            needed.push_back(thing);
    }
}

} // namespace

std::vector<Caution> cautionsOf(const Study &study)
{
    std::vector<Caution> cautions;
    for (const PlannedTest &test : plannedTests(study)) {
        switch (test.method) {
        case Method::Impact:
            add(cautions, kPendulum);
            add(cautions, kFragments);
            break;
        case Method::FallingWeight:
        case Method::Creep:
        case Method::BendSteps:
            add(cautions, kWeights);
            add(cautions, kFragments);
            break;
        case Method::HeatDeflection:
        case Method::Softening:
            add(cautions, kHot);
            add(cautions, kWeights);
            break;
        case Method::Torsion:
            add(cautions, kTorque);
            add(cautions, kFragments);
            break;
        case Method::SteppedTorque:
            add(cautions, kTorque);
            add(cautions, kFragments);
            break;
        case Method::Flame:
            add(cautions, kFlame);
            add(cautions, kHot);
            add(cautions, kFumes);
            break;
        case Method::Friction:
        case Method::Shrinkage:
        case Method::Hardness:
        case Method::Warp:
        case Method::VoidShare:
        case Method::PrintOutcome:
        case Method::ServiceTrial:
            break;
        default:
            add(cautions, kFragments);
        }
        if (test.method == Method::PullOut)
            add(cautions, kHot); // inserts are set with a hot tool
    }
    for (const Condition &condition : study.conditions) {
        const PolymerFacts &polymer = *polymerOf(study, condition).facts;
        if (polymer.fumes)
            add(cautions, kFumes);
        if (polymer.dust)
            add(cautions, kDust);
        if (polymer.name == "resin")
            add(cautions, kResin);
        if (settingOf(study, condition, factor::kAnnealing))
            add(cautions, kHot);
    }
    add(cautions, kService);
    return cautions;
}

std::vector<std::string_view> neededFor(const Study &study)
{
    std::vector<std::string_view> needed{"callipers to 0.01 mm", "a scale to 0.01 g", "labels or a marker"};
    for (const PlannedTest &test : plannedTests(study)) {
        switch (test.method) {
        case Method::Impact:
            addNeeded(needed, {"the pendulum, and a free swing before the first piece", "eye protection"});
            break;
        case Method::FallingWeight:
            addNeeded(needed, {"the falling weight in its guide", "a catch box", "eye protection"});
            break;
        case Method::Creep:
        case Method::BendSteps:
            addNeeded(needed, {"the dead weights", "a displacement gauge", "a catch box", "a clock"});
            break;
        case Method::HeatDeflection:
        case Method::Softening:
            addNeeded(needed, {"the oven with a thermometer at the piece", "heat-proof gloves"});
            break;
        case Method::Friction:
            addNeeded(needed, {"a known mass", "a clean glass plate", "the gauge"});
            break;
        case Method::Shrinkage:
        case Method::VoidShare:
            break;
        case Method::Hardness:
            addNeeded(needed, {"the durometer on its stand", "a clock"});
            break;
        case Method::Warp:
            addNeeded(needed, {"a surface plate or a piece of glass", "a feeler gauge"});
            break;
        case Method::PrintOutcome:
        case Method::ServiceTrial:
            addNeeded(needed, {"good light, and a camera"});
            break;
        case Method::ByFeel:
        case Method::FeltPairs:
            addNeeded(needed, {"pliers or a vice", "eye protection", "somebody to mix the pieces"});
            break;
        case Method::Flame:
            addNeeded(needed, {"a tray of sand", "an extinguisher", "extraction, or the open air", "a clock",
                               "eye protection", "heat-proof gloves"});
            break;
        case Method::SteppedTorque:
            addNeeded(needed, {"the torque wrench or gauge", "eye protection", "a vice"});
            break;
        case Method::PullOut:
            addNeeded(needed,
                      {"inserts and the setting tool", "the rig with its gauge zeroed", "eye protection"});
            break;
        default:
            addNeeded(needed, {"the rig with its gauge zeroed", "eye protection", "a shield"});
        }
    }
    return needed;
}

bool isConfirmed(const Plan &plan, std::string_view caution)
{
    return std::any_of(plan.confirmed.begin(), plan.confirmed.end(),
                       [caution](const Confirmation &one) { return one.caution == caution; });
}

bool allConfirmed(const Study &study)
{
    const std::vector<Caution> cautions = cautionsOf(study);
    return std::all_of(cautions.begin(), cautions.end(),
                       [&](const Caution &caution) { return isConfirmed(study.plan, caution.key); });
}

} // namespace inchpeg
