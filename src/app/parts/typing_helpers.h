// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QTableView>

#include <functional>

class QLineEdit;

namespace inchpeg::app
{

/// Begins an edit of a grid's cell by typing, F2, Enter or a second click, and by one click where the cell is
/// a choice: it opens at once. Belongs to its table.
class EditStarter : public QObject
{
public:
    EditStarter(QTableView &table, std::function<bool(const QModelIndex &)> isChoice);
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    [[nodiscard]] bool isEditing() const;
    void open(const QModelIndex &index);

    QTableView &m_table;
    std::function<bool(const QModelIndex &)> m_isChoice;
};

/// A click into a field that has not the keyboard yet chooses all of its text, so that typing replaces it.
/// Belongs to its field.
class ChooseAllOnClick : public QObject
{
public:
    explicit ChooseAllOnClick(QLineEdit &edit);
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    QLineEdit &m_edit;
    bool m_byClick = false;
};

} // namespace inchpeg::app
