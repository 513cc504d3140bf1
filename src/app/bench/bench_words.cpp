// SPDX-License-Identifier: GPL-3.0-or-later
// What the bench says: the piece, what is to be done next, what must be known first, what came out.
#include "app/bench/bench_presenter.h"
#include "app/bench/live_words.h"
#include "core/logbook/conditioning.h"
#include "core/logbook/room.h"
#include "core/method/value_text.h"
#include "core/model/calibration.h"
#include "core/reading/reading_settings.h"

#include <cmath>

namespace inchpeg::app
{

QString BenchPresenter::pieceTitle() const
{
    return piece() == nullptr ? QString() : QString::fromStdString(piece()->code);
}

QString BenchPresenter::railTitle() const
{
    if (piece() == nullptr)
        return {};
    const Study &study = *m_session.study();
    return QString::fromStdString(inchpeg::railTitle(study, *findCondition(study, piece()->condition)));
}

QString BenchPresenter::expectedText() const
{
    if (piece() == nullptr)
        return {};
    if (kind() == BenchKind::Typed)
        return tr("read without a rig");
    // What a beam bears is found out load by load.
    const MethodFacts &facts = factsOf(piece()->test);
    const bool isFoundOut = !facts.due_s.empty() && !facts.isLeftUnderLoad;
    const std::optional<ExpectedLoad> load = isFoundOut ? std::nullopt : expected();
    const RigCard *card = rig();
    if (!load)
        return card == nullptr ? tr("no rig is chosen in the plan") : QString::fromStdString(card->name);
    const Notation &notation = m_session.notation();
    const QString about =
        tr("about %1")
            .arg(QString::fromStdString(notation.quantity(load->value, dimensionOf(load->kind), 2)));
    if (card == nullptr || !(card->range > 0.0))
        return about;
    return tr("%1 · %2 of %3")
        .arg(about, QString::fromStdString(notation.percent(load->value / card->range)),
             QString::fromStdString(card->name));
}

QStringList BenchPresenter::beforeItBreaks() const
{
    QStringList sentences;
    const bool waits = phase() == BenchPhase::Ready || phase() == BenchPhase::NoRig;
    if (!waits || piece() == nullptr)
        return sentences;
    const Study &study = *m_session.study();
    const Notation &notation = m_session.notation();
    const Reduction *reduction = reductionOf(piece()->test);
    if (reduction != nullptr && !piece()->section && readsBySection(*reduction))
        sentences << tr("Its section is not measured: measure it before it breaks (Log lens, Ctrl+2).");
    if (const std::optional<UsedGauge> used = m_session.rigToday(study, piece()->test);
        used && isExpired(*used))
        sentences << tr("The calibration of %1 held only until %2.")
                         .arg(QString::fromStdString(used->name),
                              QString::fromStdString(used->calibration->due));
    // The oven's own settings are said with the first stamp.
    if (reduction != nullptr && !reduction->columns.empty() && piece()->section &&
        kind() != BenchKind::Oven) {
        const Result<ReadingOrder> order = readingOrder(study, *piece(), m_session.workshop());
        const Status canBeRead = order ? reduction->check(order->settings) : Status(order.error());
        if (!canBeRead)
            sentences << tr("Its record could not be read: %1 (Ask & plan, Ctrl+1).")
                             .arg(QString::fromStdString(canBeRead.error().message));
    }
    const RigVerdict fit = checkRig(testOfMethod(m_plan.tests(), piece()->test), expected(), rig());
    if (fit.fit != RigFit::InRange && fit.fit != RigFit::Unknown)
        sentences << QString::fromStdString(notation.expand(fit.sentence));
    const Readiness readiness = readinessOf(study, *piece(), m_session.workshopTime());
    if (readiness.from)
        sentences << QString::fromStdString(readiness.sentence);
    if (const RoomReading *room = roomToday())
        sentences << QString::fromStdString(notation.expand(roomSentence(*room)));
    sentences.removeAll(QString());
    const std::optional<double> reading = mainReading(live());
    if (kind() == BenchKind::Pull && reading && !live().isRecording && readsItsLoad()) {
        constexpr double kZeroShare = 0.005; // as the reading of a record warns
        const double shown = live().columns[live().main].unit->toWorking(*reading);
        const std::optional<ExpectedLoad> load = expected();
        const double whole = load && load->value > 0.0 ? load->value : rangeOfRig();
        if (whole > 0.0 && std::abs(shown) > kZeroShare * whole)
            sentences
                << tr("The gauge reads %1 before the piece is loaded: zero it (Z).").arg(shownReading());
    }
    for (QString &sentence : sentences)
        sentence.prepend(QStringLiteral("▲ "));
    return sentences;
}

QString BenchPresenter::nextAction() const
{
    switch (phase()) {
    case BenchPhase::NoStudy:
        return tr("Choose a study on the shelf.");
    case BenchPhase::Cautions:
        return tr("Read the cautions and confirm them.");
    case BenchPhase::NoPiece:
        return kind() == BenchKind::Timed && m_session.study() != nullptr && !m_timed.arms().empty()
                   ? tr("All are under load. The next reading is asked for when it is due.")
                   : tr("Every piece of this test has its record.");
    case BenchPhase::NoRig:
        if (waitsToBeKept(m_piece))
            return tr("This piece has a record that is not in the project yet: keep it, or leave it aside.");
        return takesTypedPeak()
                   ? tr("Connect the rig, or type the largest reading of a gauge without a cable.")
                   : tr("Connect the rig.");
    case BenchPhase::Ready:
        if (kind() == BenchKind::Timed)
            return m_timed.nextAction();
        if (kind() == BenchKind::Steps)
            return m_steps.nextAction();
        if (kind() == BenchKind::Oven)
            return m_oven.nextAction();
        if (kind() == BenchKind::Feel)
            return m_feel.nextAction();
        if (kind() == BenchKind::Pairs)
            return m_pairs.nextAction();
        if (kind() == BenchKind::Typed)
            return tr("Its readings are typed beside its peg: Log lens (Ctrl+2), Readings.");
        if (isPendulum() && m_swings.swing())
            return tr("Swing-through %1°. What was it?").arg(m_swings.swing()->through_deg, 0, 'f', 1);
        if (isPendulum())
            return tr("Let the hammer go, first three times without a piece: a swing is found by itself.");
        return beginsByItself()
                   ? tr("Put the piece in and load it: the record begins by itself, or with Space.")
                   : tr("Put the piece in. Space begins the record, and Space ends it.");
    case BenchPhase::Recording:
        return beginsByItself() ? tr("Recording. It ends at the break, or with Space.")
                                : tr("Recording. Space ends it.");
    case BenchPhase::Keeping:
        return tr("The record is being kept…");
    case BenchPhase::Done:
        return looks().empty()
                   ? tr("Enter: the next piece.")
                   : tr("What does the break look like (keys A to %1)? Then Enter: the next piece.")
                         .arg(QChar(u'A' + static_cast<char16_t>(looks().size() - 1)));
    }
    return {};
}

QString BenchPresenter::resultText() const
{
    const Piece *done = m_isDone ? piece() : nullptr;
    if (done == nullptr || !done->recording)
        return {};
    const auto found = m_session.readings().find(done->id);
    if (found == m_session.readings().end())
        return tr("Reading the record…");
    if (!found->second->has_value())
        return QString::fromStdString(found->second->error().message);
    const Reduction *reduction = reductionOf(done->test);
    const Reading &reading = (*found->second)->result;
    QStringList words;
    for (const Property &property : reduction->properties) {
        const ReadValue *value = valueOf(reading.values, property.name);
        const bool isMain = property.name == usualProperty(done->test).name || property.name == "peak_force";
        if (value == nullptr || !isMain)
            continue;
        words << QStringLiteral("%1 %2%3").arg(
            QString::fromUtf8(property.label.data(), qsizetype(property.label.size())),
            value->bound == BoundReason::None ? QString() : tr("at least "),
            QString::fromStdString(valueText(property, value->number, 3, m_session.notation())));
    }
    for (const std::string &warning : reading.warnings)
        words << QString::fromStdString(m_session.notation().expand(warning));
    return words.join(QStringLiteral(" · "));
}

std::span<const BreakLook> BenchPresenter::looks() const
{
    return piece() == nullptr ? std::span<const BreakLook>() : factsOf(piece()->test).looks;
}

QString BenchPresenter::look() const
{
    return piece() == nullptr ? QString() : QString::fromStdString(piece()->log.breakLook);
}

QString BenchPresenter::peakText() const
{
    const BenchRig *line = rigLine();
    if (line == nullptr || !(line->peak > 0.0) || kind() != BenchKind::Pull)
        return {};
    return tr("peak %1 %2")
        .arg(QString::fromStdString(m_session.notation().significant(line->peak, 4)), liveUnitText(live()));
}

QString BenchPresenter::rangeText() const
{
    const BenchRig *line = rigLine();
    switch (range()) {
    case RangeState::Inside:
        break;
    case RangeState::NearEnd:
        return tr("▲ above four fifths of the gauge's range");
    case RangeState::AtEnd:
        return tr("■ at the end of the gauge's range: what it reads now is a bound");
    }
    if (line != nullptr && line->slips.slips() > 0 && (live().isRecording || m_isDone))
        return tr("▲ the load fell by %1 and rose again: a slip at the grips?")
            .arg(QString::fromStdString(m_session.notation().percent(line->slips.lastFall())));
    return {};
}

QString BenchPresenter::shownReading() const
{
    const LiveState &now = live();
    if (!now.isThere || !mainReading(now))
        return {};
    return liveReadingText(now, m_session.notation()) + QLatin1Char(' ') + liveUnitText(now);
}

QString BenchPresenter::otherRigs() const
{
    QStringList words;
    for (const auto &[method, line] : m_rigs) {
        if (method == test() || !line->live.isConnected)
            continue;
        const QString name = QString::fromUtf8(methodName(method));
        words << (line->live.isRecording ? tr("%1: recording %2").arg(name, line->owner.code)
                                         : tr("%1: connected").arg(name));
    }
    return words.join(QStringLiteral(" · "));
}

} // namespace inchpeg::app
