// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/rack/rack_model.h"

#include <QWidget>

namespace inchpeg::app
{

/// A drawn peg beside a sentence: with a stroke where something is to be looked at.
class PegMark : public QWidget
{
    Q_OBJECT
public:
    explicit PegMark(PegState state, QWidget *parent = nullptr);
    void setState(PegState state);

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    PegState m_state;
};

} // namespace inchpeg::app
