// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/compare/answers_presenter.h"
#include "app/compare/test_table_model.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QPushButton;
class QScrollArea;
class QTableView;

namespace inchpeg::app
{

/// Above the rack while comparing: which property, the headline, and the way to the tests.
class CompareStrip : public QWidget
{
    Q_OBJECT
public:
    explicit CompareStrip(ProjectSession &session, QWidget *parent = nullptr);
    /// Whether answers are still being worked out.
    [[nodiscard]] bool isAnswering() const { return m_answersOf.isWorking(); }
    void setHeadline(const QString &headline);
    /// How the rails were compared; shown with the table of tests.
    void setProcedure(const QString &procedure);
    /// Has worked out anew what the comparison answers beyond the headline; hidden where there is nothing.
    void askForAnswers() { m_answersOf.refresh(); }
    /// What must be known before the headline is believed, a line each; hidden where there is none.
    void setCautions(const QStringList &cautions);

signals:
    /// Marks for the rails; none where nothing is compared.
    void averagesChanged(const std::map<inchpeg::ConditionId, inchpeg::OwnAverage> &averages);

protected:
    bool eventFilter(QObject *watched, QEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;

private:
    /// As high as the words, up to a share of the window: the rails need the rest.
    void fitWords();
    /// The height of as many whole lines of the words as most allows: no line is cut in two.
    [[nodiscard]] int wholeLines(int most) const;
    [[nodiscard]] QString moreText() const; ///< "3 cautions, 5 answers"
    void refresh();
    void fillProperties();
    void showProcedure();
    void showAnswers();

    ProjectSession &m_session;
    AnswersPresenter m_answersOf{m_session};
    QComboBox *m_test = nullptr; ///< only where the study has several
    QComboBox *m_property = nullptr;
    const Reduction *m_filledFor = nullptr;
    QScrollArea *m_words = nullptr;
    QLabel *m_headline = nullptr;
    QLabel *m_answers = nullptr;
    QLabel *m_procedure = nullptr;
    QLabel *m_cautions = nullptr;
    QPushButton *m_more = nullptr; ///< only where not all words can be seen
    QPushButton *m_responses = nullptr;
    QPushButton *m_tests = nullptr;
    QPushButton *m_graph = nullptr;
    QPushButton *m_next = nullptr;
};

/// The table of tests below the rack.
QTableView *createTestTable(TestTableModel &model);

} // namespace inchpeg::app
