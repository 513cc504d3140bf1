// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/measuring.h"

#include "core/planning/print_estimate.h"
#include "core/stats/summary.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

namespace inchpeg
{

namespace
{

constexpr double kMassByEstimate = 0.35; ///< how far an estimated mass may be off: walls and flow are guessed
constexpr double kMassByOthers = 0.10;
constexpr double kLengthTolerance = 0.05;
constexpr std::size_t kLeastMeasured = 4;

std::vector<double> SizeReadings::*listOf(LogField field)
{
    return field == LogField::Width       ? &SizeReadings::width_mm
           : field == LogField::Thickness ? &SizeReadings::thickness_mm
                                          : &SizeReadings::diameter_mm;
}

/// The section that readings make; a size without readings is zero in it.
std::optional<Section> sectionFrom(const SizeReadings &sizes, ReadingRule rule)
{
    const auto taken = [rule](const std::vector<double> &list) {
        std::vector<double> known;
        std::copy_if(list.begin(), list.end(), std::back_inserter(known),
                     [](double value) { return value > 0.0; });
        return known.empty() ? Length{} : millimetres(takenTogether(known, rule));
    };
    if (!sizes.diameter_mm.empty())
        return RoundSection{taken(sizes.diameter_mm)};
    if (!sizes.width_mm.empty() || !sizes.thickness_mm.empty())
        return RectangularSection{taken(sizes.width_mm), taken(sizes.thickness_mm)};
    return std::nullopt;
}

/// A reading in the middle that is not taken yet is 0; at the end such places are cut off.
void putReading(std::vector<double> &list, int reading, double value)
{
    const auto at = static_cast<std::size_t>(reading);
    if (list.size() <= at)
        list.resize(at + 1, 0.0);
    list[at] = value;
    while (!list.empty() && !(list.back() > 0.0))
        list.pop_back();
}

Status setLength(Study &study, Piece &piece, std::optional<double> value)
{
    const MeasuringRule &rule = study.log.measuring;
    if (!rule.lengthAxis || !rule.length_mm)
        return invalidArgument("say first which known length is measured, and along which axis");
    std::erase_if(piece.log.lengths,
                  [&](const LengthReading &length) { return length.axis == *rule.lengthAxis; });
    if (value)
        piece.log.lengths.push_back({*rule.lengthAxis, *rule.length_mm, *value});
    return ok();
}

/// Keeps with a field what gave its value; nothing once the field is empty.
void noteGauge(Piece &piece, LogField field, const std::optional<UsedGauge> &gauge)
{
    const bool isEmpty = field == LogField::Mass     ? !piece.log.mass_g
                         : field == LogField::Length ? piece.log.lengths.empty()
                                                     : (piece.log.sizes.*listOf(field)).empty();
    keepGauge(piece.log, std::string(fieldWord(field)), isEmpty ? std::nullopt : gauge);
}

double toleranceAt(const MeasuringRule &rule, LogField field, const Expected &expected)
{
    if (field == LogField::Mass)
        return expected.drawn ? kMassByEstimate : kMassByOthers;
    return field == LogField::Length ? kLengthTolerance : rule.tolerance;
}

bool isNear(double value, const Expected &expected, double tolerance)
{
    return std::abs(value - expected.value) <= tolerance * expected.value;
}

/// A number with its unit, for a sentence that is written out later.
std::string quantityText(LogField field, double value)
{
    if (field == LogField::Mass)
        return fmt::format("{:.4g} g", value);
    return field == LogField::Area ? marked(value, Dimension::Area, 4) : sizeText(value);
}

std::optional<double> drawnSize(const SpecimenShape &shape, LogField field)
{
    const Section section = nominalSection(shape);
    if (const auto *rectangle = std::get_if<RectangularSection>(&section)) {
        if (field == LogField::Width)
            return in_mm(rectangle->width);
        if (field == LogField::Thickness)
            return in_mm(rectangle->thickness);
    }
    if (const auto *round = std::get_if<RoundSection>(&section);
        round != nullptr && field == LogField::Diameter)
        return in_mm(round->diameter);
    return std::nullopt;
}

class DoubtFinder
{
public:
    DoubtFinder(const Study &study, const Piece &piece, const Expectations &expected)
        : m_study(study), m_piece(piece), m_expected(expected)
    {
    }

    std::vector<Doubt> find()
    {
        lookForSwap();
        for (const LogPlace &place : loggedPlaces(m_study)) {
            const auto value = loggedValue(m_study, m_piece, place);
            if (!value || (m_swapped && isSize(place.field)))
                continue;
            if (const auto expected = m_expected.at(m_piece, place))
                judge(place, *value, *expected);
        }
        return std::move(m_found);
    }

private:
    void lookForSwap()
    {
        const LogPlace width{LogField::Width, 0};
        const LogPlace thickness{LogField::Thickness, 0};
        const auto w = loggedValue(m_study, m_piece, width);
        const auto t = loggedValue(m_study, m_piece, thickness);
        const auto expectedWidth = m_expected.at(m_piece, width);
        const auto expectedThickness = m_expected.at(m_piece, thickness);
        if (!w || !t || !expectedWidth || !expectedThickness)
            return;
        const double tolerance = m_study.log.measuring.tolerance;
        m_swapped = !isNear(*w, *expectedWidth, tolerance) && !isNear(*t, *expectedThickness, tolerance) &&
                    isNear(*w, *expectedThickness, tolerance) && isNear(*t, *expectedWidth, tolerance);
        if (!m_swapped || isConfirmed(width, *w))
            return;
        Doubt doubt{m_piece.id, width, *w, {}, {}, true};
        doubt.sentence =
            fmt::format("{}: width {} and thickness {} look swapped; {} and {} are {}", m_piece.code,
                        quantityText(LogField::Width, *w), quantityText(LogField::Width, *t),
                        quantityText(LogField::Width, expectedWidth->value),
                        quantityText(LogField::Width, expectedThickness->value), source(*expectedWidth));
        m_found.push_back(std::move(doubt));
    }

    [[nodiscard]] static std::string_view source(const Expected &expected)
    {
        return expected.drawn ? "as drawn" : "what the pieces have";
    }

    [[nodiscard]] bool isConfirmed(const LogPlace &place, double value) const
    {
        const std::string name = placeName(m_study.log.measuring, place);
        return std::any_of(
            m_piece.log.confirmed.begin(), m_piece.log.confirmed.end(),
            [&](const ConfirmedReading &one) { return one.field == name && one.value == value; });
    }

    void judge(const LogPlace &place, double value, const Expected &expected)
    {
        const double tolerance = toleranceAt(m_study.log.measuring, place.field, expected);
        if (isNear(value, expected, tolerance) || isConfirmed(place, value))
            return;
        Doubt doubt{m_piece.id, place, value, {}, {}, false};
        const std::string what =
            fmt::format("{}: {} {}", m_piece.code, placeName(m_study.log.measuring, place),
                        quantityText(place.field, value));
        for (const double power : {10.0, 0.1, 100.0, 0.01, 1000.0, 0.001}) {
            if (isNear(value * power, expected, tolerance)) {
                doubt.proposed = value * power;
                break;
            }
        }
        if (doubt.proposed)
            doubt.sentence = fmt::format("{} has its decimal mark in the wrong place, it seems; {} is {}",
                                         what, quantityText(place.field, expected.value), source(expected));
        else
            doubt.sentence = fmt::format(
                "{} is {:.0f} % {} {}, {}", what, 100.0 * std::abs(value / expected.value - 1.0),
                value > expected.value ? "above" : "below", quantityText(place.field, expected.value),
                place.field == LogField::Mass && expected.drawn ? "which the plan estimates"
                                                                : source(expected));
        m_found.push_back(std::move(doubt));
    }

    const Study &m_study;
    const Piece &m_piece;
    const Expectations &m_expected;
    std::vector<Doubt> m_found;
    bool m_swapped = false;
};

} // namespace

std::string_view fieldWord(LogField field)
{
    switch (field) {
    case LogField::Width:
        return "width";
    case LogField::Thickness:
        return "thickness";
    case LogField::Diameter:
        return "diameter";
    case LogField::Area:
        return "area";
    case LogField::Mass:
        return "mass";
    case LogField::Length:
        return "length";
    case LogField::Note:
        return "note";
    }
    throw ContractViolation("unknown field of the log");
}

bool isSize(LogField field)
{
    return field == LogField::Width || field == LogField::Thickness || field == LogField::Diameter;
}

std::string placeName(const MeasuringRule &rule, const LogPlace &place)
{
    std::string name(fieldWord(place.field));
    if (isSize(place.field) && rule.readings > 1)
        name += fmt::format(" {}", place.reading + 1);
    if (place.field == LogField::Length && rule.lengthAxis)
        name += fmt::format(" {}", axisName(*rule.lengthAxis));
    return name;
}

std::vector<LogPlace> loggedPlaces(const Study &study)
{
    std::vector<LogField> sizes;
    if (study.sectionShape == SectionShape::Rectangular)
        sizes = {LogField::Width, LogField::Thickness};
    else if (study.sectionShape == SectionShape::Round)
        sizes = {LogField::Diameter};
    std::vector<LogPlace> places;
    for (const LogField field : sizes) {
        for (int reading = 0; reading < study.log.measuring.readings; ++reading)
            places.push_back({field, reading});
    }
    if (sizes.empty())
        places.push_back({LogField::Area, 0});
    places.push_back({LogField::Mass, 0});
    if (study.log.measuring.lengthAxis)
        places.push_back({LogField::Length, 0});
    places.push_back({LogField::Note, 0});
    return places;
}

MeasuringRule usualMeasuring(Method method)
{
    MeasuringRule rule;
    rule.readings = factsOf(method).usualReadings;
    return rule;
}

double takenTogether(std::span<const double> readings, ReadingRule rule)
{
    require(!readings.empty(), "takenTogether() of no readings");
    return rule == ReadingRule::Smallest ? *std::min_element(readings.begin(), readings.end())
                                         : meanOf(readings);
}

std::optional<double> loggedValue(const Study &study, const Piece &piece, const LogPlace &place)
{
    switch (place.field) {
    case LogField::Mass:
        return piece.log.mass_g;
    case LogField::Note:
        return std::nullopt;
    case LogField::Area:
        if (piece.section && std::holds_alternative<PlainArea>(*piece.section))
            return in_mm2(std::get<PlainArea>(*piece.section).area);
        return std::nullopt;
    case LogField::Length:
        for (const LengthReading &length : piece.log.lengths) {
            if (length.axis == study.log.measuring.lengthAxis)
                return length.measured_mm;
        }
        return std::nullopt;
    case LogField::Width:
    case LogField::Thickness:
    case LogField::Diameter:
        break;
    }
    const SizeReadings sizes = sizeReadings(piece);
    const std::vector<double> &list = sizes.*listOf(place.field);
    const auto at = static_cast<std::size_t>(place.reading);
    return at < list.size() && list[at] > 0.0 ? std::optional(list[at]) : std::nullopt;
}

MeasuringGauges measuringGauges(const MeasuringRule &rule, const Workshop &workshop, const std::string &day)
{
    const auto used = [&](const std::string &name) {
        const GaugeCard *card = findGauge(workshop, name);
        return card != nullptr ? std::optional(usedGauge(*card, day)) : std::nullopt;
    };
    return {used(rule.calliper), used(rule.scale)};
}

Status setLoggedValue(Study &study, Piece &piece, const LogPlace &place, std::optional<double> value,
                      const MeasuringGauges &gauges)
{
    if (value && (!(*value > 0.0) || !std::isfinite(*value)))
        return invalidArgument(fmt::format("{}: {:g} cannot be; a {} above zero is wanted", piece.code,
                                           *value, fieldWord(place.field)));
    switch (place.field) {
    case LogField::Mass:
        piece.log.mass_g = value;
        noteGauge(piece, place.field, gauges.scale);
        return ok();
    case LogField::Note:
        return invalidArgument("a note is a text");
    case LogField::Area:
        piece.section = value ? std::optional<Section>(PlainArea{squareMillimetres(*value)}) : std::nullopt;
        return ok();
    case LogField::Length:
        if (const Status status = setLength(study, piece, value); !status)
            return status;
        noteGauge(piece, place.field, gauges.calliper);
        return ok();
    case LogField::Width:
    case LogField::Thickness:
    case LogField::Diameter:
        break;
    }
    if (place.reading < 0 || place.reading >= study.log.measuring.readings)
        return invalidArgument(fmt::format("{} readings of each size are taken; there is no number {}",
                                           study.log.measuring.readings, place.reading + 1));
    SizeReadings sizes = sizeReadings(piece);
    putReading(sizes.*listOf(place.field), place.reading, value.value_or(0.0));
    // A size of the other shape goes: a section is either round or rectangular.
    if (place.field == LogField::Diameter) {
        sizes.width_mm.clear();
        sizes.thickness_mm.clear();
    } else {
        sizes.diameter_mm.clear();
    }
    piece.log.sizes = sizes;
    noteGauge(piece, place.field, gauges.calliper);
    piece.section = sectionFrom(correctedSizes(piece.log), study.log.measuring.rule);
    return ok();
}

void applyMeasuringRule(Study &study)
{
    for (Piece &piece : study.pieces) {
        if (piece.log.sizes != SizeReadings{})
            piece.section = sectionFrom(correctedSizes(piece.log), study.log.measuring.rule);
    }
}

Expectations::Expectations(const Study &study, const Workshop &workshop)
    : m_length_mm(study.log.measuring.length_mm)
{
    std::map<Key, std::vector<double>> measured;
    for (const Piece &piece : study.pieces) {
        for (const LogField field :
             {LogField::Width, LogField::Thickness, LogField::Diameter, LogField::Mass}) {
            if (const auto value = loggedValue(study, piece, {field, 0}))
                measured[{piece.test, field == LogField::Mass ? piece.condition : ConditionId{}, field}]
                    .push_back(*value);
        }
    }
    for (auto &[key, values] : measured) {
        if (values.size() >= kLeastMeasured)
            m_expected[key] = {medianOf(std::move(values)), false};
    }
    for (const PlannedTest &test : plannedTests(study)) {
        if (test.setup.shape.key.empty())
            continue;
        for (const LogField field : {LogField::Width, LogField::Thickness, LogField::Diameter}) {
            if (const auto drawn = drawnSize(test.shape, field))
                m_expected[{test.method, {}, field}] = {*drawn, true};
        }
        for (const Condition &condition : study.conditions)
            m_expected.try_emplace({test.method, condition.id, LogField::Mass},
                                   Expected{estimatePiece(study, test, condition, workshop).grams, true});
    }
}

std::optional<Expected> Expectations::at(const Piece &piece, const LogPlace &place) const
{
    if (place.field == LogField::Length)
        return m_length_mm ? std::optional(Expected{*m_length_mm, true}) : std::nullopt;
    const auto found = m_expected.find(
        {piece.test, place.field == LogField::Mass ? piece.condition : ConditionId{}, place.field});
    return found == m_expected.end() ? std::nullopt : std::optional(found->second);
}

std::string sizeText(double value_mm)
{
    return marked(value_mm, Dimension::Length, value_mm < 10.0 ? 3 : value_mm < 100.0 ? 4 : 5);
}

double withTheMark(std::string_view text, double typed, const std::optional<Expected> &expected)
{
    const bool onlyDigits = text.size() >= 3 && std::all_of(text.begin(), text.end(),
                                                            [](char c) { return c >= '0' && c <= '9'; });
    if (!onlyDigits || !expected)
        return typed;
    constexpr double kWide = 0.5; // far wider than any tolerance: the digits, not the size, are in question
    return !isNear(typed, *expected, kWide) && isNear(typed / 100.0, *expected, kWide) ? typed / 100.0
                                                                                       : typed;
}

std::vector<Doubt> doubtsOf(const Study &study, const Piece &piece, const Expectations &expected)
{
    return DoubtFinder(study, piece, expected).find();
}

void confirmReading(const Study &study, Piece &piece, const Doubt &doubt, const std::string &who,
                    const std::string &when)
{
    piece.log.confirmed.push_back({placeName(study.log.measuring, doubt.place), doubt.value, who, when});
}

Status takeProposal(Study &study, Piece &piece, const Doubt &doubt)
{
    if (doubt.swapped) {
        std::swap(piece.log.sizes.width_mm, piece.log.sizes.thickness_mm);
        piece.section = sectionFrom(correctedSizes(piece.log), study.log.measuring.rule);
        return ok();
    }
    require(doubt.proposed.has_value(), "a doubt without a proposal");
    // The gauge stays the one that the reading came from.
    const UsedGauge *used = gaugeOf(piece.log, fieldWord(doubt.place.field));
    const std::optional<UsedGauge> same = used != nullptr ? std::optional(*used) : std::nullopt;
    return setLoggedValue(study, piece, doubt.place, doubt.proposed, {same, same});
}

double shrinkage(const LengthReading &length)
{
    return (length.nominal_mm - length.measured_mm) / length.nominal_mm;
}

} // namespace inchpeg
