// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/intake/bring_in.h"

#include "core/import/heading_words.h"
#include "core/logbook/bench_plan.h"
#include "core/model/study_edit.h"
#include "core/reading/given_beside.h"
#include "core/text/notation.h"
#include "disk/file_bytes.h"
#include "service/intake/files_below.h"
#include "service/local_day.h"
#include "service/ordered_reading.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

/// The mapping of a file's columns with those that a person named understood otherwise.
Result<ColumnMapping> saidMapping(const ImportFile &file, const BringInRequest &request)
{
    ColumnMapping mapping{request.table, {}, {}};
    if (request.columns.empty())
        return mapping;
    const Layout &layout = *file.layout;
    mapping.columns = mappingOf(layout).columns;
    for (const SaidQuantity &said : request.columns) {
        const auto column =
            std::find_if(layout.columns.begin(), layout.columns.end(), [&](const Column &one) {
                return one.heading == said.heading || lowered(one.name) == lowered(said.heading);
            });
        if (column == layout.columns.end()) {
            std::string known;
            for (const Column &one : layout.columns)
                known += fmt::format("{}\"{}\"", known.empty() ? "" : ", ",
                                     one.heading.empty() ? one.name : one.heading);
            return invalidArgument(
                fmt::format("--map: {} has no column \"{}\"; it has {}", file.name, said.heading, known));
        }
        ColumnAssignment &assigned =
            mapping.columns[static_cast<std::size_t>(column - layout.columns.begin())];
        if (said.quantity == "-") {
            assigned = {};
            continue;
        }
        const std::optional<ColumnQuantity> quantity = quantityFromName(said.quantity);
        if (!quantity)
            return invalidArgument(
                fmt::format("--map: \"{}\" is no quantity of a column; force, extension, strain, "
                            "time, temperature, torque, angle, length, hardness or - is wanted",
                            said.quantity));
        const std::string usual(workingUnit(dimensionOf(*quantity)).symbol);
        const bool isSame = column->quantity == quantity && column->unit;
        assigned.quantity = quantity;
        assigned.unitSymbol = !said.unit.empty() ? said.unit
                              : isSame           ? std::string(column->unit->symbol)
                                                 : usual;
    }
    return mapping;
}

/// How far the record differs from the values that were given for its piece; see givenBesideText().
std::string besideGiven(const Piece &piece, const Study &study, const Workshop &workshop,
                        const Recording &recording, const std::shared_ptr<const std::string> &bytes)
{
    Piece read = piece;
    read.recording = recording;
    Result<ReadingOrder> order = readingOrder(study, read, workshop);
    if (!order)
        return {};
    const Result<PieceReading> reading =
        readPiece({piece.id, bytes, recording.mapping, *order, recording.gauge, inOrder});
    if (!reading)
        return {};
    return givenBesideText(*piece.recording->mapping.given, reading->result, *order->reduction);
}

class BringingIn
{
public:
    BringingIn(OpenProject &project, const BringInRequest &request) : m_project(project), m_request(request)
    {
    }

    Result<BroughtIn> run()
    {
        Result<Study> study = m_project.file().loadStudy(m_request.study);
        if (!study)
            return study.error();
        m_study = std::move(*study);
        const Result<std::vector<FileBelow>> files = filesBelow(m_request.paths);
        if (!files)
            return files.error();
        for (const FileBelow &file : *files)
            m_left.push_back(file.path);
        const std::vector<Method> tests = testsToTry();
        if (tests.empty())
            return invalidArgument("records of none of the study's tests can be read");
        for (const Method test : tests) {
            if (const Status tried = tryTest(test, test == tests.back()); !tried)
                return tried.error();
        }
        if (m_request.nextAtBench)
            giveToBench();
        if (const Status kept = m_request.isDryRun ? ok() : keep(); !kept)
            return kept.error();
        return std::move(m_result);
    }

private:
    struct Coming {
        ImportFile file;
        std::vector<PieceId> pieces;
        ColumnMapping mapping;
        std::string layout;
        std::string how;
    };

    [[nodiscard]] std::vector<Method> testsToTry() const
    {
        std::vector<Method> tests;
        const Piece *piece = pieceWanted();
        for (const StudyTest &test : m_study.tests) {
            const bool isMeant = m_request.test ? test.method == *m_request.test
                                                : piece == nullptr || piece->test == test.method;
            if (isMeant && reductionOf(test.method) != nullptr)
                tests.push_back(test.method);
        }
        return tests;
    }

    [[nodiscard]] const Piece *pieceWanted() const
    {
        for (const Piece &piece : m_study.pieces) {
            if (!m_request.piece.empty() && piece.code == m_request.piece)
                return &piece;
        }
        return nullptr;
    }

    /// Files that find a piece of this test; the others are tried with the next, and told with the last.
    Status tryTest(Method test, bool isLast)
    {
        if (m_left.empty())
            return ok();
        IntakeList list;
        list.add(loadRecords(m_left, *reductionOf(test), {}), m_project.file());
        if (const Status said = applySaid(list); !said)
            return said;
        if (const Status matched = match(list, test); !matched)
            return matched;
        m_left.clear();
        for (const IntakeList::Entry &entry : list.entries()) {
            const bool isPlaced = IntakeList::canBringIn(entry) && !entry.known;
            if (isPlaced)
                take(entry);
            else if (isLast || entry.known)
                tellWhy(entry);
            else if (std::find(m_left.begin(), m_left.end(), entry.file.path) == m_left.end())
                m_left.push_back(entry.file.path);
        }
        return ok();
    }

    Status applySaid(IntakeList &list) const
    {
        if (m_request.columns.empty() && !m_request.table)
            return ok();
        for (std::size_t i = 0; i < list.entries().size(); ++i) {
            const ImportFile &file = list.entries()[i].file;
            if (!file.found || !file.layout)
                continue;
            const Result<ColumnMapping> mapping = saidMapping(file, m_request);
            if (!mapping)
                return mapping.error();
            list.setMapping(i, *mapping);
        }
        return ok();
    }

    Status match(IntakeList &list, Method test) const
    {
        if (!m_request.piece.empty()) {
            const Piece *piece = pieceWanted();
            if (piece == nullptr)
                return Error{ErrorCode::NotFound,
                             fmt::format("there is no piece \"{}\" in the study", m_request.piece),
                             {}};
            if (list.entries().size() != 1)
                return invalidArgument(
                    fmt::format("--piece is of one record; there are {}", list.entries().size()));
            return list.assign(m_study, 0, piece->id);
        }
        if (!m_request.pattern.empty())
            return list.matchByPattern(m_study, test, m_request.pattern);
        if (m_request.inOrder)
            list.matchInOrder(m_study, test);
        else
            list.matchByUsualPatterns(m_study, test);
        return ok();
    }

    void take(const IntakeList::Entry &entry)
    {
        const char *how = !entry.dealt.empty()                  ? "by code"
                          : entry.how == IntakeList::How::Name  ? "by name"
                          : entry.how == IntakeList::How::Order ? "by order"
                                                                : "by hand";
        const bool isToRemember =
            entry.file.specimen ? !entry.file.mapping.columns.empty() : !entry.file.mapping.empty();
        m_coming.push_back({entry.file, entry.piece ? std::vector<PieceId>{*entry.piece} : entry.dealt,
                            entry.file.mapping,
                            isToRemember ? layoutSignature(*entry.file.found) : std::string(), how});
    }

    void tellWhy(const IntakeList::Entry &entry)
    {
        if (entry.file.problem) {
            m_result.refused.push_back({entry.file.path, *entry.file.problem});
            return;
        }
        if (entry.known) {
            m_result.waiting.push_back(
                {entry.file.path, entry.known->addedAt.empty()
                                      ? fmt::format("the same bytes as {} in this list", entry.known->name)
                                      : fmt::format("already in this project as {}", entry.known->name)});
            return;
        }
        if (m_request.nextAtBench)
            m_waiting.push_back(entry.file);
        else
            m_result.waiting.push_back(
                {entry.file.path,
                 entry.file.codes.empty()
                     ? std::string("its name does not say for which piece it is, or that piece has "
                                   "a record; say --pattern, --in-order or --piece")
                     : std::string("none of its codes is a piece without a record")});
    }

    /// In the drawn order of testing.
    void giveToBench()
    {
        for (ImportFile &file : m_waiting) {
            std::optional<PieceId> next;
            for (const StudyTest &test : m_study.tests) {
                if (next || file.reduction != reductionOf(test.method))
                    continue;
                for (const PieceId piece : benchOrder(m_study, test.method)) {
                    const bool isTaken =
                        std::any_of(m_coming.begin(), m_coming.end(), [&](const Coming &coming) {
                            return std::find(coming.pieces.begin(), coming.pieces.end(), piece) !=
                                   coming.pieces.end();
                        });
                    if (!isTaken) {
                        next = piece;
                        break;
                    }
                }
            }
            if (!next)
                m_result.waiting.push_back({file.path, "every piece has its record"});
            else
                m_coming.push_back({file, {*next}, file.mapping, {}, "next at the bench"});
        }
    }

    Status keep()
    {
        if (m_coming.empty())
            return ok();
        ProjectFile &file = m_project.file();
        const Workshop &workshop = m_project.editor().workshop();
        const std::string day = localDay(m_project.editor().person().now()).toStdString();
        std::map<PieceId, Recording> recordings;
        std::vector<IntakeList::Ready> ready;
        const Status done = file.together([&]() -> Status {
            for (const Coming &coming : m_coming) {
                const Result<AddedRawFile> kept = file.addRawFile(
                    coming.file.path == "-" ? std::string("standard input") : fileNameOf(coming.file.path),
                    *coming.file.bytes);
                if (!kept)
                    return kept.error();
                for (const PieceId piece : coming.pieces)
                    recordings[piece] = Recording{kept->id, coming.mapping, {}};
                ready.push_back(
                    {coming.file.path, coming.file.specimen, coming.pieces, coming.mapping, coming.layout});
            }
            tellBesideGiven(recordings, workshop, day);
            if (const Status remembered = rememberMappings(file, ready, ready.size()); !remembered)
                return remembered;
            const Result<Edited> edited = m_project.editor().edit(
                m_request.study, fmt::format("bring in {} records", recordings.size()),
                [&](Study &changed) { return linkRecords(changed, recordings, workshop, day); });
            return edited ? ok() : Status(edited.error());
        });
        return done;
    }

    void tellBesideGiven(const std::map<PieceId, Recording> &recordings, const Workshop &workshop,
                         const std::string &day)
    {
        for (const Coming &coming : m_coming) {
            for (const PieceId id : coming.pieces) {
                const Piece *piece = findPiece(m_study, id);
                if (!isGiven(*piece))
                    continue;
                Recording recording = recordings.at(id);
                recording.gauge = rigOnDay(m_study, piece->test, workshop, day);
                m_beside[id] = besideGiven(*piece, m_study, workshop, recording, coming.file.bytes);
            }
        }
    }

public:
    /// Once it is known what came of it.
    void tellPlaced(BroughtIn &result) const
    {
        for (const Coming &coming : m_coming) {
            for (const PieceId id : coming.pieces) {
                const auto beside = m_beside.find(id);
                result.placed.push_back({coming.file.path, coming.file.sha256, findPiece(m_study, id)->code,
                                         coming.how,
                                         beside == m_beside.end() ? std::string() : beside->second});
            }
        }
    }

private:
    OpenProject &m_project;
    const BringInRequest &m_request;
    Study m_study;
    std::vector<std::string> m_left; ///< paths that no test placed yet
    std::vector<Coming> m_coming;
    std::vector<ImportFile> m_waiting;
    std::map<PieceId, std::string> m_beside;
    BroughtIn m_result;
};

} // namespace

Result<BroughtIn> bringIn(OpenProject &project, const BringInRequest &request)
{
    BringingIn work(project, request);
    Result<BroughtIn> result = work.run();
    if (result)
        work.tellPlaced(*result);
    return result;
}

} // namespace inchpeg
