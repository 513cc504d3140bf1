// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/read/marker_presenter.h"

#include "core/model/study_edit.h"
#include "core/text/axis_scale.h"
#include "service/local_day.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace inchpeg::app
{

namespace
{

constexpr double kStrainStep = 1e-4;
constexpr int kPlaceDigits = 4;

/// Strain before extension before time.
int rankOf(const PictureAxis &axis)
{
    return axis.dimension == Dimension::Ratio ? 0 : axis.dimension == Dimension::Length ? 1 : 2;
}

/// The mark of a name; nullptr where the record does not give it.
const Mark *markOf(const Reading &reading, std::string_view name)
{
    const auto found = std::find_if(reading.marks.begin(), reading.marks.end(),
                                    [name](const Mark &mark) { return mark.name == name; });
    return found == reading.marks.end() ? nullptr : &*found;
}

std::optional<double> foundPlace(const Reading &reading, const MarkerKind &kind)
{
    const Mark *mark = markOf(reading, kind.name);
    return mark != nullptr ? mark->place : std::nullopt;
}

/// The property that a marker decides first, of those of the test.
const Property *propertyOf(const Reduction &reduction, const MarkerKind &kind)
{
    for (const Property &property : reduction.properties) {
        if (!kind.decides.empty() && property.name.ends_with(kind.decides))
            return &property;
    }
    return nullptr;
}

} // namespace

ShownAxes shownAxes(const ProjectSession &session)
{
    ShownAxes shown;
    bool any = false;
    double longest = 0.0;
    if (const Study *study = session.study()) {
        for (const Piece &piece : study->pieces) {
            const PieceReading *reading =
                piece.test == session.shownTest() ? readingOf(session.readings(), piece.id) : nullptr;
            if (reading == nullptr)
                continue;
            const CurveOutline &outline = reading->outline;
            if (!any || rankOf(outline.xAxis) < rankOf(shown.x)) {
                shown.x = outline.xAxis;
                shown.y = outline.yAxis;
            }
            any = true;
            if (!outline.x.empty())
                longest = std::max(longest, outline.x.back());
        }
    }
    shown.xUnit = axisUnit(shown.x.dimension, longest, session.notation());
    shown.yUnit = session.notation().unitOf(shown.y.dimension);
    return shown;
}

QString markerLabel(const MarkerKind &kind)
{
    return QString::fromUtf8(kind.label);
}

QString markerMeaning(const MarkerKind &kind)
{
    return QString::fromUtf8(kind.meaning);
}

MarkerPresenter::MarkerPresenter(ProjectSession &session, RecordLoader &loader, QObject *parent)
    : QObject(parent), m_session(session), m_loader(loader)
{
    const auto refresh = [this] {
        if (m_moved && m_session.selectedPiece() != m_movedPiece)
            m_moved.reset();
        emit changed();
    };
    connect(&session, &ProjectSession::selectionChanged, this, refresh);
    connect(&session, &ProjectSession::readingsChanged, this, refresh);
    connect(&session, &ProjectSession::notationChanged, this, refresh);
    connect(&loader, &RecordLoader::recordChanged, this, refresh);
    connect(&session, &ProjectSession::studyChanged, this, [this] {
        m_moved.reset();
        emit changed();
    });
}

const Piece *MarkerPresenter::piece() const
{
    return m_session.study() != nullptr ? findPiece(*m_session.study(), m_session.selectedPiece()) : nullptr;
}

const MarkerKind *MarkerPresenter::kindOf(std::string_view marker) const
{
    const Piece *selected = piece();
    return selected != nullptr ? findMarker(selected->test, marker) : nullptr;
}

bool MarkerPresenter::canPlace() const
{
    return m_loader.record() != nullptr && !m_session.isForReading();
}

std::optional<double> MarkerPresenter::placeOf(const MarkerKind &kind) const
{
    const Piece *selected = piece();
    const PieceReading *reading = readingOf(m_session.readings(), m_session.selectedPiece());
    if (selected == nullptr || reading == nullptr)
        return std::nullopt;
    if (const auto placed = selected->markers.find(kind.name); placed != selected->markers.end())
        return placed->second.at;
    return foundPlace(reading->result, kind);
}

/// at: as HandMarker::at.
QString MarkerPresenter::placeText(const MarkerKind &kind, std::optional<double> at) const
{
    if (!at)
        return kind.mayBeNone ? tr("none") : QString();
    const ShownAxes axes = shownAxes(m_session);
    const auto text = [&](double value) {
        return QString::fromStdString(m_session.notation().plain(axes.shownX(value), kPlaceDigits)) +
               QLatin1Char(' ') + QString::fromUtf8(axes.xUnit.symbol);
    };
    if (kind.place != MarkerPlace::Sample)
        return text(*at);
    const std::shared_ptr<const PieceRecord> record = m_loader.record();
    const auto sample = static_cast<std::size_t>(*at);
    if (record == nullptr || sample >= record->samples)
        return {};
    return record->x().empty() ? tr("sample %1").arg(sample + 1) : text(record->x()[sample]);
}

std::vector<MarkerRow> MarkerPresenter::rows() const
{
    std::vector<MarkerRow> rows;
    const Piece *selected = piece();
    const PieceReading *reading = readingOf(m_session.readings(), m_session.selectedPiece());
    if (selected == nullptr || reading == nullptr)
        return rows;
    const Reduction *reduction = reductionOf(selected->test);
    if (reduction == nullptr) // the test has become another just now
        return rows;
    for (const MarkerKind &kind : reduction->markers) {
        // Without a strain there is nothing that such a place could be on.
        const bool hasAxis = rankOf(reading->outline.xAxis) == 0;
        if (kind.place != MarkerPlace::Sample && !hasAxis)
            continue;
        MarkerRow row{std::string(kind.name), markerLabel(kind), markerMeaning(kind), {}, {}, {}};
        const bool isMoved = m_moved && m_moved->kind == &kind;
        row.place = placeText(kind, isMoved ? m_moved->at : placeOf(kind));
        if (const auto placed = selected->markers.find(kind.name); placed != selected->markers.end()) {
            row.handReason =
                tr("%1 (%2, %3)")
                    .arg(QString::fromStdString(placed->second.reason),
                         QString::fromStdString(placed->second.who), localDay(placed->second.when));
            if (reading->automatic)
                row.automatic = placeText(kind, foundPlace(*reading->automatic, kind));
        }
        rows.push_back(std::move(row));
    }
    return rows;
}

void MarkerPresenter::move(const MarkerKind &kind, std::optional<double> at)
{
    if (!canPlace())
        return;
    m_moved = Moved{&kind, at, {}};
    m_movedPiece = m_session.selectedPiece();
    const std::shared_ptr<const PieceRecord> record = m_loader.record();
    const std::optional<OrderedReading> ordered = m_session.readingOrder(m_session.selectedPiece());
    if (ordered && ordered->order && record->table) {
        PlacedMarkers placed = ordered->order->placed;
        placed[std::string(kind.name)] = at;
        Result<Reading> read =
            ordered->order->reduction->read(*record->table, record->settings, placed, inOrder);
        if (read)
            m_moved->preview = std::move(*read);
    }
    emit changed();
}

void MarkerPresenter::moveTo(std::string_view marker, QPointF at, PlotScale scale)
{
    const std::shared_ptr<const PieceRecord> record = m_loader.record();
    const MarkerKind *kind = kindOf(marker);
    if (record == nullptr || kind == nullptr)
        return;
    const ShownAxes axes = shownAxes(m_session);
    if (kind->place != MarkerPlace::Sample) {
        const double x = axes.xUnit.toWorking(at.x());
        const double shift = foundPlace(record->reading, *kind).value_or(0.0);
        move(*kind, kind->place == MarkerPlace::Shift ? shift + x : std::max(0.0, x));
        return;
    }
    const std::span<const double> x = record->x();
    const std::span<const double> y = record->y();
    double nearest = std::numeric_limits<double>::infinity();
    std::size_t best = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
        const double dx = (axes.shownX(x[i]) - at.x()) / scale.x;
        const double dy = (axes.shownY(y[i]) - at.y()) / scale.y;
        const double distance = dx * dx + dy * dy;
        if (distance < nearest) {
            nearest = distance;
            best = i;
        }
    }
    if (!x.empty())
        move(*kind, static_cast<double>(best));
}

void MarkerPresenter::moveBy(std::string_view marker, int steps)
{
    const std::shared_ptr<const PieceRecord> record = m_loader.record();
    const MarkerKind *kind = kindOf(marker);
    if (record == nullptr || kind == nullptr)
        return;
    const std::optional<double> from = m_moved && m_moved->kind == kind ? m_moved->at : placeOf(*kind);
    if (kind->place != MarkerPlace::Sample) {
        const double at = from.value_or(0.0) + kStrainStep * steps;
        move(*kind, kind->place == MarkerPlace::Shift ? at : std::max(0.0, at));
        return;
    }
    const auto last = static_cast<double>(record->samples - 1);
    const Mark *strength = markOf(record->reading, "strength"); // where one begins that was not there
    const double start = from.value_or(strength != nullptr ? strength->place.value_or(0.0) : 0.0);
    move(*kind, std::clamp(start + steps, 0.0, last));
}

bool MarkerPresenter::moveToTyped(std::string_view marker, const QString &text)
{
    const std::shared_ptr<const PieceRecord> record = m_loader.record();
    const MarkerKind *kind = kindOf(marker);
    if (record == nullptr || kind == nullptr)
        return m_session.tell(invalidArgument(
            "the record of this piece is still being read, or cannot be read; a marker can be "
            "placed once its curve is drawn"));
    if (kind->mayBeNone && text.trimmed().compare(tr("none"), Qt::CaseInsensitive) == 0) {
        move(*kind, std::nullopt);
        return true;
    }
    const Result<double> typed = parseQuantity(text.toStdString(), shownAxes(m_session).xUnit);
    if (!typed)
        return m_session.tell(typed.error());
    if (kind->place != MarkerPlace::Sample) {
        move(*kind, *typed);
        return true;
    }
    const std::span<const double> x = record->x();
    if (x.empty())
        return m_session.tell(invalidArgument("this record has neither strain, extension nor time to place a "
                                              "marker by; drag it instead"));
    const auto nearest = std::min_element(
        x.begin(), x.end(), [&](double a, double b) { return std::abs(a - *typed) < std::abs(b - *typed); });
    move(*kind, static_cast<double>(nearest - x.begin()));
    return true;
}

std::optional<std::string> MarkerPresenter::moved() const
{
    return m_moved ? std::optional(std::string(m_moved->kind->name)) : std::nullopt;
}

QPointF MarkerPresenter::movedPoint() const
{
    const std::shared_ptr<const PieceRecord> record = m_loader.record();
    if (!m_moved || !m_moved->at || record == nullptr)
        return {};
    const ShownAxes axes = shownAxes(m_session);
    const std::span<const double> x = record->x();
    const std::span<const double> y = record->y();
    if (m_moved->kind->place == MarkerPlace::Shift)
        return axes.shown(*m_moved->at - foundPlace(record->reading, *m_moved->kind).value_or(0.0), 0.0);
    if (x.empty())
        return {};
    if (m_moved->kind->place == MarkerPlace::Sample) {
        const std::size_t sample = std::min(static_cast<std::size_t>(*m_moved->at), x.size() - 1);
        return axes.shown(x[sample], y[sample]);
    }
    std::size_t sample = 0; // values rise up to the break, so the first that reaches the place is the one
    const std::size_t last = record->reading.picture.record->endAt;
    while (sample + 1 < x.size() && sample < last && x[sample] < *m_moved->at)
        ++sample;
    return axes.shown(*m_moved->at, y[sample]);
}

QString MarkerPresenter::movedText() const
{
    const PieceReading *reading = readingOf(m_session.readings(), m_session.selectedPiece());
    const Piece *selected = piece();
    if (!m_moved || reading == nullptr || selected == nullptr)
        return {};
    QString text =
        tr("%1 by hand at %2").arg(markerLabel(*m_moved->kind), placeText(*m_moved->kind, m_moved->at));
    const Reduction *reduction = reductionOf(selected->test);
    const Property *property = reduction != nullptr ? propertyOf(*reduction, *m_moved->kind) : nullptr;
    if (!m_moved->preview || property == nullptr)
        return text + tr(". The values follow when you keep it.");
    const Reading &found = reading->automatic ? *reading->automatic : reading->result;
    const auto value = [&](const Reading &result) {
        const ReadValue *read = valueOf(result.values, property->name);
        return read != nullptr ? QString::fromStdString(m_session.notation().quantity(
                                     read->number, property->dimension, kPlaceDigits))
                               : tr("none");
    };
    return text +
           tr(": %1 %2, found %3.")
               .arg(QString::fromUtf8(property->label).toLower(), value(*m_moved->preview), value(found));
}

bool MarkerPresenter::keep(const QString &reason)
{
    if (!m_moved)
        return false;
    const Moved moved = *m_moved;
    const PieceId id = m_movedPiece;
    const bool kept = m_session.tryEdit(
        tr("place the %1 by hand").arg(markerLabel(*moved.kind).toLower()), [&](Study &study) -> Status {
            Piece *placedOn = findPiece(study, id);
            if (placedOn == nullptr)
                return invalidArgument("the piece is no longer there");
            return placeMarker(*placedOn, placedOn->test, moved.kind->name,
                               m_session.handMarker(moved.at, reason.simplified()));
        });
    if (!kept && !m_moved) { // a refused edit leaves what was moved
        m_moved = moved;
        emit changed();
    }
    return kept;
}

void MarkerPresenter::drop()
{
    m_moved.reset();
    emit changed();
}

bool MarkerPresenter::backToAutomatic(std::string_view marker)
{
    const PieceId id = m_session.selectedPiece();
    const MarkerKind *kind = kindOf(marker);
    if (kind == nullptr)
        return false;
    return m_session.tryEdit(tr("set the %1 back to automatic").arg(markerLabel(*kind).toLower()),
                             [&](Study &study) {
                                 if (Piece *placedOn = findPiece(study, id))
                                     clearMarker(*placedOn, kind->name);
                                 return ok();
                             });
}

bool MarkerPresenter::allBackToAutomatic()
{
    const PieceId id = m_session.selectedPiece();
    return m_session.tryEdit(tr("set all markers back to automatic"), [&](Study &study) {
        if (Piece *placedOn = findPiece(study, id))
            placedOn->markers.clear();
        return ok();
    });
}

} // namespace inchpeg::app
