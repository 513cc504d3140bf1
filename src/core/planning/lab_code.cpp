// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/lab_code.h"

#include "core/base/contract.h"
#include "core/base/random.h"

#include <algorithm>
#include <cctype>
#include <iterator>

namespace inchpeg
{

namespace
{

constexpr std::string_view kSymbols = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789";
constexpr std::size_t kBase = 32;
constexpr std::size_t kPrefixLength = 3;
constexpr std::size_t kLeastIdLength = 3;
constexpr std::size_t kMostIdLength = 12; ///< 60 bits

/// Luhn's sum: every second symbol from the right is doubled, the digits of the product in base 32 are added.
char checkSymbol(std::string_view symbols)
{
    std::size_t sum = 0;
    bool doubled = true;
    for (auto symbol = symbols.rbegin(); symbol != symbols.rend(); ++symbol) {
        const std::size_t value = kSymbols.find(*symbol) * (doubled ? 2 : 1);
        sum += value / kBase + value % kBase;
        doubled = !doubled;
    }
    return kSymbols[(kBase - sum % kBase) % kBase];
}

constexpr char kBlind = 'Z';
constexpr std::size_t kBlindLengths[] = {4, 6, 12}; ///< symbols of a scrambled id: 20, 30, 60 bits
constexpr int kBitsOfSymbol = 5;

/// Bits that look drawn, of a half, a round and a prefix (Steele, Lea, Flood 2014: SplitMix's finaliser).
std::uint64_t mixed(std::uint64_t half, int round, std::string_view prefix)
{
    std::uint64_t z = half + 0x9E3779B97F4A7C15U * static_cast<std::uint64_t>(round + 1);
    for (const char c : prefix)
        z = z * 131U + static_cast<unsigned char>(c);
    z = (z ^ (z >> 30U)) * 0xBF58476D1CE4E5B9U;
    z = (z ^ (z >> 27U)) * 0x94D049BB133111EBU;
    return z ^ (z >> 31U);
}

/// Of so many symbols; scrambled forwards or back again.
std::uint64_t scrambled(std::uint64_t id, std::size_t symbols, std::string_view prefix, bool isBack)
{
    constexpr int kRounds = 4;
    const int bits = kBitsOfSymbol * static_cast<int>(symbols) / 2;
    const std::uint64_t mask = (std::uint64_t{1} << static_cast<unsigned>(bits)) - 1U;
    std::uint64_t left = id >> static_cast<unsigned>(bits);
    std::uint64_t right = id & mask;
    for (int i = 0; i < kRounds; ++i) {
        if (isBack) {
            const std::uint64_t before = right ^ (mixed(left, kRounds - 1 - i, prefix) & mask);
            right = left;
            left = before;
        } else {
            const std::uint64_t next = left ^ (mixed(right, i, prefix) & mask);
            left = right;
            right = next;
        }
    }
    return (left << static_cast<unsigned>(bits)) | right;
}

/// The symbols of a text in capitals, without blanks and dashes; nothing where one is none.
std::optional<std::string> symbolsIn(std::string_view text)
{
    std::string symbols;
    for (const char c : text) {
        if (c == '-' || c == ' ')
            continue;
        const auto upper = static_cast<char>(std::toupper(static_cast<unsigned char>(c)));
        if (kSymbols.find(upper) == std::string_view::npos)
            return std::nullopt;
        symbols += upper;
    }
    return symbols;
}

std::uint64_t numberOfSymbols(std::string_view symbols)
{
    std::uint64_t number = 0;
    for (const char c : symbols)
        number = number * kBase + kSymbols.find(c);
    return number;
}

} // namespace

std::string blindCode(std::string_view prefix, PieceId piece)
{
    require(isLabPrefix(prefix), "a prefix of three symbols");
    require(piece.value > 0, "a piece with an id");
    const auto id = static_cast<std::uint64_t>(piece.value);
    const auto *const fits =
        std::find_if(std::begin(kBlindLengths), std::end(kBlindLengths), [id](std::size_t symbols) {
            return id >> (static_cast<unsigned>(kBitsOfSymbol) * symbols) == 0;
        });
    require(fits != std::end(kBlindLengths), "an id of at most 60 bits");
    const std::size_t length = *fits;
    std::uint64_t rest = scrambled(id, length, prefix, false);
    std::string symbols;
    for (std::size_t i = 0; i < length; ++i, rest /= kBase)
        symbols.insert(symbols.begin(), kSymbols[rest % kBase]);
    symbols.insert(symbols.begin(), kBlind);
    return symbols + checkSymbol(symbols);
}

std::optional<PieceId> pieceOfLabel(std::string_view prefix, std::string_view text)
{
    if (const std::optional<ReadCode> label = readLabCode(text); label && label->prefix == prefix)
        return label->piece;
    const std::optional<std::string> symbols = symbolsIn(text);
    if (!symbols || symbols->size() < 2 || symbols->front() != kBlind)
        return std::nullopt;
    const std::size_t length = symbols->size() - 2; // Z and the check symbol
    const std::string_view body = std::string_view(*symbols).substr(0, symbols->size() - 1);
    const bool isKnown =
        std::find(std::begin(kBlindLengths), std::end(kBlindLengths), length) != std::end(kBlindLengths);
    if (!isKnown || checkSymbol(body) != symbols->back())
        return std::nullopt;
    const std::uint64_t id = scrambled(numberOfSymbols(body.substr(1)), length, prefix, true);
    return id > 0 ? std::optional(PieceId{static_cast<std::int64_t>(id)}) : std::nullopt;
}

std::string_view codeSymbols()
{
    return kSymbols;
}

std::string labCode(std::string_view prefix, PieceId piece)
{
    require(isLabPrefix(prefix), "a prefix of three symbols");
    require(piece.value > 0, "a piece with an id");
    std::string id;
    for (auto rest = static_cast<std::uint64_t>(piece.value); rest > 0; rest /= kBase)
        id.insert(id.begin(), kSymbols[rest % kBase]);
    if (id.size() < kLeastIdLength)
        id.insert(0, kLeastIdLength - id.size(), kSymbols.front());
    const std::string symbols = std::string(prefix) + id;
    return std::string(prefix) + "-" + id + checkSymbol(symbols);
}

std::optional<ReadCode> readLabCode(std::string_view text)
{
    const std::optional<std::string> read = symbolsIn(text);
    if (!read)
        return std::nullopt;
    const std::string &symbols = *read;
    if (symbols.size() < kPrefixLength + kLeastIdLength + 1 ||
        symbols.size() > kPrefixLength + kMostIdLength + 1)
        return std::nullopt;
    const std::string_view body = std::string_view(symbols).substr(0, symbols.size() - 1);
    if (checkSymbol(body) != symbols.back())
        return std::nullopt;
    const auto id = static_cast<std::int64_t>(numberOfSymbols(body.substr(kPrefixLength)));
    if (id <= 0)
        return std::nullopt;
    return ReadCode{symbols.substr(0, kPrefixLength), PieceId{id}};
}

std::string labPrefix(std::uint64_t seed)
{
    Random random(seed);
    std::string prefix;
    for (std::size_t i = 0; i < kPrefixLength; ++i)
        prefix += kSymbols[random.below(kBase)];
    return prefix;
}

bool isLabPrefix(std::string_view prefix)
{
    return prefix.size() == kPrefixLength && std::all_of(prefix.begin(), prefix.end(), [](char c) {
               return kSymbols.find(c) != std::string_view::npos;
           });
}

} // namespace inchpeg
