// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/app_harness.h"
#include "core/base/random.h"

#include <QStringList>

namespace inchpeg::app
{

/// Clicks, types, turns the wheel, drags and takes back at random, as a child or a cat at the bench would.
/// The same seed makes the same events.
class Monkey
{
public:
    Monkey(AppHarness &app, std::uint64_t seed) : m_app(app), m_random(seed) {}

    void act();
    /// The last events, the newest last.
    [[nodiscard]] QString lastEvents() const { return m_last.join(QLatin1Char('\n')); }

private:
    void click();
    void press();
    void type();
    void wheel();
    void drag();
    void stormOfUndo();
    void choose();
    void switchStudyOrLens();
    void closePopups();
    [[nodiscard]] QWidget *anyWidget();
    [[nodiscard]] QPoint pointIn(const QWidget &widget);
    void note(const QString &what);

    AppHarness &m_app;
    Random m_random;
    QStringList m_last;
};

} // namespace inchpeg::app
