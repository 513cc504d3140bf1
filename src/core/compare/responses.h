// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/compare/verdict.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// What a study answers with: a property of one of its tests.
struct Response {
    Method test = Method::Tension; ///< one of the study's
    Property property;
};

/// What the tests of a study are judged by, test by test: all that is planned for where there is one test,
/// the first two of each where there are several. Tests whose records are not read have none.
std::vector<Response> responsesOf(const Study &study);

/// One rail's answer.
struct ResponseCell {
    bool isReference = false;
    std::vector<PieceValue> values;
    std::optional<double> mean;       ///< of the values that count, in working units
    std::optional<Interval> interval; ///< of the mean; none where bounds are among the values
    std::string meanText;             ///< "52.1", "≥ 52" where bounds are among the values; empty without
    RailVerdict verdict;
    std::optional<double> p; ///< of no difference to the reference, by itself; none where it is not compared
};

struct ResponseColumn {
    Response response;
    std::string unit;                ///< as the values are shown
    std::vector<ResponseCell> cells; ///< by rail, in the study's order
};

/// Rails by responses: what compareStudy() and verdictOf() say of each response.
std::vector<ResponseColumn> responseTable(const Study &study, const PieceReadings &readings,
                                          const Notation &notation = {});

/// "Against X: Y above in 3 of 8, below in 2; Z …", over the responses in which a rail could be compared; and
/// which claims do not stand where false discoveries over all of them are held to what the confidence leaves
/// (Benjamini and Hochberg).
std::string responsesHeadline(const Study &study, const std::vector<ResponseColumn> &table);

} // namespace inchpeg
