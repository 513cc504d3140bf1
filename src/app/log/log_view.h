// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/log/measure_table.h"
#include "app/log/piece_table_model.h"

#include <QWidget>

class QLabel;

namespace inchpeg::app
{

/// The log lens: measured sections, and the way in for force files.
class LogView : public QWidget
{
    Q_OBJECT
public:
    explicit LogView(ProjectSession &session, QWidget *parent = nullptr);

signals:
    void importRequested();

private:
    void showSelection();
    void refreshSummary();

    ProjectSession &m_session;
    PieceTableModel m_model;
    MeasureTable *m_table = nullptr;
    QLabel *m_summary = nullptr;
};

} // namespace inchpeg::app
