// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/app_harness.h"

#include <QComboBox>
#include <QFile>
#include <QLabel>

namespace inchpeg::app
{

/// Ask & plan on the demo's study that is only planned: 18 pieces of three chambers.
class PlanLens : public testing::Test
{
protected:
    std::unique_ptr<AppHarness> m_app = AppHarness::onDemo();

    void SetUp() override
    {
        // The study that is only planned stands last on the shelf.
        ASSERT_TRUE(session().selectStudy(session().studies()[3].id));
        session().setLens(Lens::Plan);
        QCoreApplication::processEvents();
    }
    ProjectSession &session() { return m_app->session(); }
    const Study &study() { return *session().study(); }
    const Plan &plan() { return study().plan; }

    void choose(const char *comboName, const QString &text)
    {
        auto *box = m_app->find<QComboBox>(comboName);
        const int index = box->findText(text);
        ASSERT_GE(index, 0) << comboName << " does not offer " << text.toStdString();
        box->setCurrentIndex(index);
        emit box->activated(index);
        QCoreApplication::processEvents();
    }
    QString textOf(const char *label) { return m_app->find<QLabel>(label)->text(); }
    /// Whether a text holds a part; the text where it does not, for the test's message.
    static std::string holds(const QString &text, const char *part)
    {
        return text.contains(QString::fromUtf8(part))
                   ? std::string()
                   : "\"" + text.toStdString() + "\" lacks \"" + part + "\"";
    }
    QString fileText(const QString &path)
    {
        QFile file(path);
        EXPECT_TRUE(file.open(QIODevice::ReadOnly)) << path.toStdString();
        return QString::fromUtf8(file.readAll());
    }
};

} // namespace inchpeg::app
