// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/read/read_presenter.h"

#include "core/study/study_edit.h"

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr int kValueDigits = 4;

QString valueText(const Notation &notation, const TensileProperty &property, const TensileResult &result)
{
    const std::optional<double> value = result.*property.value;
    if (!value)
        return QStringLiteral("–");
    const QString text = QString::fromStdString(notation.quantity(*value, property.dimension, kValueDigits));
    return isLowerBound(property, result) ? ReadPresenter::tr("at least %1").arg(text) : text;
}

QString sectionText(const Notation &notation, const Piece &piece)
{
    if (!piece.section)
        return ReadPresenter::tr("section not measured yet");
    const auto length = [&](Length value) {
        return QString::fromStdString(notation.measuredLength(in_mm(value)));
    };
    const QString unit = QString::fromUtf8(notation.unitOf(Dimension::Length).symbol);
    if (const auto *rectangle = std::get_if<RectangularSection>(&*piece.section))
        return ReadPresenter::tr("%1 × %2 %3")
            .arg(length(rectangle->width), length(rectangle->thickness), unit);
    if (const auto *round = std::get_if<RoundSection>(&*piece.section))
        return ReadPresenter::tr("⌀ %1 %2").arg(length(round->diameter), unit);
    return QString::fromStdString(
        notation.quantity(in_mm2(std::get<PlainArea>(*piece.section).area), Dimension::Area, kValueDigits));
}

int railIndexOf(const Study &study, ConditionId rail)
{
    for (std::size_t i = 0; i < study.conditions.size(); ++i) {
        if (study.conditions[i].id == rail)
            return static_cast<int>(i);
    }
    return 0;
}

} // namespace

ReadPresenter::ReadPresenter(ProjectSession &session, QObject *parent)
    : QObject(parent), m_session(session), m_loader(session), m_placing(session, m_loader)
{
    connect(&session, &ProjectSession::notationChanged, this, [this] { m_shapes.clear(); });
    connect(&session, &ProjectSession::projectChanged, this, [this] { m_shapes.clear(); });
    connect(&m_placing, &MarkerPresenter::changed, this, &ReadPresenter::detailChanged);
}

QString ReadPresenter::xTitle() const
{
    const ShownAxis axis = shownAxis(m_session);
    const QString unit = QString::fromUtf8(axis.unit.symbol);
    switch (axis.axis) {
    case CurveAxis::Strain:
        return tr("Strain in %1, toe taken off").arg(unit);
    case CurveAxis::Extension:
        return tr("Extension in %1").arg(unit);
    case CurveAxis::Time:
    case CurveAxis::None:
        return tr("Time in %1").arg(unit);
    }
    throw ContractViolation("unknown axis");
}

QString ReadPresenter::yTitle() const
{
    return tr("Stress in %1").arg(QString::fromUtf8(m_session.notation().unitOf(Dimension::Stress).symbol));
}

std::vector<CurveModel> ReadPresenter::curves()
{
    std::vector<CurveModel> out;
    const Study *study = m_session.study();
    if (study == nullptr)
        return out;
    const ShownAxis axis = shownAxis(m_session);
    for (const Piece &piece : study->pieces) {
        if (!m_session.isRailShown(piece.condition))
            continue;
        std::shared_ptr<const CurveShape> shape = shapeOf(piece, axis);
        if (shape)
            out.push_back({piece.id, railIndexOf(*study, piece.condition), piece.exclusion.has_value(),
                           piece.id == m_session.selectedPiece(), std::move(shape)});
    }
    return out;
}

/// The selected piece from all its samples once they are at hand, the others from their outlines.
std::shared_ptr<const CurveShape> ReadPresenter::shapeOf(const Piece &piece, const ShownAxis &axis)
{
    const PieceReading *reading = readingOf(m_session.readings(), piece.id);
    if (reading == nullptr || reading->outline.axis != axis.axis || reading->outline.x.empty())
        return nullptr;
    const bool isSelected = piece.id == m_session.selectedPiece();
    const std::shared_ptr<const PieceRecord> record = isSelected ? m_loader.record() : nullptr;
    const bool isThinned = reading->outline.x.size() < reading->samples;
    const bool whole = record != nullptr && isThinned;
    const std::shared_ptr<const void> source =
        whole ? std::shared_ptr<const void>(record) : m_session.readings().at(piece.id);
    KeptShape &kept = m_shapes[piece.id];
    if (kept.source == source)
        return kept.shape;
    const Unit stress = m_session.notation().unitOf(Dimension::Stress);
    std::vector<double> x = whole ? xOf(record->curve, record->result, axis.axis) : reading->outline.x;
    std::vector<double> y = whole ? record->result.stress_MPa : reading->outline.stress_MPa;
    for (double &value : x)
        value = axis.shown(value);
    for (double &value : y)
        value = stress.fromWorking(value);
    const std::size_t breakAt = whole ? record->result.markers.lastBeforeBreak : reading->outline.breakAt;
    kept = {source, std::make_shared<const CurveShape>(std::move(x), std::move(y), breakAt)};
    return kept.shape;
}

std::vector<MarkerModel> ReadPresenter::markers() const
{
    std::vector<MarkerModel> out;
    const Study *study = m_session.study();
    const Piece *piece = study != nullptr ? findPiece(*study, m_session.selectedPiece()) : nullptr;
    const PieceReading *reading = readingOf(m_session.readings(), m_session.selectedPiece());
    const ShownAxis axis = shownAxis(m_session);
    if (piece == nullptr || reading == nullptr || reading->outline.axis != axis.axis ||
        !m_session.isRailShown(piece->condition))
        return out;
    const Unit stress = m_session.notation().unitOf(Dimension::Stress);
    const auto sideOf = [](Marker marker) -> Qt::Alignment {
        return marker == Marker::Yield || marker == Marker::Strength ? Qt::AlignHCenter | Qt::AlignBottom
                                                                     : Qt::AlignLeft | Qt::AlignVCenter;
    };
    const std::optional<Marker> moved = m_placing.moved();
    for (const MarkerPoint &point : reading->points) {
        if (point.marker == moved)
            continue;
        QString name = markerLabel(point.marker);
        if (point.marker == Marker::Break && !reading->result.markers.broke)
            name = tr("End of record");
        if (point.marker == Marker::Strength && reading->result.atLeast)
            name = tr("At least");
        const QPointF at(axis.shown(point.x), stress.fromWorking(point.stress_MPa));
        const auto same =
            std::find_if(out.begin(), out.end(), [&](const MarkerModel &other) { return other.at == at; });
        const bool byHand = piece->markers.contains(point.marker);
        if (point.marker == Marker::Toe && !byHand)
            name.clear();        // the origin speaks for itself
        if (same != out.end()) { // one label for what lies on one point; the later one can be dragged off
            const MarkerModel below = *same;
            same->name.clear(); // before the list grows and moves
            if (!below.name.isEmpty())
                name = below.name + QStringLiteral(", ") + name.toLower();
            out.push_back(
                {point.marker, name, markerMeaning(point.marker), at, below.side, byHand || below.isByHand});
            continue;
        }
        out.push_back({point.marker, name, markerMeaning(point.marker), at, sideOf(point.marker), byHand});
    }
    if (!moved && reading->result.offsetYieldStress_MPa && axis.axis == CurveAxis::Strain)
        out.push_back({std::nullopt, tr("Offset yield"), tr("Meets the modulus line shifted by the offset"),
                       QPointF(axis.shown(*reading->result.offsetYieldStrain),
                               stress.fromWorking(*reading->result.offsetYieldStress_MPa)),
                       Qt::AlignRight | Qt::AlignVCenter, false});
    if (moved)
        out.push_back({moved, markerLabel(*moved), markerMeaning(*moved), m_placing.movedPoint(),
                       Qt::AlignRight | Qt::AlignBottom, true});
    return out;
}

PieceCard ReadPresenter::card() const
{
    PieceCard card;
    const Study *study = m_session.study();
    const Piece *piece = study != nullptr ? findPiece(*study, m_session.selectedPiece()) : nullptr;
    if (piece == nullptr)
        return card;
    card.title = tr("%1 · %2").arg(
        QString::fromStdString(piece->code),
        QString::fromStdString(railTitle(*study, *findCondition(*study, piece->condition))));
    card.section = sectionText(m_session.notation(), *piece);
    card.hasRecord = piece->recording.has_value();
    card.isLeftOut = piece->exclusion.has_value();
    card.canLeaveOut = card.hasRecord && !card.isLeftOut;
    if (piece->exclusion)
        card.exclusionText = tr("Left out by %1 on %2: %3")
                                 .arg(QString::fromStdString(piece->exclusion->who),
                                      QString::fromStdString(piece->exclusion->when).left(10),
                                      QString::fromStdString(piece->exclusion->reason));
    if (!piece->recording) {
        card.origin = tr("no record yet");
        return card;
    }
    if (const Result<RawFileInfo> info = m_session.project().rawFileInfo(piece->recording->file))
        card.origin =
            tr("%1, brought in %2, SHA-256 %3…")
                .arg(QString::fromStdString(info->name), QString::fromStdString(info->addedAt).left(10),
                     QString::fromStdString(info->sha256).left(10));
    const auto found = m_session.readings().find(piece->id);
    if (found == m_session.readings().end()) {
        card.attention << tr("being read…");
        return card;
    }
    if (!found->second->has_value()) {
        card.attention << QString::fromStdString(errorSentence(found->second->error()));
        return card;
    }
    const PieceReading &reading = found->second->value();
    const Notation &notation = m_session.notation();
    for (const TensileProperty &property : tensileProperties()) {
        PropertyLine line{QString::fromUtf8(property.label),
                          valueText(notation, property, reading.result),
                          {},
                          QString::fromUtf8(property.definition)};
        if (reading.automatic && (*reading.automatic).*property.value != reading.result.*property.value)
            line.automatic = tr("found %1").arg(valueText(notation, property, *reading.automatic));
        card.properties.push_back(std::move(line));
    }
    for (const Check &check : reading.result.validity) {
        if (!check.ok)
            card.attention << QString::fromStdString(check.rule + ": not so. " +
                                                     notation.expand(check.detail));
    }
    for (const std::vector<std::string> *warnings : {&reading.importWarnings, &reading.result.warnings}) {
        for (const std::string &warning : *warnings)
            card.attention << QString::fromStdString(notation.expand(warning));
    }
    for (const MeasuredWith &with : piece->log.gauges) {
        if (const std::string warning = calibrationWarning(with.gauge); !warning.empty())
            card.attention << QString::fromStdString(warning);
    }
    return card;
}

QString ReadPresenter::emptyText() const
{
    const Study *study = m_session.study();
    if (study == nullptr)
        return tr("No study is on the rack.");
    if (m_session.isReading())
        return tr("Reading the records…");
    const bool anyRecord = std::any_of(study->pieces.begin(), study->pieces.end(),
                                       [](const Piece &piece) { return piece.recording.has_value(); });
    if (!anyRecord)
        return tr("No records yet. Bring in force files in the Log lens.");
    if (m_session.readings().empty() && m_session.unreadCount() > 0)
        return tr("Reading was stopped before the first record.");
    const CurveAxis axis = shownAxis(m_session).axis;
    const bool anyDrawn = std::any_of(study->pieces.begin(), study->pieces.end(), [&](const Piece &piece) {
        const PieceReading *reading = readingOf(m_session.readings(), piece.id);
        return reading != nullptr && m_session.isRailShown(piece.condition) && !reading->outline.x.empty() &&
               reading->outline.axis == axis;
    });
    if (!anyDrawn)
        return tr("Nothing to draw: the chosen rails have no record that can be read. Measure the sections "
                  "in the Log lens, or show more rails.");
    return {};
}

bool ReadPresenter::leaveOut(const QString &reason)
{
    const PieceId id = m_session.selectedPiece();
    return m_session.tryEdit(tr("leave a piece out"), [&](Study &study) -> Status {
        Piece *piece = findPiece(study, id);
        if (piece == nullptr || !piece->recording)
            return invalidArgument("only a piece with a record can be left out");
        if (reason.simplified().isEmpty())
            return invalidArgument("say why the piece is left out; the reason is kept with it");
        piece->exclusion = m_session.exclusion(reason.simplified());
        return ok();
    });
}

bool ReadPresenter::takeBackIn()
{
    const PieceId id = m_session.selectedPiece();
    return m_session.tryEdit(tr("take a piece back in"), [&](Study &study) {
        if (Piece *piece = findPiece(study, id))
            piece->exclusion.reset();
        return ok();
    });
}

bool ReadPresenter::takeOffRecord()
{
    const PieceId id = m_session.selectedPiece();
    return m_session.tryEdit(tr("take a record off its piece"), [&](Study &study) {
        if (Piece *piece = findPiece(study, id))
            setRecording(*piece, std::nullopt);
        return ok();
    });
}

} // namespace inchpeg::app
