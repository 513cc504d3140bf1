// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/study/study.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

std::string_view methodName(Method method)
{
    return method == Method::Tension ? "tension" : "layer adhesion";
}

std::string_view orientationName(Orientation orientation)
{
    return orientation == Orientation::Flat ? "flat" : "standing";
}

const Condition *findCondition(const Study &study, ConditionId id)
{
    const auto found = std::find_if(study.conditions.begin(), study.conditions.end(),
                                    [id](const Condition &condition) { return condition.id == id; });
    return found == study.conditions.end() ? nullptr : &*found;
}

const Piece *findPiece(const Study &study, PieceId id)
{
    const auto found = std::find_if(study.pieces.begin(), study.pieces.end(),
                                    [id](const Piece &piece) { return piece.id == id; });
    return found == study.pieces.end() ? nullptr : &*found;
}

Piece *findPiece(Study &study, PieceId id)
{
    return const_cast<Piece *>(findPiece(static_cast<const Study &>(study), id));
}

std::vector<const Piece *> piecesOf(const Study &study, ConditionId condition)
{
    std::vector<const Piece *> found;
    for (const Piece &piece : study.pieces) {
        if (piece.condition == condition)
            found.push_back(&piece);
    }
    return found;
}

std::string levelText(const Study &study, const Condition &condition)
{
    return study.factorUnit.empty() ? condition.level : condition.level + " " + study.factorUnit;
}

bool mixesOrientations(const Study &study)
{
    return std::any_of(study.conditions.begin(), study.conditions.end(), [&](const Condition &other) {
        return other.orientation != study.conditions.front().orientation;
    });
}

std::string railTitle(const Study &study, const Condition &condition)
{
    const std::string level = levelText(study, condition);
    return mixesOrientations(study) ? fmt::format("{}, {}", level, orientationName(condition.orientation))
                                    : level;
}

Result<TensileParameters> readingParameters(const Study &study, const Piece &piece)
{
    if (!piece.section)
        return invalidArgument(fmt::format(
            "piece {}: its cross-section is not measured yet; enter it in the Log lens", piece.code));
    const Result<Area> area = areaOf(*piece.section);
    if (!area)
        return invalidArgument(fmt::format("piece {}: {}", piece.code, area.error().message));
    TensileParameters parameters;
    parameters.area = *area;
    parameters.gaugeLength = study.rules.gaugeLength;
    parameters.gripDistance = study.rules.gripDistance;
    parameters.capacity = study.rules.capacity;
    parameters.toeCorrection = study.rules.toeCorrection;
    return parameters;
}

} // namespace inchpeg
