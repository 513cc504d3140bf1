// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>

#include <functional>

class QLabel;
class QPushButton;

namespace inchpeg::app
{

/// A sentence over the lens: what was refused or went wrong. It stays until it is closed or the next one
/// comes, and blocks nothing.
class NoticeBar : public QFrame
{
    Q_OBJECT
public:
    explicit NoticeBar(QWidget *parent = nullptr);
    void tell(const QString &sentence);
    /// With a button for what can be done about it.
    void offer(const QString &sentence, const QString &doIt, std::function<void()> action);
    [[nodiscard]] QString text() const;

private:
    QLabel *m_text = nullptr;
    QPushButton *m_offer = nullptr;
    std::function<void()> m_action;
};

} // namespace inchpeg::app
