// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"
#include "core/model/workshop.h"
#include "store/project_file.h"

namespace inchpeg
{

/// What was written down about the demo's study of layers, whose pieces are all broken: plates with a reprint
/// and a setting that was not as planned, drying and conditioning, masses that move with the factor, a rig
/// whose calibration had expired, photos.
Status logTheLayers(ProjectFile &project, Study &study, const Workshop &workshop);

/// Saves a slip of the decimal mark in a mass and its mending, for the history. study: as it is saved.
Status mendADecimalMark(ProjectFile &project, const Study &study);

} // namespace inchpeg
