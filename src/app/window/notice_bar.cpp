// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/window/notice_bar.h"

#include "app/parts/form_parts.h"

#include <QHBoxLayout>

#include <utility>

namespace inchpeg::app
{

NoticeBar::NoticeBar(QWidget *parent) : QFrame(parent)
{
    setObjectName(QStringLiteral("noticeBar"));
    setFrameShape(QFrame::StyledPanel);
    setAccessibleName(tr("Notice"));
    m_text = new QLabel;
    m_text->setProperty("role", QStringLiteral("warning"));
    m_text->setWordWrap(true);
    m_text->setTextInteractionFlags(Qt::TextSelectableByMouse);
    auto *close = button("closeNotice", tr("Close"));
    close->setAccessibleName(tr("Close the notice"));
    connect(close, &QPushButton::clicked, this, &QWidget::hide);
    m_offer = button("noticeOffer", {}, true);
    connect(m_offer, &QPushButton::clicked, this, [this] {
        hide();
        if (const auto action = std::exchange(m_action, nullptr))
            action();
    });
    auto *layout = new QHBoxLayout(this);
    layout->setContentsMargins(12, 4, 8, 4);
    layout->addWidget(m_text, 1);
    layout->addWidget(m_offer);
    layout->addWidget(close);
    hide();
}

void NoticeBar::tell(const QString &sentence)
{
    QString text = sentence;
    if (!text.isEmpty())
        text[0] = text[0].toUpper();
    m_text->setText(text);
    setAccessibleDescription(text);
    m_action = nullptr;
    m_offer->hide();
    show();
}

void NoticeBar::offer(const QString &sentence, const QString &doIt, std::function<void()> action)
{
    tell(sentence);
    m_action = std::move(action);
    m_offer->setText(doIt);
    m_offer->show();
}

QString NoticeBar::text() const
{
    return isVisibleTo(parentWidget()) ? m_text->text() : QString();
}

} // namespace inchpeg::app
