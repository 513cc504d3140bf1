// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/units/quantity.h"
#include "core/units/unit.h"

#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace inchpeg
{

/// Where the value of a parameter comes from in a study.
enum class ParameterSource {
    Piece, ///< measured on it
    Shape, ///< of the specimen shape
    Rig,   ///< of the rig
    Test,  ///< said for the test
};

/// How surely an input is known where nobody says otherwise: a standard uncertainty, in the unit of a bare
/// number or as a share of it. 0: it is a rule, and so exact, or nothing is known of it. Sources:
/// docs/methods.md, "Uncertainty of a value".
struct UsualUncertainty {
    double amount = 0.0;
    double share = 0.0;
    [[nodiscard]] bool isKnown() const { return amount > 0.0 || share > 0.0; }
};

/// Something that a test is read by. A parameter is a quantity, a switch (no unit, choices on and off), or a
/// choice among words.
struct Parameter {
    std::string_view name;  ///< in files and on the command line
    std::string_view label; ///< for people
    std::string_view meaning;
    std::string_view unit; ///< symbol of the unit of a bare number; "" for a choice
    ParameterSource source = ParameterSource::Test;
    bool isRequired = false;
    std::string_view usual{}; ///< as typed; "" where nothing is usual
    std::span<const std::string_view> choices{};
    bool mayBeZero = false;
    UsualUncertainty knownTo{};
};

inline constexpr std::string_view kOnOff[] = {"on", "off"};

/// Values of a test's parameters by name: numbers in the working unit of their dimension, and words.
struct MethodSettings {
    std::map<std::string, double, std::less<>> numbers;
    std::map<std::string, std::string, std::less<>> words;
    bool operator==(const MethodSettings &) const = default;

    [[nodiscard]] std::optional<double> number(std::string_view name) const;
    [[nodiscard]] double number(std::string_view name, double fallback) const;
    [[nodiscard]] std::optional<Length> length(std::string_view name) const; ///< of a number in mm
    [[nodiscard]] std::string_view word(std::string_view name, std::string_view fallback = {}) const;
    [[nodiscard]] bool isOn(std::string_view name, bool fallback) const;
    [[nodiscard]] bool contains(std::string_view name) const;
    /// Takes over all values of other; those of both are other's.
    void override(const MethodSettings &other);
};

/// The choice that a typed word means: written in any case, or so far that no other begins so. Nothing where
/// it is none of them.
std::optional<std::string_view> choiceFrom(std::string_view typed, std::span<const std::string_view> choices);

/// Takes one typed value into the settings.
/// Errors: InvalidArgument that names the key: a unit that does not fit, a number that is not above zero (or
/// below, where it may be zero), a word that is none of the choices.
Status setTyped(MethodSettings &settings, const Parameter &parameter, std::string_view text);

/// The parameter of a name; nullptr where there is none.
const Parameter *findParameter(std::span<const Parameter> parameters, std::string_view name);

/// Errors: InvalidArgument that names the first required parameter without a value.
Status checkRequired(const MethodSettings &settings, std::span<const Parameter> parameters);

/// Names and values in one line, for telling whether something was read from the same settings.
std::string settingsText(const MethodSettings &settings);

} // namespace inchpeg
