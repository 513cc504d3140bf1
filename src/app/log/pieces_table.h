// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/log/readings_grid.h"
#include "app/log/typed_pieces_model.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace inchpeg::app
{

/// A grid in which Enter goes on along the row or down the column, as the person chose.
class PiecesGrid : public ReadingsGrid
{
    Q_OBJECT
public:
    explicit PiecesGrid(TypedPiecesModel &model, QWidget *parent = nullptr);
    void setGoesDown(bool down) { m_goesDown = down; }

signals:
    void pasted(int linesWithoutRow);

protected:
    void goOn() override;
    void pasteText(const QString &text) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    TypedPiecesModel &m_pieces;
    bool m_goesDown = false;
};

/// All pieces of a test whose readings are a row each, in one table: typed, pasted, corrected in place. A row
/// is kept as a record when it is left and says all that is needed.
class PiecesTable : public QWidget
{
    Q_OBJECT
public:
    explicit PiecesTable(ProjectSession &session, QWidget *parent = nullptr);
    void refresh(std::optional<Method> test);
    void focusTable();
    /// Keeps every row that is whole; what is wrong with the others is told where tellAll, else at the row.
    void keep(bool tellAll);

protected:
    void hideEvent(QHideEvent *event) override;

private:
    void refreshWords();
    void selectRowOfPiece();
    void link(StudyId study, const std::vector<std::pair<PieceId, TypedRow>> &rows, const KeptRawFiles &kept);

    ProjectSession &m_session;
    TypedPiecesModel m_model;
    bool m_isChoosing = false; ///< the row follows the peg, or the peg the row
    PiecesGrid *m_grid = nullptr;
    QComboBox *m_enter = nullptr;
    QLineEdit *m_gauge = nullptr;
    QLabel *m_hint = nullptr;
    QPushButton *m_keep = nullptr;
};

} // namespace inchpeg::app
