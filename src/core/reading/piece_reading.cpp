// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reading/piece_reading.h"

#include "core/curve/curve_pyramid.h"
#include "core/import/text.h"
#include "core/method/record_rows.h"
#include "core/reading/reading_uncertainty.h"
#include "core/text/letters.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

/// Up to so many samples an outline is the record itself.
constexpr std::size_t kShortRecord = 2048;
/// A record up to this long is read again at every step of a drag; that takes a few milliseconds.
constexpr std::size_t kReadAtOnce = 100000;

void append(CurveOutline &outline, std::span<const double> x, std::span<const double> y)
{
    const CurvePyramid pyramid(x, y);
    for (const PlotPoint &point : pyramid.line(pyramid.wholeWindow())) {
        outline.x.push_back(point.x);
        outline.y.push_back(point.y);
    }
}

CurveOutline outlineOf(const PieceRecord &record)
{
    const Picture &picture = record.reading.picture;
    CurveOutline outline;
    outline.xAxis = picture.x;
    outline.yAxis = picture.y;
    if (!picture.record)
        return outline;
    const std::span<const double> x = record.x();
    const std::span<const double> y = record.y();
    outline.isPoints = picture.record->isPoints;
    const std::size_t last = picture.record->endAt;
    if (x.size() <= kShortRecord) {
        outline.x.assign(x.begin(), x.end());
        outline.y.assign(y.begin(), y.end());
        outline.breakAt = last;
        return outline;
    }
    append(outline, x.first(last + 1), y.first(last + 1));
    outline.breakAt = outline.x.size() - 1;
    if (last + 1 < x.size())
        append(outline, x.subspan(last + 1), y.subspan(last + 1));
    return outline;
}

/// What there is beside the values by hand: values and marks as found.
Reading valuesAndMarks(Reading reading)
{
    Reading kept;
    kept.values = std::move(reading.values);
    kept.marks = std::move(reading.marks);
    return kept;
}

std::vector<double> *forcesOf(RecordTable &table, std::span<const RecordColumn> columns)
{
    std::vector<double> *force_N = nullptr;
    for (std::size_t c = 0; c < columns.size(); ++c) {
        if (columns[c].quantity == ColumnQuantity::Force)
            force_N = &table.columns[c];
    }
    return force_N;
}

/// Where the largest absolute force is below zero.
bool isNegative(const std::vector<double> &force_N)
{
    const auto [least, most] = std::minmax_element(force_N.begin(), force_N.end());
    return least != force_N.end() && -*least > *most;
}

/// A calibration that has a load where the gauge shows nothing was made with a gauge that was not at zero;
/// one that is zeroed before the test is corrected wrongly by it. Empty where there is no such load.
std::string zeroWarning(const UsedGauge &gauge, const std::vector<double> &corrected_N)
{
    constexpr double kZeroShare = 0.005; // as that of a record's own zero
    if (!gauge.calibration || corrected_N.empty())
        return {};
    const double atZero_N = correctedReading(*gauge.calibration, 0.0);
    const auto [least, most] = std::minmax_element(corrected_N.begin(), corrected_N.end());
    if (std::abs(atZero_N) <= kZeroShare * std::max(-*least, *most))
        return {};
    return fmt::format(
        "where {} shows nothing, its calibration of {} has {}: the gauge was not at zero when it "
        "was calibrated. Were it zeroed for this test, all its loads are off by as much",
        gauge.name, gauge.calibration->on, marked(atZero_N, Dimension::Force, 3));
}

/// Forces become true ones, and the travel of a crosshead loses what the frame itself gave way.
void correct(RecordTable &table, std::span<const RecordColumn> columns, const UsedGauge &gauge)
{
    std::vector<double> *force_N = forcesOf(table, columns);
    if (force_N == nullptr)
        return;
    if (gauge.calibration) {
        // A record may be of either sign as a whole; a calibration is of a load that is shown above zero.
        // Below it the first piece is prolonged, whatever sign comes out.
        const double sign = isNegative(*force_N) ? -1.0 : 1.0;
        for (double &value_N : *force_N)
            value_N = sign * correctedReading(*gauge.calibration, sign * value_N);
    }
    for (std::size_t c = 0; c < columns.size() && gauge.compliance_mm_per_N > 0.0; ++c) {
        if (columns[c].quantity != ColumnQuantity::Extension || !table.isCrosshead[c])
            continue;
        for (std::size_t i = 0; i < table.columns[c].size(); ++i)
            table.columns[c][i] -= gauge.compliance_mm_per_N * (*force_N)[i];
    }
}

/// The end of the range is where the gauge's own display ends: the true force there follows from the
/// calibration.
MethodSettings correctedSettings(const ReadingJob &job)
{
    MethodSettings settings = job.order.settings;
    if (const auto capacity = settings.numbers.find("capacity");
        capacity != settings.numbers.end() && job.gauge && job.gauge->calibration)
        capacity->second = correctedReading(*job.gauge->calibration, capacity->second);
    return settings;
}

/// A record of readings, or a row of values, with its settings.
struct Source {
    RecordTable table;
    MethodSettings settings;
    std::size_t samples = 0;
    std::vector<std::string> warnings;
};

Result<Source> rowSource(const ReadingJob &job, std::string_view text)
{
    Result<RecordRows> rows = readRecordRows(text, job.order.reduction->parameters);
    if (!rows)
        return rows.error();
    const RecordRow *own = nullptr; // a correction is a later row
    bool anyLabel = false;
    for (const RecordRow &row : rows->rows) {
        anyLabel = anyLabel || row.isLabelled;
        if (smallLetters(row.label) == smallLetters(job.order.row))
            own = &row;
    }
    if (own == nullptr && !anyLabel && !rows->rows.empty())
        own = &rows->rows.back();
    if (own == nullptr)
        return badInput(fmt::format("the table has no row for piece {}", job.order.row));
    Source source{{}, job.order.settings, 1, std::move(rows->warnings)};
    source.settings.override(own->settings);
    return source;
}

Result<Source> tableSource(const ReadingJob &job, std::string_view text)
{
    const std::span<const RecordColumn> columns = job.order.reduction->columns;
    const Result<Layout> layout = findRecordLayout(text, columns, job.mapping);
    if (!layout)
        return layout.error();
    Result<ImportedRecord> imported = readRecordTable(text, *layout, columns, job.run);
    if (!imported)
        return imported.error();
    if (job.gauge)
        correct(imported->table, columns, *job.gauge);
    return Source{std::move(imported->table), correctedSettings(job), imported->table.rows,
                  std::move(imported->warnings)};
}

Result<Source> sourceOf(const ReadingJob &job)
{
    require(job.bytes != nullptr && job.order.reduction != nullptr, "a reading without bytes or a test");
    const Result<DecodedText> text = decodeText(*job.bytes, job.run);
    if (!text)
        return text.error();
    return job.order.reduction->columns.empty() ? rowSource(job, text->utf8) : tableSource(job, text->utf8);
}

Result<Reading> readSource(const ReadingJob &job, RecordTable table, const MethodSettings &settings,
                           const PlacedMarkers &placed)
{
    const std::vector<double> *force_N = forcesOf(table, job.order.reduction->columns);
    std::string offset = job.gauge && force_N != nullptr ? zeroWarning(*job.gauge, *force_N) : std::string();
    Result<Reading> reading = job.order.reduction->read(std::move(table), settings, placed, job.run);
    if (!reading)
        return reading.error();
    if (!offset.empty())
        reading->warnings.push_back(std::move(offset));
    if (job.gauge) {
        if (std::string warning = calibrationWarning(*job.gauge); !warning.empty())
            reading->warnings.push_back(std::move(warning));
    }
    return reading;
}

/// What is drawn where the picture hangs on what is not known: force over way, else over time.
Picture plainPicture(const Reading &reading)
{
    const auto columnOf = [&](std::initializer_list<std::string_view> names) -> std::optional<std::size_t> {
        for (const std::string_view name : names) {
            for (std::size_t c = 0; c < reading.columns.size(); ++c) {
                if (reading.columns[c].name == name && !reading.columns[c].values.empty())
                    return c;
            }
        }
        return std::nullopt;
    };
    Picture picture;
    const auto force = columnOf({"force_N"});
    const auto way = columnOf({"extension_mm", "deflection_mm", "travel_mm"});
    const auto time = columnOf({"time_s"});
    if (!force || (!way && !time))
        return picture;
    picture.x = way ? PictureAxis{"Travel", Dimension::Length} : PictureAxis{"Time", Dimension::Time};
    picture.y = {"Force", Dimension::Force};
    picture.record = RecordCurve{way.value_or(*time), *force,
                                 reading.picture.record ? reading.picture.record->endAt
                                                        : reading.columns[*force].values.size() - 1,
                                 false};
    return picture;
}

/// What a record gives without something that is not known: the values that two guesses of it give alike.
Result<Reading> readWithout(const ReadingJob &job, const Source &source)
{
    constexpr double kAlike = 1e-9;
    Result<Reading> reading = readSource(job, source.table, source.settings, {});
    MethodSettings otherSettings = job.order.otherGuess;
    if (const std::optional<double> capacity = source.settings.number("capacity"))
        otherSettings.numbers["capacity"] = *capacity;
    const Result<Reading> other = readSource(job, source.table, otherSettings, {});
    if (!reading || !other)
        return reading ? other.error() : reading.error();
    std::erase_if(reading->values, [&](const ReadValue &value) {
        return std::none_of(other->values.begin(), other->values.end(), [&](const ReadValue &same) {
            return same.property == value.property && same.label == value.label &&
                   same.bound == value.bound &&
                   std::abs(same.number - value.number) <= kAlike * std::abs(value.number);
        });
    });
    std::erase_if(reading->validity, [&](const Check &check) {
        return std::find(other->validity.begin(), other->validity.end(), check) == other->validity.end();
    });
    std::erase_if(reading->warnings, [&](const std::string &warning) {
        return std::find(other->warnings.begin(), other->warnings.end(), warning) == other->warnings.end();
    });
    std::erase_if(reading->columns, [&](const NamedColumn &column) {
        return std::find(other->columns.begin(), other->columns.end(), column) == other->columns.end();
    });
    reading->picture = plainPicture(*reading);
    reading->marks.clear();
    for (const std::string &missing : job.order.missing)
        reading->warnings.push_back(missing + " is not known: what hangs on it is left out");
    return reading;
}

/// With the markers that a person placed, and with the uncertainties of the values.
Result<Reading> readAsOrdered(const ReadingJob &job, const Source &source)
{
    if (!job.order.missing.empty())
        return readWithout(job, source);
    Result<Reading> reading = readSource(job, source.table, source.settings, job.order.placed);
    if (reading)
        addUncertainties(*reading, job.order, {source.table, source.settings, job.gauge}, job.run);
    return reading;
}

/// What a table of results gave, as it stands there; of several properties in the test's order.
Result<Reading> givenReading(const ReadingJob &job)
{
    require(job.order.reduction != nullptr, "a reading without a test");
    const GivenRow &row = *job.mapping.given;
    for (const GivenValue &value : row.values) {
        if (const Result<Property> known = findProperty(*job.order.reduction, value.property); !known)
            return known.error();
    }
    Reading reading;
    for (const Property &property : job.order.reduction->properties) {
        for (const GivenValue &value : row.values) {
            if (value.property == property.name)
                reading.values.push_back({value.property,
                                          value.number,
                                          {},
                                          value.isAtLeast ? BoundReason::Given : BoundReason::None,
                                          {}});
        }
    }
    return reading;
}

} // namespace

std::span<const double> PieceRecord::x() const
{
    return reading.picture.record ? reading.columns[reading.picture.record->xColumn].values
                                  : std::span<const double>();
}

std::span<const double> PieceRecord::y() const
{
    return reading.picture.record ? reading.columns[reading.picture.record->yColumn].values
                                  : std::span<const double>();
}

Result<PieceRecord> readRecord(const ReadingJob &job)
{
    if (job.mapping.given) {
        Result<Reading> given = givenReading(job);
        return given ? Result<PieceRecord>(PieceRecord{std::move(*given), 0, {}, {}, {}}) : given.error();
    }
    Result<Source> source = sourceOf(job);
    if (!source)
        return source.error();
    Result<Reading> reading = readAsOrdered(job, *source);
    if (!reading)
        return reading.error();
    std::optional<RecordTable> table;
    if (source->samples <= kReadAtOnce)
        table = std::move(source->table);
    return PieceRecord{std::move(*reading), source->samples, std::move(source->warnings), std::move(table),
                       std::move(source->settings)};
}

Result<PieceReading> readPiece(const ReadingJob &job)
{
    if (job.mapping.given) {
        Result<Reading> given = givenReading(job);
        if (!given)
            return given.error();
        PieceReading out;
        out.result = std::move(*given);
        return out;
    }
    Result<Source> source = sourceOf(job);
    if (!source)
        return source.error();
    PieceReading out;
    out.samples = source->samples;
    out.importWarnings = std::move(source->warnings);
    if (!job.order.placed.empty() && job.order.missing.empty()) {
        Result<Reading> automatic = readSource(job, source->table, source->settings, {});
        if (!automatic)
            return automatic.error();
        out.automatic = valuesAndMarks(std::move(*automatic));
    }
    Result<Reading> reading = readAsOrdered(job, *source);
    if (!reading)
        return reading.error();
    PieceRecord record{std::move(*reading), out.samples, {}, {}, {}};
    out.outline = outlineOf(record);
    out.result = std::move(record.reading);
    out.result.columns = {};
    return out;
}

const PieceReading *readingOf(const PieceReadings &readings, PieceId piece)
{
    const auto found = readings.find(piece);
    if (found == readings.end() || !found->second->has_value())
        return nullptr;
    return &found->second->value();
}

} // namespace inchpeg
