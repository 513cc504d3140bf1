// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reading/reading_settings.h"

#include "core/import/text.h"
#include "core/method/section_settings.h"
#include "core/text/letters.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>

namespace inchpeg
{

namespace
{

MethodSettings ofSetup(const TestSetup &setup, Method method)
{
    const SpecimenShape *usual = findShape(factsOf(method).shape);
    const SpecimenShape &shape = setup.shape.key.empty() && usual != nullptr ? *usual : setup.shape;
    MethodSettings settings;
    settings.numbers["span"] = bentLength_mm(setup, shape, method);
    settings.numbers["length"] = shape.parallel_mm > 0.0 ? shape.parallel_mm : shape.length_mm;
    settings.numbers["stress"] = setup.stress_MPa;
    settings.words["fixture"] = fixtureName(mayBeCantilever(method) ? setup.fixture : Fixture::ThreePoint);
    return settings;
}

/// Only what the test has parameters for.
void keepKnown(MethodSettings &settings, const Reduction &reduction)
{
    const auto isUnknown = [&](const auto &entry) {
        return findParameter(reduction.parameters, entry.first) == nullptr;
    };
    std::erase_if(settings.numbers, isUnknown);
    std::erase_if(settings.words, isUnknown);
}

/// The section by the sizes that the test has parameters for, else by its area where it has one for that: a
/// square pin is cut as a round one is. section: positive.
Section sectionFor(const Reduction &reduction, const Section &section)
{
    const auto has = [&](std::string_view name) {
        return findParameter(reduction.parameters, name) != nullptr;
    };
    const bool isBySizes =
        has(std::holds_alternative<RoundSection>(section) ? kDiameter.name : kThickness.name);
    return isBySizes || !has(kArea.name) ? section : Section(PlainArea{*areaOf(section)});
}

bool isNamedAlike(std::string_view a, std::string_view b)
{
    return std::equal(a.begin(), a.end(), b.begin(), b.end(), [](char x, char y) {
        return std::tolower(static_cast<unsigned char>(x)) == std::tolower(static_cast<unsigned char>(y));
    });
}

/// A factor that has the name of one of the test's settings (stress, load, span …) sets it for its rails. A
/// level that is no value of the setting means another thing of the same name.
void setByFactors(MethodSettings &settings, const Study &study, const Condition &condition,
                  const Reduction &reduction)
{
    for (std::size_t i = 0; i < study.factors.size() && i < condition.levels.size(); ++i) {
        const Factor &factor = study.factors[i];
        for (const Parameter &parameter : reduction.parameters) {
            const bool isMeant =
                isNamedAlike(factor.name, parameter.name) || isNamedAlike(factor.name, parameter.label);
            if (!isMeant || parameter.source == ParameterSource::Piece)
                continue;
            const std::string level = condition.levels[i] + " " + factor.unit;
            if (setTyped(settings, parameter, trimmed(level)) && parameter.name == "load")
                settings.numbers.erase("stress"); // which would go before it
        }
    }
}

/// Two sections that share neither a size nor an area: a record is read by both. The first has an area of
/// 1 mm², so that a stress over it is the force.
void guessSection(ReadingOrder &order)
{
    order.missing.emplace_back("the cross-section");
    order.otherGuess = order.settings;
    setSection(order.settings,
               sectionFor(*order.reduction, RectangularSection{millimetres(1.0), millimetres(1.0)}));
    setSection(order.otherGuess,
               sectionFor(*order.reduction, RectangularSection{millimetres(1.7), millimetres(1.3)}));
}

/// The same for what else must be said and was not: an insert's depth.
void guessRequired(ReadingOrder &order)
{
    if (order.reduction->columns.empty())
        return; // a row says it, or there is nothing to read
    if (order.missing.empty())
        order.otherGuess = order.settings;
    for (const Parameter &parameter : order.reduction->parameters) {
        if (!parameter.isRequired || !parameter.choices.empty() || order.settings.contains(parameter.name))
            continue;
        order.missing.push_back("the " + smallLetters(parameter.label));
        order.settings.numbers[std::string(parameter.name)] = 10.0;
        order.otherGuess.numbers[std::string(parameter.name)] = 17.0;
    }
    if (order.missing.empty())
        order.otherGuess = {};
}

std::string sizesText(const std::optional<SizeUncertainty> &sizes)
{
    return sizes ? fmt::format(" sizes {} {} {} {}", sizes->shared_mm, sizes->width_mm.value_or(0.0),
                               sizes->thickness_mm.value_or(0.0), sizes->diameter_mm.value_or(0.0))
                 : std::string();
}

} // namespace

bool readsBySection(const Reduction &reduction)
{
    return std::any_of(reduction.parameters.begin(), reduction.parameters.end(),
                       [](const Parameter &parameter) {
                           return parameter.source == ParameterSource::Piece &&
                                  (parameter.name == kThickness.name || parameter.name == kDiameter.name);
                       });
}

MethodSettings testSettings(const Study &study, Method method)
{
    const StudyTest *test = findTest(study, method);
    require(test != nullptr, "a piece is of a test of its study");
    MethodSettings settings = ofSetup(test->setup, method);
    settings.override(test->setup.settings);
    if (const Reduction *reduction = reductionOf(method))
        keepKnown(settings, *reduction);
    return settings;
}

Result<ReadingOrder> readingOrder(const Study &study, const Piece &piece, const Workshop &workshop)
{
    const Method method = piece.test;
    const Reduction *reduction = reductionOf(method);
    if (reduction == nullptr)
        return invalidArgument(
            fmt::format("piece {}: records of {} cannot be read yet", piece.code, methodName(method)));
    ReadingOrder order{reduction, testSettings(study, method), {}, {}};
    if (piece.recording && piece.recording->mapping.given)
        return order; // nothing is worked out: neither section nor settings matter
    if (const Condition *condition = findCondition(study, piece.condition))
        setByFactors(order.settings, study, *condition, *reduction);
    if (reduction->columns.empty())
        order.row = piece.code;
    if (readsBySection(*reduction) && !piece.section) {
        guessSection(order);
    } else if (readsBySection(*reduction)) {
        if (const Result<Area> area = areaOf(*piece.section); !area)
            return invalidArgument(fmt::format("piece {}: {}", piece.code, area.error().message));
        setSection(order.settings, sectionFor(*reduction, *piece.section));
        order.sizes = sizeUncertainty(piece, calliperOf(study, piece, workshop));
    }
    guessRequired(order);
    for (const auto &[name, placed] : piece.markers) {
        if (findMarker(method, name) != nullptr)
            order.placed[name] = placed.at;
    }
    return order;
}

std::string readingInputs(const Recording &recording, const ReadingOrder &order)
{
    std::string placed;
    for (const auto &[name, at] : order.placed)
        placed += fmt::format(" {} {}", name, at ? fmt::format("{}", *at) : "none");
    const std::string inputs =
        fmt::format("{} {} file {} columns {} settings {} placed{}", order.reduction->command,
                    order.reduction->version, recording.file.value, mappingText(recording.mapping),
                    settingsText(order.settings), placed) +
        (order.row.empty() ? std::string() : " row " + order.row) + sizesText(order.sizes) +
        (order.missing.empty() ? std::string() : fmt::format(" without {}", fmt::join(order.missing, ", ")));
    if (!recording.gauge)
        return inputs;
    // Corrections along points were once made without regard to their sign.
    const bool isAlongPoints = recording.gauge->calibration && recording.gauge->calibration->alongPoints;
    return inputs + (isAlongPoints ? " gauge by signed points " : " gauge ") +
           usedGaugeText(*recording.gauge);
}

} // namespace inchpeg
