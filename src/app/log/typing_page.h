// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/log/readings_grid.h"
#include "app/log/typed_rows_model.h"
#include "app/session/project_session.h"

#include <QWidget>

class QLabel;
class QLineEdit;
class QPushButton;

namespace inchpeg::app
{

class PiecesTable;

/// A grid in which Enter goes on to the next cell, and from the end of a row to the next one.
class TypingTable : public ReadingsGrid
{
    Q_OBJECT
public:
    explicit TypingTable(TypedRowsModel &model, QWidget *parent = nullptr);

protected:
    void goOn() override;
    void pasteText(const QString &text) override;

private:
    TypedRowsModel &m_rows;
};

/// Where readings that were taken by eye become records: a table of all pieces where the test has a row a
/// piece, else a card of the selected piece.
class TypingPage : public QWidget
{
    Q_OBJECT
public:
    explicit TypingPage(ProjectSession &session, QWidget *parent = nullptr);
    void refresh();
    /// Keeps what is typed as the piece's record. A refusal is told by the session.
    void keep();

private:
    [[nodiscard]] const Piece *piece() const;
    [[nodiscard]] const Reduction *reduction() const;
    void showPiece();
    void refreshWords();
    void showForm();
    void link(StudyId study, PieceId id, const KeptRawFiles &kept);
    void goToNext(PieceId after);

    ProjectSession &m_session;
    TypedRowsModel m_model;
    PieceId m_shown;
    std::pair<StudyId, std::optional<Method>> m_series; ///< whose readings are read from one gauge
    std::optional<RawFileId> m_shownFile;               ///< whose rows are in the card
    bool m_isTyped = false;                             ///< and not kept yet
    bool m_isOnePiece = false; ///< the card was asked for, though the test has a row a piece
    QPushButton *m_form = nullptr;
    PiecesTable *m_pieces = nullptr;
    QWidget *m_card = nullptr;
    QLabel *m_title = nullptr;
    QLabel *m_hint = nullptr;
    TypingTable *m_table = nullptr;
    QLineEdit *m_gauge = nullptr;
    QPushButton *m_keep = nullptr;
};

} // namespace inchpeg::app
