// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "service/beside/handover.h"

#include <QFutureWatcher>
#include <QtConcurrentRun>

#include <exception>
#include <functional>
#include <memory>
#include <optional>
#include <stop_token>
#include <string>
#include <type_traits>

namespace inchpeg
{

/// For tests: the kind of task that throws from now on; empty: none does.
void setThrowingTask(const std::string &name);
/// Throws where a test wants this kind of task to. Called first in each.
void enterTask(const std::string &name);
/// The sentence about an exception that left a task.
Error taskFailure(const std::exception_ptr &thrown);

/// What work beside the caller is told, and tells.
struct TaskControl {
    std::stop_token stop; ///< it is asked to end, with what it has
    /// Callable from the work's own thread; told where the task was begun, from its event loop.
    std::function<void(int done, int all)> progress;
};

/// Work in another thread for an owner with an event loop: one at a time, its result handed over there. No
/// exception leaves the other thread: it becomes an Error. An owner that goes asks its work to stop, waits
/// for it, and hears nothing of it.
template <typename T>
class Task
{
    template <typename R>
    struct Flat {
        using Type = Result<R>;
    };
    template <typename R>
    struct Flat<Result<R>> {
        using Type = Result<R>;
    };

public:
    using Outcome = typename Flat<T>::Type;

    Task() = default;
    Task(const Task &) = delete;
    Task &operator=(const Task &) = delete;
    ~Task() { forget(); }

    [[nodiscard]] bool isRunning() const { return m_watcher != nullptr; }

    /// Tells of progress as the work does; set before begin().
    void onProgress(std::function<void(int done, int all)> tell) { m_tell = std::move(tell); }

    /// Begins work, called as work(const TaskControl &) or work(). done: called in this thread with the
    /// Outcome once the task is no longer running; it may begin another, or end the owner. name: of the kind
    /// of task. Precondition: it is not running.
    template <typename Work, typename Done>
    void begin(const std::string &name, Work work, Done done)
    {
        require(!isRunning(), "a task is begun once at a time");
        m_stop = {};
        m_watcher = std::make_unique<QFutureWatcher<void>>();
        auto outcome = std::make_shared<std::optional<Outcome>>();
        QObject::connect(m_watcher.get(), &QFutureWatcherBase::finished, m_watcher.get(),
                         [this, outcome, done = std::move(done)]() mutable {
                             m_watcher.release()->deleteLater(); // it is the sender
                             takeHandedOver();
                             done(std::move(**outcome));
                         });
        TaskControl control{m_stop.get_token(), {}};
        if (m_tell) {
            control.progress = [watcher = m_watcher.get(), tell = m_tell](int sofar, int all) {
                QMetaObject::invokeMethod(watcher, [tell, sofar, all] { tell(sofar, all); });
            };
        } else {
            control.progress = [](int, int) {};
        }
        handOver();
        m_watcher->setFuture(QtConcurrent::run(
            [name, outcome, work = std::move(work), control = std::move(control)]() mutable {
                takeHandedOver();
                try {
                    enterTask(name);
                    if constexpr (std::is_invocable_v<Work &, const TaskControl &>)
                        outcome->emplace(work(control));
                    else
                        outcome->emplace(work());
                } catch (...) {
                    outcome->emplace(taskFailure(std::current_exception()));
                }
                handOver();
            }));
    }

    /// Asks the work to end; its outcome is told.
    void stop() { m_stop.request_stop(); }

    /// Asks the work to end and waits for that; nobody hears of it.
    void forget()
    {
        if (!m_watcher)
            return;
        m_stop.request_stop();
        m_watcher->disconnect();
        m_watcher->waitForFinished();
        takeHandedOver();
        m_watcher.reset();
    }

private:
    std::stop_source m_stop;
    std::function<void(int done, int all)> m_tell;
    std::unique_ptr<QFutureWatcher<void>> m_watcher;
};

} // namespace inchpeg
