// SPDX-License-Identifier: GPL-3.0-or-later
// "bench listen" black-box: rigs that the test plays itself by the contract's least form and in full,
// garbled, pausing, restarting, pulled, killed; and the stand-ins that ship.
#include "cli/run_cli.h"
#include "rig/pseudo_terminal.h"
#include "support/night.h"
#include "support/random_lives.h"

#include <fmt/format.h>

#include <atomic>
#include <chrono>
#include <cmath>
#include <csignal>
#include <cstdlib>
#include <fcntl.h>
#include <functional>
#include <thread>
#include <unistd.h>

namespace inchpeg
{

namespace
{

using Clock = std::chrono::steady_clock;
using nlohmann::json;
using test::runCli;

void rest(double seconds)
{
    std::this_thread::sleep_for(std::chrono::duration<double>(seconds));
}

/// A program that runs beside the test, its standard output in a file.
class Beside
{
public:
    Beside(const std::string &program, const std::vector<std::string> &arguments, const std::string &out)
    {
        int pipes[2];
        EXPECT_EQ(::pipe(pipes), 0);
        m_pid = ::fork();
        if (m_pid == 0) {
            ::dup2(pipes[0], STDIN_FILENO);
            ::close(pipes[1]);
            const int file = ::open(out.c_str(), O_WRONLY | O_CREAT | O_TRUNC, 0644);
            ::dup2(file, STDOUT_FILENO);
            ::dup2(::open("/dev/null", O_WRONLY), STDERR_FILENO);
            std::vector<char *> words{const_cast<char *>(program.c_str())};
            for (const std::string &argument : arguments)
                words.push_back(const_cast<char *>(argument.c_str()));
            words.push_back(nullptr);
            ::execv(program.c_str(), words.data());
            ::_exit(127);
        }
        ::close(pipes[0]);
        m_input = pipes[1];
    }
    ~Beside()
    {
        kill();
        ::close(m_input);
    }
    Beside(const Beside &) = delete;
    Beside &operator=(const Beside &) = delete;

    void say(const std::string &line) const
    {
        EXPECT_GT(::write(m_input, (line + "\n").c_str(), line.size() + 1), 0);
    }
    void signal(int number) const { ::kill(m_pid, number); }
    int finish()
    {
        int state = 0;
        if (m_pid > 0)
            ::waitpid(m_pid, &state, 0);
        m_pid = -1;
        return WIFEXITED(state) ? WEXITSTATUS(state) : -1;
    }
    void kill()
    {
        if (m_pid <= 0)
            return;
        ::kill(m_pid, SIGKILL);
        finish();
    }

private:
    pid_t m_pid = -1;
    int m_input = -1;
};

class BenchListen : public testing::Test
{
protected:
    test::TemporaryFolder m_folder;
    std::string m_port = m_folder.path("port");
    std::string m_file = m_folder.path("record.txt");
    PseudoTerminal m_terminal = *PseudoTerminal::open(m_port);

    std::unique_ptr<Beside> listening(std::vector<std::string> more = {})
    {
        std::vector<std::string> arguments{"bench", "listen", "--port", m_port, "--to", m_file};
        arguments.insert(arguments.end(), more.begin(), more.end());
        auto cli = std::make_unique<Beside>(INCHPEG_CLI, arguments, m_folder.path("out"));
        EXPECT_TRUE(isHeard()) << "it did not open the port";
        return cli;
    }
    bool isHeard()
    {
        const auto until = Clock::now() + std::chrono::seconds(20);
        while (Clock::now() < until) {
            if (test::holds(m_terminal.receive(5), "hello"))
                break;
        }
        rest(0.08); // past the moment in which a torn number would be thrown away
        return Clock::now() < until;
    }
    json result() const { return json::parse(test::bytesOf(m_folder.path("out")), nullptr, false); }
    std::string recorded() const { return test::bytesOf(m_file); }
};

int kills()
{
    const char *text = std::getenv("INCHPEG_KILLS");
    return text != nullptr ? std::atoi(text) : 12;
}

} // namespace

TEST_F(BenchListen, TheLeastRigAndWhatIsRead)
{
    const auto cli = listening({"--rows", "20", "--unit", "lbf"});
    for (int i = 0; i < 25; ++i) {
        m_terminal.send(fmt::format("{:.1f}\n", 0.5 * i));
        rest(0.005);
    }
    EXPECT_EQ(cli->finish(), 0);
    const json told = result();
    EXPECT_EQ(told["rows"], 20);
    EXPECT_EQ(told["damaged"], 0);
    EXPECT_EQ(told["columns"][1]["unit"], "lbf");
    EXPECT_EQ(told["file"], m_file);
    const auto sniffed = runCli({"import", "sniff", "--data", m_file}).json();
    EXPECT_EQ(sniffed["rows"], 20);
    EXPECT_EQ(sniffed["columns"][1]["unit"], "lbf");
    const auto reduced = runCli({"reduce", "friction", "--data", m_file, "--set", "mass=2"});
    EXPECT_EQ(reduced.status, 0) << reduced.err;
}

TEST_F(BenchListen, AFullRigGarbledPausingAndRestarted)
{
    const auto cli = listening({"--seconds", "2.2"});
    m_terminal.send("# range = 2 kN\r\nt[s];force[N];travel[mm]\r\n");
    const auto row = [&](double t) {
        m_terminal.send(fmt::format("{:.3f};{:.2f};{:.3f}\r\n", t, 100 * t, t));
    };
    for (int i = 0; i < 20; ++i) {
        row(0.01 * i);
        rest(0.005);
    }
    m_terminal.send("0.2;1\r\n\x01\x02garbage;;\r\n! overload\r\n0.2;20;0.2*00\r\n! clear\r\n");
    rest(0.7);
    for (int i = 90; i < 100; ++i)
        row(0.01 * i);
    m_terminal.send("t[s];force[N];travel[mm]\r\n"); // restarted
    for (int i = 0; i < 10; ++i) {
        row(0.01 * i);
        rest(0.005);
    }
    EXPECT_EQ(cli->finish(), 0);
    const json told = result();
    EXPECT_EQ(told["rows"], 40);
    EXPECT_EQ(told["damaged"], 3);
    ASSERT_EQ(told["gaps"].size(), 2U) << told.dump();
    EXPECT_NEAR(told["gaps"][0]["from_s"].get<double>(), 0.19, 1e-9);
    EXPECT_NEAR(told["gaps"][0]["to_s"].get<double>(), 0.90, 1e-9);
    ASSERT_EQ(told["faults"].size(), 2U);
    EXPECT_EQ(told["faults"][0]["text"], "overload");
    EXPECT_EQ(runCli({"import", "sniff", "--data", m_file}).json()["rows"], 40);
}

TEST_F(BenchListen, BeginsAtALoadAndEndsAtTheBreak)
{
    const auto cli = listening({"--start-at", "10", "--stop-after-drop", "0.5"});
    m_terminal.send("t[s];force[N]\n");
    const double forces[] = {0, 1, 2, 12, 40, 90, 120, 118, 30, 0, 0};
    for (std::size_t i = 0; i < std::size(forces); ++i)
        m_terminal.send(fmt::format("{};{}\n", 0.1 * static_cast<double>(i), forces[i]));
    EXPECT_EQ(cli->finish(), 0);
    EXPECT_EQ(result()["rows"], 6);
}

TEST_F(BenchListen, ACableThatComesBackLeavesAGapAndOneThatDoesNotEndsIt)
{
    const auto cli = listening({"--patience", "1"});
    const int pulls = kills();
    int sent = 0;
    const auto send = [&] {
        for (int i = 0; i < 5; ++i, ++sent) {
            m_terminal.send(fmt::format("{}\n", sent));
            rest(0.01);
        }
    };
    for (int pull = 0; pull < pulls; ++pull) {
        send();
        rest(0.05);
        m_terminal.pull();
        rest(0.05);
        m_terminal = *PseudoTerminal::open(m_port);
        ASSERT_TRUE(isHeard()) << "it came back, pull " << pull;
    }
    send();
    rest(0.05);
    m_terminal.pull();
    EXPECT_EQ(cli->finish(), 1) << "it did not come back";
    const json told = result();
    EXPECT_EQ(told["rows"], sent);
    EXPECT_EQ(told["gaps"].size(), static_cast<std::size_t>(pulls));
    EXPECT_TRUE(test::holds(recorded(), fmt::format(";{}\n", sent - 1)));
}

TEST_F(BenchListen, AKilledOneHasLostNothingOlderThanAQuarterOfASecond)
{
    test::RandomLives lives(9, 0.8);
    for (int kill = 0; kill < kills(); ++kill) {
        ::unlink(m_file.c_str());
        const auto cli = listening();
        m_terminal.send("t[s];force[N]\n");
        const auto begun = Clock::now();
        const double life_s = lives.next_s() + 0.3;
        std::vector<double> sentAt;
        for (double t = 0.0; t < life_s;) {
            m_terminal.send(fmt::format("{:.4f};{}\n", t, sentAt.size()));
            sentAt.push_back(t);
            rest(0.001);
            t = std::chrono::duration<double>(Clock::now() - begun).count();
        }
        cli->kill();
        const std::string kept = recorded();
        ASSERT_FALSE(kept.empty());
        const std::size_t whole = kept.rfind('\n');
        const std::size_t last = kept.rfind('\n', whole - 1);
        const double lastTime = std::atof(kept.c_str() + last + 1);
        EXPECT_GT(lastTime, sentAt.back() - (test::isNight() ? 0.25 : 10.0)) << "kill " << kill;
        EXPECT_EQ(kept.size(), whole + 1) << "no half row";
        (void)runCli({"import", "sniff", "--data", m_file}).json();
    }
}

TEST_F(BenchListen, AFullDiskKeepsWhatCameBefore)
{
    // The shell's limit of a file's size (in blocks of 512 or 1024 bytes) stands for a disk that is full.
    const std::string command =
        fmt::format("trap '' XFSZ; ulimit -f 2; exec {} bench listen --port {} --to {} > {} 2> {}",
                    INCHPEG_CLI, m_port, m_file, m_folder.path("out"), m_folder.path("err"));
    Beside shell("/bin/sh", {"-c", command}, m_folder.path("shell"));
    ASSERT_TRUE(isHeard());
    for (int i = 0; i < 400; ++i) {
        m_terminal.send(fmt::format("{}\n", i));
        rest(0.001);
    }
    EXPECT_EQ(shell.finish(), 1);
    EXPECT_TRUE(test::holds(test::bytesOf(m_folder.path("err")), "cannot be written"));
    EXPECT_GE(recorded().size(), 1024U);
    EXPECT_GT(result()["rows"].get<int>(), 10);
}

TEST_F(BenchListen, ASignalEndsItInOrder)
{
    const auto cli = listening();
    for (int i = 0; i < 20; ++i)
        m_terminal.send(fmt::format("{}\n", i));
    rest(0.2);
    cli->signal(SIGTERM);
    EXPECT_EQ(cli->finish(), 0);
    EXPECT_EQ(result()["rows"], 20);
}

TEST_F(BenchListen, RefusesWhatCannotBeListenedTo)
{
    const auto refused = [&](std::vector<std::string> more, const char *says) {
        more.insert(more.begin(), {"bench", "listen"});
        test::expectRefused(runCli(more), says);
    };
    refused({"--port", m_folder.path("none"), "--to", m_file}, "cannot be opened");
    refused({"--port", m_folder.write("file", "1\n2\n"), "--to", m_file}, "cannot be opened");
    refused({"--port", m_port, "--to", m_folder.path("no/such/folder")}, "cannot be written");
    refused({"--port", m_port, "--to", m_folder.write("full", "1\n")}, "file of its own");
    refused({"--port", m_port, "--to", m_file, "--unit", "kg/h"}, "no unit of force");
    refused({"--port", m_port, "--to", m_file, "--quantity", "colour"}, "--quantity");
    refused({"--port", m_port, "--to", m_file, "--rows", "-3"}, "rows");
    refused({"--port", m_port}, "--to");
}

TEST_F(BenchListen, EachStandInIsHeard)
{
    for (const char *kind : {"frame", "hand-gauge", "pendulum", "torque", "oven", "dial", "weights"}) {
        const std::string link = m_folder.path(std::string("rig-") + kind);
        const Beside rig(INCHPEG_RIG, {kind, "--link", link, "--speedup", "20"}, m_folder.path("path"));
        for (int i = 0; i < 200 && ::access(link.c_str(), F_OK) != 0; ++i)
            rest(0.02);
        rig.say("start");
        const std::string file = m_folder.path(std::string(kind) + ".txt");
        const auto outcome = runCli({"bench", "listen", "--port", link, "--rows", "60", "--to", file});
        EXPECT_EQ(outcome.status, 0) << kind << outcome.err;
        const json told = outcome.json();
        EXPECT_EQ(told["rows"], 60) << kind;
        EXPECT_EQ(told["damaged"], 0) << kind;
        EXPECT_EQ(runCli({"import", "sniff", "--data", file}).json()["rows"], 60) << kind;
    }
}

TEST_F(BenchListen, APieceOnTheFrameIsReadAsWell)
{
    const std::string link = m_folder.path("frame");
    const Beside rig(
        INCHPEG_RIG,
        {"frame", "--link", link, "--realtime", "no", "--strength", "1500", "--scatter", "0.001"},
        m_folder.path("path"));
    for (int i = 0; i < 200 && ::access(link.c_str(), F_OK) != 0; ++i)
        rest(0.02);
    // Faster than real time the piece is broken in a moment: it is loaded only once somebody listens.
    Beside cli(
        INCHPEG_CLI,
        {"bench", "listen", "--port", link, "--start-at", "5", "--stop-after-drop", "0.6", "--to", m_file},
        m_folder.path("out"));
    for (int i = 0; i < 1000 && ::access(m_file.c_str(), F_OK) != 0; ++i)
        rest(0.02);
    rest(0.3); // past the moment in which a torn number would be thrown away
    rig.say("start");
    ASSERT_EQ(cli.finish(), 0);
    const auto reduced = runCli({"reduce", "tensile", "--data", m_file, "--set", "width=10", "--set",
                                 "thickness=4", "--set", "grip_distance=100"});
    ASSERT_EQ(reduced.status, 0) << reduced.err;
    double peak_N = 0.0;
    const json all = reduced.json();
    for (const json &property : all["properties"]) {
        if (property["name"] == "peak_force")
            peak_N = property["value"].get<double>();
    }
    EXPECT_NEAR(peak_N, 1500.0, 30.0);
}

} // namespace inchpeg
