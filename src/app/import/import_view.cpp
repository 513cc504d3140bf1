// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/import/import_view.h"

#include "app/export/table_copy.h"
#include "app/parts/form_parts.h"
#include "app/parts/test_box.h"

#include <QComboBox>
#include <QFontDatabase>
#include <QGridLayout>
#include <QHeaderView>
#include <QPlainTextEdit>
#include <QProgressBar>
#include <QScrollArea>
#include <QStyle>
#include <QTableView>
#include <QVBoxLayout>

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr qsizetype kPreviewCharacters = 4000;
constexpr int kUnused = -1;

void fillUnits(QComboBox *box, ColumnQuantity quantity, const QString &chosen)
{
    box->clear();
    for (const Unit &unit : allUnits()) {
        if (unit.dimension == dimensionOf(quantity))
            box->addItem(QString::fromUtf8(unit.symbol));
    }
    const int at = box->findText(chosen);
    box->setCurrentIndex(std::max(0, at));
}

/// Extension of the gauge and travel of the crosshead are two choices for a person, one quantity for a file.
constexpr int kCrosshead = 100;
constexpr int kTransverse = 101;

/// What a choice in a column's box stands for.
ColumnQuantity quantityOf(int choice)
{
    return choice == kCrosshead    ? ColumnQuantity::Extension
           : choice == kTransverse ? ColumnQuantity::Strain
                                   : static_cast<ColumnQuantity>(choice);
}

} // namespace

ImportView::ImportView(ProjectSession &session, ImportPresenter &presenter, Prompts &prompts, QWidget *parent)
    : QWidget(parent), m_session(session), m_presenter(presenter), m_prompts(prompts), m_model(presenter)
{
    setObjectName(QStringLiteral("importView"));
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(18, 14, 18, 14);
    layout->addWidget(createList(), 5);
    layout->addWidget(createPreview(), 4);
    connect(&presenter, &ImportPresenter::changed, this, &ImportView::refresh);
    connect(&presenter, &ImportPresenter::loadingChanged, this, &ImportView::refresh);
    connect(&presenter, &ImportPresenter::progressed, this, [this](int done, int total) {
        m_progress->setRange(0, total);
        m_progress->setValue(done);
    });
    connect(&presenter, &ImportPresenter::broughtIn, this, [this] {
        if (m_presenter.entries().empty())
            emit closed();
    });
    connect(&session, &ProjectSession::studyChanged, this, &ImportView::refresh);
    refresh();
}

QWidget *ImportView::createList()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    m_summary = heading({});
    m_summary->setObjectName(QStringLiteral("importSummary"));
    m_summary->setWordWrap(true);
    auto *choose = button("chooseFiles", tr("Choose files…"));
    connect(choose, &QPushButton::clicked, this, &ImportView::chooseFiles);
    m_progress = new QProgressBar;
    m_progress->setAccessibleName(tr("Files read"));
    m_stop = button("stopLoading", tr("Stop"));
    connect(m_stop, &QPushButton::clicked, &m_presenter, &ImportPresenter::cancelLoading);
    connect(m_stop, &QPushButton::clicked, &m_presenter, &ImportPresenter::cancelBringingIn);
    auto *top = new QHBoxLayout;
    top->addWidget(m_summary, 1);
    top->addWidget(m_progress);
    top->addWidget(m_stop);
    top->addWidget(choose);
    layout->addLayout(top);

    m_test = new QComboBox;
    m_test->setObjectName(QStringLiteral("importedTest"));
    m_test->setAccessibleName(tr("Test that the files are records of"));
    connect(m_test, &QComboBox::activated, this, [this] { m_presenter.setTest(chosenTest(*m_test)); });
    m_pattern = new QComboBox;
    m_pattern->setObjectName(QStringLiteral("namePattern"));
    m_pattern->setAccessibleName(tr("Name pattern"));
    m_pattern->setEditable(true);
    m_pattern->setToolTip(tr("{code} is a piece's code, {level} a rail's level, {n} the number of the piece "
                             "on its rail, * anything"));
    for (const std::string_view pattern : usualNamePatterns())
        m_pattern->addItem(QString::fromUtf8(pattern.data(), static_cast<qsizetype>(pattern.size())));
    auto *byName = button("matchByName", tr("Match by name"));
    auto *byOrder = button("matchInOrder", tr("In order"));
    auto *none = button("unmatchAll", tr("None"));
    byOrder->setToolTip(tr("Files in their natural order onto the free pegs, rail by rail"));
    connect(byName, &QPushButton::clicked, this,
            [this] { m_presenter.matchByPattern(m_pattern->currentText()); });
    connect(m_pattern, &QComboBox::activated, this,
            [this] { m_presenter.matchByPattern(m_pattern->currentText()); });
    connect(byOrder, &QPushButton::clicked, &m_presenter, &ImportPresenter::matchInOrder);
    connect(none, &QPushButton::clicked, &m_presenter, &ImportPresenter::unmatchAll);
    auto *matching = new QHBoxLayout;
    matching->addWidget(m_test);
    auto *patternLabel = new QLabel(tr("Pegs by"));
    patternLabel->setBuddy(m_pattern);
    matching->addWidget(patternLabel);
    matching->addWidget(m_pattern, 1);
    matching->addWidget(byName);
    matching->addWidget(byOrder);
    matching->addWidget(none);
    layout->addLayout(matching);

    m_table = new QTableView;
    m_table->setObjectName(QStringLiteral("importTable"));
    m_table->setAccessibleName(tr("Files"));
    m_table->setTabKeyNavigation(false); // Tab goes on to the next field
    m_table->setModel(&m_model);
    m_table->setSelectionBehavior(QAbstractItemView::SelectRows);
    m_table->setSelectionMode(QAbstractItemView::SingleSelection);
    m_table->setDragEnabled(true);
    m_table->setDragDropMode(QAbstractItemView::DragOnly);
    m_table->verticalHeader()->hide();
    m_table->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    m_table->horizontalHeader()->setStretchLastSection(true);
    m_table->setTabKeyNavigation(false);
    m_table->setWordWrap(false);
    offerCopy(*m_table);
    connect(m_table->selectionModel(), &QItemSelectionModel::currentChanged, this,
            [this](const QModelIndex &current) {
                if (current.isValid())
                    m_kept = static_cast<std::size_t>(current.row());
                showEntry();
            });
    layout->addWidget(m_table, 1);
    return box;
}

QWidget *ImportView::createPreview()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 4, 0, 0);
    m_piece = new QComboBox;
    m_piece->setObjectName(QStringLiteral("pieceOfFile"));
    m_piece->setAccessibleName(tr("Peg of the chosen file"));
    connect(m_piece, &QComboBox::activated, this, &ImportView::assignChosenPiece);
    auto *pieceLabel = new QLabel(tr("Peg of this file"));
    pieceLabel->setBuddy(m_piece);
    m_fileTable = new QComboBox;
    m_fileTable->setObjectName(QStringLiteral("tableOfFile"));
    m_fileTable->setAccessibleName(tr("Table of the chosen file"));
    m_fileTable->setToolTip(tr("Which of the file's tables is read"));
    m_fileTable->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    m_fileTable->setMinimumContentsLength(28);
    connect(m_fileTable, &QComboBox::activated, this, &ImportView::tableChosen);
    m_previewTitle = heading({});
    m_previewTitle->setWordWrap(true);
    auto *title = new QHBoxLayout;
    title->addWidget(m_previewTitle, 1);
    title->addWidget(m_fileTable);
    title->addWidget(pieceLabel);
    title->addWidget(m_piece);
    layout->addLayout(title);
    m_columnBox = new QWidget;
    m_columns = new QGridLayout(m_columnBox);
    m_columns->setContentsMargins(0, 0, 0, 0);
    auto *scroll = new QScrollArea;
    scroll->setWidget(m_columnBox);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    scroll->setFixedHeight(116);
    layout->addWidget(scroll);
    m_remark = new QLabel;
    m_remark->setObjectName(QStringLiteral("importRemark"));
    m_remark->setWordWrap(true);
    m_asShown = button("readAsShown", tr("Read it as shown"));
    m_asShown->setToolTip(tr("Take the columns and units above, for all files of this shape"));
    connect(m_asShown, &QPushButton::clicked, this, &ImportView::columnChanged);
    auto *remark = new QHBoxLayout;
    remark->addWidget(m_remark, 1);
    remark->addWidget(m_asShown, 0, Qt::AlignTop);
    layout->addLayout(remark);
    m_text = new QPlainTextEdit;
    m_text->setObjectName(QStringLiteral("rawPreview"));
    m_text->setAccessibleName(tr("First lines of the file"));
    m_text->setReadOnly(true);
    m_text->setTabChangesFocus(true);
    m_text->setLineWrapMode(QPlainTextEdit::NoWrap);
    m_text->setFont(QFontDatabase::systemFont(QFontDatabase::FixedFont));
    layout->addWidget(m_text, 1);
    m_bringIn = button("bringInFiles", {}, true);
    connect(m_bringIn, &QPushButton::clicked, &m_presenter, &ImportPresenter::bringIn);
    auto *close = button("closeImport", tr("Close"));
    connect(close, &QPushButton::clicked, this, [this] {
        m_presenter.clear();
        emit closed();
    });
    auto *actions = new QHBoxLayout;
    actions->addWidget(
        softLabel(tr(
            "A file can also be dragged onto its peg. The bytes are kept as they are, with their SHA-256.")),
        1);
    actions->addWidget(close);
    actions->addWidget(m_bringIn);
    layout->addLayout(actions);
    return box;
}

std::optional<std::size_t> ImportView::chosen() const
{
    const int row = m_table->currentIndex().row();
    if (row < 0 || row >= static_cast<int>(m_presenter.entries().size()))
        return std::nullopt;
    return static_cast<std::size_t>(row);
}

void ImportView::chooseFiles()
{
    const QStringList files =
        m_prompts.filePaths(this, tr("Records of tests"),
                            tr("Records (*.csv *.txt *.tsv *.dat *.asc *.xlsx *.ods);;All files (*)"));
    if (!files.isEmpty())
        m_presenter.addPaths(files);
}

void ImportView::refresh()
{
    offerTests(*m_test, m_session.study(), m_presenter.test(), tr("records of %1"));
    m_summary->setText(m_presenter.isLoading()      ? tr("Reading the files…")
                       : m_presenter.isBringingIn() ? tr("Keeping the files in the project…")
                                                    : m_presenter.summary());
    m_progress->setVisible(m_presenter.isBusy());
    m_stop->setVisible(m_presenter.isBusy());
    for (QWidget *part :
         std::initializer_list<QWidget *>{m_table, m_pattern, m_piece, m_columnBox, m_fileTable})
        part->setEnabled(!m_presenter.isBringingIn()); // what is on its way stays as it is
    const std::size_t ready = m_presenter.readyCount();
    m_bringIn->setText(ready == 1 ? tr("Bring in 1 record") : tr("Bring in %1 records").arg(ready));
    m_bringIn->setEnabled(ready > 0 && !m_presenter.isBusy());
    if (!m_presenter.pattern().isEmpty())
        m_pattern->setEditText(m_presenter.pattern());
    m_table->resizeColumnToContents(EntryTableModel::File);
    m_table->resizeColumnToContents(EntryTableModel::Place);
    m_table->setColumnWidth(EntryTableModel::File,
                            std::min(260, m_table->columnWidth(EntryTableModel::File) + 10));
    m_table->setColumnWidth(EntryTableModel::Place, m_table->columnWidth(EntryTableModel::Place) + 10);
    if (m_model.rowCount() > 0)
        m_table->setCurrentIndex(
            m_model.index(std::min(static_cast<int>(m_kept), m_model.rowCount() - 1), 0));
    showEntry();
}

void ImportView::showEntry()
{
    const std::optional<std::size_t> index = chosen();
    m_piece->clear();
    m_piece->setEnabled(index.has_value());
    if (!index) {
        m_previewTitle->clear();
        m_text->clear();
        fillTables({});
        fillColumns({});
        showRemark({});
        return;
    }
    const ImportPresenter::Entry &entry = m_presenter.entries()[*index];
    m_piece->addItem(tr("no peg"), QVariant::fromValue(qint64{0}));
    if (const Study *study = m_session.study()) {
        for (const Piece &piece : study->pieces) {
            if (piece.recording || piece.test != m_presenter.test())
                continue;
            m_piece->addItem(QString::fromStdString(piece.code), QVariant::fromValue(qint64{piece.id.value}));
            if (entry.piece == piece.id)
                m_piece->setCurrentIndex(m_piece->count() - 1);
        }
    }
    m_previewTitle->setText(entry.file.found
                                ? tr("How %1 is understood").arg(QString::fromStdString(entry.file.name))
                                : m_presenter.stateText(entry));
    m_text->setPlainText(entry.file.text
                             ? QString::fromUtf8(entry.file.text->utf8.data(),
                                                 static_cast<qsizetype>(std::min<std::size_t>(
                                                     entry.file.text->utf8.size(), kPreviewCharacters)))
                             : QString());
    fillTables(entry.file);
    fillColumns(entry);
    showRemark(entry.file);
}

void ImportView::fillColumns(const ImportPresenter::Entry &entry)
{
    const std::optional<Layout> &layout = entry.file.layout;
    const std::size_t count = layout ? layout->columns.size() : 0;
    // The boxes of a table stay while its mapping changes, so that the keyboard stays where it is.
    const std::string shown =
        fmt::format("{}\n{}", entry.file.path, layout ? layout->headingLine.value_or(0) : 0);
    if (m_columnsOf != shown || m_quantities.size() != count) {
        m_columnsOf = shown;
        clearColumns();
        for (std::size_t column = 0; column < count; ++column)
            addColumn(static_cast<int>(column), QString::fromStdString(layout->columns[column].name));
    }
    for (std::size_t column = 0; column < count; ++column) {
        const Column &understood = layout->columns[column];
        const int wanted = !understood.quantity      ? kUnused
                           : understood.isCrosshead  ? kCrosshead
                           : understood.isTransverse ? kTransverse
                                                     : static_cast<int>(*understood.quantity);
        m_quantities[column]->setCurrentIndex(std::max(0, m_quantities[column]->findData(wanted)));
        if (understood.quantity)
            fillUnits(m_units[column], *understood.quantity,
                      understood.unit ? QString::fromUtf8(understood.unit->symbol) : QString());
        m_units[column]->setEnabled(understood.quantity.has_value());
    }
}

void ImportView::clearColumns()
{
    m_quantities.clear();
    m_units.clear();
    while (QLayoutItem *item = m_columns->takeAt(0)) {
        delete item->widget();
        delete item;
    }
}

void ImportView::addColumn(int column, const QString &name)
{
    auto *quantity = new QComboBox;
    quantity->setObjectName(QStringLiteral("quantity%1").arg(column));
    quantity->setAccessibleName(tr("Quantity of column %1").arg(name));
    quantity->addItem(tr("not used"), kUnused);
    const Reduction *reduction = m_presenter.reduction();
    for (const RecordColumn &wanted : // what the test reads
         reduction != nullptr ? reduction->columns : std::span<const RecordColumn>()) {
        if (wanted.isTransverse)
            quantity->addItem(tr("strain across the pull"), kTransverse);
        else
            quantity->addItem(QString::fromUtf8(quantityName(wanted.quantity)),
                              static_cast<int>(wanted.quantity));
    }
    quantity->addItem(tr("crosshead travel"), kCrosshead);
    auto *unit = new QComboBox;
    unit->setObjectName(QStringLiteral("unit%1").arg(column));
    unit->setAccessibleName(tr("Unit of column %1").arg(name));
    connect(quantity, &QComboBox::activated, this, [this, quantity, unit] {
        const int chosen = quantity->currentData().toInt();
        if (chosen != kUnused)
            fillUnits(unit, quantityOf(chosen), unit->currentText());
        columnChanged();
    });
    connect(unit, &QComboBox::activated, this, &ImportView::columnChanged);
    m_columns->addWidget(new QLabel(name), 0, column);
    m_columns->addWidget(quantity, 1, column);
    m_columns->addWidget(unit, 2, column);
    m_columns->setColumnStretch(column, 0);
    m_columns->setColumnStretch(column + 1, 1);
    m_columns->setRowStretch(3, 1);
    m_quantities.push_back(quantity);
    m_units.push_back(unit);
}

void ImportView::showRemark(const ImportFile &file)
{
    QStringList lines;
    if (file.problem)
        lines << QString::fromStdString(errorSentence(*file.problem));
    for (const std::string &warning : file.warnings)
        lines << QString::fromStdString(warning);
    m_remark->setText(lines.join(QLatin1Char('\n')));
    m_remark->setVisible(!lines.isEmpty());
    m_remark->setProperty("role", file.problem ? QStringLiteral("warning") : QStringLiteral("soft"));
    m_remark->style()->unpolish(m_remark);
    m_remark->style()->polish(m_remark);
    m_asShown->setVisible(ImportPresenter::isAsked(file));
}

void ImportView::columnChanged()
{
    const std::optional<std::size_t> index = chosen();
    if (!index)
        return;
    ColumnMapping mapping{m_presenter.entries()[*index].file.mapping.table, {}};
    for (std::size_t c = 0; c < m_quantities.size(); ++c) {
        const int quantity = m_quantities[c]->currentData().toInt();
        if (quantity == kUnused)
            mapping.columns.emplace_back();
        else
            mapping.columns.push_back({quantityOf(quantity), m_units[c]->currentText().toStdString(),
                                       quantity == kCrosshead, quantity == kTransverse});
    }
    m_presenter.setMapping(*index, mapping);
}

void ImportView::fillTables(const ImportFile &file)
{
    m_fileTable->clear();
    m_fileTable->setVisible(!file.tables.empty() && !file.specimen);
    for (std::size_t i = 0; i < file.tables.size(); ++i) {
        m_fileTable->addItem(ImportPresenter::tableText(file, i));
        if (file.layout &&
            file.tables[i].textLine == file.layout->headingLine.value_or(file.layout->headerLines + 1))
            m_fileTable->setCurrentIndex(static_cast<int>(i));
    }
}

void ImportView::tableChosen()
{
    if (const std::optional<std::size_t> index = chosen())
        m_presenter.setTable(*index, static_cast<std::size_t>(m_fileTable->currentIndex()) + 1);
}

void ImportView::assignChosenPiece()
{
    const std::optional<std::size_t> index = chosen();
    if (!index)
        return;
    const qint64 piece = m_piece->currentData().toLongLong();
    m_presenter.assign(*index, piece == 0 ? std::nullopt : std::optional(PieceId{piece}));
}

} // namespace inchpeg::app
