// SPDX-License-Identifier: GPL-3.0-or-later
#include "rig/pseudo_terminal.h"

#include <fmt/format.h>

#include <cerrno>
#include <cstdlib>
#include <cstring>
#include <fcntl.h>
#include <filesystem>
#include <poll.h>
#include <termios.h>
#include <unistd.h>
#include <utility>

namespace inchpeg
{

Result<PseudoTerminal> PseudoTerminal::open(const std::string &link)
{
    const int descriptor = posix_openpt(O_RDWR | O_NOCTTY | O_CLOEXEC);
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
    // Once opened and closed, the far end can tell whether anybody is there.
    if (const int near = ::open(terminal.m_path.c_str(), O_RDWR | O_NOCTTY); near >= 0)
        ::close(near);
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

bool PseudoTerminal::isHeard() const
{
    pollfd state{m_descriptor, POLLOUT, 0};
    return m_descriptor >= 0 && ::poll(&state, 1, 0) >= 0 && (state.revents & POLLHUP) == 0;
}

std::string PseudoTerminal::receive(int wait_ms) const
{
    pollfd state{m_descriptor, POLLIN, 0};
    if (m_descriptor < 0 || (::poll(&state, 1, 0) == 0 && ::poll(&state, 1, wait_ms) <= 0)) {
        if (m_descriptor < 0)
            ::poll(nullptr, 0, wait_ms);
        return {};
    }
    if ((state.revents & POLLIN) == 0) {
        ::poll(nullptr, 0, wait_ms); // nobody is there
        return {};
    }
    char bytes[512];
    const ssize_t count = ::read(m_descriptor, bytes, sizeof bytes);
    return count > 0 ? std::string(bytes, static_cast<std::size_t>(count)) : std::string();
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
