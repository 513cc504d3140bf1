// SPDX-License-Identifier: GPL-3.0-or-later
// What every test is made of, whatever it measures: the properties that it answers with, the markers that a
// person may move, and the reading of one record. Command line, read lens, compare lens, store and export
// know a test by these alone.
#pragma once

#include "core/curve/check.h"
#include "core/units/unit.h"

#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// What may be done with a property's values: a ratio has percentages, an interval (°C) only differences;
/// grades have an order and nothing else, words not even that: they are counted.
enum class Scale { Ratio, Interval, Ordinal, Word };

/// Which way a property is better, where anybody can say.
enum class Better { Higher, Lower, Neither };

/// How a property is spoken of where it is larger or smaller: "{}" is the amount, the second one the rail
/// that it is held against.
struct PropertyWords {
    std::string_view more = "Holds {} more than {}";
    std::string_view less = "Holds {} less than {}";
    std::string_view ranked = "graded"; ///< of an ordinal property: "better graded than", "graded best"
    std::string_view ranks = "grades";  ///< "the grades rise"
};

/// A property that a test answers with.
struct Property {
    std::string_view name;  ///< in files
    std::string_view label; ///< for people
    Dimension dimension = Dimension::Ratio;
    std::string_view definition;
    Better better = Better::Higher;
    PropertyWords words{};
    Scale scale = Scale::Ratio;
    std::span<const std::string_view> choices{}; ///< of Scale::Word: the value is a place among them
};

/// Whether values are compared in shares of the reference: not temperatures, whose zero says nothing.
bool isComparedAsRatio(const Property &property);
/// Whether values can be averaged.
bool hasMean(const Property &property);

/// Why a value is only a bound.
enum class BoundReason {
    None,
    GaugeAtEnd, ///< the gauge ran out of its range
    RecordEnds, ///< the record ends before what was waited for
    NoBreak,    ///< the piece did not break
    NeverMoved, ///< it held still to the last load
    HeldDrop,   ///< it held the last drop of a falling weight
    HeldStep,   ///< it held the last step of a torque
    InService,  ///< it still serves
    OtherPart,  ///< what held or loaded it gave way first, as a person saw
    Given,      ///< a table of results gave it as one
};
std::string_view boundReasonName(BoundReason reason); ///< as kept in files
std::optional<BoundReason> boundReasonFrom(std::string_view name);

/// One value of a reading; values that a record does not give are left out. All bounds are lower ones.
struct ReadValue {
    std::string property;
    double number = 0.0; ///< in the working unit of the property's dimension
    std::string label{}; ///< of several values of one property: the load, the row
    BoundReason bound = BoundReason::None;
    std::optional<double> uncertainty{}; ///< standard uncertainty from gauge, section and reading
    bool operator==(const ReadValue &) const = default;
};

/// What the place of a marker is.
enum class MarkerPlace {
    Sample, ///< the number of a sample, from 0
    X,      ///< a value on the picture's x axis
    Shift,  ///< a value by which the x axis has been moved: the toe
};

/// A point of a record that a person may place by hand.
struct MarkerKind {
    std::string_view name; ///< in files
    std::string_view label;
    std::string_view meaning;
    MarkerPlace place = MarkerPlace::Sample;
    std::string_view decides; ///< the property that follows from it first; empty where several do
    bool mayBeNone = false;   ///< a person may say that there is none
    bool labelAbove = false;  ///< its name is written above the point, else to the right of it
};

/// A marked point of a reading, in the working units of the picture's axes.
struct Mark {
    std::string name;  ///< of a MarkerKind; empty for a point that follows from others and cannot be moved
    std::string label; ///< where it differs from the kind's: "End of record"
    double x = 0.0;
    double y = 0.0;
    std::optional<double> place{}; ///< as found or placed, see MarkerPlace; empty where there is none
    bool operator==(const Mark &) const = default;
};

struct PictureAxis {
    std::string label; ///< "Strain"
    Dimension dimension = Dimension::Ratio;
    std::string note{}; ///< "toe taken off"
    bool operator==(const PictureAxis &) const = default;
};

/// A curve that is drawn beside the record: a fit, the hammer's way.
struct PictureSeries {
    std::string label;
    std::vector<double> x;
    std::vector<double> y;
    bool operator==(const PictureSeries &) const = default;
};

/// The record itself as it is drawn: two of the reading's columns over each other.
struct RecordCurve {
    std::size_t xColumn = 0;
    std::size_t yColumn = 0;
    std::size_t endAt = 0; ///< sample up to which it counts: the break
    bool isPoints = false; ///< read by hand: each reading is a dot
    bool operator==(const RecordCurve &) const = default;
};

/// A straight line that says where something was decided: the modulus line, the standard deflection.
struct PictureGuide {
    std::string label;
    double x0 = 0.0, y0 = 0.0, x1 = 0.0, y1 = 0.0;
    bool operator==(const PictureGuide &) const = default;
};

/// What is drawn of a record.
struct Picture {
    PictureAxis x;
    PictureAxis y;
    std::optional<RecordCurve> record; ///< empty where there is nothing to draw of it
    std::vector<PictureSeries> series;
    std::vector<PictureGuide> guides;
    bool operator==(const Picture &) const = default;
};

/// A column of a record and of what follows from it, for export: "force_N", "stress_MPa".
struct NamedColumn {
    std::string name;
    std::vector<double> values;
    bool operator==(const NamedColumn &) const = default;
};

/// What is read from one record, by whichever test.
struct Reading {
    std::vector<ReadValue> values; ///< in the order of the test's properties
    std::string kind;              ///< a word that keeps results apart (how it broke); empty where none does
    std::vector<Mark> marks;       ///< in the order of the test's markers; the others at the end
    Picture picture;
    std::vector<Check> validity;
    std::vector<std::string> warnings; ///< quantities in them are marked()
    std::vector<NamedColumn> columns;  ///< all samples, all equally long
    bool operator==(const Reading &) const = default;
};

/// The first value of a property; nothing where the record does not give it.
const ReadValue *valueOf(std::span<const ReadValue> values, std::string_view property);

/// Collects the values of a reading, leaving out those that are not there.
class ValueList
{
public:
    void add(std::string_view property, const std::optional<double> &value,
             BoundReason bound = BoundReason::None, std::string label = {});
    [[nodiscard]] std::vector<ReadValue> take() { return std::move(m_values); }

private:
    std::vector<ReadValue> m_values;
};

} // namespace inchpeg
