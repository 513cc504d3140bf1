// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/record_csv.h"

#include "service/on_all_cores.h"
#include "service/ordered_reading.h"

#include <fmt/format.h>

#include <iterator>

namespace inchpeg
{

Result<PieceRecord> keptRecord(ProjectFile &project, const Study &study, const Piece &piece,
                               const Workshop &workshop)
{
    if (!piece.recording)
        return Error{ErrorCode::NotFound, {}, {}};
    Result<ReadingJob> job =
        jobFor(*orderReading(study, piece, workshop), project.rawBytes(piece.recording->file));
    if (!job)
        return job.error();
    job->run = onAllCores;
    return readRecord(*job);
}

std::string curveCsv(const PieceRecord &record)
{
    const std::vector<NamedColumn> &columns = record.reading.columns;
    std::string text;
    for (const NamedColumn &column : columns)
        text += (text.empty() ? "" : ",") + column.name;
    text += '\n';
    for (std::size_t i = 0; i < columns.front().values.size(); ++i) {
        for (std::size_t c = 0; c < columns.size(); ++c)
            fmt::format_to(std::back_inserter(text), "{}{}", c == 0 ? "" : ",", columns[c].values[i]);
        text += '\n';
    }
    return text;
}

std::string csvNumber(const std::optional<double> &value)
{
    return value ? fmt::format("{}", *value) : std::string();
}

std::string csvMeasure(const std::optional<double> &value)
{
    return value ? fmt::format("{:.12g}", *value) : std::string();
}

std::string sectionCells(const std::optional<Section> &section)
{
    std::optional<double> width, thickness, diameter, area;
    if (section) {
        if (const auto *rectangle = std::get_if<RectangularSection>(&*section)) {
            width = in_mm(rectangle->width);
            thickness = in_mm(rectangle->thickness);
        } else if (const auto *round = std::get_if<RoundSection>(&*section)) {
            diameter = in_mm(round->diameter);
        }
        if (const Result<Area> measured = areaOf(*section))
            area = in_mm2(*measured);
    }
    return fmt::format("{},{},{},{}", csvMeasure(width), csvMeasure(thickness), csvMeasure(diameter),
                       csvMeasure(area));
}

} // namespace inchpeg
