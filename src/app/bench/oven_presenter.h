// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_keeper.h"
#include "core/rig/oven_trace.h"

#include <QObject>

#include <vector>

namespace inchpeg::app
{

/// Pieces side by side in an oven: a key a piece stamps its first sag with the temperature of that moment.
class OvenPresenter : public QObject
{
    Q_OBJECT
public:
    OvenPresenter(ProjectSession &session, BenchKeeper &keeper, QObject *parent = nullptr);

    [[nodiscard]] static bool isFor(Method method) { return factsOf(method).bench == BenchMode::Oven; }
    static constexpr std::size_t kMostPieces = 8;

    struct Place {
        PieceId piece;
        QChar key; ///< A, B …
        QString code;
        QString rail;
        QString sag; ///< "83.4 °C, 14:05"; empty: it stands
    };
    /// waiting: pieces of the test without a record, in the drawn order. Those that sagged in this run stay.
    void setWaiting(const std::vector<PieceId> &waiting);
    [[nodiscard]] std::vector<Place> places() const;
    /// True once all pieces of this run have sagged and others wait.
    [[nodiscard]] bool canBeginNext() const;
    void beginNext();

    /// What the probe shows; typed where it has no cable.
    void show(double t_s, double temperature_C);
    bool typeTemperature(const QString &text);
    [[nodiscard]] std::optional<double> temperature_C() const;
    [[nodiscard]] QString temperatureText() const;
    [[nodiscard]] QString rateText() const; ///< "heated at 118 K/h; the probe is 40 s late: 1.3 K"
    [[nodiscard]] QString nextAction() const;

    /// The first sag of the piece with this key.
    bool stamp(QChar key);

signals:
    void changed();
    void told(const QString &sentence);

private:
    [[nodiscard]] std::optional<double> lag_s() const;
    [[nodiscard]] QString shown(double temperature_C) const;
    void keepThreshold(Method method);
    void keepRate(Method method);

    ProjectSession &m_session;
    BenchKeeper &m_keeper;
    std::vector<PieceId> m_waiting;
    std::vector<PieceId> m_inside;
    OvenTrace m_trace;
    std::optional<double> m_typed_C;
};

} // namespace inchpeg::app
