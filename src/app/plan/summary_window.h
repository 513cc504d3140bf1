// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"

#include <QDialog>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QVBoxLayout;

namespace inchpeg::app
{

/// What is known of a rail without its pieces (a sheet, a paper, another laboratory), in a window that does
/// not block the program. It shows the study on the rack, whatever that is by now.
class SummaryWindow : public QDialog
{
    Q_OBJECT
public:
    explicit SummaryWindow(ProjectSession &session, QWidget *parent = nullptr);
    /// Anew, with the rail of the selected piece, or the first that has no pieces broken.
    void start();

private:
    [[nodiscard]] std::optional<Property> property() const;
    [[nodiscard]] Method test() const;
    void refresh();
    void fillProperties();
    void refreshList();
    void refreshHints();
    void keep();
    void takeAway(ConditionId rail, Method test, const std::string &property);

    ProjectSession &m_session;
    QComboBox *m_rail = nullptr;
    QComboBox *m_property = nullptr;
    QLineEdit *m_mean = nullptr;
    QLineEdit *m_sd = nullptr;
    QLineEdit *m_pieces = nullptr;
    QLineEdit *m_source = nullptr;
    QLabel *m_hint = nullptr;
    QLabel *m_trouble = nullptr;
    QPushButton *m_keep = nullptr;
    QVBoxLayout *m_list = nullptr;
};

} // namespace inchpeg::app
