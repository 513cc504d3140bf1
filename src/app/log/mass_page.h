// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "core/logbook/mass_check.h"

#include <QWidget>

class QDoubleSpinBox;
class QGridLayout;
class QLabel;

namespace inchpeg::app
{

/// The masses of all rails on one scale, around each rail's median the band that they should keep to.
class MassChart : public QWidget
{
    Q_OBJECT
public:
    explicit MassChart(ProjectSession &session, QWidget *parent = nullptr);
    void set(const MassCheck &check);
    [[nodiscard]] QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    ProjectSession &m_session;
    MassCheck m_check;
};

/// Whether the pieces weigh what they should: within each rail, between rails, and against solid polymer.
class MassPage : public QWidget
{
    Q_OBJECT
public:
    explicit MassPage(ProjectSession &session, QWidget *parent = nullptr);
    void refresh();

private:
    void refreshTable(const MassCheck &check);

    ProjectSession &m_session;
    QLabel *m_headline = nullptr;
    QDoubleSpinBox *m_tolerance = nullptr;
    MassChart *m_chart = nullptr;
    QGridLayout *m_rails = nullptr;
    QLabel *m_confounds = nullptr;
};

} // namespace inchpeg::app
