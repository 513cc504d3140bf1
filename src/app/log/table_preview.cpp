// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/table_preview.h"

#include "app/parts/page_parts.h"
#include "core/logbook/change_log.h"
#include "core/logbook/log_table.h"
#include "core/logbook/record_tables.h"

#include <QCheckBox>
#include <QHeaderView>
#include <QTableView>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr qsizetype kShownProblems = 6;

bool overwrites(const PreviewRow &row)
{
    return !row.before.isEmpty();
}

QString codeOf(const Study &study, PieceId id)
{
    const Piece *piece = findPiece(study, id);
    return piece != nullptr ? QString::fromStdString(piece->code) : QString();
}

/// Tries a change on a copy of the study, to show what it would do.
std::optional<Preview> previewOf(ProjectSession &session, Preview preview)
{
    const Study &before = *session.study();
    Study after = before;
    if (!session.tell(preview.take(after, true)))
        return std::nullopt;
    for (const LoggedChange &change : loggedChanges(before, after, {}, {}))
        preview.rows.push_back({change.piece, codeOf(before, change.piece),
                                QString::fromStdString(change.what), QString::fromStdString(change.before),
                                QString::fromStdString(change.after)});
    return preview;
}

/// The preview of a table that is read as a list and taken as a whole.
template <typename Read, typename Take>
std::optional<Preview> wholeTable(ProjectSession &session, const QString &text, Read read, Take take,
                                  Preview preview)
{
    auto records = read(text.toStdString());
    if (!records) {
        session.tell(records.error());
        return std::nullopt;
    }
    preview.tableRows = records->size();
    preview.take = [records = std::move(*records), take](Study &study, bool) { return take(study, records); };
    return previewOf(session, std::move(preview));
}

} // namespace

std::optional<Preview> measurementsPreview(ProjectSession &session, const QString &text)
{
    const Study &study = *session.study();
    Result<TakenTable> table = readLogTable(study, text.toStdString(), session.workshop().labPrefix);
    if (!table) {
        session.tell(table.error());
        return std::nullopt;
    }
    Preview preview;
    preview.edit = TablePreview::tr("take a table of measurements");
    QStringList columns;
    for (const TakenColumn &column : table->columns)
        columns << TablePreview::tr("“%1”: %2")
                       .arg(QString::fromStdString(column.heading), QString::fromStdString(column.meaning));
    preview.understood = columns.join(QLatin1Char('\n'));
    for (const Error &problem : table->problems)
        preview.problems << QString::fromStdString(errorSentence(problem));
    const auto withUnit = [&study](const LogPlace &place) {
        const QString name = QString::fromStdString(placeName(study.log.measuring, place));
        const std::string_view unit = logUnit(place.field);
        return unit.empty() ? name : TablePreview::tr("%1 in %2").arg(name, QString::fromUtf8(unit));
    };
    for (const TakenValue &value : table->values)
        preview.rows.push_back({value.piece, codeOf(study, value.piece), withUnit(value.place),
                                QString::fromStdString(value.before), QString::fromStdString(value.after)});
    preview.tableRows = table->rows;
    preview.unchanged = table->unchanged;
    preview.asksToReplace = true;
    preview.take = [table = std::move(*table), gauges = session.measuringGauges()](Study &changed,
                                                                                   bool replace) {
        return takeLogTable(changed, table, replace, gauges);
    };
    return preview;
}

std::optional<Preview> plateRecordsPreview(ProjectSession &session, const QString &text)
{
    Preview preview;
    preview.edit = TablePreview::tr("take a table of plates' records");
    preview.understood = TablePreview::tr("Records of plates. A record takes the place of the one that its "
                                          "plate has.");
    return wholeTable(session, text, &readPlateTable, &takePlateRecords, std::move(preview));
}

std::optional<Preview> timedStepsPreview(ProjectSession &session, const QString &text)
{
    Preview preview;
    preview.edit = TablePreview::tr("take a table of timed steps");
    preview.understood = TablePreview::tr("Timed steps. A step takes the place of the one of its kind that "
                                          "started at the same time for the same plates.");
    return wholeTable(session, text, &readStepTable, &takeSteps, std::move(preview));
}

void PreviewModel::set(std::vector<PreviewRow> rows)
{
    beginResetModel();
    m_rows = std::move(rows);
    endResetModel();
}

int PreviewModel::rowCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(m_rows.size());
}

int PreviewModel::columnCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : 4;
}

QVariant PreviewModel::data(const QModelIndex &index, int role) const
{
    if (!index.isValid())
        return {};
    const PreviewRow &row = m_rows[static_cast<std::size_t>(index.row())];
    if (role == Qt::FontRole && overwrites(row)) {
        QFont font;
        font.setBold(true);
        return font;
    }
    if (role != Qt::DisplayRole && role != Qt::ToolTipRole)
        return {};
    const QString *const texts[] = {&row.code, &row.what, &row.before, &row.after};
    return *texts[index.column()];
}

QVariant PreviewModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole)
        return {};
    const QString names[] = {tr("Piece"), tr("What"), tr("Now"), tr("In the table")};
    return names[section];
}

TablePreview::TablePreview(ProjectSession &session, QWidget *parent) : QDialog(parent), m_session(session)
{
    setObjectName(QStringLiteral("tablePreview"));
    setWindowTitle(tr("Take a table into the log"));
    setModal(true);
    resize(660, 560);
    m_understood = new QLabel;
    m_understood->setObjectName(QStringLiteral("tableColumns"));
    m_understood->setWordWrap(true);
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
    buttons->addWidget(m_replace);
    buttons->addStretch(1);
    buttons->addWidget(leave);
    buttons->addWidget(m_take);
    auto *layout = new QVBoxLayout(this);
    layout->addWidget(heading(tr("How the table is understood")));
    layout->addWidget(m_understood);
    layout->addWidget(m_problems);
    layout->addWidget(heading(tr("What would change")));
    layout->addWidget(m_summary);
    layout->addWidget(m_table, 1);
    layout->addLayout(buttons);
    connect(m_replace, &QCheckBox::toggled, this, &TablePreview::refresh);
    connect(leave, &QPushButton::clicked, this, &QDialog::reject);
    connect(m_take, &QPushButton::clicked, this, &TablePreview::take);
}

void TablePreview::show(Preview preview)
{
    m_preview = std::move(preview);
    m_model.set(m_preview.rows);
    const bool anyPiece = std::any_of(m_preview.rows.begin(), m_preview.rows.end(),
                                      [](const PreviewRow &row) { return row.piece.value != 0; });
    m_table->setColumnHidden(0, !anyPiece);
    m_understood->setText(m_preview.understood);
    QStringList problems = m_preview.problems;
    if (problems.size() > kShownProblems)
        problems = problems.mid(0, kShownProblems)
                   << tr("… and %1 more").arg(problems.size() - kShownProblems);
    m_problems->setVisible(!problems.isEmpty());
    m_problems->setText(problems.join(QLatin1Char('\n')));
    m_replace->setChecked(!m_preview.asksToReplace);
    refresh();
    open();
}

void TablePreview::refresh()
{
    const auto replaced = std::count_if(m_preview.rows.begin(), m_preview.rows.end(), overwrites);
    const auto all = static_cast<std::ptrdiff_t>(m_preview.rows.size());
    QString summary = tr("%1 rows: %2 new values, %3 that differ from what is there")
                          .arg(m_preview.tableRows)
                          .arg(all - replaced)
                          .arg(replaced);
    if (m_preview.unchanged > 0)
        summary += tr(", %1 that agree").arg(m_preview.unchanged);
    m_summary->setText(summary + QLatin1Char('.'));
    m_replace->setVisible(m_preview.asksToReplace && replaced > 0);
    const auto taken = m_replace->isChecked() ? all : all - replaced;
    m_take->setText(taken == 1 ? tr("Take 1 value") : tr("Take %1 values").arg(taken));
    m_take->setEnabled(taken > 0);
}

void TablePreview::take()
{
    if (m_session.tryEdit(m_preview.edit,
                          [this](Study &study) { return m_preview.take(study, m_replace->isChecked()); })) {
        accept();
        for (const PreviewRow &row : m_preview.rows) {
            if (row.piece.value != 0)
                emit taken(row.piece);
        }
    }
}

} // namespace inchpeg::app
