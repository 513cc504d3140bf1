// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/ids.h"
#include "service/beside/task.h"

#include <QObject>

#include <deque>
#include <functional>
#include <memory>
#include <string>
#include <vector>

namespace inchpeg
{

/// A file whose bytes are to be kept in the project.
struct RawFileToKeep {
    RawFileId id;     ///< that the project has taken for it
    std::string name; ///< as it is called
    std::string path; ///< where its bytes are, unless they are at hand
    std::shared_ptr<const std::string> bytes;
};

/// The ids of the files that were kept, in order, and what stopped it before the end.
struct KeptRawFiles {
    std::vector<RawFileId> ids; ///< of the first files; fewer than there were where it stopped
    Status status = ok();
};

/// Keeps files in the project in another thread, one order after the other, so that no large file holds the
/// window up.
class RawIntake : public QObject
{
    Q_OBJECT
public:
    using Done = std::function<void(const KeptRawFiles &kept)>;

    explicit RawIntake(QObject *parent = nullptr);
    ~RawIntake() override;

    /// done is called in this thread, from the event loop.
    void keep(const std::string &projectPath, std::vector<RawFileToKeep> files, Done done);
    [[nodiscard]] bool isBusy() const { return m_task.isRunning(); }
    /// Stops after the file at hand; what was kept by then is told.
    void cancel() { m_task.stop(); }
    /// Stops after the file at hand, waits for that, and tells nobody: the project closes.
    void stop();

signals:
    void busyChanged();
    void progressed(int done, int all);

private:
    struct Order {
        std::string projectPath;
        std::vector<RawFileToKeep> files;
        Done done;
    };
    void startNext();
    void finish(const Result<KeptRawFiles> &result);

    std::deque<Order> m_orders; ///< the first is under way
    Task<KeptRawFiles> m_task;
};

} // namespace inchpeg
