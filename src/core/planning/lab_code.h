// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/ids.h"

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

namespace inchpeg
{

/// Codes for labels: short, to be read and said aloud, one of a kind in the lab.
///
/// A code is a prefix of three symbols for the project, a dash, the piece's id in base 32 with at least three
/// symbols, and a check symbol: "K7M-24RX". The check symbol tells every single wrong symbol and nearly every
/// swap of two neighbours (Luhn's scheme modulo 32). Ids are never given twice in a project.

/// The 32 symbols: capital letters and digits without O, 0, I and 1.
std::string_view codeSymbols();

/// prefix: three symbols. Precondition: it is, and the id is above 0.
std::string labCode(std::string_view prefix, PieceId piece);

/// What a read or typed code says; case, blanks and the dash do not matter. Nothing where a symbol is not
/// among codeSymbols() or the check symbol does not fit.
struct ReadCode {
    std::string prefix;
    PieceId piece;
};
std::optional<ReadCode> readLabCode(std::string_view text);

/// A code that says nothing of where a piece belongs, for those who grade blind: "Z" and four symbols (of
/// large ids six or twelve) that neighbours in the plan do not share, and a check symbol. The same piece has
/// the same one each time. The id is scrambled by four rounds of a Feistel network keyed by the prefix, so
/// that no two pieces meet (M. Luby, C. Rackoff 1988).
std::string blindCode(std::string_view prefix, PieceId piece);

/// The piece of a label of this prefix, blind or not; nothing where it is neither.
std::optional<PieceId> pieceOfLabel(std::string_view prefix, std::string_view text);

/// A prefix drawn from this seed.
std::string labPrefix(std::uint64_t seed);
bool isLabPrefix(std::string_view prefix);

} // namespace inchpeg
