// SPDX-License-Identifier: GPL-3.0-or-later
// The facts of each test, defined in its folder, and what several of them share.
#pragma once

#include "core/method/method.h"

namespace inchpeg
{

#define INCHPEG_TEST(name) extern const MethodFacts k##name##Test;
#include "core/method/all_tests.def"
#undef INCHPEG_TEST

/// What is laid ready for a rig that reads a force.
inline constexpr std::string_view kRigLayReady[] = {"the rig with its gauge zeroed", "eye protection",
                                                    "a shield"};

/// The force of a strength that is a force over the section.
double forceOverArea(const HeldPiece &piece, double strength_MPa);

} // namespace inchpeg
