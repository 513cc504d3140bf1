// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/reading/piece_reading.h"
#include "store/project_file.h"

#include <optional>
#include <string>

namespace inchpeg
{

/// A piece's whole record, read anew from its raw file.
/// Errors: NotFound without a record; those of readRecord().
Result<PieceRecord> keptRecord(ProjectFile &project, const Study &study, const Piece &piece,
                               const Workshop &workshop);

/// All samples of a record as comma-separated text under the names of its columns. Precondition: it has
/// columns.
std::string curveCsv(const PieceRecord &record);

/// A length or area for people: twelve digits, so that 3.99 mm does not end in the dust of its conversion.
/// What was kept stands bit for bit in project.json.
std::string csvMeasure(const std::optional<double> &value);

/// Width, thickness, diameter in mm and area in mm² as four cells; empty those that a section does not have.
std::string sectionCells(const std::optional<Section> &section);

/// Shortest text that gives the same double again; empty where there is no value.
std::string csvNumber(const std::optional<double> &value);

} // namespace inchpeg
