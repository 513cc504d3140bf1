// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_recorder.h"
#include "app/bench/cut_off_records.h"
#include "app/session/plan_state.h"
#include "app/session/project_session.h"
#include "core/logbook/bench_plan.h"
#include "core/method/break_look.h"
#include "core/planning/cautions.h"
#include "core/rig/live_trace.h"
#include "core/rig/swing_finder.h"

#include <QObject>

#include <set>
#include <span>

namespace inchpeg::app
{

/// What the bench waits for.
enum class BenchPhase {
    NoStudy,
    Cautions, ///< to be confirmed first
    NoPiece,  ///< all have their record
    NoRig,    ///< nothing is connected; a peak can be typed
    Ready,    ///< armed: begins by itself, or on Space
    Recording,
    Keeping, ///< the record is on its way into the project
    Done,    ///< what the break looks like, and on to the next
};

/// The test itself: which piece is next, what the rig says, when its record begins and ends, and that it
/// comes into the project.
class BenchPresenter : public QObject
{
    Q_OBJECT
public:
    BenchPresenter(ProjectSession &session, PlanState &plan, QObject *parent = nullptr);

    [[nodiscard]] BenchPhase phase() const;
    [[nodiscard]] BenchRecorder &recorder() { return m_recorder; }
    [[nodiscard]] std::vector<Caution> openCautions() const;
    void confirmCautions();

    /// The piece that lies at the rig, or is next.
    [[nodiscard]] const Piece *piece() const;
    [[nodiscard]] std::size_t waiting() const { return m_order.size(); } ///< pieces, this one among them
    [[nodiscard]] QString pieceTitle() const;                            ///< its code, large
    [[nodiscard]] QString railTitle() const;
    [[nodiscard]] QString expectedText() const; ///< "about 480 N, 24 % of test frame 2 kN"
    /// What must be done before the piece breaks; empty where nothing is open.
    [[nodiscard]] QString beforeItBreaks() const;
    [[nodiscard]] QString nextAction() const; ///< what to do now, in a sentence
    /// What was read of the piece that is done; empty while it is being read.
    [[nodiscard]] QString resultText() const;
    [[nodiscard]] std::span<const BreakLook> looks() const;
    [[nodiscard]] QString look() const; ///< that was said

    void connectTo(const QString &port);
    void disconnectNow() { m_recorder.disconnectNow(); }
    /// Space: begins the record, or ends it.
    void startOrStop();
    /// Enter: the next piece lies at the rig.
    void next();
    /// Puts the piece to the end of the order.
    void putBack();
    void sayBreak(const QString &look);
    /// A piece that was printed wrongly does not count; its reason is kept.
    bool voidPiece(const QString &reason);
    /// A reading of a gauge without a cable becomes the piece's record; its unit may be typed.
    bool keepTypedPeak(const QString &text);
    [[nodiscard]] bool takesTypedPeak() const;

    /// A pendulum: a swing is found in what the rig sends; then the person says what it was.
    [[nodiscard]] bool isPendulum() const;
    [[nodiscard]] const std::optional<FoundSwing> &swing() const { return m_swing; }
    /// Where the hammer stands, in degrees from hanging; and where the swing that was found turned.
    [[nodiscard]] std::optional<double> hammerAngle() const;
    [[nodiscard]] std::optional<double> throughAngle() const;
    struct BreakKind {
        QString letter;
        QString words;
    };
    [[nodiscard]] static std::vector<BreakKind> breakKinds();
    /// The swing becomes the record of the piece.
    bool keepSwing(const QString &letter);
    /// It was one without a piece: the mean of the latest three stands in the settings of the test.
    bool takeFreeSwing();

    /// Takes what the rig said since the last time; asked some sixty times a second while the lens is shown.
    void poll();
    [[nodiscard]] const LiveState &live() const { return m_live; }
    [[nodiscard]] const LiveTrace &trace() const { return m_trace; }
    [[nodiscard]] QString peakText() const; ///< "peak 480.2 N", empty before a record
    [[nodiscard]] RangeState range() const;
    [[nodiscard]] double shownLimit() const; ///< of the range, in the unit of the curve; 0: not known
    [[nodiscard]] QString rangeText() const; ///< empty inside

    [[nodiscard]] const std::vector<CutOffRecord> &cutOff() const { return m_cutOff; }
    void takeCutOff();
    void leaveCutOffAside();

    /// The kind of rig that the simulated one has to be for this test.
    [[nodiscard]] QString simulatedKind() const;
    /// What the piece at hand is expected to bear, in the unit of the load's kind.
    [[nodiscard]] std::optional<ExpectedLoad> expected() const;
    void refresh();

signals:
    void changed();
    void told(const QString &sentence);

private:
    void arm();
    bool keepTypedRow(const std::vector<std::string> &cells, const std::string &gauge);
    void takeRecord(const BenchRecord &record);
    void keep(const QString &file, PieceId piece, const QString &name);
    void link(PieceId piece, const QString &file, const KeptRawFiles &kept);
    void findCutOff();
    [[nodiscard]] QString folder() const;
    [[nodiscard]] std::optional<Method> test() const;
    [[nodiscard]] const RigCard *rig() const;
    [[nodiscard]] bool readsItsLoad() const;
    [[nodiscard]] double rangeOfRig() const;

    ProjectSession &m_session;
    PlanState &m_plan;
    BenchRecorder m_recorder;
    std::vector<PieceId> m_order;
    std::set<PieceId> m_putBack;
    PieceId m_piece;
    PieceId m_lit;      ///< that was last selected on the rack
    PieceId m_recorded; ///< whose record is at hand, or was the last
    bool m_isKeeping = false;
    bool m_isDone = false;
    bool m_isArmed = false;
    QString m_shownProject;
    LiveState m_live;
    LiveTrace m_trace;
    double m_peak = 0.0; ///< of the record at hand, or that was the last
    SwingFinder m_swings;
    std::optional<FoundSwing> m_swing;
    std::vector<double> m_freeSwings_deg;
    std::vector<CutOffRecord> m_cutOff;
};

} // namespace inchpeg::app
