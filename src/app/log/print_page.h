// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/prompts.h"
#include "app/session/plan_state.h"
#include "core/logbook/print_record.h"

#include <QWidget>

class QCheckBox;
class QComboBox;
class QGridLayout;
class QLabel;
class QLineEdit;
class QPushButton;
class QVBoxLayout;

namespace inchpeg::app
{

class PlateSettings;

/// How a plate was really printed: its record, the settings against the plan, events, pieces that failed.
class PrintPage : public QWidget
{
    Q_OBJECT
public:
    PrintPage(ProjectSession &session, PlanState &plan, Prompts &prompts, QWidget *parent = nullptr);
    void refresh();
    void showPlate(int number);

private:
    QWidget *createFields();
    QWidget *createEventRow();
    QWidget *createFailureRow();
    void refreshFields();
    void refreshEvents();
    void refreshPieces();
    [[nodiscard]] const Plate *plate();
    [[nodiscard]] PlateRecord
    recordNow() const; ///< the record of the plate, an empty one where there is none
    /// Changes the record of the plate and checks it.
    bool change(const QString &what, const std::function<Status(PlateRecord &)> &edit);
    void addField(QGridLayout *grid, int row, int column, const char *name, const QString &label,
                  const std::function<QString(const PlateRecord &)> &text,
                  const std::function<Status(PlateRecord &, const QString &)> &set);
    void markPrintedNow();
    void takeBack();
    void addEvent();
    void fail();

    ProjectSession &m_session;
    PlanState &m_plan;
    Prompts &m_prompts;
    int m_number = 0;
    QComboBox *m_plates = nullptr;
    QPushButton *m_printed = nullptr;
    QPushButton *m_back = nullptr;
    QLabel *m_state = nullptr;
    QWidget *m_record = nullptr;
    PlateSettings *m_settings = nullptr;
    QVBoxLayout *m_events = nullptr;
    QComboBox *m_trouble = nullptr;
    QLineEdit *m_what = nullptr;
    QLineEdit *m_done = nullptr;
    QVBoxLayout *m_failures = nullptr;
    QComboBox *m_piece = nullptr;
    QComboBox *m_pieceTrouble = nullptr;
    QLineEdit *m_pieceWhat = nullptr;
    QCheckBox *m_again = nullptr;
    struct Field {
        QLineEdit *edit = nullptr;
        std::function<QString(const PlateRecord &)> text;
    };
    std::vector<Field> m_fields;
};

} // namespace inchpeg::app
