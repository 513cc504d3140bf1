// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/gauge/gauge_bar.h"
#include "app/log/measure_table.h"
#include "app/log/piece_table_model.h"
#include "app/parts/prompts.h"

#include <QTimer>
#include <QWidget>

class QComboBox;
class QFrame;
class QLabel;
class QLineEdit;
class QSpinBox;

namespace inchpeg::app
{

class TableButtons;

/// The entry grid with its rule, the question about an unlikely value, and the gauge.
class MeasurePage : public QWidget
{
    Q_OBJECT
public:
    MeasurePage(ProjectSession &session, Prompts &prompts, QWidget *parent = nullptr);
    void refresh();
    [[nodiscard]] PieceTableModel &model() { return m_model; }

signals:
    void importRequested();

private:
    QWidget *createRule();
    QFrame *createDoubtBar();
    void showSelection();
    void refreshSummary();
    void refreshRule();
    void offerGauges(QComboBox *box, GaugeKind kind, const std::string &chosen);
    [[nodiscard]] QString gaugeWarning() const;
    void lookAt(PieceId piece);
    void showDoubt();
    void keepValue();
    void takeProposed();
    void changeRule(const QString &what, const std::function<Status(MeasuringRule &)> &change);
    void goToLabel(PieceId piece);
    void takeGaugeReading(const GaugeReading &reading);

    ProjectSession &m_session;
    Prompts &m_prompts;
    PieceTableModel m_model;
    MeasureTable *m_table = nullptr;
    QLabel *m_summary = nullptr;
    QSpinBox *m_readings = nullptr;
    QComboBox *m_rule = nullptr;
    QComboBox *m_order = nullptr;
    QComboBox *m_walk = nullptr;
    QComboBox *m_calliper = nullptr;
    QComboBox *m_scale = nullptr;
    QComboBox *m_axis = nullptr;
    QLineEdit *m_length = nullptr;
    QLabel *m_shrinkage = nullptr;
    QLabel *m_expired = nullptr;
    GaugeBar *m_gauge = nullptr;
    QFrame *m_doubtBar = nullptr;
    QLabel *m_doubtText = nullptr;
    QPushButton *m_take = nullptr;
    std::optional<Doubt> m_doubt;
    QTimer m_looking;
    std::vector<PieceId> m_toLookAt; ///< pieces whose values were entered and are in doubt
    TableButtons *m_tables = nullptr;
};

} // namespace inchpeg::app
