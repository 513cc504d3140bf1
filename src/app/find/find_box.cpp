// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/find/find_box.h"

#include <QKeyEvent>
#include <QListWidget>

namespace inchpeg::app
{

namespace
{

constexpr int kWidest = 560;
constexpr int kMostRows = 14;

} // namespace

FindBox::FindBox(ProjectSession &session, QWidget *parent) : QLineEdit(parent), m_finder(session)
{
    setObjectName(QStringLiteral("findBox"));
    setAccessibleName(tr("Find in the whole project"));
    setPlaceholderText(tr("Find… (Ctrl+F)"));
    setClearButtonEnabled(true);
    m_list = new QListWidget(this); // owned from the start; moves to the window when it is first shown
    m_list->setObjectName(QStringLiteral("findList"));
    m_list->setAccessibleName(tr("What was found"));
    m_list->setFocusPolicy(Qt::NoFocus);
    m_list->setFrameShape(QFrame::Box);
    m_list->hide();
    connect(this, &QLineEdit::textEdited, &m_finder, &Finder::look);
    connect(this, &QLineEdit::textChanged, this, [this](const QString &text) {
        if (text.isEmpty())
            m_finder.look({});
    });
    connect(&m_finder, &Finder::found, this, &FindBox::showFound);
    connect(&session, &ProjectSession::projectChanged, this, &FindBox::leave); // it was of another project
    connect(m_list, &QListWidget::itemClicked, this, [this] { openRow(m_list->currentRow()); });
}

void FindBox::showFound()
{
    m_list->clear();
    for (const FoundItem &item : m_finder.items())
        m_list->addItem(m_finder.titleOf(item));
    for (const QString &material : m_finder.materials())
        m_list->addItem(tr("Spool: %1").arg(material));
    if (m_list->count() == 0 && text().trimmed().size() > 1) {
        m_list->addItem(tr("Nothing in this project holds “%1”.").arg(text().trimmed()));
        m_list->item(0)->setFlags(Qt::NoItemFlags);
    }
    if (m_list->count() == 0 || !hasFocus()) {
        m_list->hide();
        return;
    }
    m_list->setCurrentRow(0);
    placeList();
    m_list->show();
    m_list->raise();
}

/// Below the box, over whatever is there.
void FindBox::placeList()
{
    QWidget *area = window();
    if (m_list->parentWidget() != area)
        m_list->setParent(area);
    const int row = m_list->sizeHintForRow(0) > 0 ? m_list->sizeHintForRow(0) : fontMetrics().lineSpacing();
    const int rows = std::min(m_list->count(), kMostRows);
    const QPoint right = mapTo(area, QPoint(width(), height() + 2));
    const int wide = std::min(kWidest, right.x() - 8);
    m_list->setGeometry(right.x() - wide, right.y(), wide, rows * row + 8);
}

void FindBox::openRow(int row)
{
    const auto items = static_cast<int>(m_finder.items().size());
    if (row < 0 || row >= m_list->count() || (m_list->item(row)->flags() & Qt::ItemIsEnabled) == 0)
        return;
    if (row < items) {
        const FoundItem item = m_finder.items()[static_cast<std::size_t>(row)];
        leave();
        m_finder.open(item);
        emit opened();
    } else {
        leave();
        emit materialChosen();
    }
}

void FindBox::leave()
{
    clear();
    m_list->hide();
}

void FindBox::keyPressEvent(QKeyEvent *event)
{
    if (event->key() == Qt::Key_Escape) {
        leave();
        if (window() != nullptr)
            window()->setFocus();
    } else if (event->key() == Qt::Key_Down || event->key() == Qt::Key_Up) {
        const int step = event->key() == Qt::Key_Down ? 1 : -1;
        m_list->setCurrentRow(std::clamp(m_list->currentRow() + step, 0, std::max(0, m_list->count() - 1)));
    } else if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && m_list->isVisible()) {
        openRow(m_list->currentRow());
    } else {
        QLineEdit::keyPressEvent(event);
    }
}

void FindBox::focusOutEvent(QFocusEvent *event)
{
    QLineEdit::focusOutEvent(event);
    m_list->hide();
}

} // namespace inchpeg::app
