// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/decide/evidence.h"
#include "core/report/study_tables.h"

namespace inchpeg
{

/// Who made a report, when, and of what: the same for each kind.
struct ReportOrigin {
    std::string project;   ///< its file's name
    std::string version;   ///< of the program
    std::string writtenAt; ///< "2026-06-08", the workshop's day
};

/// "Inch Peg 0.1.0 · fenlark.inchpeg · written 2026-06-08".
std::string footOf(const ReportOrigin &origin);

struct StudyReportRequest {
    const Study *study = nullptr;
    const PieceReadings *readings = nullptr;
    const Workshop *workshop = nullptr;
    std::span<const StudyResults> all{};  ///< all studies of the project and its library
    std::span<const BoughtPart> bought{}; ///< with their prices
    std::span<const ReportedFile> files{};
    std::span<const std::string> remarks{}; ///< of what was read: a project of the library that is missing
    ReportOrigin origin;
};

/// Everything that another needs to believe a study or to doubt it: question, verdicts with pictures and
/// tables, how it was printed and tested, rules that were not kept, confounds, what was left out and why,
/// pieces, gauges, raw files. The verdicts are those of the compare lens.
Report studyReport(const StudyReportRequest &request, const Notation &notation);

} // namespace inchpeg
