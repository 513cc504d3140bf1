// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/break_look.h"

#include <algorithm>
#include <array>

namespace inchpeg
{

namespace
{

constexpr BreakLook kOnePlane{"one-plane", "one plane", "flat, at a single layer: the weld let go"};
constexpr BreakLook kTwoLayers{"two-layers", "two layers", "flat, with a step from one layer to another"};
constexpr BreakLook kTorn{"torn", "torn through", "ragged, across many layers, material pulled out"};
constexpr BreakLook kNecked{"necked", "necked", "drawn out to a neck before it broke"};
constexpr BreakLook kWhitened{"whitened", "whitened", "white along a stretch: crazed before it broke"};
constexpr BreakLook kBent{"bent", "bent, whole", "bent and did not break"};
constexpr BreakLook kAtGrips{"at-grips", "at the grips",
                             "beside or inside the jaws: the clamp began the break", true};
constexpr BreakLook kSlipped{"slipped", "slipped", "pulled out of the jaws before it broke", true};
constexpr BreakLook kOffMiddle{"off-middle", "off the middle", "far from where it was pressed", true};
constexpr BreakLook kFlaw{"flaw", "inner flaw", "began at a hole, a gap or dirt inside", true};

constexpr BreakLook kInsertOut{"insert-out", "insert came out", "the insert came out clean, its bore stayed"};
constexpr BreakLook kInsertBoss{"insert-with-boss", "with its boss",
                                "the insert came out with the wall around it"};
constexpr BreakLook kPopped{"layers-popped", "layers popped off",
                            "the layers above the nut or insert lifted off as a lid"};
constexpr BreakLook kStripped{"stripped", "thread stripped", "the thread was pulled out of its flanks"};
constexpr BreakLook kSplit{"split", "split", "the piece split along its length"};
constexpr BreakLook kRounded{"rounded", "rounded out", "the socket or tool turned round in its seat"};
constexpr BreakLook kSheared{"sheared", "sheared off", "cut across, at a single layer or through many"};
constexpr BreakLook kScrewBroke{"screw-broke", "the screw gave way",
                                "the screw or fixture failed, not the piece", true};
constexpr BreakLook kPierced{"pierced", "pierced", "the probe went through, the rest stayed whole"};
constexpr BreakLook kCrushed{"crushed", "crushed", "gave way over a wide patch around the probe"};

constexpr std::array kTensionLooks = {kTorn, kNecked, kWhitened, kOnePlane, kAtGrips, kSlipped, kFlaw};
constexpr std::array kLayerLooks = {kOnePlane, kTwoLayers, kTorn, kAtGrips, kSlipped, kFlaw};
constexpr std::array kBendingLooks = {kTorn, kOnePlane, kWhitened, kBent, kOffMiddle, kFlaw};
constexpr std::array kPullOutLooks = {kInsertOut, kInsertBoss, kPopped, kStripped, kSplit, kScrewBroke};
constexpr std::array kSteppedLooks = {kRounded, kSplit, kStripped, kSheared, kScrewBroke};
constexpr std::array kShearLooks = {kSheared, kTorn, kSplit, kFlaw};
constexpr std::array kTwistLooks = {kOnePlane, kTorn, kSplit, kSlipped, kFlaw};
constexpr std::array kPunctureLooks = {kPierced, kCrushed, kSplit, kPopped};
constexpr std::array kAll = {kOnePlane, kTwoLayers, kTorn,    kNecked,     kWhitened,   kBent,   kAtGrips,
                             kSlipped,  kOffMiddle, kFlaw,    kInsertOut,  kInsertBoss, kPopped, kStripped,
                             kSplit,    kRounded,   kSheared, kScrewBroke, kPierced,    kCrushed};

} // namespace

std::span<const BreakLook> breakLooksOf(Method method)
{
    switch (method) {
    case Method::Tension:
        return kTensionLooks;
    case Method::LayerAdhesion:
        return kLayerLooks;
    case Method::Bending:
        return kBendingLooks;
    case Method::PullOut:
        return kPullOutLooks;
    case Method::SteppedTorque:
        return kSteppedLooks;
    case Method::DoubleShear:
        return kShearLooks;
    case Method::Torsion:
        return kTwistLooks;
    case Method::Puncture:
        return kPunctureLooks;
    default:
        return {};
    }
}

const BreakLook *findBreakLook(std::string_view name)
{
    const auto found =
        std::find_if(kAll.begin(), kAll.end(), [&](const BreakLook &look) { return look.name == name; });
    return found == kAll.end() ? nullptr : &*found;
}

void countBreakLook(BreakLookCounts &counts, const BreakLook &look)
{
    const auto known = std::find_if(counts.begin(), counts.end(),
                                    [&](const auto &count) { return count.first->name == look.name; });
    if (known == counts.end())
        counts.emplace_back(&look, 1);
    else
        ++known->second;
}

} // namespace inchpeg
