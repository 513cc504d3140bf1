// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/read/marker_presenter.h"

#include <QWidget>

#include <map>
#include <string>

class QGridLayout;
class QLabel;
class QLineEdit;
class QPushButton;

namespace inchpeg::app
{

/// The markers of the selected piece as fields to type in, and the question why one was placed by hand.
class MarkerPanel : public QWidget
{
    Q_OBJECT
public:
    explicit MarkerPanel(MarkerPresenter &presenter, QWidget *parent = nullptr);
    /// Puts the cursor where the reason is typed.
    void askForReason();

signals:
    /// The person has finished with a field; the plot takes the keys again.
    void finished();

protected:
    void keyPressEvent(QKeyEvent *event) override;

private:
    struct Row {
        QLabel *name = nullptr;
        QLineEdit *place = nullptr;
        QPushButton *back = nullptr;
    };
    QWidget *createQuestion();
    void addRow(const MarkerKind &kind);
    void buildRows();
    void refresh();
    void keep();

    MarkerPresenter &m_presenter;
    std::map<std::string, Row> m_rows;
    QGridLayout *m_grid = nullptr;
    QWidget *m_question = nullptr;
    QLabel *m_movedText = nullptr;
    QLineEdit *m_reason = nullptr;
    QLabel *m_byHand = nullptr;
    QPushButton *m_allBack = nullptr;
};

} // namespace inchpeg::app
