// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_keeper.h"
#include "core/rig/swing_finder.h"

#include <QObject>

namespace inchpeg::app
{

/// A pendulum: a swing is found in what the rig sends; then the person says what it was.
class SwingPresenter : public QObject
{
    Q_OBJECT
public:
    SwingPresenter(ProjectSession &session, BenchKeeper &keeper, QObject *parent = nullptr);

    [[nodiscard]] static bool isFor(Method method) { return factsOf(method).bench == BenchMode::Swing; }
    /// Where the hammer is; true where that ended a swing.
    bool hear(double t_s, double angle_deg);
    void drop() { m_swing.reset(); }
    [[nodiscard]] const std::optional<FoundSwing> &swing() const { return m_swing; }
    [[nodiscard]] std::optional<double> throughAngle() const; ///< where it turned, in degrees from hanging

    struct BreakKind {
        QString letter;
        QString words;
    };
    [[nodiscard]] static std::vector<BreakKind> breakKinds();
    /// The swing becomes the record of the piece.
    bool keep(PieceId piece, const QString &letter);
    /// It was one without a piece: the mean of the latest three stands in the settings of the test.
    bool takeFreeSwing(Method test);

signals:
    void changed();
    void told(const QString &sentence);

private:
    ProjectSession &m_session;
    BenchKeeper &m_keeper;
    SwingFinder m_swings;
    std::optional<FoundSwing> m_swing;
    std::vector<double> m_freeSwings_deg;
};

} // namespace inchpeg::app
