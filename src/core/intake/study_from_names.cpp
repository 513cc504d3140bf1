// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intake/study_from_names.h"

#include "core/import/heading_words.h"
#include "core/intake/name_parts.h"
#include "core/text/list_text.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <set>
#include <utility>

namespace inchpeg
{

namespace
{

constexpr std::array<std::string_view, 44> kWordsThatCount = {
    "run",     "r",       "nr",     "no",     "num",   "number",     "sample",     "s",           "specimen",
    "spec",    "sp",      "piece",  "p",      "test",  "nummer",     "probe",      "pruefling",   "prüfling",
    "versuch", "v",       "stück",  "essai",  "e",     "éprouvette", "eprouvette", "échantillon", "rep",
    "repeat",  "take",    "try",    "bar",    "teil",  "n",          "pc",         "id",          "x",
    "zug",     "tensile", "coupon", "record", "curve", "file",       "data",       "dogbone"};

bool isAmong(std::span<const std::string_view> words, std::string_view word)
{
    return std::find(words.begin(), words.end(), word) != words.end();
}

/// One place of the names, over all files.
struct NamePlace {
    std::vector<NamePart> parts; ///< of each file
    std::string before;          ///< the word that stands before it in all names
    std::size_t number = 0;      ///< from 1, as a person counts

    [[nodiscard]] std::string value(std::size_t file) const
    {
        const NamePart &part = parts[file];
        return part.number ? part.word + '\t' + levelOfNumber(*part.number) + part.unit : part.word;
    }
    [[nodiscard]] bool varies() const
    {
        for (std::size_t f = 1; f < parts.size(); ++f) {
            if (value(f) != value(0))
                return true;
        }
        return false;
    }
    [[nodiscard]] bool areNumbers() const
    {
        return std::all_of(parts.begin(), parts.end(),
                           [](const NamePart &part) { return part.number.has_value(); });
    }
    /// The one word before all of its numbers; empty where they have several, or none.
    [[nodiscard]] std::string word() const
    {
        for (const NamePart &part : parts) {
            if (part.word != parts.front().word)
                return {};
        }
        return parts.front().word;
    }
    [[nodiscard]] std::string unit() const
    {
        for (const NamePart &part : parts) {
            if (!part.unit.empty())
                return part.unit;
        }
        return {};
    }
};

/// "word number" of each part, for telling names of one build from others.
std::string buildOf(const std::vector<NamePart> &parts)
{
    std::string build;
    for (const NamePart &part : parts)
        build += part.isMoment ? "" : part.number ? (part.unit.empty() ? "#" : "#u") : "w";
    return build;
}

std::vector<NamePart> withoutMoments(std::vector<NamePart> parts)
{
    std::erase_if(parts, [](const NamePart &part) { return part.isMoment; });
    return parts;
}

/// Words that stand side by side as one: "PLA CF" beside "PETG". How a piece lies stays apart.
std::vector<NamePart> withJoinedWords(const std::vector<NamePart> &parts)
{
    std::vector<NamePart> joined;
    for (const NamePart &part : parts) {
        const bool mayJoin = !joined.empty() && joined.back().isWord() && part.isWord() &&
                             !orientationInWords(joined.back().word) && !orientationInWords(part.word);
        if (!mayJoin) {
            joined.push_back(part);
            continue;
        }
        joined.back().text += ' ' + part.text;
        joined.back().word += ' ' + part.word;
    }
    return joined;
}

class NamesReader
{
public:
    explicit NamesReader(const NamesRequest &request) : m_request(request) {}

    StudyProposal proposal()
    {
        if (m_request.pattern.empty())
            align();
        else
            alignByPattern();
        if (m_places.empty() || !m_proposal.open.empty())
            return std::move(m_proposal);
        nameByWordsBefore();
        applyWhatIsSaid();
        mergeTwins();
        chooseCounter();
        if (m_proposal.open.empty())
            makeFactors();
        tellParts();
        return std::move(m_proposal);
    }

private:
    [[nodiscard]] std::size_t files() const { return m_files.size(); }

    /// Names of one build stand place by place; others wait.
    void align()
    {
        std::vector<std::vector<NamePart>> all;
        for (const std::string &name : m_request.names)
            all.push_back(withoutMoments(namePartsOf(name)));
        if (countOfCommonest(all) < all.size()) {
            std::vector<std::vector<NamePart>> joined;
            for (const std::vector<NamePart> &parts : all)
                joined.push_back(withJoinedWords(parts));
            if (countOfCommonest(joined) > countOfCommonest(all))
                all = std::move(joined);
        }
        const std::string build = commonestBuild(all);
        for (std::size_t f = 0; f < all.size(); ++f) {
            if (buildOf(all[f]) == build || all.size() == 1)
                m_files.push_back(f);
            else
                m_proposal.waiting.push_back(
                    {f, fmt::format("its name is built otherwise than the others, such as \"{}\"",
                                    m_request.names[firstOf(all, build)])});
        }
        if (m_files.empty() || build.empty()) {
            ask("the names", {"say with --pattern which part of them means what"});
            return;
        }
        for (std::size_t p = 0; p < all[m_files.front()].size(); ++p) {
            NamePlace place;
            for (const std::size_t f : m_files)
                place.parts.push_back(all[f][p]);
            addPlace(std::move(place));
        }
    }

    /// "A1" to "C3" are two things: letters that differ, and a number.
    void addPlace(NamePlace place)
    {
        const bool isSplit = place.areNumbers() && place.word().empty() &&
                             std::all_of(place.parts.begin(), place.parts.end(),
                                         [](const NamePart &part) { return !part.word.empty(); });
        if (isSplit) {
            NamePlace words;
            for (NamePart &part : place.parts) {
                const std::size_t digit = std::min(part.text.find_first_of("0123456789"), part.text.size());
                words.parts.push_back(
                    {part.text.substr(0, digit), std::exchange(part.word, {}), {}, {}, false});
                part.text.erase(0, digit);
            }
            words.number = m_places.size() + 1;
            m_places.push_back(std::move(words));
        }
        place.number = m_places.size() + 1;
        m_places.push_back(std::move(place));
    }

    static std::size_t firstOf(const std::vector<std::vector<NamePart>> &all, const std::string &build)
    {
        for (std::size_t f = 0; f < all.size(); ++f) {
            if (buildOf(all[f]) == build)
                return f;
        }
        return 0;
    }
    static std::map<std::string, std::size_t> buildsOf(const std::vector<std::vector<NamePart>> &all)
    {
        std::map<std::string, std::size_t> builds;
        for (const std::vector<NamePart> &parts : all)
            ++builds[buildOf(parts)];
        return builds;
    }
    static std::string commonestBuild(const std::vector<std::vector<NamePart>> &all)
    {
        std::string best;
        std::size_t most = 0;
        for (const auto &[build, count] : buildsOf(all)) {
            if (count > most) {
                most = count;
                best = build;
            }
        }
        return best;
    }
    static std::size_t countOfCommonest(const std::vector<std::vector<NamePart>> &all)
    {
        std::size_t most = 0;
        for (const auto &[build, count] : buildsOf(all))
            most = std::max(most, count);
        return most;
    }

    /// "{material}_{nozzle temperature}_{n}": what stands between the braces names the part.
    void alignByPattern()
    {
        std::vector<std::string> holes;
        std::vector<std::string> literals{{}};
        const std::string &pattern = m_request.pattern;
        for (std::size_t at = 0; at < pattern.size();) {
            const std::size_t close = pattern[at] == '{' ? pattern.find('}', at) : std::string::npos;
            if (pattern[at] == '*' || close != std::string::npos) {
                holes.push_back(pattern[at] == '*' ? std::string("*")
                                                   : pattern.substr(at + 1, close - at - 1));
                literals.emplace_back();
                at = pattern[at] == '*' ? at + 1 : close + 1;
            } else {
                literals.back() += pattern[at++];
            }
        }
        if (std::none_of(holes.begin(), holes.end(), [](const std::string &hole) { return hole != "*"; })) {
            ask("the pattern", {"name its parts in braces: {material}_{n}"});
            return;
        }
        m_places.resize(holes.size());
        for (std::size_t f = 0; f < m_request.names.size(); ++f) {
            const std::optional<std::vector<std::string>> filled =
                holesOf(m_request.names[f], literals, holes.size());
            if (!filled) {
                m_proposal.waiting.push_back({f, fmt::format("its name does not fit \"{}\"", pattern)});
                continue;
            }
            m_files.push_back(f);
            for (std::size_t h = 0; h < holes.size(); ++h) {
                std::vector<NamePart> parts = withoutMoments(namePartsOf((*filled)[h] + ".x"));
                NamePart part{(*filled)[h], lowered((*filled)[h]), {}, {}, false};
                if (parts.size() == 1)
                    part = parts.front();
                m_places[h].parts.push_back(std::move(part));
            }
        }
        for (std::size_t h = 0; h < holes.size(); ++h) {
            m_places[h].number = h + 1;
            if (holes[h] == "n")
                m_counter = h;
            else if (holes[h] == "*")
                m_isNothing.insert(h);
            else
                m_said[h] = {{}, holes[h], {}};
        }
        if (m_files.empty()) {
            m_places.clear();
            ask("the pattern", {fmt::format("\"{}\" fits none of the names", pattern)});
        }
    }

    /// What stands in the holes of a pattern; its ending may be left out.
    static std::optional<std::vector<std::string>>
    holesOf(const std::string &name, const std::vector<std::string> &literals, std::size_t count)
    {
        std::string text = name;
        if (const std::size_t dot = text.rfind('.');
            dot != std::string::npos && literals.back().find('.') == std::string::npos)
            text.resize(dot);
        std::vector<std::string> filled;
        if (!text.starts_with(literals.front()))
            return std::nullopt;
        std::size_t at = literals.front().size();
        for (std::size_t h = 0; h < count; ++h) {
            const std::string &next = literals[h + 1];
            const std::size_t end =
                h + 1 == count ? (text.ends_with(next) ? text.size() - next.size() : std::string::npos)
                : next.empty() ? std::string::npos
                               : text.find(next, at);
            if (end == std::string::npos || end < at)
                return std::nullopt;
            filled.push_back(text.substr(at, end - at));
            at = end + next.size();
        }
        return filled;
    }

    /// A word that stands before a number in all names says what it is: "infill_40".
    void nameByWordsBefore()
    {
        for (std::size_t p = 1; p < m_places.size(); ++p) {
            const NamePlace &word = m_places[p - 1];
            if (m_places[p].areNumbers() && m_places[p].word().empty() && word.parts.front().isWord() &&
                !word.varies())
                m_places[p].before = word.parts.front().word;
        }
    }

    void applyWhatIsSaid()
    {
        for (const NamedFactor &factor : m_request.factors) {
            const std::optional<std::size_t> place = placeOf(factor.part);
            if (!place) {
                ask(fmt::format("the part \"{}\" of factor \"{}\"", factor.part, factor.name), partChoices());
                continue;
            }
            if (factor.name == kCountsPieces)
                m_counter = *place;
            else if (factor.name == kMeansNothing)
                m_isNothing.insert(*place);
            else
                m_said[*place] = factor;
        }
    }

    [[nodiscard]] std::optional<std::size_t> placeOf(const std::string &part) const
    {
        std::size_t number = 0;
        const auto read = std::from_chars(part.data(), part.data() + part.size(), number);
        for (std::size_t p = 0; p < m_places.size(); ++p) {
            const bool isNumbered = read.ec == std::errc() && read.ptr == part.data() + part.size() &&
                                    m_places[p].number == number;
            const bool isWord =
                !part.empty() &&
                (m_places[p].word() == lowered(part) || m_places[p].before == lowered(part)) &&
                m_places[p].areNumbers();
            if (isNumbered || isWord)
                return p;
        }
        return std::nullopt;
    }

    [[nodiscard]] std::vector<std::string> partChoices() const
    {
        std::vector<std::string> choices;
        for (const NamePlace &place : m_places) {
            if (place.varies())
                choices.push_back(fmt::format("part {}: {}", place.number, valuesText(place)));
        }
        return choices;
    }

    [[nodiscard]] std::string valuesText(const NamePlace &place) const
    {
        std::vector<std::string> seen;
        for (const NamePart &part : place.parts) {
            if (std::find(seen.begin(), seen.end(), part.text) == seen.end())
                seen.push_back(part.text);
        }
        constexpr std::size_t kShown = 4;
        if (seen.size() > kShown)
            return fmt::format("{}, {} … {}", seen[0], seen[1], seen.back());
        return fmt::format("{}", fmt::join(seen, ", "));
    }

    /// Two places of which each tells the other are one: "petg-blk", or a rail's letter beside its level.
    void mergeTwins()
    {
        for (std::size_t a = 0; a < m_places.size(); ++a) {
            for (std::size_t b = a + 1; b < m_places.size();) {
                if (!mayMerge(a, b)) {
                    ++b;
                    continue;
                }
                const bool keepB = isBetter(b, a);
                const std::size_t gone = keepB ? a : b;
                if (m_places[a].parts.front().isWord() && m_places[b].parts.front().isWord() && b == a + 1 &&
                    !isSaidOrLetter(a) && !isSaidOrLetter(b))
                    join(a, b);
                m_isNothing.insert(gone);
                if (keepB)
                    break;
                ++b;
            }
        }
    }

    [[nodiscard]] bool isSaidOrLetter(std::size_t p) const
    {
        return m_said.contains(p) || std::all_of(m_places[p].parts.begin(), m_places[p].parts.end(),
                                                 [](const NamePart &part) { return part.text.size() == 1; });
    }

    [[nodiscard]] bool mayMerge(std::size_t a, std::size_t b) const
    {
        if (m_isNothing.contains(a) || m_isNothing.contains(b) || !m_places[a].varies() ||
            !m_places[b].varies() || (m_said.contains(a) && m_said.contains(b)) || m_counter == a ||
            m_counter == b)
            return false;
        std::map<std::string, std::string> there;
        std::map<std::string, std::string> back;
        for (std::size_t f = 0; f < files(); ++f) {
            const std::string x = m_places[a].value(f);
            const std::string y = m_places[b].value(f);
            if (there.emplace(x, y).first->second != y || back.emplace(y, x).first->second != x)
                return false;
        }
        return there.size() < files() || files() == 1; // of places that count each file nothing is known
    }

    /// Which of two that say the same says more: what was named, a number with a unit, a word with letters.
    [[nodiscard]] bool isBetter(std::size_t a, std::size_t b) const
    {
        const auto rank = [&](std::size_t p) {
            const NamePlace &place = m_places[p];
            return m_said.contains(p)                                           ? 5
                   : !place.unit().empty()                                      ? 4
                   : place.areNumbers() && !factorInWords(place.word()).empty() ? 4
                   : place.areNumbers() && !factorInWords(place.before).empty() ? 4
                   : isSaidOrLetter(p)                                          ? 1
                   : place.areNumbers()                                         ? 2
                                                                                : 3;
        };
        return rank(a) > rank(b);
    }

    void join(std::size_t a, std::size_t b)
    {
        for (std::size_t f = 0; f < files(); ++f) {
            m_places[a].parts[f].text += ' ' + m_places[b].parts[f].text;
            m_places[a].parts[f].word += ' ' + m_places[b].parts[f].word;
        }
    }

    [[nodiscard]] bool mayCount(std::size_t p) const
    {
        const NamePlace &place = m_places[p];
        if (!place.varies() || m_said.contains(p) || m_isNothing.contains(p))
            return false;
        if (place.areNumbers())
            return place.unit().empty() &&
                   std::all_of(place.parts.begin(), place.parts.end(), [](const NamePart &part) {
                       return *part.number >= 0.0 && *part.number == std::floor(*part.number);
                   });
        return std::all_of(place.parts.begin(), place.parts.end(),
                           [](const NamePart &part) { return part.isWord() && part.text.size() == 1; });
    }

    [[nodiscard]] std::string othersOf(std::size_t file, std::size_t counter) const
    {
        std::string key;
        for (std::size_t p = 0; p < m_places.size(); ++p) {
            if (p != counter && !m_isNothing.contains(p))
                key += m_places[p].value(file) + '\n';
        }
        return key;
    }

    /// Groups of files that agree in all but this place, with their numbers.
    [[nodiscard]] std::map<std::string, std::vector<double>> groupsOf(std::size_t counter) const
    {
        std::map<std::string, std::vector<double>> groups;
        for (std::size_t f = 0; f < files(); ++f) {
            const NamePart &part = m_places[counter].parts[f];
            groups[othersOf(f, counter)].push_back(part.number ? *part.number
                                                               : static_cast<double>(part.word.front()));
        }
        return groups;
    }

    /// How surely a place counts the pieces; nothing where it cannot.
    [[nodiscard]] std::optional<int> countingScore(std::size_t p) const
    {
        const NamePlace &place = m_places[p];
        std::map<std::string, std::vector<double>> groups = groupsOf(p);
        int consecutive = 0;
        std::size_t largest = 0;
        for (auto &[key, numbers] : groups) {
            std::sort(numbers.begin(), numbers.end());
            if (std::adjacent_find(numbers.begin(), numbers.end()) != numbers.end())
                return std::nullopt; // two files would be one piece
            largest = std::max(largest, numbers.size());
            const bool isRow = numbers.back() - numbers.front() < static_cast<double>(numbers.size()) + 1.0;
            const double first = place.areNumbers() ? numbers.front() : numbers.front() - 'a' + 1.0;
            consecutive += isRow && first <= 1.0 ? 2 : isRow ? 1 : 0;
        }
        if (largest < 2)
            return std::nullopt;
        const auto count = static_cast<int>(groups.size());
        int score = 0;
        score += consecutive >= 2 * count - 1 ? 5 : consecutive >= count ? 4 : 0;
        score += p + 1 == m_places.size() ? 2 : 0;
        score -= place.areNumbers() ? 0 : 2; // letters name rails as often as they count
        score += isAmong(kWordsThatCount, place.word()) || isAmong(kWordsThatCount, place.before) ? 4 : 0;
        score -= !factorInWords(place.word()).empty() || !factorInWords(place.before).empty() ? 7 : 0;
        const bool hasZeros = std::any_of(place.parts.begin(), place.parts.end(), [](const NamePart &part) {
            const std::size_t digit = part.text.find_first_of("0123456789");
            return digit != std::string::npos && part.text[digit] == '0' && part.text.size() > digit + 1;
        });
        score += hasZeros ? 2 : 0;
        return score;
    }

    void chooseCounter()
    {
        constexpr int kLeastScore = 4;
        constexpr int kClearLead = 3;
        if (m_counter) {
            if (!countingScore(*m_counter))
                ask("which piece is which", {"two names have the same level and the same number"});
            return;
        }
        int best = kLeastScore - 1;
        int second = 0;
        for (std::size_t p = 0; p < m_places.size(); ++p) {
            const std::optional<int> score = mayCount(p) ? countingScore(p) : std::nullopt;
            if (!score)
                continue;
            if (*score > best) {
                second = m_counter ? best : second;
                best = *score;
                m_counter = p;
            } else {
                second = std::max(second, *score);
            }
        }
        if (!m_counter)
            ask("which part of the names counts the pieces", partChoices());
        else if (second >= kLeastScore && best - second < kClearLead) {
            m_counter.reset();
            ask("which part of the names counts the pieces", partChoices());
        }
    }

    void makeFactors()
    {
        std::vector<std::size_t> varying;
        for (std::size_t p = 0; p < m_places.size(); ++p) {
            if (m_places[p].varies() && m_counter != p && !m_isNothing.contains(p))
                varying.push_back(p);
        }
        std::vector<std::vector<std::string>> levels(files());
        for (const std::size_t p : varying)
            addFactor(p, levels);
        if (varying.empty())
            addFactorsOfHeads(levels);
        if (m_proposal.factors.empty()) {
            ask("what differs between the files", {"their names and heads tell no level"});
            return;
        }
        if (m_proposal.factors.size() > kMostFactors) {
            ask(fmt::format("which of {} parts are factors ({} are the most)", m_proposal.factors.size(),
                            kMostFactors),
                partChoices());
            return;
        }
        numberTheNameless();
        inOrderOfCounting(levels);
        dealOntoRails(m_proposal, m_order, levels, {});
    }

    void addFactor(std::size_t p, std::vector<std::vector<std::string>> &levels)
    {
        const NamePlace &place = m_places[p];
        Factor factor;
        const auto said = m_said.find(p);
        if (said != m_said.end())
            factor = {said->second.name, said->second.unit, ChangedPer::Plate};
        else
            factor.name = factorInWords(
                place.areNumbers() ? (place.word().empty() ? place.before : place.word()) : std::string());
        const bool isOneWord = place.areNumbers() && (place.word() == place.parts.front().word);
        std::vector<std::string> own(files());
        std::map<std::string, std::string> firstSpelling;
        for (std::size_t f = 0; f < files(); ++f) {
            const NamePart &part = place.parts[f];
            own[f] = isOneWord ? levelOfNumber(*part.number)
                               : firstSpelling.emplace(place.value(f), part.text).first->second;
        }
        if (isOneWord && factor.unit.empty())
            factor.unit = place.unit();
        std::vector<std::string *> all;
        for (std::string &level : own)
            all.push_back(&level);
        recogniseLevels(factor, all);
        nameByHeads(factor, own);
        m_proposal.factors.push_back(factor);
        m_factorOf[p] = m_proposal.factors.size() - 1;
        for (std::size_t f = 0; f < files(); ++f)
            levels[f].push_back(own[f]);
    }

    /// A field of the heads that holds the same levels names the factor.
    void nameByHeads(Factor &factor, const std::vector<std::string> &levels) const
    {
        if (!factor.name.empty() || m_request.heads.empty())
            return;
        for (const auto &[field, value] : m_request.heads[m_files.front()]) {
            const std::string_view known = factorInWords(field);
            const bool isSame =
                !known.empty() && std::all_of(m_files.begin(), m_files.end(), [&](std::size_t file) {
                    const auto found = m_request.heads[file].find(field);
                    const std::size_t f = static_cast<std::size_t>(
                        std::find(m_files.begin(), m_files.end(), file) - m_files.begin());
                    return found != m_request.heads[file].end() && holdsLevel(found->second, levels[f]);
                });
            if (isSame) {
                factor.name = known;
                if (factor.unit.empty()) {
                    if (const FactorKind *kind = findFactorKind(factor.name);
                        kind != nullptr && parseTypedNumber(levels.front()))
                        factor.unit = kind->unit;
                }
                return;
            }
        }
    }

    static bool holdsLevel(const std::string &field, const std::string &level)
    {
        const std::optional<double> number = parseTypedNumber(field.substr(0, numberPrefixLength(field)));
        const std::optional<double> wanted = parseTypedNumber(level);
        return wanted ? number && *number == *wanted : lowered(field) == lowered(level);
    }

    /// Where names tell no level, a field that the heads of several files share does.
    void addFactorsOfHeads(std::vector<std::vector<std::string>> &levels)
    {
        if (m_request.heads.empty())
            return;
        for (const auto &[field, first] : m_request.heads[m_files.front()]) {
            const std::string_view known = factorInWords(field);
            std::set<std::string> distinct;
            std::vector<std::string> own;
            for (const std::size_t file : m_files) {
                const auto found = m_request.heads[file].find(field);
                own.push_back(found == m_request.heads[file].end() ? std::string() : found->second);
                distinct.insert(own.back());
            }
            if (known.empty() || distinct.contains(std::string()) || distinct.size() < 2 ||
                2 * distinct.size() > files())
                continue;
            Factor factor{std::string(known), {}, ChangedPer::Plate};
            const bool areNumbers = std::all_of(own.begin(), own.end(), [](const std::string &value) {
                return numberPrefixLength(value) > 0 && !orientationInWords(value);
            });
            for (std::string &value : own) {
                if (!areNumbers)
                    continue;
                const std::size_t length = numberPrefixLength(value);
                const std::vector<NamePart> parts = namePartsOf(value + ".x");
                if (parts.size() == 1 && !parts.front().unit.empty())
                    factor.unit = parts.front().unit;
                value = levelOfNumber(parseTypedNumber(value.substr(0, length)).value_or(0.0));
            }
            std::vector<std::string *> all;
            for (std::string &value : own)
                all.push_back(&value);
            recogniseLevels(factor, all);
            m_proposal.factors.push_back(factor);
            for (std::size_t f = 0; f < files(); ++f)
                levels[f].push_back(own[f]);
        }
    }

    void numberTheNameless()
    {
        int number = 0;
        for (Factor &factor : m_proposal.factors) {
            if (factor.name.empty())
                factor.name = fmt::format("factor {}", ++number);
        }
    }

    /// Pieces stand on their rails in the order of their numbers.
    void inOrderOfCounting(std::vector<std::vector<std::string>> &levels)
    {
        std::vector<std::size_t> order(files());
        for (std::size_t f = 0; f < files(); ++f)
            order[f] = f;
        const auto numberOf = [&](std::size_t f) {
            const NamePart &part = m_places[*m_counter].parts[f];
            return part.number ? *part.number : static_cast<double>(part.word.front());
        };
        std::stable_sort(order.begin(), order.end(),
                         [&](std::size_t a, std::size_t b) { return numberOf(a) < numberOf(b); });
        std::vector<std::vector<std::string>> sorted;
        for (const std::size_t f : order) {
            m_order.push_back(m_files[f]);
            sorted.push_back(levels[f]);
        }
        levels = std::move(sorted);
    }

    void tellParts()
    {
        for (std::size_t p = 0; p < m_places.size(); ++p) {
            const NamePlace &place = m_places[p];
            const bool isOpen = place.varies() && !m_counter && !m_isNothing.contains(p);
            PartUse use{place.number, valuesText(place), PartUse::Role::Nothing,
                        isOpen           ? "has to be said"
                        : place.varies() ? "means nothing"
                                         : "the same in all names",
                        isOpen};
            if (m_counter == p) {
                use.role = PartUse::Role::Counter;
                use.meaning = "counts the pieces";
            } else if (const auto factor = m_factorOf.find(p); factor != m_factorOf.end()) {
                const Factor &told = m_proposal.factors[factor->second];
                use.role = PartUse::Role::Factor;
                use.meaning = told.unit.empty() ? fmt::format("the factor {}", told.name)
                                                : fmt::format("the factor {} in {}", told.name, told.unit);
            }
            m_proposal.parts.push_back(std::move(use));
        }
    }

    void ask(std::string about, std::vector<std::string> choices)
    {
        m_proposal.open.push_back({std::move(about), std::move(choices)});
    }

    const NamesRequest &m_request;
    StudyProposal m_proposal;
    std::vector<std::size_t> m_files; ///< those that take part, as places in the request
    std::vector<std::size_t> m_order; ///< the same by their numbers
    std::vector<NamePlace> m_places;
    std::map<std::size_t, NamedFactor> m_said;
    std::set<std::size_t> m_isNothing;
    std::map<std::size_t, std::size_t> m_factorOf; ///< of a place, which of the proposal's factors
    std::optional<std::size_t> m_counter;
};

} // namespace

StudyProposal proposeFromNames(const NamesRequest &request)
{
    return NamesReader(request).proposal();
}

} // namespace inchpeg
