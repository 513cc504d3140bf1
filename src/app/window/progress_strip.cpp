// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/window/progress_strip.h"

#include "app/parts/form_parts.h"

#include <QHBoxLayout>
#include <QProgressBar>

namespace inchpeg::app
{

namespace
{

/// What is over sooner than this needs no strip.
constexpr int kPatience_ms = 600;

} // namespace

ProgressStrip::ProgressStrip(QWidget *parent) : QFrame(parent)
{
    setObjectName(QStringLiteral("progressStrip"));
    setFrameShape(QFrame::StyledPanel);
    m_what = new QLabel;
    m_bar = new QProgressBar;
    m_bar->setAccessibleName(tr("Progress"));
    m_bar->setTextVisible(false);
    auto *cancel = button("cancelWork", tr("Stop"));
    connect(cancel, &QPushButton::clicked, this, &ProgressStrip::cancelled);
    auto *layout = new QHBoxLayout(this);
    layout->setContentsMargins(12, 4, 8, 4);
    layout->addWidget(m_what);
    layout->addWidget(m_bar, 1);
    layout->addWidget(cancel);
    m_patience.setSingleShot(true);
    m_patience.setInterval(kPatience_ms);
    connect(&m_patience, &QTimer::timeout, this, &QWidget::show);
    hide();
}

void ProgressStrip::tell(const QString &what, int done, int all)
{
    if (done >= all) {
        finish();
        return;
    }
    m_what->setText(tr("%1: %2 of %3").arg(what).arg(done).arg(all));
    m_bar->setUpdatesEnabled(
        false); // a bar paints at once and the whole window with it; later is soon enough
    m_bar->setRange(0, all);
    m_bar->setValue(done);
    m_bar->setUpdatesEnabled(true);
    if (!isVisible() && !m_patience.isActive())
        m_patience.start();
}

void ProgressStrip::finish()
{
    m_patience.stop();
    hide();
}

} // namespace inchpeg::app
