// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/workshop.h"
#include "store/project_file.h"

namespace inchpeg
{

/// The workshop of a project: what is kept, else the usual one. A prefix for piece codes is drawn from the
/// project's own moment of creation where none is kept, so that it is the same until it is.
/// Errors: Storage; BadInput where what is kept is no workshop.
Result<Workshop> workshopOf(ProjectFile &project);

/// Errors: those of checkWorkshop(); Storage.
Status keepWorkshop(ProjectFile &project, const Workshop &workshop);

/// The usual workshop under the project's own label prefix: what stands in where the kept one is damaged.
Workshop standInWorkshop(ProjectFile &project);

/// workshopOf(), else standInWorkshop(): for what only looks up how something was measured.
Workshop workshopOrStandIn(ProjectFile &project);

} // namespace inchpeg
