// SPDX-License-Identifier: GPL-3.0-or-later
// Any text as what the log takes in: tables of measurements, plates' records and steps, lines of a gauge, the
// head of a print file, kept logs. It is read or refused in words; what was read is written and read again
// with the same meaning.
#include "core/logbook/gauge_line.h"
#include "core/logbook/log_table.h"
#include "core/logbook/print_record.h"
#include "core/logbook/record_tables.h"
#include "core/model/study_edit.h"
#include "service/log_tables.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <cstdlib>

namespace
{

using namespace inchpeg;

void demand(bool holds)
{
    if (!holds)
        std::abort();
}

/// Six pieces on two rails and three printed plates.
Study smallStudy()
{
    Study study;
    std::int64_t last = 1;
    study.id = StudyId{last++};
    firstTest(study).piecesPerCondition = 3;
    study.log.measuring.readings = 2;
    study.log.measuring.lengthAxis = PrintAxis::X;
    study.log.measuring.length_mm = 80.0;
    for (const char *level : {"a", "b"})
        demand(addCondition(study, {{}, {level}, {}, {}}, [&] { return last++; }).has_value());
    for (int plate = 1; plate <= 3; ++plate)
        study.plan.print.printed.push_back(
            {plate, 1, "2026-06-01T10:00:00Z", {{study.pieces[0].id, 1.0, 1.0, 2.0, 2.0, 1}}});
    return study;
}

void takeMeasurements(Study study, std::string_view text)
{
    const Result<TakenTable> table = readLogTable(study, text, "ABC");
    if (!table) {
        demand(!table.error().message.empty());
        return;
    }
    if (!takeLogTable(study, *table, true))
        return;
    for (const Piece &piece : study.pieces)
        demand(!piece.log.mass_g || (std::isfinite(*piece.log.mass_g) && *piece.log.mass_g > 0.0));
    const std::string written = logTable(study);
    const Result<TakenTable> again = readLogTable(study, written, "ABC");
    demand(again.has_value() && again->values.empty()); // all stand there already
}

template <typename Read, typename Write>
void takeRecords(const Study &study, std::string_view text, Read read, Write write)
{
    const auto records = read(text);
    if (!records) {
        demand(!records.error().message.empty());
        return;
    }
    Study taken = study;
    const std::string written = write(taken, *records);
    if (std::count(written.begin(), written.end(), '\n') < 2)
        return; // records that hold nothing have no rows
    const auto again = read(written);
    demand(again.has_value() && write(taken, *again) == written);
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t *data, std::size_t size)
{
    const std::string_view text(reinterpret_cast<const char *>(data), size);
    static const Study study = smallStudy();
    takeMeasurements(study, text);
    takeRecords(study, text, &readPlateTable, [](Study &taken, const std::vector<PlateRecord> &records) {
        taken.log.plates = records;
        return plateTable(taken);
    });
    takeRecords(study, text, &readStepTable, [](Study &taken, const std::vector<TimedStep> &steps) {
        taken.log.steps = steps;
        return stepTable(taken);
    });
    GaugeLines lines;
    for (const std::string &line : lines.take(text)) {
        const Result<GaugeReading> reading = parseGaugeLine(line);
        demand(reading ? std::isfinite(reading->value) : !reading.error().message.empty());
    }
    static_cast<void>(settingsFromHeader(text));
    if (const Result<PieceLog> log = pieceLogFromText(text))
        demand(pieceLogFromText(pieceLogText(*log)).has_value());
    if (const Result<StudyLog> log = studyLogFromText(text))
        demand(studyLogFromText(studyLogText(*log)).has_value());
    return 0;
}
