// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/log/log_view.h"
#include "app/plan/plan_view.h"
#include "app/rack/rack_view.h"
#include "app/read/read_view.h"
#include "app/session/project_session.h"
#include "app/theme/theme.h"
#include "app/window/main_window.h"
#include "service/demo_project.h"
#include "support/patience.h"

#include <QAction>
#include <QApplication>
#include <QComboBox>
#include <QDropEvent>
#include <QMimeData>
#include <QPixmap>
#include <QSettings>
#include <QTemporaryDir>
#include <QTest>

#include <gtest/gtest.h>

#include <memory>

namespace inchpeg::app
{

inline constexpr PlanStep kPlanSteps[] = {PlanStep::Ask,   PlanStep::Pieces, PlanStep::Specimen,
                                          PlanStep::Rig,   PlanStep::Plates, PlanStep::Calendar,
                                          PlanStep::Check, PlanStep::Paper};
inline constexpr LogPart kLogParts[] = {LogPart::Print, LogPart::Measure, LogPart::Mass, LogPart::Condition,
                                        LogPart::Type,  LogPart::Photos,  LogPart::Life};

/// Answers the file windows in place of a person.
class ScriptedPrompts : public Prompts
{
public:
    QString answer;
    QString newProjectPath(QWidget *) override { return answer; }
    QString openProjectPath(QWidget *) override { return answer; }
    QString picturePath(QWidget *) override { return answer; }
    QString savePath(QWidget *, const QString &, const QString &, const QString &) override { return answer; }
    QString filePath(QWidget *, const QString &, const QString &) override { return answer; }
    QStringList filePaths(QWidget *, const QString &, const QString &) override { return files; }
    QString folderPath(QWidget *, const QString &, const QString &) override { return folder; }
    QString newFolderPath(QWidget *, const QString &) override { return folder; }
    bool confirm(QWidget *, const QString &question, const QString &) override
    {
        asked = question;
        return yes;
    }
    QString folder;
    QStringList files;
    QString asked;
    bool yes = true;
};

/// Keeps what a person would have heard and been notified of.
class KeptAnnouncements : public Announcer
{
public:
    void sound(Tone tone) override { tones.push_back(tone); }
    void notify(const QString &, const QString &text) override { notes << text; }
    std::vector<Tone> tones;
    QStringList notes;
};

/// The real main window, driven as a person would.
class AppHarness
{
public:
    AppHarness()
    {
        EXPECT_TRUE(m_folder.isValid());
        // The settings of this machine's person are neither read nor written.
        QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope,
                           m_folder.filePath(QStringLiteral("settings")));
        QCoreApplication::setOrganizationName(QStringLiteral("inchpeg-test"));
        start();
    }

    /// A window on a fresh copy of the demo project, all records read.
    static std::unique_ptr<AppHarness> onDemo()
    {
        auto harness = std::make_unique<AppHarness>();
        const QString path = harness->path(QStringLiteral("demo.inchpeg"));
        EXPECT_TRUE(writeDemoProject(path.toStdString()));
        const Status opened = harness->session().openProject(path);
        EXPECT_TRUE(opened) << (opened ? "" : opened.error().message);
        harness->waitUntilRead();
        return harness;
    }

    /// Closes the window and makes a new one, as if the program were started again.
    void restart()
    {
        m_window.reset();
        m_session.reset();
        m_preferences.reset();
        start();
    }

    [[nodiscard]] QString path(const QString &name) const { return m_folder.filePath(name); }
    ProjectSession &session() { return *m_session; }
    MainWindow &window() { return *m_window; }
    RackView &rack() { return m_window->rack(); }
    ScriptedPrompts &prompts() { return m_prompts; }
    KeptAnnouncements &announced() { return m_announced; }
    /// The moment that it is, in ISO 8601, UTC.
    void setNow(const std::string &now) { m_now = now; }
    Preferences &preferences() { return *m_preferences; }

    void waitUntilRead()
    {
        EXPECT_TRUE(QTest::qWaitFor(
            [this] { return !m_session->isReading() && !m_window->importPresenter().isBusy(); },
            test::kPatience_ms));
        m_window->rack().finishSliding();
    }

    /// Until no file is on its way into the project.
    void waitUntilKept()
    {
        EXPECT_TRUE(QTest::qWaitFor([this] { return !m_session->rawIntake().isBusy(); }, test::kPatience_ms));
    }

    /// A child of the window by its object name; the test fails where it is missing or not to be seen.
    template <typename Widget>
    Widget *find(const char *name)
    {
        auto *found = m_window->findChild<Widget *>(QLatin1String(name));
        EXPECT_NE(found, nullptr) << name;
        return found;
    }

    /// Keys as they come, wherever the keyboard is; a line end is Enter.
    void typeKeys(const QString &keys)
    {
        for (const QChar one : keys) {
            if (one == QLatin1Char('\n'))
                key(Qt::Key_Return);
            else if (QWidget *focus = QApplication::focusWidget())
                QTest::keyClicks(focus, QString(one));
            QCoreApplication::processEvents();
        }
    }

    void click(const char *name)
    {
        auto *widget = find<QWidget>(name);
        ASSERT_NE(widget, nullptr);
        ASSERT_TRUE(widget->isVisible()) << name << " is hidden";
        ASSERT_TRUE(widget->isEnabled()) << name << " is disabled";
        QTest::mouseClick(widget, Qt::LeftButton);
        QCoreApplication::processEvents();
    }

    /// Opens a part of the plan, as a click on the strip would.
    void step(PlanStep part)
    {
        click(qPrintable(QStringLiteral("step") + QString::number(static_cast<int>(part))));
    }

    /// Opens a part of the log.
    void part(LogPart part)
    {
        session().setLens(Lens::Log);
        click(qPrintable(QStringLiteral("log") + QString::number(static_cast<int>(part))));
    }

    /// Replaces what stands in a field and leaves it, as typing and Tab would.
    void type(const char *name, const QString &text, bool leave = true)
    {
        auto *widget = find<QWidget>(name);
        ASSERT_NE(widget, nullptr);
        ASSERT_TRUE(widget->isVisible()) << name << " is hidden";
        widget->setFocus();
        QTest::keyClick(widget, Qt::Key_A, Qt::ControlModifier);
        if (text.isEmpty())
            QTest::keyClick(widget, Qt::Key_Delete);
        QTest::keyClicks(widget, text);
        if (leave)
            QTest::keyClick(widget, Qt::Key_Return);
        QCoreApplication::processEvents();
        // Keys sent straight to a field pass by the list of proposals that it may have opened.
        if (QWidget *proposals = QApplication::activePopupWidget())
            proposals->close();
    }

    /// Chooses an entry of a box, as a person would.
    void choose(const char *name, const QString &text)
    {
        auto *box = find<QComboBox>(name);
        const int index = box->findText(text);
        ASSERT_GE(index, 0) << name << " does not offer " << text.toStdString();
        box->setCurrentIndex(index);
        emit box->activated(index);
        QCoreApplication::processEvents();
    }

    /// Chooses an entry of the menus by its text.
    void trigger(const QString &text)
    {
        for (QAction *action : m_window->findChildren<QAction *>()) {
            if (action->text().remove(QLatin1Char('&')) == text)
                return action->trigger();
        }
        FAIL() << "no action " << text.toStdString();
    }

    /// Drops files on the window, as from a file manager.
    void dropFiles(const QStringList &paths)
    {
        QMimeData data;
        QList<QUrl> urls;
        for (const QString &path : paths)
            urls << QUrl::fromLocalFile(path);
        data.setUrls(urls);
        QDragEnterEvent enter(QPoint(600, 400), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(m_window.get(), &enter);
        EXPECT_TRUE(enter.isAccepted());
        QDropEvent drop(QPointF(600, 400), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(m_window.get(), &drop);
        waitUntilRead();
    }

    void key(int key, Qt::KeyboardModifiers modifiers = Qt::NoModifier)
    {
        QWidget *target =
            QApplication::focusWidget() != nullptr ? QApplication::focusWidget() : m_window.get();
        QTest::keyClick(target, static_cast<Qt::Key>(key), modifiers);
        QCoreApplication::processEvents();
    }

    /// Until the selected piece's whole record is at hand in the Read lens.
    void waitUntilRecord()
    {
        auto *plot = m_window->findChild<QWidget *>(QStringLiteral("place-break"));
        EXPECT_TRUE(QTest::qWaitFor([plot] { return plot->isEnabled(); }, test::kPatience_ms));
    }

    /// Drags a marker of the selected piece by so many picture points, with the mouse.
    void drag(const char *marker, QPointF by)
    {
        QWidget *plot = find<QWidget>("curvePlot");
        const std::optional<QPointF> from = m_window->readView().markerPixel(marker);
        ASSERT_TRUE(from.has_value());
        QTest::mousePress(plot, Qt::LeftButton, Qt::NoModifier, from->toPoint());
        QTest::mouseMove(plot, (*from + 0.5 * by).toPoint());
        QTest::mouseMove(plot, (*from + by).toPoint());
        QTest::mouseRelease(plot, Qt::LeftButton, Qt::NoModifier, (*from + by).toPoint());
        QCoreApplication::processEvents();
    }

    [[nodiscard]] QString notice() { return m_window->notice(); }

private:
    void start()
    {
        m_session = std::make_unique<ProjectSession>(QStringLiteral("T. Ester"), [this] { return m_now; });
        m_preferences = std::make_unique<Preferences>();
        m_window = std::make_unique<MainWindow>(*m_session, *m_preferences, m_prompts, &m_announced);
        m_window->resize(1280, 800);
        m_window->show();
        EXPECT_TRUE(QTest::qWaitForWindowExposed(m_window.get()));
        m_window->activateWindow();
        QApplication::setActiveWindow(m_window.get());
    }

    QTemporaryDir m_folder;
    std::string m_now = "2026-06-01T10:00:00Z";
    ScriptedPrompts m_prompts;
    KeptAnnouncements m_announced;
    std::unique_ptr<Preferences> m_preferences;
    std::unique_ptr<ProjectSession> m_session;
    std::unique_ptr<MainWindow> m_window;
};

} // namespace inchpeg::app
