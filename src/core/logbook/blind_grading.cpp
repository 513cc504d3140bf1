// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/blind_grading.h"

#include "core/base/json_fields.h"
#include "core/base/json_text.h"
#include "core/logbook/two_rounds.h"

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr int kLeastGrade = 1;
constexpr int kBestGrade = 5;

OrderedJson idsOf(const std::vector<PieceId> &pieces)
{
    OrderedJson ids = OrderedJson::array();
    for (const PieceId piece : pieces)
        ids.push_back(piece.value);
    return ids;
}

std::vector<PieceId> piecesIn(const OrderedJson &ids)
{
    std::vector<PieceId> pieces;
    for (const OrderedJson &id : ids)
        pieces.push_back(PieceId{id.get<std::int64_t>()});
    return pieces;
}

bool wasGiven(const BlindGrading &grading, PieceId piece, bool isAgain)
{
    return std::any_of(grading.given.begin(), grading.given.end(),
                       [&](const GivenGrade &one) { return one.piece == piece && one.isAgain == isAgain; });
}

} // namespace

BlindGrading drawBlindGrading(std::vector<PieceId> pieces, std::uint64_t seed)
{
    Random random(seed);
    auto [first, again] = twoRounds(std::move(pieces), random);
    return {std::move(first), std::move(again), {}};
}

std::optional<GivenGrade> nextGrade(const BlindGrading &grading)
{
    for (const bool isAgain : {false, true}) {
        for (const PieceId piece : isAgain ? grading.again : grading.first) {
            if (!wasGiven(grading, piece, isAgain))
                return GivenGrade{piece, isAgain, 0};
        }
    }
    return std::nullopt;
}

std::size_t gradesWanted(const BlindGrading &grading)
{
    return grading.first.size() + grading.again.size();
}

BothGrades gradesOf(const BlindGrading &grading, PieceId piece)
{
    BothGrades both;
    for (const GivenGrade &one : grading.given) {
        if (one.piece == piece)
            (one.isAgain ? both.again : both.first) = one.grade;
    }
    return both;
}

void keepOnly(BlindGrading &grading, const std::function<bool(PieceId)> &isStillThere)
{
    const auto isGone = [&](PieceId piece) { return !isStillThere(piece); };
    std::erase_if(grading.first, isGone);
    std::erase_if(grading.again, isGone);
    std::erase_if(grading.given, [&](const GivenGrade &one) { return isGone(one.piece); });
}

std::string blindGradingText(const BlindGrading &grading)
{
    OrderedJson given = OrderedJson::array();
    for (const GivenGrade &one : grading.given)
        given.push_back({{"piece", one.piece.value}, {"again", one.isAgain}, {"grade", one.grade}});
    return OrderedJson{{"first", idsOf(grading.first)}, {"again", idsOf(grading.again)}, {"given", given}}
        .dump();
}

Result<BlindGrading> blindGradingFromText(std::string_view text)
{
    try {
        const OrderedJson json = parsedJson(text);
        BlindGrading grading{piecesIn(json.at("first")), piecesIn(json.at("again")), {}};
        for (const OrderedJson &one : json.at("given")) {
            const GivenGrade given{PieceId{one.at("piece").get<std::int64_t>()}, one.at("again").get<bool>(),
                                   one.at("grade").get<int>()};
            if (given.grade < kLeastGrade || given.grade > kBestGrade)
                return badInput("a grade of a blind round is not 1 to 5");
            grading.given.push_back(given);
        }
        return grading;
    } catch (const std::exception &) {
        return badInput("the kept round of blind grading cannot be read");
    }
}

} // namespace inchpeg
