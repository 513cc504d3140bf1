// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/piece_log.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// How several readings of one size become the size.
enum class ReadingRule { Mean, Smallest };
std::string_view readingRuleName(ReadingRule rule); ///< "mean", "smallest"
std::optional<ReadingRule> readingRuleFrom(std::string_view name);

inline constexpr int kMostReadings = 5;

/// How pieces of a study are measured.
struct MeasuringRule {
    int readings = 1; ///< of each size, 1 to kMostReadings
    ReadingRule rule = ReadingRule::Mean;
    std::string calliper; ///< name of a gauge of the workshop; empty: none chosen
    std::string scale;
    std::optional<PrintAxis> lengthAxis; ///< a known length is measured along it; empty: none is
    std::optional<double> length_mm;     ///< that length as drawn
    double tolerance = 0.10;             ///< readings further from the drawn size are asked about, a fraction
    double massTolerance = 0.01;         ///< of the mean within a condition, and between conditions
    bool operator==(const MeasuringRule &) const = default;
};

/// Whether a setting that differs from the plan was meant to.
struct DifferenceAnswer {
    bool meant = false;
    std::string who;
    std::string when;
    bool operator==(const DifferenceAnswer &) const = default;
};

/// A setting as it really was.
struct RealSetting {
    std::string name;
    std::string value;
    std::optional<DifferenceAnswer> answer; ///< of a difference from the plan
    bool operator==(const RealSetting &) const = default;
};

/// Something that happened while a plate was printed, and what was done about it.
struct PrintEvent {
    PrintTrouble trouble = PrintTrouble::Other;
    std::string at; ///< workshop's own time, "2026-06-02T10:40"; empty: not known
    std::string what;
    std::string done;
    std::string who;
    bool operator==(const PrintEvent &) const = default;
};

/// How a plate was really printed.
struct PlateRecord {
    int plate = 0;
    std::string printer;
    std::string spool;     ///< material and lot as on the spool's card
    std::string startedAt; ///< workshop's own time
    std::string endedAt;
    std::optional<double> chamber_C; ///< reached
    std::optional<double> grams;     ///< of the slicer
    std::optional<double> minutes;
    std::vector<RealSetting> settings;
    std::vector<PrintEvent> events;
    std::string settingsFrom; ///< name of the file whose header was read
    std::string note;
    bool operator==(const PlateRecord &) const = default;
};

enum class StepKind { Drying, Conditioning, Annealing };
inline constexpr StepKind kStepKinds[] = {StepKind::Drying, StepKind::Conditioning, StepKind::Annealing};
std::string_view stepName(StepKind kind); ///< "drying", "conditioning", "annealing"
std::optional<StepKind> stepFrom(std::string_view name);

/// A timed step before or after printing. Times are the workshop's own.
struct TimedStep {
    StepKind kind = StepKind::Conditioning;
    std::vector<int> plates; ///< whose material or pieces; empty: all
    std::string start;
    std::string end; ///< empty: it goes on
    double wanted_h = 0.0;
    std::optional<double> temperature_C;
    std::optional<double> humidity_percent;
    bool skipped = false;
    std::string note; ///< why it was skipped, or late
    std::string who;
    std::string when;
    bool operator==(const TimedStep &) const = default;
};

/// The room in which pieces were tested.
struct RoomReading {
    std::string when; ///< ISO 8601, UTC
    double temperature_C = 0.0;
    double humidity_percent = 0.0;
    std::string who;
    bool operator==(const RoomReading &) const = default;
};

/// What was logged about a study beyond its single pieces.
struct StudyLog {
    MeasuringRule measuring;
    std::vector<PlateRecord> plates;
    std::vector<TimedStep> steps;
    std::vector<RoomReading> rooms{}; ///< in order
    std::string note;
    bool operator==(const StudyLog &) const = default;
};

const PlateRecord *findPlateRecord(const StudyLog &log, int plate);
/// The record of a plate, made where there is none yet.
PlateRecord &plateRecord(StudyLog &log, int plate);

/// As one JSON object, "{}" for an empty log: docs/project_format.md.
std::string studyLogText(const StudyLog &log);
/// Errors: BadInput, with the key.
Result<StudyLog> studyLogFromText(std::string_view text);

} // namespace inchpeg
