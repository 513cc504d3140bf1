// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/bench_recorder.h"

#include "disk/disk.h"

#include <limits>

namespace inchpeg::app
{

namespace
{

constexpr double kPatience_s = 3600.0;       ///< who pulled a cable will plug it in again
constexpr std::size_t kMostNewRows = 200000; ///< a window that hangs must not fill the memory

} // namespace

BenchRecorder::BenchRecorder(QObject *parent) : QObject(parent) {}

BenchRecorder::~BenchRecorder()
{
    disconnect();
    disconnectNow();
}

void BenchRecorder::connectTo(const QString &port, int baud, const RigDefault &usual,
                              const QString &spareFolder)
{
    disconnectNow();
    m_quits = false;
    m_state = {};
    m_state.isConnected = true;
    m_thread.reset(QThread::create(
        [this, setup = ListenSetup{port.toStdString(), baud, usual, kPatience_s, spareFolder.toStdString(),
                                   true}] { listenUntilTheEnd(setup); }));
    m_thread->start();
    emit connectionChanged();
}

void BenchRecorder::disconnectNow()
{
    if (!m_thread)
        return;
    {
        const std::lock_guard lock(m_mutex);
        m_quits = true;
        m_armed.reset();
    }
    m_thread->wait();
    m_thread.reset();
    m_state = {};
    emit connectionChanged();
}

bool BenchRecorder::isConnected()
{
    const std::lock_guard lock(m_mutex);
    return m_state.isConnected;
}

bool BenchRecorder::arm(const RecordRule &rule, const std::string &file, const RecordOwner &owner)
{
    const std::lock_guard lock(m_mutex);
    if (m_state.isRecording)
        return false;
    m_armed = Armed{rule, file, owner};
    m_changes = true;
    return true;
}

bool BenchRecorder::isRecording()
{
    const std::lock_guard lock(m_mutex);
    return m_state.isRecording;
}

void BenchRecorder::disarm()
{
    const std::lock_guard lock(m_mutex);
    if (m_state.isRecording)
        return;
    m_armed.reset();
    m_changes = true;
}

void BenchRecorder::beginNow()
{
    const std::lock_guard lock(m_mutex);
    if (!m_armed || m_state.isRecording)
        return;
    m_armed->rule.startAt.reset();
    m_changes = true;
}

void BenchRecorder::endNow()
{
    const std::lock_guard lock(m_mutex);
    m_endsRecord = m_state.isRecording;
}

void BenchRecorder::send(const std::string &command)
{
    const std::lock_guard lock(m_mutex);
    m_commands.push_back(command);
}

LiveState BenchRecorder::takeState()
{
    const std::lock_guard lock(m_mutex);
    LiveState state = m_state;
    m_state.newRows.clear();
    m_state.idleRows.clear();
    return state;
}

/// Whatever fails in this thread ends the connection, with a sentence, and never the program.
void BenchRecorder::listenUntilTheEnd(const ListenSetup &setup)
{
    QString why;
    try {
        run(setup);
    } catch (const std::exception &failure) {
        why = tr("Listening to the rig failed: %1. What was recorded is kept; connect the rig again.")
                  .arg(QString::fromUtf8(failure.what()));
    }
    if (why.isEmpty())
        return;
    {
        const std::lock_guard lock(m_mutex);
        m_state.isConnected = m_state.isThere = m_state.isRecording = false;
        m_armed.reset();
    }
    emit failed(why);
    emit connectionChanged();
}

void BenchRecorder::run(ListenSetup setup)
{
    const ListenHooks hooks{.isStopped =
                                [this] {
                                    const std::lock_guard lock(m_mutex);
                                    return m_quits || m_endsRecord || (m_changes && !m_state.isRecording);
                                },
                            .heard =
                                [this](LiveRecord &record) {
                                    const std::lock_guard lock(m_mutex);
                                    if (m_state.columns != record.columns()) {
                                        m_state.columns = record.columns();
                                        m_state.newRows.clear(); // of other columns
                                        m_state.idleRows.clear();
                                    }
                                    m_state.main = record.mainColumn();
                                    m_state.latest = record.latest();
                                    m_state.peak = record.peak();
                                    m_state.isRecording = record.hasBegun() && m_armed;
                                    m_state.rows = record.rows();
                                    m_state.seconds = record.seconds();
                                    m_state.damaged = record.damaged();
                                    m_state.gaps = record.gaps().size();
                                    m_state.fault = record.fault();
                                    m_state.facts = record.facts();
                                    std::vector<RecordedRow> &rows =
                                        m_state.isRecording ? m_state.newRows : m_state.idleRows;
                                    for (RecordedRow &row : record.takeNewRows()) {
                                        if (rows.size() < kMostNewRows)
                                            rows.push_back(std::move(row));
                                    }
                                },
                            .portChanged =
                                [this](bool isThere) {
                                    {
                                        const std::lock_guard lock(m_mutex);
                                        m_state.isThere = isThere;
                                    }
                                    emit connectionChanged();
                                },
                            .nextCommand = [this]() -> std::string {
                                const std::lock_guard lock(m_mutex);
                                if (m_commands.empty())
                                    return {};
                                std::string command = std::move(m_commands.front());
                                m_commands.pop_front();
                                return command;
                            },
                            .diskRefused =
                                [this](const std::string &sentence, bool isInMemory) {
                                    const std::lock_guard lock(m_mutex);
                                    m_state.diskTrouble = sentence;
                                    m_state.isInMemory = isInMemory;
                                }};
    RigListener listener(std::move(setup), hooks);
    if (const Status opened = listener.open(); !opened) {
        {
            const std::lock_guard lock(m_mutex);
            m_state.isConnected = false;
        }
        emit failed(QString::fromStdString(opened.error().message));
        emit connectionChanged();
        return;
    }
    {
        const std::lock_guard lock(m_mutex);
        m_state.isThere = true;
    }
    emit connectionChanged();
    while (true) {
        std::optional<Armed> armed;
        {
            const std::lock_guard lock(m_mutex);
            if (m_quits)
                return;
            m_changes = false;
            m_endsRecord = false;
            armed = m_armed;
        }
        const Armed idle{{.startAt = std::numeric_limits<double>::infinity()}, {}, {}};
        listen(listener, armed.value_or(idle), !armed);
    }
}

void BenchRecorder::listen(RigListener &listener, const Armed &armed, bool isIdle)
{
    const Status status = listener.listen(armed.rule, armed.file);
    const bool hasBegun = !isIdle && listener.record().hasBegun();
    {
        const std::lock_guard lock(m_mutex);
        m_state.isRecording = false;
        m_state.diskTrouble.clear();
        m_state.isInMemory = false;
        if (hasBegun)
            m_armed.reset();
        if (!status) // neither tried again and again, nor taken for being there
            m_quits = true;
    }
    if (!isIdle && !hasBegun) [[maybe_unused]]
        const Status removed = removeFile(armed.file); // nothing came of it
    if (hasBegun) {
        const KeptRecord &kept = listener.kept();
        const std::string trouble = !status ? status.error().message : kept.trouble.value_or(std::string());
        emit ended({armed.owner, kept, listener.record().rows(), QString::fromStdString(trouble)});
    }
    if (!status) {
        {
            const std::lock_guard lock(m_mutex);
            m_state.isConnected = m_state.isThere = false;
        }
        emit failed(QString::fromStdString(status.error().message));
        emit connectionChanged();
    }
}

} // namespace inchpeg::app
