// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/table_preview.h"

#include "app/parts/page_parts.h"

#include <QCheckBox>
#include <QHeaderView>
#include <QTableView>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr qsizetype kShownProblems = 6;

} // namespace

TakenValueModel::TakenValueModel(ProjectSession &session, QObject *parent)
    : QAbstractTableModel(parent), m_session(session)
{
}

void TakenValueModel::set(const TakenTable &table)
{
    beginResetModel();
    m_table = table;
    endResetModel();
}

int TakenValueModel::rowCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(m_table.values.size());
}

int TakenValueModel::columnCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : 4;
}

QVariant TakenValueModel::data(const QModelIndex &index, int role) const
{
    if (!index.isValid() || m_session.study() == nullptr)
        return {};
    const TakenValue &value = m_table.values[static_cast<std::size_t>(index.row())];
    if (role == Qt::FontRole && value.overwrites()) {
        QFont font;
        font.setBold(true);
        return font;
    }
    if (role != Qt::DisplayRole)
        return {};
    const Study &study = *m_session.study();
    const Piece *piece = findPiece(study, value.piece);
    switch (index.column()) {
    case 0:
        return piece != nullptr ? QString::fromStdString(piece->code) : QString();
    case 1:
        return QString::fromStdString(placeName(study.log.measuring, value.place));
    case 2:
        return QString::fromStdString(value.before);
    default:
        return QString::fromStdString(value.after);
    }
}

QVariant TakenValueModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole)
        return {};
    const QString names[] = {tr("Piece"), tr("What"), tr("Now"), tr("In the table")};
    return names[section];
}

TablePreview::TablePreview(ProjectSession &session, QWidget *parent)
    : QDialog(parent), m_session(session), m_model(session)
{
    setObjectName(QStringLiteral("tablePreview"));
    setWindowTitle(tr("Take a table into the log"));
    setModal(true);
    resize(620, 560);
    m_columns = new QLabel;
    m_columns->setObjectName(QStringLiteral("tableColumns"));
    m_columns->setWordWrap(true);
    m_summary = new QLabel;
    m_summary->setObjectName(QStringLiteral("tableSummary"));
    m_summary->setWordWrap(true);
    m_problems = new QLabel;
    m_problems->setObjectName(QStringLiteral("tableProblems"));
    m_problems->setProperty("role", QStringLiteral("warning"));
    m_problems->setWordWrap(true);
    m_table = new QTableView;
    m_table->setObjectName(QStringLiteral("takenValues"));
    m_table->setAccessibleName(tr("What would change"));
    m_table->setModel(&m_model);
    m_table->verticalHeader()->hide();
    m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    m_table->setTabKeyNavigation(false);
    m_replace = new QCheckBox(tr("Replace values that are there (bold)"));
    m_replace->setObjectName(QStringLiteral("replaceValues"));
    m_take = button("takeTable", tr("Take it"), true);
    auto *leave = button("leaveTable", tr("Leave it"));
    auto *buttons = new QHBoxLayout;
    buttons->addWidget(m_replace, 1);
    buttons->addWidget(leave);
    buttons->addWidget(m_take);
    auto *layout = new QVBoxLayout(this);
    layout->addWidget(heading(tr("How the columns are understood")));
    layout->addWidget(m_columns);
    layout->addWidget(m_problems);
    layout->addWidget(heading(tr("What would change")));
    layout->addWidget(m_summary);
    layout->addWidget(m_table, 1);
    layout->addLayout(buttons);
    connect(m_replace, &QCheckBox::toggled, this, &TablePreview::refresh);
    connect(leave, &QPushButton::clicked, this, &QDialog::reject);
    connect(m_take, &QPushButton::clicked, this, &TablePreview::take);
}

void TablePreview::show(const QString &text)
{
    Result<TakenTable> table =
        readLogTable(*m_session.study(), text.toStdString(), m_session.workshop().labPrefix);
    if (!table) {
        m_session.tell(table.error());
        return;
    }
    m_read = std::move(*table);
    m_model.set(m_read);
    QStringList columns;
    for (const TakenColumn &column : m_read.columns)
        columns << tr("“%1”: %2")
                       .arg(QString::fromStdString(column.heading), QString::fromStdString(column.meaning));
    m_columns->setText(columns.join(QLatin1Char('\n')));
    QStringList problems;
    for (const std::string &problem : m_read.problems)
        problems << QString::fromStdString(problem);
    if (problems.size() > kShownProblems)
        problems = problems.mid(0, kShownProblems)
                   << tr("… and %1 more").arg(problems.size() - kShownProblems);
    m_problems->setVisible(!problems.isEmpty());
    m_problems->setText(problems.join(QLatin1Char('\n')));
    m_replace->setChecked(false);
    refresh();
    open();
}

void TablePreview::refresh()
{
    const auto overwrites = std::count_if(m_read.values.begin(), m_read.values.end(),
                                          [](const TakenValue &value) { return value.overwrites(); });
    const auto all = static_cast<std::ptrdiff_t>(m_read.values.size());
    m_summary->setText(tr("%1 rows: %2 new values, %3 that differ from what is there, %4 that agree.")
                           .arg(m_read.rows)
                           .arg(all - overwrites)
                           .arg(overwrites)
                           .arg(m_read.unchanged));
    m_replace->setVisible(overwrites > 0);
    const auto taken = m_replace->isChecked() ? all : all - overwrites;
    m_take->setText(taken == 1 ? tr("Take 1 value") : tr("Take %1 values").arg(taken));
    m_take->setEnabled(taken > 0);
}

void TablePreview::take()
{
    if (m_session.tryEdit(tr("take a table of measurements"), [this](Study &study) {
            return takeLogTable(study, m_read, m_replace->isChecked());
        })) {
        accept();
        for (const TakenValue &value : m_read.values)
            emit taken(value.piece);
    }
}

} // namespace inchpeg::app
