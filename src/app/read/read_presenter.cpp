// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/read/read_presenter.h"

#include "core/study/verdict.h"
#include "core/text/number_text.h"

#include <algorithm>

namespace inchpeg::app
{

namespace
{

QString valueText(const TensileProperty &property, const TensileResult &result)
{
    const std::optional<double> value = result.*property.value;
    if (!value)
        return QStringLiteral("–");
    const double shown = property.unit.empty() ? 100.0 * *value : *value;
    const QString text = QString::fromStdString(significantText(shown, 4)) + QLatin1Char(' ') +
                         (property.unit.empty() ? QStringLiteral("%") : QString::fromUtf8(property.unit));
    return property.boundByGauge && result.atLeast ? ReadPresenter::tr("at least %1").arg(text) : text;
}

QString sectionText(const Piece &piece)
{
    if (!piece.section)
        return ReadPresenter::tr("section not measured yet");
    const auto mm = [](Length length) { return QString::fromStdString(measuredText(in_mm(length))); };
    if (const auto *rectangle = std::get_if<RectangularSection>(&*piece.section))
        return ReadPresenter::tr("%1 × %2 mm").arg(mm(rectangle->width), mm(rectangle->thickness));
    if (const auto *round = std::get_if<RoundSection>(&*piece.section))
        return ReadPresenter::tr("⌀ %1 mm").arg(mm(round->diameter));
    return ReadPresenter::tr("%1 mm²").arg(
        QString::fromStdString(significantText(in_mm2(std::get<PlainArea>(*piece.section).area), 4)));
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

ReadPresenter::ReadPresenter(ProjectSession &session, QObject *parent) : QObject(parent), m_session(session)
{
}

ReadPresenter::Axis ReadPresenter::axis() const
{
    bool extension = false;
    for (const auto &[piece, reading] : m_session.readings()) {
        if (!reading->has_value())
            continue;
        if (!reading->value().result.strain.empty())
            return Axis::Strain;
        extension = extension || !reading->value().curve.extension_mm.empty();
    }
    return extension ? Axis::Extension : Axis::Time;
}

std::vector<double> ReadPresenter::xOf(const PieceReading &reading, Axis axis) const
{
    if (axis == Axis::Strain) {
        std::vector<double> percent = reading.result.strain;
        for (double &value : percent)
            value *= 100.0;
        return percent;
    }
    return axis == Axis::Extension ? reading.curve.extension_mm : reading.curve.time_s;
}

QString ReadPresenter::xTitle() const
{
    switch (axis()) {
    case Axis::Strain:
        return tr("Strain in %, toe taken off");
    case Axis::Extension:
        return tr("Extension in mm");
    case Axis::Time:
        return tr("Time in s");
    }
    throw ContractViolation("unknown axis");
}

QString ReadPresenter::yTitle() const
{
    return tr("Stress in MPa");
}

std::vector<CurveModel> ReadPresenter::curves() const
{
    std::vector<CurveModel> out;
    const Study *study = m_session.study();
    if (study == nullptr)
        return out;
    const Axis shown = axis();
    for (const Piece &piece : study->pieces) {
        const PieceReading *reading = readingOf(m_session.readings(), piece.id);
        if (reading == nullptr || !m_session.isRailShown(piece.condition))
            continue;
        std::vector<double> x = xOf(*reading, shown);
        if (x.size() != reading->result.stress_MPa.size())
            continue;
        out.push_back(curveOf(piece, *reading, std::move(x)));
    }
    return out;
}

CurveModel ReadPresenter::curveOf(const Piece &piece, const PieceReading &reading,
                                  std::vector<double> x) const
{
    CurveModel curve;
    curve.piece = piece.id;
    curve.railIndex = railIndexOf(*m_session.study(), piece.condition);
    curve.leftOut = piece.exclusion.has_value();
    const std::vector<double> &y = reading.result.stress_MPa;
    const auto last = static_cast<std::ptrdiff_t>(reading.result.markers.lastBeforeBreak);
    if (piece.id == m_session.selectedPiece()) {
        curve.tailX.assign(x.begin() + last, x.end());
        curve.tailY.assign(y.begin() + last, y.end());
    }
    curve.y.assign(y.begin(), y.begin() + last + 1);
    x.resize(curve.y.size());
    curve.x = std::move(x);
    return curve;
}

std::vector<MarkerModel> ReadPresenter::markers() const
{
    std::vector<MarkerModel> out;
    const PieceReading *reading = readingOf(m_session.readings(), m_session.selectedPiece());
    if (reading == nullptr || m_session.study() == nullptr ||
        !m_session.isRailShown(m_session.selectedRail()))
        return out;
    const std::vector<double> x = xOf(*reading, axis());
    const TensileResult &result = reading->result;
    const TensileMarkers &markers = result.markers;
    if (x.size() != result.stress_MPa.size())
        return out;
    const auto add = [&](const QString &name, const QString &meaning, std::size_t i, Qt::Alignment side) {
        out.push_back({name, meaning, QPointF(x[i], result.stress_MPa[i]), side});
    };
    if (markers.modulusFirst && markers.modulusLast) {
        add(tr("E from"), tr("The modulus is fitted from strain 0.05 % …"), *markers.modulusFirst,
            Qt::AlignLeft | Qt::AlignVCenter);
        add(tr("E to"), tr("… to strain 0.25 %"), *markers.modulusLast, Qt::AlignLeft | Qt::AlignVCenter);
    }
    if (result.offsetYieldStress_MPa && axis() == Axis::Strain)
        out.push_back({tr("offset yield"), tr("Meets the modulus line shifted by 0.2 % strain"),
                       QPointF(100.0 * *result.offsetYieldStrain, *result.offsetYieldStress_MPa),
                       Qt::AlignRight | Qt::AlignVCenter});
    const QString end = markers.broke ? tr("break") : tr("end of record");
    const QString endMeaning = markers.broke ? tr("Upper end of the fall by which the piece broke")
                                             : tr("The record ends before the piece breaks");
    const QString top = markers.yield    ? tr("yield, strength")
                        : result.atLeast ? tr("at least")
                                         : tr("strength");
    const QString topMeaning = markers.yield    ? tr("First maximum; strain goes on while stress falls")
                               : result.atLeast ? tr("The gauge was at its end: a lower bound")
                                                : tr("First clear maximum, else the largest stress");
    if (markers.strength == markers.lastBeforeBreak) {
        add(top + QStringLiteral(", ") + end, topMeaning + QStringLiteral(". ") + endMeaning,
            markers.strength, Qt::AlignHCenter | Qt::AlignBottom);
        return out;
    }
    add(top, topMeaning, markers.strength, Qt::AlignHCenter | Qt::AlignBottom);
    add(end, endMeaning, markers.lastBeforeBreak, Qt::AlignLeft | Qt::AlignVCenter);
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
    card.section = sectionText(*piece);
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
    for (const TensileProperty &property : tensileProperties())
        card.properties.push_back({QString::fromUtf8(property.label), valueText(property, reading.result),
                                   QString::fromUtf8(property.definition)});
    for (const Check &check : reading.result.validity) {
        if (!check.ok)
            card.attention << QString::fromStdString(check.rule + ": not so. " + check.detail);
    }
    for (const std::vector<std::string> *warnings : {&reading.importWarnings, &reading.result.warnings}) {
        for (const std::string &warning : *warnings)
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
    if (curves().empty())
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
        if (Piece *piece = findPiece(study, id)) {
            piece->recording.reset();
            piece->exclusion.reset();
        }
        return ok();
    });
}

} // namespace inchpeg::app
