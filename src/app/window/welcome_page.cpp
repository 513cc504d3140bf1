// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/window/welcome_page.h"

#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"
#include "app/rack/rack_painter.h"
#include "app/theme/plain_texts.h"

#include <QFileInfo>
#include <QGridLayout>
#include <QPainter>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr int kMostRecentShown = 4;

/// A rail with pegs on their way from planned to read: what the program is about, without words.
class Emblem : public QWidget
{
public:
    Emblem()
    {
        setFixedHeight(kHeight);
        setAccessibleName(WelcomePage::tr("A rail with pegs"));
    }

protected:
    void paintEvent(QPaintEvent *) override
    {
        const Theme &theme = currentTheme();
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        const double y = 0.5 * kHeight;
        painter.setPen(Qt::NoPen);
        painter.setBrush(theme.rail);
        painter.drawRoundedRect(QRectF(0.0, y - 5.0, kLength, 10.0), 5.0, 5.0);
        double x = 0.5 * kPitch;
        for (const PegState state : {PegState::Read, PegState::Read, PegState::Doubtful, PegState::LeftOut,
                                     PegState::Measured, PegState::Open, PegState::Open}) {
            paintPeg(painter, QPointF(x, y), 13.0, state, false, x < kPitch, theme);
            x += kPitch;
        }
    }

private:
    static constexpr int kHeight = 44;
    static constexpr double kPitch = 44.0;
    static constexpr double kLength = 7.0 * kPitch;
};

} // namespace

WelcomePage::WelcomePage(QWidget *parent) : QWidget(parent)
{
    auto *title = heading(tr("From a question to a decision that stands up."));
    QFont font = title->font();
    font.setPointSizeF(font.pointSizeF() * 1.8);
    title->setFont(font);
    auto *grid = new QGridLayout;
    grid->setHorizontalSpacing(20);
    grid->setVerticalSpacing(14);
    grid->setColumnStretch(1, 1);
    const auto way = [&](const char *name, const QString &text, const QString &what, bool primary,
                         auto signal) {
        auto *push = button(name, text, primary);
        connect(push, &QPushButton::clicked, this, signal);
        const int row = grid->rowCount();
        grid->addWidget(push, row, 0);
        grid->addWidget(softLabel(what), row, 1);
    };
    way("welcomeNew", tr("New project…"),
        tr("Ask a question of your own. A project is one file that holds studies, measurements and the raw "
           "data of every test."),
        true, &WelcomePage::newRequested);
    way("welcomeBegin", tr("From what is broken already…"),
        tr("A folder of records, a table of results, or two columns from a spreadsheet: rails, pieces and a "
           "verdict in a minute."),
        false, &WelcomePage::beginRequested);
    way("welcomeOpen", tr("Open a project…"), tr("Go on where you were."), false,
        &WelcomePage::openRequested);
    way("welcomeDemo", tr("Look at the demo"),
        tr("Eight invented studies of a beekeepers' cooperative, to try everything on."), false,
        &WelcomePage::demoRequested);
    grid->addWidget(softLabel(tr("Or drop records or a table here: you see how they were understood, and "
                                 "choose a place for the project.")),
                    grid->rowCount(), 1);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(90, 60, 90, 60);
    layout->addStretch();
    layout->addWidget(new Emblem);
    layout->addSpacing(10);
    layout->addWidget(title);
    layout->addWidget(softLabel(tr("Everything stays on this machine, in open formats.")));
    layout->addSpacing(22);
    layout->addLayout(grid);
    layout->addSpacing(14);
    m_recent = new QVBoxLayout;
    m_recent->setSpacing(2);
    layout->addLayout(m_recent);
    layout->addStretch(2);
}

void WelcomePage::setRecent(const QStringList &paths)
{
    clearLayout(m_recent);
    if (paths.isEmpty())
        return;
    m_recent->addWidget(heading(tr("Or go on with")));
    for (const QString &path : paths.mid(0, kMostRecentShown)) {
        const QFileInfo info(path);
        auto *link =
            button("recentProject",
                   withoutKeyMarks(tr("%1  in %2").arg(info.completeBaseName(), info.absolutePath())));
        link->setProperty("plain", true);
        connect(link, &QPushButton::clicked, this, [this, path] { emit recentRequested(path); });
        m_recent->addWidget(link, 0, Qt::AlignLeft);
    }
}

} // namespace inchpeg::app
