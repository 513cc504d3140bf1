// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"

namespace inchpeg::app
{

/// For the window in which a photo is chosen.
QString photoFilter();

/// Keeps pictures as raw data and gives them to a piece of the study on the rack, wherever the person goes
/// meanwhile. Refusals are told by the session, which must outlive that.
void addPhotos(ProjectSession &session, PieceId piece, const QStringList &paths);

} // namespace inchpeg::app
