// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/decide/need_text.h"

#include "core/method/value_text.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

constexpr int kNeedTextDigits = 3;

} // namespace

Unit needUnit(const Need &need, const Notation &notation)
{
    if (need.kind == NeedKind::Weight)
        return *findUnit("g");
    if (need.kind == NeedKind::Time)
        return *findUnit("min");
    return notation.unitOf(targetOf(need).property.dimension);
}

std::string needValueText(const Need &need, double value, const Notation &notation, std::string_view money)
{
    switch (need.kind) {
    case NeedKind::Printer:
        return value > 0.5 ? "can be printed" : "cannot be printed";
    case NeedKind::Weather:
        return notation.plain(value, kNeedTextDigits) + " of 5";
    case NeedKind::Price:
        return notation.fixed(value, 2) + (money.empty() ? "" : " " + std::string(money));
    case NeedKind::Weight:
    case NeedKind::Time: {
        const Unit unit = needUnit(need, notation);
        return withUnit(notation.significant(unit.fromWorking(value), kNeedTextDigits), unit);
    }
    default:
        return valueText(targetOf(need).property, value, kNeedTextDigits, notation);
    }
}

std::string needGateText(const Need &need, const Notation &notation, std::string_view money)
{
    if (need.kind == NeedKind::Printer)
        return fmt::format("up to {:g} °C", need.printer.nozzle_C);
    if (need.kind == NeedKind::Never)
        return "not answered here";
    std::string text =
        (targetOf(need).isAtLeast ? "≥ " : "≤ ") + needValueText(need, need.limit, notation, money);
    if (need.safetyFactor > 1.0)
        text += " × " + notation.plain(need.safetyFactor, kNeedTextDigits);
    if (need.load_MPa)
        text += " at " + notation.quantity(*need.load_MPa, Dimension::Stress, kNeedTextDigits);
    if (need.kind == NeedKind::Creep)
        text += fmt::format(", {} h", notation.plain(need.after_h, 4));
    return text;
}

} // namespace inchpeg
