// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/pieces_view.h"

#include "app/parts/page_parts.h"
#include "app/plan/power_curve.h"
#include "core/planning/plate_power.h"

namespace inchpeg::app
{

PiecesView::PiecesView(PlanPresenter &plan, PiecesPresenter &presenter, QWidget *parent)
    : QWidget(parent), m_plan(plan), m_presenter(presenter)
{
    setObjectName(QStringLiteral("piecesView"));
    QVBoxLayout *layout = scrollingPage(this);
    layout->addWidget(heading(tr("How many pieces")));
    layout->addWidget(createFields());
    m_planText = new QLabel;
    m_planText->setObjectName(QStringLiteral("planText"));
    m_planText->setWordWrap(true);
    m_planText->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_take = button("takeWanted", {}, true);
    auto *answer = new QHBoxLayout;
    answer->addWidget(m_planText, 1);
    answer->addWidget(m_take, 0, Qt::AlignTop);
    layout->addLayout(answer);
    m_curve = new PowerCurve;
    layout->addWidget(m_curve);
    m_few = softLabel({});
    m_few->setObjectName(QStringLiteral("fewPieces"));
    layout->addWidget(m_few);
    layout->addWidget(createSimulation());
    layout->addStretch(1);
    connect(m_curve, &PowerCurve::piecesChosen, this, [this](int tested) {
        m_plan.setPiecesPerRail(m_plan.firstTest(), tested + m_plan.state().study().plan.aim.spares);
    });
    connect(m_take, &QPushButton::clicked, this, [this] {
        m_plan.setPiecesPerRail(m_plan.firstTest(),
                                m_presenter.wanted() + m_plan.state().study().plan.aim.spares);
    });
    connect(&presenter, &PiecesPresenter::changed, this, &PiecesView::showAnswer);
    connect(&presenter, &PiecesPresenter::simulationChanged, this, &PiecesView::showSimulation);
    connect(&presenter, &PiecesPresenter::simulationProgress, this, [this](int done, int all) {
        if (m_presenter.isSimulating())
            m_simulation->setText(tr("Breaking virtual pieces: %1 of %2 plans").arg(done).arg(all));
    });
}

QWidget *PiecesView::createFields()
{
    auto *box = new QWidget;
    m_pieces = spinBox("pieces", tr("Pieces a rail"), 1, kMostPiecesPerCondition);
    m_spares = spinBox("spares", tr("Of them to spare"), 0, 50);
    m_spares->setToolTip(
        tr("Pieces more than the comparison needs, for prints that fail and pieces that slip"));
    m_comparison = comboBox("comparison", tr("What is compared"));
    m_comparison->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    for (const Comparison comparison :
         {Comparison::AgainstReference, Comparison::GoodEnough, Comparison::BeforeAfter, Comparison::AllPairs,
          Comparison::Trend, Comparison::AnyDifference})
        m_comparison->addItem(QString::fromUtf8(comparisonWords(comparison).data()),
                              static_cast<int>(comparison));
    m_looks = comboBox("looks", tr("When the results are looked at"));
    m_looks->addItem(tr("when all are broken"), -1);
    m_looks->addItem(tr("as they break, strict at first"), static_cast<int>(Spending::OBrienFleming));
    m_looks->addItem(tr("as they break, alike each time"), static_cast<int>(Spending::Pocock));
    m_looks->setToolTip(
        tr("Whoever looks after each piece and stops when a difference shows calls more differences real "
           "than there are. As they break: each look asks for more, so that you may stop as soon as Compare "
           "says that it is settled, and leave the others whole."));
    m_confidence = numberBox("confidence", tr("Confidence"), 50.0, 99.9, 1, QStringLiteral(" %"));
    m_confidence->setToolTip(
        tr("How rarely a difference that is not there may be called real: 95 % is once in "
           "twenty studies"));
    m_power = numberBox("power", tr("Chance to find it"), 20.0, 99.9, 1, QStringLiteral(" %"));
    m_scatter = numberBox("scatter", tr("Expected scatter"), 0.1, 100.0, 1, QStringLiteral(" %"));
    m_scatterSource = softLabel({});
    m_plateScatter = numberBox("plateScatter", tr("How plates are expected to scatter"), 0.0, 50.0, 1,
                               QStringLiteral(" %"));
    m_plateScatter->setSpecialValueText(tr("%1 %, assumed").arg(100.0 * kAssumedPlateCv, 0, 'f', 0));
    m_plateScatter->setToolTip(tr(
        "How much the means of two plates of the same rail differ by themselves: where each rail has plates "
        "of its own, that decides what the plan can show. At its least the assumed value counts."));
    m_plateLabel = new QLabel(tr("Of plates"));
    auto *usual = button("usualScatter", tr("Usual"));
    usual->setProperty("slim", true);
    usual->setToolTip(tr("Back to own results, or to the usual value of the test"));
    auto *grid = new QGridLayout(box);
    grid->setContentsMargins(0, 0, 0, 0);
    addField(grid, 0, 0, tr("Pieces a rail"), m_pieces);
    addField(grid, 0, 1, tr("of them to spare"), m_spares);
    addField(grid, 1, 0, tr("Confidence"), m_confidence);
    addField(grid, 1, 1, tr("Chance to find it"), m_power);
    auto *scatter = new QHBoxLayout;
    scatter->addWidget(m_scatter, 1);
    scatter->addWidget(usual);
    grid->setColumnStretch(5, 3);
    grid->addWidget(new QLabel(tr("Scatter")), 0, 4);
    grid->addLayout(scatter, 0, 5);
    grid->addWidget(m_scatterSource, 1, 4, 1, 2);
    grid->addWidget(m_plateLabel, 2, 4);
    grid->addWidget(m_plateScatter, 2, 5);
    addField(grid, 2, 0, tr("Compared"), m_comparison, 3);
    addField(grid, 3, 0, tr("Looked at"), m_looks, 3);
    connect(m_pieces, &QSpinBox::valueChanged, this,
            [this](int count) { m_plan.setPiecesPerRail(m_plan.firstTest(), count); });
    connect(m_spares, &QSpinBox::valueChanged, this, [this](int count) {
        if (!m_plan.setSpares(count))
            refresh();
    });
    connect(m_comparison, &QComboBox::activated, this,
            [this] { m_plan.setComparison(static_cast<Comparison>(m_comparison->currentData().toInt())); });
    connect(m_looks, &QComboBox::activated, this, [this] {
        const int chosen = m_looks->currentData().toInt();
        m_plan.setLooks(chosen < 0 ? std::nullopt : std::optional(static_cast<Spending>(chosen)));
    });
    connect(m_confidence, &QDoubleSpinBox::valueChanged, this,
            [this](double percent) { m_plan.setConfidence(percent); });
    connect(m_power, &QDoubleSpinBox::valueChanged, this,
            [this](double percent) { m_plan.setPower(percent); });
    connect(m_scatter, &QDoubleSpinBox::valueChanged, this,
            [this](double percent) { m_plan.setScatter(percent); });
    connect(m_plateScatter, &QDoubleSpinBox::valueChanged, this,
            [this](double percent) { m_plan.setPlateScatter(percent); });
    connect(usual, &QPushButton::clicked, this, [this] { m_plan.setScatter(0.0); });
    return box;
}

QWidget *PiecesView::createSimulation()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 4, 0, 0);
    layout->addWidget(heading(tr("Play it through")));
    m_lost = numberBox("lostPieces", tr("Pieces that fail"), 0.0, 90.0, 0, QStringLiteral(" %"));
    m_lost->setFixedWidth(80);
    m_simulate = button("simulate", tr("Break virtual pieces a thousand times"));
    auto *row = new QHBoxLayout;
    row->addWidget(new QLabel(tr("Pieces that fail")));
    row->addWidget(m_lost);
    row->addWidget(m_simulate);
    row->addStretch(1);
    layout->addLayout(row);
    m_simulation = new QLabel;
    m_simulation->setObjectName(QStringLiteral("simulationText"));
    m_simulation->setWordWrap(true);
    layout->addWidget(m_simulation);
    connect(m_simulate, &QPushButton::clicked, this, [this] {
        if (m_presenter.isSimulating())
            m_presenter.cancelSimulation();
        else
            m_presenter.simulate(m_lost->value());
    });
    return box;
}

void PiecesView::showSimulation()
{
    m_simulation->setText(m_presenter.simulationText());
    m_simulate->setText(m_presenter.isSimulating() ? tr("Stop")
                                                   : tr("Break virtual pieces a thousand times"));
}

void PiecesView::showAnswer()
{
    if (m_plan.session().study() == nullptr)
        return;
    const Study &study = m_plan.state().study();
    const int tested = std::max(0, firstTest(study).piecesPerCondition - study.plan.aim.spares);
    m_planText->setText(m_presenter.sentence());
    m_few->setText(m_presenter.few().join(QLatin1Char('\n')));
    m_curve->set(m_presenter.curve(), tested, m_presenter.difference());
    const int wanted = m_presenter.wanted();
    m_take->setVisible(wanted > tested && wanted + study.plan.aim.spares <= kMostPiecesPerCondition);
    m_take->setText(tr("Plan %1 pieces").arg(wanted + study.plan.aim.spares));
}

void PiecesView::refresh()
{
    const Study &study = m_plan.state().study();
    showValue(m_pieces, firstTest(study).piecesPerCondition);
    showValue(m_spares, study.plan.aim.spares);
    choose(m_comparison, static_cast<int>(familyOf(study)));
    choose(m_looks, study.plan.aim.looks ? static_cast<int>(*study.plan.aim.looks) : -1);
    showValue(m_confidence, 100.0 * study.plan.aim.confidence);
    showValue(m_power, 100.0 * study.plan.aim.power);
    showValue(m_scatter, m_presenter.scatterPercent());
    m_scatterSource->setText(m_presenter.scatterSource());
    showValue(m_plateScatter, 100.0 * study.plan.aim.plateCv.value_or(0.0));
    m_plateLabel->setVisible(m_presenter.hasOwnPlates());
    m_plateScatter->setVisible(m_presenter.hasOwnPlates());
    m_presenter.refresh();
    showAnswer();
}

} // namespace inchpeg::app
