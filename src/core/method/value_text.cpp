// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/value_text.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

std::string valueText(const Property &property, double value, int digits, const Notation &notation)
{
    switch (property.scale) {
    case Scale::Word: {
        const auto place = static_cast<std::size_t>(std::lround(std::max(0.0, value)));
        return place < property.choices.size() ? std::string(property.choices[place]) : notation.plain(value);
    }
    case Scale::Ordinal:
        return notation.plain(value, digits);
    case Scale::Ratio:
    case Scale::Interval:
        break;
    }
    return notation.quantity(value, property.dimension, digits);
}

} // namespace inchpeg
