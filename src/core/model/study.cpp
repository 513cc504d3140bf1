// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/study.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

std::string_view sectionShapeName(SectionShape shape)
{
    switch (shape) {
    case SectionShape::Rectangular:
        return "rectangular";
    case SectionShape::Round:
        return "round";
    case SectionShape::PlainArea:
        return "area";
    }
    throw ContractViolation("unknown section shape");
}

const RailSummary *findSummary(const Condition &condition, Method test, std::string_view property)
{
    for (const RailSummary &summary : condition.summaries) {
        if (summary.test == test && summary.property == property)
            return &summary;
    }
    return nullptr;
}

const Condition *findCondition(const Study &study, ConditionId id)
{
    const auto found = std::find_if(study.conditions.begin(), study.conditions.end(),
                                    [id](const Condition &condition) { return condition.id == id; });
    return found == study.conditions.end() ? nullptr : &*found;
}

bool isGiven(const Piece &piece)
{
    return piece.recording && piece.recording->mapping.given.has_value();
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

std::string levelText(const Factor &factor, const std::string &level)
{
    return factor.unit.empty() ? level : level + " " + factor.unit;
}

namespace
{

/// What a level is called beside those of other factors; temperatures and sizes speak for themselves, a
/// percentage or an "off" does not.
std::string namedLevel(const Study &study, const Factor &factor, const std::string &level)
{
    const std::string text = levelText(factor, level);
    const bool unitOccursOnce =
        !factor.unit.empty() && factor.unit != "%" &&
        std::count_if(study.factors.begin(), study.factors.end(),
                      [&](const Factor &other) { return other.unit == factor.unit; }) == 1;
    const bool speaks = factor.name == factor::kMaterial || factor.name == factor::kLot ||
                        factor.name == factor::kColour || factor.name == factor::kOrientation;
    return unitOccursOnce || speaks ? text : factor.name + " " + text;
}

} // namespace

std::string levelText(const Study &study, const Condition &condition)
{
    if (study.factors.size() == 1)
        return condition.levels.empty() ? std::string() : levelText(study.factors[0], condition.levels[0]);
    std::string text;
    for (std::size_t i = 0; i < std::min(study.factors.size(), condition.levels.size()); ++i)
        text += (i == 0 ? "" : " · ") + namedLevel(study, study.factors[i], condition.levels[i]);
    return text;
}

const StudyTest &firstTest(const Study &study)
{
    require(!study.tests.empty(), "a study has a test");
    return study.tests.front();
}

StudyTest &firstTest(Study &study)
{
    return const_cast<StudyTest &>(firstTest(static_cast<const Study &>(study)));
}

Method methodOf(const Study &study)
{
    return firstTest(study).method;
}

const StudyTest *findTest(const Study &study, Method method)
{
    const auto found = std::find_if(study.tests.begin(), study.tests.end(),
                                    [method](const StudyTest &test) { return test.method == method; });
    return found == study.tests.end() ? nullptr : &*found;
}

StudyTest *findTest(Study &study, Method method)
{
    return const_cast<StudyTest *>(findTest(static_cast<const Study &>(study), method));
}

bool isOfFirstTest(const Study &study, const Piece &piece)
{
    return piece.test == methodOf(study);
}

bool mixesOrientations(const Study &study)
{
    return std::any_of(study.conditions.begin(), study.conditions.end(), [&](const Condition &other) {
        return other.orientation != study.conditions.front().orientation;
    });
}

std::string distinctTitle(const Study &study, const Condition &condition)
{
    std::string title = levelText(study, condition);
    bool sameElsewhere = false;
    bool orientationTells = false;
    bool materialTells = false;
    for (const Condition &other : study.conditions) {
        if (other.id == condition.id || levelText(study, other) != title)
            continue;
        sameElsewhere = true;
        orientationTells = orientationTells || other.orientation != condition.orientation;
        materialTells = materialTells || other.material != condition.material;
    }
    if (!sameElsewhere)
        return title;
    std::string told = orientationTells ? std::string(orientationName(condition.orientation)) : std::string();
    if (materialTells && !condition.material.empty())
        told += (told.empty() ? "" : ", ") + condition.material;
    return told.empty() ? title : fmt::format("{} ({})", title, told);
}

std::string railTitle(const Study &study, const Condition &condition)
{
    const std::string level = levelText(study, condition);
    return mixesOrientations(study) ? fmt::format("{}, {}", level, orientationName(condition.orientation))
                                    : level;
}

std::vector<std::pair<std::string_view, const HandMarker *>> handMarkersOf(const Piece &piece)
{
    std::vector<std::pair<std::string_view, const HandMarker *>> placed;
    if (const Reduction *reduction = reductionOf(piece.test)) {
        for (const MarkerKind &kind : reduction->markers) {
            if (const auto found = piece.markers.find(kind.name); found != piece.markers.end())
                placed.emplace_back(found->first, &found->second);
        }
    }
    for (const auto &[name, marker] : piece.markers) {
        if (findMarker(piece.test, name) == nullptr)
            placed.emplace_back(name, &marker);
    }
    return placed;
}

bool isKnownMarker(std::string_view name)
{
    const auto has = [name](const Reduction *reduction) {
        return std::any_of(reduction->markers.begin(), reduction->markers.end(),
                           [name](const MarkerKind &kind) { return kind.name == name; });
    };
    const auto all = allReductions();
    return std::any_of(all.begin(), all.end(), has);
}

} // namespace inchpeg
