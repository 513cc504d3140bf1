// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intake/given_results.h"

#include "core/intake/result_cells.h"
#include "core/model/study_edit.h"
#include "core/planning/lab_code.h"
#include "core/text/letters.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

using Role = ResultsColumn::Role;

const Piece *pieceOfCode(const Study &study, const std::string &code, std::string_view labPrefix)
{
    for (const Piece &piece : study.pieces) {
        if (smallLetters(piece.code) == smallLetters(code))
            return &piece;
    }
    if (const std::optional<PieceId> label = pieceOfLabel(labPrefix, code))
        return findPiece(study, *label);
    return nullptr;
}

std::string whyWaiting(const Study &study, const Piece *piece, const ResultsTable &table,
                       const std::string &code, bool mayReplace)
{
    if (code.empty())
        return "the row names no piece";
    if (piece == nullptr)
        return fmt::format("there is no piece \"{}\" in \"{}\"", code, study.question);
    if (piece->test != table.test)
        return fmt::format("piece {} is for {}, the table is of {}", piece->code, methodName(piece->test),
                           methodName(table.test));
    if (piece->recording && !isGiven(*piece))
        return fmt::format("piece {} has a record, from which its values are read", piece->code);
    if (isGiven(*piece) && !mayReplace)
        return fmt::format("values of piece {} are given already", piece->code);
    return {};
}

std::optional<LogField> logFieldOf(Role role)
{
    switch (role) {
    case Role::Width:
        return LogField::Width;
    case Role::Thickness:
        return LogField::Thickness;
    case Role::Diameter:
        return LogField::Diameter;
    case Role::Weighed:
        return LogField::Mass;
    default:
        return std::nullopt;
    }
}

/// Sizes, mass and remarks of a row, where nothing stands yet.
Status logRow(Study &study, Piece &piece, const ResultsTable &table, const ResultsRow &row,
              const MeasuringGauges &gauges)
{
    const std::vector<LogPlace> places = loggedPlaces(study);
    for (std::size_t c = 0; c < table.columns.size(); ++c) {
        const ResultsColumn &column = table.columns[c];
        const std::string cell(trimmed(row.cells[c]));
        if (cell.empty())
            continue;
        if (column.role == Role::Note || column.role == Role::Break) {
            if (piece.log.note.find(cell) == std::string::npos)
                piece.log.note += (piece.log.note.empty() ? "" : "; ") + cell;
            continue;
        }
        const std::optional<LogField> field = logFieldOf(column.role);
        const std::optional<CellValue> value = readResultCell(cell, table.numbers);
        const LogPlace place{field.value_or(LogField::Note), 0};
        const bool isWanted =
            field && value && column.unit && std::find(places.begin(), places.end(), place) != places.end();
        if (!isWanted || loggedValue(study, piece, place))
            continue;
        const double working = column.unit->toWorking(value->number);
        constexpr double kGramsPerKilogram = 1000.0;
        const double logged = *field == LogField::Mass ? working * kGramsPerKilogram : working;
        if (const Status set = setLoggedValue(study, piece, place, logged, gauges); !set)
            return set;
    }
    return ok();
}

} // namespace

Result<GivenResults> resultsForPieces(const Study &study, const ResultsTable &table,
                                      std::string_view labPrefix, bool mayReplace)
{
    const bool namesPieces =
        std::any_of(table.columns.begin(), table.columns.end(),
                    [](const ResultsColumn &column) { return column.role == Role::Code; });
    if (!namesPieces)
        return invalidArgument("no column of the table names the pieces; say which does");
    GivenResults results;
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        const ResultsRow &row = table.rows[r];
        const std::string code(trimmed(row.code));
        const Piece *piece = code.empty() ? nullptr : pieceOfCode(study, code, labPrefix);
        std::string why = whyWaiting(study, piece, table, code, mayReplace);
        if (why.empty() && results.rows.contains(piece->id))
            why = fmt::format("another row names piece {}", piece->code);
        if (!why.empty()) {
            results.waiting.push_back({row.line, code, std::move(why)});
            continue;
        }
        GivenRow given = valuesOf(table, row, results.refused);
        if (given.values.empty()) {
            results.waiting.push_back({row.line, code, "the row holds no value"});
            continue;
        }
        for (const GivenValue &value : given.values)
            results.taken.push_back(
                {piece->id, value, findProperty(*reductionOf(table.test), value.property)->dimension});
        results.rows.emplace(piece->id, std::move(given));
        results.places.emplace(piece->id, r);
    }
    return results;
}

Status takeResults(Study &study, const ResultsTable &table, const GivenResults &results, RawFileId file,
                   const MeasuringGauges &gauges)
{
    for (const auto &[id, row] : results.rows) {
        Piece *piece = findPiece(study, id);
        require(piece != nullptr, "results that were read for another study");
        ColumnMapping mapping;
        mapping.given = row;
        setRecording(*piece, Recording{file, std::move(mapping), {}});
        if (const Status logged = logRow(study, *piece, table, table.rows[results.places.at(id)], gauges);
            !logged)
            return logged;
    }
    return ok();
}

} // namespace inchpeg
