// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/logbook/file_matching.h"
#include "core/model/workshop.h"
#include "service/beside/task.h"
#include "service/import_file.h"
#include "store/project_file.h"

#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

namespace inchpeg
{

/// Files as records of a test, several at once on all cores; one that holds several specimens is as many.
/// Never fails: what is wrong with a file stands in its problem.
std::vector<ImportFile> loadRecords(const std::vector<std::string> &paths, const Reduction &wanted,
                                    const TaskControl &control);

/// Files on their way into a study: how each is understood, and which piece it is for. The page of the window
/// and the command line fill the same list.
class IntakeList
{
public:
    enum class How { Nobody, Name, Order, Hand };
    /// Where the same bytes are already.
    struct Known {
        std::string name;
        std::string addedAt; ///< UTC; empty: in this list
    };
    struct Entry {
        ImportFile file;
        std::optional<PieceId> piece;
        std::vector<PieceId> dealt; ///< of a table with a row a specimen: the pieces that its codes name
        How how = How::Nobody;
        std::optional<Known> known;
        bool isMended = false; ///< could not be read until it was said how; its peg is still to be found
    };
    /// A file that is ready, as it was when it was sent on its way.
    struct Ready {
        std::string path; ///< of the entry
        std::optional<std::size_t> specimen;
        std::vector<PieceId> pieces;
        ColumnMapping mapping;
        std::string layout; ///< signature, where the mapping is to be remembered
    };

    [[nodiscard]] const std::vector<Entry> &entries() const { return m_entries; }
    [[nodiscard]] bool holds(const std::string &path) const;
    void clear();

    /// Puts files into the list, in their natural order: columns as they were once corrected for their shape,
    /// files that are known already noticed.
    void add(std::vector<ImportFile> files, ProjectFile &project);

    /// The usual pattern that places most of them; none where none does.
    void matchByUsualPatterns(const Study &study, Method test);
    /// Errors: those of matchByName().
    Status matchByPattern(const Study &study, Method test, const std::string &pattern);
    void matchInOrder(const Study &study, Method test);
    void unmatchAll(const Study &study, Method test);
    [[nodiscard]] const std::string &pattern() const { return m_pattern; }
    /// Gives a file to a piece by hand; a file that had the piece loses it. Nothing takes it away.
    /// Errors: InvalidArgument for a piece that has a record already.
    Status assign(const Study &study, std::size_t index, std::optional<PieceId> piece);

    /// Understands a file as the person says, and every other file of the same shape with it.
    void setMapping(std::size_t index, const ColumnMapping &mapping);
    /// Files that could not be read before setMapping() get the pegs that they would have had by their names;
    /// pegs that others have stay with these.
    void matchMended(const Study &study, Method test);

    [[nodiscard]] static bool canBringIn(const Entry &entry);
    [[nodiscard]] std::vector<Ready> ready() const;
    /// Takes what came in off the list.
    void take(const std::vector<Ready> &done);

private:
    void noticeKnown(ProjectFile &project);
    void dealRows(Entry &entry, const Study &study, Method test) const;
    [[nodiscard]] std::vector<std::string> matchableNames(std::vector<std::size_t> &indices) const;
    void applyMatches(const Study &study, Method test, const std::vector<std::size_t> &indices,
                      const FileMatches &matches, How how);

    std::vector<Entry> m_entries;
    std::string m_pattern;
};

/// How the columns of each shape of file were corrected: kept for the next file of it. The first count files
/// came in.
Status rememberMappings(ProjectFile &project, const std::vector<IntakeList::Ready> &ready, std::size_t count);

/// The rig of a test as it is on a day, to be kept with its records; nothing where none is chosen.
std::optional<UsedGauge> rigOnDay(const Study &study, Method test, const Workshop &workshop,
                                  const std::string &day);

/// Links records to their pieces, with the rig of that day.
/// Errors: InvalidArgument for a piece that is no longer there.
Status linkRecords(Study &study, const std::map<PieceId, Recording> &recordings, const Workshop &workshop,
                   const std::string &day);

} // namespace inchpeg
