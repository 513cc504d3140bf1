// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/summary_rows.h"

#include <algorithm>
#include <array>
#include <string>

namespace inchpeg
{

namespace
{

/// Lower case, without what summaryWord() does not count. Written in lines, since there are many of them.
constexpr std::string_view kSurely =
    " mean means average avg arithmeticmean meanvalue averagevalue sd std stdev stddev stdevs stddeviation"
    " standarddeviation samplesd samplestandarddeviation cv cov rsd coefficientofvariation variation variance"
    " median stderr standarderror sem mean±sd mittelwert mittel durchschnitt standardabweichung stabw stdabw"
    " standardabw varianz variationskoeffizient varkoeff moyenne ecarttype écarttype médiane promedio"
    " desviaciónestándar desvest deviazionestandard devst gemiddelde standaardafwijking média desviopadrão"
    " medelvärde standardavvikelse średnia odchyleniestandardowe průměr směrodatnáodchylka среднее ";
constexpr std::string_view kPerhaps = " max maximum maxi min minimum mini n count range spannweite étendue "
                                      "anzahl nombre samples s x x̄ total sum"
                                      " summe gesamt media var se mw moy ";

bool holdsWord(std::string_view words, const std::string &word)
{
    return words.find(" " + word + " ") != std::string_view::npos;
}

/// A letter of ASCII, or a byte of any other.
bool holdsLetter(std::string_view cell)
{
    return std::any_of(cell.begin(), cell.end(), [](char c) {
        const auto byte = static_cast<unsigned char>(c);
        return (byte >= 'A' && byte <= 'Z') || (byte >= 'a' && byte <= 'z') || byte >= 0x80U;
    });
}

} // namespace

SummaryWord summaryWord(std::string_view cell)
{
    constexpr std::size_t kLongestWord = 48;
    constexpr std::string_view kNotCounted = " .:()[]%-_/=\t\"";
    if (cell.empty() || cell.size() > kLongestWord || !holdsLetter(cell)) // nearly every cell is a number
        return SummaryWord::None;
    std::string word;
    for (const char c : cell) {
        if (c >= 'A' && c <= 'Z')
            word += static_cast<char>(c - 'A' + 'a');
        else if (kNotCounted.find(c) == std::string_view::npos)
            word += c;
    }
    return word.empty()                ? SummaryWord::None
           : holdsWord(kSurely, word)  ? SummaryWord::Surely
           : holdsWord(kPerhaps, word) ? SummaryWord::Perhaps
                                       : SummaryWord::None;
}

SummaryWord summaryWordOf(std::span<const std::string_view> cells, const NumberFormat &numbers)
{
    const SummaryWord last = cells.empty() ? SummaryWord::None : summaryWord(cells.back());
    SummaryWord surest = last == SummaryWord::Surely ? last : SummaryWord::None;
    for (const std::string_view cell : cells) {
        if (readCell(cell, numbers).kind == CellKind::Number)
            break;
        surest = std::max(surest, summaryWord(cell));
    }
    return surest;
}

} // namespace inchpeg
