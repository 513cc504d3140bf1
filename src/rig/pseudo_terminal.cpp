// SPDX-License-Identifier: GPL-3.0-or-later
#include "rig/pseudo_terminal.h"

#include <fmt/format.h>

#include <cerrno>
#include <cstdlib>
#include <cstring>
#include <fcntl.h>
#include <filesystem>
#include <termios.h>
#include <unistd.h>
#include <utility>

namespace inchpeg
{

Result<PseudoTerminal> PseudoTerminal::open(const std::string &link)
{
    const int descriptor = posix_openpt(O_RDWR | O_NOCTTY);
    if (descriptor < 0 || grantpt(descriptor) != 0 || unlockpt(descriptor) != 0) {
        const Error error{ErrorCode::Storage,
                          fmt::format("the system gives no pseudo-terminal: {}", std::strerror(errno)),
                          {}};
        if (descriptor >= 0)
            ::close(descriptor);
        return error;
    }
    termios settings{};
    if (tcgetattr(descriptor, &settings) == 0) {
        cfmakeraw(&settings); // a gauge does not echo, nor turn line ends
        tcsetattr(descriptor, TCSANOW, &settings);
    }
    PseudoTerminal terminal(descriptor, ptsname(descriptor), link);
    if (!link.empty()) {
        std::error_code failure;
        std::filesystem::remove(link, failure);
        std::filesystem::create_symlink(terminal.m_path, link, failure);
        if (failure)
            return Error{ErrorCode::Storage,
                         fmt::format("{}: the link cannot be made: {}", link, failure.message()),
                         {}};
    }
    return terminal;
}

PseudoTerminal::PseudoTerminal(int descriptor, std::string path, std::string link)
    : m_descriptor(descriptor), m_path(std::move(path)), m_link(std::move(link))
{
}

PseudoTerminal::PseudoTerminal(PseudoTerminal &&other) noexcept
    : m_descriptor(std::exchange(other.m_descriptor, -1)), m_path(std::move(other.m_path)),
      m_link(std::exchange(other.m_link, {}))
{
}

PseudoTerminal &PseudoTerminal::operator=(PseudoTerminal &&other) noexcept
{
    std::swap(m_descriptor, other.m_descriptor);
    std::swap(m_path, other.m_path);
    std::swap(m_link, other.m_link);
    return *this;
}

PseudoTerminal::~PseudoTerminal()
{
    pull();
}

void PseudoTerminal::send(std::string_view bytes)
{
    while (!bytes.empty() && m_descriptor >= 0) {
        const ssize_t written = ::write(m_descriptor, bytes.data(), bytes.size());
        if (written < 0 && errno != EINTR)
            return; // nobody listens any more
        if (written > 0)
            bytes.remove_prefix(static_cast<std::size_t>(written));
    }
}

void PseudoTerminal::pull()
{
    if (m_descriptor >= 0)
        ::close(std::exchange(m_descriptor, -1));
    if (!m_link.empty()) {
        std::error_code failure;
        std::filesystem::remove(m_link, failure);
        m_link.clear();
    }
}

} // namespace inchpeg
