// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/window/welcome_page.h"

#include "app/window/form_parts.h"

#include <QGridLayout>
#include <QVBoxLayout>

namespace inchpeg::app
{

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
    way("welcomeOpen", tr("Open a project…"), tr("Go on where you were."), false,
        &WelcomePage::openRequested);
    way("welcomeDemo", tr("Look at the demo"),
        tr("Three invented studies of a beekeepers' cooperative, to try everything on."), false,
        &WelcomePage::demoRequested);
    grid->addWidget(softLabel(tr("Or drop force files here: you choose a place for the project, and they "
                                 "wait on the import page.")),
                    grid->rowCount(), 1);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(90, 60, 90, 60);
    layout->addStretch();
    layout->addWidget(title);
    layout->addWidget(softLabel(tr("Everything stays on this machine, in open formats.")));
    layout->addSpacing(22);
    layout->addLayout(grid);
    layout->addStretch(2);
}

} // namespace inchpeg::app
