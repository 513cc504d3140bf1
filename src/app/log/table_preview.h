// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"

#include <QAbstractTableModel>
#include <QDialog>
#include <QStringList>

class QCheckBox;
class QLabel;
class QPushButton;
class QTableView;

namespace inchpeg::app
{

/// One value that taking a table would change.
struct PreviewRow {
    PieceId piece; ///< 0: of the study
    QString code;  ///< of the piece
    QString what;
    QString before; ///< empty: there is nothing yet
    QString after;
};

/// How a table was understood and what it would change.
struct Preview {
    QString edit;       ///< what the undo step is called
    QString understood; ///< what its columns mean
    QStringList problems;
    std::vector<PreviewRow> rows;
    std::size_t tableRows = 0;
    std::size_t unchanged = 0;
    bool asksToReplace = false; ///< values that are there already stay unless the person says otherwise
    std::function<Status(Study &study, bool replace)> take;
};

/// Nothing where the text is no such table; the session tells why.
std::optional<Preview> measurementsPreview(ProjectSession &session, const QString &text);
std::optional<Preview> plateRecordsPreview(ProjectSession &session, const QString &text);
std::optional<Preview> timedStepsPreview(ProjectSession &session, const QString &text);

class PreviewModel : public QAbstractTableModel
{
    Q_OBJECT
public:
    using QAbstractTableModel::QAbstractTableModel;
    void set(std::vector<PreviewRow> rows);

    [[nodiscard]] int rowCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex &index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    std::vector<PreviewRow> m_rows;
};

/// Shows a preview, and takes the table once the person says so.
class TablePreview : public QDialog
{
    Q_OBJECT
public:
    explicit TablePreview(ProjectSession &session, QWidget *parent = nullptr);
    void show(Preview preview);

signals:
    /// A value of this piece was taken.
    void taken(inchpeg::PieceId piece);

private:
    void refresh();
    void take();

    ProjectSession &m_session;
    Preview m_preview;
    PreviewModel m_model;
    QLabel *m_understood = nullptr;
    QLabel *m_summary = nullptr;
    QLabel *m_problems = nullptr;
    QTableView *m_table = nullptr;
    QCheckBox *m_replace = nullptr;
    QPushButton *m_take = nullptr;
};

} // namespace inchpeg::app
