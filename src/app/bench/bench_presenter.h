// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_keeper.h"
#include "app/bench/bench_rig.h"
#include "app/bench/cut_off_records.h"
#include "app/bench/feel_presenter.h"
#include "app/bench/oven_presenter.h"
#include "app/bench/pairs_presenter.h"
#include "app/bench/steps_presenter.h"
#include "app/bench/swing_presenter.h"
#include "app/bench/timed_presenter.h"
#include "app/session/announcer.h"
#include "app/session/plan_state.h"
#include "app/session/project_session.h"
#include "core/logbook/bench_plan.h"
#include "core/method/break_look.h"
#include "core/planning/cautions.h"

#include <QObject>
#include <QTimer>

#include <map>
#include <memory>
#include <set>
#include <span>

namespace inchpeg::app
{

using BenchKind = BenchMode;

/// Which piece lies at hand is not told.
inline bool isBlind(BenchKind kind)
{
    return kind == BenchKind::Feel || kind == BenchKind::Pairs;
}

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
    BenchPresenter(ProjectSession &session, PlanState &plan, Announcer &announcer, QObject *parent = nullptr);
    ~BenchPresenter() override;

    [[nodiscard]] BenchKind kind() const;
    [[nodiscard]] BenchPhase phase() const;
    [[nodiscard]] BenchRecorder &recorder() { return rigLine().recorder; } ///< of the shown test
    /// Other tests whose rig is connected, with what it does: "tension: recording A3".
    [[nodiscard]] QString otherRigs() const;
    [[nodiscard]] TimedPresenter &timed() { return m_timed; }
    [[nodiscard]] StepsPresenter &steps() { return m_steps; }
    [[nodiscard]] OvenPresenter &oven() { return m_oven; }
    [[nodiscard]] FeelPresenter &feel() { return m_feel; }
    [[nodiscard]] PairsPresenter &pairs() { return m_pairs; }
    [[nodiscard]] SwingPresenter &swings() { return m_swings; }
    [[nodiscard]] std::vector<Caution> openCautions() const;
    void confirmCautions();

    /// The piece that lies at the rig, or is next.
    [[nodiscard]] const Piece *piece() const;
    [[nodiscard]] std::size_t waiting() const { return m_order.size(); } ///< pieces, this one among them
    [[nodiscard]] QString pieceTitle() const;                            ///< its code, large
    [[nodiscard]] QString railTitle() const;
    [[nodiscard]] QString expectedText() const; ///< "about 480 N, 24 % of test frame 2 kN"
    /// What must be done or known before the piece breaks, a sentence each: a section that is not measured, a
    /// calibration that is over, a gauge that does not fit or is not at zero, a piece that still conditions.
    [[nodiscard]] QStringList beforeItBreaks() const;
    [[nodiscard]] QString nextAction() const; ///< what to do now, in a sentence
    /// What was read of the piece that is done; empty while it is being read.
    [[nodiscard]] QString resultText() const;
    [[nodiscard]] std::span<const BreakLook> looks() const;
    [[nodiscard]] QString look() const; ///< that was said

    void connectTo(const QString &port);
    void disconnectNow();
    /// Tells the rig to call its reading zero.
    void zeroGauge();
    /// Space: begins the record, or ends it.
    void startOrStop();
    /// Enter: the next piece lies at the rig.
    void next();
    void choose(PieceId piece) { m_session.selectPiece(piece); }
    /// The piece with this code or label, in whatever study it is. False, with a sentence told, for none.
    bool goTo(const QString &code);
    /// Puts the piece to the end of the order.
    void putBack();
    void sayBreak(const QString &look);
    /// A piece that was printed wrongly does not count; its reason is kept.
    bool voidPiece(const QString &reason);
    /// Its record is set aside with the reason, and it is tested once more; the bytes stay in the project.
    bool testAgain(const QString &reason);
    [[nodiscard]] bool canTestAgain() const;
    /// It was printed wrongly, and a new one is laid out on a plate of its own.
    bool printAgain(const QString &reason);
    [[nodiscard]] bool canPrintAgain() const;
    /// The room as it was noted today; empty where it was not.
    [[nodiscard]] QString roomText() const;
    bool setRoom(const QString &text);
    [[nodiscard]] QString note() const;
    void setNote(const QString &note);
    /// A reading of a gauge without a cable becomes the piece's record; its unit may be typed.
    bool keepTypedPeak(const QString &text);
    [[nodiscard]] bool takesTypedPeak() const;

    [[nodiscard]] bool isPendulum() const { return kind() == BenchKind::Swing; }
    /// Where the hammer stands, in degrees from hanging.
    [[nodiscard]] std::optional<double> hammerAngle() const;
    bool keepSwing(const QString &letter);
    bool takeFreeSwing();
    /// What the gauge on the cable reads now, with its unit; empty without one.
    [[nodiscard]] QString shownReading() const;

    /// Takes what the rig said since the last time; asked some sixty times a second while the lens is shown.
    void poll();
    [[nodiscard]] const LiveState &live() const;
    [[nodiscard]] const LiveTrace &trace() const;
    /// Curves of the other pieces of the rail that were tested since the program was started.
    [[nodiscard]] std::vector<const LiveTrace *> otherTraces() const;
    [[nodiscard]] QString peakText() const; ///< "peak 480.2 N", empty before a record
    [[nodiscard]] RangeState range() const;
    [[nodiscard]] double shownLimit() const; ///< of the range, in the unit of the curve; 0: not known
    [[nodiscard]] QString rangeText() const; ///< empty inside; a slip is said here too

    /// What the disk said of the record at hand, and where it goes on; empty where all is well.
    [[nodiscard]] QString diskTrouble() const;
    [[nodiscard]] QString diskTroubleDetail() const; ///< with the paths
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
    BenchRig &rigLine();
    [[nodiscard]] const BenchRig *rigLine() const;
    void listenTo(Method method, BenchRig &rig);
    void arm();
    void takeRecord(BenchRig &rig, const BenchRecord &record);
    void takeKept(PieceId piece, bool isLinked);
    void hear(BenchRig &rig);
    void sayWhatHappened(const BenchRig &rig, RangeState before);
    void followDueArms();
    void orderPieces();
    void findCutOff();
    [[nodiscard]] QString folder() const;
    [[nodiscard]] std::optional<Method> test() const;
    [[nodiscard]] const RigCard *rig() const;
    [[nodiscard]] bool readsItsLoad() const;
    [[nodiscard]] bool beginsByItself() const;
    [[nodiscard]] double rangeOfRig() const;
    [[nodiscard]] bool isUnderWay(PieceId piece) const;
    [[nodiscard]] bool isThrough() const;
    [[nodiscard]] const BenchRig *troubledRig() const; ///< nullptr where every disk takes its record
    [[nodiscard]] bool waitsToBeKept(PieceId piece) const;
    [[nodiscard]] const RoomReading *roomToday() const; ///< nullptr where none was noted
    void watchRigs();

    ProjectSession &m_session;
    PlanState &m_plan;
    Announcer &m_announcer;
    BenchKeeper m_keeper;
    TimedPresenter m_timed;
    StepsPresenter m_steps;
    OvenPresenter m_oven;
    FeelPresenter m_feel;
    PairsPresenter m_pairs;
    SwingPresenter m_swings;
    std::map<Method, std::unique_ptr<BenchRig>> m_rigs;
    std::map<PieceId, LiveTrace> m_traces; ///< of the pieces that were recorded since the start
    std::vector<PieceId> m_order;
    std::set<PieceId> m_putBack;
    PieceId m_piece;
    PieceId m_lit; ///< that was last selected on the rack
    bool m_isDone = false;
    double m_lastRow_s = 0.0;                  ///< by the steady clock: when a gauge last said something
    std::optional<double> m_lastRowOfRecord_s; ///< the same by the record's time; nothing before the first
    QString m_shownProject;
    std::vector<CutOffRecord> m_cutOff;
    QTimer m_watch; ///< looks after the rigs while nobody looks at the lens
};

} // namespace inchpeg::app
