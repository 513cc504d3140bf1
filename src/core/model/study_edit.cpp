// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/study_edit.h"

#include "core/text/letters.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cstdint>
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

/// The digits behind the letters; 0 where there are none, or more than a number holds.
std::size_t numberOf(const std::string &code)
{
    const std::size_t from = std::min(code.size(), code.find_first_of("0123456789"));
    std::uint32_t number = 0;
    const auto [end, failure] = std::from_chars(code.data() + from, code.data() + code.size(), number);
    return failure == std::errc() ? number : 0;
}

void fillWithPieces(Study &study, ConditionId condition, Method test, int count, const IdSource &ids)
{
    const std::string letters = lettersFor(study, condition);
    std::size_t last = 0;
    int present = 0;
    for (const Piece *piece : piecesOf(study, condition)) {
        last = std::max(last, numberOf(piece->code));
        present += piece->test == test ? 1 : 0;
    }
    std::vector<Piece> added;
    for (; present < count; ++present) {
        added.push_back({PieceId{ids()}, condition, letters + std::to_string(++last), {}, {}, {}, {}, test});
        if (!study.plan.print.printed.empty())
            study.plan.addedLater.push_back(added.back().id);
    }
    const auto end = std::find_if(study.pieces.rbegin(), study.pieces.rend(),
                                  [condition](const Piece &piece) { return piece.condition == condition; });
    study.pieces.insert(end == study.pieces.rend() ? study.pieces.end() : end.base(), added.begin(),
                        added.end());
}

/// All pieces that a condition should have.
void fillWithAllPieces(Study &study, ConditionId condition, const IdSource &ids)
{
    for (const StudyTest &test : study.tests)
        fillWithPieces(study, condition, test.method, test.piecesPerCondition, ids);
}

/// The level as it is kept: trimmed, a repeated unit taken off.
Result<std::string> checkedLevel(const Factor &factor, const std::string &typed)
{
    std::string_view level = trimmed(typed);
    if (!factor.unit.empty() && level.ends_with(factor.unit))
        level = trimmed(level.substr(0, level.size() - factor.unit.size()));
    if (level.empty())
        return invalidArgument("a level needs a name or a number");
    if (!factor.unit.empty() && !parseTypedNumber(level))
        return invalidArgument(
            fmt::format("\"{}\" is not a number; the levels of {} are numbers in {}. Clear the unit "
                        "to use names",
                        level, factor.name, factor.unit));
    return std::string(level);
}

/// The condition with its levels as they are kept; factors that say where a piece comes from or how it lies
/// are written into material and orientation as well, which all lenses show.
Result<Condition> checkedCondition(const Study &study, const Condition &wanted)
{
    Condition condition = wanted;
    if (wanted.levels.size() != study.factors.size())
        return invalidArgument(fmt::format("a rail needs a level for each of {} factors; {} given",
                                           study.factors.size(), wanted.levels.size()));
    for (std::size_t i = 0; i < study.factors.size(); ++i) {
        const Result<std::string> level = checkedLevel(study.factors[i], wanted.levels[i]);
        if (!level)
            return level.error();
        condition.levels[i] = *level;
        if (study.factors[i].name == factor::kOrientation)
            condition.orientation = orientationFrom(*level).value_or(condition.orientation);
        if (study.factors[i].name == factor::kMaterial && condition.material.empty())
            condition.material = *level;
    }
    return condition;
}

Status refuseTwin(const Study &study, const Condition &wanted)
{
    const bool twin =
        std::any_of(study.conditions.begin(), study.conditions.end(), [&](const Condition &other) {
            return other.id != wanted.id && other.levels == wanted.levels &&
                   other.orientation == wanted.orientation && other.material == wanted.material;
        });
    if (twin)
        return invalidArgument(fmt::format("there is already a rail for {} ({})", levelText(study, wanted),
                                           orientationName(wanted.orientation)));
    return ok();
}

} // namespace

bool isUntouched(const Piece &piece)
{
    return !piece.section && !piece.recording && !piece.exclusion && piece.log == PieceLog{};
}

Status placeMarker(Piece &piece, Method method, std::string_view marker, const HandMarker &placed)
{
    const MarkerKind *kind = findMarker(method, marker);
    if (kind == nullptr)
        return Error{
            ErrorCode::NotFound, fmt::format("{} has no marker \"{}\"", methodName(method), marker), {}};
    const std::string name = smallLetters(kind->label);
    if (!piece.recording)
        return invalidArgument(fmt::format("piece {} has no record to place a marker on", piece.code));
    if (trimmed(placed.reason).empty())
        return invalidArgument("say why the marker is placed by hand; the reason is kept with it");
    if (!placed.at && !kind->mayBeNone)
        return invalidArgument(fmt::format("the {} needs a place; set it back to automatic instead", name));
    if (placed.at && kind->place != MarkerPlace::Shift && !(*placed.at >= 0.0))
        return invalidArgument(fmt::format("the {} cannot lie before the record", name));
    const auto at = [&](std::string_view which) {
        const auto found = piece.markers.find(which);
        return which == marker ? placed.at : found == piece.markers.end() ? std::nullopt : found->second.at;
    };
    const auto from = at("modulus_from");
    const auto to = at("modulus_to");
    if (from && to && *from >= *to)
        return invalidArgument(fmt::format("the modulus range would go from {:.4g} % to {:.4g} % strain; its "
                                           "start must lie before its end",
                                           100.0 * *from, 100.0 * *to));
    piece.markers[std::string(marker)] = placed;
    return ok();
}

void clearMarker(Piece &piece, std::string_view marker)
{
    if (const auto found = piece.markers.find(marker); found != piece.markers.end())
        piece.markers.erase(found);
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

Status leaveOut(Piece &piece, Exclusion exclusion)
{
    const std::string reason = singleSpaced(exclusion.reason);
    if (reason.empty())
        return invalidArgument("say why the piece is left out: slipped, meant solid but hollow; the reason "
                               "is kept with it");
    exclusion.reason = std::move(reason);
    piece.exclusion = std::move(exclusion);
    return ok();
}

Status addCondition(Study &study, const Condition &wanted, const IdSource &ids)
{
    Result<Condition> condition = checkedCondition(study, wanted);
    if (!condition)
        return condition.error();
    condition->id = {};
    if (const Status status = refuseTwin(study, *condition); !status)
        return status;
    if (study.conditions.size() >= kMostConditions)
        return invalidArgument(fmt::format("{} rails at most", kMostConditions));
    condition->id = ConditionId{ids()};
    study.conditions.push_back(*condition);
    if (study.conditions.size() == 1)
        study.reference = condition->id;
    fillWithAllPieces(study, condition->id, ids);
    return ok();
}

Status changeCondition(Study &study, const Condition &changed)
{
    const auto found = std::find_if(study.conditions.begin(), study.conditions.end(),
                                    [&](const Condition &condition) { return condition.id == changed.id; });
    if (found == study.conditions.end())
        return Error{ErrorCode::NotFound, "that rail is no longer there", {}};
    const Result<Condition> condition = checkedCondition(study, changed);
    if (!condition)
        return condition.error();
    if (const Status status = refuseTwin(study, *condition); !status)
        return status;
    *found = *condition;
    return ok();
}

bool isPrinted(const Study &study, PieceId piece)
{
    return std::any_of(
        study.plan.print.printed.begin(), study.plan.print.printed.end(), [piece](const PrintedPlate &plate) {
            return std::any_of(plate.pieces.begin(), plate.pieces.end(),
                               [piece](const PlacedPiece &placed) { return placed.piece == piece; });
        });
}

namespace
{

bool mayGo(const Study &study, const Piece &piece)
{
    return isUntouched(piece) && !isPrinted(study, piece.id);
}

/// What the plan kept for pieces and conditions that are no longer there is taken out of it.
void forgetGone(Study &study)
{
    std::erase_if(study.plan.addedLater, [&](PieceId piece) { return findPiece(study, piece) == nullptr; });
    std::erase_if(study.plan.print.slicer,
                  [&](const auto &entry) { return findCondition(study, entry.first) == nullptr; });
}

void dropSurplus(Study &study, ConditionId condition, Method test, int count)
{
    auto surplus = std::count_if(study.pieces.begin(), study.pieces.end(),
                                 [&](const Piece &piece) {
                                     return piece.condition == condition && piece.test == test;
                                 }) -
                   count;
    for (std::size_t i = study.pieces.size(); surplus > 0 && i-- > 0;) {
        const Piece &piece = study.pieces[i];
        if (piece.condition != condition || piece.test != test || !mayGo(study, piece))
            continue;
        study.pieces.erase(study.pieces.begin() + static_cast<std::ptrdiff_t>(i));
        --surplus;
    }
}

void setPieces(Study &study, Method test, int count, const IdSource &ids)
{
    for (const Condition &condition : study.conditions) {
        dropSurplus(study, condition.id, test, count);
        fillWithPieces(study, condition.id, test, count, ids);
    }
    forgetGone(study);
}

} // namespace

Status removeCondition(Study &study, ConditionId id)
{
    const std::vector<const Piece *> pieces = piecesOf(study, id);
    const auto kept =
        std::find_if(pieces.begin(), pieces.end(), [&](const Piece *piece) { return !mayGo(study, *piece); });
    if (kept != pieces.end())
        return invalidArgument(
            isPrinted(study, (*kept)->id)
                ? fmt::format("piece {} on this rail is already printed; a printed piece stays on its rail",
                              (*kept)->code)
                : fmt::format("piece {} on this rail already holds data; clear its pieces first",
                              (*kept)->code));
    std::erase_if(study.pieces, [id](const Piece &piece) { return piece.condition == id; });
    std::erase_if(study.conditions, [id](const Condition &condition) { return condition.id == id; });
    if (study.reference == id)
        study.reference = study.conditions.empty() ? ConditionId{} : study.conditions.front().id;
    forgetGone(study);
    return ok();
}

Status setPiecesPerCondition(Study &study, Method method, int count, const IdSource &ids)
{
    StudyTest *test = findTest(study, method);
    if (test == nullptr)
        return Error{ErrorCode::NotFound, fmt::format("{} is no test of this study", methodName(method)), {}};
    const int least = test == &firstTest(study) ? 1 : 0;
    if (count < least || count > kMostPiecesPerCondition)
        return invalidArgument(fmt::format("{} pieces a condition; {} to {} are possible", count, least,
                                           kMostPiecesPerCondition));
    test->piecesPerCondition = count;
    setPieces(study, method, count, ids);
    return ok();
}

namespace
{

Status checkFactor(const Study &study, std::size_t index, const Factor &factor)
{
    for (std::size_t i = 0; i < study.factors.size(); ++i) {
        if (i != index && !factor.name.empty() && study.factors[i].name == factor.name)
            return invalidArgument(fmt::format("{} is already varied", factor.name));
    }
    return ok();
}

} // namespace

Status changeFactor(Study &study, std::size_t index, const Factor &factor)
{
    require(index < study.factors.size(), "no such factor");
    if (const Status status = checkFactor(study, index, factor); !status)
        return status;
    for (const Condition &condition : study.conditions) {
        if (!factor.unit.empty() && !parseTypedNumber(condition.levels[index]))
            return invalidArgument("the level \"" + condition.levels[index] +
                                   "\" is a name; a factor with a unit needs numbers");
    }
    study.factors[index] = factor;
    return ok();
}

Status addFactor(Study &study, const Factor &factor, const std::string &level)
{
    if (study.factors.size() >= kMostFactors)
        return invalidArgument(fmt::format("{} factors at most; lock the others", kMostFactors));
    if (const Status status = checkFactor(study, study.factors.size(), factor); !status)
        return status;
    if (!study.conditions.empty()) {
        const Result<std::string> checked = checkedLevel(factor, level);
        if (!checked)
            return checked.error();
        for (Condition &condition : study.conditions)
            condition.levels.push_back(*checked);
    }
    study.factors.push_back(factor);
    return ok();
}

Status removeFactor(Study &study, std::size_t index)
{
    require(index < study.factors.size(), "no such factor");
    if (study.factors.size() == 1)
        return invalidArgument("a study varies at least one thing; rename this factor instead");
    const auto at = static_cast<std::ptrdiff_t>(index);
    Study without = study;
    without.factors.erase(without.factors.begin() + at);
    for (Condition &condition : without.conditions)
        condition.levels.erase(condition.levels.begin() + at);
    for (const Condition &condition : without.conditions) {
        if (const Status status = refuseTwin(without, condition); !status)
            return invalidArgument(fmt::format("without {} two rails would be alike ({}); remove one of them "
                                               "first",
                                               study.factors[index].name, levelText(without, condition)));
    }
    study = std::move(without);
    return ok();
}

std::vector<std::string> levelsOf(const Study &study, std::size_t factor)
{
    std::vector<std::string> levels;
    for (const Condition &condition : study.conditions) {
        const std::string &level = condition.levels.at(factor);
        if (std::find(levels.begin(), levels.end(), level) == levels.end())
            levels.push_back(level);
    }
    return levels;
}

namespace
{

Result<std::vector<Combination>> combinationsOf(const Study &study, DesignKind design,
                                                const std::vector<std::size_t> &counts)
{
    switch (design) {
    case DesignKind::FullFactorial:
        return fullFactorial(counts);
    case DesignKind::OneAtATime:
        return oneAtATime(counts);
    case DesignKind::Fraction: {
        if (!std::all_of(counts.begin(), counts.end(), [](std::size_t count) { return count == 2; }))
            return invalidArgument("a fraction needs exactly two levels of each factor");
        const Result<TwoLevelFraction> fraction =
            TwoLevelFraction::make(static_cast<int>(counts.size()), study.plan.generators);
        if (!fraction)
            return fraction.error();
        return fraction->runs();
    }
    case DesignKind::Chosen:
        break;
    }
    return invalidArgument("a chosen list is made rail by rail");
}

} // namespace

Status applyDesign(Study &study, DesignKind design, const std::vector<std::vector<std::string>> &levels,
                   const IdSource &ids)
{
    require(levels.size() == study.factors.size(), "levels for each factor");
    std::vector<std::vector<std::string>> checked(levels.size());
    std::vector<std::size_t> counts;
    for (std::size_t f = 0; f < levels.size(); ++f) {
        for (const std::string &typed : levels[f]) {
            const Result<std::string> level = checkedLevel(study.factors[f], typed);
            if (!level)
                return level.error();
            if (std::find(checked[f].begin(), checked[f].end(), *level) == checked[f].end())
                checked[f].push_back(*level);
        }
        counts.push_back(checked[f].size());
        if (checked[f].empty())
            return invalidArgument(fmt::format("type the levels of {}", study.factors[f].name));
    }
    const Result<std::vector<Combination>> combinations = combinationsOf(study, design, counts);
    if (!combinations)
        return combinations.error();
    Study changed = study;
    const Condition pattern = study.conditions.empty() ? Condition{} : study.conditions.front();
    std::vector<ConditionId> wanted;
    for (const Combination &combination : *combinations) {
        Condition condition = pattern;
        condition.levels.clear();
        for (std::size_t f = 0; f < combination.size(); ++f)
            condition.levels.push_back(checked[f][combination[f]]);
        if (std::any_of(study.factors.begin(), study.factors.end(),
                        [](const Factor &factor) { return factor.name == factor::kMaterial; }))
            condition.material.clear(); // follows from the level
        const auto known =
            std::find_if(changed.conditions.begin(), changed.conditions.end(), [&](const Condition &other) {
                return other.levels == condition.levels &&
                       std::find(wanted.begin(), wanted.end(), other.id) == wanted.end();
            });
        if (known != changed.conditions.end()) {
            wanted.push_back(known->id);
            continue;
        }
        if (const Status added = addCondition(changed, condition, ids); !added)
            return added;
        wanted.push_back(changed.conditions.back().id);
    }
    for (const Condition &condition : study.conditions) {
        if (std::find(wanted.begin(), wanted.end(), condition.id) != wanted.end())
            continue;
        if (const Status removed = removeCondition(changed, condition.id); !removed)
            return removed;
    }
    std::sort(changed.conditions.begin(), changed.conditions.end(),
              [&](const Condition &a, const Condition &b) {
                  return std::find(wanted.begin(), wanted.end(), a.id) <
                         std::find(wanted.begin(), wanted.end(), b.id);
              });
    changed.plan.design = design;
    study = std::move(changed);
    const bool hasReference = findCondition(study, study.reference) != nullptr;
    return setReference(study, hasReference ? study.reference : study.conditions.front().id);
}

Status addPieces(Study &study, ConditionId condition, Method method, int more, const IdSource &ids)
{
    if (findCondition(study, condition) == nullptr || findTest(study, method) == nullptr)
        return Error{ErrorCode::NotFound, "the study has no such rail or test", {}};
    const std::vector<const Piece *> there = piecesOf(study, condition);
    const auto present = std::count_if(there.begin(), there.end(),
                                       [method](const Piece *piece) { return piece->test == method; });
    const int count = static_cast<int>(present) + more;
    if (more < 1 || count > kMostPiecesPerCondition)
        return invalidArgument(fmt::format("{} more pieces; 1 to {} fit on this rail", more,
                                           kMostPiecesPerCondition - static_cast<int>(present)));
    fillWithPieces(study, condition, method, count, ids);
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
