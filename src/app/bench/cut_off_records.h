// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/ids.h"
#include "core/base/result.h"

#include <QString>

#include <vector>

namespace inchpeg::app
{

/// Records of the bench live in files beside the project until they are in it. What is still there at the
/// next start was cut off: a crash, a power cut.
struct CutOffRecord {
    QString file;
    QString rest; ///< that went to the spare folder when the disk refused; empty: there is none
    PieceId piece;
    QString words;         ///< "about 1203 readings, cut off on 28 Nov, 10:15"
    bool isWhole = false;  ///< it ended, and could not be kept in the project
    std::string unsaved{}; ///< its end, which no disk took: while the program runs
};

/// Where the files of a project are.
QString benchFolder(const QString &projectPath);
/// A name that no record has yet.
QString benchFileName(PieceId piece);
/// Where the rest of a record goes when the disk of its project refuses: in the person's own cache.
QString benchSpareFolder();
/// Those in a folder, by piece. Files that nothing came into are removed.
std::vector<CutOffRecord> cutOffRecords(const QString &folder);
/// All of it. Errors: NotFound, Storage.
Result<std::string> bytesOf(const CutOffRecord &record);
/// It is in the project: its files go.
void forget(const CutOffRecord &record);
/// It stays where it is, and is offered no more.
void leaveAside(const CutOffRecord &record);

} // namespace inchpeg::app
