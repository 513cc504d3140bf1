// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QSizeF>
#include <QWidget>

#include <functional>

class QPainter;

namespace inchpeg::app
{

/// One page as it will be printed, white on the ground of the window, as large as it fits.
class PagePreview : public QWidget
{
    Q_OBJECT
public:
    explicit PagePreview(const char *name, QWidget *parent = nullptr);
    /// paint: draws the page in millimetres; empty: a blank one.
    void set(std::function<void(QPainter &)> paint, QSizeF page_mm = {210.0, 297.0});

signals:
    void turned(int pages); ///< by the wheel, or Page Up and Page Down

protected:
    void paintEvent(QPaintEvent *event) override;
    void wheelEvent(QWheelEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    std::function<void(QPainter &)> m_paint;
    QSizeF m_page_mm{210.0, 297.0};
};

} // namespace inchpeg::app
