// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/heading_words.h"

#include <algorithm>
#include <array>
#include <span>
#include <string>

namespace inchpeg
{

namespace
{

using enum ColumnQuantity;

struct Word {
    std::string_view text; ///< lower case
    ColumnQuantity quantity;
    bool isCrosshead = false;
};

/// English, German, French, Spanish, Italian, Dutch, Portuguese, Swedish, Polish, Czech and Russian.
constexpr std::array kWords = {
    Word{"force", Force},
    Word{"load", Force},
    Word{"f", Force},
    Word{"kraft", Force},
    Word{"last", Force},
    Word{"charge", Force},
    Word{"effort", Force},
    Word{"fuerza", Force},
    Word{"carga", Force},
    Word{"forza", Force},
    Word{"carico", Force},
    Word{"kracht", Force},
    Word{"força", Force},
    Word{"siła", Force},
    Word{"síla", Force},
    Word{"сила", Force},
    Word{"усилие", Force},
    Word{"нагрузка", Force},
    Word{"extension", Extension},
    Word{"ext", Extension},
    Word{"elongation", Extension},
    Word{"displacement", Extension},
    Word{"disp", Extension},
    Word{"deflection", Extension},
    Word{"deformation", Extension},
    Word{"weg", Extension},
    Word{"verlängerung", Extension},
    Word{"verformung", Extension},
    Word{"durchbiegung", Extension},
    Word{"allongement", Extension},
    Word{"déplacement", Extension},
    Word{"flèche", Extension},
    Word{"alargamiento", Extension},
    Word{"desplazamiento", Extension},
    Word{"flecha", Extension},
    Word{"allungamento", Extension},
    Word{"spostamento", Extension},
    Word{"freccia", Extension},
    Word{"verlenging", Extension},
    Word{"verplaatsing", Extension},
    Word{"doorbuiging", Extension},
    Word{"alongamento", Extension},
    Word{"deslocamento", Extension},
    Word{"förlängning", Extension},
    Word{"förskjutning", Extension},
    Word{"wydłużenie", Extension},
    Word{"przemieszczenie", Extension},
    Word{"prodloužení", Extension},
    Word{"удлинение", Extension},
    Word{"прогиб", Extension},
    Word{"перемещение", Extension, true},
    Word{"ход", Extension, true},
    Word{"travel", Extension, true},
    Word{"position", Extension, true},
    Word{"stroke", Extension, true},
    Word{"crosshead", Extension, true},
    Word{"traverse", Extension, true},
    Word{"course", Extension, true},
    Word{"corsa", Extension, true},
    Word{"strain", Strain},
    Word{"epsilon", Strain},
    Word{"dehnung", Strain},
    Word{"stauchung", Strain},
    Word{"déformation", Strain},
    Word{"deformación", Strain},
    Word{"deformazione", Strain},
    Word{"rek", Strain},
    Word{"deformação", Strain},
    Word{"töjning", Strain},
    Word{"odkształcenie", Strain},
    Word{"деформация", Strain},
    Word{"lift", Length},
    Word{"hardness", Hardness},
    Word{"shore", Hardness},
    Word{"härte", Hardness},
    Word{"dureté", Hardness},
    Word{"dureza", Hardness},
    Word{"durezza", Hardness},
    Word{"hardheid", Hardness},
    Word{"time", Time},
    Word{"elapsed", Time},
    Word{"t", Time},
    Word{"zeit", Time},
    Word{"temps", Time},
    Word{"tiempo", Time},
    Word{"tempo", Time},
    Word{"tijd", Time},
    Word{"tid", Time},
    Word{"czas", Time},
    Word{"čas", Time},
    Word{"время", Time},
    Word{"timestamp", Time},
    Word{"temperature", Temperature},
    Word{"temp", Temperature},
    Word{"temperatur", Temperature},
    Word{"température", Temperature},
    Word{"temperatura", Temperature},
    Word{"temperatuur", Temperature},
    Word{"teplota", Temperature},
    Word{"температура", Temperature},
    Word{"torque", Torque},
    Word{"moment", Torque},
    Word{"drehmoment", Torque},
    Word{"couple", Torque},
    Word{"coppia", Torque},
    Word{"koppel", Torque},
    Word{"angle", Angle},
    Word{"rotation", Angle},
    Word{"twist", Angle},
    Word{"winkel", Angle},
    Word{"ángulo", Angle},
    Word{"angolo", Angle},
    Word{"hoek", Angle},
    Word{"length", Length},
    Word{"width", Length},
    Word{"thickness", Length},
    Word{"diameter", Length},
    Word{"länge", Length},
    Word{"breite", Length},
    Word{"dicke", Length},
    Word{"durchmesser", Length},
};

/// A heading with one of these is no reading of the quantity that it names: "load rate", "force count".
constexpr std::array<std::string_view, 19> kOtherThings = {
    "rate",    "speed",   "velocity", "geschwindigkeit", "vitesse", "velocidad", "velocità",
    "count",   "counter", "number",   "index",           "cycle",   "cycles",    "humidity",
    "feuchte", "channel", "range",    "limit",           "setpoint"};

/// Last parts of German compounds.
constexpr std::array<std::string_view, 6> kLastParts = {"kraft",   "weg",        "zeit",
                                                        "dehnung", "temperatur", "winkel"};
constexpr std::string_view kTraverse = "travers";

bool isWordCharacter(char c)
{
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || static_cast<unsigned char>(c) >= 0x80;
}

const Word *knownWord(std::string_view text)
{
    for (const Word &word : kWords) {
        if (word.text == text)
            return &word;
    }
    return nullptr;
}

bool isOneOf(std::string_view word, std::span<const std::string_view> words)
{
    for (const std::string_view one : words) {
        if (one == word)
            return true;
    }
    return false;
}

/// Parts of words that say that a strain is across the pull, in the same languages.
constexpr std::array<std::string_view, 9> kAcross = {"transvers", "lateral", "quer", "trasvers",    "dwars",
                                                     "poprzeczn", "příčn",   "tvär", "width strain"};

std::optional<HeadingMeaning> meaningOf(std::string_view word)
{
    if (const Word *known = knownWord(word))
        return HeadingMeaning{known->quantity, known->isCrosshead};
    if (isOneOf(word, kOtherThings))
        return HeadingMeaning{};
    for (const std::string_view part : kLastParts) {
        if (word.ends_with(part))
            return HeadingMeaning{knownWord(part)->quantity, word.starts_with(kTraverse)};
    }
    return std::nullopt;
}

} // namespace

std::string lowered(std::string_view text)
{
    std::string out(text);
    for (std::size_t i = 0; i < out.size(); ++i) {
        const auto c = static_cast<unsigned char>(out[i]);
        const bool accented =
            i > 0 && static_cast<unsigned char>(out[i - 1]) == 0xC3U && c >= 0x80U && c <= 0x9EU;
        if ((out[i] >= 'A' && out[i] <= 'Z') || accented)
            out[i] = static_cast<char>(c + 0x20U);
        if (i > 0 && static_cast<unsigned char>(out[i - 1]) == 0xD0U && c >= 0x90U && c <= 0xAFU) {
            out[i] = static_cast<char>(c < 0xA0U ? c + 0x20U : c - 0x20U);
            out[i - 1] = c < 0xA0U ? out[i - 1] : '\xD1';
        }
    }
    return out;
}

bool saysTransverse(std::string_view name)
{
    const std::string text = lowered(name);
    return std::any_of(kAcross.begin(), kAcross.end(),
                       [&](std::string_view word) { return text.find(word) != std::string::npos; });
}

std::vector<HeadingMeaning> meaningsIn(std::string_view name)
{
    const std::string text = lowered(name);
    std::vector<HeadingMeaning> told;
    bool isOther = false;
    for (std::size_t i = 0; i < text.size();) {
        if (!isWordCharacter(text[i])) {
            ++i;
            continue;
        }
        std::size_t end = i;
        while (end < text.size() && isWordCharacter(text[end]))
            ++end;
        if (const std::optional<HeadingMeaning> meaning =
                meaningOf(std::string_view(text).substr(i, end - i))) {
            isOther = isOther || !meaning->quantity;
            told.push_back(*meaning);
        }
        i = end;
    }
    return isOther ? std::vector<HeadingMeaning>{HeadingMeaning{}} : told;
}

} // namespace inchpeg
