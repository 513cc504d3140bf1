// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/app_harness.h"
#include "app/bench/bench_view.h"
#include "core/base/utc_time.h"
#include "core/planning/plan_edit.h"
#include "rig/pseudo_terminal.h"
#include "support/read_value.h"

#include <QComboBox>
#include <QLabel>

#include <cmath>
#include <stdexcept>

namespace inchpeg::app
{

/// The bench of a study of one test, with a clock that the test plays.
class BenchModes : public testing::Test
{
protected:
    AppHarness m_app;
    double m_steady_s = 1000.0;
    std::int64_t m_utc = *secondsSinceEpoch("2026-10-22T08:00:00Z");

    ProjectSession &session() { return m_app.session(); }
    BenchPresenter &bench() { return m_app.window().bench(); }
    BenchView &view() { return *m_app.find<BenchView>("benchView"); }
    QString text(const char *label) { return m_app.find<QLabel>(label)->text(); }

    /// A study of one test on two rails, its pieces measured; the bench with its cautions confirmed.
    void begin(Method method, int pieces)
    {
        setTime(0.0);
        ASSERT_TRUE(session().createProject(m_app.path(QStringLiteral("bench.inchpeg"))));
        ASSERT_TRUE(session().addStudy(QStringLiteral("Which lid latch holds in the sun?")));
        ASSERT_TRUE(session().edit(QStringLiteral("rails"), [&](Study &study) -> Status {
            if (const Status status = setMethod(study, method); !status)
                return status;
            firstTest(study).piecesPerCondition = pieces;
            for (const char *level : {"slow", "fast"}) {
                if (const Status status =
                        addCondition(study, {{}, {level}, Orientation::Flat, "glycol-modified polyester"},
                                     session().ids());
                    !status)
                    return status;
            }
            for (Piece &piece : study.pieces)
                piece.section = RectangularSection{millimetres(10.0), millimetres(4.0)};
            return ok();
        }));
        m_app.rack().setFocus();
        m_app.key(Qt::Key_3, Qt::ControlModifier);
        ASSERT_EQ(session().lens(), Lens::Bench);
        bench().timed().setClock([this] { return m_steady_s; });
        if (!bench().openCautions().empty())
            m_app.click("benchMain");
        ASSERT_TRUE(bench().openCautions().empty());
    }
    /// Both clocks go on.
    void setTime(double passes_s)
    {
        m_steady_s += passes_s;
        m_utc += static_cast<std::int64_t>(std::llround(passes_s));
        m_app.setNow(utcText(m_utc));
        if (m_app.session().study() == nullptr)
            return;
        bench().poll();
        m_app.window().dueWatch().look();
        QCoreApplication::processEvents();
    }
    /// A dial on a line of its own, connected.
    PseudoTerminal connectedDial()
    {
        const QString port = m_app.path(QStringLiteral("dial"));
        PseudoTerminal terminal = *PseudoTerminal::open(port.toStdString());
        m_app.find<QComboBox>("benchPort")->setCurrentText(port);
        m_app.click("benchConnect");
        EXPECT_TRUE(
            QTest::qWaitFor([&] { return bench().recorder().takeState().isThere; }, test::kPatience_ms));
        return terminal;
    }
    void press(Qt::Key key)
    {
        view().setFocus();
        QTest::keyClick(&view(), key);
        QCoreApplication::processEvents();
    }
    /// Digits as they are typed at the bench, wherever the keyboard is.
    void typeReading(const QString &digits)
    {
        for (const QChar one : digits)
            QTest::keyClick(QApplication::focusWidget(), one.toLatin1());
        QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
        m_app.waitUntilKept();
        m_app.waitUntilRead();
    }
    const Piece &piece(const QString &code)
    {
        for (const Piece &one : session().study()->pieces) {
            if (QString::fromStdString(one.code) == code)
                return one;
        }
        throw std::runtime_error("no such piece");
    }
    const Reading &reading(const QString &code)
    {
        static const Reading kNone;
        const auto found = session().readings().find(piece(code).id);
        if (found == session().readings().end() || !found->second->has_value()) {
            ADD_FAILURE() << code.toStdString() << ": "
                          << (found == session().readings().end() ? "not read"
                                                                  : found->second->error().message);
            return kNone;
        }
        return (*found->second)->result;
    }
    /// For looking at, where a folder is given.
    void picture(const char *name)
    {
        if (const QString folder = qEnvironmentVariable("INCHPEG_WALK_PICTURES"); !folder.isEmpty())
            m_app.window().grab().save(folder + QLatin1String(name));
    }
    std::string bytesOf(const QString &code)
    {
        return *session().project().rawBytes(piece(code).recording->file);
    }
};

} // namespace inchpeg::app
