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

const Caution &cautionOf(Hazard hazard)
{
    switch (hazard) {
    case Hazard::Fragments:
        return kFragments;
    case Hazard::Pendulum:
        return kPendulum;
    case Hazard::Weights:
        return kWeights;
    case Hazard::Hot:
        return kHot;
    case Hazard::Fumes:
        return kFumes;
    case Hazard::Torque:
        return kTorque;
    case Hazard::Flame:
        return kFlame;
    }
    throw ContractViolation("unknown hazard");
}

void add(std::vector<Caution> &cautions, const Caution &caution)
{
    if (std::none_of(cautions.begin(), cautions.end(),
                     [&](const Caution &known) { return known.key == caution.key; }))
        cautions.push_back(caution);
}

} // namespace

std::vector<Caution> cautionsOf(const Study &study)
{
    std::vector<Caution> cautions;
    for (const PlannedTest &test : plannedTests(study)) {
        for (const Hazard hazard : factsOf(test.method).hazards)
            add(cautions, cautionOf(hazard));
    }
    for (const Condition &condition : study.conditions) {
        const PolymerFacts &polymer = *polymerOf(study, condition).facts;
        if (polymer.fumes)
            add(cautions, kFumes);
        if (polymer.dust)
            add(cautions, kDust);
        if (polymer.name == "resin")
            add(cautions, kResin);
        if (isAnnealed(study, condition))
            add(cautions, kHot);
    }
    add(cautions, kService);
    return cautions;
}

std::vector<std::string_view> neededFor(const Study &study)
{
    std::vector<std::string_view> needed{"callipers to 0.01 mm", "a scale to 0.01 g", "labels or a marker"};
    for (const PlannedTest &test : plannedTests(study)) {
        for (const std::string_view thing : factsOf(test.method).layReady) {
            if (std::find(needed.begin(), needed.end(), thing) == needed.end())
                needed.push_back(thing);
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
