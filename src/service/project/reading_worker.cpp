// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project/reading_worker.h"

#include "service/beside/task.h"
#include "service/on_all_cores.h"
#include "store/kept_readings.h"
#include "store/raw_file_reader.h"

#include <atomic>
#include <map>
#include <mutex>
#include <sys/resource.h>
#include <thread>

namespace inchpeg
{

namespace
{

/// So many readings are written at once: a person's own edit waits for one such write at most.
constexpr std::size_t kKeepAtOnce = 16;

Result<std::string> bytesOf(const OrderedReading &ordered, Result<RawFileReader> &reader)
{
    return reader ? reader->bytes(ordered.recording.file) : Result<std::string>(reader.error());
}

/// This thread, and by Linux's way only this one, waits where the window wants the core: with as many readers
/// as cores the window would else wait for its turn in the middle of a frame. Where it is refused, all go on
/// as equals.
void letTheWindowGoFirst()
{
    constexpr int kNicer = 10;
    setpriority(PRIO_PROCESS, 0, kNicer);
}

/// The readings of one task, made by several threads.
class ReadingRun
{
public:
    ReadingRun(QPromise<ReadResult> &promise, const ReadingTask &task) : m_promise(promise), m_task(task)
    {
        m_promise.setProgressRange(0, static_cast<int>(task.stale.size()));
    }

    void takeKept()
    {
        std::map<PieceId, const OrderedReading *> wanted;
        for (const OrderedReading &stale : m_task.stale)
            wanted[stale.piece] = &stale;
        Result<KeptReadings> kept = KeptReadings::openForReading(m_task.projectPath);
        if (kept) {
            // Where this fails the readings are made anew, so nothing is lost.
            [[maybe_unused]] const Status loaded = kept->load(
                m_task.study,
                [&](PieceId piece, const std::string &inputs) {
                    const auto found = wanted.find(piece);
                    return found != wanted.end() && found->second->inputs == inputs;
                },
                [&](KeptReading reading) {
                    wanted.erase(reading.piece);
                    yield(reading.piece,
                          std::make_shared<const Result<PieceReading>>(std::move(reading.reading)));
                    return !m_promise.isCanceled();
                });
        }
        for (const OrderedReading &stale : m_task.stale) {
            if (wanted.contains(stale.piece))
                m_toMake.push_back(&stale);
        }
    }

    void makeTheRest()
    {
        if (m_toMake.empty())
            return;
        const std::size_t cores = std::max(1U, std::thread::hardware_concurrency());
        std::vector<std::jthread> helpers;
        for (std::size_t i = 0; i < std::min(cores, m_toMake.size()); ++i)
            helpers.emplace_back([this] {
                letTheWindowGoFirst();
                make();
            });
    }

private:
    void yield(PieceId piece, std::shared_ptr<const Result<PieceReading>> reading)
    {
        const std::lock_guard lock(m_mutex);
        handOver();
        m_promise.addResult(ReadResult{piece, std::move(reading)});
        m_promise.setProgressValue(++m_done);
    }

    void make()
    {
        Result<RawFileReader> reader = RawFileReader::open(m_task.projectPath);
        std::vector<KeptReading> fresh;
        for (std::size_t i = m_next++; i < m_toMake.size() && !m_promise.isCanceled(); i = m_next++) {
            const OrderedReading &stale = *m_toMake[i];
            auto reading = std::make_shared<const Result<PieceReading>>(readingOf(stale, reader));
            if (reading->has_value())
                fresh.push_back({stale.piece, stale.inputs, **reading});
            yield(stale.piece, std::move(reading));
            if (fresh.size() == kKeepAtOnce)
                keep(fresh);
        }
        keep(fresh);
    }

    /// A reading that throws is one that failed; the others go on.
    Result<PieceReading> readingOf(const OrderedReading &stale, Result<RawFileReader> &reader)
    {
        try {
            enterTask("reading");
            Result<ReadingJob> job = jobFor(stale, bytesOf(stale, reader));
            if (job && m_toMake.size() == 1)
                job->run = onAllCores;
            return job ? readPiece(*job) : Result<PieceReading>(job.error());
        } catch (...) {
            return taskFailure(std::current_exception());
        }
    }

    void keep(std::vector<KeptReading> &fresh)
    {
        if (m_task.mayWrite && !fresh.empty()) {
            const std::lock_guard lock(m_keeping);
            if (Result<KeptReadings> kept = KeptReadings::open(m_task.projectPath)) {
                // A reading that cannot be kept (a full disk) is made again at the next opening.
                [[maybe_unused]] const Status status = kept->keep(fresh);
            }
        }
        fresh.clear();
    }

    QPromise<ReadResult> &m_promise;
    const ReadingTask &m_task;
    std::vector<const OrderedReading *> m_toMake;
    std::atomic<std::size_t> m_next = 0;
    std::mutex m_mutex;
    std::mutex m_keeping;
    int m_done = 0;
};

} // namespace

void readAll(QPromise<ReadResult> &promise, const ReadingTask &task)
{
    takeHandedOver();
    ReadingRun run(promise, task);
    run.takeKept();
    run.makeTheRest();
}

Result<PieceRecord> readWholeRecord(const std::string &projectPath, const OrderedReading &wanted)
{
    Result<RawFileReader> reader = RawFileReader::open(projectPath);
    Result<ReadingJob> job = jobFor(wanted, bytesOf(wanted, reader));
    if (job)
        job->run = onAllCores;
    return job ? readRecord(*job) : Result<PieceRecord>(job.error());
}

} // namespace inchpeg
