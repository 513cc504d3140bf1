// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intake/study_from_results.h"

#include "core/intake/study_from_names.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace inchpeg
{

namespace
{

using Role = ResultsColumn::Role;

void askWithoutChoices(StudyProposal &proposal, std::string about)
{
    proposal.open.emplace_back().about = std::move(about);
}

} // namespace

StudyProposal proposeFromResults(const ResultsTable &table)
{
    StudyProposal proposal;
    std::vector<std::size_t> factorColumns;
    std::string material;
    bool anyProperty = false;
    for (std::size_t c = 0; c < table.columns.size(); ++c) {
        const ResultsColumn &column = table.columns[c];
        PartUse use{c + 1, column.heading, PartUse::Role::Nothing, "left aside", false};
        switch (column.role) {
        case Role::Factor:
            factorColumns.push_back(c);
            proposal.factors.push_back(column.factor);
            use.role = PartUse::Role::Factor;
            use.meaning = column.factor.unit.empty()
                              ? fmt::format("the factor {}", column.factor.name)
                              : fmt::format("the factor {} in {}", column.factor.name, column.factor.unit);
            break;
        case Role::Property:
            anyProperty = true;
            use.role = PartUse::Role::Property;
            use.meaning = fmt::format("{} in {}", column.property, column.unit ? column.unit->symbol : "?");
            break;
        case Role::Code:
            use.role = PartUse::Role::Code;
            use.meaning = "names the pieces";
            break;
        case Role::Material:
            material = table.rows.empty() ? std::string() : table.rows.front().cells[c];
            use.meaning = "the material of all";
            break;
        case Role::Width:
        case Role::Thickness:
        case Role::Diameter:
        case Role::Weighed:
            use.role = PartUse::Role::Size;
            use.meaning = "a size or the mass of the piece";
            break;
        case Role::Note:
        case Role::Break:
            use.role = PartUse::Role::Note;
            use.meaning = "noted with the piece";
            break;
        case Role::Dated:
        case Role::Aside:
            break;
        }
        if (!column.question.empty())
            proposal.open.push_back({column.heading + ": " + column.question, column.choices});
        proposal.parts.push_back(std::move(use));
    }
    if (!anyProperty && proposal.open.empty())
        askWithoutChoices(proposal, "which column holds the results");
    std::vector<std::string> codes;
    std::set<std::string> distinctCodes;
    for (const ResultsRow &row : table.rows) {
        codes.push_back(row.code);
        distinctCodes.insert(row.code);
    }
    constexpr std::size_t kLongestCode = 24;
    const bool areCodes = distinctCodes.size() == codes.size() && !distinctCodes.contains("") &&
                          std::all_of(codes.begin(), codes.end(),
                                      [](const std::string &code) { return code.size() <= kLongestCode; });
    std::vector<std::size_t> sources;
    std::vector<std::vector<std::string>> levels;
    if (factorColumns.empty() && distinctCodes.size() == codes.size() && !codes.empty()) {
        // The names of the pieces may tell the levels: "PETG-1", "PETG-2".
        StudyProposal named = proposeFromNames({codes, {}, {}, {}});
        if (named.open.empty() && named.factors.size() <= kMostFactors) {
            named.parts = proposal.parts;
            named.open = proposal.open;
            for (ProposedPiece &piece : named.pieces)
                piece.code = areCodes ? codes[piece.source] : std::string();
            return named;
        }
    }
    if (factorColumns.empty()) {
        askWithoutChoices(proposal, "which column holds the levels that are compared");
        return proposal;
    }
    if (factorColumns.size() > kMostFactors)
        askWithoutChoices(proposal, fmt::format("which of {} columns are factors ({} are the most)",
                                                factorColumns.size(), kMostFactors));
    std::vector<std::string> usedCodes;
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        std::vector<std::string> own;
        for (const std::size_t c : factorColumns)
            own.push_back(table.rows[r].cells[c]);
        if (std::any_of(own.begin(), own.end(),
                        [](const std::string &level) { return trimmed(level).empty(); })) {
            proposal.waiting.push_back({r, fmt::format("line {} has no level", table.rows[r].line)});
            continue;
        }
        sources.push_back(r);
        levels.push_back(std::move(own));
        usedCodes.push_back(areCodes ? codes[r] : std::string());
    }
    dealOntoRails(proposal, sources, levels, usedCodes);
    for (ProposedRail &rail : proposal.rails) {
        if (rail.material.empty())
            rail.material = material;
    }
    return proposal;
}

} // namespace inchpeg
