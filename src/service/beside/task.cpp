// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/beside/task.h"

#include <atomic>
#include <mutex>
#include <stdexcept>

namespace inchpeg
{

namespace
{

std::mutex mutex;
std::atomic<bool> isSet = false;
std::string throwing; // NOLINT(cert-err58-cpp): an empty text throws nothing

} // namespace

void setThrowingTask(const std::string &name)
{
    const std::lock_guard lock(mutex);
    throwing = name;
    isSet = !name.empty();
}

void enterTask(const std::string &name)
{
    if (!isSet)
        return;
    const std::lock_guard lock(mutex);
    if (name == throwing)
        throw std::runtime_error("a test made " + name + " fail");
}

Error taskFailure(const std::exception_ptr &thrown)
{
    std::string why = "for a reason it did not tell";
    try {
        if (thrown)
            std::rethrow_exception(thrown);
    } catch (const std::exception &failure) {
        why = failure.what();
    } catch (...) { // NOLINT(bugprone-empty-catch): the reason stays untold
    }
    return Error{ErrorCode::Storage,
                 "something failed inside Inch Peg: " + why +
                     ". What was saved is untouched; the last thing asked for was not done",
                 {}};
}

} // namespace inchpeg
