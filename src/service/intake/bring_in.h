// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "service/intake/intake_list.h"
#include "service/project/open_project.h"

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace inchpeg
{

/// A column of a file by its heading, as a person says what it is: "force", "-" for one that is not used.
struct SaidQuantity {
    std::string heading;
    std::string quantity;
    std::string unit; ///< empty: as found, else the usual one
};

/// Records that are to come into a study without a page to look at.
struct BringInRequest {
    std::vector<std::string> paths; ///< files, and folders that are walked
    StudyId study;
    std::optional<Method> test{}; ///< empty: each of the study's tests, in its order
    std::string pattern{};        ///< empty: the usual ones
    bool inOrder = false;         ///< onto the pegs without a record
    std::string piece{};          ///< its code: of one file
    std::optional<std::size_t> table{};
    std::vector<SaidQuantity> columns{};
    bool isDryRun = false;
    /// A file that no name places goes to the piece that is next at the bench.
    bool nextAtBench = false;
};

struct BroughtIn {
    struct Placed {
        std::string file;
        std::string sha256;
        std::string piece;
        std::string how;    ///< "by name", "by order", "by hand", "by code", "next at the bench"
        std::string beside; ///< how far a given value differs that the record takes the place of; else empty
    };
    struct Waiting {
        std::string file;
        std::string why;
    };
    struct Refused {
        std::string file;
        Error why;
    };
    std::vector<Placed> placed;
    std::vector<Waiting> waiting;
    std::vector<Refused> refused;
};

/// Files and links in one transaction: all that can be placed, or nothing.
/// Errors: NotFound and Storage of the paths; InvalidArgument for a pattern, piece, column or test that is
/// not; those of the project.
Result<BroughtIn> bringIn(OpenProject &project, const BringInRequest &request);

} // namespace inchpeg
