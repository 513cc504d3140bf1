// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>

class QLabel;

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
    [[nodiscard]] QString text() const;

private:
    QLabel *m_text = nullptr;
};

} // namespace inchpeg::app
