// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/ids.h"
#include "store/database.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// Something in a project that holds the wanted words.
struct FoundItem {
    enum class Kind { Study, Rail, Piece, Note, Plate };
    Kind kind = Kind::Study;
    StudyId study;
    PieceId piece;        ///< 0 for what is not about one piece; a rail has its first piece
    std::string title;    ///< "N-03", "What nozzle temperature …"
    std::string context;  ///< the line or value that holds the words
    std::string question; ///< of the study
};

/// Looks for a text in questions, factors, rails, materials, where summaries come from, piece codes, notes,
/// reasons for leaving out, and plates' records, without regard to case (of letters a to z). At most `most`
/// of each kind, studies first. Throws StorageFailure.
std::vector<FoundItem> search(Database &database, const std::string &text, std::size_t most);

/// The same over a connection of its own, for another thread. Errors: Storage.
Result<std::vector<FoundItem>> searchProject(const std::string &path, const std::string &text,
                                             std::size_t most);

/// The study that holds a piece; 0 where none does. Throws StorageFailure.
StudyId studyOfPiece(Database &database, PieceId piece);

} // namespace inchpeg
