// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/swing_presenter.h"

#include "core/reading/reading_settings.h"
#include "core/stats/summary.h"

#include <fmt/format.h>

#include <cmath>

namespace inchpeg::app
{

SwingPresenter::SwingPresenter(ProjectSession &session, BenchKeeper &keeper, QObject *parent)
    : QObject(parent), m_session(session), m_keeper(keeper)
{
}

bool SwingPresenter::hear(double t_s, double angle_deg)
{
    const std::optional<FoundSwing> found = m_swings.add(t_s, angle_deg);
    if (!found)
        return false;
    m_swing = found;
    return true;
}

std::optional<double> SwingPresenter::throughAngle() const
{
    if (!m_swing)
        return std::nullopt;
    return m_swing->isLetGoRight ? -m_swing->through_deg : m_swing->through_deg;
}

std::vector<SwingPresenter::BreakKind> SwingPresenter::breakKinds()
{
    return {{QStringLiteral("C"), tr("complete")},
            {QStringLiteral("H"), tr("hinge")},
            {QStringLiteral("P"), tr("partial")},
            {QStringLiteral("N"), tr("none: it bent")}};
}

bool SwingPresenter::keep(PieceId id, const QString &letter)
{
    const Piece *piece = m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), id);
    if (!m_swing || piece == nullptr)
        return false;
    TypedRow row;
    row.takenAt = m_session.now();
    for (const TypedColumn &column : typedColumns(*reductionOf(piece->test))) {
        if (column.name == "swing")
            row.cells.push_back(fmt::format("{:.2f} deg", m_swing->through_deg));
        else
            row.cells.push_back(column.name == "break" ? letter.toStdString() : std::string());
    }
    if (!m_keeper.keepTyped(id, {row}, "swing found in what the rig sent", tr("swing")))
        return false;
    m_swing.reset();
    emit changed();
    return true;
}

bool SwingPresenter::takeFreeSwing(Method test)
{
    constexpr std::size_t kWanted = 3;
    constexpr double kMoved_deg = 1.0;
    constexpr std::string_view kName = "free_swing";
    if (!m_swing)
        return false;
    m_freeSwings_deg.push_back(m_swing->through_deg);
    if (m_freeSwings_deg.size() > kWanted)
        m_freeSwings_deg.erase(m_freeSwings_deg.begin());
    const double mean = meanOf(m_freeSwings_deg);
    const std::optional<double> before = testSettings(*m_session.study(), test).number(kName);
    m_swing.reset();
    const bool isKept = m_session.tryEdit(tr("free swing"), [&](Study &study) {
        return setTestParameter(study, test, kName, fmt::format("{:.2f} deg", mean));
    });
    if (isKept && before && std::abs(*before - mean) > kMoved_deg)
        emit told(
            tr("The free swing moved from %1° to %2°: look at the bearing and at the zero before the next "
               "piece.")
                .arg(*before, 0, 'f', 1)
                .arg(mean, 0, 'f', 1));
    emit changed();
    return isKept;
}

} // namespace inchpeg::app
