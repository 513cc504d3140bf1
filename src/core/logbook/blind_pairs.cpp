// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/blind_pairs.h"

#include "core/base/json_fields.h"
#include "core/base/json_text.h"
#include "core/logbook/two_rounds.h"

#include <algorithm>
#include <array>

namespace inchpeg
{

namespace
{

constexpr std::size_t kRingNeighbours = 2; ///< on either side of the ring

constexpr std::array kPairAnswers = {std::pair{PairAnswer::Left, "left"}, std::pair{PairAnswer::Even, "even"},
                                     std::pair{PairAnswer::Right, "right"}};

std::vector<AskedPair> ringOf(const std::vector<PieceId> &pieces)
{
    std::vector<AskedPair> pairs;
    const std::size_t n = pieces.size();
    for (std::size_t step = 1; step <= std::min(kRingNeighbours, n / 2); ++step) {
        // Opposite each other, two pieces meet from either side: once is enough.
        const std::size_t begins = 2 * step == n ? step : n;
        for (std::size_t i = 0; i < begins; ++i)
            pairs.push_back({pieces[i], pieces[(i + step) % n], false, std::nullopt});
    }
    return pairs;
}

std::vector<AskedPair> couplesOf(const std::vector<PieceId> &pieces)
{
    std::vector<AskedPair> pairs;
    for (std::size_t i = 0; i + 1 < pieces.size(); i += 2)
        pairs.push_back({pieces[i], pieces[i + 1], false, std::nullopt});
    return pairs;
}

/// From the side of one of the two: 1 won, 0 even, -1 lost.
int outcomeFor(const AskedPair &pair, PieceId piece)
{
    if (*pair.answer == PairAnswer::Even)
        return 0;
    return (*pair.answer == PairAnswer::Left) == (pair.left == piece) ? 1 : -1;
}

} // namespace

BlindPairs drawBlindPairs(std::vector<PieceId> pieces, PairManner manner, std::uint64_t seed)
{
    Random random(seed);
    random.shuffle(pieces);
    if (manner == PairManner::Broken)
        return {couplesOf(pieces)};
    std::vector<AskedPair> pairs = ringOf(pieces);
    for (AskedPair &pair : pairs) {
        if (random.uniform() < 0.5)
            std::swap(pair.left, pair.right);
    }
    auto [first, again] = twoRounds(std::move(pairs), random);
    for (AskedPair &pair : again) {
        std::swap(pair.left, pair.right);
        pair.isAgain = true;
    }
    first.insert(first.end(), again.begin(), again.end());
    return {std::move(first)};
}

std::optional<std::size_t> nextPair(const BlindPairs &pairs)
{
    const auto open = std::find_if(pairs.asked.begin(), pairs.asked.end(),
                                   [](const AskedPair &pair) { return !pair.answer; });
    if (open == pairs.asked.end())
        return std::nullopt;
    return static_cast<std::size_t>(open - pairs.asked.begin());
}

std::size_t pairsAnswered(const BlindPairs &pairs)
{
    return static_cast<std::size_t>(
        std::count_if(pairs.asked.begin(), pairs.asked.end(),
                      [](const AskedPair &pair) { return pair.answer.has_value(); }));
}

PairCounts countsOf(const BlindPairs &pairs, PieceId piece)
{
    PairCounts counts;
    for (const AskedPair &pair : pairs.asked) {
        if (!pair.answer || (pair.left != piece && pair.right != piece))
            continue;
        const int outcome = outcomeFor(pair, piece);
        (outcome > 0 ? counts.won : outcome < 0 ? counts.lost : counts.even) += 1;
        const auto before = std::find_if(pairs.asked.begin(), pairs.asked.end(), [&](const AskedPair &one) {
            return !one.isAgain && one.answer && one.left == pair.right && one.right == pair.left;
        });
        if (pair.isAgain && before != pairs.asked.end()) {
            ++counts.askedAgain;
            counts.changed += outcomeFor(*before, piece) == outcome ? 0 : 1;
        }
    }
    return counts;
}

std::vector<PieceId> piecesOf(const BlindPairs &pairs)
{
    std::vector<PieceId> pieces;
    for (const AskedPair &pair : pairs.asked) {
        for (const PieceId piece : {pair.left, pair.right}) {
            if (std::find(pieces.begin(), pieces.end(), piece) == pieces.end())
                pieces.push_back(piece);
        }
    }
    return pieces;
}

void keepOnly(BlindPairs &pairs, const std::function<bool(PieceId)> &isStillThere)
{
    std::erase_if(pairs.asked, [&](const AskedPair &pair) {
        return !isStillThere(pair.left) || !isStillThere(pair.right);
    });
}

std::string blindPairsText(const BlindPairs &pairs)
{
    OrderedJson asked = OrderedJson::array();
    for (const AskedPair &pair : pairs.asked) {
        OrderedJson one{{"left", pair.left.value}, {"right", pair.right.value}, {"again", pair.isAgain}};
        for (const auto &[answer, name] : kPairAnswers) {
            if (pair.answer == answer)
                one["answer"] = name;
        }
        asked.push_back(std::move(one));
    }
    return asked.dump();
}

Result<BlindPairs> blindPairsFromText(std::string_view text)
{
    try {
        const OrderedJson asked = parsedJson(text);
        BlindPairs pairs;
        for (const OrderedJson &one : asked) {
            AskedPair pair{PieceId{one.at("left").get<std::int64_t>()},
                           PieceId{one.at("right").get<std::int64_t>()}, one.at("again").get<bool>(),
                           std::nullopt};
            if (one.contains("answer")) {
                const std::string word = one.at("answer").get<std::string>();
                const auto known = std::find_if(kPairAnswers.begin(), kPairAnswers.end(),
                                                [&](const auto &answer) { return answer.second == word; });
                if (known == kPairAnswers.end())
                    return badInput("an answer of a round of pairs is none of left, even and right");
                pair.answer = known->first;
            }
            pairs.asked.push_back(pair);
        }
        return pairs;
    } catch (const std::exception &) {
        return badInput("the kept round of pairs cannot be read");
    }
}

} // namespace inchpeg
