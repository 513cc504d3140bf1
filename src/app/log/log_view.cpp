// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/log_view.h"

#include "app/window/form_parts.h"

#include <QHeaderView>
#include <QItemSelectionModel>
#include <QVBoxLayout>

#include <algorithm>

namespace inchpeg::app
{

LogView::LogView(ProjectSession &session, QWidget *parent)
    : QWidget(parent), m_session(session), m_model(session)
{
    setObjectName(QStringLiteral("logView"));
    m_table = new MeasureTable(m_model);
    m_summary = new QLabel;
    m_summary->setObjectName(QStringLiteral("logSummary"));
    auto *import = button("bringIn", tr("Bring in force files…"), true);
    connect(import, &QPushButton::clicked, this, &LogView::importRequested);
    auto *top = new QHBoxLayout;
    top->addWidget(m_summary, 1);
    top->addWidget(import);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(18, 14, 18, 14);
    layout->addLayout(top);
    layout->addWidget(m_table, 1);
    layout->addWidget(softLabel(tr("Type a number and press Enter: the next cell waits. Units may be typed "
                                   "(0.4 in). A block copied from a spreadsheet is pasted with Ctrl+V.")));

    connect(m_table->selectionModel(), &QItemSelectionModel::currentChanged, this,
            [this](const QModelIndex &current) {
                if (current.isValid())
                    m_session.selectPiece(m_model.pieceAt(current.row()));
            });
    connect(&m_model, &QAbstractItemModel::modelReset, this, &LogView::showSelection);
    connect(&session, &ProjectSession::selectionChanged, this, &LogView::showSelection);
    connect(&session, &ProjectSession::studyChanged, this, &LogView::refreshSummary);
    connect(&session, &ProjectSession::readingsChanged, this, &LogView::refreshSummary);
    showSelection();
    refreshSummary();
}

void LogView::showSelection()
{
    m_table->resizeColumnsToContents();
    const int row = m_model.rowOf(m_session.selectedPiece());
    if (row < 0 || m_table->currentIndex().row() == row)
        return;
    int column = m_table->currentIndex().column();
    for (int c = 0; column < 0 && c < m_model.columnCount(); ++c) {
        if (m_model.isEntry(c))
            column = c;
    }
    m_table->setCurrentIndex(m_model.index(row, column));
}

void LogView::refreshSummary()
{
    const Study *study = m_session.study();
    if (study == nullptr) {
        m_summary->clear();
        return;
    }
    const auto count = [&](auto holds) {
        return std::count_if(study->pieces.begin(), study->pieces.end(), holds);
    };
    const auto measured =
        count([](const Piece &piece) { return piece.section && areaOf(*piece.section).has_value(); });
    const auto recorded = count([](const Piece &piece) { return piece.recording.has_value(); });
    m_summary->setText(
        tr("%1 pieces: %2 measured, %3 with a record").arg(study->pieces.size()).arg(measured).arg(recorded));
}

} // namespace inchpeg::app
