// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/text/notation.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// How surely a rail differs from the reference; the interface shows it by shape and words, never by colour
/// only.
enum class Standing {
    Reference,
    NoResult,
    TooFew,     ///< one piece on either side: nothing can be said of scatter
    NoScatter,  ///< all pieces of both rails read exactly alike: no test can be made
    Bound,      ///< lower bounds among the values: a difference cannot be computed from them
    OtherKind,  ///< printed in another orientation than the reference
    OtherBreak, ///< most pieces broke in another way than those of the reference
    Higher,
    Lower,
    Listed, ///< words: listed as they were seen, never compared
    Alike,  ///< the whole interval lies within the difference that matters
    NotToldApart,
};

struct RailVerdict {
    ConditionId condition;
    Standing standing = Standing::NoResult;
    std::string sentence;      ///< what can be said against the reference
    std::string shareSentence; ///< against the flat-printed rail of the same material, or empty
    std::string meanText;      ///< "32.1 MPa (30.2 to 34.0)"
    bool isSmall = false;      ///< clear, and wholly inside of what matters
    std::string difference;    ///< "+18 %" against the reference; empty where it cannot be computed
};

struct StudyVerdict {
    std::vector<RailVerdict> rails; ///< in the study's order
    std::string headline;           ///< one sentence over all rails
    std::string procedure;          ///< how the rails were compared; empty where none were
};

/// Puts a comparison into words. A rail is called higher or lower exactly where the interval that the
/// sentence quotes, which holds together with those of the other rails, excludes no difference;
/// docs/methods.md, section "Verdicts", lists every sentence and when it is said.
StudyVerdict verdictOf(const Study &study, const StudyComparison &comparison, const Notation &notation = {});

/// A value of a property with its shown unit; decimals as given.
std::string propertyValueText(const Property &property, double value, int decimals,
                              const Notation &notation = {});

/// The same for a difference of values or their spread: of temperatures one without an offset.
std::string propertyDifferenceText(const Property &property, double difference, int decimals,
                                   const Notation &notation = {});

/// Decimals for values of a property with this uncertainty, as they are shown.
int propertyDecimals(const Property &property, double uncertainty, const Notation &notation = {});

} // namespace inchpeg
