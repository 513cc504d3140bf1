// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/reading/size_uncertainty.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// How a piece's record is to be read: everything but the record itself.
struct ReadingOrder {
    const Reduction *reduction = nullptr;
    MethodSettings settings;
    PlacedMarkers placed;
    std::string row{};                      ///< of a table with a row a specimen: the piece's code
    std::optional<SizeUncertainty> sizes{}; ///< of the section, where the test needs one
    /// What is not known and would be needed, "the cross-section". The settings hold a guess of it then, and
    /// otherGuess another one: what both give alike does not hang on it, and is all that is read.
    std::vector<std::string> missing{};
    MethodSettings otherGuess{};
    bool operator==(const ReadingOrder &) const = default;
};

/// Each parameter of the piece's test from where its value comes: the piece's section, the shape that was
/// planned, what was said for the test. workshop: for how surely the sizes are known. Errors: InvalidArgument
/// where its test is not read, or the piece has a section that is not positive and the test needs it.
Result<ReadingOrder> readingOrder(const Study &study, const Piece &piece, const Workshop &workshop);

/// True for a test that is read by the section of its piece.
bool readsBySection(const Reduction &reduction);

/// How the study's records of a test are read, without a piece.
MethodSettings testSettings(const Study &study, Method method);

/// A text that is equal for readings that would be equal: kept beside a reading, to tell whether it is still
/// good.
std::string readingInputs(const Recording &recording, const ReadingOrder &order);

} // namespace inchpeg
