// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "sim/virtual_rig.h"

namespace inchpeg
{

struct PlayOptions {
    std::string link;       ///< a symbolic link to the terminal; empty: none
    double speedup = 1.0;   ///< the rig's time runs so much faster
    bool isRealTime = true; ///< else everything is sent as fast as it is taken, once a piece is started
};

/// Plays a rig on a pseudo-terminal until "quit" or a signal. Its path is the first line on standard output;
/// each line on standard input is a command: docs/rig_protocol.md. Errors: those of PseudoTerminal::open().
Status playRig(sim::VirtualRig rig, const PlayOptions &options);

} // namespace inchpeg
