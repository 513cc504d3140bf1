// SPDX-License-Identifier: GPL-3.0-or-later
// Looks of breaks that several tests share; one that a single test has stands in its folder. Common practice.
#pragma once

#include "core/method/break_look.h"

namespace inchpeg
{

namespace sketch
{
void onePlane(BreakSketch &sketch);
void twoLayers(BreakSketch &sketch);
void torn(BreakSketch &sketch);
void necked(BreakSketch &sketch);
void whitened(BreakSketch &sketch);
void bentWhole(BreakSketch &sketch);
void atGrips(BreakSketch &sketch);
void slipped(BreakSketch &sketch);
void offMiddle(BreakSketch &sketch);
void flaw(BreakSketch &sketch);
void insertOut(BreakSketch &sketch);
void insertWithBoss(BreakSketch &sketch);
void popped(BreakSketch &sketch);
void stripped(BreakSketch &sketch);
void split(BreakSketch &sketch);
void rounded(BreakSketch &sketch);
void sheared(BreakSketch &sketch);
void screwBroke(BreakSketch &sketch);
void pierced(BreakSketch &sketch);
void crushed(BreakSketch &sketch);
} // namespace sketch

inline constexpr BreakLook kOnePlane{"one-plane", "one plane", "flat, at a single layer: the weld let go",
                                     sketch::onePlane};
inline constexpr BreakLook kTwoLayers{"two-layers", "two layers",
                                      "flat, with a step from one layer to another", sketch::twoLayers};
inline constexpr BreakLook kTorn{"torn", "torn through", "ragged, across many layers, material pulled out",
                                 sketch::torn};
inline constexpr BreakLook kNecked{"necked", "necked", "drawn out to a neck before it broke", sketch::necked};
inline constexpr BreakLook kWhitened{"whitened", "whitened", "white along a stretch: crazed before it broke",
                                     sketch::whitened};
inline constexpr BreakLook kBent{"bent", "bent, whole", "bent and did not break", sketch::bentWhole};
inline constexpr BreakLook kAtGrips{"at-grips", "at the grips",
                                    "beside or inside the jaws: the clamp began the break", sketch::atGrips,
                                    true};
inline constexpr BreakLook kSlipped{"slipped", "slipped", "pulled out of the jaws before it broke",
                                    sketch::slipped, true};
inline constexpr BreakLook kOffMiddle{"off-middle", "off the middle", "far from where it was pressed",
                                      sketch::offMiddle, true};
inline constexpr BreakLook kFlaw{"flaw", "inner flaw", "began at a hole, a gap or dirt inside", sketch::flaw,
                                 true};
inline constexpr BreakLook kInsertOut{"insert-out", "insert came out",
                                      "the insert came out clean, its bore stayed", sketch::insertOut};
inline constexpr BreakLook kInsertBoss{"insert-with-boss", "with its boss",
                                       "the insert came out with the wall around it", sketch::insertWithBoss};
inline constexpr BreakLook kPopped{"layers-popped", "layers popped off",
                                   "the layers above the nut or insert lifted off as a lid", sketch::popped};
inline constexpr BreakLook kStripped{"stripped", "thread stripped", "the thread was pulled out of its flanks",
                                     sketch::stripped};
inline constexpr BreakLook kSplit{"split", "split", "the piece split along its length", sketch::split};
inline constexpr BreakLook kRounded{"rounded", "rounded out", "the socket or tool turned round in its seat",
                                    sketch::rounded};
inline constexpr BreakLook kSheared{"sheared", "sheared off", "cut across, at a single layer or through many",
                                    sketch::sheared};
inline constexpr BreakLook kScrewBroke{"screw-broke",
                                       "the screw gave way",
                                       "the screw or fixture failed, not the piece",
                                       sketch::screwBroke,
                                       false,
                                       true};
inline constexpr BreakLook kPierced{"pierced", "pierced", "the probe went through, the rest stayed whole",
                                    sketch::pierced};
inline constexpr BreakLook kCrushed{"crushed", "crushed", "gave way over a wide patch around the probe",
                                    sketch::crushed};

} // namespace inchpeg
