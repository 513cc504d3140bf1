// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "core/logbook/log_table.h"

#include <QAbstractTableModel>
#include <QDialog>

class QCheckBox;
class QLabel;
class QPushButton;
class QTableView;

namespace inchpeg::app
{

/// What a table would change, a row a value.
class TakenValueModel : public QAbstractTableModel
{
    Q_OBJECT
public:
    explicit TakenValueModel(ProjectSession &session, QObject *parent = nullptr);
    void set(const TakenTable &table);

    [[nodiscard]] int rowCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex &index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    ProjectSession &m_session;
    TakenTable m_table;
};

/// Shows how a pasted table was understood and what it would change, before anything is changed.
class TablePreview : public QDialog
{
    Q_OBJECT
public:
    explicit TablePreview(ProjectSession &session, QWidget *parent = nullptr);
    /// Reads a table and shows it; a text that is none is told by the session.
    void show(const QString &text);

signals:
    /// A value of this piece was taken.
    void taken(inchpeg::PieceId piece);

private:
    void refresh();
    void take();

    ProjectSession &m_session;
    TakenTable m_read;
    TakenValueModel m_model;
    QLabel *m_columns = nullptr;
    QLabel *m_summary = nullptr;
    QLabel *m_problems = nullptr;
    QTableView *m_table = nullptr;
    QCheckBox *m_replace = nullptr;
    QPushButton *m_take = nullptr;
};

} // namespace inchpeg::app
