// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/reading/size_uncertainty.h"

#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// What is logged about a piece with a number or a text: the columns of the entry grid, of pasted tables and
/// of the log's own files.
// g++ 12 takes scoped enumerators for shadows of the quantity types of the same names.
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wshadow"
enum class LogField { Width, Thickness, Diameter, Area, Mass, Length, Note };
#pragma GCC diagnostic pop
std::string_view fieldWord(LogField field); ///< "width", "mass" …
bool isSize(LogField field);                ///< width, thickness or diameter: may have several readings

/// A place in the log: a field and which of its readings, from 0.
struct LogPlace {
    LogField field = LogField::Width;
    int reading = 0;
    auto operator<=>(const LogPlace &) const = default;
};
/// "width 2" where the study takes several readings, else "width".
std::string placeName(const MeasuringRule &rule, const LogPlace &place);

/// The places that are filled for each piece of a study, in the order of the walk: sizes, mass, the known
/// length, note.
std::vector<LogPlace> loggedPlaces(const Study &study);

/// The rule for sizes that is usual for a method: mean of three for tension and bending (ISO 527-1:2019 and
/// ISO 178:2019 measure in the middle and near both ends, from memory), else one reading.
MeasuringRule usualMeasuring(Method method);

/// Several readings as one: their mean or the smallest. Precondition: not empty, all above zero.
double takenTogether(std::span<const double> readings, ReadingRule rule);

/// What stands in a place, in mm, mm² or g; nothing where it is empty or holds text.
std::optional<double> loggedValue(const Study &study, const Piece &piece, const LogPlace &place);

/// What the pieces of a study are measured and weighed with on a day; nothing where it is not said.
struct MeasuringGauges {
    std::optional<UsedGauge> calliper;
    std::optional<UsedGauge> scale;
};
MeasuringGauges measuringGauges(const MeasuringRule &rule, const Workshop &workshop, const std::string &day);

/// Puts a value in a place, or takes it away, and keeps the gauge with it; the piece's section follows from
/// its readings, their gauge's calibration and the rule. Several readings of a size are taken to be of one
/// gauge, the latest. Errors: InvalidArgument for a value that is not above zero, a reading beyond the rule's
/// number, a length without a known length in the rule.
Status setLoggedValue(Study &study, Piece &piece, const LogPlace &place, std::optional<double> value,
                      const MeasuringGauges &gauges = {});

/// Takes readings together anew in all pieces, after the rule was changed.
void applyMeasuringRule(Study &study);

/// What a piece is expected to measure.
struct Expected {
    double value = 0.0;
    bool drawn = false; ///< as drawn, or estimated from it; else what the pieces measured so far have
};

/// What the pieces of a study are expected to measure: as drawn in a shape that was chosen in the plan, else
/// the median of at least four pieces; masses the median of at least four of the rail, else as estimated.
/// Worked out once; to be made anew after a change.
class Expectations
{
public:
    Expectations(const Study &study, const Workshop &workshop);
    [[nodiscard]] std::optional<Expected> at(const Piece &piece, const LogPlace &place) const;

private:
    struct Key {
        Method test = Method::Tension;
        ConditionId condition; ///< 0 for sizes, which are the same on all rails
        LogField field = LogField::Width;
        auto operator<=>(const Key &) const = default;
    };
    std::map<Key, Expected> m_expected;
    std::optional<double> m_length_mm;
};

/// A typed number without a mark as callipers and scales show it: "402" is 4.02 where about 4 is expected
/// and 402 cannot be. Others stand as typed.
double withTheMark(std::string_view text, double typed, const std::optional<Expected> &expected);

/// A size to a hundredth of a millimetre, as callipers show it; marked().
std::string sizeText(double value_mm);

/// Something unlikely about a value, to be asked about at once; it is kept as typed until a person says
/// otherwise.
struct Doubt {
    PieceId piece;
    LogPlace place;
    double value = 0.0;
    std::string sentence;           ///< quantities as marked()
    std::optional<double> proposed; ///< what was probably meant
    bool swapped = false;           ///< width and thickness are to change places
};

/// The doubts about what is logged of a piece that nobody has confirmed yet.
std::vector<Doubt> doubtsOf(const Study &study, const Piece &piece, const Expectations &expected);

/// Says that the value is right; the doubt is not raised again.
void confirmReading(const Study &study, Piece &piece, const Doubt &doubt, const std::string &who,
                    const std::string &when);
/// Takes the proposal: the probable value, or width and thickness swapped.
Status takeProposal(Study &study, Piece &piece, const Doubt &doubt);

/// Shrinkage along an axis: (nominal - measured) / nominal.
/// Source: ISO 294-4:2018, moulding shrinkage, equation 1 with the drawn length in place of the cavity's.
double shrinkage(const LengthReading &length);

} // namespace inchpeg
