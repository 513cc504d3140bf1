// SPDX-License-Identifier: GPL-3.0-or-later
#include "rig/play_rig.h"

#include "core/units/number.h"
#include "rig/pseudo_terminal.h"

#include <chrono>
#include <csignal>
#include <iostream>
#include <poll.h>
#include <sys/prctl.h>
#include <unistd.h>

namespace inchpeg
{

namespace
{

using Clock = std::chrono::steady_clock;

constexpr int kTick_ms = 5;
constexpr double kFastTick_s = 0.25; ///< of the rig's time at once, where it is not real

/// Lines on standard input as they come; its end is no command.
class CommandLines
{
public:
    std::string next()
    {
        pollfd state{STDIN_FILENO, POLLIN, 0};
        while (!m_hasEnded && ::poll(&state, 1, 0) > 0) {
            char bytes[256];
            const ssize_t count = ::read(STDIN_FILENO, bytes, sizeof bytes);
            if (count <= 0) {
                m_hasEnded = true;
                break;
            }
            m_pending.append(bytes, static_cast<std::size_t>(count));
        }
        const std::size_t end = m_pending.find('\n');
        if (end == std::string::npos)
            return {};
        std::string line = m_pending.substr(0, end);
        m_pending.erase(0, end + 1);
        return line;
    }

private:
    std::string m_pending;
    bool m_hasEnded = false;
};

class Player
{
public:
    Player(sim::VirtualRig rig, const PlayOptions &options, PseudoTerminal terminal)
        : m_rig(std::move(rig)), m_options(options), m_terminal(std::move(terminal))
    {
    }

    Status play()
    {
        while (true) {
            hear(m_terminal.receive(kTick_ms));
            const Result<bool> goesOn = obey(m_commands.next());
            if (!goesOn)
                return goesOn.error();
            if (!*goesOn)
                return ok();
            goOn();
        }
    }

private:
    /// Commands that the program sends.
    void hear(const std::string &bytes)
    {
        m_heard += bytes;
        for (std::size_t end = m_heard.find('\n'); end != std::string::npos; end = m_heard.find('\n')) {
            m_terminal.send(m_rig.obey(std::string_view(m_heard).substr(0, end)));
            m_heard.erase(0, end + 1);
        }
    }

    /// What a person does to it; false for the end.
    Result<bool> obey(const std::string &command)
    {
        if (command == "quit")
            return false;
        if (command == "pull") {
            m_terminal.send("12.");
            m_terminal.pull();
        } else if (command == "plug") {
            Result<PseudoTerminal> again = PseudoTerminal::open(m_options.link);
            if (!again)
                return again.error();
            m_terminal = std::move(*again);
            std::cout << m_terminal.path() << std::endl;
        } else if (command == "garble") {
            m_garbles = true;
        } else if (command.starts_with("silence")) {
            const std::optional<double> seconds =
                parseTypedNumber(trimmed(std::string_view(command).substr(7)));
            m_silentUntil =
                Clock::now() + std::chrono::milliseconds(static_cast<int>(1000.0 * seconds.value_or(1.0)));
        } else if (command == "start" || command == "release" || command == "return") {
            m_rig.obey(command);
        } else if (!command.empty()) {
            std::cerr
                << "inchpeg-rig: \"" << command
                << "\" is no command; start, release, return, pull, plug, garble, silence S and quit are\n";
        }
        return true;
    }

    void goOn()
    {
        if (m_options.isRealTime) {
            const std::chrono::duration<double> since = Clock::now() - m_begun;
            m_now_s = since.count() * m_options.speedup;
        } else if (m_terminal.isHeard()) {
            m_now_s += kFastTick_s;
        }
        std::string lines = m_rig.until(m_now_s);
        if (Clock::now() < m_silentUntil || !m_terminal.isHeard())
            return; // time goes on, and nobody hears it
        if (m_garbles && !lines.empty()) {
            lines[lines.size() / 2] = '#';
            lines.insert(lines.size() / 3, "?;x");
            m_garbles = false;
        }
        m_terminal.send(lines);
    }

    sim::VirtualRig m_rig;
    const PlayOptions &m_options;
    PseudoTerminal m_terminal;
    CommandLines m_commands;
    std::string m_heard;
    double m_now_s = 0.0;
    bool m_garbles = false;
    Clock::time_point m_begun = Clock::now();
    Clock::time_point m_silentUntil;
};

} // namespace

Status playRig(sim::VirtualRig rig, const PlayOptions &options)
{
    ::prctl(PR_SET_PDEATHSIG, SIGTERM); // no rig outlives who started it
    Result<PseudoTerminal> terminal = PseudoTerminal::open(options.link);
    if (!terminal)
        return terminal.error();
    std::cout << terminal->path() << std::endl;
    return Player(std::move(rig), options, std::move(*terminal)).play();
}

} // namespace inchpeg
