// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/break_look.h"

#include <QAbstractButton>

#include <vector>

class QGridLayout;
class QLabel;

namespace inchpeg::app
{

/// A look of a break as a drawing with its word below.
class BreakButton : public QAbstractButton
{
    Q_OBJECT
public:
    explicit BreakButton(const BreakLook &look, QWidget *parent = nullptr);
    [[nodiscard]] const BreakLook &look() const { return m_look; }
    [[nodiscard]] QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    const BreakLook &m_look;
};

/// What the selected piece's break looks like: one drawing a look of its test.
class BreakPanel : public QWidget
{
    Q_OBJECT
public:
    explicit BreakPanel(QWidget *parent = nullptr);
    /// looks: of the piece's test; chosen: the name that was said, or empty.
    void showLooks(std::span<const BreakLook> looks, std::string_view chosen);

signals:
    /// Said by the person; empty where the chosen one was pressed again.
    void said(const QString &name);

private:
    const BreakLook *m_shown = nullptr; ///< the first of the looks that the buttons are for
    std::vector<BreakButton *> m_buttons;
    QGridLayout *m_grid = nullptr;
};

} // namespace inchpeg::app
