// SPDX-License-Identifier: GPL-3.0-or-later
// window_soak FOLDER [SECONDS]: the bench records a rig that sends four channels a thousand times a second,
// for an hour unless said otherwise, in the real window. Told each minute and at the end: readings, memory,
// the share of a core that the program takes, frames a second, how late a reading is on the screen.
#include "app/bench/bench_view.h"
#include "app/session/preferences.h"
#include "app/theme/theme.h"
#include "app/window/main_window.h"
#include "core/model/study_edit.h"
#include "rig/pseudo_terminal.h"

#include <QApplication>
#include <QComboBox>
#include <QDir>
#include <QEventLoop>
#include <QFile>
#include <QPushButton>
#include <QStandardPaths>
#include <QTimer>

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <csignal>
#include <sys/prctl.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <thread>
#include <unistd.h>

namespace inchpeg::app
{

namespace
{

using Clock = std::chrono::steady_clock;
constexpr double kRate_Hz = 1000.0;
constexpr double kStep_s = 0.005; ///< a rig hands its lines over in small parcels

double secondsOf(const timeval &time)
{
    return static_cast<double>(time.tv_sec) + 1e-6 * static_cast<double>(time.tv_usec);
}

double processorSeconds()
{
    rusage usage{};
    ::getrusage(RUSAGE_SELF, &usage);
    return secondsOf(usage.ru_utime) + secondsOf(usage.ru_stime);
}

double residentMegabytes()
{
    QFile file(QStringLiteral("/proc/self/statm"));
    if (!file.open(QIODevice::ReadOnly))
        return 0.0;
    const double pages = file.readAll().split(' ').value(1).toDouble();
    return pages * static_cast<double>(::sysconf(_SC_PAGESIZE)) / 1e6;
}

/// In a process of its own, so that its work is not counted: the force says when it was sent, in
/// milliseconds.
[[noreturn]] void playRig(const std::string &link)
{
    ::prctl(PR_SET_PDEATHSIG, SIGKILL);
    Result<PseudoTerminal> terminal = PseudoTerminal::open(link);
    if (!terminal)
        ::_exit(1);
    while (terminal->receive(50).find("hello") == std::string::npos) {
    }
    terminal->send("= ok\nt[s];force[N];travel[mm];strain[%];temperature[°C]\n");
    const Clock::time_point begun = Clock::now();
    std::int64_t sent = 0;
    while (true) {
        std::this_thread::sleep_for(std::chrono::duration<double>(kStep_s));
        const double now_s = std::chrono::duration<double>(Clock::now() - begun).count();
        std::string lines;
        for (; static_cast<double>(sent) / kRate_Hz <= now_s; ++sent) {
            const double t_s = static_cast<double>(sent) / kRate_Hz;
            lines += fmt::format("{:.3f};{:.2f};{:.4f};{:.4f};23.1\n", t_s, 100.0 + 0.1 * t_s, 0.001 * t_s,
                                 0.002 * t_s);
        }
        terminal->send(lines);
    }
}

/// Counts the frames in which the live curve was painted.
class FrameCounter : public QObject
{
public:
    int frames = 0;
    bool eventFilter(QObject *, QEvent *event) override
    {
        frames += event->type() == QEvent::Paint ? 1 : 0;
        return false;
    }
};

void runFor(double seconds)
{
    QEventLoop loop;
    QTimer::singleShot(static_cast<int>(1e3 * seconds), &loop, &QEventLoop::quit);
    loop.exec();
}

int soak(const QString &folder, double seconds)
{
    const QString port = folder + QStringLiteral("/rig");
    const pid_t rig = ::fork();
    if (rig == 0)
        playRig(port.toStdString());
    int argc = 1;
    char name[] = "window_soak";
    char *argv[] = {name, nullptr};
    QApplication application(argc, argv);
    QCoreApplication::setOrganizationName(QStringLiteral("inchpeg-bench"));
    wearTheme(application, paperTheme());
    Preferences preferences;
    ProjectSession session(QStringLiteral("soak"), [] { return std::string("2026-06-01T10:00:00Z"); });
    FilePrompts prompts(preferences);
    const QString path = folder + QStringLiteral("/soak.inchpeg");
    if (!session.createProject(path) || !session.addStudy(QStringLiteral("Does it last?")))
        return 1;
    const Status made = session.edit(QStringLiteral("rail"), [&](Study &study) {
        return addCondition(study, {{}, {"a"}, {}, "glycol-modified polyester"}, session.ids());
    });
    if (!made)
        return 1;
    MainWindow window(session, preferences, prompts);
    window.resize(1280, 800);
    window.show();
    session.setLens(Lens::Bench);
    BenchPresenter &bench = window.bench();
    bench.confirmCautions();
    bench.connectTo(port);
    while (bench.phase() != BenchPhase::Ready)
        runFor(0.05);
    bench.startOrStop();
    runFor(2.0);
    FrameCounter counter;
    window.findChild<QWidget *>(QStringLiteral("livePlot"))->installEventFilter(&counter);
    const double startMemory = residentMegabytes();
    const double startProcessor = processorSeconds();
    const Clock::time_point begun = Clock::now();
    double passed = 0.0;
    double largest = startMemory;
    while (passed < seconds) {
        runFor(std::min(60.0, seconds - passed));
        passed = std::chrono::duration<double>(Clock::now() - begun).count();
        largest = std::max(largest, residentMegabytes());
        fmt::print("{:6.0f} s: {} readings, {:.1f} MB, {:.1f} % of a core, {:.1f} frames a second\n", passed,
                   bench.live().rows, residentMegabytes(),
                   100.0 * (processorSeconds() - startProcessor) / passed, counter.frames / passed);
        std::fflush(stdout);
    }
    fmt::print("memory: {:.1f} MB at the start, {:.1f} at most\n", startMemory, largest);
    const LiveState atEnd = bench.live(); // the next record counts anew
    bench.startOrStop();
    while (bench.phase() != BenchPhase::Done)
        runFor(0.1);
    fmt::print("{} readings in {:.1f} s, {} lines damaged, {} gaps\n", atEnd.rows, atEnd.seconds,
               atEnd.damaged, atEnd.gaps);
    ::kill(rig, SIGKILL);
    ::waitpid(rig, nullptr, 0);
    return 0;
}

} // namespace

} // namespace inchpeg::app

int main(int argc, char **argv)
{
    if (argc < 2)
        return 2;
    QStandardPaths::setTestModeEnabled(true);
    const QString folder = QString::fromLocal8Bit(argv[1]);
    QDir().mkpath(folder);
    return inchpeg::app::soak(folder, argc > 2 ? std::atof(argv[2]) : 3600.0);
}
