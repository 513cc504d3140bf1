// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/units/unit.h"

#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// One reading that a gauge sent.
struct GaugeReading {
    double value = 0.0; ///< in the working unit of its dimension (mm, kg); as sent without a unit
    std::optional<Dimension> dimension; ///< of the unit that was sent; nothing without one
    std::string text;                   ///< as it was sent
};

/// Reads one line of a gauge: a number, with or without a unit, words around it ignored ("WIDTH +0004.02
/// mm"). Decimal point and comma both work. Errors: BadInput where there is no number, more than one, or the
/// gauge reports a fault ("ERR low battery").
Result<GaugeReading> parseGaugeLine(std::string_view line);

/// Collects what comes over a serial line and cuts it into lines, however it is chopped. A line ends with CR,
/// LF or both.
class GaugeLines
{
public:
    /// The lines that are complete by now.
    std::vector<std::string> take(std::string_view bytes);
    /// What came of a line that is not complete: lost when the cable is pulled.
    [[nodiscard]] const std::string &pending() const { return m_pending; }
    void forget() { m_pending.clear(); }

private:
    std::string m_pending;
};

} // namespace inchpeg
