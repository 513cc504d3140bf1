// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/compare/compare_strip.h"

#include "app/export/table_copy.h"
#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"
#include "app/parts/test_box.h"

#include <QComboBox>
#include <QCoreApplication>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QScrollArea>
#include <QTableView>

#include <algorithm>

namespace inchpeg::app
{

CompareStrip::CompareStrip(ProjectSession &session, QWidget *parent) : QWidget(parent), m_session(session)
{
    setObjectName(QStringLiteral("compareStrip"));
    m_property = new QComboBox;
    m_property->setObjectName(QStringLiteral("comparedProperty"));
    m_property->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    m_property->setAccessibleName(tr("Compared property"));
    m_test = comboBox("shownTest", tr("Test"));
    m_test->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    m_headline = heading({});
    m_headline->setObjectName(QStringLiteral("headline"));
    m_headline->setWordWrap(true);
    m_headline->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_tests = button("showTests", tr("Show the tests"));
    m_tests->setCheckable(true);
    m_graph = button("showGraph", tr("Show the graph"));
    m_graph->setCheckable(true);
    m_graph->setToolTip(tr("The comparison over two axes: trend, factors together, shares that failed, or "
                           "against time, mass and price"));
    m_next = button("planNext", tr("Plan next levels"));
    m_next->setToolTip(tr("A study of the levels that would find the best one more closely"));
    m_next->hide();
    m_responses = button("showResponses", {});
    m_responses->setToolTip(tr("Rails by responses: what each test says of each rail"));
    auto *layout = new QHBoxLayout(this);
    layout->setContentsMargins(12, 8, 12, 8);
    layout->setSpacing(14);
    auto *choices = new QVBoxLayout;
    choices->setSpacing(4);
    choices->addWidget(m_responses);
    choices->addWidget(m_test);
    choices->addWidget(m_property);
    choices->addStretch(1);
    layout->addLayout(choices);
    m_answers = new QLabel;
    m_answers->setObjectName(QStringLiteral("answers"));
    m_answers->setWordWrap(true);
    m_answers->setTextFormat(Qt::PlainText);
    m_answers->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_answers->hide();
    m_procedure = softLabel({});
    m_procedure->setObjectName(QStringLiteral("procedure"));
    m_procedure->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_procedure->hide();
    m_cautions = new QLabel;
    m_cautions->setObjectName(QStringLiteral("resultCautions"));
    m_cautions->setProperty("role", QStringLiteral("warning"));
    m_cautions->setWordWrap(true);
    m_cautions->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_cautions->hide();
    auto *inner = new QWidget;
    inner->installEventFilter(this); // tells when its texts wrap otherwise
    auto *words = new QVBoxLayout(inner);
    words->setContentsMargins(0, 0, 0, 0);
    words->setSpacing(2);
    words->addWidget(m_headline);
    words->addWidget(m_cautions); // before anything else is believed
    words->addWidget(m_answers);
    words->addWidget(m_procedure);
    m_words = new QScrollArea;
    m_words->setObjectName(QStringLiteral("compareWords"));
    m_words->setFrameShape(QFrame::NoFrame);
    m_words->setWidgetResizable(true);
    m_words->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_words->setAccessibleName(tr("What the comparison says"));
    m_words->setWidget(inner);
    m_words->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    layout->addWidget(m_words, 1);
    m_more = button("moreWords", {});
    m_more->setCheckable(true);
    m_more->setToolTip(tr("All that is said of this comparison; the rails get lower meanwhile"));
    m_more->hide();
    connect(m_more, &QPushButton::toggled, this, &CompareStrip::fitWords);
    auto *more = new QVBoxLayout;
    more->setSpacing(4);
    more->addWidget(m_more);
    more->addWidget(m_tests);
    more->addWidget(m_graph);
    more->addWidget(m_next);
    more->addStretch(1);
    layout->addLayout(more);
    connect(m_property, &QComboBox::activated, this,
            [this] { m_session.setComparedProperty(m_property->currentData().toString()); });
    connect(m_test, &QComboBox::activated, this, [this] { m_session.setShownTest(chosenTest(*m_test)); });
    connect(&session, &ProjectSession::studyChanged, this, &CompareStrip::refresh);
    connect(m_responses, &QPushButton::clicked, this,
            [this] { m_session.setResponseTableShown(!m_session.isResponseTableShown()); });
    connect(m_tests, &QPushButton::toggled, &session, &ProjectSession::setTestTableShown);
    connect(m_graph, &QPushButton::toggled, &session, &ProjectSession::setGraphShown);
    connect(&m_answersOf, &AnswersPresenter::changed, this, &CompareStrip::showAnswers);
    connect(m_next, &QPushButton::clicked, &m_answersOf, &AnswersPresenter::planNext);
    connect(&session, &ProjectSession::comparisonChanged, this, &CompareStrip::refresh);
    refresh();
}

void CompareStrip::fitWords()
{
    constexpr double kMostShare = 0.17; // of the window: rails and graph keep the rest
    constexpr double kMostOpen = 0.6;
    const QWidget *inner = m_words->widget();
    const int wanted = inner->layout()->heightForWidth(m_words->viewport()->width());
    const auto share = [this](double of) { return static_cast<int>(of * window()->height()); };
    const bool isTooLong = wanted > share(kMostShare);
    m_more->setVisible(isTooLong);
    m_more->setText(m_more->isChecked() ? tr("Fewer words") : moreText());
    m_words->setVerticalScrollBarPolicy(m_more->isChecked() ? Qt::ScrollBarAsNeeded : Qt::ScrollBarAlwaysOff);
    const int height = isTooLong ? wholeLines(share(m_more->isChecked() ? kMostOpen : kMostShare)) : wanted;
    if (height > 0 && (height != m_words->height() || m_words->maximumHeight() != height))
        m_words->setFixedHeight(height);
}

int CompareStrip::wholeLines(int most) const
{
    int whole = 0;
    int top = 0;
    for (const QLabel *label : {m_headline, m_cautions, m_answers, m_procedure}) {
        if (label->isHidden())
            continue;
        const int line = label->fontMetrics().lineSpacing();
        const int height = label->heightForWidth(m_words->viewport()->width());
        for (int bottom = line; bottom <= height && top + bottom <= most; bottom += line)
            whole = top + bottom;
        top += height + m_words->widget()->layout()->spacing();
    }
    return whole;
}

QString CompareStrip::moreText() const
{
    const auto lines = [](const QLabel *label) { return label->text().count(QLatin1Char('\n')) + 1; };
    QStringList parts;
    if (!m_cautions->isHidden())
        parts << (lines(m_cautions) == 1 ? tr("1 caution") : tr("%1 cautions").arg(lines(m_cautions)));
    if (!m_answers->isHidden())
        parts << (lines(m_answers) == 1 ? tr("1 answer") : tr("%1 answers").arg(lines(m_answers)));
    return parts.join(QStringLiteral(", "));
}

bool CompareStrip::eventFilter(QObject *watched, QEvent *event)
{
    if (event->type() == QEvent::LayoutRequest)
        fitWords();
    return QWidget::eventFilter(watched, event);
}

void CompareStrip::resizeEvent(QResizeEvent *event)
{
    QWidget::resizeEvent(event);
    fitWords();
}

void CompareStrip::setHeadline(const QString &headline)
{
    m_headline->setText(headline);
}

void CompareStrip::showAnswers()
{
    m_answers->setText(m_answersOf.answers().join(QLatin1Char('\n')));
    m_answers->setVisible(!m_answersOf.answers().isEmpty());
    m_next->setVisible(m_answersOf.next().has_value());
    emit averagesChanged(m_answersOf.averages());
}

void CompareStrip::setProcedure(const QString &procedure)
{
    m_procedure->setText(procedure);
    showProcedure();
}

void CompareStrip::showProcedure()
{
    m_procedure->setVisible(m_session.isTestTableShown() && !m_session.isResponseTableShown() &&
                            !m_procedure->text().isEmpty());
}

void CompareStrip::setCautions(const QStringList &cautions)
{
    m_cautions->setText(cautions.join(QLatin1Char('\n')));
    m_cautions->setVisible(!cautions.isEmpty());
}

void CompareStrip::fillProperties()
{
    const std::optional<Method> test = m_session.shownTest();
    const Reduction *reduction = test ? reductionOf(*test) : nullptr;
    if (m_filledFor == reduction && m_property->count() > 0)
        return;
    m_filledFor = reduction;
    m_property->clear();
    const auto add = [&](const Property &property) {
        m_property->addItem(QString::fromUtf8(property.label), QString::fromUtf8(property.name));
        m_property->setItemData(m_property->count() - 1, QString::fromUtf8(property.definition),
                                Qt::ToolTipRole);
    };
    if (reduction != nullptr) {
        for (const Property &property : reduction->properties)
            add(property);
    } else if (const std::optional<Property> property = m_session.shownProperty()) {
        add(*property);
    }
}

void CompareStrip::refresh()
{
    offerTests(*m_test, m_session.study(), m_session.shownTest());
    fillProperties();
    m_property->setCurrentIndex(m_property->findData(m_session.comparedProperty()));
    m_property->setToolTip(m_property->currentData(Qt::ToolTipRole).toString());
    const bool all = m_session.isResponseTableShown();
    m_responses->setText(all ? tr("One response") : tr("All responses"));
    m_test->setHidden(all || m_test->count() < 2);
    m_property->setHidden(all);
    m_tests->setHidden(all);
    const QSignalBlocker blocker(m_tests);
    m_tests->setChecked(m_session.isTestTableShown());
    m_tests->setText(m_session.isTestTableShown() ? tr("Hide the tests") : tr("Show the tests"));
    m_graph->setHidden(all);
    const QSignalBlocker graphBlocker(m_graph);
    m_graph->setChecked(m_session.isGraphShown());
    m_graph->setText(m_session.isGraphShown() ? tr("Hide the graph") : tr("Show the graph"));
    showProcedure();
}

QTableView *createTestTable(TestTableModel &model)
{
    auto *table = new QTableView;
    table->setObjectName(QStringLiteral("testTable"));
    table->setTabKeyNavigation(false);
    table->setAccessibleName(QCoreApplication::translate("TestTable", "Tests behind the sentences"));
    table->setModel(&model);
    table->setTabKeyNavigation(false);
    table->verticalHeader()->hide();
    table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table->setSelectionMode(QAbstractItemView::ContiguousSelection);
    offerCopy(*table);
    return table;
}

} // namespace inchpeg::app
