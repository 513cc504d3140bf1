// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/read/read_presenter.h"

#include "core/compare/verdict.h"
#include "core/logbook/break_looks.h"
#include "core/method/value_text.h"
#include "core/model/study_edit.h"
#include "core/reading/reading_uncertainty.h"
#include "service/local_day.h"

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr int kValueDigits = 4;
constexpr double kExpansion = 2.0; ///< k of the uncertainty that is shown

QString valueText(const Notation &notation, const Property &property, const ReadValue *value)
{
    if (value == nullptr)
        return QStringLiteral("–");
    if (value->uncertainty) {
        const double expanded = kExpansion * *value->uncertainty;
        const int decimals = propertyDecimals(property, expanded, notation);
        const Unit unit = notation.unitOf(property.dimension);
        return QStringLiteral("%1 ± %2").arg(
            QString::fromStdString(notation.fixed(unit.fromWorking(value->number), decimals)),
            QString::fromStdString(propertyDifferenceText(property, expanded, decimals, notation)));
    }
    const QString text = QString::fromStdString(valueText(property, value->number, kValueDigits, notation));
    return value->bound != BoundReason::None ? ReadPresenter::tr("at least %1").arg(text) : text;
}

/// The values of a property as lines of the card: one, or one a label.
void addLines(PieceCard &card, const Notation &notation, const Property &property,
              const PieceReading &reading, const QString &usual)
{
    const QString label = QString::fromUtf8(property.label);
    const QString rule = QString::fromUtf8(property.definition);
    bool any = false;
    for (const ReadValue &value : reading.result.values) {
        if (value.property != property.name)
            continue;
        any = true;
        PropertyLine line{
            value.label.empty() ? label
                                : QStringLiteral("%1, %2").arg(label, QString::fromStdString(value.label)),
            valueText(notation, property, &value),
            {},
            value.uncertainty
                ? rule + QLatin1Char('\n') +
                      ReadPresenter::tr("± is the expanded uncertainty (k = 2) of "
                                        "this value from its section and gauge, as "
                                        "far as they are known%1; the scatter between "
                                        "pieces is no part of it")
                          .arg(usual.isEmpty() ? QString()
                                               : ReadPresenter::tr(" (taken as usual: %1)").arg(usual))
                : rule};
        const ReadValue *found =
            reading.automatic ? valueOf(reading.automatic->values, property.name) : nullptr;
        if (reading.automatic && (found == nullptr || found->number != value.number))
            line.automatic = ReadPresenter::tr("found %1").arg(valueText(notation, property, found));
        card.properties.push_back(std::move(line));
    }
    if (any)
        return;
    PropertyLine line{label, valueText(notation, property, nullptr), {}, rule};
    const ReadValue *found = reading.automatic ? valueOf(reading.automatic->values, property.name) : nullptr;
    if (found != nullptr)
        line.automatic = ReadPresenter::tr("found %1").arg(valueText(notation, property, found));
    card.properties.push_back(std::move(line));
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

namespace
{

QString axisTitle(const PictureAxis &axis, const Unit &unit)
{
    const QString title = QString::fromStdString(headingIn(axis.label, unit));
    return axis.note.empty() ? title : QStringLiteral("%1, %2").arg(title, QString::fromStdString(axis.note));
}

const QString kNotSaid = QStringLiteral("not-said");

/// look: empty for any.
bool hasLook(const Piece &piece, const QString &look)
{
    if (look.isEmpty())
        return true;
    const bool isSaid = findBreakLook(piece.log.breakLook) != nullptr;
    return look == kNotSaid ? !isSaid : look == QString::fromStdString(piece.log.breakLook);
}

} // namespace

std::vector<LookChoice> ReadPresenter::lookChoices() const
{
    const std::optional<Method> test = m_session.shownTest();
    if (!test)
        return {};
    const SaidLooks said = saidLooks(*m_session.study(), *test);
    if (said.counts.empty())
        return {};
    std::vector<LookChoice> choices{{{}, tr("all breaks")}};
    for (const auto &[look, count] : said.counts)
        choices.push_back(
            {QString::fromUtf8(look->name), tr("%1: %2").arg(QString::fromUtf8(look->label)).arg(count)});
    if (said.notSaid > 0)
        choices.push_back({kNotSaid, tr("not described: %1").arg(said.notSaid)});
    return choices;
}

void ReadPresenter::showLook(const QString &look)
{
    if (m_shownLook == look)
        return;
    m_shownLook = look;
    emit lookChanged();
}

QString ReadPresenter::shownLook() const
{
    const std::vector<LookChoice> choices = lookChoices();
    const bool isThere = std::any_of(choices.begin(), choices.end(),
                                     [this](const LookChoice &choice) { return choice.look == m_shownLook; });
    return isThere ? m_shownLook : QString();
}

QString ReadPresenter::xTitle() const
{
    const ShownAxes axes = shownAxes(m_session);
    return axes.x.label.empty() ? QString() : axisTitle(axes.x, axes.xUnit);
}

QString ReadPresenter::yTitle() const
{
    const ShownAxes axes = shownAxes(m_session);
    return axes.y.label.empty() ? QString() : axisTitle(axes.y, axes.yUnit);
}

QString ReadPresenter::curvesText()
{
    QString text =
        tr("piece") + QLatin1Char('\t') + xTitle() + QLatin1Char('\t') + yTitle() + QLatin1Char('\n');
    for (const CurveModel &curve : curves()) {
        const QString code = QString::fromStdString(findPiece(*m_session.study(), curve.piece)->code);
        for (std::size_t i = 0; i < curve.shape->x().size(); ++i)
            text += QStringLiteral("%1\t%2\t%3\n")
                        .arg(code)
                        .arg(curve.shape->x()[i], 0, 'g', 10)
                        .arg(curve.shape->y()[i], 0, 'g', 10);
    }
    return text;
}

std::vector<CurveModel> ReadPresenter::curves()
{
    std::vector<CurveModel> out;
    const Study *study = m_session.study();
    if (study == nullptr)
        return out;
    const ShownAxes axes = shownAxes(m_session);
    if (axes.xUnit != m_shapeUnits.first || axes.yUnit != m_shapeUnits.second) {
        m_shapes.clear();
        m_shapeUnits = {axes.xUnit, axes.yUnit};
    }
    const QString look = shownLook();
    for (const Piece &piece : study->pieces) {
        if (!m_session.isRailShown(piece.condition) || piece.test != m_session.shownTest() ||
            !hasLook(piece, look))
            continue;
        std::shared_ptr<const CurveShape> shape = shapeOf(piece, axes);
        if (shape)
            out.push_back({piece.id, railIndexOf(*study, piece.condition), piece.exclusion.has_value(),
                           piece.id == m_session.selectedPiece(),
                           readingOf(m_session.readings(), piece.id)->outline.isPoints, std::move(shape)});
    }
    return out;
}

/// The selected piece from all its samples once they are at hand, the others from their outlines.
std::shared_ptr<const CurveShape> ReadPresenter::shapeOf(const Piece &piece, const ShownAxes &axes)
{
    const PieceReading *reading = readingOf(m_session.readings(), piece.id);
    if (reading == nullptr || !axes.fits(reading->outline) || reading->outline.x.empty())
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
    const std::span<const double> wholeX = whole ? record->x() : std::span(reading->outline.x);
    const std::span<const double> wholeY = whole ? record->y() : std::span(reading->outline.y);
    std::vector<double> x(wholeX.begin(), wholeX.end());
    std::vector<double> y(wholeY.begin(), wholeY.end());
    for (double &value : x)
        value = axes.shownX(value);
    for (double &value : y)
        value = axes.shownY(value);
    const std::size_t breakAt = whole ? record->reading.picture.record->endAt : reading->outline.breakAt;
    kept = {source, std::make_shared<const CurveShape>(std::move(x), std::move(y), breakAt)};
    return kept.shape;
}

std::vector<GuideModel> ReadPresenter::guides() const
{
    std::vector<GuideModel> out;
    const PieceReading *reading = readingOf(m_session.readings(), m_session.selectedPiece());
    const ShownAxes axes = shownAxes(m_session);
    if (reading == nullptr || !axes.fits(reading->outline))
        return out;
    for (const PictureSeries &series : reading->result.picture.series) {
        GuideModel model{QString::fromStdString(series.label), {}, false};
        for (std::size_t i = 0; i < series.x.size(); ++i)
            model.line.push_back(axes.shown(series.x[i], series.y[i]));
        out.push_back(std::move(model));
    }
    for (const PictureGuide &guide : reading->result.picture.guides)
        out.push_back({QString::fromStdString(guide.label),
                       {axes.shown(guide.x0, guide.y0), axes.shown(guide.x1, guide.y1)},
                       true});
    return out;
}

std::vector<MarkerModel> ReadPresenter::markers() const
{
    std::vector<MarkerModel> out;
    const Study *study = m_session.study();
    const Piece *piece = study != nullptr ? findPiece(*study, m_session.selectedPiece()) : nullptr;
    const PieceReading *reading = readingOf(m_session.readings(), m_session.selectedPiece());
    const ShownAxes axes = shownAxes(m_session);
    if (piece == nullptr || reading == nullptr || !axes.fits(reading->outline) ||
        !m_session.isRailShown(piece->condition))
        return out;
    const std::optional<std::string> moved = m_placing.moved();
    for (const Mark &mark : reading->result.marks) {
        const MarkerKind *kind = m_placing.kindOf(mark.name);
        if (moved && (mark.name == *moved || kind == nullptr))
            continue; // what follows from others follows once it is kept
        QString name = !mark.label.empty() ? QString::fromStdString(mark.label)
                       : kind != nullptr   ? markerLabel(*kind)
                                           : QString();
        const QString meaning = kind != nullptr ? markerMeaning(*kind) : QString();
        const Qt::Alignment side = kind == nullptr    ? Qt::AlignRight | Qt::AlignBottom
                                   : kind->labelAbove ? Qt::AlignHCenter | Qt::AlignBottom
                                                      : Qt::AlignLeft | Qt::AlignVCenter;
        const QPointF at = axes.shown(mark.x, mark.y);
        const auto same =
            std::find_if(out.begin(), out.end(), [&](const MarkerModel &other) { return other.at == at; });
        const bool byHand = piece->markers.contains(mark.name);
        if (kind != nullptr && kind->place == MarkerPlace::Shift && !byHand)
            name.clear();        // the origin speaks for itself
        if (same != out.end()) { // one label for what lies on one point; the later one can be dragged off
            const MarkerModel below = *same;
            same->name.clear(); // before the list grows and moves
            if (!below.name.isEmpty())
                name = below.name + QStringLiteral(", ") + name.toLower();
            out.push_back({mark.name, name, meaning, at, below.side, byHand || below.isByHand});
            continue;
        }
        out.push_back({mark.name, name, meaning, at, side, byHand});
    }
    if (const MarkerKind *kind = moved ? m_placing.kindOf(*moved) : nullptr)
        out.push_back({*moved, markerLabel(*kind), markerMeaning(*kind), m_placing.movedPoint(),
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
    if (study->tests.size() > 1) // which of the study's tests this piece is for
        card.section = tr("%1 · %2").arg(QString::fromUtf8(methodName(piece->test)), card.section);
    card.hasRecord = piece->recording.has_value();
    card.isLeftOut = piece->exclusion.has_value();
    card.canLeaveOut = card.hasRecord && !card.isLeftOut;
    if (piece->exclusion)
        card.exclusionText =
            tr("Left out by %1 on %2: %3")
                .arg(QString::fromStdString(piece->exclusion->who), localDay(piece->exclusion->when),
                     QString::fromStdString(piece->exclusion->reason));
    if (!piece->recording) {
        card.origin = tr("no record yet");
        return card;
    }
    card.looks = factsOf(piece->test).looks;
    card.look = piece->log.breakLook;
    if (const Result<RawFileInfo> info = m_session.project().rawFileInfo(piece->recording->file))
        card.origin = tr("%1, brought in %2, SHA-256 %3…")
                          .arg(QString::fromStdString(info->name), localDay(info->addedAt),
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
    if (!reading.result.kind.empty())
        card.section += tr(" · %1").arg(QString::fromStdString(reading.result.kind));
    const Reduction *reduction = reductionOf(piece->test);
    const QString usual =
        reduction != nullptr ? QString::fromStdString(usuallyKnownText(*reduction)) : QString();
    for (const Property &property :
         reduction != nullptr ? reduction->properties : std::span<const Property>())
        addLines(card, notation, property, reading, usual);
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

QString ReadPresenter::hintText() const
{
    QString text =
        tr("Wheel or + − zooms, drag or arrows pan, F shows all. Click a curve to choose its peg.");
    const std::optional<Method> test = m_session.shownTest();
    const Reduction *reduction = test ? reductionOf(*test) : nullptr;
    if (reduction != nullptr && !reduction->markers.empty())
        text += tr(" Drag a marker, or press M and move it with the arrows.");
    return text;
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
        return tr("No records yet. Bring in records in the Log lens.");
    if (m_session.readings().empty() && m_session.unreadCount() > 0)
        return tr("Reading was stopped before the first record.");
    const ShownAxes axes = shownAxes(m_session);
    const QString look = shownLook();
    const bool anyDrawn = std::any_of(study->pieces.begin(), study->pieces.end(), [&](const Piece &piece) {
        const PieceReading *reading = readingOf(m_session.readings(), piece.id);
        const bool isDrawn =
            reading != nullptr && (!reading->outline.x.empty() || piece.id == m_session.selectedPiece());
        return isDrawn && m_session.isRailShown(piece.condition) && piece.test == m_session.shownTest() &&
               hasLook(piece, look) && axes.fits(reading->outline);
    });
    if (!anyDrawn)
        return tr("Nothing to draw: the chosen rails have no record that can be read. Measure the sections "
                  "in the Log lens, or show more rails.");
    return {};
}

bool ReadPresenter::sayBreak(const QString &look)
{
    const PieceId id = m_session.selectedPiece();
    return m_session.tryEdit(tr("look of a break"), [&](Study &study) -> Status {
        Piece *piece = findPiece(study, id);
        return piece == nullptr ? Status(invalidArgument("no piece is selected"))
                                : setBreakLook(*piece, look.toStdString());
    });
}

bool ReadPresenter::leaveOut(const QString &reason)
{
    const PieceId id = m_session.selectedPiece();
    return m_session.tryEdit(tr("leave a piece out"), [&](Study &study) -> Status {
        Piece *piece = findPiece(study, id);
        if (piece == nullptr || !piece->recording)
            return invalidArgument("only a piece with a record can be left out");
        return inchpeg::leaveOut(*piece, m_session.exclusion(reason));
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
