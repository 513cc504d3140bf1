// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/method/method.h"
#include "core/model/step_levels.h"
#include "core/specimen/shape.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

inline constexpr int kUsualPieces = 5; ///< of a rail, until a person says otherwise
inline constexpr int kMostPiecesPerCondition = 200;

/// How a bar is held under a dead load: on two supports, or clamped at one end and loaded near the other.
enum class Fixture { ThreePoint, Cantilever };
std::string_view fixtureName(Fixture fixture); ///< "three-point", "cantilever"
std::optional<Fixture> fixtureFrom(std::string_view name);

/// How a test is made, and how its records are read.
struct TestSetup {
    std::string property; ///< the response; empty: the usual one of the method
    SpecimenShape shape;  ///< key empty: not chosen yet, the usual one of the method is meant
    std::string rig;      ///< name of a rig of the workshop; empty: none chosen
    /// What a piece of the reference is expected to reach, in the property's unit; empty: from own results or
    /// the polymer.
    std::optional<double> expected;
    double stress_MPa = 1.8; ///< of tests under a dead load
    Fixture fixture = Fixture::ThreePoint;
    double freeLength_mm =
        0.0; ///< of a cantilever, from the clamp to the load; 0: three quarters of the length
    double speed_mm_per_min = 5.0;
    /// Dead weights that are put on a beam one after the other; empty: the usual ones.
    std::vector<double> loads_kg{};
    /// Of a load that rises in steps until a piece gives way; empty: the usual ones.
    std::optional<StepPlan> steps{};
    MethodSettings settings{}; ///< said for reading its records, by the names of the test's parameters
    bool operator==(const TestSetup &) const = default;
};

/// True for a test whose bar may be clamped at one end.
bool mayBeCantilever(Method method);
/// Over which length a bar is bent: the span of its supports, or what stands out of the clamp up to the load.
/// shape: as planned.
double bentLength_mm(const TestSetup &setup, const SpecimenShape &shape, Method method);

/// One kind of test of a study, with pieces of its own on each rail.
struct StudyTest {
    Method method = Method::Tension;
    int piecesPerCondition = kUsualPieces;
    TestSetup setup{};
    bool operator==(const StudyTest &) const = default;
};

/// A setup as one JSON object, keys in a fixed order: docs/plan_format.md. What stands at its default is left
/// out, so that an empty setup is "{}".
std::string testSetupText(const TestSetup &setup);
/// Errors: BadInput, with the key, for a text that is no setup.
Result<TestSetup> testSetupFromText(std::string_view text);

/// The tests of a study as a JSON list; each holds its method and pieces beside the keys of its setup.
std::string testsText(const std::vector<StudyTest> &tests);
/// Errors: BadInput as above, for an unknown method, for one that occurs twice, for an empty list, and for
/// more pieces than there may be.
Result<std::vector<StudyTest>> testsFromText(std::string_view text);

} // namespace inchpeg
