// SPDX-License-Identifier: GPL-3.0-or-later
// What docs/performance.md tells of the window:
//   window_bench empty STARTED_NS           time to the first paint of a bare window
//   window_bench project STARTED_NS FILE    the same of the program with a project, and until all is read
//   window_bench make FILE                  makes a project of 1,000 records of 50,000 samples, and reads it
//   window_bench zoom                       frames of panning and zooming over 10,000,000 samples
//   window_bench marker FOLDER              from a moved marker to the painted comparison of 300 pieces
//   window_bench many FOLDER                the same 200 times in a study of 5,000 pieces, 30,000 in the
//   project window_bench grow FOLDER                a typed mass, and the way to each lens, with 100 to
//   10,000 pieces in a study window_bench typing FILE                from a typed mass to the painted log, in
//   the first study of a project
// STARTED_NS: `date +%s%N` just before the start. bench/window_times runs them all.
#include "app/rack/rack_view.h"
#include "app/read/curve_plottable.h"
#include "app/session/preferences.h"
#include "app/session/project_session.h"
#include "app/theme/theme.h"
#include "app/window/main_window.h"
#include "core/logbook/measuring.h"
#include "core/model/study_edit.h"
#include "sim/random.h"
#include "sim/record_writer.h"
#include "sim/virtual_specimen.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QFile>
#include <QStandardPaths>
#include <QTimer>

#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <chrono>
#include <fstream>
#include <thread>

namespace inchpeg::app
{

namespace
{

double msSince(qint64 started_ns)
{
    const auto now = std::chrono::system_clock::now().time_since_epoch();
    return static_cast<double>(std::chrono::duration_cast<std::chrono::nanoseconds>(now).count() -
                               started_ns) /
           1e6;
}

/// Runs the event loop until the condition holds.
template <typename Condition>
void waitFor(Condition condition)
{
    while (!condition())
        QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents, 5);
}

void letSettle(qint64 while_ms)
{
    QElapsedTimer settled;
    settled.start();
    waitFor([&] { return settled.elapsed() > while_ms; });
}

class PaintWatch : public QObject
{
public:
    using QObject::QObject;
    bool painted = false;
    bool eventFilter(QObject *, QEvent *event) override
    {
        painted = painted || event->type() == QEvent::Paint;
        return false;
    }
};

std::string memoryLines()
{
    std::ifstream status("/proc/self/status");
    std::string out;
    for (std::string line; std::getline(status, line);) {
        if (line.starts_with("VmRSS") || line.starts_with("VmHWM"))
            out += line + "  ";
    }
    return out;
}

/// The program around a session, as main() builds it.
struct Program {
    Preferences preferences;
    ProjectSession session{QStringLiteral("bench"), [] { return std::string("2026-01-01T00:00:00Z"); }};
    FilePrompts prompts{preferences};
    std::unique_ptr<MainWindow> window = std::make_unique<MainWindow>(session, preferences, prompts);
    void waitUntilRead()
    {
        waitFor([this] { return !session.isReading(); });
    }
};

void showEmpty(qint64 started_ns)
{
    QWidget window;
    PaintWatch watch;
    window.installEventFilter(&watch);
    window.resize(1280, 800);
    window.show();
    waitFor([&] { return watch.painted; });
    fmt::print("empty window: first paint after {:.0f} ms\n", msSince(started_ns));
}

void showProject(qint64 started_ns, const QString &path)
{
    Program program;
    PaintWatch watch;
    program.window->rack().viewport()->installEventFilter(&watch);
    program.window->show();
    if (const Status opened = program.session.openProject(path); !opened)
        qFatal("%s", opened.error().message.c_str());
    waitFor([&] { return watch.painted; });
    fmt::print("project: first paint after {:.0f} ms\n", msSince(started_ns));
    program.waitUntilRead();
    QCoreApplication::processEvents();
    fmt::print("project: {} of {} pieces shown as read after {:.0f} ms\n", program.session.readings().size(),
               program.session.study()->pieces.size(), msSince(started_ns));
    program.session.setLens(Lens::Read);
    QElapsedTimer timer;
    timer.start();
    QCoreApplication::processEvents();
    program.window->grab();
    fmt::print("project: all curves drawn in the Read lens in {} ms more; {}\n", timer.elapsed(),
               memoryLines());
}

void makeLarge(const QString &path)
{
    constexpr int kRails = 20;
    constexpr int kPieces = 50;
    constexpr int kSamples = 50000;
    Program program;
    QFile::remove(path);
    if (!program.session.createProject(path) ||
        !program.session.addStudy(QStringLiteral("A thousand curves?")))
        qFatal("cannot make %s", qPrintable(path));
    sim::Random random(3);
    std::vector<RawFileId> raw;
    for (int rail = 0; rail < kRails; ++rail) {
        std::string text = "time_s,force_N,extension_mm\n";
        for (int i = 0; i < kSamples; ++i) {
            const double x = static_cast<double>(i) / kSamples;
            text += fmt::format("{:.3f},{:.3f},{:.5f}\n", 0.001 * i,
                                (1400.0 + 10.0 * rail) * x * (2.0 - x) + 0.1 * random.normal(), 2.5 * x);
        }
        raw.push_back(program.session.project().addRawFile(std::to_string(rail), text)->id);
    }
    const Status filled = program.session.edit(QStringLiteral("fill"), [&](Study &study) -> Status {
        firstTest(study).piecesPerCondition = kPieces;
        firstTest(study).setup.settings.numbers["gauge_length"] = 50;
        for (int rail = 0; rail < kRails; ++rail) {
            if (const Status added =
                    addCondition(study, {{}, {std::to_string(200 + rail)}, {}, {}}, program.session.ids());
                !added)
                return added;
        }
        for (std::size_t i = 0; i < study.pieces.size(); ++i) {
            study.pieces[i].section = PlainArea{squareMillimetres(20.0 + 0.002 * static_cast<double>(i))};
            study.pieces[i].recording = Recording{raw[i % raw.size()], {}};
        }
        return ok();
    });
    if (!filled)
        qFatal("%s", filled.error().message.c_str());
    QElapsedTimer timer;
    timer.start();
    program.waitUntilRead();
    fmt::print("1,000 records of 50,000 samples read in {:.1f} s\n",
               static_cast<double>(timer.elapsed()) / 1e3);
}

void printFrames(const char *what, std::vector<double> &frames_ms)
{
    const auto longest = std::max_element(frames_ms.begin(), frames_ms.end()) - frames_ms.begin();
    const double longest_ms = frames_ms[static_cast<std::size_t>(longest)];
    std::sort(frames_ms.begin(), frames_ms.end());
    fmt::print("{}: median {:.1f} ms, longest {:.1f} ms a frame (number {} of {})\n", what,
               frames_ms[frames_ms.size() / 2], longest_ms, longest + 1, frames_ms.size());
}

void panAndZoom()
{
    constexpr std::size_t kSamples = 10'000'000;
    sim::Random random(4);
    std::vector<double> x(kSamples);
    std::vector<double> y(kSamples);
    for (std::size_t i = 0; i < kSamples; ++i) {
        x[i] = static_cast<double>(i) / kSamples;
        y[i] = x[i] * (2.0 - x[i]) + 0.002 * random.normal();
    }
    QElapsedTimer timer;
    timer.start();
    const auto shape = std::make_shared<const CurveShape>(std::move(x), std::move(y), kSamples - 1);
    fmt::print("pyramid of 10,000,000 samples built in {} ms\n", timer.elapsed());
    QCustomPlot plot;
    plot.resize(800, 620);
    auto *curve = new CurvePlottable(plot.xAxis, plot.yAxis);
    curve->setShape(shape);
    curve->setPen(QPen(Qt::black, 2.4)); // as the chosen piece is drawn
    plot.rescaleAxes();
    plot.replot();
    std::vector<double> zooming;
    std::vector<double> panning;
    for (int i = 0; i < 60; ++i) {
        plot.xAxis->scaleRange(0.85, 0.4);
        timer.start();
        plot.replot(QCustomPlot::rpImmediateRefresh);
        zooming.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
    }
    plot.xAxis->setRange(0.1, 0.4);
    for (int i = 0; i < 60; ++i) {
        plot.xAxis->moveRange(0.005);
        timer.start();
        plot.replot(QCustomPlot::rpImmediateRefresh);
        panning.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
    }
    printFrames("zooming over 10,000,000 samples", zooming);
    printFrames("panning over 10,000,000 samples", panning);
}

/// The longest that a key press would have waited: another thread posts an event as soon as the one before is
/// answered.
class LongestStall : public QObject
{
public:
    LongestStall() { ask(); }
    ~LongestStall() override
    {
        m_asking.request_stop();
        m_asking.join();
    }
    double take() { return std::exchange(m_longest_ms, 0.0); }

    bool event(QEvent *event) override
    {
        if (event->type() != QEvent::User)
            return QObject::event(event);
        m_longest_ms = std::max(m_longest_ms, static_cast<double>(m_since.nsecsElapsed()) / 1e6);
        m_isAsked = false;
        return true;
    }

private:
    void ask()
    {
        m_asking = std::jthread([this](const std::stop_token &stop) {
            while (!stop.stop_requested()) {
                std::this_thread::sleep_for(std::chrono::microseconds(500));
                if (m_isAsked)
                    continue;
                m_isAsked = true;
                m_since.start();
                QCoreApplication::postEvent(this, new QEvent(QEvent::User));
            }
        });
    }

    std::atomic<bool> m_isAsked = false;
    QElapsedTimer m_since; ///< written before the event is posted, read when it comes
    double m_longest_ms = 0.0;
    std::jthread m_asking;
};

/// Another modulus range: all records of the study are read again while the window goes on.
void changeRules(Program &program)
{
    for (const Lens lens : {Lens::Compare, Lens::Read}) {
        program.session.setLens(lens);
        program.waitUntilRead();
        letSettle(500); // pegs slide for a while
        std::vector<double> all;
        std::vector<double> stalls;
        LongestStall stall;
        QElapsedTimer timer;
        for (int i = 0; i < 10; ++i) {
            letSettle(100); // what the change before left to draw is not this one's
            stall.take();
            timer.start();
            const Status changed = program.session.edit(QStringLiteral("rule"), [&](Study &study) -> Status {
                firstTest(study).setup.settings.numbers["modulus_to"] =
                    0.0025 + 1e-5 * (i + 1) + (lens == Lens::Read ? 5e-6 : 0.0);
                return ok();
            });
            if (!changed)
                qFatal("%s", changed.error().message.c_str());
            waitFor([&] { return !program.session.isReading(); });
            QCoreApplication::processEvents();
            all.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
            letSettle(100);
            stalls.push_back(stall.take());
        }
        const char *where = lens == Lens::Read ? "Read" : "Compare";
        printFrames(
            fmt::format("rule changed, {} records read again ({})", program.session.readings().size(), where)
                .c_str(),
            all);
        printFrames(fmt::format("longest stall meanwhile ({})", where).c_str(), stalls);
    }
}

void moveMarker(const QString &folder)
{
    Program program;
    program.window->resize(1280, 800);
    program.window->show();
    const QString path = folder + QStringLiteral("/marker.inchpeg");
    QFile::remove(path);
    if (!program.session.createProject(path) || !program.session.addStudy(QStringLiteral("Three hundred?")))
        qFatal("cannot make %s", qPrintable(path));
    const Status filled = program.session.edit(QStringLiteral("fill"), [&](Study &study) -> Status {
        firstTest(study).piecesPerCondition = 6;
        firstTest(study).setup.settings.numbers["gauge_length"] = 50;
        for (int rail = 0; rail < 50; ++rail) {
            if (const Status added =
                    addCondition(study, {{}, {std::to_string(200 + rail)}, {}, {}}, program.session.ids());
                !added)
                return added;
        }
        for (std::size_t i = 0; i < study.pieces.size(); ++i) {
            const std::string bytes = sim::recordBytes(
                sim::pull(sim::lowHeatPolyester(), {}, squareMillimetres(20), {.forceNoise_N = 0.5}, i + 1),
                sim::Dialect::CommaUtf8, "");
            study.pieces[i].section = PlainArea{squareMillimetres(20)};
            study.pieces[i].recording = Recording{program.session.project().addRawFile("x", bytes)->id, {}};
        }
        return ok();
    });
    if (!filled)
        qFatal("%s", filled.error().message.c_str());
    program.waitUntilRead();
    program.session.setLens(Lens::Compare);
    program.window->rack().finishSliding();
    QCoreApplication::processEvents();
    std::vector<double> updates;
    QElapsedTimer timer;
    for (int i = 0; i < 20; ++i) {
        timer.start();
        const Status placed = program.session.edit(QStringLiteral("marker"), [&](Study &study) {
            return placeMarker(study.pieces[static_cast<std::size_t>(7 * i)], Method::Tension, "strength",
                               {40.0 + i, "bench", "bench", "now"});
        });
        if (!placed)
            qFatal("%s", placed.error().message.c_str());
        program.waitUntilRead();
        program.window->rack().viewport()->repaint();
        updates.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
    }
    printFrames("marker moved, saved, read, 300 pieces compared and painted", updates);
    changeRules(program);
}

/// Types a mass into each of the first pieces, one after the other.
void timeTypedMasses(Program &program, std::size_t times)
{
    const Study before = *program.session.study();
    std::vector<double> updates;
    std::vector<double> stalls;
    LongestStall stall;
    QElapsedTimer timer;
    for (std::size_t i = 0; i < times; ++i) {
        const Piece &piece = before.pieces[i % before.pieces.size()];
        stall.take();
        timer.start();
        const Status typed = program.session.edit(QStringLiteral("mass"), [&](Study &study) {
            return setLoggedValue(study, *findPiece(study, piece.id), {LogField::Mass, 0},
                                  piece.log.mass_g.value_or(2.0) + 0.001 * static_cast<double>(i + 1));
        });
        if (!typed)
            qFatal("%s", typed.error().message.c_str());
        updates.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
        timer.restart();
        while (timer.elapsed() < 150)
            QCoreApplication::processEvents();
        stalls.push_back(stall.take());
    }
    printFrames("typed mass, until the window is free again", updates);
    printFrames("longest stall after it, until all is up to date", stalls);
}

void showLog(Program &program)
{
    program.waitUntilRead();
    program.session.setLens(Lens::Log);
    program.window->rack().finishSliding();
    QCoreApplication::processEvents();
}

void typeMasses(const QString &path)
{
    Program program;
    program.window->resize(1280, 800);
    program.window->show();
    if (const Status opened = program.session.openProject(path); !opened)
        qFatal("%s", opened.error().message.c_str());
    if (const Status shown = program.session.selectStudy(program.session.studies().front().id); !shown)
        qFatal("%s", shown.error().message.c_str());
    showLog(program);
    timeTypedMasses(program, 30);
}

/// Memory of this process that is its own, in MB.
double ownMemory_MB()
{
    QFile file(QStringLiteral("/proc/self/statm"));
    if (!file.open(QIODevice::ReadOnly))
        return 0.0;
    return file.readAll().split(' ').at(1).toDouble() * 4096.0 / 1e6;
}

/// A project of as many studies, of as many rails, of as many pieces each.
struct Many {
    int studies = 1;
    int rails = 1;
    int perRail = 1;
    std::size_t edits = 1; ///< of the last study
};

void editMany(const QString &folder, const Many &many)
{
    Program program;
    program.window->resize(1280, 800);
    program.window->show();
    const QString path = folder + QStringLiteral("/many.inchpeg");
    QFile::remove(path);
    if (!program.session.createProject(path))
        qFatal("cannot make %s", qPrintable(path));
    for (int i = 0; i < many.studies; ++i) {
        if (!program.session.addStudy(QStringLiteral("Many pieces?")))
            qFatal("cannot add a study");
        const Status filled = program.session.edit(QStringLiteral("fill"), [&](Study &study) -> Status {
            firstTest(study).piecesPerCondition = many.perRail;
            for (int rail = 0; rail < many.rails; ++rail) {
                if (const Status added = addCondition(study, {{}, {std::to_string(200 + rail)}, {}, {}},
                                                      program.session.ids());
                    !added)
                    return added;
            }
            return ok();
        });
        if (!filled)
            qFatal("%s", filled.error().message.c_str());
    }
    showLog(program);
    const double before_MB = ownMemory_MB();
    timeTypedMasses(program, many.edits);
    fmt::print("{} pieces in the study; {} steps to take back hold {:.0f} MB\n",
               program.session.study()->pieces.size(), many.edits, ownMemory_MB() - before_MB);
    std::vector<double> stalls;
    LongestStall stall;
    for (const Lens lens : {Lens::Read, Lens::Compare, Lens::Plan, Lens::Log}) {
        letSettle(300);
        stall.take();
        program.session.setLens(lens);
        program.window->rack().finishSliding();
        letSettle(1500);
        stalls.push_back(stall.take());
    }
    fmt::print(
        "longest stall on the way to Read {:.0f} ms, Compare {:.0f} ms, Plan {:.0f} ms, Log {:.0f} ms\n",
        stalls[0], stalls[1], stalls[2], stalls[3]);
}

} // namespace

} // namespace inchpeg::app

int main(int argc, char **argv)
{
    using namespace inchpeg::app;
    QStandardPaths::setTestModeEnabled(true);
    QApplication application(argc, argv);
    QCoreApplication::setOrganizationName(QStringLiteral("inchpeg-bench"));
    const QStringList arguments = QCoreApplication::arguments();
    const QString mode = arguments.value(1);
    if (mode == QStringLiteral("empty")) {
        showEmpty(arguments.value(2).toLongLong());
        return 0;
    }
    wearTheme(application, paperTheme());
    if (mode == QStringLiteral("project"))
        showProject(arguments.value(2).toLongLong(), arguments.value(3));
    else if (mode == QStringLiteral("make"))
        makeLarge(arguments.value(2));
    else if (mode == QStringLiteral("zoom"))
        panAndZoom();
    else if (mode == QStringLiteral("marker"))
        moveMarker(arguments.value(2));
    else if (mode == QStringLiteral("typing"))
        typeMasses(arguments.value(2));
    else if (mode == QStringLiteral("many"))
        editMany(arguments.value(2), {6, 25, inchpeg::kMostPiecesPerCondition, 200});
    else if (mode == QStringLiteral("grow")) {
        for (const int perRail : {1, 10, 100})
            editMany(arguments.value(2), {1, 100, perRail, 20});
    } else
        return 2;
    return 0;
}
