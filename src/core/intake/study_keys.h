// SPDX-License-Identifier: GPL-3.0-or-later
// What may be set of a study by name: rules of reading, setup of a test, difference, reference, looks.
#pragma once

#include "core/model/study.h"
#include "core/model/workshop.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A key that a study or one of its tests knows.
struct StudyKey {
    std::string name;
    std::string meaning;
};

/// The keys that may be set for a test of a study, those of the study first.
std::vector<StudyKey> studyKeys(Method test);

/// What stands under a key now, as it would be typed; empty where nothing does.
/// Errors: NotFound with the keys there are.
Result<std::string> studyKeyText(const Study &study, Method test, std::string_view key);

/// Takes what a person typed; an empty text takes it back to what is usual, where that may be.
/// expected: what the reference reaches in the test's property, for a difference that is typed as a value.
/// Errors: NotFound as above; InvalidArgument with what would be right.
Status setStudyKey(Study &study, Method test, std::string_view key, std::string_view text,
                   const Workshop &workshop, const std::optional<double> &expected);

/// The rail of a title, or of a number from 1 in the study's order. Errors: NotFound with the rails there
/// are.
Result<ConditionId> railNamed(const Study &study, std::string_view name);

} // namespace inchpeg
