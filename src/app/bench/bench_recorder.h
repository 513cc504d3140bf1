// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/ids.h"
#include "service/serial_recorder.h"

#include <QObject>
#include <QString>
#include <QThread>

#include <deque>
#include <memory>
#include <mutex>

namespace inchpeg::app
{

/// What a rig says right now, taken from the thread that listens.
struct LiveState {
    bool isConnected = false; ///< the port is open, or waited for
    bool isThere = false;     ///< the port is open
    std::vector<Column> columns;
    std::size_t main = 0; ///< among the columns: what the test is about
    std::optional<RecordedRow> latest;
    double peak = 0.0; ///< of the record at hand
    bool isRecording = false;
    std::size_t rows = 0;
    double seconds = 0.0;
    std::size_t damaged = 0;
    std::size_t gaps = 0;
    std::string fault;       ///< reported now
    std::string diskTrouble; ///< what the disk said of the record at hand, and where it goes on
    bool isInMemory = false; ///< it goes on there alone
    std::vector<std::string> facts;
    std::vector<RecordedRow> newRows;  ///< recorded since the last time
    std::vector<RecordedRow> idleRows; ///< that came while nothing was recorded
};

/// Whose record it is. It goes with the record from the moment it is armed, whatever is chosen meanwhile.
struct RecordOwner {
    StudyId study;
    PieceId piece;
    QString code; ///< of the piece, as it was called then
};

/// How a record on the bench ended.
struct BenchRecord {
    RecordOwner owner;
    KeptRecord kept;
    std::size_t rows = 0;
    QString trouble; ///< why it ended early; empty where it did not
};

/// Listens to a rig in a thread of its own, so that no slow window loses a reading. What is recorded grows in
/// a file from its first reading on; that file outlives the program.
class BenchRecorder : public QObject
{
    Q_OBJECT
public:
    explicit BenchRecorder(QObject *parent = nullptr);
    ~BenchRecorder() override;

    /// spareFolder: see ListenSetup.
    void connectTo(const QString &port, int baud, const RigDefault &usual, const QString &spareFolder);
    void disconnectNow();
    [[nodiscard]] bool isConnected();
    /// The next record begins by this rule, goes to this file and is of this piece. False while a record is
    /// under way: that one is its own piece's until it ends.
    bool arm(const RecordRule &rule, const std::string &file, const RecordOwner &owner);
    [[nodiscard]] bool isRecording();
    void disarm();
    /// Begins the armed record now, whatever the load; ends one that has begun.
    void beginNow();
    void endNow();
    void send(const std::string &command);
    [[nodiscard]] LiveState takeState();

signals:
    void ended(const inchpeg::app::BenchRecord &record);
    void connectionChanged();
    /// A port that cannot be opened, or did not come back.
    void failed(const QString &sentence);

private:
    struct Armed {
        RecordRule rule;
        std::string file;
        RecordOwner owner;
    };
    void listenUntilTheEnd(const ListenSetup &setup);
    void run(ListenSetup setup);
    void listen(RigListener &listener, const Armed &armed, bool isIdle);

    std::unique_ptr<QThread> m_thread;
    std::mutex m_mutex; ///< of what follows
    bool m_quits = false;
    bool m_endsRecord = false;
    bool m_changes = false; ///< another record was armed, or none is any more
    std::optional<Armed> m_armed;
    std::deque<std::string> m_commands;
    LiveState m_state;
};

} // namespace inchpeg::app
