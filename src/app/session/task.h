// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/handover.h"
#include "core/base/result.h"

#include <QFutureWatcher>
#include <QUnhandledException>
#include <QtConcurrentRun>

#include <exception>
#include <memory>
#include <string>
#include <type_traits>

namespace inchpeg::app
{

/// For tests: the kind of task that throws from now on; empty: none does.
void setThrowingTask(const std::string &name);
/// Throws where a test wants this kind of task to. Called first in each.
void enterTask(const std::string &name);

/// Begins work in another thread; its result, or what it threw, is taken by taskResult(). name: of the kind
/// of task.
template <typename Work>
auto beginTask(const std::string &name, Work work)
{
    handOver();
    return QtConcurrent::run([name, work = std::move(work)]() mutable {
        takeHandedOver();
        enterTask(name);
        auto result = work();
        handOver();
        return result;
    });
}

namespace detail
{

template <typename T>
struct Flat {
    using Type = Result<T>;
};
template <typename T>
struct Flat<Result<T>> {
    using Type = Result<T>;
};

/// The sentence about an exception that left a task.
Error taskFailure(const std::exception_ptr &thrown);

} // namespace detail

/// The result of a task that is finished. The watcher goes, whatever came of it: it is the sender of the
/// signal that brought us here. Errors: those of the task; Storage with a sentence where it threw.
template <typename T>
typename detail::Flat<T>::Type taskResult(std::unique_ptr<QFutureWatcher<T>> &watcher)
{
    QFuture<T> future = watcher->future();
    watcher.release()->deleteLater();
    try {
        future.waitForFinished(); // throws what the task threw
        takeHandedOver();
        return future.result();
    } catch (const QUnhandledException &unhandled) {
        return detail::taskFailure(unhandled.exception());
    } catch (...) {
        return detail::taskFailure(std::current_exception());
    }
}

} // namespace inchpeg::app
