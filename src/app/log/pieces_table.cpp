// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/pieces_table.h"

#include "app/parts/page_parts.h"
#include "core/model/study_edit.h"

#include <QHeaderView>
#include <QKeyEvent>
#include <QPointer>
#include <QScopedValueRollback>
#include <QSettings>

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

const QString &goesDownSetting()
{
    static const QString kName = QStringLiteral("typingGoesDown");
    return kName;
}

} // namespace

PiecesGrid::PiecesGrid(TypedPiecesModel &model, QWidget *parent)
    : ReadingsGrid(model, "piecesGrid", tr("Readings of all pieces"), parent), m_pieces(model)
{
    setAlternatingRowColors(true);
    verticalHeader()->setDefaultSectionSize(26);
    horizontalHeader()->setDefaultAlignment(Qt::AlignCenter | Qt::Alignment(Qt::TextWordWrap));
    horizontalHeader()->setMinimumHeight(2 * fontMetrics().height() + 8); // two lines in a narrow window
}

void PiecesGrid::goOn()
{
    const QModelIndex at = currentIndex();
    if (!at.isValid())
        return;
    const int lastRow = m_pieces.rowCount() - 1;
    const int lastColumn = m_pieces.columnCount() - 1;
    const bool ends = m_goesDown ? at.row() == lastRow : at.column() == lastColumn;
    if (m_goesDown)
        setCurrentIndex(ends ? m_pieces.index(0, std::min(at.column() + 1, lastColumn))
                             : m_pieces.index(at.row() + 1, at.column()));
    else
        setCurrentIndex(ends ? m_pieces.index(std::min(at.row() + 1, lastRow), TypedPiecesModel::kFirstTyped)
                             : m_pieces.index(at.row(), at.column() + 1));
}

void PiecesGrid::pasteText(const QString &text)
{
    emit pasted(m_pieces.paste(currentIndex(), text));
}

void PiecesGrid::keyPressEvent(QKeyEvent *event)
{
    if (event->key() == Qt::Key_Escape && state() != EditingState)
        m_pieces.forget(m_pieces.pieceAt(currentIndex().row()));
    else
        ReadingsGrid::keyPressEvent(event);
}

PiecesTable::PiecesTable(ProjectSession &session, QWidget *parent)
    : QWidget(parent), m_session(session), m_model(session)
{
    setObjectName(QStringLiteral("piecesTable"));
    m_grid = new PiecesGrid(m_model);
    m_hint = softLabel({});
    m_hint->setObjectName(QStringLiteral("piecesHint"));
    m_enter = comboBox("enterGoes", tr("Where Enter goes"));
    m_enter->addItem(tr("Enter goes along"));
    m_enter->addItem(tr("Enter goes down"));
    m_enter->setMinimumContentsLength(14);
    const bool down = QSettings().value(goesDownSetting()).toBool();
    m_enter->setCurrentIndex(down ? 1 : 0);
    m_grid->setGoesDown(down);
    m_gauge = lineEdit("piecesTypedFrom", tr("What the readings were read from"),
                       tr("read from: dial, scale, pointer …"));
    m_keep = button("keepPieces", tr("Keep"), true);
    m_keep->setToolTip(
        tr("Ctrl+Enter. A row is kept by itself as well, when it is left and is whole. What is kept "
           "stays as it was typed; a correction is a further record"));
    auto *actions = new QHBoxLayout;
    actions->addWidget(m_enter);
    actions->addWidget(m_gauge, 1);
    actions->addWidget(m_keep);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(m_hint);
    layout->addWidget(m_grid, 1);
    layout->addLayout(actions);
    connect(m_enter, &QComboBox::activated, this, [this](int choice) {
        QSettings().setValue(goesDownSetting(), choice == 1);
        m_grid->setGoesDown(choice == 1);
        m_grid->setFocus();
    });
    connect(m_keep, &QPushButton::clicked, this, [this] { keep(true); });
    connect(m_grid, &ReadingsGrid::keepRequested, this, [this] { keep(true); });
    connect(m_grid, &PiecesGrid::pasted, this, [this](int lost) {
        keep(true);
        if (lost > 0)
            m_session.tell(
                invalidArgument(fmt::format("{} pasted {} no row: there are {} pieces", lost,
                                            lost == 1 ? "line has" : "lines have", m_model.rowCount())));
    });
    connect(&m_model, &TypedPiecesModel::typed, this, &PiecesTable::refreshWords);
    connect(m_grid->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this](const QModelIndex &now, const QModelIndex &before) {
                if (m_isChoosing)
                    return;
                const QScopedValueRollback choosing(m_isChoosing, true);
                if (before.isValid())
                    keep(false);
                if (now.isValid())
                    m_session.selectPiece(m_model.pieceAt(now.row()));
            });
    connect(&session, &ProjectSession::selectionChanged, this, &PiecesTable::selectRowOfPiece);
}

void PiecesTable::refresh(std::optional<Method> test)
{
    {
        const QScopedValueRollback choosing(m_isChoosing, true);
        m_model.show(test);
    }
    selectRowOfPiece();
    refreshWords();
}

void PiecesTable::focusTable()
{
    m_grid->setFocus();
}

void PiecesTable::selectRowOfPiece()
{
    if (m_isChoosing)
        return;
    const QScopedValueRollback choosing(m_isChoosing, true);
    const int row = m_model.rowOf(m_session.selectedPiece());
    const QModelIndex at = m_grid->currentIndex();
    if (row >= 0 && row != at.row())
        m_grid->setCurrentIndex(
            m_model.index(row, at.isValid() ? at.column() : TypedPiecesModel::kFirstTyped));
    else if (!at.isValid() && m_model.rowCount() > 0)
        m_grid->setCurrentIndex(m_model.index(0, TypedPiecesModel::kFirstTyped));
}

void PiecesTable::refreshWords()
{
    const bool canType = m_model.rowCount() > 0 && !m_session.isForReading();
    m_grid->setEnabled(canType);
    m_gauge->setEnabled(canType);
    const std::size_t open = m_model.typedPieces().size();
    m_keep->setEnabled(canType && open > 0);
    if (m_model.rowCount() == 0)
        m_hint->setText(
            tr("There are no pieces yet: make the rails in Ask & plan, and their pieces stand here."));
    else if (open > 0)
        m_hint->setText(
            tr("%n rows are typed and not kept yet (*). A row is kept when it is left and is whole.", nullptr,
               static_cast<int>(open)));
    else
        m_hint->setText(
            tr("A row a piece. Units may be typed (23.4 kgf); rows from a spreadsheet can be pasted, "
               "with or without the codes of the pieces in front."));
}

void PiecesTable::keep(bool tellAll)
{
    if (m_session.study() == nullptr || m_session.isForReading() || m_session.rawIntake().isBusy())
        return;
    std::vector<RawFileToKeep> files;
    std::vector<std::pair<PieceId, TypedRow>> rows;
    std::optional<Error> first;
    for (const PieceId id : m_model.typedPieces()) {
        const Result<std::string> text = m_model.recordOf(id, m_gauge->text().simplified().toStdString());
        if (!text) {
            const std::string code = findPiece(*m_session.study(), id)->code;
            m_model.setTrouble(id, QString::fromStdString(text.error().message));
            if (!first)
                first = invalidArgument(fmt::format("{}: {}", code, text.error().message));
            continue;
        }
        files.push_back(
            {{},
             fmt::format("typed {} {}.csv", findPiece(*m_session.study(), id)->code, m_session.today()),
             {},
             std::make_shared<const std::string>(*text)});
        rows.emplace_back(id, m_model.typedRow(id));
    }
    if (tellAll && first)
        m_session.tell(*first);
    if (files.empty())
        return;
    m_session.tell(
        m_session.keepRawFiles(std::move(files), [self = QPointer(this), study = m_session.study()->id,
                                                  rows](const KeptRawFiles &kept) {
            if (self != nullptr)
                self->link(study, rows, kept);
        }));
}

void PiecesTable::link(StudyId study, const std::vector<std::pair<PieceId, TypedRow>> &rows,
                       const KeptRawFiles &kept)
{
    if (!m_session.tell(kept.status) || kept.ids.empty())
        return;
    const bool isLinked =
        m_session.tell(m_session.editStudy(study, tr("keep typed readings"), [&](Study &changed) -> Status {
            for (std::size_t i = 0; i < kept.ids.size() && i < rows.size(); ++i) {
                Piece *piece = findPiece(changed, rows[i].first);
                if (piece == nullptr)
                    return invalidArgument("a piece is no longer there");
                Recording recording;
                recording.file = kept.ids[i];
                recording.gauge = m_session.rigToday(changed, piece->test);
                setRecording(*piece, std::move(recording));
            }
            return ok();
        }));
    if (!isLinked)
        return;
    for (std::size_t i = 0; i < kept.ids.size() && i < rows.size(); ++i)
        m_model.wasKept(rows[i].first, rows[i].second);
    refreshWords();
}

/// Nothing that was typed is lost by going to another page; what is not whole waits in its row.
void PiecesTable::hideEvent(QHideEvent *event)
{
    keep(false);
    QWidget::hideEvent(event);
}

} // namespace inchpeg::app
