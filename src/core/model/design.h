// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// Which combinations of levels are tested. A combination holds one level index for each factor.
using Combination = std::vector<std::size_t>;

enum class DesignKind {
    Chosen,        ///< a list made by hand
    FullFactorial, ///< each level with each
    OneAtATime,    ///< one factor changed from the reference, the others held
    Fraction,      ///< a part of the two-level factorial, factors aliased by rule
};
std::string_view designName(DesignKind design); ///< "chosen", "full", "one at a time", "fraction"
std::optional<DesignKind> designFrom(std::string_view name);

inline constexpr std::size_t kMostFactors = 4;      ///< of a study
inline constexpr std::size_t kMostConditions = 200; ///< of a study

/// levels[i] is how many levels factor i has. The first combination holds the first level of each factor, the
/// last factor changes fastest.
/// Errors: InvalidArgument where a factor has no level or there would be more than kMostConditions.
Result<std::vector<Combination>> fullFactorial(const std::vector<std::size_t> &levels);

/// The reference (first level of each factor) and every other level of each factor with it.
/// Errors: as above.
Result<std::vector<Combination>> oneAtATime(const std::vector<std::size_t> &levels);

/// A regular two-level fraction: factors are the letters A, B, C …; each generator makes one of the later
/// letters from a product of the basic ones ("D=ABC", "D=-ABC").
/// Source: Box, Hunter & Hunter (2005), Statistics for Experimenters, 2nd ed., ch. 6; the generators offered
/// are those of its table of fractions with the highest resolution.
class TwoLevelFraction
{
public:
    /// factors: 3 to 7 letters in all.
    /// Errors: InvalidArgument for a generator that is not readable, makes a letter that is not among the
    /// last ones or twice, uses a letter that is not basic, or leaves two factors alike.
    static Result<TwoLevelFraction> make(int factors, const std::vector<std::string> &generators);

    [[nodiscard]] int factors() const { return m_factors; }
    [[nodiscard]] const std::vector<std::string> &generators() const { return m_generators; }
    /// Level 0 or 1 of each factor in each run; the first run is all low but for what the generators set.
    [[nodiscard]] std::vector<Combination> runs() const;
    /// Words that equal the constant column, with their sign, shortest first: "I", "ABD", "-ACE" ….
    [[nodiscard]] std::vector<std::string> definingRelation() const;
    /// Length of the shortest word; 3 lets main effects hide pair effects.
    [[nodiscard]] int resolution() const;
    /// What an effect cannot be told from, up to this length of words: aliases("A", 2) of D=ABC is empty,
    /// aliases("AB", 2) is {"CD"}.
    [[nodiscard]] std::vector<std::string> aliases(std::string_view effect, std::size_t longest) const;

private:
    struct Word {
        unsigned letters = 0; ///< bit i stands for factor i
        int sign = 1;
    };
    TwoLevelFraction() = default;
    [[nodiscard]] static std::string text(const Word &word);

    int m_factors = 0;
    std::vector<std::string> m_generators;
    std::vector<Word> m_made;     ///< for each generated factor the product of basic ones
    std::vector<Word> m_relation; ///< all words of the defining relation, the identity first
};

/// A fraction that is offered.
struct OfferedFraction {
    int factors = 0;
    int runs = 0;
    std::vector<std::string> generators;
};
/// Fractions for this many factors (3 to 7), the one with most runs first.
std::vector<OfferedFraction> offeredFractions(int factors);

/// Each effect of one or two factors with what it is aliased with, in words: "chamber: cannot be told from
/// fan together with nozzle". names: of the factors.
std::vector<std::string> aliasSentences(const TwoLevelFraction &fraction,
                                        const std::vector<std::string> &names);

} // namespace inchpeg
