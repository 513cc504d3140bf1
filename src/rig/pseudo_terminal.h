// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <string>
#include <string_view>

namespace inchpeg
{

/// The far end of a serial line: what is sent comes out of the device at path().
class PseudoTerminal
{
public:
    /// link: where a symbolic link to the device is made, in place of an older one; empty: none.
    /// Errors: Storage where the system gives no pseudo-terminal, or the link cannot be made.
    static Result<PseudoTerminal> open(const std::string &link);

    PseudoTerminal(PseudoTerminal &&other) noexcept;
    PseudoTerminal &operator=(PseudoTerminal &&other) noexcept;
    ~PseudoTerminal();

    [[nodiscard]] const std::string &path() const { return m_path; }
    void send(std::string_view bytes);
    /// Whether the near end is open: what is sent to nobody is lost.
    [[nodiscard]] bool isHeard() const;
    /// What came from the near end; waits so long for it at most.
    [[nodiscard]] std::string receive(int wait_ms) const;
    /// The cable comes off: the near end sees the device go away.
    void pull();

private:
    PseudoTerminal(int descriptor, std::string path, std::string link);
    int m_descriptor = -1;
    std::string m_path;
    std::string m_link;
};

} // namespace inchpeg
