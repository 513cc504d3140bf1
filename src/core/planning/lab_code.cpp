// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/lab_code.h"

#include "core/base/contract.h"
#include "core/base/random.h"

#include <algorithm>
#include <cctype>

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

} // namespace

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
    std::string symbols;
    for (const char c : text) {
        if (c == '-' || c == ' ')
            continue;
        const auto upper = static_cast<char>(std::toupper(static_cast<unsigned char>(c)));
        if (kSymbols.find(upper) == std::string_view::npos)
            return std::nullopt;
        symbols += upper;
    }
    if (symbols.size() < kPrefixLength + kLeastIdLength + 1 ||
        symbols.size() > kPrefixLength + kMostIdLength + 1)
        return std::nullopt;
    const std::string_view body = std::string_view(symbols).substr(0, symbols.size() - 1);
    if (checkSymbol(body) != symbols.back())
        return std::nullopt;
    std::int64_t id = 0;
    for (const char c : body.substr(kPrefixLength))
        id = id * static_cast<std::int64_t>(kBase) + static_cast<std::int64_t>(kSymbols.find(c));
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
