// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/parts/typing_helpers.h"

#include <QComboBox>
#include <QFocusEvent>
#include <QKeyEvent>
#include <QLineEdit>

namespace inchpeg::app
{

EditStarter::EditStarter(QTableView &table, std::function<bool(const QModelIndex &)> isChoice)
    : QObject(&table), m_table(table), m_isChoice(std::move(isChoice))
{
    table.setEditTriggers(QAbstractItemView::AnyKeyPressed | QAbstractItemView::DoubleClicked |
                          QAbstractItemView::EditKeyPressed | QAbstractItemView::SelectedClicked);
    table.installEventFilter(this);
    connect(&table, &QTableView::clicked, this, [this](const QModelIndex &index) {
        if (m_isChoice(index) && !isEditing())
            open(index);
    });
}

/// Editors of cells are children of the viewport.
bool EditStarter::isEditing() const
{
    for (const QObject *child : m_table.viewport()->children()) {
        const auto *widget = qobject_cast<const QWidget *>(child);
        if (widget != nullptr && widget->isVisible())
            return true;
    }
    return false;
}

void EditStarter::open(const QModelIndex &index)
{
    m_table.edit(index);
    auto *box = m_table.viewport()->findChild<QComboBox *>();
    if (box != nullptr && box->isVisible() && m_isChoice(index))
        box->showPopup();
}

bool EditStarter::eventFilter(QObject *, QEvent *event)
{
    if (event->type() != QEvent::KeyPress || isEditing())
        return false;
    const int key = static_cast<QKeyEvent *>(event)->key();
    const QModelIndex index = m_table.currentIndex();
    if ((key != Qt::Key_Return && key != Qt::Key_Enter) || !index.flags().testFlag(Qt::ItemIsEditable))
        return false;
    open(index);
    return true;
}

ChooseAllOnClick::ChooseAllOnClick(QLineEdit &edit) : QObject(&edit), m_edit(edit)
{
    edit.installEventFilter(this);
}

bool ChooseAllOnClick::eventFilter(QObject *, QEvent *event)
{
    if (event->type() == QEvent::FocusIn)
        m_byClick = static_cast<QFocusEvent *>(event)->reason() == Qt::MouseFocusReason;
    if (event->type() == QEvent::MouseButtonRelease && m_byClick) {
        m_byClick = false;
        if (!m_edit.hasSelectedText())
            m_edit.selectAll();
    }
    return false;
}

} // namespace inchpeg::app
