// SPDX-License-Identifier: GPL-3.0-or-later
// Random clicks, keys, wheels, drags and undos on a copy of the demo: nothing may fail. INCHPEG_MONKEY_EVENTS
// and INCHPEG_MONKEY_SEED ask for more; fuzz/run does, under the sanitizers.
#include "app/monkey.h"
#include "app/window/guarded_application.h"
#include "support/sanitized.h"

#include <cstdlib>

namespace inchpeg::app
{

namespace
{

constexpr int kEventsOfALife = 1000; ///< then a fresh copy of the demo is begun with

std::uint64_t numberFrom(const char *variable, std::uint64_t usual)
{
    const char *text = std::getenv(variable);
    return text != nullptr ? std::strtoull(text, nullptr, 10) : usual;
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
        const auto app = AppHarness::onDemo();
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
