// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/begin/begin_presenter.h"
#include "app/parts/prompts.h"

#include <QDialog>

#include <functional>

class QComboBox;
class QGridLayout;
class QLabel;
class QLineEdit;
class QPushButton;
class QTreeWidget;

namespace inchpeg::app
{

/// The page on which files or a table become a study: how each part of the names, or each column, was
/// understood, and the rails that come of it.
class BeginWindow : public QDialog
{
    Q_OBJECT
public:
    /// ready: sees to it that a project is open, which the person may think better of.
    BeginWindow(BeginPresenter &presenter, Prompts &prompts, std::function<bool()> ready,
                QWidget *parent = nullptr);

    void chooseFiles();
    void chooseFolder();
    void paste();

signals:
    /// The study stands in Compare.
    void made();

private:
    QWidget *createWays();
    QWidget *createParts();
    QWidget *createRails();
    void refresh();
    void fillParts();
    void addPart(const PartUse &part);
    void addColumn(std::size_t number, const ResultsColumn &column);
    void fillRails();
    void goToNext();
    void makeIt();

    BeginPresenter &m_presenter;
    Prompts &m_prompts;
    std::function<bool()> m_ready;
    QLineEdit *m_question = nullptr;
    QComboBox *m_test = nullptr;
    QGridLayout *m_parts = nullptr;
    QLabel *m_partsTitle = nullptr;
    QTreeWidget *m_rails = nullptr;
    QLabel *m_railsTitle = nullptr;
    QLabel *m_open = nullptr;
    QLabel *m_remarks = nullptr;
    QPushButton *m_make = nullptr;
    QString m_proposed; ///< the question that was proposed last: one of the person's own stays
};

} // namespace inchpeg::app
