// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/import/entry_table_model.h"
#include "app/import/import_presenter.h"
#include "app/parts/prompts.h"

#include <QWidget>

class QComboBox;
class QGridLayout;
class QLabel;
class QPlainTextEdit;
class QProgressBar;
class QPushButton;
class QTableView;

namespace inchpeg::app
{

/// The page on which files are looked at and given to pegs before they enter the study.
class ImportView : public QWidget
{
    Q_OBJECT
public:
    ImportView(ProjectSession &session, ImportPresenter &presenter, Prompts &prompts,
               QWidget *parent = nullptr);
    void chooseFiles();

signals:
    /// The person is done here, with or without bringing files in.
    void closed();

private:
    QWidget *createList();
    QWidget *createPreview();
    void refresh();
    void showEntry();
    void fillColumns(const ImportPresenter::Entry &entry);
    void clearColumns();
    void addColumn(int column, const QString &name);
    void columnChanged();
    void showRemark(const ImportFile &file);
    void fillTables(const ImportFile &file);
    void tableChosen();
    void assignChosenPiece();
    [[nodiscard]] std::optional<std::size_t> chosen() const;

    ProjectSession &m_session;
    ImportPresenter &m_presenter;
    Prompts &m_prompts;
    EntryTableModel m_model;
    QTableView *m_table = nullptr;
    QComboBox *m_test = nullptr;
    QComboBox *m_pattern = nullptr;
    QComboBox *m_piece = nullptr;
    QComboBox *m_fileTable = nullptr;
    QLabel *m_summary = nullptr;
    QProgressBar *m_progress = nullptr;
    QPushButton *m_stop = nullptr;
    QPushButton *m_bringIn = nullptr;
    QPlainTextEdit *m_text = nullptr;
    QLabel *m_previewTitle = nullptr;
    QLabel *m_remark = nullptr;       ///< why it cannot be read, or what was left out of it
    QPushButton *m_asShown = nullptr; ///< answers what the file leaves open with what the columns say
    QWidget *m_columnBox = nullptr;
    QGridLayout *m_columns = nullptr;
    std::vector<QComboBox *> m_quantities;
    std::vector<QComboBox *> m_units;
    std::string m_columnsOf; ///< the file and table whose columns are shown
    std::size_t m_kept = 0;  ///< the row that stays chosen when the list changes
};

} // namespace inchpeg::app
