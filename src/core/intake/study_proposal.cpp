// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intake/study_proposal.h"

#include "core/import/heading_words.h"
#include "core/model/polymer.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>
#include <set>
#include <utility>

namespace inchpeg
{

namespace
{

using Words = std::pair<std::string_view, std::string_view>;

constexpr std::array kFactorWords = {
    Words{"nozzle", factor::kNozzleTemperature},
    Words{"nozzle temperature", factor::kNozzleTemperature},
    Words{"nozzle temp", factor::kNozzleTemperature},
    Words{"hotend", factor::kNozzleTemperature},
    Words{"extruder temperature", factor::kNozzleTemperature},
    Words{"print temperature", factor::kNozzleTemperature},
    Words{"printing temperature", factor::kNozzleTemperature},
    Words{"düse", factor::kNozzleTemperature},
    Words{"duese", factor::kNozzleTemperature},
    Words{"düsentemperatur", factor::kNozzleTemperature},
    Words{"buse", factor::kNozzleTemperature},
    Words{"bed", factor::kBedTemperature},
    Words{"bed temperature", factor::kBedTemperature},
    Words{"bett", factor::kBedTemperature},
    Words{"plateau", factor::kBedTemperature},
    Words{"chamber", factor::kChamberTemperature},
    Words{"chamber temperature", factor::kChamberTemperature},
    Words{"kammer", factor::kChamberTemperature},
    Words{"enceinte", factor::kChamberTemperature},
    Words{"fan", factor::kPartCooling},
    Words{"cooling", factor::kPartCooling},
    Words{"part cooling", factor::kPartCooling},
    Words{"lüfter", factor::kPartCooling},
    Words{"ventilateur", factor::kPartCooling},
    Words{"aux", factor::kAuxiliaryFan},
    Words{"auxiliary fan", factor::kAuxiliaryFan},
    Words{"layer", factor::kLayerHeight},
    Words{"layer height", factor::kLayerHeight},
    Words{"lh", factor::kLayerHeight},
    Words{"schicht", factor::kLayerHeight},
    Words{"schichthöhe", factor::kLayerHeight},
    Words{"couche", factor::kLayerHeight},
    Words{"speed", factor::kSpeed},
    Words{"print speed", factor::kSpeed},
    Words{"vitesse", factor::kSpeed},
    Words{"geschwindigkeit", factor::kSpeed},
    Words{"walls", factor::kWalls},
    Words{"wall", factor::kWalls},
    Words{"perimeters", factor::kWalls},
    Words{"wände", factor::kWalls},
    Words{"parois", factor::kWalls},
    Words{"infill", factor::kInfill},
    Words{"inf", factor::kInfill},
    Words{"fill", factor::kInfill},
    Words{"density", factor::kInfill},
    Words{"füllung", factor::kInfill},
    Words{"fuellung", factor::kInfill},
    Words{"remplissage", factor::kInfill},
    Words{"pattern", factor::kInfillPattern},
    Words{"infill pattern", factor::kInfillPattern},
    Words{"muster", factor::kInfillPattern},
    Words{"nozzle size", factor::kNozzleSize},
    Words{"annealing", factor::kAnnealing},
    Words{"anneal", factor::kAnnealing},
    Words{"annealed", factor::kAnnealing},
    Words{"tempern", factor::kAnnealing},
    Words{"recuit", factor::kAnnealing},
    Words{"drying", factor::kDrying},
    Words{"conditioning", factor::kConditioning},
    Words{"material", factor::kMaterial},
    Words{"polymer", factor::kMaterial},
    Words{"filament", factor::kMaterial},
    Words{"werkstoff", factor::kMaterial},
    Words{"matériau", factor::kMaterial},
    Words{"matière", factor::kMaterial},
    Words{"lot", factor::kLot},
    Words{"batch", factor::kLot},
    Words{"charge", factor::kLot},
    Words{"spool", factor::kLot},
    Words{"colour", factor::kColour},
    Words{"color", factor::kColour},
    Words{"farbe", factor::kColour},
    Words{"couleur", factor::kColour},
    Words{"orientation", factor::kOrientation},
    Words{"orient", factor::kOrientation},
    Words{"lage", factor::kOrientation},
    Words{"insert", factor::kInsertType},
    Words{"insert type", factor::kInsertType},
};

constexpr std::array<std::string_view, 14> kFlatWords = {
    "flat",   "xy",         "x-y", "lying", "liegend", "flach",  "plat",
    "à plat", "horizontal", "h",   "yx",    "on edge", "couché", "inplane"};
constexpr std::array<std::string_view, 15> kStandingWords = {
    "standing", "upright", "up", "stehend", "hochkant", "debout",   "vertical",  "v",
    "zx",       "z",       "xz", "zy",      "yz",       "vertikal", "interlayer"};

bool isAnyOf(std::span<const std::string_view> words, const std::string &word)
{
    return std::find(words.begin(), words.end(), word) != words.end();
}

/// Numbers ascend, before words in the order in which they came.
std::vector<std::string> inOrderOfLevels(std::vector<std::string> levels)
{
    std::stable_sort(levels.begin(), levels.end(), [](const std::string &a, const std::string &b) {
        const std::optional<double> x = parseTypedNumber(a);
        const std::optional<double> y = parseTypedNumber(b);
        if (x && y)
            return *x < *y;
        return x.has_value() && !y.has_value();
    });
    return levels;
}

} // namespace

std::optional<Orientation> orientationInWords(std::string_view word)
{
    const std::string small = lowered(word);
    if (isAnyOf(kFlatWords, small))
        return Orientation::Flat;
    if (isAnyOf(kStandingWords, small))
        return Orientation::Standing;
    return std::nullopt;
}

std::string_view factorInWords(std::string_view word)
{
    std::string small = lowered(word);
    std::replace(small.begin(), small.end(), '_', ' ');
    for (const auto &[written, name] : kFactorWords) {
        if (written == small)
            return name;
    }
    for (const FactorKind &kind : factorLibrary()) {
        if (kind.name == small)
            return kind.name;
    }
    return {};
}

void recogniseLevels(Factor &factor, std::vector<std::string *> levels)
{
    const auto all = [&](auto &&is) { return std::all_of(levels.begin(), levels.end(), is); };
    // Single letters may be anything, unless somebody said what they are.
    const bool areOrientations =
        all([](const std::string *level) { return orientationInWords(*level).has_value(); }) &&
        (factor.name == factor::kOrientation ||
         !all([](const std::string *level) { return level->size() == 1; }));
    const bool isNamed = !factor.name.empty();
    if (areOrientations && (!isNamed || factor.name == factor::kOrientation)) {
        factor.name = factor::kOrientation;
        for (std::string *level : levels)
            *level = orientationName(*orientationInWords(*level));
    } else if (!isNamed && all([](const std::string *level) { return polymerIn(*level).isKnown; })) {
        factor.name = factor::kMaterial;
    }
    if (const FactorKind *kind = findFactorKind(factor.name); kind != nullptr) {
        factor.changedPer = kind->changedPer;
        const bool areNumbers =
            all([](const std::string *level) { return parseTypedNumber(*level).has_value(); });
        if (factor.unit.empty() && areNumbers)
            factor.unit = kind->unit;
    }
}

void dealOntoRails(StudyProposal &proposal, const std::vector<std::size_t> &sources,
                   const std::vector<std::vector<std::string>> &levels, const std::vector<std::string> &codes)
{
    const std::size_t factors = proposal.factors.size();
    std::vector<std::vector<std::string>> order(factors);
    for (std::size_t f = 0; f < factors; ++f) {
        for (const std::vector<std::string> &one : levels) {
            if (std::find(order[f].begin(), order[f].end(), one[f]) == order[f].end())
                order[f].push_back(one[f]);
        }
        order[f] = inOrderOfLevels(std::move(order[f]));
    }
    const auto place = [&](const std::vector<std::string> &one) {
        std::vector<std::size_t> key;
        for (std::size_t f = 0; f < factors; ++f)
            key.push_back(static_cast<std::size_t>(std::find(order[f].begin(), order[f].end(), one[f]) -
                                                   order[f].begin()));
        return key;
    };
    std::map<std::vector<std::size_t>, std::size_t> railOf;
    for (const std::vector<std::string> &one : levels)
        railOf.emplace(place(one), 0);
    for (auto &[key, rail] : railOf) {
        rail = proposal.rails.size();
        ProposedRail proposed;
        for (std::size_t f = 0; f < factors; ++f) {
            proposed.levels.push_back(order[f][key[f]]);
            if (proposal.factors[f].name == factor::kOrientation)
                proposed.orientation = orientationFrom(proposed.levels.back());
            if (proposal.factors[f].name == factor::kMaterial)
                proposed.material = proposed.levels.back();
        }
        proposal.rails.push_back(std::move(proposed));
    }
    for (std::size_t i = 0; i < sources.size(); ++i)
        proposal.pieces.push_back(
            {railOf.at(place(levels[i])), sources[i], codes.empty() ? std::string() : codes[i]});
    std::stable_sort(proposal.pieces.begin(), proposal.pieces.end(),
                     [](const ProposedPiece &a, const ProposedPiece &b) { return a.rail < b.rail; });
}

Result<Study> proposedStudy(const StudyProposal &proposal, const std::string &question, Method test,
                            const IdSource &ids, std::vector<PieceId> &pieceIds)
{
    if (!proposal.open.empty())
        return invalidArgument(fmt::format("it is not clear: {}", proposal.open.front().about));
    if (proposal.rails.empty() || proposal.factors.empty())
        return invalidArgument("there is nothing of which a rail could be made");
    Study study;
    study.id = StudyId{ids()};
    study.question = question;
    study.tests = {StudyTest{test}};
    study.factors = proposal.factors;
    std::size_t most = 1;
    for (std::size_t r = 0; r < proposal.rails.size(); ++r)
        most = std::max(most, static_cast<std::size_t>(std::count_if(
                                  proposal.pieces.begin(), proposal.pieces.end(),
                                  [r](const ProposedPiece &piece) { return piece.rail == r; })));
    if (most > static_cast<std::size_t>(kMostPiecesPerCondition))
        return invalidArgument(
            fmt::format("a rail would have {} pieces; {} is the most", most, kMostPiecesPerCondition));
    study.tests.front().piecesPerCondition = static_cast<int>(most);
    for (const ProposedRail &rail : proposal.rails) {
        Condition condition{
            {}, rail.levels, rail.orientation.value_or(usualOrientation(test)), rail.material};
        if (const Status added = addCondition(study, condition, ids); !added)
            return added.error();
    }
    // Each rail has as many pieces as the fullest; the places that nothing came for go again.
    std::vector<Piece> kept;
    std::set<std::string> codes;
    pieceIds.clear();
    for (std::size_t r = 0; r < proposal.rails.size(); ++r) {
        const std::vector<const Piece *> places = piecesOf(study, study.conditions[r].id);
        std::size_t next = 0;
        for (const ProposedPiece &wanted : proposal.pieces) {
            if (wanted.rail != r)
                continue;
            Piece piece = *places[next++];
            if (!wanted.code.empty() && !codes.contains(wanted.code))
                piece.code = wanted.code;
            codes.insert(piece.code);
            pieceIds.push_back(piece.id);
            kept.push_back(std::move(piece));
        }
    }
    study.pieces = std::move(kept);
    return study;
}

} // namespace inchpeg
