// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/serial_recorder.h"

#include <QSerialPort>

#include <fmt/format.h>

#include <chrono>
#include <memory>
#include <optional>
#include <thread>

namespace inchpeg
{

namespace
{

using Clock = std::chrono::steady_clock;

constexpr int kWait_ms = 20;
constexpr auto kRetry = std::chrono::milliseconds(100);

double seconds(Clock::duration time)
{
    return std::chrono::duration<double>(time).count();
}

} // namespace

class RigListener::Line
{
public:
    Line(ListenSetup setup, ListenHooks hooks)
        : m_setup(std::move(setup)), m_hooks(std::move(hooks)), m_record({}, m_setup.usual)
    {
    }

    void begin(const RecordRule &rule)
    {
        m_rule = rule;
        m_record = LiveRecord(rule, m_record);
        m_asked = Clock::now();
        m_begun.reset();
    }

    Status open()
    {
        m_port.setPortName(QString::fromStdString(m_setup.port));
        m_port.setBaudRate(m_setup.baud);
        m_port.setDataBits(QSerialPort::Data8);
        m_port.setParity(QSerialPort::NoParity);
        m_port.setStopBits(QSerialPort::OneStop);
        if (!m_port.open(QIODevice::ReadWrite))
            return Error{ErrorCode::NotFound,
                         fmt::format("{}: cannot be opened as a serial port: {}", m_setup.port,
                                     m_port.errorString().toStdString()),
                         {}};
        m_portOpened = Clock::now();
        m_isFresh = true;
        send("hello");
        return ok();
    }

    /// Until the end. Errors: NotFound where the port went away for good.
    Status run(RecordKeeper *keeper)
    {
        while (!isDone()) {
            if (!m_port.isOpen()) {
                if (!await())
                    return Error{
                        ErrorCode::NotFound,
                        fmt::format("{}: went away and did not come back within {:g} s; {} rows are kept",
                                    m_setup.port, m_setup.patience_s, m_record.rows()),
                        {}};
                continue;
            }
            if (m_hooks.nextCommand) {
                for (std::string command = m_hooks.nextCommand(); !command.empty();
                     command = m_hooks.nextCommand())
                    send(command);
            }
            m_port.waitForReadyRead(kWait_ms);
            const QByteArray bytes = whole(m_port.readAll());
            const auto error = m_port.error();
            const std::string text =
                m_record.take(std::string_view(bytes.data(), static_cast<std::size_t>(bytes.size())),
                              seconds(Clock::now() - m_clock));
            if (!m_begun && m_record.hasBegun())
                m_begun = Clock::now();
            if (keeper != nullptr && keeper->append(text)) {
                if (m_hooks.diskRefused)
                    m_hooks.diskRefused(*keeper->trouble(), keeper->isInMemory());
                if (keeper->isInMemory() && !m_setup.mayStayInMemory)
                    return Error{ErrorCode::Storage, *keeper->trouble(), {}};
            }
            if (m_hooks.heard && !bytes.isEmpty())
                m_hooks.heard(m_record);
            (void)m_record.takeNewRows(); // whoever wanted them has them: an hour must not fill the memory
            if (error != QSerialPort::NoError && error != QSerialPort::TimeoutError)
                lose();
        }
        return ok();
    }

    [[nodiscard]] const LiveRecord &record() const { return m_record; }

private:
    [[nodiscard]] bool isDone() const
    {
        if (m_record.hasEnded() || (m_hooks.isStopped && m_hooks.isStopped()))
            return true;
        if (!m_rule.seconds)
            return false;
        // A rig that says nothing ends too, unless a load is waited for.
        const std::optional<Clock::time_point> from = m_begun          ? m_begun
                                                      : m_rule.startAt ? std::nullopt
                                                                       : std::optional(m_asked);
        return from && seconds(Clock::now() - *from) >= *m_rule.seconds;
    }

    /// Without the rest of a number whose beginning came before the port was opened: 2.5 of 12.5.
    QByteArray whole(QByteArray bytes)
    {
        if (!m_isFresh || bytes.isEmpty())
            return bytes;
        constexpr double kInFlow_s = 0.05;
        const bool isInFlow = seconds(Clock::now() - m_portOpened) < kInFlow_s;
        const char first = bytes.front();
        const bool isOfNumber =
            (first >= '0' && first <= '9') || first == '.' || first == ';' || first == ',';
        if (!isInFlow || !isOfNumber) {
            m_isFresh = false;
            return bytes;
        }
        const qsizetype end = bytes.indexOf('\n');
        m_isFresh = end < 0;
        return end < 0 ? QByteArray() : bytes.mid(end + 1);
    }

    void send(const std::string &command)
    {
        m_port.write(QByteArray::fromStdString(command + "\n"));
        m_record.sent(command);
        m_port.flush();
        m_port.clearError();
    }

    void lose()
    {
        m_port.close();
        m_port.clearError();
        m_record.pulled();
        m_lost = Clock::now();
        if (m_hooks.portChanged)
            m_hooks.portChanged(false);
    }

    /// One try to have the port back; false when the patience is over.
    bool await()
    {
        if (open()) {
            if (m_hooks.portChanged)
                m_hooks.portChanged(true);
            return true;
        }
        if (seconds(Clock::now() - m_lost) >= m_setup.patience_s)
            return false;
        std::this_thread::sleep_for(kRetry);
        return true;
    }

    ListenSetup m_setup;
    ListenHooks m_hooks;
    QSerialPort m_port;
    RecordRule m_rule;
    LiveRecord m_record;
    Clock::time_point m_clock = Clock::now(); ///< arrivals count from here
    Clock::time_point m_asked;                ///< for the record
    Clock::time_point m_portOpened;
    bool m_isFresh = true; ///< nothing came since then
    Clock::time_point m_lost;
    std::optional<Clock::time_point> m_begun;
};

RigListener::RigListener(ListenSetup setup, ListenHooks hooks)
    : m_spareFolder(setup.spareFolder), m_line(std::make_unique<Line>(std::move(setup), std::move(hooks)))
{
}

RigListener::~RigListener() = default;

Status RigListener::open()
{
    return m_line->open();
}

Status RigListener::listen(const RecordRule &rule, const std::string &file)
{
    m_kept = {};
    if (file.empty()) {
        m_line->begin(rule);
        return m_line->run(nullptr);
    }
    Result<RecordKeeper> keeper = RecordKeeper::begin(file, m_spareFolder);
    if (!keeper)
        return keeper.error();
    m_line->begin(rule);
    const Status ended = m_line->run(&*keeper);
    m_kept = keeper->finish();
    return ended;
}

const LiveRecord &RigListener::record() const
{
    return m_line->record();
}

Result<Listened> listenToRig(const ListenSetup &setup, const RecordRule &rule, const std::string &file,
                             const ListenHooks &hooks)
{
    RigListener listener(setup, hooks);
    if (const Status opened = listener.open(); !opened)
        return opened.error();
    if (const Status possible = RecordKeeper::mayBegin(file); !possible)
        return possible.error();
    const Status ended = listener.listen(rule, file);
    return Listened{listener.record(), listener.kept(), ended ? std::nullopt : std::optional(ended.error())};
}

} // namespace inchpeg
