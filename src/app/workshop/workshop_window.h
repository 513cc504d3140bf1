// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/prompts.h"
#include "app/parts/step_strip.h"
#include "app/workshop/card_details.h"

#include <QDialog>

class QLabel;
class QLineEdit;
class QListWidget;
class QStackedWidget;
class QTableView;
class QVBoxLayout;

namespace inchpeg::app
{

/// The workshop that all studies of a project share: rigs and gauges with their
/// calibrations, printers, materials, hours, prices, labels.
class WorkshopWindow : public QDialog
{
    Q_OBJECT
public:
    WorkshopWindow(ProjectSession &session, Prompts &prompts, QWidget *parent = nullptr);

private:
    using Change = std::function<Status(Workshop &)>;
    using Removal = std::function<void(Workshop &, std::size_t)>;
    /// A table of cards with its buttons. add: appends a card; remove: takes a row away.
    QTableView *addTable(QVBoxLayout *layout, const char *name, const QString &title, CardTableModel &model,
                         const Change &add, const Removal &remove);
    /// A new page of the strip.
    QVBoxLayout *addPage();
    void addRigs();
    void addGauges();
    void addPrinters();
    void addMaterials();
    /// The lists of the card that is chosen in a table.
    void follow(QTableView *table, const CardRow &row, std::vector<CardTableModel *> lists);
    void addHours(QVBoxLayout *layout);
    void addMoneyAndLabels(QVBoxLayout *layout);
    void addLibrary();
    void measureCompliance();
    void refresh();
    void refreshNotes();

    ProjectSession &m_session;
    Prompts &m_prompts;
    StepStrip *m_strip = nullptr;
    QListWidget *m_library = nullptr;
    QStackedWidget *m_pages = nullptr;
    CardRow m_rigRow = std::make_shared<std::size_t>(0);
    CardRow m_gaugeRow = std::make_shared<std::size_t>(0);
    CardRow m_spoolRow = std::make_shared<std::size_t>(0);
    QLabel *m_rigNote = nullptr;
    QLabel *m_spoolNote = nullptr;
    std::unique_ptr<CardTableModel> m_rigs;
    std::unique_ptr<CardTableModel> m_rigCalibrations;
    std::unique_ptr<CardTableModel> m_gauges;
    std::unique_ptr<CardTableModel> m_gaugeCalibrations;
    std::unique_ptr<CardTableModel> m_statements;
    std::unique_ptr<CardTableModel> m_sheet;
    std::unique_ptr<CardTableModel> m_printers;
    std::unique_ptr<CardTableModel> m_spools;
    struct Field {
        QLineEdit *edit = nullptr;
        std::function<QString(const Workshop &)> text;
    };
    std::vector<Field> m_fields;
};

} // namespace inchpeg::app
