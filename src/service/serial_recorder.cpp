// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/serial_recorder.h"

#include <QSerialPort>

#include <fmt/format.h>

#include <atomic>
#include <cerrno>
#include <chrono>
#include <condition_variable>
#include <cstring>
#include <fcntl.h>
#include <memory>
#include <mutex>
#include <optional>
#include <sys/stat.h>
#include <thread>
#include <unistd.h>

namespace inchpeg
{

namespace
{

using Clock = std::chrono::steady_clock;

constexpr int kWait_ms = 20;
constexpr auto kRetry = std::chrono::milliseconds(100);
constexpr auto kSync = std::chrono::milliseconds(200);

double seconds(Clock::duration time)
{
    return std::chrono::duration<double>(time).count();
}

/// A file that only grows. Its bytes are with the system at once, and on the disk a fifth of a second later.
class GrowingFile
{
public:
    static Result<GrowingFile> create(const std::string &path)
    {
        const int descriptor = ::open(path.c_str(), O_WRONLY | O_CREAT | O_APPEND | O_CLOEXEC, 0644);
        if (descriptor < 0)
            return Error{
                ErrorCode::Storage, fmt::format("{}: cannot be written: {}", path, std::strerror(errno)), {}};
        struct stat state = {};
        if (::fstat(descriptor, &state) != 0 || state.st_size > 0) {
            ::close(descriptor);
            return invalidArgument(
                fmt::format("{}: holds something already; a record wants a file of its own", path));
        }
        return GrowingFile(descriptor, path);
    }

    GrowingFile(GrowingFile &&) = default;
    GrowingFile &operator=(GrowingFile &&) = default;
    ~GrowingFile()
    {
        if (!m_state)
            return;
        {
            const std::lock_guard lock(m_state->mutex);
            m_state->isClosed = true;
        }
        m_state->wake.notify_one();
        m_synchroniser.join();
        ::fdatasync(m_state->descriptor);
        ::close(m_state->descriptor);
    }

    Status append(std::string_view text)
    {
        while (!text.empty()) {
            const ssize_t written = ::write(m_state->descriptor, text.data(), text.size());
            if (written < 0 && errno == EINTR)
                continue;
            if (written < 0)
                return Error{ErrorCode::Storage,
                             fmt::format("{}: cannot be written any more: {}; what came before is kept",
                                         m_state->path, std::strerror(errno)),
                             {}};
            text.remove_prefix(static_cast<std::size_t>(written));
            m_state->isChanged = true;
        }
        return ok();
    }

private:
    struct State {
        int descriptor = -1;
        std::string path;
        std::mutex mutex;
        std::condition_variable wake;
        bool isClosed = false;
        std::atomic<bool> isChanged = false;
    };

    GrowingFile(int descriptor, const std::string &path) : m_state(std::make_unique<State>())
    {
        m_state->descriptor = descriptor;
        m_state->path = path;
        // A slow disk must not keep the line waiting: its buffer holds a tenth of a second.
        m_synchroniser = std::thread([state = m_state.get()] {
            std::unique_lock lock(state->mutex);
            while (!state->wake.wait_for(lock, kSync, [state] { return state->isClosed; })) {
                if (!state->isChanged.exchange(false))
                    continue;
                lock.unlock();
                ::fdatasync(state->descriptor);
                lock.lock();
            }
        });
    }

    std::unique_ptr<State> m_state;
    std::thread m_synchroniser;
};

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

    /// Until the end. Errors: NotFound where the port went away for good, Storage where the disk is full.
    Status run(GrowingFile *file)
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
            if (const Status kept = file == nullptr ? ok() : file->append(text); !kept)
                return kept;
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
    : m_line(std::make_unique<Line>(std::move(setup), std::move(hooks)))
{
}

RigListener::~RigListener() = default;

Status RigListener::open()
{
    return m_line->open();
}

Status RigListener::listen(const RecordRule &rule, const std::string &file)
{
    std::optional<GrowingFile> growing;
    if (!file.empty()) {
        Result<GrowingFile> made = GrowingFile::create(file);
        if (!made)
            return made.error();
        growing.emplace(std::move(*made));
    }
    m_line->begin(rule);
    return m_line->run(growing ? &*growing : nullptr);
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
    if (const Result<GrowingFile> possible = GrowingFile::create(file); !possible)
        return possible.error();
    const Status ended = listener.listen(rule, file);
    return Listened{listener.record(), ended ? std::nullopt : std::optional(ended.error())};
}

} // namespace inchpeg
