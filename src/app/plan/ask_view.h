// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/plan/rail_table_model.h"

#include <QWidget>

class QComboBox;
class QGridLayout;
class QLabel;
class QLineEdit;
class QPushButton;
class QTableView;
class QVBoxLayout;

namespace inchpeg::app
{

/// What is asked: the response, the factors with their levels, the rails, what is held.
class AskView : public QWidget
{
    Q_OBJECT
public:
    explicit AskView(PlanPresenter &presenter, QWidget *parent = nullptr);
    void refresh();
    /// Puts the keyboard on what comes after the question, where no rail is there yet.
    void goOnAfterQuestion();

private:
    QWidget *createResponse();
    QWidget *createFactors();
    QWidget *createRails();
    QWidget *createLocked();
    void buildFactorRows();
    void buildLockedRows();
    void buildFurtherRows();
    void refreshDesigns();
    void makeRails();
    void addLevels();
    [[nodiscard]] bool hasRails() const;

    std::optional<Method> m_orientationOf; ///< the test whose usual orientation is offered for new rails
    struct FactorRow {
        QPushButton *meant = nullptr; ///< offers the library's name that a typed one is close to
        QComboBox *name = nullptr;
        QLineEdit *unit = nullptr;
        QLineEdit *levels = nullptr;
        QComboBox *changedPer = nullptr;
        QPushButton *remove = nullptr;
    };

    PlanPresenter &m_presenter;
    RailTableModel m_rails;
    QComboBox *m_method = nullptr;
    QComboBox *m_property = nullptr;
    QLineEdit *m_difference = nullptr;
    QGridLayout *m_factorGrid = nullptr;
    std::vector<FactorRow> m_factorRows;
    QComboBox *m_addFactor = nullptr;
    QComboBox *m_design = nullptr;
    QPushButton *m_make = nullptr;
    QLabel *m_aliases = nullptr;
    QTableView *m_railTable = nullptr;
    QLineEdit *m_newLevels = nullptr;
    QComboBox *m_newOrientation = nullptr;
    QLineEdit *m_newMaterial = nullptr;
    QVBoxLayout *m_lockedRows = nullptr;
    QVBoxLayout *m_furtherRows = nullptr;
    // What the rows show now; they are built anew only where that changes, so that no field loses its focus.
    std::optional<std::vector<LockedSetting>> m_shownLocked;
    std::optional<std::vector<StudyTest>> m_shownTests;
    QComboBox *m_lockName = nullptr;
    QLineEdit *m_lockValue = nullptr;
};

} // namespace inchpeg::app
