// SPDX-License-Identifier: GPL-3.0-or-later
// A study that begins at its end: from records, or from a table of results, that are there already.
#pragma once

#include "core/intake/given_results.h"
#include "core/intake/study_from_names.h"
#include "service/import_file.h"
#include "service/project/open_project.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

struct StudyFromFiles {
    std::vector<std::string> paths; ///< files, and folders that are walked
    std::string pattern{};
    std::vector<NamedFactor> factors{};
    std::vector<SaidColumn> columns{}; ///< of a table of results
    std::optional<Method> test{};
    std::string codeColumn{};
};

/// What was found, before anything is written.
struct FoundStudy {
    StudyProposal proposal;
    Method test = Method::Tension;
    std::vector<std::string> assumed; ///< what nobody said and was taken for so, a sentence each
    std::vector<ImportFile> files;    ///< records; a file of several specimens is as many
    std::vector<std::string> names;   ///< of each, below the folder that was given
    struct Refused {
        std::string file;
        Error why;
    };
    std::vector<Refused> refused;
    std::optional<ResultsTable> results; ///< in place of records
    std::string resultsPath;
    std::shared_ptr<const std::string> resultsBytes;
};

/// Reads what is there and understands it. Errors: NotFound and Storage of the paths; InvalidArgument where
/// they hold no file; BadInput for a table of results that cannot be read.
Result<FoundStudy> findStudy(const StudyFromFiles &request);

/// What became of it.
struct MadeStudy {
    StudyId study;
    struct Placed {
        std::string file;
        std::string sha256;
        std::string piece;
    };
    std::vector<Placed> placed;
    GivenResults given; ///< of a table of results
};

/// Makes the study in one transaction: rails, pieces, records or given values, and the sizes that the heads
/// of the files tell. Errors: those of proposedStudy() and of the project; nothing is left then.
Result<MadeStudy> makeFoundStudy(OpenProject &project, const FoundStudy &found, const std::string &question);

/// The test that words of names and heads mean; nothing where they mean none, or two.
std::optional<Method> testInWords(const std::vector<std::string> &texts);

} // namespace inchpeg
