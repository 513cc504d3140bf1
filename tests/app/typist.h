// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace inchpeg::app
{

/// Opens the window on a project and types one mass after the other into the log's grid, without pause and
/// without end. Each number, once its cell has taken it, is written to standard output. For the test that
/// kills it at random moments.
int typeUntilKilled(const char *path);

/// Opens the window on a project, takes the record that was cut off, if there is one, and records from the
/// rig at this port until it is killed. "recording" is written to standard output once it does.
int recordUntilKilled(const char *path, const char *port);

} // namespace inchpeg::app
