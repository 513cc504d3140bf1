// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/design.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <bit>
#include <numeric>

namespace inchpeg
{

namespace
{

constexpr int kLeastFractionFactors = 3;
constexpr int kMostFractionFactors = 7;

constexpr std::pair<DesignKind, std::string_view> kDesigns[] = {{DesignKind::Chosen, "chosen"},
                                                                {DesignKind::FullFactorial, "full"},
                                                                {DesignKind::OneAtATime, "one at a time"},
                                                                {DesignKind::Fraction, "fraction"}};

Status checkLevels(const std::vector<std::size_t> &levels, std::size_t conditions)
{
    if (levels.empty() || std::find(levels.begin(), levels.end(), 0U) != levels.end())
        return invalidArgument("each factor needs at least one level");
    if (conditions > kMostConditions)
        return invalidArgument(fmt::format(
            "that makes {} conditions; {} at most. Take fewer levels, or change one factor at a time",
            conditions, kMostConditions));
    return ok();
}

} // namespace

std::string_view designName(DesignKind design)
{
    for (const auto &[known, name] : kDesigns) {
        if (known == design)
            return name;
    }
    throw ContractViolation("unknown design");
}

std::optional<DesignKind> designFrom(std::string_view name)
{
    for (const auto &[design, known] : kDesigns) {
        if (known == name)
            return design;
    }
    return std::nullopt;
}

Result<std::vector<Combination>> fullFactorial(const std::vector<std::size_t> &levels)
{
    std::size_t count = 1;
    for (const std::size_t n : levels)
        count = std::min(count * n, 100 * kMostConditions); // far enough, without overflow
    if (const Status status = checkLevels(levels, count); !status)
        return status.error();
    std::vector<Combination> all;
    Combination now(levels.size(), 0);
    for (std::size_t i = 0; i < count; ++i) {
        all.push_back(now);
        for (std::size_t f = levels.size(); f-- > 0;) {
            if (++now[f] < levels[f])
                break;
            now[f] = 0;
        }
    }
    return all;
}

Result<std::vector<Combination>> oneAtATime(const std::vector<std::size_t> &levels)
{
    std::size_t count = 1;
    for (const std::size_t n : levels)
        count += n > 0 ? n - 1 : 0;
    if (const Status status = checkLevels(levels, count); !status)
        return status.error();
    std::vector<Combination> all{Combination(levels.size(), 0)};
    for (std::size_t f = 0; f < levels.size(); ++f) {
        for (std::size_t level = 1; level < levels[f]; ++level) {
            all.push_back(all.front());
            all.back()[f] = level;
        }
    }
    return all;
}

std::string TwoLevelFraction::text(const Word &word)
{
    std::string out = word.sign < 0 ? "-" : "";
    if (word.letters == 0)
        return out + "I";
    for (unsigned i = 0; i < 26; ++i) {
        if ((word.letters >> i & 1U) != 0)
            out += static_cast<char>('A' + i);
    }
    return out;
}

Result<TwoLevelFraction> TwoLevelFraction::make(int factors, const std::vector<std::string> &generators)
{
    const auto made = static_cast<int>(generators.size());
    const int basic = factors - made;
    if (factors < kLeastFractionFactors || factors > kMostFractionFactors || made < 1 || basic < 2)
        return invalidArgument(
            fmt::format("a fraction has {} to {} factors, one or more of them made from at "
                        "least two others",
                        kLeastFractionFactors, kMostFractionFactors));
    TwoLevelFraction fraction;
    fraction.m_factors = factors;
    fraction.m_generators = generators;
    fraction.m_made.resize(static_cast<std::size_t>(made));
    const auto refused = [](const std::string &generator) {
        return invalidArgument(
            fmt::format("\"{}\" is no generator; write for example D=ABC, a later letter made from the "
                        "earlier ones",
                        generator));
    };
    for (const std::string &generator : generators) {
        const int index = generator.empty() ? -1 : generator[0] - 'A' - basic;
        if (generator.size() < 4 || generator[1] != '=' || index < 0 || index >= made)
            return refused(generator);
        Word word;
        std::size_t at = 2;
        if (generator[at] == '-') {
            word.sign = -1;
            ++at;
        }
        for (; at < generator.size(); ++at) {
            const int letter = generator[at] - 'A';
            if (letter < 0 || letter >= basic || (word.letters >> letter & 1U) != 0)
                return refused(generator);
            word.letters |= 1U << letter;
        }
        Word &slot = fraction.m_made[static_cast<std::size_t>(index)];
        if (slot.letters != 0 || std::popcount(word.letters) < 2)
            return refused(generator);
        slot = word;
    }
    for (unsigned subset = 0; subset < 1U << made; ++subset) {
        Word product;
        for (int g = 0; g < made; ++g) {
            if ((subset >> g & 1U) == 0)
                continue;
            product.letters ^= fraction.m_made[static_cast<std::size_t>(g)].letters | 1U << (basic + g);
            product.sign *= fraction.m_made[static_cast<std::size_t>(g)].sign;
        }
        fraction.m_relation.push_back(product);
    }
    std::stable_sort(
        fraction.m_relation.begin(), fraction.m_relation.end(), [](const Word &a, const Word &b) {
            const int lengthA = std::popcount(a.letters);
            const int lengthB = std::popcount(b.letters);
            return lengthA != lengthB ? lengthA < lengthB : text({a.letters, 1}) < text({b.letters, 1});
        });
    if (fraction.resolution() < 3)
        return invalidArgument("these generators make two factors change together in every run");
    return fraction;
}

std::vector<Combination> TwoLevelFraction::runs() const
{
    const int basic = m_factors - static_cast<int>(m_made.size());
    std::vector<Combination> runs;
    for (unsigned run = 0; run < 1U << basic; ++run) {
        Combination levels(static_cast<std::size_t>(m_factors), 0);
        for (int f = 0; f < basic; ++f) // the first factor changes fastest: standard order
            levels[static_cast<std::size_t>(f)] = run >> f & 1U;
        for (std::size_t g = 0; g < m_made.size(); ++g) {
            // A product of columns of −1 and +1: low where an odd number of its letters is low.
            const int low = std::popcount(m_made[g].letters & ~run);
            const bool high = (low % 2 == 0) == (m_made[g].sign > 0);
            levels[static_cast<std::size_t>(basic) + g] = high ? 1 : 0;
        }
        runs.push_back(std::move(levels));
    }
    return runs;
}

std::vector<std::string> TwoLevelFraction::definingRelation() const
{
    std::vector<std::string> words;
    for (const Word &word : m_relation)
        words.push_back(text(word));
    return words;
}

int TwoLevelFraction::resolution() const
{
    return std::popcount(m_relation.at(1).letters);
}

std::vector<std::string> TwoLevelFraction::aliases(std::string_view effect, std::size_t longest) const
{
    unsigned letters = 0;
    for (const char letter : effect) {
        require(letter >= 'A' && letter < 'A' + m_factors, "an effect names letters of the fraction");
        letters |= 1U << (letter - 'A');
    }
    std::vector<Word> found;
    for (std::size_t i = 1; i < m_relation.size(); ++i) {
        const Word product{m_relation[i].letters ^ letters, m_relation[i].sign};
        if (static_cast<std::size_t>(std::popcount(product.letters)) <= longest)
            found.push_back(product);
    }
    std::sort(found.begin(), found.end(), [](const Word &a, const Word &b) {
        const int lengthA = std::popcount(a.letters);
        const int lengthB = std::popcount(b.letters);
        return lengthA != lengthB ? lengthA < lengthB : text({a.letters, 1}) < text({b.letters, 1});
    });
    std::vector<std::string> texts;
    for (const Word &word : found)
        texts.push_back(text(word));
    return texts;
}

std::vector<OfferedFraction> offeredFractions(int factors)
{
    // Box, Hunter & Hunter (2005), table 6.22; the same in NIST/SEMATECH e-Handbook, 5.3.3.4.7 (from memory).
    static const std::vector<OfferedFraction> kAll = {
        {3, 4, {"C=AB"}},
        {4, 8, {"D=ABC"}},
        {5, 16, {"E=ABCD"}},
        {5, 8, {"D=AB", "E=AC"}},
        {6, 32, {"F=ABCDE"}},
        {6, 16, {"E=ABC", "F=BCD"}},
        {6, 8, {"D=AB", "E=AC", "F=BC"}},
        {7, 64, {"G=ABCDEF"}},
        {7, 32, {"F=ABCD", "G=ABDE"}},
        {7, 16, {"E=ABC", "F=BCD", "G=ACD"}},
        {7, 8, {"D=AB", "E=AC", "F=BC", "G=ABC"}},
    };
    std::vector<OfferedFraction> offered;
    std::copy_if(kAll.begin(), kAll.end(), std::back_inserter(offered),
                 [factors](const OfferedFraction &fraction) { return fraction.factors == factors; });
    return offered;
}

namespace
{

/// "AB" as "fan together with chamber".
std::string inWords(std::string_view letters, const std::vector<std::string> &names)
{
    std::vector<std::string> parts;
    for (const char letter : letters) {
        if (letter != '-')
            parts.push_back(names.at(static_cast<std::size_t>(letter - 'A')));
    }
    return fmt::format("{}", fmt::join(parts, " together with "));
}

} // namespace

std::vector<std::string> aliasSentences(const TwoLevelFraction &fraction,
                                        const std::vector<std::string> &names)
{
    require(names.size() == static_cast<std::size_t>(fraction.factors()), "a name for each factor");
    std::vector<std::string> effects;
    for (int a = 0; a < fraction.factors(); ++a)
        effects.emplace_back(1, static_cast<char>('A' + a));
    for (int a = 0; a < fraction.factors(); ++a) {
        for (int b = a + 1; b < fraction.factors(); ++b)
            effects.push_back({static_cast<char>('A' + a), static_cast<char>('A' + b)});
    }
    std::vector<std::string> sentences;
    std::vector<std::string> told;
    for (const std::string &effect : effects) {
        const std::vector<std::string> others = fraction.aliases(effect, 2);
        if (others.empty() || std::find(told.begin(), told.end(), effect) != told.end())
            continue;
        std::vector<std::string> words;
        for (const std::string &other : others) {
            words.push_back(inWords(other, names));
            told.push_back(other.front() == '-' ? other.substr(1) : other);
        }
        sentences.push_back(fmt::format("The effect of {} cannot be told from that of {}.",
                                        inWords(effect, names), fmt::join(words, ", or of ")));
    }
    return sentences;
}

} // namespace inchpeg
