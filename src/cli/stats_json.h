// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/output.h"
#include "core/stats/factorial.h"
#include "core/stats/many_groups.h"

#include <functional>

namespace inchpeg::cli
{

/// Results of tests as the contract writes them: each key is there, with null where there is no value.

Json fTestJson(const std::optional<FTest> &test);
/// name: of the statistic: "H".
Json chiSquaredJson(const std::optional<ChiSquaredTest> &test, const char *name);
/// A line of an analysis of variance.
Json termJson(const std::string &name, const FactorialTerm &term);
/// value ± z standard errors.
Json around(double value, double error, double z);
Json estimateJson(const std::optional<Estimate> &estimate);
/// levelName: what a group is called, by its place.
Json bestLevelsJson(std::span<const BestLevel> levels, const std::function<Json(std::size_t)> &levelName);

} // namespace inchpeg::cli
