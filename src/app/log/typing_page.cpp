// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/typing_page.h"

#include "app/log/pieces_table.h"
#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"
#include "core/model/study_edit.h"

#include <QHeaderView>
#include <QPointer>
#include <QVBoxLayout>

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::app
{

TypingTable::TypingTable(TypedRowsModel &model, QWidget *parent)
    : ReadingsGrid(model, "typingTable", tr("Readings of the selected piece"), parent), m_rows(model)
{
    verticalHeader()->setDefaultSectionSize(30);
}

void TypingTable::goOn()
{
    const QModelIndex at = currentIndex();
    const bool rowEnds = at.column() + 1 >= m_rows.columnCount();
    setCurrentIndex(rowEnds ? m_rows.index(std::min(at.row() + 1, m_rows.rowCount() - 1), 0)
                            : m_rows.index(at.row(), at.column() + 1));
}

void TypingTable::pasteText(const QString &text)
{
    const QModelIndex at = currentIndex();
    m_rows.paste(at, text);
    setCurrentIndex(m_rows.index(m_rows.rowCount() - 1, at.isValid() ? at.column() : 0));
}

TypingPage::TypingPage(ProjectSession &session, QWidget *parent)
    : QWidget(parent), m_session(session), m_model([&session] { return session.now(); })
{
    setObjectName(QStringLiteral("typingPage"));
    m_title = heading({});
    m_title->setObjectName(QStringLiteral("typingTitle"));
    m_title->setWordWrap(true);
    m_hint = softLabel({});
    m_hint->setObjectName(QStringLiteral("typingHint"));
    m_table = new TypingTable(m_model);
    m_gauge = lineEdit("typedFrom", tr("What the readings were read from"),
                       tr("read from: dial, scale, pointer …"));
    m_keep = button("keepTyped", tr("Keep as record"), true);
    connect(m_table, &TypingTable::keepRequested, this, &TypingPage::keep);
    m_keep->setToolTip(
        tr("Ctrl+Enter. What is kept stays as it was typed; a correction is a further record"));
    connect(m_keep, &QPushButton::clicked, this, &TypingPage::keep);
    auto *actions = new QHBoxLayout;
    actions->addWidget(m_gauge, 1);
    actions->addWidget(m_keep);
    m_form = button("typingForm", {});
    connect(m_form, &QPushButton::clicked, this, [this] {
        m_isOnePiece = !m_isOnePiece;
        refresh();
        if (m_isOnePiece)
            m_table->setFocus();
        else
            m_pieces->focusTable();
    });
    auto *top = new QHBoxLayout;
    top->addWidget(m_title, 1);
    top->addWidget(m_form);
    m_card = new QWidget;
    auto *card = new QVBoxLayout(m_card);
    card->setContentsMargins(0, 0, 0, 0);
    card->addWidget(m_hint);
    card->addWidget(m_table, 1);
    card->addLayout(actions);
    m_pieces = new PiecesTable(session);
    m_pieces->hide();
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(14, 12, 14, 12);
    layout->addLayout(top);
    layout->addWidget(m_card, 1);
    layout->addWidget(m_pieces, 1);
    connect(&m_model, &TypedRowsModel::typed, this, [this] {
        m_isTyped = true;
        refreshWords();
    });
    connect(&session, &ProjectSession::selectionChanged, this, &TypingPage::refresh);
    connect(&session, &ProjectSession::notationChanged, this, [this] {
        if (!m_isTyped)
            showPiece();
    });
}

const Piece *TypingPage::piece() const
{
    return m_session.study() != nullptr ? findPiece(*m_session.study(), m_session.selectedPiece()) : nullptr;
}

const Reduction *TypingPage::reduction() const
{
    const Piece *selected = piece();
    return selected != nullptr ? reductionOf(selected->test) : nullptr;
}

/// The table of all pieces where the test has a row a piece, unless the card of one was asked for.
void TypingPage::showForm()
{
    const Piece *selected = piece();
    const Study *study = m_session.study();
    const std::optional<Method> test = selected != nullptr ? std::optional(selected->test)
                                       : study != nullptr
                                           ? std::optional(m_session.shownTest().value_or(methodOf(*study)))
                                           : std::nullopt;
    const bool mayBeTable = test && TypedPiecesModel::isFor(*test);
    const bool isTable = mayBeTable && !m_isOnePiece;
    m_form->setVisible(mayBeTable);
    m_form->setText(m_isOnePiece ? tr("All pieces") : tr("One piece"));
    if (isTable) {
        m_pieces->refresh(test);
        m_title->setText(QString::fromUtf8(methodName(*test)));
    }
    m_card->setVisible(!isTable);
    m_pieces->setVisible(isTable);
}

void TypingPage::refresh()
{
    const Piece *selected = piece();
    const PieceId id = selected != nullptr ? selected->id : PieceId{};
    const std::optional<RawFileId> file =
        selected != nullptr && selected->recording ? std::optional(selected->recording->file) : std::nullopt;
    if (id != m_shown || (file != m_shownFile && !m_isTyped))
        showPiece();
    refreshWords();
    showForm();
}

/// The rows that the piece's typed record holds, to go on with; an empty card otherwise.
void TypingPage::showPiece()
{
    const Piece *selected = piece();
    m_shown = selected != nullptr ? selected->id : PieceId{};
    m_shownFile.reset();
    m_isTyped = false;
    std::vector<TypedRow> rows;
    // What was read from stays for the next piece of the test, and goes with it.
    const auto series = std::pair(m_session.study() != nullptr ? m_session.study()->id : StudyId{},
                                  selected != nullptr ? std::optional(selected->test) : std::nullopt);
    if (std::exchange(m_series, series) != series)
        m_gauge->clear();
    if (selected != nullptr && selected->recording && reduction() != nullptr) {
        m_shownFile = selected->recording->file;
        if (const Result<std::string> bytes = m_session.project().rawBytes(*m_shownFile)) {
            if (std::optional<TypedRecord> typed = typedRecordFrom(*bytes, *reduction())) {
                rows = std::move(typed->rows);
                m_gauge->setText(QString::fromStdString(typed->gauge));
            }
        }
    }
    m_model.show(reduction(), m_session.notation(), std::move(rows));
    m_table->setCurrentIndex(m_model.index(m_model.rowCount() - 1, 0));
}

void TypingPage::refreshWords()
{
    const Piece *selected = piece();
    const bool canType = reduction() != nullptr && !m_session.isForReading();
    m_table->setEnabled(canType);
    m_gauge->setEnabled(canType);
    m_keep->setEnabled(canType && m_isTyped && !m_model.isEmpty());
    if (selected == nullptr) {
        m_title->setText(tr("Choose a peg to type its readings."));
        m_hint->clear();
        return;
    }
    const QString test = QString::fromUtf8(methodName(selected->test));
    m_title->setText(tr("%1 · %2").arg(QString::fromStdString(selected->code), test));
    if (reduction() == nullptr) {
        m_hint->setText(tr("Records of this test cannot be read yet."));
        return;
    }
    const bool hasFile = selected->recording && m_model.isEmpty();
    m_hint->setText(
        hasFile
            ? tr("This piece has a record from a file. What is typed here takes its place; the file stays "
                 "in the project.")
            : tr("Enter goes on to the next cell; units may be typed (23.4 kgf). Rows from a spreadsheet "
                 "can be pasted. A time that is left empty counts from the first row."));
}

void TypingPage::keep()
{
    const Piece *selected = piece();
    if (selected == nullptr || reduction() == nullptr || m_session.rawIntake().isBusy())
        return;
    const TypedRecord record{selected->code, m_session.who().toStdString(),
                             m_gauge->text().simplified().toStdString(), m_model.rows()};
    const Result<std::string> text = typedRecordText(record, *reduction(), m_model.units());
    if (!m_session.tell(text ? ok() : Status(text.error()))) {
        if (const std::optional<TextPosition> &at = text.error().position)
            m_table->setCurrentIndex(
                m_model.index(static_cast<int>(at->line) - 1, static_cast<int>(at->column.value_or(1)) - 1));
        m_table->setFocus();
        return;
    }
    const std::string name = fmt::format("typed {} {}.csv", selected->code, m_session.today());
    std::vector<RawFileToKeep> files{{{}, name, {}, std::make_shared<const std::string>(*text)}};
    m_session.tell(
        m_session.keepRawFiles(std::move(files), [self = QPointer(this), study = m_session.study()->id,
                                                  id = selected->id](const KeptRawFiles &kept) {
            if (self != nullptr)
                self->link(study, id, kept);
        }));
}

void TypingPage::link(StudyId study, PieceId id, const KeptRawFiles &kept)
{
    if (!m_session.tell(kept.status) || kept.ids.empty())
        return;
    const bool isHere = m_session.study() != nullptr && m_session.study()->id == study && m_shown == id;
    m_isTyped = m_isTyped && !isHere;
    const bool linked =
        m_session.tell(m_session.editStudy(study, tr("keep typed readings"), [&](Study &changed) -> Status {
            Piece *typedFor = findPiece(changed, id);
            if (typedFor == nullptr)
                return invalidArgument("the piece is no longer there");
            setRecording(*typedFor,
                         Recording{kept.ids.front(), {}, m_session.rigToday(changed, typedFor->test)});
            return ok();
        }));
    if (linked && isHere)
        goToNext(id);
}

/// The next piece of the same test without a record, in the rack's order; a creep run is stayed with.
void TypingPage::goToNext(PieceId after)
{
    const Study &study = *m_session.study();
    const Piece *done = findPiece(study, after);
    const bool isRun =
        std::any_of(m_model.columns().begin(), m_model.columns().end(),
                    [](const TypedColumn &column) { return column.isElapsed && column.isRequired; });
    if (done == nullptr || isRun) {
        showPiece();
        refreshWords();
        return;
    }
    const auto at = std::find_if(study.pieces.begin(), study.pieces.end(),
                                 [after](const Piece &one) { return one.id == after; });
    const auto next = std::find_if(at, study.pieces.end(), [done](const Piece &one) {
        return one.test == done->test && !one.recording;
    });
    if (next != study.pieces.end())
        m_session.selectPiece(next->id);
    refresh();
    m_table->setFocus();
}

} // namespace inchpeg::app
