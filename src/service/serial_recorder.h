// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/rig/live_record.h"
#include "service/record_keeper.h"

#include <functional>
#include <memory>
#include <optional>
#include <string>

namespace inchpeg
{

struct ListenSetup {
    std::string port; ///< path of a serial device
    int baud = 115200;
    RigDefault usual;         ///< of a rig without a heading
    double patience_s = 10.0; ///< how long a port that went away is waited for
    /// Where the rest of a record goes when the disk of its file refuses: best on another disk.
    std::string spareFolder{};
    /// Where that refuses too, a record goes on in memory for a program that stays; else it ends.
    bool mayStayInMemory = false;
};

/// What happens while a rig is listened to; called from the thread that listens.
struct ListenHooks {
    std::function<bool()> isStopped;               ///< asked some fifty times a second
    std::function<void(LiveRecord &)> heard;       ///< after whatever came
    std::function<void(bool isThere)> portChanged; ///< went away, came back
    std::function<std::string()> nextCommand;      ///< to be sent; empty for none
    /// The record goes on elsewhere, or in memory alone.
    std::function<void(const std::string &sentence, bool isInMemory)> diskRefused;
};

/// Listens to a rig on a serial line, one record after the other on the same open port. Blocks; works without
/// an event loop, all in one thread.
class RigListener
{
public:
    RigListener(ListenSetup setup, ListenHooks hooks);
    ~RigListener();
    RigListener(const RigListener &) = delete;
    RigListener &operator=(const RigListener &) = delete;

    /// Errors: NotFound where the port cannot be opened.
    Status open();
    /// Makes a record by the rule, until that is met or it is stopped. file: must not exist, or be empty;
    /// without a name nothing is kept. It is delimited text, written as readings come and synchronised with
    /// the disk four times a second: docs/rig_protocol.md. Errors: InvalidArgument where the file holds
    /// something; Storage where it cannot be made; NotFound where the port does not come back within the
    /// patience. What was recorded is kept; a disk that refuses meanwhile ends nothing: kept() tells.
    Status listen(const RecordRule &rule, const std::string &file);
    /// The latest record, also after an error.
    [[nodiscard]] const LiveRecord &record() const;
    [[nodiscard]] const KeptRecord &kept() const { return m_kept; } ///< where its text is

private:
    class Line;
    std::string m_spareFolder;
    KeptRecord m_kept;
    std::unique_ptr<Line> m_line;
};

/// What a person starts once: the port opened, and one record made of it.
struct Listened {
    LiveRecord record;
    KeptRecord kept;
    std::optional<Error> brokenBy; ///< the port did not come back within the patience
};
/// Errors: NotFound where the port cannot be opened; InvalidArgument or Storage where the file cannot be
/// made.
Result<Listened> listenToRig(const ListenSetup &setup, const RecordRule &rule, const std::string &file,
                             const ListenHooks &hooks);

} // namespace inchpeg
