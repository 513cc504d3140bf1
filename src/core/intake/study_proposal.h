// SPDX-License-Identifier: GPL-3.0-or-later
// A study as it is proposed from what there is: names of files, fields of their heads, a table of results.
#pragma once

#include "core/model/study_edit.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// Something that the names or the table do not tell, and what it may be.
struct OpenQuestion {
    std::string about;
    std::vector<std::string> choices;
    bool operator==(const OpenQuestion &) const = default;
};

/// How one part of the names, or one column, was understood.
struct PartUse {
    enum class Role { Nothing, Counter, Factor, Code, Property, Size, Note };
    std::size_t number = 0; ///< from 1, as it is named to a person
    std::string name;       ///< of a column its heading; of a part what stands there: "3, 5"
    Role role = Role::Nothing;
    std::string meaning; ///< "the factor nozzle temperature in °C", "counts the pieces"
    bool isOpen = false; ///< it differs, and what it is has to be said
    bool operator==(const PartUse &) const = default;
};

struct ProposedRail {
    std::vector<std::string> levels;
    std::optional<Orientation> orientation;
    std::string material;
    bool operator==(const ProposedRail &) const = default;
};

struct ProposedPiece {
    std::size_t rail = 0;
    std::size_t source = 0; ///< which of the names or rows, from 0
    std::string code;       ///< of the table; empty: the program gives one
};

/// What was understood, and what was not. It is a study only where nothing is open.
struct StudyProposal {
    std::vector<Factor> factors;
    std::vector<ProposedRail> rails; ///< in the order of their levels
    std::vector<ProposedPiece> pieces;
    std::vector<PartUse> parts;
    std::vector<OpenQuestion> open;
    /// Names or rows that are like no other, with the reason.
    struct Waiting {
        std::size_t source = 0;
        std::string why;
    };
    std::vector<Waiting> waiting;
};

/// Names that a person gives a part which is no factor.
inline constexpr std::string_view kCountsPieces = "n";
inline constexpr std::string_view kMeansNothing = "-";

/// What a person says of a part: the factor that it is, or one of the two above.
struct NamedFactor {
    std::string part; ///< its number from 1, a column's heading, or the word before its numbers
    std::string name;
    std::string unit;
};

/// A study of these rails and pieces, with one test. The order of the pieces is that of the proposal.
/// pieceIds: of each proposed piece.
/// Errors: those of addCondition(); InvalidArgument where something is open.
Result<Study> proposedStudy(const StudyProposal &proposal, const std::string &question, Method test,
                            const IdSource &ids, std::vector<PieceId> &pieceIds);

/// Rails and pieces of sources that have these levels of the proposal's factors: equal levels are one rail,
/// numbers ascend. levels: of each source that takes part, as many as there are factors. codes: of each, or
/// empty.
void dealOntoRails(StudyProposal &proposal, const std::vector<std::size_t> &sources,
                   const std::vector<std::vector<std::string>> &levels,
                   const std::vector<std::string> &codes);

/// Makes "material" and "orientation" of factors whose levels say so, in the program's words.
void recogniseLevels(Factor &factor, std::vector<std::string *> levels);

/// How a piece lies, in the words of people: "flat", "liegend", "XY"; "upright", "stehend", "ZX".
std::optional<Orientation> orientationInWords(std::string_view word);

/// The factor of the library that a word means: "infill", "düse", "lh"; empty where it means none.
std::string_view factorInWords(std::string_view word);

} // namespace inchpeg
