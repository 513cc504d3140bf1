// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/rig_view.h"

#include "app/parts/page_parts.h"
#include "app/plan/load_bars.h"
#include "app/plan/test_choice.h"
#include "core/planning/dead_load.h"
#include "core/planning/rig_check.h"
#include "core/reading/reading_settings.h"

namespace inchpeg::app
{

namespace
{

constexpr std::size_t kMostBars = 12;
constexpr double kUsualBreakStrain = 0.05; ///< for the length of a pull, where nothing is known

/// How far the rig travels until a piece breaks, roughly.
double travel_mm(const PlannedTest &test)
{
    const SpecimenShape &shape = test.shape;
    if (factsOf(test.method).isBeam && shape.thickness_mm > 0.0) // strain 6 s h / L² turned over
        return kUsualBreakStrain * shape.span_mm * shape.span_mm / (6.0 * shape.thickness_mm);
    return kUsualBreakStrain * (shape.gaugeLength_mm > 0.0 ? shape.gaugeLength_mm : 0.5 * shape.length_mm);
}

} // namespace

RigView::RigView(PlanPresenter &presenter, QWidget *parent) : QWidget(parent), m_presenter(presenter)
{
    setObjectName(QStringLiteral("rigView"));
    QVBoxLayout *layout = scrollingPage(this);
    layout->addWidget(createRig());
    m_bars = new LoadBars;
    layout->addWidget(m_bars);
    m_verdict = new QLabel;
    m_verdict->setObjectName(QStringLiteral("rigVerdict"));
    m_verdict->setWordWrap(true);
    m_verdict->setTextInteractionFlags(Qt::TextSelectableByMouse);
    layout->addWidget(m_verdict);
    m_speedWords = softLabel({});
    layout->addWidget(m_speedWords);
    m_said = new QWidget;
    m_said->setObjectName(QStringLiteral("saidForTest"));
    auto *said = new QVBoxLayout(m_said);
    said->setContentsMargins(0, 8, 0, 0);
    said->addWidget(heading(tr("How records are read")));
    m_shape = comboBox("shape", tr("Section"));
    m_shape->addItem(tr("rectangular"), static_cast<int>(SectionShape::Rectangular));
    m_shape->addItem(tr("round: diameter"), static_cast<int>(SectionShape::Round));
    m_shape->addItem(tr("area"), static_cast<int>(SectionShape::PlainArea));
    m_shapeLabel = new QLabel(tr("Section of the pieces"));
    m_shapeLabel->setBuddy(m_shape);
    auto *shapeRow = new QHBoxLayout;
    shapeRow->addWidget(m_shapeLabel);
    shapeRow->addWidget(m_shape);
    shapeRow->addStretch(1);
    said->addLayout(shapeRow);
    m_saidGrid = new QGridLayout;
    said->addLayout(m_saidGrid);
    layout->addWidget(m_said);
    layout->addStretch(1);
    connect(m_shape, &QComboBox::activated, this, [this] {
        m_presenter.setSectionShape(static_cast<SectionShape>(m_shape->currentData().toInt()));
    });
}

QWidget *RigView::createRig()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    auto *workshop = button("rigWorkshop", tr("Rigs of the workshop…"));
    auto *top = new QHBoxLayout;
    top->addWidget(heading(tr("Can the rig do it?")), 1);
    top->addWidget(workshop);
    layout->addLayout(top);
    m_test = new TestChoice(m_presenter);
    m_test->setObjectName(QStringLiteral("rigTest"));
    layout->addWidget(m_test);
    m_rig = comboBox("rig", tr("Rig"));
    m_expected = lineEdit("expected", tr("What the reference is expected to reach"), tr("usual value"));
    m_stress = lineEdit("stress", tr("Stress in the outer fibre"));
    m_speed = numberBox("speed", tr("Test speed"), 0.0, 1000.0, 1, QStringLiteral(" mm/min"));
    m_expectedLabel = new QLabel;
    m_expectedLabel->setBuddy(m_expected);
    m_stressLabel = new QLabel(tr("Stress"));
    m_stressLabel->setBuddy(m_stress);
    m_expectedSource = softLabel({});
    m_fixture = comboBox("fixture", tr("How the bar is held"));
    m_fixture->addItem(tr("on two supports"), static_cast<int>(Fixture::ThreePoint));
    m_fixture->addItem(tr("clamped at one end"), static_cast<int>(Fixture::Cantilever));
    m_fixtureLabel = new QLabel(tr("Held"));
    m_fixtureLabel->setBuddy(m_fixture);
    m_freeLength = lineEdit("freeLength", tr("From the clamp to the load"));
    m_freeLength->setToolTip(tr("The free length of a clamped bar, from the clamp to where the load hangs"));
    m_freeLengthLabel = new QLabel(tr("Free length"));
    m_freeLengthLabel->setBuddy(m_freeLength);
    auto *grid = new QGridLayout;
    addField(grid, 0, 0, tr("Rig"), m_rig);
    grid->addWidget(m_expectedLabel, 0, 2);
    grid->addWidget(m_expected, 0, 3);
    addField(grid, 1, 0, tr("Speed"), m_speed);
    grid->addWidget(m_stressLabel, 1, 2);
    grid->addWidget(m_stress, 1, 3);
    grid->addWidget(m_fixtureLabel, 2, 0);
    grid->addWidget(m_fixture, 2, 1);
    grid->addWidget(m_freeLengthLabel, 2, 2);
    grid->addWidget(m_freeLength, 2, 3);
    grid->addWidget(m_expectedSource, 1, 3); // where the stress stands in a test under a dead load
    grid->setColumnStretch(3, 1);
    layout->addLayout(grid);
    connect(workshop, &QPushButton::clicked, this, &RigView::workshopRequested);
    connect(m_test, &TestChoice::chosen, this, &RigView::refresh);
    connect(m_rig, &QComboBox::activated, this,
            [this] { m_presenter.setRig(m_test->planned().method, m_rig->currentData().toString()); });
    onTyped(
        m_expected,
        [this](const QString &text) { return m_presenter.setExpected(m_test->planned().method, text); },
        [this] { refresh(); });
    onTyped(
        m_stress,
        [this](const QString &text) { return m_presenter.setStress(m_test->planned().method, text); },
        [this] { refresh(); });
    connect(m_fixture, &QComboBox::activated, this, [this] {
        m_presenter.setFixture(m_test->planned().method,
                               static_cast<Fixture>(m_fixture->currentData().toInt()));
    });
    onTyped(
        m_freeLength,
        [this](const QString &text) { return m_presenter.setFreeLength(m_test->planned().method, text); },
        [this] { refresh(); });
    connect(m_speed, &QDoubleSpinBox::valueChanged, this,
            [this](double speed) { m_presenter.setSpeed(m_test->planned().method, speed); });
    return box;
}

/// One field a parameter that is said for the test; built anew where the test is another.
void RigView::buildSaid(const Reduction *reduction)
{
    if (m_saidFor == reduction)
        return;
    m_saidFor = reduction;
    m_saidFields.clear();
    clearLayout(m_saidGrid);
    int place = 0;
    for (const Parameter *parameter : saidParameters(m_test->planned().method)) {
        const QString name = QStringLiteral("said-") + QString::fromUtf8(parameter->name);
        const QString label = QString::fromUtf8(parameter->label);
        const QString meaning = QString::fromUtf8(parameter->meaning);
        QWidget *field = nullptr;
        if (parameter->choices.empty()) {
            auto *edit = lineEdit("", label);
            onTyped(
                edit,
                [this, parameter](const QString &text) {
                    return m_presenter.setParameter(m_test->planned().method, *parameter, text);
                },
                [this] { refreshSaid(); });
            field = edit;
        } else {
            auto *box = comboBox("", label);
            for (std::string_view choice : parameter->choices) {
                box->addItem(QString::fromUtf8(choice));
                box->setMinimumContentsLength(
                    std::max(box->minimumContentsLength(), static_cast<int>(choice.size())));
            }
            connect(box, &QComboBox::activated, this, [this, parameter, box] {
                m_presenter.setParameter(m_test->planned().method, *parameter, box->currentText());
            });
            field = box;
        }
        field->setObjectName(name);
        field->setToolTip(meaning);
        addField(m_saidGrid, place / 2, place % 2, label, field);
        m_saidFields.emplace_back(parameter, field);
        ++place;
    }
}

void RigView::refreshSaid()
{
    const PlannedTest &test = m_test->planned();
    const Reduction *reduction = reductionOf(test.method);
    buildSaid(reduction);
    m_said->setVisible(!m_saidFields.empty());
    const bool hasSection = reduction != nullptr && readsBySection(*reduction);
    m_shape->setVisible(hasSection);
    m_shapeLabel->setVisible(hasSection);
    choose(m_shape, static_cast<int>(m_presenter.state().study().sectionShape));
    for (const auto &[parameter, field] : m_saidFields) {
        const QString text = m_presenter.parameterText(test.method, *parameter);
        if (auto *edit = qobject_cast<QLineEdit *>(field)) {
            edit->setPlaceholderText(m_presenter.usualText(*parameter));
            showText(edit, text);
        }
        if (auto *box = qobject_cast<QComboBox *>(field))
            box->setCurrentText(text.isEmpty() ? QString::fromUtf8(parameter->usual) : text);
    }
}

void RigView::refreshVerdict()
{
    PlanState &state = m_presenter.state();
    const Study &study = state.study();
    const PlannedTest &test = m_test->planned();
    const Notation &notation = m_presenter.session().notation();
    const RigCard *rig = findRig(m_presenter.session().workshop(), test.setup.rig);
    const LoadKind kind = factsOf(test.method).load;
    std::vector<LoadBars::Bar> bars;
    QStringList sentences;
    double largest = 0.0;
    for (const Condition &condition : study.conditions) {
        const std::optional<ExpectedLoad> load = expectedLoad(study, test, condition, state.own());
        const RigVerdict verdict = checkRig(test, load, rig);
        if (load)
            largest = std::max(largest, load->value);
        if (bars.size() < kMostBars)
            bars.push_back({QString::fromStdString(railTitle(study, condition)),
                            load
                                ? QString::fromStdString(notation.quantity(load->value, dimensionOf(kind), 3))
                                : tr("not known"),
                            verdict.share, rig == nullptr ? RigFit::Unknown : verdict.fit});
        const QString sentence = QString::fromStdString(notation.expand(verdict.sentence));
        if (!sentences.contains(sentence))
            sentences << sentence;
    }
    if (rig == nullptr && largest > 0.0) {
        if (const RigCard *best = bestRig(m_presenter.session().workshop(), kind, largest))
            sentences << tr("%1 would suit.").arg(QString::fromStdString(best->name));
        else
            sentences << tr("No rig of the workshop suits: take another section, or add a rig.");
    }
    m_bars->set(std::move(bars), kind == LoadKind::Energy_J);
    m_bars->setVisible(rig != nullptr && rig->range > 0.0 && !study.conditions.empty());
    m_verdict->setText(study.conditions.empty() ? tr("Make rails first, under Ask.")
                                                : sentences.mid(0, 4).join(QLatin1Char('\n')));
    const RunEstimate run = runEstimate(test, travel_mm(test), rig);
    QString words = QString::fromUtf8(factsOf(test.method).speed.data());
    if (kind == LoadKind::Force_N && run.seconds > 0.0) {
        words = tr("Usual: %1.").arg(words);
        words += tr(" At %1 mm/min a piece that breaks at about 5 % strain takes %2 s")
                     .arg(test.setup.speed_mm_per_min)
                     .arg(run.seconds, 0, 'f', 0);
        words += run.samples > 0.0 ? tr(" and gives %1 readings.").arg(run.samples, 0, 'f', 0) : tr(".");
    }
    if (test.method == Method::HeatDeflection)
        words += tr(". The temperature is read at a deflection of %1.")
                     .arg(QString::fromStdString(
                         notation.quantity(in_mm(standardDeflection(millimetres(test.shape.span_mm),
                                                                    millimetres(test.shape.thickness_mm))),
                                           Dimension::Length, 2)));
    m_speedWords->setText(words);
}

void RigView::refresh()
{
    m_test->refresh();
    PlanState &state = m_presenter.state();
    const PlannedTest &test = m_test->planned();
    const Notation &notation = m_presenter.session().notation();
    {
        const QSignalBlocker blocker(m_rig);
        m_rig->clear();
        m_rig->addItem(tr("not chosen"), QString());
        for (const RigCard &rig : m_presenter.session().workshop().rigs)
            m_rig->addItem(QString::fromStdString(rig.name), QString::fromStdString(rig.name));
        m_rig->setCurrentIndex(std::max(0, m_rig->findData(QString::fromStdString(test.setup.rig))));
    }
    const bool deadLoad = isUnderDeadLoad(test.method);
    m_expectedLabel->setText(tr("Expected %1").arg(QString::fromUtf8(test.property.label.data())));
    for (QWidget *widget : {static_cast<QWidget *>(m_expected), static_cast<QWidget *>(m_expectedLabel),
                            static_cast<QWidget *>(m_expectedSource)})
        widget->setVisible(!deadLoad);
    m_stress->setVisible(deadLoad);
    m_stressLabel->setVisible(deadLoad);
    const bool mayClamp = mayBeCantilever(test.method);
    const bool isClamped = mayClamp && test.setup.fixture == Fixture::Cantilever;
    m_fixture->setVisible(mayClamp);
    m_fixtureLabel->setVisible(mayClamp);
    m_freeLength->setVisible(isClamped);
    m_freeLengthLabel->setVisible(isClamped);
    choose(m_fixture, static_cast<int>(test.setup.fixture));
    showText(m_freeLength,
             QString::fromStdString(notation.quantity(bentLength_mm(test), Dimension::Length, 3)));
    m_speed->setEnabled(factsOf(test.method).load == LoadKind::Force_N);
    showValue(m_speed, test.setup.speed_mm_per_min);
    showText(m_stress,
             QString::fromStdString(notation.quantity(test.setup.stress_MPa, Dimension::Stress, 3)));
    const Condition *reference = findCondition(state.study(), state.study().reference);
    const std::optional<ExpectedValue> expected =
        reference != nullptr ? expectedValue(state.study(), test, *reference, state.own()) : std::nullopt;
    const auto valueText = [&](double value) {
        return QString::fromStdString(notation.quantity(value, test.property.dimension, 3));
    };
    showText(m_expected, test.setup.expected ? valueText(*test.setup.expected) : QString());
    m_expected->setPlaceholderText(expected ? valueText(expected->value) : tr("not known"));
    m_expectedSource->setText(expected ? QString::fromStdString(expected->source)
                                       : tr("Type what you expect."));
    refreshVerdict();
    refreshSaid();
}

} // namespace inchpeg::app
