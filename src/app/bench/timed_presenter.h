// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_clock.h"
#include "app/bench/bench_keeper.h"
#include "app/session/announcer.h"
#include "app/session/plan_state.h"
#include "core/planning/timed_readings.h"

#include <QObject>

#include <map>

namespace inchpeg::app
{

/// What a timed test waits for.
enum class TimedStep {
    PlaceLoad, ///< the load is to be put on, then Space
    Reading,   ///< the load rests, and readings are taken as they come due
    TakeOff,   ///< all readings are taken; the load comes off, then Space
    Set,       ///< what is left is read some minutes later
    Over,
};

/// A line of the picture: a load, or a piece under load, with its readings at their times.
struct TimeRail {
    QString label;
    PieceId piece; ///< of creep; a beam's rows are loads
    std::vector<TimedReading> readings;
    std::optional<double> now_s; ///< after the load was put on; nothing where it does not rest yet
    QString note;                ///< the values so far, or when the next one is due
    bool isCurrent = false;
};

/// Readings at set times: dead weights on a beam, one after the other; creep, with several pieces under load
/// at once and days between two readings. Each reading is in the project before the next one.
class TimedPresenter : public QObject
{
    Q_OBJECT
public:
    TimedPresenter(ProjectSession &session, PlanState &plan, BenchKeeper &keeper, QObject *parent = nullptr);
    void setClock(SteadySeconds clock) { m_clock = std::move(clock); }
    /// By the clock that cannot be set.
    [[nodiscard]] double steady_s() const { return m_clock(); }

    /// The piece at hand; what was read of it before is taken up again.
    void setPiece(PieceId piece);
    [[nodiscard]] TimedStep step() const;
    /// A beam between its loads, a piece under load.
    [[nodiscard]] bool isUnderWay(PieceId piece) const;
    [[nodiscard]] QString nextAction() const;
    [[nodiscard]] QString loadText() const; ///< "2.5 kg"
    /// Until the next reading, or since it was due, in seconds; nothing where none is waited for.
    [[nodiscard]] std::optional<double> secondsToNext() const;
    [[nodiscard]] QString lastText() const; ///< "0.42 mm at 30.2 s"; late ones say so
    [[nodiscard]] std::vector<TimeRail> rows() const;
    [[nodiscard]] bool isCreep() const;
    /// Pieces under load in this study, the one that is due first in front.
    [[nodiscard]] std::vector<DueReading> arms() const;
    /// The arm whose reading is due now; nothing while the piece at hand is soon to be read, or is being
    /// read.
    [[nodiscard]] std::optional<PieceId> pressingArm() const;
    /// True where the next reading of the piece at hand is far enough away to load another.
    [[nodiscard]] bool mayLeave() const;
    /// Its record was set aside: it begins anew.
    void forget(PieceId piece) { m_runs.erase(piece); }

    /// The loads of a beam: "2.5, 5, 10 kg".
    [[nodiscard]] QString loadsText() const;
    bool setLoads(const QString &text);

    /// Space: the load rests, or is off.
    void loadIsSet();
    /// The moment of a key; the value that is typed then keeps it.
    void stamp();
    void dropStamp() { m_stamp.reset(); }
    /// The reading of the moment that was stamped, or of now.
    bool take(const QString &typed);
    /// It broke, or cannot be read any more: what was read stays.
    void endHere();
    /// What is to be heard since the last time; asked several times a second.
    [[nodiscard]] std::optional<Tone> toneDue();

signals:
    void changed();
    void told(const QString &sentence);

private:
    struct Run {
        std::optional<RawFileId> file{}; ///< that holds the rows; another one after a step was taken back
        std::vector<TypedRow> rows;      ///< kept so far
        std::size_t load = 0;            ///< of a beam's loads
        std::optional<double> since_s;   ///< by the steady clock: since when the load rests, or is off
        std::vector<double> taken_s;     ///< under the load at hand
        bool isEnded = false;
    };
    [[nodiscard]] const Piece *piece() const;
    [[nodiscard]] const Run *run() const;
    [[nodiscard]] std::vector<double> loads_kg() const;
    [[nodiscard]] std::optional<double> creepLoad_kg() const;
    [[nodiscard]] std::vector<TimedReading> readingsOf(const Run &run, PieceId piece) const;
    /// By how much the machine's clock shows less than is kept of the piece; nothing where it goes on, and
    /// while the steady clock counts.
    [[nodiscard]] std::optional<double> clockWentBack_s() const;
    Result<QString> withoutTime(const QString &text);
    [[nodiscard]] double elapsed_s(const Run &run, PieceId piece, double at_s) const;
    [[nodiscard]] std::int64_t now() const;
    [[nodiscard]] TypedRow row(const QString &text, double elapsed_s, double at_s) const;
    [[nodiscard]] std::vector<TimeRail> loadRows() const;
    [[nodiscard]] std::vector<TimeRail> armRows() const;
    void takeUp(PieceId piece);
    void followProject(PieceId piece);
    static void passOn(Run &run, std::size_t loads, std::span<const double> due_s);

    ProjectSession &m_session;
    PlanState &m_plan;
    BenchKeeper &m_keeper;
    SteadySeconds m_clock = secondsSinceStart;
    PieceId m_piece;
    std::map<PieceId, Run> m_runs;
    std::optional<double> m_stamp;
    QString m_last;
    std::optional<double> m_toNext_s; ///< when it was last looked
};

} // namespace inchpeg::app
