// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/read/marker_presenter.h"

#include "core/study/study_edit.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace inchpeg::app
{

namespace
{

/// A record up to this long is read again at every step of a drag; that takes a few milliseconds.
constexpr std::size_t kReadAtOnce = 100000;
constexpr double kStrainStep = 1e-4;
constexpr int kPlaceDigits = 4;

/// What the values on an axis measure.
Dimension dimensionOf(CurveAxis axis)
{
    return axis == CurveAxis::Strain      ? Dimension::Ratio
           : axis == CurveAxis::Extension ? Dimension::Length
                                          : Dimension::Time;
}

Unit ratioUnit(const ProjectSession &session)
{
    return session.notation().unitOf(Dimension::Ratio);
}

/// The property that a marker decides, for telling what moving it does.
std::optional<TensileProperty> propertyOf(Marker marker)
{
    const char *name = marker == Marker::Yield      ? "yield_stress"
                       : marker == Marker::Strength ? "tensile_strength"
                       : marker == Marker::Break    ? "stress_at_break"
                                                    : "tensile_modulus";
    const Result<TensileProperty> property = tensileProperty(name);
    return property ? std::optional(*property) : std::nullopt;
}

/// Where a result has a marker, as HandMarker::at; nothing where the record does not give it.
std::optional<double> foundPlace(const TensileResult &result, const ReadingRules &rules, Marker marker)
{
    const auto sample = [](const std::optional<std::size_t> &index) {
        return index ? std::optional(static_cast<double>(*index)) : std::nullopt;
    };
    switch (marker) {
    case Marker::Toe:
        return result.toeStrain;
    case Marker::ModulusFrom:
        return result.tensileModulus_MPa ? std::optional(rules.lowStrain) : std::nullopt;
    case Marker::ModulusTo:
        return result.tensileModulus_MPa ? std::optional(rules.highStrain) : std::nullopt;
    case Marker::Yield:
        return sample(result.markers.yield);
    case Marker::Strength:
        return sample(result.markers.strength);
    case Marker::Break:
        return sample(result.markers.lastBeforeBreak);
    }
    throw ContractViolation("unknown marker");
}

} // namespace

ShownAxis shownAxis(const ProjectSession &session)
{
    CurveAxis best = CurveAxis::None;
    for (const auto &[piece, reading] : session.readings()) {
        if (reading->has_value())
            best = std::min(best, reading->value().outline.axis);
    }
    return {best, session.notation().unitOf(dimensionOf(best))};
}

QString markerLabel(Marker marker)
{
    switch (marker) {
    case Marker::Toe:
        return MarkerPresenter::tr("Toe");
    case Marker::ModulusFrom:
        return MarkerPresenter::tr("Modulus from");
    case Marker::ModulusTo:
        return MarkerPresenter::tr("Modulus to");
    case Marker::Yield:
        return MarkerPresenter::tr("Yield");
    case Marker::Strength:
        return MarkerPresenter::tr("Strength");
    case Marker::Break:
        return MarkerPresenter::tr("Break");
    }
    throw ContractViolation("unknown marker");
}

QString markerMeaning(Marker marker)
{
    switch (marker) {
    case Marker::Toe:
        return MarkerPresenter::tr(
            "The origin of strain. What lies before it, while grips and piece settle, is "
            "taken off every strain.");
    case Marker::ModulusFrom:
        return MarkerPresenter::tr("The modulus is the slope of stress over strain from here …");
    case Marker::ModulusTo:
        return MarkerPresenter::tr("… to here (ISO 527-1: from 0.05 % to 0.25 % strain).");
    case Marker::Yield:
        return MarkerPresenter::tr("First maximum after which strain goes on while stress falls or stays "
                                   "(ISO 527-1). Type \"none\" where there is none.");
    case Marker::Strength:
        return MarkerPresenter::tr("First maximum that stands clear of the noise, else the largest stress "
                                   "(ISO 527-1).");
    case Marker::Break:
        return MarkerPresenter::tr("Upper end of the fall by which the piece broke; energy counts up to it.");
    }
    throw ContractViolation("unknown marker");
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

bool MarkerPresenter::canPlace() const
{
    return m_loader.record() != nullptr && !m_session.isForReading();
}

std::optional<double> MarkerPresenter::placeOf(Marker marker) const
{
    const Piece *piece = this->piece();
    const PieceReading *reading = readingOf(m_session.readings(), m_session.selectedPiece());
    if (piece == nullptr || reading == nullptr)
        return std::nullopt;
    if (const auto placed = piece->markers.find(marker); placed != piece->markers.end())
        return placed->second.at;
    return foundPlace(reading->result, m_session.study()->rules, marker);
}

/// at: as HandMarker::at.
QString MarkerPresenter::placeText(Marker marker, std::optional<double> at) const
{
    if (!at)
        return marker == Marker::Yield ? tr("none") : QString();
    const auto text = [&](double value, const Unit &unit) {
        return QString::fromStdString(m_session.notation().plain(unit.fromWorking(value), kPlaceDigits)) +
               QLatin1Char(' ') + QString::fromUtf8(unit.symbol);
    };
    if (!isAtSample(marker))
        return text(*at, ratioUnit(m_session));
    const std::shared_ptr<const PieceRecord> record = m_loader.record();
    const auto sample = static_cast<std::size_t>(*at);
    if (record == nullptr || sample >= record->curve.force_N.size())
        return {};
    const CurveAxis axis = axisOf(record->curve, record->result);
    const std::vector<double> &x = xOf(record->curve, record->result, axis);
    if (x.empty())
        return tr("sample %1").arg(sample + 1);
    return text(x[sample], m_session.notation().unitOf(dimensionOf(axis)));
}

std::vector<MarkerRow> MarkerPresenter::rows() const
{
    std::vector<MarkerRow> rows;
    const Piece *piece = this->piece();
    const PieceReading *reading = readingOf(m_session.readings(), m_session.selectedPiece());
    if (piece == nullptr || reading == nullptr)
        return rows;
    const bool hasStrain = reading->result.toeStrain.has_value();
    for (const Marker marker : kMarkers) {
        if (!hasStrain && !isAtSample(marker))
            continue;
        MarkerRow row{marker, markerLabel(marker), markerMeaning(marker), {}, {}, {}};
        const bool isMoved = m_moved && m_moved->marker == marker;
        row.place = placeText(marker, isMoved ? m_moved->at : placeOf(marker));
        if (const auto placed = piece->markers.find(marker); placed != piece->markers.end()) {
            row.handReason = tr("%1 (%2, %3)")
                                 .arg(QString::fromStdString(placed->second.reason),
                                      QString::fromStdString(placed->second.who),
                                      QString::fromStdString(placed->second.when).left(10));
            if (reading->automatic) {
                row.automatic =
                    placeText(marker, foundPlace(*reading->automatic, m_session.study()->rules, marker));
            }
        }
        rows.push_back(std::move(row));
    }
    return rows;
}

void MarkerPresenter::move(Marker marker, std::optional<double> at)
{
    if (!canPlace())
        return;
    m_moved = Moved{marker, at, {}};
    m_movedPiece = m_session.selectedPiece();
    const std::shared_ptr<const PieceRecord> record = m_loader.record();
    Piece tried = *piece();
    tried.markers[marker].at = at;
    if (const Result<TensileParameters> parameters = readingParameters(*m_session.study(), tried);
        parameters && record->curve.force_N.size() <= kReadAtOnce) {
        if (Result<TensileResult> result = reduceTensile(record->curve, *parameters))
            m_moved->preview = std::move(*result);
    }
    emit changed();
}

void MarkerPresenter::moveTo(Marker marker, QPointF at, PlotScale scale)
{
    const std::shared_ptr<const PieceRecord> record = m_loader.record();
    if (record == nullptr)
        return;
    const ShownAxis shown = shownAxis(m_session);
    if (!isAtSample(marker)) {
        const double strain = shown.kept(at.x());
        move(marker,
             marker == Marker::Toe ? record->result.toeStrain.value_or(0.0) + strain : std::max(0.0, strain));
        return;
    }
    const std::vector<double> &x = xOf(record->curve, record->result, shown.axis);
    const std::vector<double> &stress_MPa = record->result.stress_MPa;
    if (x.size() != stress_MPa.size())
        return;
    const Unit stress = m_session.notation().unitOf(Dimension::Stress);
    double nearest = std::numeric_limits<double>::infinity();
    std::size_t best = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
        const double dx = (shown.shown(x[i]) - at.x()) / scale.x;
        const double dy = (stress.fromWorking(stress_MPa[i]) - at.y()) / scale.y;
        const double distance = dx * dx + dy * dy;
        if (distance < nearest) {
            nearest = distance;
            best = i;
        }
    }
    move(marker, static_cast<double>(best));
}

void MarkerPresenter::moveBy(Marker marker, int steps)
{
    const std::shared_ptr<const PieceRecord> record = m_loader.record();
    const std::optional<double> from = m_moved && m_moved->marker == marker ? m_moved->at : placeOf(marker);
    if (record == nullptr)
        return;
    if (!isAtSample(marker)) {
        const double at = from.value_or(0.0) + kStrainStep * steps;
        move(marker, marker == Marker::Toe ? at : std::max(0.0, at));
        return;
    }
    const double start = from.value_or(static_cast<double>(record->result.markers.strength));
    const auto last = static_cast<double>(record->curve.force_N.size() - 1);
    move(marker, std::clamp(start + steps, 0.0, last));
}

bool MarkerPresenter::moveToTyped(Marker marker, const QString &text)
{
    const std::shared_ptr<const PieceRecord> record = m_loader.record();
    if (record == nullptr)
        return m_session.tell(invalidArgument(
            "the record of this piece is still being read, or cannot be read; a marker can be "
            "placed once its curve is drawn"));
    if (marker == Marker::Yield && text.trimmed().compare(tr("none"), Qt::CaseInsensitive) == 0) {
        move(marker, std::nullopt);
        return true;
    }
    const CurveAxis axis = axisOf(record->curve, record->result);
    const Dimension dimension = isAtSample(marker) ? dimensionOf(axis) : Dimension::Ratio;
    const Result<double> typed = parseQuantity(text.toStdString(), m_session.notation().unitOf(dimension));
    if (!typed)
        return m_session.tell(typed.error());
    if (!isAtSample(marker)) {
        move(marker, *typed);
        return true;
    }
    const std::vector<double> &x = xOf(record->curve, record->result, axis);
    if (x.empty())
        return m_session.tell(invalidArgument("this record has neither strain, extension nor time to place a "
                                              "marker by; drag it instead"));
    const auto nearest = std::min_element(
        x.begin(), x.end(), [&](double a, double b) { return std::abs(a - *typed) < std::abs(b - *typed); });
    move(marker, static_cast<double>(nearest - x.begin()));
    return true;
}

std::optional<Marker> MarkerPresenter::moved() const
{
    return m_moved ? std::optional(m_moved->marker) : std::nullopt;
}

QPointF MarkerPresenter::movedPoint() const
{
    const std::shared_ptr<const PieceRecord> record = m_loader.record();
    if (!m_moved || !m_moved->at || record == nullptr)
        return {};
    const ShownAxis shown = shownAxis(m_session);
    const Unit stress = m_session.notation().unitOf(Dimension::Stress);
    const std::vector<double> &x = xOf(record->curve, record->result, shown.axis);
    if (m_moved->marker == Marker::Toe)
        return {shown.shown(*m_moved->at - record->result.toeStrain.value_or(0.0)), 0.0};
    if (x.empty())
        return {};
    std::size_t sample = 0;
    if (isAtSample(m_moved->marker)) {
        sample = std::min(static_cast<std::size_t>(*m_moved->at), x.size() - 1);
    } else { // strains rise up to the strength, so the first that reaches the place is the one
        while (sample + 1 < x.size() && sample < record->result.markers.strength && x[sample] < *m_moved->at)
            ++sample;
        return {shown.shown(*m_moved->at), stress.fromWorking(record->result.stress_MPa[sample])};
    }
    return {shown.shown(x[sample]), stress.fromWorking(record->result.stress_MPa[sample])};
}

QString MarkerPresenter::movedText() const
{
    const PieceReading *reading = readingOf(m_session.readings(), m_session.selectedPiece());
    if (!m_moved || reading == nullptr)
        return {};
    QString text =
        tr("%1 by hand at %2").arg(markerLabel(m_moved->marker), placeText(m_moved->marker, m_moved->at));
    const std::optional<TensileProperty> property = propertyOf(m_moved->marker);
    if (!m_moved->preview || !property)
        return text + tr(". The values follow when you keep it.");
    const TensileResult &found = reading->automatic ? *reading->automatic : reading->result;
    const auto value = [&](const TensileResult &result) {
        const std::optional<double> &number = result.*property->value;
        return number ? QString::fromStdString(
                            m_session.notation().quantity(*number, property->dimension, kPlaceDigits))
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
        tr("place the %1 by hand").arg(markerLabel(moved.marker).toLower()), [&](Study &study) -> Status {
            Piece *piece = findPiece(study, id);
            if (piece == nullptr)
                return invalidArgument("the piece is no longer there");
            return placeMarker(*piece, moved.marker, m_session.handMarker(moved.at, reason.simplified()));
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

bool MarkerPresenter::backToAutomatic(Marker marker)
{
    const PieceId id = m_session.selectedPiece();
    return m_session.tryEdit(tr("set the %1 back to automatic").arg(markerLabel(marker).toLower()),
                             [&](Study &study) {
                                 if (Piece *piece = findPiece(study, id))
                                     clearMarker(*piece, marker);
                                 return ok();
                             });
}

bool MarkerPresenter::allBackToAutomatic()
{
    const PieceId id = m_session.selectedPiece();
    return m_session.tryEdit(tr("set all markers back to automatic"), [&](Study &study) {
        if (Piece *piece = findPiece(study, id))
            piece->markers.clear();
        return ok();
    });
}

bool MarkerPresenter::anyByHand() const
{
    const Piece *piece = this->piece();
    return piece != nullptr && !piece->markers.empty();
}

} // namespace inchpeg::app
