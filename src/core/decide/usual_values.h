// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/decide/needs.h"
#include "core/model/polymer.h"

#include <optional>

namespace inchpeg
{

/// What is usual for a polymer where nobody has measured: rough orders (common practice), never mixed with
/// results. In the working unit of the need's property; nothing where nothing is usual.
std::optional<double> usualFor(const PolymerFacts &polymer, const Need &need);

/// What a polymer asks of a printer (common practice).
struct PrinterWants {
    double nozzle_C = 220.0;
    bool chamber = false;
    bool hardNozzle = false;
    bool drying = false;
};
PrinterWants printerWants(const PolymerFacts &polymer);

} // namespace inchpeg
