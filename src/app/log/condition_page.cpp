// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/condition_page.h"

#include "app/log/table_buttons.h"
#include "app/parts/page_parts.h"
#include "app/parts/peg_mark.h"
#include "core/logbook/conditioning.h"
#include "core/units/number.h"
#include "service/log_tables.h"

namespace inchpeg::app
{

namespace
{

constexpr int kMinute_ms = 60000;
constexpr int kTimeWidth = 134;
constexpr int kNumberWidth = 54;

QString stepTitle(StepKind kind)
{
    switch (kind) {
    case StepKind::Drying:
        return ConditionPage::tr("Drying");
    case StepKind::Conditioning:
        return ConditionPage::tr("Conditioning");
    case StepKind::Annealing:
        return ConditionPage::tr("Annealing");
    }
    throw ContractViolation("unknown step");
}

QString platesText(const TimedStep &step)
{
    if (step.plates.empty())
        return ConditionPage::tr("all plates");
    QStringList numbers;
    for (const int plate : step.plates)
        numbers << QString::number(plate);
    return (step.plates.size() == 1 ? ConditionPage::tr("plate %1") : ConditionPage::tr("plates %1"))
        .arg(numbers.join(QStringLiteral(", ")));
}

QString numberText(const std::optional<double> &value)
{
    return value ? QString::number(*value, 'g', 5) : QString();
}

Result<std::optional<double>> numberFrom(const QString &text)
{
    if (text.trimmed().isEmpty())
        return std::optional<double>();
    const std::optional<double> number = parseTypedNumber(text.trimmed().toStdString());
    if (!number)
        return invalidArgument("\"" + text.trimmed().toStdString() + "\" is no number");
    return number;
}

} // namespace

ConditionPage::ConditionPage(ProjectSession &session, Prompts &prompts, QWidget *parent)
    : QWidget(parent), m_session(session)
{
    setObjectName(QStringLiteral("conditionPage"));
    QVBoxLayout *layout = scrollingPage(this);
    auto *top = new QHBoxLayout;
    top->addWidget(heading(tr("Drying, conditioning, annealing")), 1);
    top->addWidget(new TableButtons(
        session, prompts,
        {"Steps", tr("of timed steps"), QStringLiteral("steps.csv"), &timedStepsPreview, &stepTable}));
    layout->addLayout(top);
    layout->addWidget(
        softLabel(tr("Ovens: gloves, never one that is used for food, never unattended; extraction for "
                     "styrenics and nylons. The oven's manual and local codes go before anything said "
                     "here.")));
    layout->addWidget(createStart());
    m_steps = new QVBoxLayout;
    layout->addLayout(m_steps);
    layout->addStretch(1);
    m_minute.setInterval(kMinute_ms);
    connect(&m_minute, &QTimer::timeout, this, [this] {
        if (isVisible())
            refresh();
    });
    m_minute.start();
}

QWidget *ConditionPage::createStart()
{
    m_plates = comboBox("stepPlates", tr("For which plates"));
    m_plates->setMinimumContentsLength(8);
    auto *box = new QWidget;
    auto *grid = new QGridLayout(box);
    grid->setContentsMargins(0, 0, 0, 0);
    auto *row = new QHBoxLayout;
    row->addWidget(m_plates);
    const std::pair<const char *, StepKind> kinds[] = {{"startDrying", StepKind::Drying},
                                                       {"startConditioning", StepKind::Conditioning},
                                                       {"startAnnealing", StepKind::Annealing}};
    for (const auto &[name, kind] : kinds) {
        auto *push =
            button(name, tr("Start %1").arg(stepTitle(kind).toLower()), kind == StepKind::Conditioning);
        row->addWidget(push);
        connect(push, &QPushButton::clicked, this, [this, kind = kind] { begin(kind); });
    }
    row->addStretch(1);
    m_skipKind = comboBox("skipKind", tr("Which step was skipped"));
    for (const StepKind kind : kStepKinds)
        m_skipKind->addItem(stepTitle(kind), static_cast<int>(kind));
    m_reason = lineEdit("skipReason", tr("Why it was skipped"), tr("why"));
    auto *skipped = button("skipStep", tr("was skipped"));
    auto *skip = new QHBoxLayout;
    skip->addWidget(m_skipKind);
    skip->addWidget(m_reason, 1);
    skip->addWidget(skipped);
    skip->addStretch(1);
    grid->addLayout(row, 0, 0);
    grid->addLayout(skip, 1, 0);
    connect(skipped, &QPushButton::clicked, this, &ConditionPage::skip);
    return box;
}

bool ConditionPage::change(const QString &what, std::size_t index, const TimedStep &shown,
                           const std::function<Status(TimedStep &)> &edit)
{
    return m_session.tryEdit(what, [&](Study &study) -> Status {
        if (const Status there = stillAt(index, study.log.steps, shown); !there)
            return there;
        TimedStep &step = study.log.steps[index];
        if (const Status status = edit(step); !status)
            return status;
        return checkStep(step);
    });
}

void ConditionPage::begin(StepKind kind)
{
    const int plate = m_plates->currentData().toInt();
    m_session.tryEdit(tr("%1 starts").arg(stepTitle(kind).toLower()), [&](Study &study) {
        TimedStep step = wantedStep(study, m_session.workshop(), kind, m_session.workshopTime());
        if (plate > 0)
            step.plates = {plate};
        step.who = m_session.who().toStdString();
        step.when = m_session.now();
        study.log.steps.push_back(step);
        return checkStep(step);
    });
}

void ConditionPage::skip()
{
    const int plate = m_plates->currentData().toInt();
    const bool done = m_session.tryEdit(tr("a step was skipped"), [&](Study &study) {
        TimedStep step;
        step.kind = static_cast<StepKind>(m_skipKind->currentData().toInt());
        step.skipped = true;
        step.note = m_reason->text().trimmed().toStdString();
        if (plate > 0)
            step.plates = {plate};
        step.who = m_session.who().toStdString();
        step.when = m_session.now();
        study.log.steps.push_back(step);
        return checkStep(step);
    });
    if (done)
        m_reason->clear();
}

void ConditionPage::addField(QHBoxLayout *row, std::size_t index, const TimedStep &shown, const char *name,
                             const QString &label, int width, const QString &text,
                             const std::function<Status(TimedStep &, const QString &)> &set)
{
    auto *edit = lineEdit("", label);
    edit->setObjectName(QLatin1String(name) + QString::number(index));
    edit->setText(text);
    edit->setMaximumWidth(width);
    edit->setToolTip(label);
    row->addWidget(edit);
    onTyped(
        edit,
        [this, index, shown, label, set](const QString &typed) {
            return change(label.toLower(), index, shown,
                          [&](TimedStep &step) { return set(step, typed.trimmed()); });
        },
        [this] { refresh(); });
}

void ConditionPage::addStep(std::size_t index)
{
    const StudyLog &log = m_session.study()->log;
    const TimedStep &step = log.steps[index];
    const Moment now = m_session.workshopTime();
    auto *box = new QWidget;
    auto *column = new QVBoxLayout(box);
    column->setContentsMargins(0, 4, 0, 4);
    column->setSpacing(3);
    auto *top = new QHBoxLayout;
    top->addWidget(new PegMark(step.skipped       ? PegState::LeftOut
                               : step.end.empty() ? PegState::Measured
                                                  : PegState::Read));
    auto *title = new QLabel(tr("%1, %2").arg(stepTitle(step.kind), platesText(step)));
    QFont bold = title->font();
    bold.setWeight(QFont::DemiBold);
    title->setFont(bold);
    title->setMinimumWidth(165);
    top->addWidget(title);
    auto *told = new QLabel(QString::fromStdString(stepSentence(log, step, now)));
    told->setObjectName(QStringLiteral("stepSentence%1").arg(index));
    told->setWordWrap(true);
    top->addWidget(told, 1);
    auto *drop = button("", tr("Remove"));
    drop->setObjectName(QStringLiteral("removeStep%1").arg(index));
    drop->setProperty("slim", true);
    if (!step.skipped && step.end.empty()) {
        auto *end = button("", tr("Ends now"));
        end->setObjectName(QStringLiteral("endStep%1").arg(index));
        end->setProperty("slim", true);
        top->addWidget(end);
        connect(end, &QPushButton::clicked, this, [this, index, step] {
            change(tr("a step ends"), index, step, [this](TimedStep &one) {
                one.end = momentText(m_session.workshopTime());
                return ok();
            });
        });
    }
    top->addWidget(drop);
    connect(drop, &QPushButton::clicked, this, [this, index, step] {
        m_session.tryEdit(tr("remove a step"), [&](Study &study) -> Status {
            if (const Status there = stillAt(index, study.log.steps, step); !there)
                return there;
            study.log.steps.erase(study.log.steps.begin() + static_cast<std::ptrdiff_t>(index));
            return ok();
        });
    });
    column->addLayout(top);
    if (!step.skipped) {
        auto *row = new QHBoxLayout;
        row->setContentsMargins(26, 0, 0, 0);
        const auto time = [&](const char *name, const QString &label, std::string TimedStep::*of) {
            row->addWidget(softLabel(label));
            addField(row, index, step, name, label, kTimeWidth, shownTime(step.*of),
                     [of](TimedStep &one, const QString &text) {
                         one.*of = keptTime(text);
                         return ok();
                     });
        };
        time("stepStart", tr("start"), &TimedStep::start);
        time("stepEnd", tr("end"), &TimedStep::end);
        row->addStretch(1);
        column->addLayout(row);
        row = new QHBoxLayout;
        row->setContentsMargins(26, 0, 0, 0);
        const auto number = [&](const char *name, const QString &label, const QString &text, auto put) {
            row->addWidget(softLabel(label));
            addField(row, index, step, name, label, kNumberWidth, text,
                     [put](TimedStep &one, const QString &typed) -> Status {
                         const Result<std::optional<double>> value = numberFrom(typed);
                         if (!value)
                             return value.error();
                         put(one, *value);
                         return ok();
                     });
        };
        number("stepHours", tr("wanted h"), numberText(step.wanted_h),
               [](TimedStep &one, std::optional<double> value) { one.wanted_h = value.value_or(0.0); });
        number("stepTemperature", tr("°C"), numberText(step.temperature_C),
               [](TimedStep &one, std::optional<double> value) { one.temperature_C = value; });
        number("stepHumidity", tr("% humidity"), numberText(step.humidity_percent),
               [](TimedStep &one, std::optional<double> value) { one.humidity_percent = value; });
        row->addStretch(1);
        column->addLayout(row);
    }
    m_steps->addWidget(box);
}

void ConditionPage::refresh()
{
    const Study *study = m_session.study();
    if (study == nullptr)
        return;
    const int chosen = m_plates->currentData().toInt();
    m_plates->clear();
    m_plates->addItem(tr("all plates"), 0);
    for (const PrintedPlate &plate : study->plan.print.printed)
        m_plates->addItem(tr("plate %1").arg(plate.number), plate.number);
    m_plates->setCurrentIndex(std::max(0, m_plates->findData(chosen)));
    clearLayout(m_steps);
    for (std::size_t i = 0; i < study->log.steps.size(); ++i)
        addStep(i);
    if (study->log.steps.empty()) {
        auto *none = softLabel(tr("No step is logged yet. A step that starts now takes its hours and its "
                                  "temperature from the spool's card or the polymer; change them as they "
                                  "were."));
        none->setObjectName(QStringLiteral("noSteps"));
        m_steps->addWidget(none);
    }
}

} // namespace inchpeg::app
