// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/beside/task.h"

#include <QCoreApplication>
#include <QEventLoop>

#include <gtest/gtest.h>

#include <atomic>
#include <stdexcept>
#include <thread>

namespace inchpeg
{

namespace
{

/// Lets the event loop turn until it is so.
template <typename Condition>
void turnUntil(Condition isSo)
{
    while (!isSo())
        QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
}

} // namespace

TEST(Task, HandsItsResultOverWhereItWasBegun)
{
    Task<int> task;
    std::optional<int> result;
    std::thread::id where;
    task.begin(
        "adding", [] { return 40 + 2; },
        [&](const Result<int> &outcome) {
            EXPECT_FALSE(task.isRunning()) << "another may be begun";
            result = *outcome;
            where = std::this_thread::get_id();
        });
    EXPECT_TRUE(task.isRunning());
    EXPECT_FALSE(result) << "nothing is told before the event loop turns";
    turnUntil([&] { return result.has_value(); });
    EXPECT_EQ(result, 42);
    EXPECT_EQ(where, std::this_thread::get_id());
}

TEST(Task, AResultThatIsAnErrorStaysOne)
{
    Task<Status> task;
    std::optional<Status> told;
    task.begin(
        "refusing", [] { return Status(invalidArgument("no")); },
        [&](const Status &outcome) { told = outcome; });
    turnUntil([&] { return told.has_value(); });
    ASSERT_FALSE(*told);
    EXPECT_EQ(told->error().message, "no");
}

TEST(Task, WhatItThrowsIsASentence)
{
    Task<int> task;
    std::optional<Result<int>> told;
    const auto take = [&](const Result<int> &outcome) { told = outcome; };
    task.begin(
        "throwing", []() -> int { throw std::runtime_error("too warm"); }, take);
    turnUntil([&] { return told.has_value(); });
    ASSERT_FALSE(*told);
    EXPECT_NE(told->error().message.find("too warm"), std::string::npos) << told->error().message;
    told.reset();
    task.begin(
        "throwing", []() -> int { throw 7; }, take); // NOLINT(hicpp-exception-baseclass)
    turnUntil([&] { return told.has_value(); });
    ASSERT_FALSE(*told);
    EXPECT_NE(told->error().message.find("for a reason it did not tell"), std::string::npos);
}

TEST(Task, StopsWhenItIsAskedToAndTellsWhatItHas)
{
    Task<int> task;
    std::atomic<bool> isUnderWay = false;
    std::optional<int> rounds;
    task.begin(
        "counting",
        [&](const TaskControl &control) {
            int count = 0;
            while (!control.stop.stop_requested()) {
                ++count;
                isUnderWay = true;
                std::this_thread::yield();
            }
            return count;
        },
        [&](const Result<int> &outcome) { rounds = *outcome; });
    turnUntil([&] { return isUnderWay.load(); });
    task.stop();
    turnUntil([&] { return rounds.has_value(); });
    EXPECT_GT(*rounds, 0);
}

TEST(Task, NobodyHearsOfWhatWasForgotten)
{
    std::atomic<bool> isDone = false;
    bool isTold = false;
    {
        Task<int> task;
        task.begin(
            "waiting",
            [&](const TaskControl &control) {
                while (!control.stop.stop_requested())
                    std::this_thread::yield();
                isDone = true;
                return 1;
            },
            [&](const Result<int> &) { isTold = true; });
    }
    EXPECT_TRUE(isDone) << "it is waited for: it may use what its owner had";
    QCoreApplication::processEvents();
    EXPECT_FALSE(isTold);
}

TEST(Task, ProgressIsToldInOrderAndBeforeTheResult)
{
    Task<int> task;
    std::vector<int> told;
    bool isDone = false;
    task.onProgress([&](int done, int all) {
        EXPECT_EQ(all, 3);
        EXPECT_FALSE(isDone);
        told.push_back(done);
    });
    task.begin(
        "stepping",
        [](const TaskControl &control) {
            for (int i = 1; i <= 3; ++i)
                control.progress(i, 3);
            return 0;
        },
        [&](const Result<int> &) { isDone = true; });
    turnUntil([&] { return isDone; });
    EXPECT_EQ(told, (std::vector{1, 2, 3}));
}

TEST(Task, TheNextMayBeBegunWhereTheLastIsTold)
{
    Task<int> task;
    int sum = 0;
    std::function<void(int)> begin = [&](int number) {
        task.begin(
            "chain", [number] { return number; },
            [&](const Result<int> &outcome) {
                sum += *outcome;
                if (*outcome > 1)
                    begin(*outcome - 1);
            });
    };
    begin(4);
    turnUntil([&] { return !task.isRunning() && sum == 10; });
    EXPECT_EQ(sum, 4 + 3 + 2 + 1);
}

} // namespace inchpeg
