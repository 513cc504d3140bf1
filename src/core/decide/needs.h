// SPDX-License-Identifier: GPL-3.0-or-later
// What a part has to do, in plain words that each name one property of one test: the gates across the
// candidates.
#pragma once

#include "core/method/method.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// What a need asks about.
enum class NeedKind {
    Load,     ///< carries this force in a test of the same kind
    Strength, ///< carries this stress
    Layers,   ///< carries this stress across its layers
    Creep,    ///< stays under this strain after so long at a constant load
    Heat,     ///< keeps its shape at this temperature under a load
    Softens,  ///< does not sag by itself at this temperature
    Blow,     ///< survives this blow
    Stiff,    ///< bends no more: this modulus at least
    Distance, ///< holds a distance within this share of shrinkage
    Weight,   ///< a piece weighs at most
    Time,     ///< a piece takes at most
    Price,    ///< a piece costs at most
    Weather,  ///< stands sun and rain
    Printer,  ///< prints on this printer
    Grade,    ///< is graded so or better
    Never,    ///< food, skin, flame, people's safety: not answered
};
std::string_view needKindName(NeedKind kind); ///< as in files: "force", "stress", "layers" …
std::optional<NeedKind> needKindFrom(std::string_view name);

/// What a printer can do, for needs of the kind Printer.
struct PrinterLimits {
    double nozzle_C = 300.0;
    bool hasChamber = false;
    bool hasHardNozzle = false;
    bool canDry = false;
    bool operator==(const PrinterLimits &) const = default;
};

struct Need {
    std::string name; ///< in the part's words: "holds the lid shut"
    NeedKind kind = NeedKind::Strength;
    double limit = 0.0;               ///< in the working unit of the property
    double safetyFactor = 1.0;        ///< of a load: the piece must carry limit × factor
    bool isMust = true;               ///< else a wish
    double weight = 1.0;              ///< of a wish
    std::optional<Method> test{};     ///< of the kinds Load and Grade; else it follows from the kind
    std::optional<double> load_MPa{}; ///< of Heat and Creep: at which the property is to be read
    double after_h = 1000.0;          ///< of Creep
    PrinterLimits printer{};          ///< of Printer
    bool operator==(const Need &) const = default;

    /// What a value is held against.
    [[nodiscard]] double gate() const { return limit * safetyFactor; }
};

/// A part that can be bought, beside the printed ones: of it a price is known, and what a sheet of its
/// material says.
struct BoughtPart {
    std::string name;
    double price = 0.0; ///< of one, in the workshop's money
    bool operator==(const BoughtPart &) const = default;
};

struct Needs {
    std::string part; ///< "frame rest"
    std::vector<Need> needs;
    /// Only these candidates, by their names; empty: all that have any result.
    std::vector<std::string> candidates{};
    /// Materials without any result that are judged by sheet and usual values.
    std::vector<std::string> materials{};
    std::vector<BoughtPart> bought{};
    bool operator==(const Needs &) const = default;
};

/// Where a need looks for its answer.
struct NeedTarget {
    std::optional<Method> test; ///< empty: no test answers it
    Property property;          ///< what the gate stands on
    bool isAtLeast = true;      ///< else at most
    bool isEachPiece =
        false; ///< each part must stand it, so that a bound for single pieces counts, not their mean
};
NeedTarget targetOf(const Need &need);

/// What is wrong with a need; ok where nothing is.
/// Errors: InvalidArgument: a limit that is not above zero, a factor below one, a weight that is not above
/// zero.
Status checkNeed(const Need &need);

/// Parts that are often asked for, with needs to begin with (common practice; every number is to be changed).
struct NeedTemplate {
    std::string_view name;
    std::vector<Need> needs;
};
const std::vector<NeedTemplate> &needTemplates();

/// As one JSON object: docs/needs_format.md.
std::string needsText(const Needs &needs);
/// Errors: BadInput, with the need's number and key.
Result<Needs> needsFromText(std::string_view text);

} // namespace inchpeg
