// SPDX-License-Identifier: GPL-3.0-or-later
// Random clicks, keys, wheels, drags and undos on three projects in turn (the demo, an empty one, a crowded
// one): nothing may fail. INCHPEG_MONKEY_EVENTS and INCHPEG_MONKEY_SEED ask for more; fuzz/run does, under
// the sanitizers.
#include "app/monkey.h"
#include "app/window/guarded_application.h"
#include "support/sanitized.h"

#include <fmt/format.h>

#include <cstdlib>

namespace inchpeg::app
{

namespace
{

constexpr int kEventsOfALife = 1000; ///< then a fresh project is begun with

std::uint64_t numberFrom(const char *variable, std::uint64_t usual)
{
    const char *text = std::getenv(variable);
    return text != nullptr ? std::strtoull(text, nullptr, 10) : usual;
}

std::unique_ptr<AppHarness> onAnEmptyProject()
{
    auto app = std::make_unique<AppHarness>();
    EXPECT_TRUE(app->session().createProject(app->path(QStringLiteral("empty.inchpeg"))));
    return app;
}

/// Twelve rails of 25 pieces, names of sixty letters, half of the pieces broken.
std::unique_ptr<AppHarness> onACrowdedProject()
{
    constexpr int kRails = 12;
    constexpr int kPieces = 25;
    auto app = onAnEmptyProject();
    EXPECT_TRUE(
        app->session().addStudy(QStringLiteral("Which of these is the one, as long as it takes to ask?")));
    EXPECT_TRUE(app->session().edit(QStringLiteral("a crowd"), [&](Study &study) -> Status {
        study.factors.front().name = "a factor with a name of about as many letters as go into one line";
        firstTest(study).piecesPerCondition = kPieces;
        for (int rail = 0; rail < kRails; ++rail) {
            const std::string level =
                fmt::format("level {} of a name that is as long as sixty letters are", rail);
            if (const Status added = addCondition(study, {{}, {level}, {}, {}}, app->session().ids()); !added)
                return added;
        }
        return ok();
    }));
    EXPECT_TRUE(app->session().edit(QStringLiteral("half of it broken"), [&](Study &study) -> Status {
        for (std::size_t i = 0; i < study.pieces.size(); i += 2) {
            std::string record = "time_s,force_N\n";
            for (int row = 0; row < 60; ++row)
                record +=
                    fmt::format("{:.1f},{:.2f}\n", 0.1 * row, (900.0 + static_cast<double>(i)) * row / 59.0);
            const Result<AddedRawFile> raw =
                app->session().project().addRawFile(fmt::format("crowd_{}.csv", i), record);
            if (!raw)
                return raw.error();
            study.pieces[i].section = PlainArea{squareMillimetres(20.0)};
            study.pieces[i].recording.emplace().file = raw->id;
        }
        return ok();
    }));
    app->waitUntilRead();
    return app;
}

std::unique_ptr<AppHarness> onProject(std::uint64_t number)
{
    switch (number % 3) {
    case 0:
        return onAnEmptyProject();
    case 1:
        return AppHarness::onDemo();
    default:
        return onACrowdedProject();
    }
}

} // namespace

TEST(Monkey, DoesNoHarm)
{
    auto *application = qobject_cast<GuardedApplication *>(qApp);
    ASSERT_NE(application, nullptr);
    const std::uint64_t events = numberFrom("INCHPEG_MONKEY_EVENTS", test::kSanitized ? 500 : 2000);
    std::uint64_t seed = numberFrom("INCHPEG_MONKEY_SEED", 1);
    const int before = application->failureCount();
    for (std::uint64_t done = 0; done < events; done += kEventsOfALife, ++seed) {
        const auto app = onProject(seed);
        app->prompts().yes = seed % 2 == 0;
        Monkey monkey(*app, seed);
        for (int i = 0; i < kEventsOfALife; ++i) {
            if (std::getenv("INCHPEG_MONKEY_TOLD") != nullptr && i > 0)
                std::fprintf(stderr, "%d %s\n", i,
                             qPrintable(monkey.lastEvents().section(QLatin1Char('\n'), -1)));
            monkey.act();
            ASSERT_EQ(application->failureCount(), before)
                << "seed " << seed << ", event " << i << "; the last events:\n"
                << monkey.lastEvents().toStdString();
        }
        while (QWidget *popup = QApplication::activePopupWidget())
            popup->close();
        app->waitUntilKept();
    }
}

} // namespace inchpeg::app
