// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/study/study_edit.h"

#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace inchpeg
{

namespace
{

/// Without I and O, which are read as 1 and 0.
constexpr std::string_view kRailLetters = "ABCDEFGHJKLMNPQRSTUVWXYZ";

std::string railLetters(std::size_t index)
{
    std::string letters;
    do {
        letters.insert(letters.begin(), kRailLetters[index % kRailLetters.size()]);
        index /= kRailLetters.size();
    } while (index-- > 0);
    return letters;
}

std::string letterPart(const std::string &code)
{
    return code.substr(0, code.find_first_of("0123456789"));
}

/// The letters that the condition's pieces carry, or the first that no other condition uses.
std::string lettersFor(const Study &study, ConditionId condition)
{
    std::set<std::string> used;
    for (const Piece &piece : study.pieces) {
        if (piece.condition == condition)
            return letterPart(piece.code);
        used.insert(letterPart(piece.code));
    }
    std::size_t index = 0;
    while (used.contains(railLetters(index)))
        ++index;
    return railLetters(index);
}

std::size_t numberOf(const std::string &code)
{
    return std::stoul("0" + code.substr(std::min(code.size(), code.find_first_of("0123456789"))));
}

void fillWithPieces(Study &study, ConditionId condition, const IdSource &ids)
{
    const std::string letters = lettersFor(study, condition);
    std::size_t last = 0;
    std::size_t present = 0;
    for (const Piece *piece : piecesOf(study, condition)) {
        last = std::max(last, numberOf(piece->code));
        ++present;
    }
    std::vector<Piece> added;
    for (; present < static_cast<std::size_t>(study.piecesPerCondition); ++present)
        added.push_back({PieceId{ids()}, condition, letters + std::to_string(++last), {}, {}, {}, {}});
    const auto end = std::find_if(study.pieces.rbegin(), study.pieces.rend(),
                                  [condition](const Piece &piece) { return piece.condition == condition; });
    study.pieces.insert(end == study.pieces.rend() ? study.pieces.end() : end.base(), added.begin(),
                        added.end());
}

/// The level as it is kept: trimmed, a repeated unit taken off.
Result<std::string> checkedLevel(const Study &study, const std::string &typed)
{
    std::string_view level = trimmed(typed);
    if (!study.factorUnit.empty() && level.ends_with(study.factorUnit))
        level = trimmed(level.substr(0, level.size() - study.factorUnit.size()));
    if (level.empty())
        return invalidArgument("a level needs a name or a number");
    if (!study.factorUnit.empty() && !parseTypedNumber(level))
        return invalidArgument(
            fmt::format("\"{}\" is not a number; the levels of {} are numbers in {}. Clear the unit "
                        "to use names",
                        level, study.factorName, study.factorUnit));
    return std::string(level);
}

Status refuseTwin(const Study &study, const Condition &wanted)
{
    const bool twin =
        std::any_of(study.conditions.begin(), study.conditions.end(), [&](const Condition &other) {
            return other.id != wanted.id && other.level == wanted.level &&
                   other.orientation == wanted.orientation && other.material == wanted.material;
        });
    if (twin)
        return invalidArgument(fmt::format("there is already a rail for {} ({})", wanted.level,
                                           orientationName(wanted.orientation)));
    return ok();
}

} // namespace

bool isUntouched(const Piece &piece)
{
    return !piece.section && !piece.recording && !piece.exclusion;
}

Status placeMarker(Piece &piece, Marker marker, const HandMarker &placed)
{
    if (!piece.recording)
        return invalidArgument(fmt::format("piece {} has no record to place a marker on", piece.code));
    if (trimmed(placed.reason).empty())
        return invalidArgument("say why the marker is placed by hand; the reason is kept with it");
    if (!placed.at && marker != Marker::Yield)
        return invalidArgument(
            fmt::format("the {} needs a place; set it back to automatic instead", markerName(marker)));
    if (placed.at && marker != Marker::Toe && !(*placed.at >= 0.0))
        return invalidArgument(fmt::format("the {} cannot lie before the record", markerName(marker)));
    const auto other = [&](Marker which) {
        const auto found = piece.markers.find(which);
        return found == piece.markers.end() ? std::nullopt : found->second.at;
    };
    const auto from = marker == Marker::ModulusFrom ? placed.at : other(Marker::ModulusFrom);
    const auto to = marker == Marker::ModulusTo ? placed.at : other(Marker::ModulusTo);
    if (from && to && *from >= *to)
        return invalidArgument(fmt::format("the modulus range would go from {:.4g} % to {:.4g} % strain; its "
                                           "start must lie before its end",
                                           100.0 * *from, 100.0 * *to));
    piece.markers[marker] = placed;
    return ok();
}

void clearMarker(Piece &piece, Marker marker)
{
    piece.markers.erase(marker);
}

void setRecording(Piece &piece, std::optional<Recording> recording)
{
    const bool sameFile = piece.recording && recording && piece.recording->file == recording->file;
    if (!sameFile) {
        piece.markers.clear();
        piece.exclusion.reset();
    }
    piece.recording = std::move(recording);
}

Status addCondition(Study &study, const Condition &wanted, const IdSource &ids)
{
    Condition condition = wanted;
    condition.id = {};
    const Result<std::string> level = checkedLevel(study, wanted.level);
    if (!level)
        return level.error();
    condition.level = *level;
    if (const Status status = refuseTwin(study, condition); !status)
        return status;
    condition.id = ConditionId{ids()};
    study.conditions.push_back(condition);
    if (study.conditions.size() == 1)
        study.reference = condition.id;
    fillWithPieces(study, condition.id, ids);
    return ok();
}

Status changeCondition(Study &study, const Condition &changed)
{
    const auto found = std::find_if(study.conditions.begin(), study.conditions.end(),
                                    [&](const Condition &condition) { return condition.id == changed.id; });
    if (found == study.conditions.end())
        return Error{ErrorCode::NotFound, "that rail is no longer there", {}};
    Condition condition = changed;
    const Result<std::string> level = checkedLevel(study, changed.level);
    if (!level)
        return level.error();
    condition.level = *level;
    if (const Status status = refuseTwin(study, condition); !status)
        return status;
    *found = condition;
    return ok();
}

Status removeCondition(Study &study, ConditionId id)
{
    const std::vector<const Piece *> pieces = piecesOf(study, id);
    const auto touched =
        std::find_if(pieces.begin(), pieces.end(), [](const Piece *piece) { return !isUntouched(*piece); });
    if (touched != pieces.end())
        return invalidArgument(fmt::format("piece {} on this rail already holds data; clear its pieces first",
                                           (*touched)->code));
    std::erase_if(study.pieces, [id](const Piece &piece) { return piece.condition == id; });
    std::erase_if(study.conditions, [id](const Condition &condition) { return condition.id == id; });
    if (study.reference == id)
        study.reference = study.conditions.empty() ? ConditionId{} : study.conditions.front().id;
    return ok();
}

Status setPiecesPerCondition(Study &study, int count, const IdSource &ids)
{
    if (count < 1 || count > kMostPiecesPerCondition)
        return invalidArgument(
            fmt::format("{} pieces a condition; 1 to {} are possible", count, kMostPiecesPerCondition));
    study.piecesPerCondition = count;
    for (const Condition &condition : study.conditions) {
        auto surplus = static_cast<std::ptrdiff_t>(piecesOf(study, condition.id).size()) - count;
        for (std::size_t i = study.pieces.size(); surplus > 0 && i-- > 0;) {
            if (study.pieces[i].condition != condition.id || !isUntouched(study.pieces[i]))
                continue;
            study.pieces.erase(study.pieces.begin() + static_cast<std::ptrdiff_t>(i));
            --surplus;
        }
        fillWithPieces(study, condition.id, ids);
    }
    return ok();
}

Status setReference(Study &study, ConditionId id)
{
    const auto found = std::find_if(study.conditions.begin(), study.conditions.end(),
                                    [id](const Condition &condition) { return condition.id == id; });
    if (found == study.conditions.end())
        return Error{ErrorCode::NotFound, "that rail is no longer there", {}};
    std::rotate(study.conditions.begin(), found, found + 1);
    study.reference = id;
    return ok();
}

} // namespace inchpeg
