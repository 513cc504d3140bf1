// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/ids.h"

#include <QString>

#include <vector>

namespace inchpeg::app
{

/// Records of the bench live in files beside the project until they are in it. What is still there at the
/// next start was cut off: a crash, a power cut.
struct CutOffRecord {
    QString file;
    PieceId piece;
    QString words; ///< "about 1203 readings, cut off on 28 Nov, 10:15"
};

/// Where the files of a project are.
QString benchFolder(const QString &projectPath);
/// A name that no record has yet.
QString benchFileName(PieceId piece);
/// Those in a folder, by piece. Files that nothing came into are removed.
std::vector<CutOffRecord> cutOffRecords(const QString &folder);
/// It stays where it is, and is offered no more.
void leaveAside(const CutOffRecord &record);

} // namespace inchpeg::app
