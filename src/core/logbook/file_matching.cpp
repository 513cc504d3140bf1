// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/file_matching.h"

#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>
#include <numeric>
#include <set>

namespace inchpeg
{

namespace
{

constexpr std::array<std::string_view, 6> kPatterns = {"{code}",      "*_{code}",      "{code}_*",
                                                       "{level}_{n}", "*_{level}_{n}", "{level}*{n}"};

std::string lowered(std::string_view text)
{
    std::string out(text);
    for (char &c : out) {
        if (c >= 'A' && c <= 'Z')
            c = static_cast<char>(c - 'A' + 'a');
        else if (c == '-' || c == ' ')
            c = '_'; // separators are written in all ways
    }
    return out;
}

std::string stemOf(std::string_view fileName)
{
    const std::size_t dot = fileName.rfind('.');
    return lowered(fileName.substr(0, dot == 0 ? std::string_view::npos : dot));
}

std::string without(std::string text, std::string_view part)
{
    for (std::size_t at = text.find(part); !part.empty() && at != std::string::npos; at = text.find(part))
        text.erase(at, part.size());
    return text;
}

/// The ways in which a level may be written in a file name: "230", "230°c", "230c", "230_°c".
std::vector<std::string> levelSpellings(const Study &study, const Condition &condition)
{
    // With several factors their levels stand one after the other: "250_4".
    std::string level;
    for (const std::string &one : condition.levels)
        level += (level.empty() ? "" : "_") + lowered(one);
    const std::string unit = study.factors.size() == 1 ? lowered(study.factors.front().unit) : std::string();
    std::vector<std::string> spellings{level};
    if (!unit.empty()) {
        const std::string plainUnit = without(unit, "°");
        for (const std::string &suffix : {unit, plainUnit, "_" + unit, "_" + plainUnit})
            spellings.push_back(level + suffix);
    }
    if (condition.orientation == Orientation::Standing || study.conditions.size() > 1) {
        const std::size_t plain = spellings.size();
        for (std::size_t i = 0; i < plain; ++i)
            spellings.push_back(spellings[i] + "_" + std::string(orientationName(condition.orientation)));
    }
    return spellings;
}

/// Replaces a placeholder by each of its texts.
std::vector<std::string> filled(const std::string &pattern, std::string_view placeholder,
                                const std::vector<std::string> &texts)
{
    const std::size_t at = pattern.find(placeholder);
    if (at == std::string::npos)
        return {pattern};
    std::vector<std::string> out;
    for (const std::string &text : texts) {
        std::string one = pattern;
        out.push_back(one.replace(at, placeholder.size(), text));
    }
    return out;
}

/// Whether a text fits a pattern of plain characters and '*'; a '*' never ends inside a run of digits.
bool fits(std::string_view text, std::string_view pattern)
{
    if (pattern.empty())
        return text.empty();
    if (pattern.front() != '*')
        return !text.empty() && text.front() == pattern.front() && fits(text.substr(1), pattern.substr(1));
    for (std::size_t taken = 0; taken <= text.size(); ++taken) {
        const bool splitsNumber =
            taken > 0 && taken < text.size() && isDigit(text[taken - 1]) && isDigit(text[taken]);
        if (!splitsNumber && fits(text.substr(taken), pattern.substr(1)))
            return true;
    }
    return false;
}

/// The texts that name a piece under a pattern.
std::vector<std::string> namesOf(const Study &study, const Piece &piece, std::size_t number,
                                 const std::string &pattern)
{
    const Condition *condition = findCondition(study, piece.condition);
    require(condition != nullptr, "a piece without a condition");
    const std::string plain = std::to_string(number);
    const std::vector<std::string> numbers{plain, "0" + plain, "00" + plain};
    std::vector<std::string> names;
    for (const std::string &withCode : filled(pattern, "{code}", {lowered(piece.code)})) {
        for (const std::string &withLevel : filled(withCode, "{level}", levelSpellings(study, *condition))) {
            for (std::string &name : filled(withLevel, "{n}", numbers))
                names.push_back(std::move(name));
        }
    }
    return names;
}

struct PieceNames {
    PieceId piece;
    std::vector<std::string> names;
};

std::vector<PieceNames> allNames(const Study &study, const std::string &pattern,
                                 const std::optional<Method> &test)
{
    std::vector<PieceNames> all;
    std::map<ConditionId, std::size_t> numbers;
    for (const Piece &piece : study.pieces) {
        if (piece.test == test.value_or(methodOf(study)))
            all.push_back({piece.id, namesOf(study, piece, ++numbers[piece.condition], pattern)});
    }
    return all;
}

std::set<PieceId> piecesWithRecord(const Study &study)
{
    std::set<PieceId> taken;
    for (const Piece &piece : study.pieces) {
        if (piece.recording && !isGiven(piece)) // a record takes a given value's place
            taken.insert(piece.id);
    }
    return taken;
}

} // namespace

std::span<const std::string_view> usualNamePatterns()
{
    return kPatterns;
}

Result<FileMatches> matchByName(const Study &study, std::span<const std::string> fileNames,
                                std::string_view pattern, const std::optional<Method> &test)
{
    const std::string wanted = lowered(pattern);
    const bool byCode = wanted.find("{code}") != std::string::npos;
    const bool byLevel =
        wanted.find("{level}") != std::string::npos && wanted.find("{n}") != std::string::npos;
    if (!byCode && !byLevel)
        return invalidArgument(fmt::format(
            "the pattern \"{}\" needs {{code}}, or {{level}} and {{n}}; for example *_{{code}}", pattern));
    const std::vector<PieceNames> pieces = allNames(study, wanted, test);
    const std::set<PieceId> taken = piecesWithRecord(study);
    FileMatches matches;
    std::map<PieceId, std::size_t> asked;
    for (const std::string &fileName : fileNames) {
        const std::string stem = stemOf(fileName);
        std::vector<PieceId> fitting;
        for (const PieceNames &piece : pieces) {
            if (std::any_of(piece.names.begin(), piece.names.end(),
                            [&](const std::string &name) { return fits(stem, name); }))
                fitting.push_back(piece.piece);
        }
        const bool clear = fitting.size() == 1 && !taken.contains(fitting.front());
        matches.push_back(clear ? std::optional(fitting.front()) : std::nullopt);
        if (clear)
            ++asked[fitting.front()];
    }
    for (std::optional<PieceId> &match : matches) {
        if (match && asked[*match] > 1)
            match.reset();
    }
    return matches;
}

std::optional<NameMatching> bestNameMatching(const Study &study, std::span<const std::string> fileNames,
                                             const std::optional<Method> &test)
{
    std::optional<NameMatching> best;
    std::ptrdiff_t mostPlaced = 0;
    for (std::string_view pattern : kPatterns) {
        const Result<FileMatches> matches = matchByName(study, fileNames, pattern, test);
        require(matches.has_value(), "a usual pattern that is refused");
        const auto placed = std::count_if(matches->begin(), matches->end(),
                                          [](const auto &match) { return match.has_value(); });
        if (placed > mostPlaced) {
            mostPlaced = placed;
            best = NameMatching{std::string(pattern), *matches};
        }
    }
    return best;
}

FileMatches matchByOrder(const Study &study, std::span<const std::string> fileNames,
                         const std::optional<Method> &test)
{
    std::vector<std::size_t> order(fileNames.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](std::size_t i, std::size_t j) {
        return naturallyBefore(fileNames[i], fileNames[j]);
    });
    std::vector<PieceId> open;
    for (const Condition &condition : study.conditions) {
        for (const Piece *piece : piecesOf(study, condition.id)) {
            if (piece->test == test.value_or(methodOf(study)) && !piece->recording)
                open.push_back(piece->id);
        }
    }
    FileMatches matches(fileNames.size());
    for (std::size_t k = 0; k < std::min(open.size(), order.size()); ++k)
        matches[order[k]] = open[k];
    return matches;
}

bool naturallyBefore(std::string_view a, std::string_view b)
{
    while (!a.empty() && !b.empty()) {
        if (isDigit(a.front()) && isDigit(b.front())) {
            const auto takeNumber = [](std::string_view &text) {
                while (text.size() > 1 && text.front() == '0' && isDigit(text[1]))
                    text.remove_prefix(1);
                std::size_t end = 0;
                while (end < text.size() && isDigit(text[end]))
                    ++end;
                const std::string_view digits = text.substr(0, end);
                text.remove_prefix(end);
                return digits;
            };
            const std::string_view x = takeNumber(a);
            const std::string_view y = takeNumber(b);
            if (x != y)
                return x.size() != y.size() ? x.size() < y.size() : x < y;
            continue;
        }
        if (a.front() != b.front())
            return a.front() < b.front();
        a.remove_prefix(1);
        b.remove_prefix(1);
    }
    return a.size() < b.size();
}

} // namespace inchpeg
