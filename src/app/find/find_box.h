// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/find/finder.h"

#include <QLineEdit>

class QListWidget;

namespace inchpeg::app
{

/// One line to find studies, rails, pieces, notes and plates; what is found hangs below it. Enter opens the
/// chosen finding, Escape leaves.
class FindBox : public QLineEdit
{
    Q_OBJECT
public:
    FindBox(ProjectSession &session, QWidget *parent = nullptr);
    [[nodiscard]] Finder &finder() { return m_finder; }
    [[nodiscard]] QListWidget *list() { return m_list; }

signals:
    /// A finding was put on the rack.
    void opened();
    void materialChosen();

protected:
    void keyPressEvent(QKeyEvent *event) override;
    void focusOutEvent(QFocusEvent *event) override;

private:
    void showFound();
    void placeList();
    void openRow(int row);
    void leave();

    Finder m_finder;
    QListWidget *m_list = nullptr;
};

} // namespace inchpeg::app
